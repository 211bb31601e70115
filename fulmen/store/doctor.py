"""Looking a store over: its pages, its triggers, and every link of its chain; the first fault is named."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, create_engine, event, func, select, text
from sqlalchemy.exc import DatabaseError

from fulmen.store.chain import (
    FIRST_HEAD,
    REMOVED,
    SEALED,
    ChainHead,
    content_sha256,
    head_after,
    head_at,
    newest_head,
)
from fulmen.store.places import read_only
from fulmen.store.tables import ChainRow

Progress = Callable[[int, int], None]
# The triggers without which rows could be rewritten.
GUARDED = {
    "reading": ("update", "delete"),
    "paper": ("update", "delete"),
    "audit": ("update", "delete"),
    "letter": ("update", "delete"),
    "decision": ("update", "delete"),
    "act": ("update", "delete"),
    "chain": ("update", "delete"),
    "photo": ("update",),
}


def first_fault(path: Path, progress: Progress = lambda done, of: None, outside: tuple[ChainHead, ...] = ()) -> str:
    """The first fault of a store, in one sentence; empty where there is none.

    Args:
        path: the database's file; it is only read.
        progress: told how many of the chain's entries were looked at, of how many.
        outside: heads of its chain that were kept outside of it, on papers or beside backups.
    """
    engine = create_engine("sqlite://", creator=lambda: sqlite3.connect(read_only(path), uri=True))
    event.listen(engine, "connect", _prepare)
    try:
        with closing(engine.connect()) as connection:
            return next(_faults(connection, progress), "") or next(_other_heads(connection, outside), "")
    except DatabaseError as error:
        return f"The file is damaged: {error.orig}."
    finally:
        engine.dispose()


def _other_heads(connection: Connection, outside: tuple[ChainHead, ...]) -> Iterator[str]:
    """A chain that was made anew from some entry on holds in itself, but not against a head that left the house."""
    newest = newest_head(connection).entry
    for kept in outside:
        if kept.entry > newest:
            yield f"The chain ends at entry {newest}; the head kept outside is of entry {kept.entry}, a later state."
        elif head_at(connection, kept.entry) != kept.head:
            yield f"Entry {kept.entry} of the chain is not what was kept outside: the chain was made anew since."


def _prepare(connection: sqlite3.Connection, _record: object) -> None:
    connection.execute("PRAGMA busy_timeout=10000")


def _faults(connection: Connection, progress: Progress) -> Iterator[str]:
    whole = connection.scalar(text("PRAGMA integrity_check(1)"))
    if whole != "ok":
        yield f"The file is damaged: {whole}."
    yield from _missing_triggers(connection)
    yield from _broken_links(connection, progress)
    yield from _unsealed(connection)
    lost = connection.execute(text("PRAGMA foreign_key_check")).first()
    if lost is not None:
        yield f"A row of {lost[0]} belongs to a row of {lost[2]} that is not there."


def _missing_triggers(connection: Connection) -> Iterator[str]:
    query = text("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'")
    there = {row.name: row.sql for row in connection.execute(query)}
    tables = _tables(connection)
    for table, verbs in GUARDED.items():
        # A backup of an older version has not every table yet; what the chain holds of one that is gone is missed.
        for verb in verbs if table in tables else ():
            # Compared whole: a condition put into it would let some rows through.
            guard = (
                f"CREATE TRIGGER {table}_no_{verb} BEFORE {verb.upper()} ON {table} "
                f"BEGIN SELECT RAISE(ABORT, '{table} entries are never rewritten'); END"
            )
            if there.get(f"{table}_no_{verb}") != guard:
                yield f"The guard that keeps {table} entries from being rewritten ({verb}) was taken away."


def _broken_links(connection: Connection, progress: Progress) -> Iterator[str]:
    of = connection.scalar(select(func.count()).select_from(ChainRow)) or 0
    ever = connection.scalar(text("SELECT seq FROM sqlite_sequence WHERE name = 'chain'")) or 0
    removed = set(connection.scalars(select(ChainRow.row_id).where(ChainRow.kind == REMOVED)))
    head, number, tables = FIRST_HEAD, 0, _tables(connection)
    for entry in connection.execute(select(ChainRow.__table__).order_by(ChainRow.id)):
        number += 1
        if entry.id != number:
            yield f"Entry {number} of the chain is missing."
        if entry.head != head_after(head, entry.kind, entry.row_id, entry.content_sha256):
            yield f"Entry {number} of the chain ({entry.kind} {entry.row_id}) was altered, or one before it taken out."
        head = entry.head
        gone = entry.kind == "photo" and entry.row_id in removed
        if entry.kind != REMOVED and not gone:
            there = SEALED[entry.kind][0].__tablename__ in tables
            yield from _altered_row(connection, entry.kind, entry.row_id, entry.content_sha256, there=there)
        if number % 100 == 0:
            progress(number, of)
    yield from _unlogged_removals(connection)
    if number < ever:
        yield f"The chain breaks off after entry {number}; it had {ever}."
    progress(of, of)


def _unlogged_removals(connection: Connection) -> Iterator[str]:
    """A photo is erased by a person, and the log says so; a row that was cut out has no such entry."""
    query = select(ChainRow.row_id, ChainRow.content_sha256).where(ChainRow.kind == REMOVED)
    logged = set(connection.scalars(text("SELECT detail FROM audit WHERE verb = 'photo removed'")))
    for photo, sha256 in connection.execute(query):
        if f"{photo} {sha256}" not in logged:
            yield f"Photo {photo} was taken out, and nobody is told to have done it."


def _altered_row(connection: Connection, kind: str, row_id: int, sealed: str, *, there: bool) -> Iterator[str]:
    table = _table(kind)
    row = connection.execute(select(table).where(table.c.id == row_id)).first() if there else None
    if row is None:
        yield f"{kind.capitalize()} {row_id} was taken out."
    elif content_sha256(kind, row) != sealed:
        yield f"{kind.capitalize()} {row_id} of job {row.job_id} is not what was kept."


def _unsealed(connection: Connection) -> Iterator[str]:
    """Rows that were put in past the chain."""
    tables = _tables(connection)
    for kind in SEALED:
        table = _table(kind)
        if table.name not in tables:
            continue
        sealed = select(ChainRow.row_id).where(ChainRow.kind == kind)
        found = connection.scalar(select(table.c.id).where(table.c.id.not_in(sealed)).limit(1))
        if found is not None:
            yield f"{kind.capitalize()} {found} was put in past the chain."
        twice = select(ChainRow.row_id).where(ChainRow.kind == kind).group_by(ChainRow.row_id)
        again = connection.scalar(twice.having(func.count() > 1).limit(1))
        if again is not None:
            yield f"{kind.capitalize()} {again} was sealed twice."


def _tables(connection: Connection) -> set[str]:
    return set(connection.scalars(text("SELECT name FROM sqlite_master WHERE type = 'table'")))


def _table(kind: str) -> Any:
    return SEALED[kind][0].__table__
