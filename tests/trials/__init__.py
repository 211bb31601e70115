"""Trial jobs as data: traps, ordinary installations and planted readings, each with its argument."""
