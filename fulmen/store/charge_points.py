"""The user's own charge points beside the catalogue that ships."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import func, select

from fulmen.core.errors import InputError
from fulmen.core.reference.charge_point_catalogue import ChargePointRecord, charge_point_records, parse_record
from fulmen.store.database import Sessions, writing
from fulmen.store.errors import NotFound, TooMany
from fulmen.store.stored_jobs import record
from fulmen.store.tables import ChargePointRecordRow

MOST_OWN = 500


def own_records(sessions: Sessions) -> list[ChargePointRecord]:
    """Every record that the user added, by name."""
    with sessions() as session:
        rows = session.scalars(select(ChargePointRecordRow))
        return sorted((parse_record(row.document) for row in rows), key=lambda one: one.name)


def keep_record(sessions: Sessions, kept: ChargePointRecord, now: datetime) -> None:
    """Add a record, or replace the user's own of the same id.

    Raises:
        InputError: a record that ships has this id.
        TooMany: as many are kept as can be.
    """
    if any(one.id == kept.id for one in charge_point_records()):
        raise InputError("id", f"“{kept.id}” is a record that ships with Fulmen; choose another id.")
    with writing(sessions) as session:
        others = select(func.count()).select_from(ChargePointRecordRow).where(ChargePointRecordRow.id != kept.id)
        if (session.scalar(others) or 0) >= MOST_OWN:
            raise TooMany(f"You keep {MOST_OWN} charge points of your own: take one out first. Nothing was kept.")
        session.merge(ChargePointRecordRow(id=kept.id, document=kept.model_dump(mode="json")))
        record(session, None, now, "charge point kept", kept.id)


def remove_record(sessions: Sessions, record_id: str, now: datetime) -> None:
    """Remove one of the user's own records; jobs that used it keep its facts.

    Raises:
        NotFound: there is none.
    """
    with writing(sessions) as session:
        row = session.get(ChargePointRecordRow, record_id)
        if row is None:
            raise NotFound(f"You added no charge point “{record_id}”.")
        session.delete(row)
        record(session, None, now, "charge point removed", record_id)
