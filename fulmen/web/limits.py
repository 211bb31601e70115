"""How often somebody may come: a bucket of calls for each address or link, filled again as time goes by."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable

MOST_KEPT = 10_000


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
