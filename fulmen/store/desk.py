"""Cases at the stand-in desk: kept with a simulated calendar of their own. What the desk says is decided elsewhere."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from fulmen.core.editing.upgrades import upgraded_letter
from fulmen.core.errors import InputError
from fulmen.core.model.base import LAST_YEAR
from fulmen.core.model.job import Job
from fulmen.core.model.letters import Letter
from fulmen.store.database import Sessions
from fulmen.store.errors import NotFound
from fulmen.store.operations import keep_letters, with_letters
from fulmen.store.stored_jobs import Standing, StoredJob
from fulmen.store.tables import DeskCaseRow, JobRow
from fulmen.store.turns import change


def open_case(
    sessions: Sessions, job_id: int, form: dict[str, Any], sent: Letter, answers: tuple[Letter, ...], now: datetime
) -> StoredJob:
    """Hand a form in at the stand-in desk: a letter to the operator, and a case. An older case ends."""

    def keep(session: Session, _: JobRow, __: Job) -> None:
        older = _newest(session, job_id)
        if older is not None:
            older.pending = []
        pending = [letter.model_dump(mode="json") for letter in answers]
        session.add(DeskCaseRow(job_id=job_id, form=form, pending=pending, received_on=sent.dated, today=sent.dated))
        keep_letters(session, job_id, (sent,), now)

    return change(sessions, job_id, now, lambda stands: with_letters(stands.job, (sent,)), keep)


def pass_days(sessions: Sessions, job_id: int, days: int, now: datetime) -> StoredJob:
    """Let simulated days pass at the desk; the letters that fall due arrive.

    Raises:
        NotFound: nothing was handed in.
    """

    def changed(stands: Standing) -> Job:
        # Whatever happens to a case gives the job another revision: it is the same one when it is kept.
        with sessions() as session:
            _, due, _ = _passed(session, job_id, days)
        return with_letters(stands.job, due)

    def keep(session: Session, _: JobRow, __: Job) -> None:
        case, due, later = _passed(session, job_id, days)
        case.today += timedelta(days=days)
        case.pending = [letter.model_dump(mode="json") for letter in later]
        keep_letters(session, job_id, due, now)

    return change(sessions, job_id, now, changed, keep)


def _passed(session: Session, job_id: int, days: int) -> tuple[DeskCaseRow, tuple[Letter, ...], tuple[Letter, ...]]:
    """The case, its letters that fall due within so many days, and those that do not."""
    case = _newest(session, job_id)
    if case is None:
        raise NotFound("Nothing was handed in at the stand-in desk yet.")
    letters = [Letter.model_validate(upgraded_letter(document)) for document in case.pending]
    until = case.today + timedelta(days=days)
    if until.year > LAST_YEAR:
        raise InputError("days", f"The stand-in desk's calendar ends with the year {LAST_YEAR}.")
    due = tuple(letter for letter in letters if letter.dated <= until)
    return case, due, tuple(letter for letter in letters if letter.dated > until)


def newest_case(sessions: Sessions, job_id: int) -> DeskCaseRow | None:
    """The case that was handed in last, if any."""
    with sessions() as session:
        return _newest(session, job_id)


def _newest(session: Session, job_id: int) -> DeskCaseRow | None:
    query = select(DeskCaseRow).where(DeskCaseRow.job_id == job_id).order_by(DeskCaseRow.id.desc())
    return session.scalars(query).first()
