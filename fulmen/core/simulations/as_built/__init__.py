"""A job as it was built, which may not be as designed: its faults, the set that tests it, what its readings tell."""
