"""Which fault the readings of a job point to, and where: named from its judgements alone, never from a simulated fault.

As a good tester reasons: what is plainly wrong first (a step that failed), then what several figures share (all
continuity readings too high: leads), then one figure against the others. The steps that are only offered (each pair of
the insulation, R2 by the long lead) tell apart what the usual ones leave together.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from fulmen.core.demand.clamp_proof import ClampCause
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.rules.run import LOAD_CLAMP
from fulmen.core.model.readings import LEFT_OUT, Outcome, Reading, StepKey
from fulmen.core.simulations.as_built.faults import FaultKind
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.step_limits import AT_RATED, FIVE_TIMES

FAILED_STEPS = {
    StepKey.POLARITY_DEAD: FaultKind.LINE_NEUTRAL_CROSSED,
    StepKey.DC_DETECTION: FaultKind.DC_DETECTION_DEAD,
    StepKey.OPEN_PEN_TEST: FaultKind.OPEN_PEN_DEAD,
    StepKey.PILOT_A: FaultKind.CONTACTOR_STUCK,
    StepKey.DIODE: FaultKind.DIODE_NOT_MISSED,
    StepKey.PILOT_SHORTED: FaultKind.SHORTED_PILOT_IGNORED,
    StepKey.EARTH_OPEN: FaultKind.EARTH_LOSS_SLOW,
    StepKey.PILOT_DUTY: FaultKind.SET_TOO_HIGH,
    StepKey.PROXIMITY: FaultKind.LEAD_CODED_TOO_HIGH,
    StepKey.IR_EARTHS: FaultKind.EARTHS_JOINED,
    StepKey.PHASE_SEQUENCE: FaultKind.LINES_SWAPPED,
}
PULSES = (StepKey.RCD_PULSE_0, StepKey.RCD_PULSE_180, StepKey.RCD_FIVE_PULSE_0, StepKey.RCD_FIVE_PULSE_180)
ALTERNATING = (StepKey.RCD_TRIP, StepKey.RCD_AC_0, StepKey.RCD_AC_180)


class _Read:
    """The readings of one circuit with what is open about each step."""

    def __init__(self, steps: Iterable[Step], findings: Iterable[Finding], circuit: str) -> None:
        self.steps = {(one.step, one.subject): one for one in steps}
        self.open = {(one.step, one.subject): one for one in findings if one.is_open and one.step is not None}
        self.findings = tuple(findings)
        self.circuit = circuit

    def step(self, key: StepKey) -> Step | None:
        """The step of this circuit, or the origin's."""
        return self.steps.get((key, self.circuit)) or self.steps.get((key, "origin"))

    def finding(self, key: StepKey) -> Finding | None:
        """What is open about a step, if anything."""
        return self.open.get((key, self.circuit)) or self.open.get((key, "origin"))

    def reading(self, key: StepKey) -> Reading | None:
        """The reading of a step."""
        step = self.step(key)
        return step.reading if step is not None else None

    def value(self, key: StepKey) -> float | None:
        """A figure that was measured; over range is none."""
        reading = self.reading(key)
        return reading.value if reading is not None and reading.outcome is Outcome.MEASURED else None

    def over(self, key: StepKey) -> bool:
        """Whether a step read over range."""
        reading = self.reading(key)
        return reading is not None and reading.outcome is Outcome.OVER_RANGE

    def left_out(self, key: StepKey) -> bool:
        """Whether a step was not taken."""
        reading = self.reading(key)
        return reading is None or reading.outcome in LEFT_OUT

    def above(self, key: StepKey) -> bool:
        """Whether a figure lies above what is expected of it."""
        step, value = self.step(key), self.value(key)
        return step is not None and value is not None and step.expected_high is not None and value > step.expected_high

    def below(self, key: StepKey) -> bool:
        """Whether a figure lies below what is expected of it."""
        step, value = self.step(key), self.value(key)
        return step is not None and value is not None and step.expected_low is not None and value < step.expected_low

    def past(self, key: StepKey) -> bool:
        """Whether a figure is past its limit."""
        step, value = self.step(key), self.value(key)
        return step is not None and value is not None and step.limit is not None and value > step.limit


@dataclass(frozen=True)
class Named:
    """A fault by its kind, and the circuit that it is in where it is in one."""

    kind: FaultKind
    circuit: str


def diagnosis(steps: Iterable[Step], findings: Iterable[Finding], circuits: Iterable[str]) -> Named | None:
    """The fault that the readings of a run point to; None where nothing is open.

    Args:
        steps: the job's sequence with its readings.
        findings: what was judged of them.
        circuits: the run's circuits, the one that ends at the charge point last.
    """
    steps, findings = list(steps), list(findings)
    reads = [_Read(steps, findings, circuit) for circuit in reversed(list(circuits))]
    found = (Named(kind, read.circuit) for look in LOOKS for read in reads if (kind := look(read)) is not None)
    return next(found, None)


def _clamp(read: _Read) -> FaultKind | None:
    """What the clamp's own test was judged to show."""
    causes = {one.basis.get("cause") for one in read.findings if one.rule == LOAD_CLAMP.key and one.is_open}
    return next((CLAMPS[cause] for cause in causes if isinstance(cause, str) and cause in CLAMPS), None)


CLAMPS: dict[str, FaultKind] = {
    ClampCause.REVERSED: FaultKind.CLAMP_REVERSED,
    ClampCause.BOTH_CONDUCTORS: FaultKind.CLAMP_ROUND_BOTH,
    ClampCause.WRONG_TAIL: FaultKind.CLAMP_WRONG_TAIL,
    ClampCause.DEAD_PAIR: FaultKind.CLAMP_PAIR_DEAD,
    ClampCause.LIMIT_NOT_SET: FaultKind.CLAMP_LIMIT_NOT_SET,
}


def _broken_pen(read: _Read) -> FaultKind | None:
    """Where both ways to fault leave next to no current, only the ground is left of the supply's neutral and earth."""
    ways = [read.value(key) for key in (StepKey.FAULT_CURRENT_NEUTRAL, StepKey.FAULT_CURRENT_EARTH)]
    return FaultKind.BROKEN_PEN if all(one is not None and one <= GROUND_ONLY_KA for one in ways) else None


# 230 V through the least that the ground may leave, and what a display rounds.
GROUND_ONLY_KA = 0.02


def _failed(read: _Read) -> FaultKind | None:
    """A step that was taken and is not as it should be; one that could not be taken says nothing by itself."""
    failed = (key for key in FAILED_STEPS if read.finding(key) is not None and not read.left_out(key))
    return next((FAILED_STEPS[key] for key in failed), None)


def _no_earth(read: _Read) -> FaultKind | None:
    return FaultKind.NO_EARTH if read.over(StepKey.R1_R2) else None


def _insulation(read: _Read) -> FaultKind | None:
    """Which pair is poor: all of them is water, one is a nick or a neutral that touches earth."""
    if not any(read.finding(key) for key in (StepKey.IR_LIVE_EARTH, StepKey.IR_LINE_NEUTRAL)):
        return None
    line, neutral = read.value(StepKey.IR_LINE_EARTH), read.value(StepKey.IR_NEUTRAL_EARTH)
    if read.value(StepKey.IR_LINE_NEUTRAL) is not None:
        return FaultKind.WET_INSULATION
    if neutral is not None and (line is None or neutral < line):
        return FaultKind.NEUTRAL_TO_EARTH
    return FaultKind.DAMAGED_CABLE


def _continuity(read: _Read) -> FaultKind | None:
    """Everything too high is the leads; one figure too high is a joint; the whole cable too high is its length."""
    bonds = [read.past(StepKey.EARTHING_CONDUCTOR), read.past(StepKey.MAIN_BONDING)]
    if bonds[0]:
        return FaultKind.LEADS_NOT_NULLED
    if bonds[1]:
        return FaultKind.BOND_LOOSE
    loop, cross = _off(read, StepKey.R1_R2), _off(read, StepKey.R1_RN)
    earth = _off(read, StepKey.R2)
    # A joint stands in one conductor, length in every one: the earth alone tells which.
    if (loop > 0 or cross > 0) and _stretched(read, StepKey.R2):
        return FaultKind.EARTH_JOINT if cross <= 0 else FaultKind.LONGER_CABLE
    if loop > 0 and cross > 0:
        return FaultKind.LINE_JOINT
    if cross > 0:
        return FaultKind.NEUTRAL_JOINT
    if loop > 0:
        return FaultKind.EARTH_JOINT
    return FaultKind.PARALLEL_EARTH if loop < 0 or earth < 0 else None


def _stretched(read: _Read, key: StepKey) -> bool:
    """Whether a figure is a fifth or more above the middle of its band, even if the band is wider than that."""
    step, value = read.step(key), read.value(key)
    if step is None or value is None or step.expected_high is None or step.expected_low is None:
        return False
    return value > STRETCHED * (step.expected_low + step.expected_high) / 2


# Between the day's scatter and the least length that matters.
STRETCHED = 1.2


def _off(read: _Read, key: StepKey) -> int:
    """On which side of its band a figure lies: above, below, or within."""
    return 1 if read.above(key) else -1 if read.below(key) else 0


def _supply(read: _Read) -> FaultKind | None:
    if read.finding(StepKey.FAULT_CURRENT_NEUTRAL) is not None and not read.past(StepKey.ZE):
        return FaultKind.POOR_SUPPLY_NEUTRAL
    if any(read.finding(key) for key in (StepKey.ZE, StepKey.FAULT_CURRENT_EARTH)):
        return FaultKind.HIGH_ZE
    return None


def _loop(read: _Read) -> FaultKind | None:
    if read.finding(StepKey.ZS) is None:
        return None
    return FaultKind.PARALLEL_EARTH if read.below(StepKey.ZS) else FaultKind.EARTH_JOINT


def _rcd(read: _Read) -> FaultKind | None:
    if any(read.over(key) for key in ALTERNATING):
        return FaultKind.RCD_DEAD
    if any(read.over(key) for key in PULSES):
        return FaultKind.RCD_BLIND_TO_PULSES
    slow = any(read.past(key) for key in (*AT_RATED, *FIVE_TIMES))
    return FaultKind.RCD_SLOW if slow else None


LOOKS: tuple[Callable[[_Read], FaultKind | None], ...] = (
    _broken_pen, _failed, _no_earth, _insulation, _continuity, _supply, _rcd, _loop, _clamp,
)  # fmt: skip
