"""The chain of hashes: papers, readings, letters, calls, acts, photos and audit entries, each
sealed with all that came before it.

An entry holds the SHA-256 of what its row says, and a head: the SHA-256 of the head before it and of this entry.
Whoever alters a row, or takes one out, breaks every head after it; the newest head is printed on papers and kept beside
backups.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterable
from datetime import UTC, datetime
from typing import Any, NamedTuple

from sqlalchemy import Connection, func, insert, select
from sqlalchemy.orm import Session

from fulmen.store.tables import ActRow, AuditRow, ChainRow, DecisionRow, LetterRow, PaperRow, PhotoRow, ReadingRow

FIRST_HEAD = "0" * 64
REMOVED = "photo_removed"


class ChainHead(NamedTuple):
    """The newest entry's number and head."""

    entry: int
    head: str

    def words(self) -> str:
        """Both, as they are printed."""
        return f"entry {self.entry}, {self.head}"


def _sha256(data: bytes | str) -> str:
    return hashlib.sha256(data.encode() if isinstance(data, str) else data).hexdigest()


def _time(at: datetime) -> str:
    return at.astimezone(UTC).isoformat()


def _reading(row: Any) -> list[object]:
    return [row.job_id, row.step, row.document]


def _letter(row: Any) -> list[object]:
    return [row.job_id, row.document]


def _decision(row: Any) -> list[object]:
    return [row.job_id, row.document]


def _act(row: Any) -> list[object]:
    times = [_time(row.made_at), _time(row.came_at)]
    return [row.job_id, row.kind, row.about, row.row_id, row.name, row.device, *times]


def _photo(row: Any) -> list[object]:
    pixels = [row.width_px, row.height_px]
    return [row.job_id, row.link_id, row.stop, row.question, *pixels, _sha256(row.jpeg), _sha256(row.thumbnail)]


def _paper(row: Any) -> list[object]:
    data, pdf = _sha256(row.data), _sha256(row.pdf)
    said = [row.job_id, row.number, row.kind, row.supersedes_id, _time(row.issued_at), row.sha256, data, pdf]
    # Papers sealed before they kept what they state stand as they were sealed; while an older store is brought up,
    # there is no such column yet.
    contents = getattr(row, "contents", None)
    return said if contents is None else [*said, _sha256(contents)]


def _audit(row: Any) -> list[object]:
    return [row.job_id, _time(row.at), row.verb, row.detail]


# Kind → table and what of a row is sealed; a flush seals new rows in this order.
SEALED: dict[str, tuple[Any, Callable[[Any], list[object]]]] = {
    "reading": (ReadingRow, _reading),
    "letter": (LetterRow, _letter),
    "decision": (DecisionRow, _decision),
    "act": (ActRow, _act),
    "photo": (PhotoRow, _photo),
    "paper": (PaperRow, _paper),
    "audit": (AuditRow, _audit),
}


def content_sha256(kind: str, row: object) -> str:
    """The SHA-256 of what a row says, written one way whatever the database made of it."""
    said = SEALED[kind][1](row)
    return _sha256(json.dumps(said, sort_keys=True, ensure_ascii=True, separators=(",", ":")))


def head_after(head: str, kind: str, row_id: int, content: str) -> str:
    """The head of an entry that follows another."""
    return _sha256(f"{head}\n{kind}\n{row_id}\n{content}")


def chain_new_rows(session: Session, _context: object) -> None:
    """Seal what a flush wrote; runs within its transaction, after every flush."""
    new = list(session.new)
    found = [
        (kind, row.id, content_sha256(kind, row))
        for kind, (table, _) in SEALED.items()
        for row in sorted((one for one in new if isinstance(one, table)), key=lambda one: one.id)
    ]
    gone = [(REMOVED, row.id, row.sha256) for row in session.deleted if isinstance(row, PhotoRow)]
    if found or gone:
        append(session.connection(), [*found, *gone])


def append(connection: Connection, entries: Iterable[tuple[str, int, str]]) -> None:
    """Append entries (kind, row, content) to the chain; the caller's transaction holds the write lock."""
    head = newest_head(connection).head
    for kind, row_id, content in entries:
        head = head_after(head, kind, row_id, content)
        connection.execute(insert(ChainRow).values(kind=kind, row_id=row_id, content_sha256=content, head=head))


def is_sealed(connection: Connection, kind: str, row: Any) -> bool:
    """Whether a row is what its entry says, and the entry follows from the one before it."""
    found = select(ChainRow.id, ChainRow.kind, ChainRow.row_id, ChainRow.content_sha256, ChainRow.head)
    entries = connection.execute(found.where(ChainRow.kind == kind, ChainRow.row_id == row.id)).all()
    if len(entries) != 1:
        return False
    entry = entries[0]
    before = connection.scalar(select(ChainRow.head).where(ChainRow.id == entry.id - 1)) or FIRST_HEAD
    follows = entry.head == head_after(before, kind, row.id, entry.content_sha256)
    return bool(follows and content_sha256(kind, row) == entry.content_sha256)


def next_row_id(connection: Connection, kind: str) -> int:
    """A number that no sealed row of a kind ever had: the database would give an erased row's to the next one."""
    return 1 + (connection.scalar(select(func.max(ChainRow.row_id)).where(ChainRow.kind == kind)) or 0)


def head_at(connection: Connection, entry: int) -> str:
    """The head of one entry of the chain, empty where there is none; entry 0 is before the first."""
    if entry == 0:
        return FIRST_HEAD
    return connection.scalar(select(ChainRow.head).where(ChainRow.id == entry)) or ""


def newest_head(connection: Connection) -> ChainHead:
    """The newest entry; before the first one, entry 0."""
    query = select(ChainRow.id, ChainRow.head).order_by(ChainRow.id.desc()).limit(1)
    found = connection.execute(query).first()
    return ChainHead(found.id, found.head) if found is not None else ChainHead(0, FIRST_HEAD)


# What of a job a certificate is made of, in rows of their own.
OF_A_JOB = ("reading", "letter", "decision", "act")


def first_unsealed(connection: Connection, job_id: int) -> str:
    """The first row of a job that is not what was sealed, in words; empty where each is, and none was cut out.

    Which job a row that is gone was of nobody can tell: where there are fewer rows than seals, no job is vouched for.
    """
    for kind in OF_A_JOB:
        table = SEALED[kind][0].__table__
        rows = connection.execute(select(table).where(table.c.job_id == job_id).order_by(table.c.id)).all()
        numbers = [row.id for row in rows]
        query = select(ChainRow.row_id, ChainRow.content_sha256)
        sealed = connection.execute(query.where(ChainRow.kind == kind, ChainRow.row_id.in_(numbers))).all()
        kept = {entry.row_id: entry.content_sha256 for entry in sealed}
        for row in rows:
            if kept.get(row.id) != content_sha256(kind, row):
                return f"{kind.capitalize()} {row.id} of this job is not what was kept."
        seals = connection.scalar(select(func.count()).select_from(ChainRow).where(ChainRow.kind == kind))
        if seals != connection.scalar(select(func.count()).select_from(table)):
            return f"A {kind} was taken out of this store, or put in past its chain."
    return ""
