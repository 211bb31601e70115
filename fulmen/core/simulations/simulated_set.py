"""A simulated test set and vehicle adapter: what they show of an installation as built, at each step of the sequence.

Figures come from the network between the terminals of the step's leads, with the resolution of such an instrument and a
scatter of two per cent and half a digit, well within the operating error of IEC 61557 (30 % of a continuity, insulation
or loop reading; from memory). Seeded: the same seed reads the same.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from math import inf
from random import Random

from fulmen.core.electrical.control_pilot import NOMINAL_V, PilotState, duty_of
from fulmen.core.model.readings import Outcome, Reading, StepKey
from fulmen.core.simulations.as_installed import BOND_OHM, AsInstalled, electrode_ohm
from fulmen.core.simulations.faults import FaultKind
from fulmen.core.verification.sequence import Step
from fulmen.core.verification.step_applies import has_car_electrode

SCATTER = 0.02
CONTINUITY_TOP_OHM, INSULATION_TOP_MOHM, LOOP_TOP_OHM, RCD_TOP_MS = 19.99, 999.0, 1999.0, 1999.0


@dataclass(frozen=True)
class Shown:
    """What stands on a display: a figure or the top of the range, or how a step without a figure ended."""

    outcome: Outcome
    value: float | None = None


class TestSet:
    """The instruments at one house, with a scatter of their own."""

    __test__ = False

    def __init__(self, house: AsInstalled, seed: int = 0) -> None:
        self.house, self.chance = house, Random(seed)
        self.u0_v = house.case.rules.value("u0_v")
        # An RCD has its own speed: each of its tests scatters about that.
        self.rcd_ms, self.fast_ms = self.chance.uniform(16, 42), self.chance.uniform(7, 14)
        self.delayed_ms = self.chance.uniform(160, 380)

    def read(self, step: Step) -> Shown:
        """What the step shows here."""
        reader = READERS.get(step.step)
        return reader(self, step) if reader is not None else Shown(Outcome.RIGHT)

    def reading(self, step: Step, taken_by: str, taken_at: datetime) -> Reading:
        """The same as a reading to keep."""
        shown = self.read(step)
        volts = 500 if step.function == "insulation" and shown.value is not None else None
        return Reading(
            step=step.step,
            subject=step.subject,
            outcome=shown.outcome,
            value=shown.value,
            test_voltage_v=volts,
            instrument=INSTRUMENT,
            temperature_c=self.house.case.job.testing.conductors_c,
            reason="as the simulated set showed it" if shown.outcome is Outcome.WRONG else "",
            taken_by=taken_by,
            taken_at=taken_at,
        )

    def shown(self, value: float, resolution: float, top: float = inf) -> Shown:
        """A figure as a display has it: scattered, in steps of its resolution, over range past its top."""
        if value > top:
            return Shown(Outcome.OVER_RANGE, top)
        scattered = value * (1 + self.chance.uniform(-SCATTER, SCATTER)) + self.chance.uniform(-0.5, 0.5) * resolution
        steps = max(0.0, round(scattered / resolution))
        return Shown(Outcome.MEASURED, round(steps * resolution, 4))

    def has(self, kind: FaultKind) -> bool:
        """Whether a fault is there."""
        return self.house.fault(kind) is not None

    def size(self, kind: FaultKind, otherwise: float = 0.0) -> float:
        """The size of a fault, or what stands there without it."""
        found = self.house.fault(kind)
        return found.size if found is not None else otherwise

    def continuity(self, ohm: float) -> Shown:
        """A continuity reading: leads that were not nulled are in it."""
        return self.shown(ohm + self.size(FaultKind.LEADS_NOT_NULLED), 0.01, CONTINUITY_TOP_OHM)


INSTRUMENT = "Simulated test set"


def _linked(far: str, near: str) -> Callable[[TestSet, Step], Shown]:
    """Between two conductors at the far end, linked at the board."""

    def read(tester: TestSet, step: Step) -> Shown:
        name = step.subject
        ohm = tester.house.dead_ohm(name, f"{name}.L1", f"{name}.{far}1", ((f"{name}.L0", f"{name}.{near}0"),))
        return tester.continuity(ohm)

    return read


def _long_lead(tester: TestSet, step: Step) -> Shown:
    return tester.continuity(tester.house.dead_ohm(step.subject, "met", f"{step.subject}.E1"))


def _insulation(one: str, other: str) -> Callable[[TestSet, Step], Shown]:
    return lambda tester, step: tester.shown(
        tester.house.insulation_mohm(step.subject, one, other), 0.01, INSULATION_TOP_MOHM
    )


def _two_earths(tester: TestSet, step: Step) -> Shown:
    joined = tester.has(FaultKind.EARTHS_JOINED)
    return tester.shown(0.0 if joined else 200.0, 0.1, INSULATION_TOP_MOHM)


def _polarity(tester: TestSet, step: Step) -> Shown:
    return Shown(Outcome.WRONG if tester.has(FaultKind.LINE_NEUTRAL_CROSSED) else Outcome.RIGHT)


def _ze(tester: TestSet, step: Step) -> Shown:
    return tester.shown(tester.house.loop_ohm("supply.L", "supply.E", without_earths=True), 0.01, LOOP_TOP_OHM)


def _fault_current(point: str) -> Callable[[TestSet, Step], Shown]:
    def read(tester: TestSet, step: Step) -> Shown:
        ohm = tester.house.loop_ohm("supply.L", point)
        return tester.shown(tester.u0_v / ohm / 1000, 0.01)

    return read


def _zs(tester: TestSet, step: Step) -> Shown:
    house, name = tester.house, step.subject
    final = house.case.run.final().circuit.id
    earth = "car.E" if has_car_electrode(house.case) and name == final else f"{name}.E1"
    line = f"{name}.N1" if tester.has(FaultKind.LINE_NEUTRAL_CROSSED) and name == final else f"{name}.L1"
    return tester.shown(house.loop_ohm(line, earth), 0.01, LOOP_TOP_OHM)


def _zs_cable(tester: TestSet, step: Step) -> Shown:
    return tester.shown(tester.house.loop_ohm(f"{step.subject}.L1", f"{step.subject}.E1"), 0.01, LOOP_TOP_OHM)


def _electrode(tester: TestSet, step: Step) -> Shown:
    return tester.shown(electrode_ohm(tester.house), 0.1, LOOP_TOP_OHM)


def _rcd(*, at_rated: bool, pulses: bool = False) -> Callable[[TestSet, Step], Shown]:
    """The time of an RCD: at its rated current or five times it; a Type AC does not see pulses."""

    def read(tester: TestSet, step: Step) -> Shown:
        blind = pulses and tester.has(FaultKind.RCD_BLIND_TO_PULSES)
        if blind or tester.has(FaultKind.RCD_DEAD) or tester.has(FaultKind.NO_EARTH):
            return Shown(Outcome.OVER_RANGE, RCD_TOP_MS)
        usual = tester.rcd_ms if at_rated else tester.fast_ms
        slow = tester.size(FaultKind.RCD_SLOW, usual)
        return tester.shown(slow if at_rated else min(slow, usual) if slow == usual else slow / 5, 0.1, RCD_TOP_MS)

    return read


def _delayed_rcd(tester: TestSet, step: Step) -> Shown:
    return tester.shown(tester.delayed_ms, 0.1, RCD_TOP_MS)


def _wrong_with(kind: FaultKind) -> Callable[[TestSet, Step], Shown]:
    return lambda tester, step: Shown(Outcome.WRONG if tester.has(kind) else Outcome.RIGHT)


def _pilot(state: PilotState) -> Callable[[TestSet, Step], Shown]:
    def read(tester: TestSet, step: Step) -> Shown:
        if state is PilotState.A and tester.has(FaultKind.CONTACTOR_STUCK):
            return Shown(Outcome.WRONG)
        return tester.shown(NOMINAL_V[state], 0.1)

    return read


def _duty(tester: TestSet, step: Step) -> Shown:
    current_a = tester.house.case.run.charge_point.design_current_a() * tester.size(FaultKind.SET_TOO_HIGH, 1.0)
    duty = duty_of(current_a)
    return Shown(Outcome.MEASURED, round(duty + tester.chance.uniform(-0.4, 0.4), 1))


def _code(tester: TestSet, step: Step) -> Shown:
    ohm = 100.0 if tester.has(FaultKind.LEAD_CODED_TOO_HIGH) else CODES[_coded_for(tester)]
    return tester.shown(ohm, 1.0)


CODES = {13.0: 1500.0, 20.0: 680.0, 32.0: 220.0, 63.0: 100.0}


def _coded_for(tester: TestSet) -> float:
    """The least code that carries what the unit is set to."""
    needed = tester.house.case.run.charge_point.design_current_a()
    return next((one for one in sorted(CODES) if one >= needed), 63.0)


def _bond(tester: TestSet, step: Step) -> Shown:
    return tester.continuity(BOND_OHM + tester.size(FaultKind.BOND_LOOSE))


READERS: dict[StepKey, Callable[[TestSet, Step], Shown]] = {
    StepKey.EARTHING_CONDUCTOR: lambda tester, step: tester.continuity(0.02),
    StepKey.MAIN_BONDING: _bond,
    StepKey.R1_R2: _linked("E", "E"),
    StepKey.R2: _long_lead,
    StepKey.R1_RN: _linked("N", "N"),
    StepKey.IR_LINE_NEUTRAL: _insulation("L", "N"),
    StepKey.IR_LIVE_EARTH: _insulation("LN", "E"),
    StepKey.IR_LINE_EARTH: _insulation("L", "E"),
    StepKey.IR_NEUTRAL_EARTH: _insulation("N", "E"),
    StepKey.IR_LINE_LINE: _insulation("L", "N"),
    StepKey.IR_EARTHS: _two_earths,
    StepKey.POLARITY_DEAD: _polarity,
    StepKey.ELECTRODE: _electrode,
    StepKey.ZE: _ze,
    StepKey.FAULT_CURRENT_NEUTRAL: _fault_current("supply.N"),
    StepKey.FAULT_CURRENT_EARTH: _fault_current("met"),
    StepKey.ZS_CABLE: _zs_cable,
    StepKey.ZS: _zs,
    StepKey.RCD_TRIP: _rcd(at_rated=True),
    StepKey.RCD_FIVE: _rcd(at_rated=False),
    StepKey.RCD_AC_0: _rcd(at_rated=True),
    StepKey.RCD_AC_180: _rcd(at_rated=True),
    StepKey.RCD_FIVE_AC_0: _rcd(at_rated=False),
    StepKey.RCD_FIVE_AC_180: _rcd(at_rated=False),
    StepKey.RCD_PULSE_0: _rcd(at_rated=True, pulses=True),
    StepKey.RCD_PULSE_180: _rcd(at_rated=True, pulses=True),
    StepKey.RCD_FIVE_PULSE_0: _rcd(at_rated=False, pulses=True),
    StepKey.RCD_FIVE_PULSE_180: _rcd(at_rated=False, pulses=True),
    StepKey.RCD_SMOOTH_PLUS: _rcd(at_rated=True),
    StepKey.RCD_SMOOTH_MINUS: _rcd(at_rated=True),
    StepKey.RCD_ORIGIN_TRIP: _delayed_rcd,
    StepKey.DC_DETECTION: _wrong_with(FaultKind.DC_DETECTION_DEAD),
    StepKey.OPEN_PEN_TEST: _wrong_with(FaultKind.OPEN_PEN_DEAD),
    StepKey.CONNECTOR_EARTH: lambda tester, step: tester.continuity(0.03),
    StepKey.PROXIMITY: _code,
    StepKey.PILOT_A: _pilot(PilotState.A),
    StepKey.PILOT_B: _pilot(PilotState.B),
    StepKey.PILOT_C: _pilot(PilotState.C),
    StepKey.PILOT_DUTY: _duty,
    StepKey.PILOT_SHORTED: _wrong_with(FaultKind.SHORTED_PILOT_IGNORED),
    StepKey.EARTH_OPEN: lambda tester, step: tester.shown(tester.size(FaultKind.EARTH_LOSS_SLOW, 40.0), 1.0),
    StepKey.DIODE: _wrong_with(FaultKind.DIODE_NOT_MISSED),
}
