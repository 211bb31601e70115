"""How far a job has come, without reading it."""

from __future__ import annotations

from sqlalchemy import select

from fulmen.store.database import Sessions
from fulmen.store.errors import NotFound
from fulmen.store.tables import JobRow


def revision_of(sessions: Sessions, job_id: int) -> int:
    """The revision of a job: whatever happens to it makes it another one.

    Raises:
        NotFound: there is no such job.
    """
    with sessions() as session:
        found = session.scalar(select(JobRow.revision).where(JobRow.id == job_id))
    if found is None:
        raise NotFound(f"There is no job {job_id}.")
    return found
