"""The register of instruments: what a reading was taken with, and until when it is calibrated."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from fulmen.core.model.base import Day, Line, Name, Part, number


class Function(StrEnum):
    """What an instrument can measure or do; each step of the tests asks for one."""

    VOLTAGE = "voltage"
    CONTINUITY = "continuity"
    INSULATION = "insulation"
    ELECTRODE = "electrode"
    LOOP = "loop"
    RCD = "rcd"
    DIRECT_RESIDUAL = "direct_residual"
    PHASE_SEQUENCE = "phase_sequence"
    VEHICLE = "vehicle"
    CURRENT = "current"


class Measures(StrEnum):
    """What an instrument's sheet gives an operating error for; a loop test that trips no RCD has its own."""

    CONTINUITY = "continuity"
    INSULATION = "insulation"
    ELECTRODE = "electrode"
    LOOP = "loop"
    LOOP_NO_TRIP = "loop_no_trip"
    RCD = "rcd"


class Accuracy(Part):
    """How exactly an instrument measures something: a share of the reading, and so many of its last digit."""

    measures: Measures
    share_percent: Annotated[float, number(0, 30)]
    digits: Annotated[int, Field(strict=True, ge=0, le=99, description="of the last digit shown")]


class Instrument(Part):
    """One instrument. Readings name it by its `name`, so the name stays once a reading was taken with it.

    `calibration_due` is null until somebody looked at its label; `checked_on` the day it
    was last found right; `functions` are what it can do, `accuracies` what its
    sheet says of each.
    """

    name: Name
    serial_number: Line = ""
    calibration_due: Day | None = None
    checked_on: Day | None = None
    functions: tuple[Function, ...] = ()
    accuracies: tuple[Accuracy, ...] = Field(default=(), max_length=len(Measures))

    @model_validator(mode="after")
    def _each_once(self) -> Self:
        """A sheet gives one error for each thing."""
        told = [one.measures for one in self.accuracies]
        if len(set(told)) < len(told):
            twice = next(one for one in told if told.count(one) > 1)
            words = "{field}: “{measures}” is given twice"
            raise PydanticCustomError("accuracy_twice", words, {"field": "accuracies", "measures": twice.value})
        return self

    def accuracy(self, measures: Measures) -> Accuracy | None:
        """What its sheet says of what it measures; None until somebody looked."""
        return next((one for one in self.accuracies if one.measures is measures), None)
