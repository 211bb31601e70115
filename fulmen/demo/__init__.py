"""The demo: the example job files, loaded once into an empty store, never over a user's data."""

from __future__ import annotations

from datetime import datetime, timedelta

from fulmen.examples import EXAMPLES, example
from fulmen.store.database import Sessions
from fulmen.store.operations import create_job, is_empty


def load_demo(sessions: Sessions, now: datetime) -> int:
    """Load every example into an empty store; how many were loaded, 0 where jobs stand there already."""
    if not is_empty(sessions):
        return 0
    files = sorted(EXAMPLES.glob("*.json"))
    for minutes, path in enumerate(reversed(files)):
        create_job(sessions, example(path.stem), now + timedelta(seconds=minutes), "demo")
    return len(files)
