"""What went wrong outside of Fulmen, in one sentence each: a file, a disk, a database."""

from __future__ import annotations

import errno

# What SQLite says, and what to do about it; the number is the HTTP status.
DISK = (
    ("database or disk is full", 507, "The disk is full: make room on it, then try again."),
    ("readonly database", 503, "The database can't be written: give Fulmen the right to write its file and folder."),
    ("unable to open database", 503, "The database can't be opened: see that its folder is there and can be written."),
    ("database is locked", 503, "The database was held for too long: try again. If it goes on, see what has it open."),
    ("disk I/O error", 503, "The disk answers with errors: look at it, and keep the newest backup safe."),
    ("malformed", 503, "The database is damaged: stop Fulmen, keep the file, and restore the newest backup."),
    ("not a database", 503, "The database is damaged: stop Fulmen, keep the file, and restore the newest backup."),
)
FILE = {
    errno.ENOENT: "there is no such file or folder",
    errno.EACCES: "it can't be opened: the right to do so is missing",
    errno.EPERM: "it can't be opened: the right to do so is missing",
    errno.EISDIR: "it is a folder, where a file is wanted",
    errno.ENOTDIR: "one part of its path is a file, where a folder is wanted",
    errno.EEXIST: "there is something of that name already",
    errno.ENOSPC: "the disk is full",
    errno.EROFS: "its disk can't be written",
    errno.ENAMETOOLONG: "its name is too long",
    errno.ELOOP: "its links go round in a circle",
    errno.EADDRINUSE: "its port is taken",
}


def disk_trouble(said: str) -> tuple[int, str] | None:
    """The status and the sentence for what SQLite says; None where it is none of the disk's troubles."""
    return next(((status, told) for words, status, told in DISK if words in said), None)


def file_trouble(error: OSError) -> str:
    """The sentence for a file that can't be used.

    >>> file_trouble(FileNotFoundError(2, "No such file", "job.json"))
    'job.json: there is no such file or folder.'
    """
    why = FILE.get(error.errno or 0, (error.strerror or str(error) or "it can't be used").lower())
    return f"{error.filename}: {why}." if error.filename else f"{why[:1].upper()}{why[1:]}."
