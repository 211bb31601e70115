"""The queue of certificates: one at a time, in a thread of its own, so that no page waits for a paper.

Whoever asked is told at once that it waits, and how many are before it. Each wish is claimed in its row by the queue
that renders it, so that queues of several processes never make one twice.
"""

from __future__ import annotations

import logging
import secrets
import threading
from collections.abc import Callable
from datetime import datetime

from sqlalchemy.exc import SQLAlchemyError

from fulmen.store.database import Sessions
from fulmen.store.errors import StoreError
from fulmen.store.issues import Render, State
from fulmen.store.papers import issue_next

log = logging.getLogger(__name__)


# After an error the queue waits before it tries again, twice as long each time; a paper made sets it back.
FIRST_PAUSE_S, LONGEST_PAUSE_S = 0.1, 60.0


class IssuingQueue:
    """Renders whatever waits in the store, once somebody says that something does. No error ends its thread."""

    def __init__(self, sessions: Sessions, state: State, render: Render, clock: Callable[[], datetime]) -> None:
        self._sessions, self._state, self._render, self._clock = sessions, state, render, clock
        self._name = secrets.token_hex(16)
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
                while not self._stopped.is_set() and self._next():
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

    def _next(self) -> bool:
        return issue_next(self._sessions, self._render, self._clock, self._name, self._state) is not None
