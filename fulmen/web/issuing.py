"""The queue of certificates: one at a time, in a thread of its own, so that no page waits for a paper.

Whoever asked is told at once that it waits, and how many are before it. Several processes on one database take turns by
a lock on a file, which the system lets go of when its holder dies.
"""

from __future__ import annotations

import fcntl
import logging
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import datetime
from pathlib import Path

from fulmen.store.database import Sessions, own_file
from fulmen.store.papers import Render, issue_next

log = logging.getLogger(__name__)


class IssuingQueue:
    """Renders whatever waits in the store, once somebody says that something does."""

    def __init__(self, sessions: Sessions, lock: Path, render: Render, clock: Callable[[], datetime]) -> None:
        self._sessions, self._lock_file, self._render, self._clock = sessions, lock, render, clock
        self._guard = threading.Lock()
        self._woken, self._thread = False, None  # type: bool, threading.Thread | None

    def wake(self) -> None:
        """Something may wait."""
        with self._guard:
            self._woken = True
            if self._thread is None:
                self._thread = threading.Thread(target=self._run, name="issuing", daemon=True)
                self._thread.start()

    def _run(self) -> None:
        while True:
            with self._guard:
                if not self._woken:
                    self._thread = None
                    return
                self._woken = False
            with self._turn():
                while self._one():
                    pass

    def _one(self) -> bool:
        """Whether one was taken up; what goes wrong with it is told to who asked, and the next one has its turn."""
        try:
            return issue_next(self._sessions, self._render, self._clock) is not None
        except Exception:
            log.exception("a certificate could not be made")
            return True

    @contextmanager
    def _turn(self) -> Iterator[None]:
        own_file(self._lock_file)
        with self._lock_file.open("r+b") as file:
            fcntl.flock(file, fcntl.LOCK_EX)
            yield
