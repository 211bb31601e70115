"""What can go wrong in the store on purpose."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from fulmen.core.editing.differences import Difference
from fulmen.core.model.job import Job
from fulmen.core.verification.certificate_gaps import Gap


class StoreError(Exception):
    """Root of the store's own errors."""


class Unusable(StoreError):
    """The database, or a copy of it, can't be used; the sentence says why and what to do."""


class Altered(StoreError):
    """What the store holds is not what it was given."""


class NotFound(StoreError):
    """There is no such job or paper."""


@dataclass(frozen=True)
class Save:
    """A job as it was saved: by whom, as typed, and when."""

    version: int
    job: Job
    by: str
    at: datetime


class Conflict(StoreError):
    """The job was saved since it was read; `differences` tell it from what was to be saved."""

    def __init__(self, stored: Save, differences: tuple[Difference, ...] = ()) -> None:
        super().__init__("This job was saved since you opened it.")
        self.stored = stored
        self.differences = differences


class NotAsSeen(StoreError):
    """What is stored is not what the signer's screen showed; it carries the first field that differs."""

    def __init__(self, field: str, name: str) -> None:
        super().__init__(
            f"What you see is not what is saved: {name} differs. Nothing was issued. Load the job again and look at it."
        )
        self.field = field


class AppendOnly(StoreError):
    """A document tries to change readings, letters or acts, which are only ever appended."""

    def __init__(self, field: str, message: str) -> None:
        super().__init__(message)
        self.field = field


class LinkGone(StoreError):
    """The householder's link has run out or was withdrawn."""


class KeyTaken(StoreError):
    """A device's key came with another entry than before."""


class NotYours(StoreError):
    """An act came without the one-time word that lets this device do it."""


class ClaimLost(StoreError):
    """Who rendered a certificate took so long that another took it up."""


class Busy(StoreError):
    """Others write, for longer than anybody should wait."""


class TooMany(StoreError):
    """No more of these can be kept."""


class MovedOn(StoreError):
    """Something was added meanwhile by another page."""


class Outdated(StoreError):
    """It was kept by a version that knew what this one does not."""


class InUse(StoreError):
    """It can't be removed: the job rests on it."""


class NotReady(StoreError):
    """A certificate can't be issued yet."""

    def __init__(self, gaps: tuple[Gap, ...]) -> None:
        super().__init__(f"The certificate can't be issued yet. {len(gaps)} open, first: {gaps[0].text}.")
        self.gaps = gaps


class NothingChanged(StoreError):
    """The newest certificate holds the very same data."""

    def __init__(self, number: str) -> None:
        super().__init__(f"Nothing has changed since certificate {number}.")
