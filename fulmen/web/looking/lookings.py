"""Who looks for other ways just now: two at once, the others wait; each is ended once nobody asks for it any more."""

from __future__ import annotations

import logging
import secrets
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from enum import StrEnum
from multiprocessing import forkserver, get_context
from multiprocessing.connection import Connection
from typing import Any

from fulmen.core.errors import CoreError
from fulmen.store.errors import Busy, Outdated
from fulmen.web.looking.child import Steps, Told, look

log = logging.getLogger(__name__)
PROCESSES = get_context("forkserver")
# What every such process has when it starts; the command line, which comes with it, is slow for the second.
PROCESSES.set_forkserver_preload([look.__module__, "sqlalchemy"])
AT_ONCE, MOST_KEPT = 2, 40
# A page asks twice a second; one that is hidden may do so more seldom.
UNHEARD_S, LISTENS_EVERY_S = 10.0, 0.2


class LookingState(StrEnum):
    """How it stands with somebody who looks."""

    WAITS = "waits"
    GOES_ON = "goes_on"
    FINISHED = "finished"
    STOPPED = "stopped"


@dataclass
class Looking:
    """One question, and what is told of it so far."""

    steps_of: Callable[..., Steps]
    given: tuple[Any, ...]
    heard_s: float
    state: LookingState = LookingState.WAITS
    told: Told = field(default_factory=lambda: Told(0, 0, None))
    error: Exception | None = None

    @property
    def ended(self) -> bool:
        """Whether nothing more will be told."""
        return self.state in (LookingState.FINISHED, LookingState.STOPPED)


class Lookings:
    """Begins, follows and ends whoever looks; what is kept of them is bounded."""

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock = clock
        self._changed, self._going = threading.Condition(), 0
        # In the order in which they were asked for, which is that of their turns.
        self._all: dict[str, Looking] = {}

    @staticmethod
    def start() -> None:
        """Have what the processes start from loaded before the first is asked for."""
        forkserver.ensure_running()

    def begin(self, steps_of: Callable[..., Steps], *given: Any) -> str:
        """Have somebody look, now or when it is their turn; the ticket by which to ask for it.

        Raises:
            Busy: too many wait.
        """
        with self._changed:
            self._forget()
            if len(self._all) >= MOST_KEPT:
                raise Busy("Too many look for other ways just now. Try again in a moment.")
            ticket = secrets.token_urlsafe(16)
            self._all[ticket] = Looking(steps_of, given, self._clock())
            self._take_turns()
        return ticket

    def told(self, ticket: str, wait_s: float = 0.0) -> Looking:
        """How it stands, waited for a while unless it ends before.

        Raises:
            Outdated: it was ended because nobody asked for it any more, or never begun.
            CoreError: what was asked can't be.
        Busy: it broke off before its end.
        TooBig: it needs more memory than it may have.
        """
        with self._changed:
            looking = self._all.get(ticket)
            if looking is None:
                raise Outdated("Nobody looks for this any more. Ask again.")
            self._changed.wait_for(lambda: looking.ended, wait_s)
            looking.heard_s = self._clock()
            if looking.ended:
                self._all.pop(ticket, None)
        if looking.error is not None:
            raise looking.error
        return looking

    def stop(self, ticket: str) -> None:
        """End it, as far as it came."""
        with self._changed:
            looking = self._all.get(ticket)
            if looking is not None and not looking.ended:
                looking.state = LookingState.STOPPED
                self._changed.notify_all()

    def stop_all(self) -> None:
        """End all of them."""
        for ticket in list(self._all):
            self.stop(ticket)

    def _take_turns(self) -> None:
        waiting = [one for one in self._all.values() if one.state is LookingState.WAITS]
        for looking in waiting[: AT_ONCE - self._going]:
            self._going += 1
            looking.state = LookingState.GOES_ON
            threading.Thread(target=self._follow, args=(looking,), name="looking", daemon=True).start()

    def _forget(self) -> None:
        """What nobody has asked for in a while is ended and forgotten."""
        since_s = self._clock() - UNHEARD_S
        for ticket, looking in list(self._all.items()):
            if looking.heard_s < since_s:
                looking.state = LookingState.STOPPED if not looking.ended else looking.state
                del self._all[ticket]

    def _follow(self, looking: Looking) -> None:
        ours, theirs = PROCESSES.Pipe(duplex=False)
        process = PROCESSES.Process(target=look, args=(theirs, looking.steps_of, looking.given), daemon=True)
        try:
            process.start()
            theirs.close()
            while not looking.ended and self._listened(looking, ours):
                pass
        except (OSError, EOFError, RuntimeError) as error:
            log.warning("looking for other ways could not go on: %r", error)
        finally:
            if process.pid is not None:
                process.kill()
                process.join()
            ours.close()
            with self._changed:
                self._ended(looking)

    def _listened(self, looking: Looking, ours: Connection) -> bool:
        """Hear what is told next, if anything; whether more may come."""
        try:
            heard = ours.recv() if ours.poll(LISTENS_EVERY_S) else None
        except EOFError:
            return False
        with self._changed:
            self._forget()
            if looking.ended:
                return False
            if isinstance(heard, Told):
                looking.told = heard
                looking.state = LookingState.FINISHED if heard.last else looking.state
            elif heard is not None:
                looking.error, looking.state = heard, LookingState.STOPPED
            self._changed.notify_all()
        return True

    def _ended(self, looking: Looking) -> None:
        """Whoever waits has their turn; that a process died without a word is told."""
        if not looking.ended:
            looking.error = Busy("It broke off before its end. Ask again.")
            looking.state = LookingState.STOPPED
        if looking.error is not None and not isinstance(looking.error, CoreError | Busy):
            log.warning("looking for other ways failed: %r", looking.error)
        self._going -= 1
        self._changed.notify_all()
        self._take_turns()
