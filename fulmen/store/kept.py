"""What a firm keeps for every job: usual answers, standing reasons, shapes of meter files; one row of settings each."""

from __future__ import annotations

import secrets
from datetime import datetime
from typing import TypeVar

from fulmen.core.model.base import Part
from fulmen.store.database import Sessions, writing
from fulmen.store.stored_jobs import record
from fulmen.store.tables import SettingRow

Setting = TypeVar("Setting", bound=Part)


def kept(sessions: Sessions, key: str, model: type[Setting]) -> Setting:
    """One setting; the model's defaults until somebody keeps some."""
    with sessions() as session:
        row = session.get(SettingRow, key)
        return model.model_validate(row.document) if row is not None else model()


def keep(sessions: Sessions, key: str, value: Part, now: datetime, told: str) -> None:
    """Replace one setting by another; `told` goes into the log."""
    with writing(sessions) as session:
        session.merge(SettingRow(key=key, document=value.model_dump(mode="json")))
        record(session, None, now, f"{key.replace('_', ' ')} kept", told)


SESSION_KEY = "session_key"


def session_key(sessions: Sessions) -> str:
    """What this store's servers sign a browser's session with; drawn once, by whichever server comes first."""
    with writing(sessions) as session:
        row = session.get(SettingRow, SESSION_KEY)
        if row is None:
            row = SettingRow(key=SESSION_KEY, document={"key": secrets.token_hex(32)})
            session.add(row)
        key: str = row.document["key"]
        return key
