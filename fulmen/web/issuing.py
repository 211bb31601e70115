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

from sqlalchemy.exc import SQLAlchemyError

from fulmen.store.database import Sessions, own_file
from fulmen.store.errors import StoreError
from fulmen.store.papers import Render, issue_next

log = logging.getLogger(__name__)


# After an error the queue waits before it tries again, twice as long each time; a paper made sets it back.
FIRST_PAUSE_S, LONGEST_PAUSE_S = 0.1, 60.0


class IssuingQueue:
    """Renders whatever waits in the store, once somebody says that something does. No error ends its thread."""

    def __init__(self, sessions: Sessions, lock: Path, render: Render, clock: Callable[[], datetime]) -> None:
        self._sessions, self._lock_file, self._render, self._clock = sessions, lock, render, clock
        self._guard, self._stopped = threading.Lock(), threading.Event()
        self._woken, self._thread = False, None  # type: bool, threading.Thread | None
        self._pause_s = FIRST_PAUSE_S

    def wake(self) -> None:
        """Something may wait."""
        with self._guard:
            self._woken = True
            if self._thread is None:
                self._thread = threading.Thread(target=self._run, name="issuing", daemon=True)
                self._thread.start()

    def stop(self) -> None:
        """Take up nothing more; what is under way is made."""
        self._stopped.set()
        thread = self._thread
        if thread is not None:
            thread.join()

    def _run(self) -> None:
        while self._goes_on():
            try:
                with self._turn():
                    while not self._stopped.is_set() and issue_next(self._sessions, self._render, self._clock):
                        self._pause_s = FIRST_PAUSE_S
            except (SQLAlchemyError, StoreError, OSError) as error:
                # The store is full, locked or gone: its own words, in one line, and what waits goes on waiting.
                log.error("certificates wait, the store can't be used: %s", str(error).splitlines()[0])
                self._pause()
            except Exception:
                # Its wish was refused and told so; the next one has its turn.
                log.exception("a certificate could not be made")
                self._pause()

    def _goes_on(self) -> bool:
        """Whether somebody woke it since it last looked; its thread ends where nobody did."""
        with self._guard:
            if self._woken and not self._stopped.is_set():
                self._woken = False
                return True
            self._thread = None
            return False

    def _pause(self) -> None:
        self._stopped.wait(self._pause_s)
        self._pause_s = min(2 * self._pause_s, LONGEST_PAUSE_S)
        with self._guard:
            self._woken = True

    @contextmanager
    def _turn(self) -> Iterator[None]:
        if not self._lock_file.parent.is_dir():
            raise FileNotFoundError(f"{self._lock_file.parent} is gone")
        own_file(self._lock_file)
        with self._lock_file.open("r+b") as file:
            fcntl.flock(file, fcntl.LOCK_EX)
            yield
