"""Jobs as built with a fault, tested by the simulated set: what is caught, and whether the kind is named rightly."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import cache
from random import Random
from typing import Any

from fulmen.core.circuit.origin import ORIGIN
from fulmen.core.circuit.run_figures import Case, cases_of
from fulmen.core.editing.job_file import parse_job
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.finding import Finding, Topic
from fulmen.core.findings.rules.run import LOAD_CLAMP
from fulmen.core.judging.known import known_for
from fulmen.core.model.job import Job
from fulmen.core.model.readings import StepKey
from fulmen.core.simulations.as_built.as_installed import as_installed
from fulmen.core.simulations.as_built.possible_faults import possible_faults
from fulmen.core.simulations.as_built.simulated_clamp import clamp_shown
from fulmen.core.simulations.as_built.simulated_set import INSTRUMENT, TestSet
from fulmen.core.verification.faults.diagnosis import Candidate
from fulmen.core.verification.faults.faults import Fault, fault_info
from fulmen.core.verification.instruments.accuracy import usual_accuracies
from fulmen.core.verification.steps.sequence import Step
from tests.jobs import DEVICE_IN_UNIT, FUNCTIONS, GARAGE, HALFWAY, RULES, THREE_PHASE, TREATED_AS_PME, job
from tests.trials.test_planted import ISLAND

BASES: tuple[tuple[str, dict[str, Any]], ...] = (
    (DEVICE_IN_UNIT, {}),
    (TREATED_AS_PME, {}),
    (HALFWAY, {}),
    (DEVICE_IN_UNIT, {"testing.rcd_school": "twelve"}),
    (DEVICE_IN_UNIT, {"circuits.0.route.2.length_m": 32.0}),
    (DEVICE_IN_UNIT, {**ISLAND, "charge_points.0.arrangement.electrode_design_ohm": 32.0}),
    (DEVICE_IN_UNIT, {"supply.load_limit_a": 60.0, "charge_points.0.current_clamp": "yes"}),
    (GARAGE, {}),
    (THREE_PHASE, {}),
)
# What a good tester takes besides, where the usual steps leave two causes together.
BESIDES = (StepKey.R2, StepKey.IR_LINE_EARTH, StepKey.IR_NEUTRAL_EARTH)
EXACT = [
    {"measures": one.measures.value, "share_percent": one.share_percent, "digits": one.digits}
    for one in usual_accuracies().values()
]
REGISTER = [{"name": INSTRUMENT, "serial_number": "SIM-1", "calibration_due": "2027-12-31", "functions": FUNCTIONS,
             "accuracies": EXACT}]  # fmt: skip
BEGUN = datetime(2026, 11, 26, 9, 0, tzinfo=UTC)


@dataclass(frozen=True)
class Tested:
    """One job as built, tested and judged."""

    found: Evaluation

    @property
    def named(self) -> tuple[Candidate, ...]:
        """The faults that the ledger says the readings look like, the likeliest first."""
        return self.found.looks_like[0].candidates if self.found.looks_like else ()

    @property
    def alarms(self) -> list[Finding]:
        """What is open about its readings."""
        topics = {Topic.READING, Topic.AGREEMENT}
        return [
            one
            for one in self.found.findings
            if one.is_open and (topics & set(one.topics) or one.rule == LOAD_CLAMP.key)
        ]


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
    return whole, cases_of(known_for(whole, RULES))[0], evaluate(whole, RULES).steps


@cache
def places_of(kind: str) -> tuple[int, ...]:
    """The bases that a fault may be in."""
    return tuple(place for place in range(len(BASES)) if kind in possible_faults(*base(place, 20.0, 0.2)[1:]))


def tested(seed: int, kind: str | None = None, size: float = 1.0) -> tuple[Tested, Fault | None]:
    """A job of a seed with a fault of a kind, or none, tested from end to end by the simulated set."""
    chance = Random(seed)
    places = places_of(kind) if kind is not None else range(len(BASES))
    place, warm_c = chance.choice(list(places)), chance.choice([0.0, 5.0, 10.0, 15.0, 20.0])
    ze_ohm = chance.choice([0.14, 0.18, 0.21, 0.25, 0.29])
    whole, case, steps = base(place, warm_c, ze_ohm)
    chain = [chained.circuit.id for chained in case.run.chain]
    in_cable = kind is not None and fault_info(kind).in_one_cable
    fault = Fault(kind, size, chance.choice(chain) if in_cable else chain[-1]) if kind is not None else None
    house = as_installed(case, (fault,) if fault is not None else (), ze_ohm=ze_ohm * chance.uniform(0.97, 1.03))
    tester, readings = TestSet(house, seed), []
    for number, step in enumerate(steps):
        if step.circuit not in (*chain, ORIGIN):
            continue
        if step.required or step.step is StepKey.R1_RN or step.step in BESIDES:
            taken = tester.reading(step, "Simulated tester", BEGUN + timedelta(minutes=number))
            readings.append(taken.model_dump(mode="json"))
    data = whole.model_dump(mode="json") | {"readings": readings}
    if whole.supply.load_limit_a is not None:
        proof = clamp_shown(house, seed, "Simulated tester", BEGUN + timedelta(hours=2))
        data["charge_points"][0]["clamp_proof"] = proof.model_dump(mode="json")
    found = evaluate(parse_job(data), RULES)
    return Tested(found), fault


def size_of(kind: str, number: int, chance: Random) -> float:
    """A size of a kind: every third at the least that matters, the others anywhere above."""
    info = fault_info(kind)
    return info.least if number % 3 == 0 else chance.uniform(info.least, info.most)
