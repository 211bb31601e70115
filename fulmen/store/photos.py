"""Keeping photos with a job."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Protocol

from sqlalchemy import func, select
from sqlalchemy.orm import Session, undefer

from fulmen.core.model.stops import Stop
from fulmen.store.chain import next_row_id
from fulmen.store.database import Sessions, writing
from fulmen.store.entries import Entry, done_before, remember
from fulmen.store.errors import InUse, NotFound, TooMany
from fulmen.store.operations import check_past
from fulmen.store.stored_jobs import record, row_of, standing_row
from fulmen.store.tables import PhotoRow

MOST_PER_JOB = 200
MOST_PER_LINK = 40


class NewPhoto(Protocol):
    """A photo ready to be kept."""

    @property
    def jpeg(self) -> bytes: ...
    @property
    def thumbnail(self) -> bytes: ...
    @property
    def width_px(self) -> int: ...
    @property
    def height_px(self) -> int: ...
    def sha256(self) -> str: ...


@dataclass(frozen=True)
class Place:
    """Where a photo belongs: its stop, and the householder's link and question if it came from there.

    `made_at` is when it was taken, by the clock of its device.
    """

    stop: Stop
    question: str = ""
    link_id: int | None = None
    made_at: datetime | None = None


def add_photo(
    sessions: Sessions, job_id: int, photo: NewPhoto, place: Place, now: datetime, entry: Entry | None = None
) -> PhotoRow:
    """Keep a photo with its job; an `entry` that was done before gives the photo that it came to.

    Raises:
        NotFound: there is no such job.
        InputError: it was taken on a day that is yet to come.
        TooMany: the job or the link holds as many as it can.
        KeyTaken: the entry's key was used for another one.
    """
    if place.made_at is not None:
        check_past("made_at", place.made_at, now)
    with writing(sessions) as session:
        row_of(session, job_id)
        before = done_before(session, job_id, entry)
        if before and before.photo_id is not None:
            kept = session.get(PhotoRow, before.photo_id)
            if kept is None:
                raise NotFound(f"Photo {before.photo_id} came, and was removed since.")
            return kept
        row = insert_photo(session, job_id, photo, place, now)
        remember(session, job_id, entry, now, row.id)
        return row


def insert_photo(session: Session, job_id: int, photo: NewPhoto, place: Place, now: datetime) -> PhotoRow:
    """Keep a photo within a transaction of the caller's."""
    _check_room(session, PhotoRow.job_id == job_id, MOST_PER_JOB, "job")
    if place.link_id is not None:
        _check_room(session, PhotoRow.link_id == place.link_id, MOST_PER_LINK, "link")
    row = PhotoRow(
        id=next_row_id(session.connection(), "photo"),
        job_id=job_id,
        link_id=place.link_id,
        stop=place.stop.value,
        question=place.question,
        sha256=photo.sha256(),
        width_px=photo.width_px,
        height_px=photo.height_px,
        added_at=now,
        made_at=place.made_at,
        jpeg=photo.jpeg,
        thumbnail=photo.thumbnail,
    )
    session.add(row)
    session.flush()
    row_of(session, job_id).revision += 1
    record(session, job_id, now, "photo", f"{row.id} {place.stop.value} {row.sha256}")
    return row


def _check_room(session: Session, belongs: object, most: int, where: str) -> None:
    count = session.scalar(select(func.count()).select_from(PhotoRow).where(belongs)) or 0  # type: ignore[arg-type]
    if count >= most:
        raise TooMany(f"A {where} holds at most {most} photos.")


def list_photos(sessions: Sessions, job_id: int) -> list[PhotoRow]:
    """The photos of a job, oldest first."""
    with sessions() as session:
        return list(session.scalars(select(PhotoRow).where(PhotoRow.job_id == job_id).order_by(PhotoRow.id)))


def load_photo(sessions: Sessions, photo_id: int, link_id: int | None = None) -> PhotoRow:
    """A photo with its bytes; with a link, only if it came by that link.

    Raises:
        NotFound: there is none.
    """
    with sessions() as session:
        row = session.get(PhotoRow, photo_id, options=[undefer(PhotoRow.jpeg), undefer(PhotoRow.thumbnail)])
        if row is None or (link_id is not None and row.link_id != link_id):
            raise NotFound(f"There is no photo {photo_id}.")
        return row


def remove_photo(sessions: Sessions, job_id: int, photo_id: int, now: datetime) -> None:
    """Remove a photo for good; one that the job rests on stays.

    Raises:
        NotFound: there is none with this job.
        InUse: the job names it as a confirmation, in a letter or with a reading.
    """
    with writing(sessions) as session:
        job = standing_row(session, row_of(session, job_id)).job
        named = {job.supply.tns_confirmation, *(one.photo for one in job.letters), *(one.photo for one in job.readings)}
        row = session.get(PhotoRow, photo_id)
        if row is None or row.job_id != job_id:
            raise NotFound(f"There is no photo {photo_id}.")
        if row.sha256 in named:
            raise InUse("The job rests on this photo, as the operator's written word or with a reading; it stays.")
        session.delete(row)
        row_of(session, job_id).revision += 1
        record(session, job_id, now, "photo removed", f"{photo_id} {row.sha256}")
