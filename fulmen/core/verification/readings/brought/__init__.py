"""Readings that come in a file: how it lies, what its cells say, and what becomes of each."""
