"""Readings judged: each by itself and against its limit, against the others, against who took it with what."""
