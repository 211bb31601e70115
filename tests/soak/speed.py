"""How slow the machine is just now, so that limits of time mean the same on another one."""

from __future__ import annotations

import time
from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context

# What the loop takes on one of two quiet cores of the machine that the limits were set on.
QUIET_S = 0.23


def how_much_slower() -> float:
    """How many times as long as there a loop of multiplications takes with both cores at work; never less than once."""
    with ProcessPoolExecutor(2, get_context("spawn")) as both:
        took_s = list(both.map(_loop_s, range(2)))
    return max(1.0, sum(took_s) / len(took_s) / QUIET_S)


def _loop_s(_: int) -> float:
    started, total = time.perf_counter(), 0
    for number in range(3_000_000):
        total += number * number
    return time.perf_counter() - started
