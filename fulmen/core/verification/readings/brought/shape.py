"""How the files of an instrument lie: which column holds what, which step and circuit each of its words is."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import Line, Part, Subject, number
from fulmen.core.model.readings import StepKey


class DecimalMark(StrEnum):
    """What parts whole ohms from parts of one."""

    POINT = "point"
    COMMA = "comma"


class ReadingShape(Part):
    """Which column of a file holds what; empty where it has none. Kept by instrument: each thing is said once.

    A `wide` file has a row a circuit and a column a step, a long one a row a reading; null is told by its headings.
    `steps` says which step each word or heading is, null one that is none; `circuits` what each of its words for a
    circuit is in this job. `mark` and `day_first` are asked where a figure or a day could be two; `tops` is where the
    range ends, by unit, for an instrument that writes only that it was passed.
    """

    step_column: Line = ""
    circuit_column: Line = ""
    value_column: Line = ""
    unit_column: Line = ""
    outcome_column: Line = ""
    voltage_column: Line = ""
    instrument_column: Line = ""
    time_column: Line = ""
    day_column: Line = ""
    line_column: Line = ""
    wide: bool | None = None
    steps: dict[Line, StepKey | None] = Field(default_factory=dict, max_length=200)
    circuits: dict[Line, Subject] = Field(default_factory=dict, max_length=200)
    mark: DecimalMark | None = None
    day_first: bool | None = None
    tops: dict[Line, Annotated[float, number(0, 10_000)]] = Field(default_factory=dict, max_length=10)
