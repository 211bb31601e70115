"""Opening and reaching the database.

Every acknowledged write is on the disk: write-ahead logging with a sync at every commit. A transaction that writes
takes the lock at its start, so that what it reads is the newest and it never has to give up half way.
"""

from __future__ import annotations

import os
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from pathlib import Path
from threading import Lock
from typing import Any

from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

from fulmen.core.judging.kept_designs import KeptDesigns
from fulmen.settings import Settings
from fulmen.store.chain import chain_new_rows
from fulmen.store.errors import Busy
from fulmen.store.last_seen import LastSeen
from fulmen.store.places import real_path

Sessions = Callable[[], Session]
PRAGMAS = (
    "foreign_keys=ON",
    "recursive_triggers=ON",
    "journal_mode=WAL",
    "busy_timeout=10000",
    # FULL, not NORMAL: what was acknowledged survives a power cut, for one sync more at each commit.
    "synchronous=FULL",
)


def open_database(settings: Settings) -> Engine:
    """An engine on the database's file, which only its owner can read."""
    own_file(real_path(settings.database))
    engine = create_engine(settings.database_url(), pool_size=16, max_overflow=64)
    event.listen(engine, "connect", _prepare)
    event.listen(engine, "begin", _begin)
    return engine


def sessions(engine: Engine) -> sessionmaker[Session]:
    """Where operations get their transactions from."""
    info = {TURN: Lock(), LAST_SEEN: LastSeen(), KEPT: KeptDesigns()}
    made = sessionmaker(engine, expire_on_commit=False, info=info)
    event.listen(made, "after_flush", chain_new_rows)
    return made


def kept_designs(sessions: Sessions) -> KeptDesigns:
    """The designs that this process worked out last."""
    with sessions() as session:
        found: KeptDesigns = session.info[KEPT]
        return found


@contextmanager
def writing(sessions: Sessions) -> Iterator[Session]:
    """A session in a transaction that may write: it waits for the lock first, commits at the end, or nothing of it is
    kept.

    Raises:
        Busy: others of this process write for longer than anybody should wait.
    """
    with sessions() as session:
        # SQLite's own lock is polled, ever more seldom: whoever waits for it among many may be passed over for long.
        turn: Lock = session.info[TURN]
        if not turn.acquire(timeout=LOCK_S):
            raise Busy(BUSY)
        try:
            with session.begin():
                session.connection(execution_options={"writes": True})
                yield session
        finally:
            turn.release()
    something_kept.set(True)


# Where a session keeps the turn of its process, and how long anybody waits for that or for SQLite's own lock.
TURN, LOCK_S = "turn", 10
# Where it keeps the jobs that its process saw last, see `store.stored_jobs`.
LAST_SEEN = "last seen"
# Where it keeps the designs that it worked out last: whoever saves a reading waits for the tests alone.
KEPT = "kept designs"
BUSY = "Fulmen is busy writing what others sent: try again in a moment. Nothing was saved."


# Whether anything was committed in this context, so that an error after it does not say that nothing was.
something_kept: ContextVar[bool] = ContextVar("something_kept", default=False)


def own_file(path: Path) -> None:
    """Have a file that only its owner can read and write; SQLite gives its side files the same rights."""
    path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    if not path.exists():
        os.close(os.open(path, os.O_CREAT | os.O_RDWR, 0o600))


def _prepare(connection: sqlite3.Connection, _record: object) -> None:
    # Transactions begin where `_begin` says, not where the driver guesses.
    connection.isolation_level = None
    cursor = connection.cursor()
    for pragma in PRAGMAS:
        cursor.execute(f"PRAGMA {pragma}")
    cursor.close()


def _begin(connection: Connection) -> None:
    options: Any = connection.get_execution_options()
    connection.exec_driver_sql("BEGIN IMMEDIATE" if options.get("writes") else "BEGIN")
