"""What the API takes and gives about photos, the operator, charge points and half-hours."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from fulmen.core.demand.meter_columns import MeterShape
from fulmen.core.model.base import Day, Id, Paragraph, PhotoRef, Zoned
from fulmen.core.model.letters import LetterKind
from fulmen.core.model.load import HalfHours
from fulmen.core.model.stops import Stop
from fulmen.core.reference.charge_point_catalogue import ChargePointRecord
from fulmen.web.jobs.schemas import Number


class PhotoPath(BaseModel):
    """A photo of a job."""

    job_id: Number
    photo_id: Number


class OnePhotoPath(BaseModel):
    """A photo's number."""

    photo_id: Number


class PhotoPlace(BaseModel):
    """The stop that a photo belongs to, and when it was taken by its device's clock."""

    stop: Stop
    made_at: Zoned | None = None


class PhotoInfo(BaseModel):
    """A kept photo; `question` names what the householder was asked for, empty where the electrician took it."""

    id: int
    stop: Stop
    question: str
    sha256: str
    width_px: int
    height_px: int
    added_at: datetime
    made_at: datetime | None


class PhotoList(BaseModel):
    """The photos of a job, oldest first."""

    photos: list[PhotoInfo]


class NewLetter(BaseModel):
    """A letter to or from the real operator, kept with the job."""

    model_config = ConfigDict(extra="forbid", str_strip_whitespace=True)

    kind: LetterKind
    dated: Day
    text: Paragraph = ""
    booked_on: Day | None = None
    photo: PhotoRef = ""


class PassDays(BaseModel):
    """How many simulated days pass at the stand-in desk."""

    model_config = ConfigDict(extra="forbid")

    days: Annotated[int, Field(strict=True, ge=1, le=60)]


class DeskState(BaseModel):
    """The case at the stand-in desk: its simulated day, and whether letters are still to come."""

    stand_in: Literal[True] = True
    received_on: date | None
    today: date | None
    letters_to_come: int


class ChargePointList(BaseModel):
    """Charge points to choose from: those that ship, then the user's own."""

    shipped: list[ChargePointRecord]
    own: list[ChargePointRecord]


class RecordPath(BaseModel):
    """The id of a charge point record."""

    record_id: Id


class HalfHourFile(BaseModel):
    """The text of a file of half-hourly energy, and how it lies where the guess was put right."""

    model_config = ConfigDict(extra="forbid")

    text: str
    shape: MeterShape | None = None


class HalfHourAnswer(BaseModel):
    """What a file came to, how it was read, and its first lines cut into columns, for who wants to put that right."""

    record: HalfHours
    shape: MeterShape
    first_lines: list[list[str]]
