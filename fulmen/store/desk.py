"""Cases at the stand-in desk: kept with a simulated calendar of their own. What the desk says is decided elsewhere."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from fulmen.core.editing.upgrades import upgraded_letter
from fulmen.core.model.letters import Letter
from fulmen.store.database import Sessions, writing
from fulmen.store.errors import NotFound
from fulmen.store.operations import StoredJob, append_letters
from fulmen.store.tables import DeskCaseRow


def open_case(
    sessions: Sessions, job_id: int, form: dict[str, Any], sent: Letter, answers: tuple[Letter, ...], now: datetime
) -> StoredJob:
    """Hand a form in at the stand-in desk: a letter to the operator, and a case. An older case ends."""
    with writing(sessions) as session:
        older = _newest(session, job_id)
        if older is not None:
            older.pending = []
        pending = [letter.model_dump(mode="json") for letter in answers]
        session.add(DeskCaseRow(job_id=job_id, form=form, pending=pending, received_on=sent.dated, today=sent.dated))
        return append_letters(session, job_id, (sent,), now)


def pass_days(sessions: Sessions, job_id: int, days: int, now: datetime) -> StoredJob:
    """Let simulated days pass at the desk; the letters that fall due arrive.

    Raises:
        NotFound: nothing was handed in.
    """
    with writing(sessions) as session:
        case = _newest(session, job_id)
        if case is None:
            raise NotFound("Nothing was handed in at the stand-in desk yet.")
        case.today += timedelta(days=days)
        letters = [Letter.model_validate(upgraded_letter(document)) for document in case.pending]
        due = tuple(letter for letter in letters if letter.dated <= case.today)
        case.pending = [letter.model_dump(mode="json") for letter in letters if letter.dated > case.today]
        return append_letters(session, job_id, due, now)


def newest_case(sessions: Sessions, job_id: int) -> DeskCaseRow | None:
    """The case that was handed in last, if any."""
    with sessions() as session:
        return _newest(session, job_id)


def _newest(session: Session, job_id: int) -> DeskCaseRow | None:
    query = select(DeskCaseRow).where(DeskCaseRow.job_id == job_id).order_by(DeskCaseRow.id.desc())
    return session.scalars(query).first()
