"""What the API takes and gives about jobs, the acts of a person, reasons and the catalogue."""

from __future__ import annotations

from datetime import datetime
from hashlib import sha256
from typing import Annotated
from urllib.parse import unquote

from pydantic import BaseModel, ConfigDict, Field

from fulmen.core.answer import Answer
from fulmen.core.editing.changes import Change
from fulmen.core.editing.standing_reasons import FittingReason
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.base import Line, Text, shown
from fulmen.core.model.job import Job
from fulmen.core.model.load import Appliance
from fulmen.core.next_things import NextThing, StillLeft
from fulmen.core.reference.usual_defects import UsualDefect
from fulmen.core.verification.instruments.accuracy import UsualAccuracy
from fulmen.core.verification.steps.steps import StepText
from fulmen.store.acts import ActKind
from fulmen.store.entries import Entry

Number = Annotated[int, Field(ge=1, le=2**63 - 1)]


class JobPath(BaseModel):
    """A job's number in the path."""

    job_id: Number


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
    verdict: Verdict
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


class StillToDo(BaseModel):
    """What a certificate still needs: the first things, and how many are left by stage and place of the run.

    `issued` is the number of the paper that was issued from exactly this document, null where none was.
    """

    things: tuple[NextThing, ...]
    left: tuple[StillLeft, ...]
    issued: str | None


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
    ratings_a: list[int]
    accuracies: list[UsualAccuracy]
    shorthand: list[Option]
    appliances: list[Appliance]
    usual_defects: list[UsualDefect]
    steps: dict[str, StepText]
    test_set: bool = False


class FittingList(BaseModel):
    """The standing reasons that fit a job's open calls."""

    fitting: list[FittingReason]


class NamedAct(BaseModel):
    """One act: which hold (step/circuit), which call (the finding's key), or the certificate's signature."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    kind: ActKind
    about: Annotated[str, Field(pattern=r"^[a-z0-9_]{1,60}(/[a-z0-9-]{1,50})?$")]


class WordsWanted(BaseModel):
    """The acts that a page may be asked to do."""

    model_config = ConfigDict(extra="forbid")

    acts: Annotated[list[NamedAct], Field(min_length=1, max_length=200)]


class ActWord(NamedAct):
    """The one-time word of an act, and until when it is valid."""

    word: str
    expires_at: datetime


class ActWords(BaseModel):
    """The words, told this once."""

    words: list[ActWord]


class ChangeList(BaseModel):
    """Fields to change."""

    changes: list[Change]


class Question(BaseModel):
    """Root of what is asked about a job."""

    model_config = ConfigDict(extra="forbid")

    job: Job
