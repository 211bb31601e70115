"""Testing: instruments, readings, the way that a step measures along."""
