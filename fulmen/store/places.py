"""Where a store lies on the disk: its file by whatever name, the files beside it, and the lock of who serves it."""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from filelock import FileLock, Timeout

from fulmen.store.errors import Unusable

# What SQLite keeps beside a database: its log, the log's index, and the journal of the older way.
SIDE_FILES = ("-wal", "-shm", "-journal")


def real_path(path: Path) -> Path:
    """The file itself, whatever links lead to it: beside it lie its log and its lock."""
    return path.resolve()


def read_only(path: Path) -> str:
    """The address at which SQLite opens a file without writing to it, whatever characters are in its name."""
    return f"{real_path(path).as_uri()}?mode=ro"


def read_and_write(path: Path) -> str:
    """The address at which SQLite opens a file that is there, whatever characters are in its name."""
    return f"{real_path(path).as_uri()}?mode=rw"


def side_files(path: Path) -> list[Path]:
    """The files of SQLite's that lie beside a database."""
    real = real_path(path)
    beside = (real.with_name(f"{real.name}{ending}") for ending in SIDE_FILES)
    return [one for one in beside if one.exists()]


def move_leftovers_away(path: Path) -> list[Path]:
    """Move away what a store that was moved left behind; SQLite would write it into the store that comes.

    Returns:
        Where each lies now.
    """
    return [_moved_away(one) for one in side_files(path)]


def _moved_away(file: Path) -> Path:
    number = 1
    while (kept := file.with_name(f"{file.name}.left-{number}")).exists():
        number += 1
    return file.rename(kept)


@contextmanager
def one_server(path: Path) -> Iterator[None]:
    """Be the one who serves a store, by whatever name it was found; the system lets go when a process dies.

    Raises:
        Unusable: another one serves it, or the file has a second name, whose log this one would never see.
    """
    real = real_path(path)
    real.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    if real.is_file() and os.stat(real).st_nlink > 1:
        raise Unusable(f"{path} is one file under two names (a hard link): copy it, and serve the copy.")
    lock = FileLock(real.with_name(f"{real.name}.lock"), timeout=0, mode=0o600)
    try:
        lock.acquire()
    except Timeout:
        raise Unusable(f"Another Fulmen serves {path} already: stop that one first. Nothing was changed.") from None
    try:
        yield
    finally:
        lock.release()
