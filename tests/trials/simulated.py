"""Jobs as built with a fault, tested by the simulated set: what is caught, and whether the kind is named rightly."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import cache
from random import Random
from typing import Any

from fulmen.core.circuit.run_figures import Case, cases_of
from fulmen.core.demand.demand import demand_of
from fulmen.core.editing.job_file import parse_job
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.finding import Finding, Topic
from fulmen.core.model.job import Job
from fulmen.core.model.readings import StepKey
from fulmen.core.simulations.as_installed import as_installed
from fulmen.core.simulations.diagnosis import diagnosis
from fulmen.core.simulations.faults import Fault, FaultKind, fault_info
from fulmen.core.simulations.simulated_set import INSTRUMENT, TestSet
from fulmen.core.verification.sequence import Step
from tests.jobs import DEVICE_IN_UNIT, HALFWAY, RULES, TREATED_AS_PME, job
from tests.trials.test_planted import ISLAND

BASES: tuple[tuple[str, dict[str, Any]], ...] = (
    (DEVICE_IN_UNIT, {}),
    (TREATED_AS_PME, {}),
    (HALFWAY, {}),
    (DEVICE_IN_UNIT, {"testing.rcd_school": "twelve"}),
    (DEVICE_IN_UNIT, {"circuits.0.route.2.length_m": 32.0}),
    (DEVICE_IN_UNIT, {**ISLAND, "charge_points.0.arrangement.electrode_design_ohm": 32.0}),
)
ISLANDS, TWELVE, LONG, OWN_NEUTRAL = (5,), (1, 3), (4,), (1,)
ONLY_ON = {
    FaultKind.EARTHS_JOINED: ISLANDS,
    FaultKind.RCD_BLIND_TO_PULSES: TWELVE,
    FaultKind.OPEN_PEN_DEAD: (0, 1, 2, 3, 4),
    # A path beside a short earth takes nothing away that matters; where neutral and earth are one, so is the fault.
    FaultKind.PARALLEL_EARTH: LONG,
    FaultKind.POOR_SUPPLY_NEUTRAL: OWN_NEUTRAL,
}
# What a good tester takes besides, where the usual steps leave two causes together.
BESIDES = (StepKey.R2, StepKey.IR_LINE_EARTH, StepKey.IR_NEUTRAL_EARTH)
FUNCTIONS = [
    "voltage",
    "continuity",
    "insulation",
    "electrode",
    "loop",
    "rcd",
    "direct_residual",
    "phase_sequence",
    "vehicle",
]
REGISTER = [{"name": INSTRUMENT, "serial_number": "SIM-1", "calibration_due": "2027-12-31", "functions": FUNCTIONS}]
BEGUN = datetime(2026, 11, 26, 9, 0, tzinfo=UTC)


@dataclass(frozen=True)
class Tested:
    """One job as built, tested and judged."""

    found: Evaluation
    named: FaultKind | None

    @property
    def alarms(self) -> list[Finding]:
        """What is open about its readings."""
        topics = {Topic.READING, Topic.AGREEMENT}
        return [one for one in self.found.findings if one.is_open and topics & set(one.topics)]


@cache
def base(place: int, warm_c: float, ze_ohm: float) -> tuple[Job, Case, tuple[Step, ...]]:
    """A job that nobody has tested yet, on a day and at a supply."""
    name, changes = BASES[place]
    given = {
        "readings": [],
        "testing.instruments": REGISTER,
        "testing.conductors_c": warm_c,
        "supply.ze_enquiry_ohm": ze_ohm,
    }
    whole = job(name, {**given, **changes})
    return whole, cases_of(whole, RULES, demand_of(whole, RULES))[0], evaluate(whole, RULES).steps


def tested(seed: int, fault: Fault | None) -> Tested:
    """A job of a seed with a fault, or none, tested from end to end by the simulated set."""
    chance = Random(seed)
    places = ONLY_ON.get(fault.kind, range(len(BASES))) if fault is not None else range(len(BASES))
    place, warm_c = chance.choice(list(places)), chance.choice([0.0, 5.0, 10.0, 15.0, 20.0])
    ze_ohm = chance.choice([0.14, 0.18, 0.21, 0.25, 0.29])
    whole, case, steps = base(place, warm_c, ze_ohm)
    house = as_installed(case, (fault,) if fault is not None else (), ze_ohm=ze_ohm * chance.uniform(0.97, 1.03))
    tester, readings = TestSet(house, seed), []
    for number, step in enumerate(steps):
        if step.required or step.step is StepKey.R1_RN or step.step in BESIDES:
            taken = tester.reading(step, "Simulated tester", BEGUN + timedelta(minutes=number))
            readings.append(taken.model_dump(mode="json"))
    after = parse_job({**whole.model_dump(mode="json"), "readings": readings})
    found = evaluate(after, RULES)
    circuit = case.run.final().circuit.id
    return Tested(found, diagnosis(found.steps, found.findings, circuit))


def sized(kind: FaultKind, number: int, chance: Random) -> Fault:
    """A fault of a kind: every third at the least size that matters, the others anywhere above."""
    info = fault_info(kind)
    return Fault(kind, info.least if number % 3 == 0 else chance.uniform(info.least, info.most))
