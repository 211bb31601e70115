"""How long the app works on a question: until a deadline, or until nobody waits for the answer any more."""

from __future__ import annotations

import time

from flask import request

from fulmen.core.alternatives.budget import Budget

# What is left of two seconds is for judging a last whole job, and for writing the answer.
DEADLINE_S = 1.0


def bounded() -> Budget:
    """A budget for the question at hand."""
    until = time.monotonic() + DEADLINE_S
    gone = request.environ.get("waitress.client_disconnected", lambda: False)
    return Budget(lambda: time.monotonic() < until and not gone())
