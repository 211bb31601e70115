"""The verbs of the store: one function, one transaction each. Views call these and nothing below them."""

from __future__ import annotations

from datetime import datetime, timedelta

from sqlalchemy import Select, func, or_, select, text
from sqlalchemy.orm import Session, defer

from fulmen.core.editing.acts import as_history, check_no_hold
from fulmen.core.editing.differences import differences
from fulmen.core.editing.job_file import check_structure
from fulmen.core.errors import InputError
from fulmen.core.model.job import Job
from fulmen.core.model.letters import Letter
from fulmen.core.model.readings import Reading
from fulmen.core.verification.readings.reading_fit import check_readings
from fulmen.core.verification.readings.taken_again import check_taken_back, check_told
from fulmen.store.database import Sessions, writing
from fulmen.store.entries import DoneBefore, Entry, remember
from fulmen.store.errors import AppendOnly, Conflict
from fulmen.store.stored_jobs import (
    APPENDED,
    Standing,
    StoredJob,
    fill_row,
    letter_rows,
    reading_rows,
    record,
    standing,
)
from fulmen.store.tables import JobRow, PaperRow
from fulmen.store.turns import change, judged


def create_job(sessions: Sessions, job: Job, now: datetime, verb: str = "created") -> StoredJob:
    """Store a new job with whatever readings it brings; its acts were done elsewhere, and are kept as history."""
    check_structure(job)
    job = as_history(job)
    evaluation = judged(sessions, job)
    with writing(sessions) as session:
        row = JobRow(created_at=now, version=1, revision=1)
        fill_row(row, job, evaluation, now)
        session.add(row)
        session.flush()
        session.add_all(reading_rows(row.id, job.readings))
        session.add_all(letter_rows(row.id, job.letters))
        record(session, row.id, now, verb, job.title)
        return StoredJob(row.id, row.version, row.revision, job, evaluation)


def load_job(sessions: Sessions, job_id: int) -> StoredJob:
    """A job by its number.

    Raises:
        NotFound: there is none.
    """
    stands = standing(sessions, job_id)
    return StoredJob(job_id, stands.version, stands.revision, stands.job, judged(sessions, stands.job), stands.cleaned)


def save_job(sessions: Sessions, job_id: int, version: int, job: Job, now: datetime, by: str = "") -> StoredJob:
    """Replace a job's document, if nobody saved it since `version`. Its readings, letters and acts stay as stored.

    `by` is the name of who saves, as typed.

    Raises:
        NotFound: there is no such job.
        Conflict: somebody saved it meanwhile; it carries the stored job, and each field that differs.
        AppendOnly: the document holds readings, letters or acts that are not the stored ones.
    """
    check_structure(job)

    def changed(stands: Standing) -> Job:
        if stands.version != version:
            raise Conflict(stands.save(), differences(with_what_stands(job, stands.job), stands.job))
        _check_appended(job, stands.job)
        return with_what_stands(job, stands.job)

    def keep(session: Session, row: JobRow, _: Job) -> None:
        row.version, row.saved_by = row.version + 1, by
        record(session, job_id, now, "saved", f"version {row.version}" + (f" by {by}, as typed" if by else ""))

    return change(sessions, job_id, now, changed, keep)


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
        InputError: a reading is not what its step asks for, is a hold, which is signed, tells half of why it was
            taken again, or was taken on a day that is yet to come.
        NotFound: there is no such job.
        KeyTaken: the entry's key was used for another one.
    """
    check_no_hold(readings)
    check_readings(readings)
    check_told(readings)
    for reading in readings:
        check_past("taken_at", reading.taken_at, now)
    # When a hold came is for the store to say; a reading says when it was taken.
    readings = tuple(one.model_copy(update={"came_at": None}) for one in readings)

    def keep(session: Session, _: JobRow, __: Job) -> None:
        remember(session, job_id, entry, now)
        session.add_all(reading_rows(job_id, readings))
        for reading in readings:
            record(session, job_id, now, "reading", f"{reading.step.value} {reading.outcome.value}")

    def with_these(stands: Standing) -> Job:
        check_taken_back(stands.job, readings)
        return with_readings(stands.job, readings)

    try:
        return change(sessions, job_id, now, with_these, keep)
    except DoneBefore:
        return load_job(sessions, job_id)


# A device's clock may be set to another day's; what is further off is no time at which anybody did anything.
AHEAD = timedelta(days=1)


def check_past(field: str, at: datetime, now: datetime) -> None:
    """Refuse what is said to have been done on a day that is yet to come.

    Raises:
        InputError: more than a day lies before it.
    """
    if at > now + AHEAD:
        raise InputError(field, f"{at:%-d %B %Y} is yet to come: set this device's clock, then do it again.")


def with_readings(job: Job, readings: tuple[Reading, ...]) -> Job:
    """The job with readings after its own."""
    return job.model_copy(update={"readings": (*job.readings, *readings)})


def add_letters(sessions: Sessions, job_id: int, letters: tuple[Letter, ...], now: datetime) -> StoredJob:
    """Append letters to or from the operator; they never conflict with a change of the design.

    Raises:
        NotFound: there is no such job.
    """
    return change(
        sessions,
        job_id,
        now,
        lambda stands: with_letters(stands.job, letters),
        lambda session, _, __: keep_letters(session, job_id, letters, now),
    )


def with_letters(job: Job, letters: tuple[Letter, ...]) -> Job:
    """The job with letters after its own."""
    return job.model_copy(update={"letters": (*job.letters, *letters)})


def keep_letters(session: Session, job_id: int, letters: tuple[Letter, ...], now: datetime) -> None:
    """Append letters within a transaction of the caller's."""
    session.add_all(letter_rows(job_id, letters))
    for letter in letters:
        record(session, job_id, now, "letter", letter.kind.value + (" (stand-in)" if letter.stand_in else ""))


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
