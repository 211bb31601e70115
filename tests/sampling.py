"""Samples that properties draw: other ones at every run, the same again from the seed that the run prints.

`make test` draws a few of each, `make soak` all of them, or many times as many.
"""

from __future__ import annotations

import os
from collections.abc import Iterable
from random import Random
from typing import TypeVar

from hypothesis import settings

T = TypeVar("T")
SEED = os.environ.get("FULMEN_TEST_SEED", "0")
SOAKING = bool(os.environ.get("FULMEN_SOAK"))
SOAKED_TIMES = 20


def some(of: Iterable[T], most: int, name: str) -> list[T]:
    """At most so many of them in their order, drawn by the run's seed and a name; all of them while soaking."""
    every = list(of)
    if SOAKING or len(every) <= most:
        return every
    drawn = sorted(Random(f"{SEED}/{name}").sample(range(len(every)), most))
    return [every[place] for place in drawn]


def tries(count: int) -> settings:
    """How many examples a property draws, whatever time one takes."""
    return settings(max_examples=count * SOAKED_TIMES if SOAKING else count, deadline=None)
