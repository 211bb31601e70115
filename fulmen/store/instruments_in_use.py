"""The readings of every job, for what each instrument has read."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import groupby

from sqlalchemy import select

from fulmen.core.model.readings import Reading
from fulmen.core.verification.readings.in_use import JobReadings
from fulmen.store.database import Sessions
from fulmen.store.tables import JobRow, ReadingRow


def readings_by_job(sessions: Sessions) -> Iterator[JobReadings]:
    """Every job that was tested, with its readings in the order taken."""
    asked = select(JobRow.id, JobRow.title, ReadingRow.document).join(ReadingRow, ReadingRow.job_id == JobRow.id)
    with sessions() as session:
        rows = session.execute(asked.order_by(JobRow.id, ReadingRow.id)).all()
    for (job_id, title), found in groupby(rows, key=lambda row: (row[0], row[1])):
        yield JobReadings(job_id, title, tuple(Reading.model_validate(row[2]) for row in found))
