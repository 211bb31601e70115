"""Changing a job: it is judged while others may write, and kept in a short turn of the store's lock.

Judging takes longer than all the rest together. Where the job moved on meanwhile it is judged anew; one that keeps
moving is judged at last while the others wait, so that everybody comes to an end.
"""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from functools import cache
from typing import TypeVar

from annotated_types import MaxLen
from sqlalchemy.orm import Session

from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import rule_set
from fulmen.store.database import Sessions, kept_designs, writing
from fulmen.store.errors import TooMany
from fulmen.store.stored_jobs import (
    APPENDED,
    Standing,
    StoredJob,
    fill_row,
    remember_standing,
    row_of,
    standing,
    standing_row,
)
from fulmen.store.tables import JobRow

# How often a job may move on under a change before the others wait for it.
TRIES = 4

Thought = TypeVar("Thought")
Kept = TypeVar("Kept")


def in_turn(
    sessions: Sessions,
    job_id: int,
    judge: Callable[[Standing], Thought],
    keep: Callable[[Session, JobRow, Thought], Kept],
) -> Kept:
    """Judge a job without a lock, then keep what follows if it still is what was judged.

    Args:
        sessions: the store.
        job_id: whose job.
        judge: what is thought of the job as it stands; it writes nothing, and may be called again.
        keep: keeps it, within the transaction that holds the lock.

    Raises:
        NotFound: there is no such job.
        Busy: the lock could not be had.
    """
    for _ in range(TRIES):
        stands = standing(sessions, job_id, recall=True)
        thought = judge(stands)
        with writing(sessions) as session:
            row = row_of(session, job_id)
            if row.revision == stands.revision:
                return keep(session, row, thought)
    with writing(sessions) as session:
        row = row_of(session, job_id)
        return keep(session, row, judge(standing_row(session, row)))


def change(
    sessions: Sessions,
    job_id: int,
    now: datetime,
    changed: Callable[[Standing], Job],
    keep: Callable[[Session, JobRow, Job], None],
) -> StoredJob:
    """Change a job: `changed` makes it another, `keep` what goes with that. It has another revision then.

    Raises:
        NotFound: there is no such job.
        TooMany: it would hold more than a job may.
        Busy: the lock could not be had.
    """

    def judge(stands: Standing) -> tuple[Job, Evaluation]:
        job = changed(stands)
        _check_room(job)
        return job, judged(sessions, job)

    def keep_both(session: Session, row: JobRow, thought: tuple[Job, Evaluation]) -> tuple[JobRow, Job, Evaluation]:
        job, evaluation = thought
        row.revision += 1
        keep(session, row, job)
        fill_row(row, job, evaluation, now)
        session.flush()
        return row, job, evaluation

    row, job, evaluation = in_turn(sessions, job_id, judge, keep_both)
    remember_standing(sessions, row, job)
    return StoredJob(job_id, row.version, row.revision, job, evaluation)


def _check_room(job: Job) -> None:
    """A job that held more than its document may could never be read again."""
    for name in APPENDED:
        most = most_of(name)
        if len(getattr(job, name)) > most:
            raise TooMany(f"A job holds at most {most} {name}. Nothing was kept.")


@cache
def most_of(name: str) -> int:
    """How many entries a list of the job's document may hold."""
    return next(one.max_length for one in Job.model_fields[name].metadata if isinstance(one, MaxLen))


def judged(sessions: Sessions, job: Job) -> Evaluation:
    """What the job's own rules say of it."""
    return evaluate(job, rule_set(job.rule_set), kept_designs(sessions))


def judged_anew(job: Job) -> Evaluation:
    """The same worked out from nothing, as a paper states it."""
    return evaluate(job, rule_set(job.rule_set))
