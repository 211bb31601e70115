"""What a process saw last: many certificates are asked for at once, each of a job that its page has just loaded."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock
from typing import Generic, TypeVar

MOST_SEEN = 64

Seen = TypeVar("Seen")


class LastSeen(Generic[Seen]):
    """The newest of what was seen, each by its number. Nothing of it is what stands now: whoever reads it compares."""

    def __init__(self) -> None:
        self._seen: OrderedDict[int, Seen] = OrderedDict()
        self._guard = Lock()

    def put(self, number: int, seen: Seen) -> None:
        """Keep one; the one that was seen longest ago goes where there are too many."""
        with self._guard:
            self._seen[number] = seen
            self._seen.move_to_end(number)
            while len(self._seen) > MOST_SEEN:
                self._seen.popitem(last=False)

    def get(self, number: int) -> Seen | None:
        """What was seen; None where it was not seen lately."""
        with self._guard:
            return self._seen.get(number)
