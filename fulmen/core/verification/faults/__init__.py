"""What may be wrong with an installation or with what was written down of it, and which of that readings look like."""
