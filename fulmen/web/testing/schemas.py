"""What the API takes and gives about instruments, readings and the way a step measures along."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import Id, Line, Name, Part, Subject, Zoned
from fulmen.core.model.instruments import Instrument
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Outcome, Reading, StepKey
from fulmen.core.practice.scene import Scene
from fulmen.core.simulations.as_built.flow import Flow
from fulmen.core.verification.instruments.dials import Link, Point
from fulmen.core.verification.readings.brought.shape import ReadingShape
from fulmen.core.verification.readings.brought.table import MOST_LINES
from fulmen.core.verification.readings.imported_readings import ImportedLine
from fulmen.core.verification.readings.in_use import InUse


class InstrumentRegister(Part):
    """What the firm measures with: offered to every job."""

    instruments: tuple[Instrument, ...] = Field(default=(), max_length=20)


class InstrumentsInUse(Part):
    """What each instrument of the firm's register has read."""

    instruments: tuple[InUse, ...]


class HereNow(Part):
    """What a device has open of a job: whose it is, and which step; null where none is."""

    device: Annotated[str, Field(pattern=r"^[a-z0-9-]{8,40}$")]
    name: Line = ""
    step: StepKey | None = None
    subject: Subject | None = None


class OtherHere(Part):
    """Somebody else at the same job, and the step that they have open."""

    name: str
    step: str
    subject: str


class JobNow(Part):
    """How far a job has come, and who else is at it."""

    revision: int
    others: tuple[OtherHere, ...]


class Asked(Part):
    """One step that the test set is asked to read."""

    step: StepKey
    subject: Subject


class FromTestSet(Part):
    """What the test set showed of a step; nothing is kept."""

    outcome: Outcome
    value: float | None
    test_voltage_v: int | None
    instrument: str


class ReadingsFile(Part):
    """A file of readings, its bytes in base64, who brings it in, and its columns; without them those kept for the
    instrument.
    """

    data: Annotated[str, Field(max_length=1_100_000)]
    shape: ReadingShape | None = None
    taken_by: Name
    taken_at: Zoned
    instrument: Line = ""
    again_because: Line = ""


class ReadingLines(Part):
    """The fate of each line of a file, and how it was read; nothing is kept.

    `unused` are the columns that say nothing yet, `told` is what is to be said of its columns before any line can be.
    """

    columns: tuple[str, ...]
    unused: tuple[str, ...]
    shape: ReadingShape
    lines: tuple[ImportedLine, ...]
    told: str = ""


class ManyReadings(Part):
    """Readings to keep together, and the columns that the next file of their instrument is read by."""

    readings: Annotated[tuple[Reading, ...], Field(min_length=1, max_length=MOST_LINES)]
    shape: ReadingShape | None = None
    instrument: Line = ""


class ReadingShapes(Part):
    """The columns of each instrument's files."""

    by_instrument: dict[Line, ReadingShape] = Field(default_factory=dict, max_length=50)


class StepAsked(Part):
    """A step of a job, on the way to one charge point."""

    job: Job
    charge_point: Id
    step: StepKey
    subject: Subject


class StepDrawing(Part):
    """Where a step's leads go in the house as designed, and what flows where."""

    scene: Scene
    circuit: str
    leads: dict[str, tuple[Point, ...]]
    linked: Link
    flow: tuple[Flow, ...]
