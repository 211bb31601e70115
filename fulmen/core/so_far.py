"""Looking for other ways step by step: how far it came, and what is found so far, told whenever somebody wants to see.

Whoever looks is a generator that yields after every step. The core knows no clock and no caller: how fast the steps are
taken, and how often is told in between, changes nothing in how it ends.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Generic, TypeVar

Found = TypeVar("Found", covariant=True)


@dataclass(frozen=True)
class SoFar(Generic[Found]):
    """After a step: how many of how many were tried, and what tells the best of them. Telling may cost something."""

    tried: int
    of: int
    tell: Callable[[], Found]


def finished(looking: Iterator[SoFar[Found]]) -> Found:
    """What is found once everything was tried.

    >>> finished(SoFar(tried, 3, lambda tried=tried: "x" * tried) for tried in range(4))
    'xxx'
    """
    (last,) = deque(looking, maxlen=1)
    return last.tell()
