"""Whether a PDF is a certificate of this store, by what it says of itself and by what it shows.

A genuine one is never called altered: where the store is not what it was when the paper was issued, that is said.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Protocol

from sqlalchemy import select
from sqlalchemy.orm import Session, undefer

from fulmen.store.chain import head_at, is_sealed, newest_head
from fulmen.store.database import Sessions
from fulmen.store.tables import PaperRow

GENUINE, SAVED_AGAIN, SUPERSEDED = "genuine", "saved_again", "superseded"
ALTERED, STORE_ALTERED, LATER, UNKNOWN = "altered", "store_altered", "later", "unknown"


TITLES = {
    GENUINE: "Genuine",
    SAVED_AGAIN: "Genuine, saved again",
    SUPERSEDED: "Superseded",
    ALTERED: "Altered",
    STORE_ALTERED: "This store was altered",
    LATER: "Later than this store",
    UNKNOWN: "Unknown",
}


class Read(Protocol):
    """What was read of a paper, see `documents.paper_reader`."""

    @property
    def number(self) -> str: ...
    @property
    def entry(self) -> int: ...
    @property
    def head(self) -> str: ...
    @property
    def job_sha256(self) -> str: ...
    @property
    def page(self) -> int: ...
    @property
    def anew(self) -> bool: ...


# Reads a PDF, beside the one that was kept where there is one; raises ValueError where it can't be read.
Reader = Callable[[bytes, bytes], Read]


@dataclass(frozen=True)
class Verified:
    """What a file is, and that in words."""

    verdict: str
    words: str

    @property
    def title(self) -> str:
        """The verdict in a word or two."""
        return TITLES[self.verdict]


def verify(sessions: Sessions, pdf: bytes, reader: Reader) -> Verified:
    """Tell what a file is: which certificate of this store, and whether it still is what was issued."""
    try:
        read = reader(pdf, b"")
    except ValueError as error:
        return Verified(UNKNOWN, str(error))
    with sessions() as session:
        kept = _kept(session, read)
        if kept is None:
            return _not_kept(session, read)
        if not is_sealed(session.connection(), "paper", kept) or _of_another_past(session, read):
            words = f"It names {kept.number}, but this store is not what it was when that was issued: run doctor."
            return Verified(STORE_ALTERED, words)
        if pdf != kept.pdf:
            return _told_apart(session, reader(pdf, kept.pdf), kept)
        return _in_force(session, kept, GENUINE, "")


def _kept(session: Session, read: Read) -> PaperRow | None:
    """The paper that a file says it is: by its number, else by the job inside."""
    query = select(PaperRow).options(undefer(PaperRow.pdf))
    by_number = session.scalars(query.where(PaperRow.number == read.number)).first() if read.number else None
    if by_number is not None or not read.job_sha256:
        return by_number
    return session.scalars(query.where(PaperRow.sha256 == read.job_sha256)).first()


def _of_another_past(session: Session, read: Read) -> bool:
    """Whether the state of the store that a paper names is none that this store ever had."""
    return bool(read.head) and head_at(session.connection(), read.entry) != read.head


def _told_apart(session: Session, read: Read, kept: PaperRow) -> Verified:
    if read.job_sha256 and read.job_sha256 != kept.sha256:
        return Verified(ALTERED, f"The job inside is not the one that {kept.number} was made from.")
    if read.page:
        return Verified(ALTERED, f"Page {read.page} is not what was issued as {kept.number}.")
    if read.anew:
        words = (
            f"It names {kept.number}, but was printed or scaled anew, so that its pages can't be held against those."
        )
        return Verified(UNKNOWN, f"{words} Ask for the PDF as it was issued.")
    lost = "" if read.job_sha256 else " The job file that was inside is gone."
    return _in_force(session, kept, SAVED_AGAIN, f" Another program saved it again.{lost}")


def _in_force(session: Session, kept: PaperRow, verdict: str, more: str) -> Verified:
    later = session.scalar(select(PaperRow.number).where(PaperRow.supersedes_id == kept.id))
    if later is not None:
        return Verified(SUPERSEDED, f"{kept.number} is genuine; {later} superseded it.{more}")
    return Verified(verdict, f"{kept.number}, issued {kept.issued_at:%-d %B %Y}, in force.{more}")


def _not_kept(session: Session, read: Read) -> Verified:
    """A paper that names a state of this store, or a later one, may have been issued since this backup was made."""
    if not read.head:
        return Verified(UNKNOWN, "It is no certificate of this store.")
    newest = newest_head(session.connection()).entry
    if read.entry <= newest and _of_another_past(session, read):
        return Verified(UNKNOWN, "It names a state that this store never had.")
    words = (
        f"This store holds no {read.number or 'such certificate'}, and it names a state of this store or a later one."
    )
    return Verified(LATER, f"{words} It was issued after this store was backed up, or never: ask a newer copy.")
