"""The web layer: parses, calls, serialises, and nothing else."""
