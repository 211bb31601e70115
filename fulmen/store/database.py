"""Opening, migrating and backing up the database."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

from fulmen.settings import Settings

MIGRATIONS = Path(__file__).parent / "migrations"
Sessions = Callable[[], Session]


def open_database(settings: Settings) -> Engine:
    """An engine with foreign keys on, write-ahead logging and a busy timeout."""
    settings.database.parent.mkdir(parents=True, exist_ok=True)
    engine = create_engine(settings.database_url())
    event.listen(engine, "connect", _prepare)
    return engine


def sessions(engine: Engine) -> sessionmaker[Session]:
    """Where operations get their transactions from."""
    return sessionmaker(engine, expire_on_commit=False)


def migrate(settings: Settings) -> None:
    """Bring the database to the newest schema; running it again changes nothing."""
    settings.database.parent.mkdir(parents=True, exist_ok=True)
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("sqlalchemy.url", settings.database_url().replace("%", "%%"))
    command.upgrade(config, "head")


def back_up(settings: Settings, target: Path) -> None:
    """Copy the live database to a new file with SQLite's own online backup.

    Raises:
        FileExistsError: the target is there already; a backup never overwrites.
    """
    if target.exists():
        raise FileExistsError(f"{target} is there already")
    with closing(sqlite3.connect(settings.database)) as source, closing(sqlite3.connect(target)) as copy:
        source.backup(copy)


def _prepare(connection: sqlite3.Connection, _record: object) -> None:
    cursor = connection.cursor()
    for pragma in ("foreign_keys=ON", "journal_mode=WAL", "busy_timeout=5000", "synchronous=NORMAL"):
        cursor.execute(f"PRAGMA {pragma}")
    cursor.close()
