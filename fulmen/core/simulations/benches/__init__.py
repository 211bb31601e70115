"""Benches: a street with a broken PEN, a chain of RCDs, a day on the supply, played through."""
