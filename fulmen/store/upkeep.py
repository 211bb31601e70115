"""Keeping a store: looked at before it is opened, brought to the newest schema, backed up, put back."""

from __future__ import annotations

import os
import re
import sqlite3
from contextlib import closing, suppress
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory

from fulmen.settings import Settings
from fulmen.store.chain import ChainHead, newest_head
from fulmen.store.database import open_database, own_file, sessions, writing
from fulmen.store.errors import Unusable
from fulmen.store.generations import mark_restored
from fulmen.store.places import move_leftovers_away, one_server, read_and_write, read_only, real_path, side_files

MIGRATIONS = Path(__file__).parent / "migrations"
HEADER = b"SQLite format 3\x00"
# A bigger file is looked over by `fulmen doctor` only: a start should not take minutes.
LOOKED_OVER_BYTES = 200_000_000


def migrate(settings: Settings) -> Path | None:
    """Bring the database to the newest schema, whole or not at all; running it again changes nothing.

    Returns:
        The copy of an older database that was taken first, if one was migrated.

    Raises:
        Unusable: the path holds no database of ours, a damaged one, or one of a newer Fulmen.
    """
    path = real_path(settings.database)
    stands = revision_of(path)
    if stands is None:
        move_leftovers_away(path)
    config = _config(settings)
    scripts = ScriptDirectory.from_config(config)
    newest = scripts.get_current_head()
    if stands is not None and stands not in {one.revision for one in scripts.walk_revisions()}:
        raise Unusable(f"{path} was written by a newer Fulmen (schema {stands}, not {newest}): use that one.")
    copy = None
    if stands is not None and stands != newest:
        copy = path.with_name(f"{path.name}.before-{newest}")
        _copy(path, copy)
    own_file(path)
    command.upgrade(config, "head")
    return copy


def newest_here(path: Path) -> None:
    """See that a database of this version stands there; looking it over must not change it.

    Raises:
        Unusable: there is none, or it is of another version.
    """
    stands, newest = revision_of(path), ScriptDirectory(str(MIGRATIONS)).get_current_head()
    if stands is None:
        raise Unusable(f"There is no database at {path}.")
    if stands != newest:
        raise Unusable(f"{path} is of another version (schema {stands}, not {newest}): start this Fulmen on it first.")


def revision_of(path: Path) -> str | None:
    """The schema that a database has; None where there is no database yet.

    Raises:
        Unusable: there is something else, or it is damaged.
    """
    if path.is_dir():
        raise Unusable(f"{path} is a folder, not a database: set FULMEN_DATABASE to a file.")
    if not path.exists() or path.stat().st_size == 0:
        return None
    try:
        with path.open("rb") as file:
            if file.read(len(HEADER)) != HEADER:
                raise Unusable(f"{path} is no database. Nothing was changed; set FULMEN_DATABASE to another file.")
        with closing(sqlite3.connect(read_and_write(path), uri=True)) as database:
            database.execute("PRAGMA busy_timeout=10000")
            _look_over(path, database)
            tables = {name for (name,) in database.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            if not tables:
                return None
            if "alembic_version" not in tables or "job" not in tables:
                raise Unusable(f"{path} is a database, but not one of Fulmen's. Nothing was changed.")
            found = database.execute("SELECT version_num FROM alembic_version").fetchone()
            return str(found[0]) if found else None
    except PermissionError as error:
        raise Unusable(f"{path} can't be read: {error.strerror}.") from None
    except sqlite3.OperationalError as error:
        raise Unusable(f"{path} can't be opened: {error}.") from None
    except sqlite3.DatabaseError as error:
        raise Unusable(damaged(path, str(error))) from None


def damaged(path: Path, what: str) -> str:
    """What to do about a damaged database."""
    return f"{path} is damaged ({what}): keep it as it is and restore the newest backup beside it."


def _look_over(path: Path, database: sqlite3.Connection) -> None:
    pages, size = (database.execute(f"PRAGMA {name}").fetchone()[0] for name in ("page_count", "page_size"))
    # What is still in the log may reach past the file's end.
    if pages * size > path.stat().st_size and not path.with_name(f"{path.name}-wal").exists():
        raise Unusable(damaged(path, "it breaks off"))
    if path.stat().st_size <= LOOKED_OVER_BYTES:
        found = database.execute("PRAGMA quick_check(1)").fetchone()[0]
        if found != "ok":
            raise Unusable(damaged(path, found.splitlines()[0]))


def back_up(settings: Settings, target: Path) -> None:
    """Copy the live database to a new file with SQLite's own online backup; its newest head lies beside it.

    Raises:
        Unusable: there is no database to copy, or the target is there already; a backup never overwrites.
    """
    if revision_of(settings.database) is None:
        raise Unusable(f"There is no database at {settings.database}: nothing was backed up.")
    if target.exists():
        raise Unusable(f"{target} is there already; a backup never overwrites.")
    _copy(settings.database, target)
    with closing(sqlite3.connect(read_only(target), uri=True)) as copy:
        found = copy.execute("SELECT id, head FROM chain ORDER BY id DESC LIMIT 1").fetchone()
    if found:
        beside = head_file(target)
        own_file(beside)
        beside.write_text(f"entry {found[0]}, {found[1]}\n", encoding="utf-8")


# How much of a file of heads is read: some hundreds.
MOST_HEADS = 100_000
HEAD = re.compile(r"entry (\d{1,12}), ([0-9a-f]{64})")


def heads_in(file: Path) -> tuple[ChainHead, ...]:
    """The heads that a file tells of, as they are written beside a backup; none where there is no such file."""
    if not file.exists():
        return ()
    with file.open(encoding="utf-8", errors="replace") as source:
        found = HEAD.findall(source.read(MOST_HEADS))
    return tuple(ChainHead(int(entry), head) for entry, head in found)


def head_file(backup: Path) -> Path:
    """Where the head of a backup's chain is written."""
    return backup.with_name(f"{backup.name}.head")


@dataclass(frozen=True)
class Restored:
    """What a restore did: the mark that the store's new numbers bear, and what was moved out of its way."""

    mark: str
    moved_away: tuple[Path, ...]


def restore(settings: Settings, backup: Path, now: datetime) -> Restored:
    """Put a backup in the database's place, where there is none, and look it over there.

    Raises:
        Unusable: there is a database already, a Fulmen serves it, or the backup is missing, damaged or altered.
    """
    target = real_path(settings.database)
    with one_server(target):
        return _restored(target, backup, now)


def _restored(target: Path, backup: Path, now: datetime) -> Restored:
    from fulmen.store.doctor import first_fault

    if target.exists() and target.stat().st_size:
        raise Unusable(f"{target} is there already; move it away first. Nothing was overwritten.")
    if revision_of(backup) is None:
        raise Unusable(f"There is no backup at {backup}.")
    fault = first_fault(backup, outside=heads_in(head_file(backup)))
    if fault:
        raise Unusable(f"{backup} is not as it was written: {fault} Nothing was restored.")
    moved = move_leftovers_away(target)
    part = target.with_name(f"{target.name}.restoring")
    _copy(backup, part)
    try:
        mark = _marked(part, now)
        fault = first_fault(part)
        if fault:
            raise Unusable(f"The copy of {backup} is not what it should be: {fault} Nothing was restored.")
        part.replace(target)
    finally:
        for left in (part, *side_files(part)):
            left.unlink(missing_ok=True)
    return Restored(mark, tuple(moved))


def _marked(part: Path, now: datetime) -> str:
    """Mark a restored store; it is brought to this version first, as only that one knows marks."""
    settings = Settings(database=part)
    copy = migrate(settings)
    if copy is not None:
        copy.unlink()
    engine = open_database(settings)
    try:
        with writing(sessions(engine)) as session:
            head = newest_head(session.connection()).words()
            mark = mark_restored(session, head, now)
    finally:
        engine.dispose()
    with closing(sqlite3.connect(part)) as database:
        # One file again, with its log written into it.
        database.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        database.execute("PRAGMA journal_mode=DELETE")
    return mark


def _copy(source: Path, target: Path) -> None:
    """A whole copy under another name first, so that a copy is there or is not, never half."""
    part = target.with_name(f"{target.name}.part")
    part.unlink(missing_ok=True)
    own_file(part)
    try:
        with closing(sqlite3.connect(read_only(source), uri=True)) as old, closing(sqlite3.connect(part)) as new:
            old.backup(new)
            # One file, without a log beside it.
            new.execute("PRAGMA journal_mode=DELETE")
        descriptor = os.open(part, os.O_RDONLY)
        os.fsync(descriptor)
        os.close(descriptor)
        part.replace(target)
    finally:
        with suppress(OSError):
            part.unlink(missing_ok=True)


def _config(settings: Settings) -> Config:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    # As an object: no character of a path means anything in it.
    config.attributes["url"] = settings.database_url()
    return config
