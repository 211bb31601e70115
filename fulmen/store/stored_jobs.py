"""A job's rows: reading the job out of them, and filling them again.

A row is filled with a job that was judged before: nothing here evaluates, so that no lock is held while it is done.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import Select, select
from sqlalchemy.orm import Session

from fulmen.core.editing.acts import with_history
from fulmen.core.editing.stored_job import parse_stored_job
from fulmen.core.editing.upgrades import upgraded_letter
from fulmen.core.evaluate import Evaluation
from fulmen.core.model.decisions import Decision
from fulmen.core.model.elsewhere import Elsewhere
from fulmen.core.model.job import Job
from fulmen.core.model.letters import Letter
from fulmen.core.model.readings import HOLDS, Reading
from fulmen.store.database import LAST_SEEN, Sessions
from fulmen.store.errors import NotFound, Save
from fulmen.store.last_seen import LastSeen
from fulmen.store.tables import ActRow, AuditRow, DecisionRow, JobRow, LetterRow, ReadingRow

# Rows of their own, which a job's document leaves out.
APPENDED = ("readings", "letters", "decisions")


@dataclass(frozen=True)
class Standing:
    """A job as it stood when it was read; see `JobRow` for what its version and its revision count.

    `settled` tells that nothing was open when it was judged last, `cleaned` are fields of an older document that held
    what can't be shown.
    """

    version: int
    revision: int
    job: Job
    by: str
    at: datetime
    settled: bool
    cleaned: tuple[str, ...] = ()

    def save(self) -> Save:
        """How it was saved last."""
        return Save(self.version, self.job, self.by, self.at)


@dataclass(frozen=True)
class StoredJob:
    """A job of the store with what the rules say of it; see `Standing`."""

    id: int
    version: int
    revision: int
    job: Job
    evaluation: Evaluation
    cleaned: tuple[str, ...] = ()


def standing(sessions: Sessions, job_id: int, *, recall: bool = False) -> Standing:
    """A job as it stands, read without a lock.

    Args:
        sessions: the store.
        job_id: which job.
        recall: whether what this process saw of it last may be given, if its version and revision are the same still:
            whatever Fulmen changes counts one of them up. For who judges a change of it, not for who shows it or makes
            a paper of it: those read the rows.

    Raises:
        NotFound: there is none.
    """
    with sessions() as session:
        seen: LastSeen[Standing] = session.info[LAST_SEEN]
        if recall:
            numbers = session.execute(select(JobRow.version, JobRow.revision).where(JobRow.id == job_id)).first()
            known = seen.get(job_id)
            if known is not None and numbers == (known.version, known.revision):
                return known
        stands = standing_row(session, row_of(session, job_id))
        seen.put(job_id, stands)
        return stands


def standing_row(session: Session, row: JobRow) -> Standing:
    """A row's job as it stands, within a transaction of the caller's."""
    job, cleaned = _read(session, row)
    return _standing(row, job, cleaned)


def _standing(row: JobRow, job: Job, cleaned: tuple[str, ...] = ()) -> Standing:
    settled = row.open_checks == row.falls_short == 0 and row.readings_taken >= row.readings_wanted
    return Standing(row.version, row.revision, job, row.saved_by, row.changed_at, settled, cleaned)


def remember_standing(sessions: Sessions, row: JobRow, job: Job) -> None:
    """Keep how a job stands after a change of this process, for `standing` to recall."""
    with sessions() as session:
        seen: LastSeen[Standing] = session.info[LAST_SEEN]
        seen.put(row.id, _standing(row, job))


def row_of(session: Session, job_id: int) -> JobRow:
    """The job's row.

    Raises:
        NotFound: there is none.
    """
    row = session.get(JobRow, job_id)
    if row is None:
        raise NotFound(f"There is no job {job_id}.")
    return row


def _read(session: Session, row: JobRow) -> tuple[Job, tuple[str, ...]]:
    """The job of a row, and the fields of an older document that had to be cleaned."""
    # Columns, not rows: a job has many readings, and nothing here changes one.
    readings = session.execute(_documents(ReadingRow, row.id)).all()
    letters = session.execute(_documents(LetterRow, row.id)).all()
    job, cleaned = parse_stored_job(
        {
            **row.document,
            "readings": [reading.document for reading in readings],
            "letters": [upgraded_letter(letter.document) for letter in letters],
        }
    )
    return _with_acts(session, row.id, job, [reading.id for reading in readings]), cleaned


def _documents(table: type[ReadingRow | LetterRow | DecisionRow], job_id: int) -> Select[int, dict[str, Any]]:
    return select(table.id, table.document).where(table.job_id == job_id).order_by(table.id)


def _with_acts(session: Session, job_id: int, job: Job, reading_ids: list[int]) -> Job:
    """The job with the acts that were done here. What else its document and its readings tell of was done before acts
    had a way of their own, and counts as signed elsewhere.
    """
    calls = session.execute(_documents(DecisionRow, job_id))
    decisions = tuple(Decision.model_validate(call.document) for call in calls)
    signed = set(session.scalars(select(ActRow.row_id).where(ActRow.job_id == job_id, ActRow.kind == "hold")))
    placed = list(zip(job.readings, reading_ids, strict=True))
    unsigned = {id_ for one, id_ in placed if one.step in HOLDS and id_ not in signed}
    older = Elsewhere(holds=tuple(one for one, id_ in placed if id_ in unsigned), decisions=job.decisions)
    kept = tuple(one for one, id_ in placed if id_ not in unsigned) if unsigned else job.readings
    return with_history(job, older).model_copy(update={"readings": kept, "decisions": decisions})


def fill_row(row: JobRow, job: Job, evaluation: Evaluation, now: datetime) -> None:
    """Set every column that follows from the document and from what the rules say of it."""
    wanted = [step for step in evaluation.steps if step.required]
    document: dict[str, Any] = job.model_dump(mode="json", exclude=set(APPENDED))
    row.title, row.reference = job.title, job.reference
    row.householder, row.address = job.site.householder, job.site.address
    row.open_checks = sum(finding.is_open for finding in evaluation.findings)
    row.falls_short = len(evaluation.falls_short())
    row.readings_wanted = len(wanted)
    row.readings_taken = sum(step.met or step.reading is not None for step in wanted)
    row.document, row.changed_at = document, now


def reading_rows(job_id: int, readings: tuple[Reading, ...]) -> list[ReadingRow]:
    """The rows of readings that are about to be appended."""
    return [
        ReadingRow(job_id=job_id, step=reading.step.value, document=reading.model_dump(mode="json"))
        for reading in readings
    ]


def letter_rows(job_id: int, letters: tuple[Letter, ...]) -> list[LetterRow]:
    """The rows of letters that are about to be appended."""
    return [LetterRow(job_id=job_id, document=letter.model_dump(mode="json")) for letter in letters]


def record(session: Session, job_id: int | None, now: datetime, verb: str, detail: str) -> None:
    """Append one entry to the audit trail."""
    session.add(AuditRow(job_id=job_id, at=now, verb=verb, detail=detail))
