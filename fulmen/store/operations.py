"""The verbs of the store: one function, one transaction each. Views call these and nothing below them."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any, cast

from sqlalchemy import CursorResult, Select, func, or_, select, text, update
from sqlalchemy.orm import Session, defer

from fulmen.core.editing.acts import as_history, check_no_hold, with_history
from fulmen.core.editing.differences import Difference, differences
from fulmen.core.editing.job_file import check_structure
from fulmen.core.editing.stored_job import parse_stored_job
from fulmen.core.editing.upgrades import upgraded_letter
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.model.decisions import Decision
from fulmen.core.model.elsewhere import Elsewhere
from fulmen.core.model.job import Job
from fulmen.core.model.letters import Letter
from fulmen.core.model.readings import HOLDS, Reading
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.verification.reading_fit import check_readings
from fulmen.core.verification.taken_again import check_told
from fulmen.store.database import Sessions, writing
from fulmen.store.entries import Entry, done_before, remember
from fulmen.store.errors import AppendOnly, Conflict, NotFound, Save
from fulmen.store.tables import ActRow, AuditRow, DecisionRow, JobRow, LetterRow, PaperRow, ReadingRow


@dataclass(frozen=True)
class StoredJob:
    """A job as it stands in the store; see `JobRow` for what its version and its revision count.

    `cleaned` are fields of an older document that held what can't be shown.
    """

    id: int
    version: int
    revision: int
    job: Job
    evaluation: Evaluation
    cleaned: tuple[str, ...] = ()


def create_job(sessions: Sessions, job: Job, now: datetime, verb: str = "created") -> StoredJob:
    """Store a new job with whatever readings it brings; its acts were done elsewhere, and are kept as history."""
    check_structure(job)
    job = as_history(job)
    with writing(sessions) as session:
        row = JobRow(created_at=now, version=1, revision=1)
        evaluation = fill_row(row, job, now)
        session.add(row)
        session.flush()
        session.add_all(reading_rows(row.id, job.readings))
        session.add_all(_letter_rows(row.id, job.letters))
        record(session, row.id, now, verb, job.title)
        return StoredJob(row.id, row.version, row.revision, job, evaluation)


def load_job(sessions: Sessions, job_id: int) -> StoredJob:
    """A job by its number.

    Raises:
        NotFound: there is none.
    """
    with sessions() as session:
        return as_stored(session, row_of(session, job_id))


def save_job(sessions: Sessions, job_id: int, version: int, job: Job, now: datetime, by: str = "") -> StoredJob:
    """Replace a job's document, if nobody saved it since `version`. Its readings, letters and acts stay as stored.

    `by` is the name of who saves, as typed.

    Raises:
        NotFound: there is no such job.
        Conflict: somebody saved it meanwhile; it carries the stored job, and each field that differs.
        AppendOnly: the document holds readings, letters or acts that are not the stored ones.
    """
    check_structure(job)
    with writing(sessions) as session:
        stored = claim_version(session, job_id, version, job)
        row = row_of(session, job_id)
        _check_appended(job, stored)
        job = with_what_stands(job, stored)
        evaluation = fill_row(row, job, now)
        row.saved_by = by
        session.flush()
        record(session, job_id, now, "saved", f"version {row.version}" + (f" by {by}, as typed" if by else ""))
        return StoredJob(job_id, row.version, row.revision, job, evaluation)


def _check_appended(job: Job, stored: Job) -> None:
    """Refuse a document that would change what is only appended, each by a call of its own."""
    for field, told in (
        ("readings", "Readings already taken can't be changed or removed; take the step again."),
        ("letters", "Letters already kept can't be changed or removed; add another."),
        ("decisions", "A call is settled by a person on its own screen; a document can't bring or change one."),
    ):
        mine = getattr(job, field)
        if mine != getattr(stored, field)[: len(mine)]:
            raise AppendOnly(field, told)
    if job.certificate.signatures != stored.certificate.signatures:
        raise AppendOnly("certificate.signatures", "A document can't bring or change a signature: sign on the screen.")
    if job.elsewhere != stored.elsewhere:
        raise AppendOnly("elsewhere", "What was signed elsewhere stays as it came.")


def with_what_stands(job: Job, stored: Job) -> Job:
    """An edited document with what is appended by calls of its own as it stands: that is no edit, and no conflict."""
    certificate = job.certificate.model_copy(update={"signatures": stored.certificate.signatures})
    appended = {name: getattr(stored, name) for name in APPENDED}
    return job.model_copy(update={**appended, "certificate": certificate, "elsewhere": stored.elsewhere})


# Rows of their own, which a job's document leaves out.
APPENDED = ("readings", "letters", "decisions")


def add_reading(
    sessions: Sessions, job_id: int, reading: Reading, now: datetime, entry: Entry | None = None
) -> StoredJob:
    """Append one reading; see `add_readings`."""
    return add_readings(sessions, job_id, (reading,), now, entry)


def add_readings(
    sessions: Sessions, job_id: int, readings: tuple[Reading, ...], now: datetime, entry: Entry | None = None
) -> StoredJob:
    """Append readings, all or none; they never conflict with a change of the design.

    An `entry` that was done before is not done again.

    Raises:
        InputError: a reading is not what its step asks for, is a hold, which is signed, or tells half of why it was
            taken again.
        NotFound: there is no such job.
        KeyTaken: the entry's key was used for another one.
    """
    check_no_hold(readings)
    check_readings(readings)
    check_told(readings)
    # When a hold came is for the store to say; a reading says when it was taken.
    readings = tuple(one.model_copy(update={"came_at": None}) for one in readings)
    with writing(sessions) as session:
        row = row_of(session, job_id)
        if done_before(session, job_id, entry):
            return as_stored(session, row)
        remember(session, job_id, entry, now)
        session.add_all(reading_rows(job_id, readings))
        for reading in readings:
            record(session, job_id, now, "reading", f"{reading.step.value} {reading.outcome.value}")
        return appended(session, row, now)


def as_stored(session: Session, row: JobRow) -> StoredJob:
    """A job as it stands, within a transaction of the caller's."""
    job, cleaned = _read(session, row)
    return StoredJob(row.id, row.version, row.revision, job, evaluate(job, rule_set(job.rule_set)), cleaned)


def appended(session: Session, row: JobRow, now: datetime) -> StoredJob:
    """A job after something was appended to it: another revision, judged anew."""
    row.revision += 1
    session.flush()
    job = _job(session, row)
    evaluation = fill_row(row, job, now)
    session.flush()
    return StoredJob(row.id, row.version, row.revision, job, evaluation)


def add_letters(sessions: Sessions, job_id: int, letters: tuple[Letter, ...], now: datetime) -> StoredJob:
    """Append letters to or from the operator; they never conflict with a change of the design.

    Raises:
        NotFound: there is no such job.
    """
    with writing(sessions) as session:
        return append_letters(session, job_id, letters, now)


def append_letters(session: Session, job_id: int, letters: tuple[Letter, ...], now: datetime) -> StoredJob:
    """Append letters within a transaction of the caller's; see `add_letters`."""
    row = row_of(session, job_id)
    session.add_all(_letter_rows(job_id, letters))
    for letter in letters:
        record(session, job_id, now, "letter", letter.kind.value + (" (stand-in)" if letter.stand_in else ""))
    return appended(session, row, now)


def list_jobs(sessions: Sessions, search: str = "", limit: int = 100, offset: int = 0) -> tuple[list[JobRow], int]:
    """Jobs by title, reference, householder or address, newest change first, and how many match."""
    found, counted = _matching(search)
    page = found.order_by(JobRow.changed_at.desc(), JobRow.id.desc()).limit(limit).offset(offset)
    with sessions() as session:
        total = session.scalar(counted) or 0
        numbers = list(session.scalars(page))
        rows = {row.id: row for row in session.scalars(select(JobRow).where(JobRow.id.in_(numbers)).options(WITHOUT))}
        return [rows[number] for number in numbers], total


def _matching(search: str) -> tuple[Select[int], Select[int]]:
    """The numbers of the jobs that match, and how many there are. Narrow indexes answer both, not the jobs' rows."""
    everything = select(JobRow.id)
    if not search:
        return everything, select(func.count()).select_from(JobRow)
    if len(search) >= LEAST_INDEXED:
        # Quoted, it is a text to find, not a query; each letter triple of it is looked up.
        phrase = '"' + search.replace('"', '""') + '"'
        # The plus has the jobs gone through in their order, each looked up among those found.
        found = everything.where(text("+job.id IN (SELECT rowid FROM job_search WHERE job_search MATCH :phrase)"))
        counted = select(func.count()).select_from(text("job_search")).where(text("job_search MATCH :phrase"))
        return found.params(phrase=phrase), counted.params(phrase=phrase)
    columns = (JobRow.title, JobRow.reference, JobRow.householder, JobRow.address)
    # LIKE takes no notice of case by itself.
    found = everything.where(or_(*(column.contains(search, autoescape=True) for column in columns)))
    return found, select(func.count()).select_from(found.subquery())


# The full-text index knows words by three letters in a row; a shorter text is looked for row by row.
LEAST_INDEXED = 3
# A list shows columns; the documents stay where they are.
WITHOUT = defer(JobRow.document, raiseload=True)


def certified(sessions: Sessions, job_ids: list[int]) -> dict[int, str]:
    """The newest paper's number of each of these jobs that has one."""
    query = select(PaperRow.job_id, PaperRow.number).where(PaperRow.job_id.in_(job_ids)).order_by(PaperRow.id)
    with sessions() as session:
        return {row.job_id: row.number for row in session.execute(query)}


def is_empty(sessions: Sessions) -> bool:
    """Whether the store holds no job yet."""
    with sessions() as session:
        return session.scalar(select(JobRow.id).limit(1)) is None


def claim_version(session: Session, job_id: int, version: int, mine: Job | None = None) -> Job:
    """Take the next version of a job for this transaction, and give the job as it stands.

    The update comes first and is atomic: of two who saw the same version, one gets it.

    Raises:
        NotFound: there is no such job.
        Conflict: somebody saved it meanwhile; where `mine` is what was to be saved, with each field that differs.
    """
    claim = update(JobRow).where(JobRow.id == job_id, JobRow.version == version)
    claim = claim.values(version=version + 1, revision=JobRow.revision + 1)
    claimed = cast(CursorResult[Any], session.execute(claim)).rowcount == 1
    row = row_of(session, job_id)
    stored = _job(session, row)
    if not claimed:
        raise Conflict(last_save(row, stored), _edits_between(mine, stored) if mine is not None else ())
    return stored


def last_save(row: JobRow, job: Job) -> Save:
    """How a job was saved last."""
    return Save(row.version, job, row.saved_by, row.changed_at)


def _edits_between(mine: Job, stored: Job) -> tuple[Difference, ...]:
    return differences(with_what_stands(mine, stored), stored)


def row_of(session: Session, job_id: int) -> JobRow:
    """The job's row.

    Raises:
        NotFound: there is none.
    """
    row = session.get(JobRow, job_id)
    if row is None:
        raise NotFound(f"There is no job {job_id}.")
    return row


def stored_job(session: Session, job_id: int) -> Job:
    """A job within a transaction of the caller's.

    Raises:
        NotFound: there is none.
    """
    return _job(session, row_of(session, job_id))


def _job(session: Session, row: JobRow) -> Job:
    return _read(session, row)[0]


def _read(session: Session, row: JobRow) -> tuple[Job, tuple[str, ...]]:
    """The job of a row, and the fields of an older document that had to be cleaned."""
    readings = session.scalars(select(ReadingRow).where(ReadingRow.job_id == row.id).order_by(ReadingRow.id)).all()
    letters = session.scalars(select(LetterRow).where(LetterRow.job_id == row.id).order_by(LetterRow.id))
    job, cleaned = parse_stored_job(
        {
            **row.document,
            "readings": [reading.document for reading in readings],
            "letters": [upgraded_letter(letter.document) for letter in letters],
        }
    )
    return _with_acts(session, row.id, job, [reading.id for reading in readings]), cleaned


def _with_acts(session: Session, job_id: int, job: Job, reading_ids: list[int]) -> Job:
    """The job with the acts that were done here. What else its document and its readings tell of was done before acts
    had a way of their own, and counts as signed elsewhere.
    """
    calls = session.scalars(select(DecisionRow).where(DecisionRow.job_id == job_id).order_by(DecisionRow.id))
    decisions = tuple(Decision.model_validate(call.document) for call in calls)
    signed = set(session.scalars(select(ActRow.row_id).where(ActRow.job_id == job_id, ActRow.kind == "hold")))
    placed = list(zip(job.readings, reading_ids, strict=True))
    unsigned = {id_ for one, id_ in placed if one.step in HOLDS and id_ not in signed}
    older = Elsewhere(holds=tuple(one for one, id_ in placed if id_ in unsigned), decisions=job.decisions)
    kept = tuple(one for one, id_ in placed if id_ not in unsigned) if unsigned else job.readings
    return with_history(job, older).model_copy(update={"readings": kept, "decisions": decisions})


def fill_row(row: JobRow, job: Job, now: datetime) -> Evaluation:
    """Set every column that follows from the document."""
    evaluation = evaluate(job, rule_set(job.rule_set))
    wanted = [step for step in evaluation.steps if step.required]
    document: dict[str, Any] = job.model_dump(mode="json", exclude=set(APPENDED))
    row.title, row.reference = job.title, job.reference
    row.householder, row.address = job.site.householder, job.site.address
    row.open_checks = sum(finding.is_open for finding in evaluation.findings)
    row.falls_short = len(evaluation.falls_short())
    row.readings_wanted = len(wanted)
    row.readings_taken = sum(step.met or step.reading is not None for step in wanted)
    row.document, row.changed_at = document, now
    return evaluation


def reading_rows(job_id: int, readings: tuple[Reading, ...]) -> list[ReadingRow]:
    """The rows of readings that are about to be appended."""
    return [
        ReadingRow(job_id=job_id, step=reading.step.value, document=reading.model_dump(mode="json"))
        for reading in readings
    ]


def _letter_rows(job_id: int, letters: tuple[Letter, ...]) -> list[LetterRow]:
    return [LetterRow(job_id=job_id, document=letter.model_dump(mode="json")) for letter in letters]


def record(session: Session, job_id: int | None, now: datetime, verb: str, detail: str) -> None:
    """Append one entry to the audit trail."""
    session.add(AuditRow(job_id=job_id, at=now, verb=verb, detail=detail))
