"""How often somebody may come: a bucket of calls for each address or link, filled again as time goes by."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager

MOST_KEPT = 10_000


class OneEach:
    """What each may do once at a time: whoever is at it has to end it first."""

    def __init__(self) -> None:
        self._at_it: set[str] = set()
        self._guard = threading.Lock()

    @contextmanager
    def turn(self, name: str) -> Iterator[bool]:
        """Whether it is theirs to do now."""
        with self._guard:
            free = name not in self._at_it
            self._at_it.add(name)
        try:
            yield free
        finally:
            if free:
                with self._guard:
                    self._at_it.discard(name)


class Buckets:
    """One bucket for each name; a full bucket is forgotten, so that nobody fills the memory with names."""

    def __init__(self, holds: float, per_second: float, clock: Callable[[], float] = time.monotonic) -> None:
        self.holds, self.per_second, self._clock = holds, per_second, clock
        self._left: dict[str, tuple[float, float]] = {}
        self._guard = threading.Lock()

    def take(self, name: str) -> bool:
        """Take one call; False where none is left."""
        with self._guard:
            left = self._now(name)
            if left < 1:
                return False
            if len(self._left) >= MOST_KEPT:
                self._forget()
            self._left[name] = (left - 1, self._clock())
            return True

    def empty(self, name: str) -> bool:
        """Whether none is left."""
        with self._guard:
            return self._now(name) < 1

    def _now(self, name: str) -> float:
        left, at = self._left.get(name, (self.holds, self._clock()))
        return min(self.holds, left + (self._clock() - at) * self.per_second)

    def _forget(self) -> None:
        self._left = {name: one for name, one in self._left.items() if self._now(name) < self.holds}
        if len(self._left) >= MOST_KEPT:
            self._left.clear()
