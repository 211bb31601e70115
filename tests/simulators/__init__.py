"""Stand-ins."""
