"""A job judged in two layers: its design from what is built and found, its tests from that and the readings."""
