"""The figures of each run and each circuit of it."""
