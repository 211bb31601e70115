"""A reading: one test result as it was taken. Readings are only ever appended; the latest of a step counts."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from fulmen.core.model.base import Id, Line, Moment, Name, Part, number


class StepKey(StrEnum):
    """The steps of the test sequence, in the order of Part 6."""

    MAIN_BONDING = "main_bonding"
    R1_R2 = "r1_r2"
    R1_RN = "r1_rn"
    IR_LIVE_EARTH = "ir_live_earth"
    IR_LINE_NEUTRAL = "ir_line_neutral"
    POLARITY_DEAD = "polarity_dead"
    ELECTRODE = "electrode"
    POLARITY_LIVE = "polarity_live"
    ZE = "ze"
    FAULT_CURRENT = "fault_current"
    ZS = "zs"
    RCD_TRIP = "rcd_trip"
    RCD_ORIGIN_TRIP = "rcd_origin_trip"
    PHASE_SEQUENCE = "phase_sequence"
    RCD_BUTTON = "rcd_button"
    DC_DETECTION = "dc_detection"
    CHARGE_POINT_STATES = "charge_point_states"


class Outcome(StrEnum):
    """How a step ended."""

    MEASURED = "measured"
    OVER_RANGE = "over_range"
    RIGHT = "right"
    WRONG = "wrong"
    COULD_NOT_TEST = "could_not_test"


class Reading(Part):
    """One test result.

    `value` is in the unit of its step (ohm, megohm, kiloampere, millisecond). `over_range` keeps the top
    of the instrument's range as the value: ">999 MΩ" is 999, over range.
    """

    step: StepKey
    subject: Id
    outcome: Outcome
    value: Annotated[float, number(0, 10_000)] | None = None
    reason: Line = ""
    instrument: Line = ""
    test_voltage_v: Annotated[int, Field(strict=True, ge=50, le=1000)] | None = None
    temperature_c: Annotated[float, number(-25, 60)] | None = None
    taken_by: Name
    taken_at: Moment

    @model_validator(mode="after")
    def _complete(self) -> Reading:
        needs_value = self.outcome in (Outcome.MEASURED, Outcome.OVER_RANGE)
        if needs_value != (self.value is not None):
            raise PydanticCustomError(
                "reading_value", "value: a measured step needs its figure, any other step takes none"
            )
        if self.outcome is Outcome.COULD_NOT_TEST and len(self.reason) < 3:
            raise PydanticCustomError("reading_reason", "reason: say why the step could not be tested")
        if self.taken_at.tzinfo is None:
            raise PydanticCustomError("reading_time", "taken_at: give the time with its offset from UTC")
        return self
