"""Forgers at work: papers changed by a PDF library that is neither the writer nor the reader, a store rewritten past its
guards, its chain made anew.
"""

from __future__ import annotations

import io
import sqlite3
from contextlib import closing
from pathlib import Path

from pypdf import PdfReader, PdfWriter, Transformation
from pypdf.generic import DecodedStreamObject, NameObject

from fulmen.documents.certificate import render_certificate
from fulmen.store.chain import FIRST_HEAD, SEALED, content_sha256, head_after
from fulmen.store.database import Sessions
from fulmen.store.papers import Issue


def written(writer: PdfWriter) -> bytes:
    into = io.BytesIO()
    writer.write(into)
    return into.getvalue()


def cloned(pdf: bytes) -> PdfWriter:
    return PdfWriter(clone_from=PdfReader(io.BytesIO(pdf)))


def saved_again(pdf: bytes) -> bytes:
    return written(cloned(pdf))


def without_attachment(pdf: bytes) -> bytes:
    writer = PdfWriter()
    for page in PdfReader(io.BytesIO(pdf)).pages:
        writer.add_page(page)
    return written(writer)


def drawn_over(pdf: bytes, page: int, what: bytes) -> bytes:
    writer = cloned(pdf)
    stream = DecodedStreamObject()
    stream.set_data(writer.pages[page].get_contents().get_data() + what)  # type: ignore[union-attr]
    writer.pages[page][NameObject("/Contents")] = writer._add_object(stream)
    return written(writer)


def covered(pdf: bytes, page: int) -> bytes:
    """A white patch of a digit's size in the middle of what the page shows."""
    return drawn_over(pdf, page, b"\nq 1 1 1 rg 300 300 6 8 re f Q\n")


def scaled(pdf: bytes) -> bytes:
    """As a printer's own margins make of it."""
    writer = cloned(pdf)
    for page in writer.pages:
        page.add_transformation(Transformation().scale(0.97).translate(9, 12))
    return written(writer)


def pages_swapped(pdf: bytes) -> bytes:
    reader, writer = PdfReader(io.BytesIO(pdf)), PdfWriter()
    order = list(range(len(reader.pages)))
    order[-1], order[-2] = order[-2], order[-1]
    for place in order:
        writer.add_page(reader.pages[place])
    return written(writer)


def with_page(pdf: bytes) -> bytes:
    writer = cloned(pdf)
    writer.add_blank_page(595, 842)
    return written(writer)


def without_last_page(pdf: bytes) -> bytes:
    writer = cloned(pdf)
    writer.remove_page(len(writer.pages) - 1)
    return written(writer)


def other_job_inside(pdf: bytes) -> bytes:
    writer = PdfWriter()
    for page in PdfReader(io.BytesIO(pdf)).pages:
        writer.add_page(page)
    writer.add_attachment("job.json", b'{"title": "forged"}')
    return written(writer)


MADE: dict[tuple[str, str, str], bytes] = {}


def rendered(issue: Issue) -> bytes:
    """A certificate, made once of the very same job, number and state: it takes seconds."""
    key = (issue.number, issue.sha256, issue.chain)
    if key not in MADE:
        MADE[key] = render_certificate(issue)
    return MADE[key]


def unguarded(store: Path, *scripts: str) -> None:
    """Whoever writes to the file itself: the guard taken away, and put back as it was."""
    with closing(sqlite3.connect(store)) as database, database:
        guards = database.execute("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'").fetchall()
        for name, _ in guards:
            database.execute(f"DROP TRIGGER {name}")
        for script in scripts:
            database.execute(script)
        for _, sql in guards:
            database.execute(sql)


def sealed_anew(sessions: Sessions, store: Path) -> None:
    """The chain made anew over whatever the rows say now."""
    with sessions() as session:
        entries = session.connection().exec_driver_sql("SELECT id, kind, row_id FROM chain ORDER BY id").all()
        head, new = FIRST_HEAD, []
        for entry, kind, row_id in entries:
            row = session.get_one(SEALED[kind][0], row_id)
            content = content_sha256(kind, row)
            head = head_after(head, kind, row_id, content)
            new.append((content, head, entry))
    unguarded(store, *[f"UPDATE chain SET content_sha256 = '{c}', head = '{h}' WHERE id = {e}" for c, h, e in new])
