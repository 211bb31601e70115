"""How slow the machine is just now, so that limits of time mean the same on another one."""

from __future__ import annotations

import time

# What the loop takes on a quiet core of the machine that the limits were set on.
QUIET_S = 0.23


def how_much_slower() -> float:
    """How many times as long as there a loop of multiplications takes here; never less than once."""
    started = time.perf_counter()
    total = 0
    for number in range(3_000_000):
        total += number * number
    return max(1.0, (time.perf_counter() - started) / QUIET_S)
