"""Who has which step of a job open just now: remembered by this process for some seconds, never stored.

A phone asks ever again; nobody is kept waiting on an open connection.
"""

from __future__ import annotations

import time
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from threading import Lock

# Who has not asked for so long is gone; how many devices of a job, and how many jobs, are remembered at once.
GONE_AFTER_S, MOST_DEVICES, MOST_JOBS = 6.0, 12, 500


@dataclass(frozen=True, slots=True)
class Opened:
    """What somebody has open: a step of a subject, or none."""

    name: str
    step: str = ""
    subject: str = ""


class Beside:
    """Who is at which job."""

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._jobs: OrderedDict[int, OrderedDict[str, tuple[float, Opened]]] = OrderedDict()
        self._guard, self._clock = Lock(), clock

    def heard(self, job_id: int, device: str, opened: Opened) -> tuple[Opened, ...]:
        """Remember what a device has open, and tell who else is at the job; whoever gave no name is nobody."""
        now = self._clock()
        with self._guard:
            here = self._jobs.setdefault(job_id, OrderedDict())
            self._jobs.move_to_end(job_id)
            here[device] = (now, opened)
            here.move_to_end(device)
            for gone in [one for one, (at, _) in here.items() if now - at > GONE_AFTER_S]:
                del here[gone]
            while len(here) > MOST_DEVICES:
                here.popitem(last=False)
            while len(self._jobs) > MOST_JOBS:
                self._jobs.popitem(last=False)
            return tuple(one for other, (_, one) in here.items() if other != device and one.name)
