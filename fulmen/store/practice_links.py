"""Exercises behind links: what is hidden stays in the store; the link is drawn, and tells nothing of it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from secrets import token_urlsafe

from sqlalchemy import delete, select

from fulmen.core.editing.stored_job import parse_stored_job
from fulmen.core.errors import CoreError
from fulmen.core.model.job import Job
from fulmen.store.database import Sessions, writing
from fulmen.store.errors import NotFound, Outdated
from fulmen.store.tables import PracticeLinkRow

LINK_BYTES, MOST_KEPT = 9, 500


@dataclass(frozen=True)
class Made:
    """An exercise for others: its house, untested, and what is hidden in it, of which size."""

    job: Job
    charge_point: str
    title: str
    what: str
    size: float


def keep_link(sessions: Sessions, made: Made, by: str, now: datetime) -> str:
    """Keep an exercise for others; the link that opens it. The oldest are dropped past some hundred."""
    link = token_urlsafe(LINK_BYTES)
    with writing(sessions) as session:
        kept = select(PracticeLinkRow.link).order_by(PracticeLinkRow.made_at.desc())
        session.execute(delete(PracticeLinkRow).where(PracticeLinkRow.link.in_(kept.offset(MOST_KEPT - 1).limit(-1))))
        session.add(
            PracticeLinkRow(
                link=link, title=made.title, charge_point=made.charge_point, what=made.what, size=made.size,
                document=made.job.model_dump(mode="json"), made_by=by, made_at=now,
            )
        )  # fmt: skip
    return link


def opened(sessions: Sessions, link: str) -> Made:
    """What is behind a link.

    Raises:
        NotFound: nothing is.
        Outdated: its house can't be read any more.
    """
    with sessions() as session:
        row = session.get(PracticeLinkRow, link)
        if row is None:
            raise NotFound("There is no exercise behind this link: ask for a new one.")
        try:
            job, _ = parse_stored_job(row.document)
        except (CoreError, ValueError):
            raise Outdated("This exercise was made with another version of Fulmen: ask for a new one.") from None
        return Made(job, row.charge_point, row.title, row.what, row.size)
