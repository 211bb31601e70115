"""What the API takes and gives about photos, the householder's link, the operator and charge points."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from fulmen.core.demand.meter_columns import MeterShape
from fulmen.core.model.base import Day, Id, Name, Paragraph, PhotoRef, Text, Zoned
from fulmen.core.model.letters import LetterKind
from fulmen.core.model.load import HalfHours
from fulmen.core.model.stops import Stop
from fulmen.core.reference.charge_point_catalogue import ChargePointRecord
from fulmen.core.survey.householder import PlainQuestion

Number = Annotated[int, Field(ge=1, le=2**63 - 1)]
AnswerState = Literal["arrived", "accepted", "asked_again"]


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


class LinkPath(BaseModel):
    """A link of a job."""

    job_id: Number
    link_id: Number


class AnswerPath(BaseModel):
    """An answer that came by a link of a job."""

    job_id: Number
    answer_id: Number


class NewLink(BaseModel):
    """Who makes a link, and for how long it works."""

    model_config = ConfigDict(extra="forbid", str_strip_whitespace=True)

    made_by: Name
    days: Annotated[int, Field(strict=True, ge=1, le=60)] = 14


class MadeLink(BaseModel):
    """A new link. Its address is shown this once; only a hash of its secret is kept."""

    id: int
    address: str
    expires_at: datetime


class GivenAnswer(BaseModel):
    """An answer as it arrived, in words, and what became of it."""

    id: int
    question: str
    text: str
    words: str
    photos: list[int]
    state: AnswerState
    note: str
    given_at: datetime


class LinkInfo(BaseModel):
    """A link with what came by it; `ended` says why it no longer works, or is empty."""

    id: int
    made_by: str
    made_at: datetime
    expires_at: datetime
    ended: Literal["", "expired", "withdrawn"]
    answers: list[GivenAnswer]


class LinkList(BaseModel):
    """The links of a job, newest first."""

    links: list[LinkInfo]


class AskAgain(BaseModel):
    """What is wanted instead, in words for the householder."""

    model_config = ConfigDict(extra="forbid", str_strip_whitespace=True)

    note: Annotated[Text, Field(min_length=3, max_length=500)]


class SecretPath(BaseModel):
    """The secret of a householder's link."""

    secret: Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{20,100}$")]


class SecretQuestionPath(SecretPath):
    """One question behind a link."""

    question: Annotated[str, Field(pattern=r"^[a-z_]{1,40}$")]


class SecretPhotoPath(SecretPath):
    """One photo that came by a link."""

    photo_id: Number


class PlainReply(BaseModel):
    """The householder's answer."""

    model_config = ConfigDict(extra="forbid")

    value: Any


class AskedQuestion(BaseModel):
    """A question with what was answered so far, and what the electrician wrote back."""

    question: PlainQuestion
    value: Any
    photos: list[int]
    state: AnswerState | Literal["open"]
    note: str


class HouseholderPage(BaseModel):
    """All that a link shows: who asks, until when, and the questions. Nothing of the job itself."""

    asked_by: str
    expires_at: datetime
    questions: list[AskedQuestion]


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
