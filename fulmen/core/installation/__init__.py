"""The installation, derived once from a job: boards, circuits, tails, runs with guards and RCDs, cable records."""
