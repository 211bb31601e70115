"""What the API takes and gives about papers."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from fulmen.core.model.certificate import Signature
from fulmen.core.model.job import Job
from fulmen.web.jobs.schemas import Number


class PaperPath(BaseModel):
    """A paper's number in the path."""

    paper_id: Number


class IssueRequest(BaseModel):
    """Who signs for which part of the work, and the job as their screen showed it; its revision where that is known."""

    model_config = ConfigDict(extra="forbid")

    job: Job

    signatures: Annotated[list[Signature], Field(min_length=1, max_length=3)]
    revision: Number | None = None


class Paper(BaseModel):
    """An issued paper."""

    id: int
    number: str
    kind: str
    issued_at: datetime
    sha256: str
    supersedes: str | None
    superseded_by: str | None


class VerifiedPaper(BaseModel):
    """What a PDF is, in a word or two and in a sentence."""

    verdict: Literal["genuine", "saved_again", "superseded", "altered", "store_altered", "later", "unknown"]
    title: str
    words: str


class IssuePath(BaseModel):
    """A certificate that was asked for, by its number in the queue."""

    issue_id: Number


class IssueState(BaseModel):
    """How a certificate that was asked for stands: how many are before it, its paper, or why it was refused."""

    id: int
    state: Literal["waiting", "rendering", "issued", "refused"]
    ahead: int
    paper: Paper | None
    refused: str


class PaperList(BaseModel):
    """The papers of a job, newest first."""

    papers: list[Paper]
