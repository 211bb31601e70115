"""How far a job has come, without reading it."""

from __future__ import annotations

from sqlalchemy import bindparam, select

from fulmen.store.database import Sessions
from fulmen.store.errors import NotFound
from fulmen.store.tables import JobRow

# Built once: it is asked for ever again by every phone at a job.
ASKED = select(JobRow.revision).where(JobRow.id == bindparam("job"))


def revision_of(sessions: Sessions, job_id: int) -> int:
    """The revision of a job: whatever happens to it makes it another one.

    Raises:
        NotFound: there is no such job.
    """
    with sessions() as session:
        found = session.scalar(ASKED, {"job": job_id})
    if found is None:
        raise NotFound(f"There is no job {job_id}.")
    return found
