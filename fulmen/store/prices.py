"""The user's own price list; until there is one, the invented list that ships."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import delete, select

from fulmen.core.materials.prices import PriceLine, PriceList, invented_prices
from fulmen.store.database import Sessions, writing
from fulmen.store.stored_jobs import record
from fulmen.store.tables import PriceRow


def price_list(sessions: Sessions) -> PriceList:
    """The list that counts, in its own order."""
    with sessions() as session:
        rows = session.scalars(select(PriceRow).order_by(PriceRow.place)).all()
        if not rows:
            return invented_prices()
        return PriceList(lines=tuple(_line(row) for row in rows))


def _line(row: PriceRow) -> PriceLine:
    return PriceLine(
        key=row.key, name=row.name, unit=row.unit, price=row.price, work_min=row.work_min, invented=row.invented
    )


def keep_prices(sessions: Sessions, prices: PriceList, now: datetime) -> None:
    """Replace the user's list by another; items it leaves out have no price from then on."""
    with writing(sessions) as session:
        session.execute(delete(PriceRow))
        session.add_all(
            PriceRow(place=place, **line.model_dump(mode="python")) for place, line in enumerate(prices.lines)
        )
        record(session, None, now, "prices kept", f"{len(prices.lines)} items")


def forget_prices(sessions: Sessions, now: datetime) -> None:
    """Go back to the invented list."""
    with writing(sessions) as session:
        session.execute(delete(PriceRow))
        record(session, None, now, "prices forgotten", "")
