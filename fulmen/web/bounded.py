"""How long the app works on a question: until a deadline, or until nobody waits for the answer any more."""

from __future__ import annotations

import time
from collections.abc import Callable

from flask import request

from fulmen.core.alternatives.budget import Budget

# What is left of two seconds is for reading the question and writing the answer.
DEADLINE_S = 1.5


def bounded() -> Budget:
    """A budget for the question at hand."""
    gone = request.environ.get("waitress.client_disconnected", lambda: False)
    steps = in_time(DEADLINE_S, time.monotonic)
    return Budget(lambda: steps() and not gone())


def in_time(deadline_s: float, clock: Callable[[], float]) -> Callable[[], bool]:
    """Whether one more step ends before the deadline, if it takes as long as the longest so far.

    A step of a big job is a whole evaluation: begun just before the deadline it would end long after it.
    """
    until = clock() + deadline_s
    last_s, longest_s = clock(), 0.0

    def goes_on() -> bool:
        nonlocal last_s, longest_s
        now_s = clock()
        longest_s, last_s = max(longest_s, now_s - last_s), now_s
        return now_s + longest_s < until

    return goes_on
