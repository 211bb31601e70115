"""A reading: one test result as it was taken. Readings are only ever appended; the latest of a step counts.

One that was taken by mistake is taken back by another entry, with its reason: both stay, neither counts.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Annotated

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from fulmen.core.model.base import Line, Moment, Name, Part, PhotoRef, Subject, number


class StepKey(StrEnum):
    """The steps of the test sequence, in the order of Part 6; `verification/steps/steps.toml` says what each is."""

    ISOLATED = "isolated"
    LEADS_NULLED = "leads_nulled"
    EARTHING_CONDUCTOR = "earthing_conductor"
    MAIN_BONDING = "main_bonding"
    RING_R1 = "ring_r1"
    RING_RN = "ring_rn"
    RING_R2 = "ring_r2"
    R1_R2 = "r1_r2"
    R2 = "r2"
    R1_RN = "r1_rn"
    RING_ALIKE = "ring_alike"
    POLARITY_DEAD = "polarity_dead"
    CONNECTOR_EARTH = "connector_earth"
    IR_LINE_NEUTRAL = "ir_line_neutral"
    IR_LINE_LINE = "ir_line_line"
    IR_LIVE_EARTH = "ir_live_earth"
    IR_LINE_EARTH = "ir_line_earth"
    IR_NEUTRAL_EARTH = "ir_neutral_earth"
    IR_EARTHS = "ir_earths"
    ELECTRODE = "electrode"
    BOX_MADE_UP = "box_made_up"
    SAFE_TO_ENERGISE = "safe_to_energise"
    POLARITY_LIVE = "polarity_live"
    ZE = "ze"
    ELECTRODE_LOOP = "electrode_loop"
    FAULT_CURRENT_NEUTRAL = "fault_current_neutral"
    FAULT_CURRENT_EARTH = "fault_current_earth"
    FAULT_CURRENT = "fault_current"
    CHARGE_NOW = "charge_now"
    ZS_CABLE = "zs_cable"
    ZS = "zs"
    RCD_TRIP = "rcd_trip"
    RCD_FIVE = "rcd_five"
    RCD_HALF_AC_0 = "rcd_half_ac_0"
    RCD_HALF_AC_180 = "rcd_half_ac_180"
    RCD_AC_0 = "rcd_ac_0"
    RCD_AC_180 = "rcd_ac_180"
    RCD_FIVE_AC_0 = "rcd_five_ac_0"
    RCD_FIVE_AC_180 = "rcd_five_ac_180"
    RCD_HALF_PULSE_0 = "rcd_half_pulse_0"
    RCD_HALF_PULSE_180 = "rcd_half_pulse_180"
    RCD_PULSE_0 = "rcd_pulse_0"
    RCD_PULSE_180 = "rcd_pulse_180"
    RCD_FIVE_PULSE_0 = "rcd_five_pulse_0"
    RCD_FIVE_PULSE_180 = "rcd_five_pulse_180"
    RCD_SMOOTH_PLUS = "rcd_smooth_plus"
    RCD_SMOOTH_MINUS = "rcd_smooth_minus"
    RCD_ORIGIN_TRIP = "rcd_origin_trip"
    PHASE_SEQUENCE = "phase_sequence"
    RCD_BUTTON = "rcd_button"
    DC_DETECTION = "dc_detection"
    OPEN_PEN_TEST = "open_pen_test"
    SURGE_INDICATOR = "surge_indicator"
    SWITCHING = "switching"
    PROXIMITY = "proximity"
    PILOT_A = "pilot_a"
    PILOT_B = "pilot_b"
    PILOT_DUTY = "pilot_duty"
    PILOT_C = "pilot_c"
    PILOT_D = "pilot_d"
    CONNECTOR_LOCK = "connector_lock"
    PILOT_SHORTED = "pilot_shorted"
    EARTH_OPEN = "earth_open"
    DIODE = "diode"
    RESET = "reset"
    CHARGE_POINT_STATES = "charge_point_states"


AT_THE_SUPPLY = (
    StepKey.ZE,
    StepKey.ELECTRODE_LOOP,
    StepKey.FAULT_CURRENT_NEUTRAL,
    StepKey.FAULT_CURRENT_EARTH,
    StepKey.FAULT_CURRENT,
)
# A reading of one of these was taken with the circuit on, or says that it was switched on.
ENERGISED = frozenset(tuple(StepKey)[list(StepKey).index(StepKey.SAFE_TO_ENERGISE) :]) - frozenset(AT_THE_SUPPLY)


# Nobody goes on before these are signed. Signing is an act of a person: no file, list or instrument brings one.
HOLDS = frozenset({StepKey.ISOLATED, StepKey.BOX_MADE_UP, StepKey.SAFE_TO_ENERGISE})


class Outcome(StrEnum):
    """How a step ended."""

    MEASURED = "measured"
    OVER_RANGE = "over_range"
    RIGHT = "right"
    WRONG = "wrong"
    COULD_NOT_TEST = "could_not_test"
    NOT_APPLICABLE = "not_applicable"
    TAKEN_BACK = "taken_back"


# A step that was left out, with a reason.
LEFT_OUT = (Outcome.COULD_NOT_TEST, Outcome.NOT_APPLICABLE)


class Follows(Part):
    """The reading of the same step that a tester knew of when taking it again, or takes back: whose, and when."""

    taken_by: Name
    taken_at: Moment


class Reading(Part):
    """One test result.

    `value` is in the unit of its step (ohm, megohm, kiloampere, millisecond). `over_range` keeps the top
    of the instrument's range as the value: ">999 MΩ" is 999, over range. `instrument` is its name in the job's
    register; `follows` is the reading that its tester knew of, `again_because` why it was taken again all the same;
    of one that takes another back `follows` says which, and `reason` why.
    `photo` shows the display. `entered_by` is who wrote it down for who took it, empty where that is one person.
    `came_at` is when a hold came to the store, where its device signed it without network and sent it later.
    """

    step: StepKey
    subject: Subject
    outcome: Outcome
    value: Annotated[float, number(0, 10_000)] | None = None
    reason: Line = ""
    instrument: Line = ""
    test_voltage_v: Annotated[int, Field(strict=True, ge=50, le=1000)] | None = None
    temperature_c: Annotated[float, number(-25, 60)] | None = None
    follows: Follows | None = None
    again_because: Line = ""
    photo: PhotoRef = ""
    taken_by: Name
    entered_by: Line = ""
    taken_at: Moment
    came_at: Moment | None = None

    @model_validator(mode="after")
    def _complete(self) -> Reading:
        needs_value = self.outcome in (Outcome.MEASURED, Outcome.OVER_RANGE)
        # What is wrong may have been measured all the same: both stay.
        may_have = needs_value or self.outcome is Outcome.WRONG
        if (needs_value and self.value is None) or (self.value is not None and not may_have):
            raise PydanticCustomError(
                "reading_value", "value: a measured step needs its figure; right, or left out, takes none"
            )
        if self.outcome in LEFT_OUT and len(self.reason) < 3:
            raise PydanticCustomError("reading_reason", "reason: say why the step was not tested")
        if self.outcome is Outcome.TAKEN_BACK and len(self.reason) < 3:
            raise PydanticCustomError("reading_reason", "reason: say why the reading is taken back")
        if self.outcome is Outcome.TAKEN_BACK and self.follows is None:
            raise PydanticCustomError("reading_follows", "follows: say which reading is taken back: whose, and when")
        if self.taken_at.tzinfo is None:
            raise PydanticCustomError("reading_time", "taken_at: give the time with its offset from UTC")
        return self


@dataclass(frozen=True, slots=True)
class ByStep:
    """The readings of a job that count, by step and subject, the first one first; `back` holds those that were taken
    back, each before the entry that did so.
    """

    taken: Mapping[tuple[StepKey, str], tuple[Reading, ...]]
    back: Mapping[tuple[StepKey, str], tuple[Reading, ...]] = field(default_factory=dict)

    def every(self, step: StepKey, subject: str) -> tuple[Reading, ...]:
        """Every reading of a step, the first one first."""
        return self.taken.get((step, subject), ())

    def told(self, step: StepKey, subject: str) -> tuple[Reading, ...]:
        """Every reading of a step that counts, then what was taken back."""
        return (*self.every(step, subject), *self.back.get((step, subject), ()))

    def latest(self, step: StepKey, subject: str) -> Reading | None:
        """The reading of a step that counts."""
        taken = self.taken.get((step, subject))
        return taken[-1] if taken else None

    def figure(self, step: StepKey, subject: str) -> float | None:
        """The measured figure of a step, or None; a figure over range is no figure."""
        reading = self.latest(step, subject)
        return reading.value if reading is not None and reading.outcome is Outcome.MEASURED else None


def by_step(readings: Iterable[Reading]) -> ByStep:
    """Readings sorted by step and subject; those that were taken back stand apart."""
    found: dict[tuple[StepKey, str], tuple[Reading, ...]] = {}
    for one in readings:
        key = (one.step, one.subject)
        found[key] = (*found.get(key, ()), one)
    mistaken = [key for key, taken in found.items() if any(one.outcome is Outcome.TAKEN_BACK for one in taken)]
    back = {key: _taken_back(found[key]) for key in mistaken}
    return ByStep({key: counting(taken) if key in back else taken for key, taken in found.items()}, back)


def is_of(entry: Reading, reading: Reading) -> bool:
    """Whether an entry takes a reading back: of the same step and thing, by the same person at the same time."""
    return (
        entry.outcome is Outcome.TAKEN_BACK
        and entry.follows == Follows(taken_by=reading.taken_by, taken_at=reading.taken_at)
        and (entry.step, entry.subject) == (reading.step, reading.subject)
        and reading.outcome is not Outcome.TAKEN_BACK
    )


def counting(readings: Iterable[Reading]) -> tuple[Reading, ...]:
    """The readings that count: none that was taken back later, and no entry that took one back."""
    every = tuple(readings)
    entries = [one for one in every if one.outcome is Outcome.TAKEN_BACK]
    if not entries:
        return every
    return tuple(one for one in every if one not in entries and not any(is_of(entry, one) for entry in entries))


def _taken_back(taken: tuple[Reading, ...]) -> tuple[Reading, ...]:
    """Of one step: what was taken back, each before the entry that did so."""
    entries = [one for one in taken if one.outcome is Outcome.TAKEN_BACK]
    return tuple(each for entry in entries for each in (*(one for one in taken if is_of(entry, one)), entry))
