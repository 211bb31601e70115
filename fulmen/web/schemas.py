"""What the API takes and gives beyond the core's own models."""

from __future__ import annotations

from datetime import datetime
from hashlib import sha256
from typing import Annotated, Literal
from urllib.parse import unquote

from pydantic import BaseModel, ConfigDict, Field

from fulmen.core.answer import Answer
from fulmen.core.model.base import Line, Text, shown
from fulmen.core.model.certificate import Signature
from fulmen.core.model.job import Job
from fulmen.core.model.load import Appliance
from fulmen.core.reference.soil import Soil
from fulmen.core.reference.usual_defects import UsualDefect
from fulmen.core.simulations.benches.pen_bench import Preset
from fulmen.core.verification.steps.steps import StepText
from fulmen.store.entries import Entry

# What a row's number can be in the database.
MOST_ID = 2**63 - 1


class JobPath(BaseModel):
    """A job's number in the path."""

    job_id: Annotated[int, Field(ge=1, le=MOST_ID)]


class PaperPath(BaseModel):
    """A paper's number in the path."""

    paper_id: Annotated[int, Field(ge=1, le=MOST_ID)]


class VersionHeader(BaseModel):
    """The version that the caller read, in If-Match."""

    model_config = ConfigDict(extra="ignore")

    # The ETag of a compressed answer ends with how it was compressed; the version is the same.
    if_match: Annotated[str, Field(alias="If-Match", pattern=r'^"?[0-9]{1,9}(:(zstd|br|gzip|deflate))?"?$')]

    def version(self) -> int:
        """The version as a number."""
        return int(self.if_match.strip('"').partition(":")[0])


class SaveHeader(VersionHeader):
    """The version that was edited, and who saves: the name as typed, percent-encoded, where one was."""

    person: Annotated[str, Field(alias="Fulmen-Person", max_length=600, pattern=r"^[!-~]*$")] = ""

    def by(self) -> str:
        """The name on one line, with a mark for what can't be shown."""
        return " ".join(shown(unquote(self.person)).split())[:200]


class EntryHeader(BaseModel):
    """The key that a device gave an entry before it sent it; the same key again is the same entry."""

    model_config = ConfigDict(extra="ignore")

    key: Annotated[str, Field(alias="Fulmen-Entry", pattern=r"^([0-9a-f-]{16,64})?$")] = ""

    def entry(self, body: bytes) -> Entry | None:
        """The entry that a body makes under its key, if it has one."""
        return Entry(self.key, sha256(body).hexdigest()) if self.key else None


class JobQuery(BaseModel):
    """What to list."""

    search: Annotated[Text, Field(max_length=100)] = ""
    limit: Annotated[int, Field(ge=1, le=200)] = 50
    offset: Annotated[int, Field(ge=0, le=1_000_000)] = 0


class BlankJob(BaseModel):
    """A blank sheet to start from."""

    model_config = ConfigDict(extra="forbid", str_strip_whitespace=True)

    title: Annotated[Text, Field(min_length=1, max_length=120)]
    reference: Line = ""


class JobSummary(BaseModel):
    """A job in the list."""

    id: int
    title: str
    reference: str
    householder: str
    address: str
    open_checks: int
    falls_short: int
    readings_taken: int
    readings_wanted: int
    changed_at: datetime
    paper: str | None


class JobList(BaseModel):
    """Jobs, newest change first, and how many match."""

    jobs: list[JobSummary]
    total: int


class JobState(BaseModel):
    """A stored job with its version, its revision and what it computes to.

    `cleaned` are fields of an older document that held what can't be shown.
    """

    id: int
    version: int
    revision: int
    cleaned: tuple[str, ...] = ()
    job: Job
    evaluation: Answer


class IssueRequest(BaseModel):
    """Who signs for which part of the work, and the job as their screen showed it; its revision where that is known."""

    model_config = ConfigDict(extra="forbid")

    job: Job

    signatures: Annotated[list[Signature], Field(min_length=1, max_length=3)]
    revision: Annotated[int, Field(ge=1, le=MOST_ID)] | None = None


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

    issue_id: Annotated[int, Field(ge=1, le=MOST_ID)]


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


class Option(BaseModel):
    """One value of a choice and its plain words."""

    value: str
    words: str


class CableOption(BaseModel):
    """A cable record that can be chosen."""

    id: str
    name: str
    sizes_mm2: list[float]
    methods: list[str]
    phases: list[int]
    armoured: bool


class Catalogue(BaseModel):
    """What the screens need to know once: choices with their words, what can be picked, the caution."""

    caution: str
    edition: str
    choices: dict[str, list[Option]]
    cables: list[CableOption]
    shorthand: list[Option]
    appliances: list[Appliance]
    usual_defects: list[UsualDefect]
    steps: dict[str, StepText]
    test_set: bool = False


class Teaching(BaseModel):
    """The streets that teach, and the soils to plan with."""

    presets: list[Preset]
    soils: list[Soil]
