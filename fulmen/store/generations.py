"""A restored store knows that it is one: numbers that were given since its backup are never given again.

A backup knows nothing of the papers issued after it. So each restored store draws a mark of its own, which stands in
the numbers that it gives from then on: FC-2026-RKTM-0001.
"""

from __future__ import annotations

import secrets
from datetime import datetime

from sqlalchemy.orm import Session

from fulmen.store.stored_jobs import record
from fulmen.store.tables import SettingRow

KEY = "generation"
# Letters that nobody takes for a figure or for one another; no vowel, so that they make no word.
LETTERS = "BCDFGHJKLMNPQRSTVWXZ"


def mark_restored(session: Session, head: str, now: datetime) -> str:
    """Give a restored store a mark that no other one has, and log what it was restored from."""
    mark = "R" + "".join(secrets.choice(LETTERS) for _ in range(3))
    session.merge(SettingRow(key=KEY, document={"mark": mark}))
    record(session, None, now, "restored", f"{mark}, from a backup at {head}")
    return mark


def number_prefix(session: Session, year: int) -> str:
    """What this store's numbers of a year begin with."""
    row = session.get(SettingRow, KEY)
    return f"FC-{year}-" if row is None else f"FC-{year}-{row.document['mark']}-"
