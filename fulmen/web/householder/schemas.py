"""What the API takes and gives about the householder's link."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from fulmen.core.model.base import Name, Text
from fulmen.core.survey.householder import PlainQuestion
from fulmen.web.jobs.schemas import Number

AnswerState = Literal["arrived", "accepted", "asked_again"]


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
