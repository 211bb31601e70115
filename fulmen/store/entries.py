"""What a device sends again because it never heard the answer: each entry is done once, whoever asks how often.

A device gives every entry (a reading, a photo) a key of its own before it is sent. The key is kept in the transaction
that does what the entry asks, so the two stand together or not at all.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy.orm import Session

from fulmen.store.errors import KeyTaken, StoreError
from fulmen.store.tables import EntryRow


@dataclass(frozen=True)
class Entry:
    """An entry as it came: the key its device gave it, and the SHA-256 of what it holds."""

    key: str
    sha256: str


class DoneBefore(StoreError):
    """An entry is done already: there is nothing to do again."""


def done_before(session: Session, job_id: int, entry: Entry | None) -> EntryRow | None:
    """What an entry came to when it was done, if it was.

    Raises:
        KeyTaken: the key was used for another entry.
    """
    if entry is None:
        return None
    row = session.get(EntryRow, entry.key)
    if row is not None and (row.job_id, row.sha256) != (job_id, entry.sha256):
        raise KeyTaken("Fulmen-Entry: this key was used for another entry. Nothing was kept of this one.")
    return row


def remember(session: Session, job_id: int, entry: Entry | None, now: datetime, photo_id: int | None = None) -> None:
    """Keep that an entry is done, and the photo that it came to if it was one.

    Raises:
        DoneBefore: it was done already.
        KeyTaken: the key was used for another entry.
    """
    if done_before(session, job_id, entry) is not None:
        raise DoneBefore
    if entry is not None:
        row = EntryRow(key=entry.key, job_id=job_id, sha256=entry.sha256, photo_id=photo_id, came_at=now)
        session.add(row)
