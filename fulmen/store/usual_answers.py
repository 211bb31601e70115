"""The firm's usual answers: one row of settings; none until somebody keeps some."""

from __future__ import annotations

from datetime import datetime

from fulmen.core.editing.usual_answers import UsualAnswers
from fulmen.store.database import Sessions
from fulmen.store.operations import record
from fulmen.store.tables import SettingRow

KEY = "usual_answers"


def usual_answers(sessions: Sessions) -> UsualAnswers:
    """What is taken as usual."""
    with sessions() as session:
        row = session.get(SettingRow, KEY)
        return UsualAnswers.model_validate(row.document) if row is not None else UsualAnswers()


def keep_usual_answers(sessions: Sessions, answers: UsualAnswers, now: datetime) -> None:
    """Replace the usual answers by others."""
    with sessions() as session, session.begin():
        session.merge(SettingRow(key=KEY, document=answers.model_dump(mode="json")))
        said = [name for name, value in answers.model_dump().items() if value is not None]
        record(session, None, now, "usual answers kept", ", ".join(said))
