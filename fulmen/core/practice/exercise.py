"""One exercise: a job that nobody has tested, as it was built, with what is hidden in it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime
from enum import StrEnum
from functools import cached_property
from random import Random

from fulmen.core.circuit.run_figures import Case, cases_of
from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.errors import InputError
from fulmen.core.judging.known import known_for
from fulmen.core.model.base import Part
from fulmen.core.model.certificate import Particulars
from fulmen.core.model.charge_point import Fitted
from fulmen.core.model.instruments import Accuracy, Function, Instrument
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Reading
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.simulations.as_built.as_installed import AsInstalled, as_installed
from fulmen.core.simulations.as_built.simulated_set import INSTRUMENT
from fulmen.core.verification.faults.faults import Fault, FaultPlace
from fulmen.core.verification.instruments.accuracy import usual_accuracies
from fulmen.core.verification.steps.sequence import Step, sequence

# Who takes the readings of an exercise, and when: a day of its own, as the core knows no clock.
BEGUN, LEARNER = datetime(2026, 1, 5, 9, 0, tzinfo=UTC), "Learner"
# Where a real loop lies below the declared one. Our own, no source.
SUPPLY_SHARE = (0.3, 0.5)
PLACE_WORDS = {
    FaultPlace.SUPPLY: "the supply, up to the cut-out",
    FaultPlace.BONDING: "earthing and bonding at the origin",
    FaultPlace.RCD: "the RCD",
    FaultPlace.UNIT: "the charge point, its lead and its earth",
    FaultPlace.CLAMP: "the clamp and its setting",
    FaultPlace.LEADS: "my own leads",
}


class Help(StrEnum):
    """What the learner is told of a step beforehand."""

    EXPECTED = "expected"
    LIMIT = "limit"
    NONE = "none"


class Place(Part):
    """Somewhere a fault may sit."""

    key: str
    words: str


@dataclass
class Exercise:
    """A job without readings, the charge point whose run is tested, what is hidden, and the seed of the set.

    What follows from them is worked out when it is asked for.
    """

    job: Job
    charge_point: str
    faults: tuple[Fault, ...]
    seed: int

    @cached_property
    def cases(self) -> list[Case]:
        """Every run of the job with its figures."""
        return cases_of(known_for(self.job, rule_set(self.job.rule_set)))

    @cached_property
    def case(self) -> Case:
        """The run that is tested."""
        return case_to(self.cases, self.charge_point)

    @cached_property
    def house(self) -> AsInstalled:
        """As it was built; a supply's loop that nobody enquired lies below what is declared of it, as supplies do."""
        known = self.job.supply.earthing is Earthing.TT or self.job.supply.ze_enquiry_ohm is not None
        share = 1.0 if known else Random(self.seed).uniform(*SUPPLY_SHARE)
        return as_installed(self.case, self.faults, ze_ohm=share * self.case.origin.ze.value)

    @cached_property
    def sound(self) -> AsInstalled:
        """As it was designed."""
        return as_installed(self.case)

    @cached_property
    def steps(self) -> dict[tuple[str, str], Step]:
        """The steps of the run, by key and subject."""
        return {(one.step.value, one.subject): one for one in steps_of(self.cases, self.case, self.job.readings)}

    def places(self) -> tuple[Place, ...]:
        """Where a fault may sit in this house."""
        cables = [
            Place(key=f"{FaultPlace.CABLE}:{one.circuit.id}", words=f"the cable of {one.circuit.name}")
            for one in self.case.run.chain
        ]
        limited = self.case.job.supply.load_limit_a is not None
        others = [
            Place(key=key, words=words) for key, words in PLACE_WORDS.items() if key is not FaultPlace.CLAMP or limited
        ]
        return (*others[:2], *cables, *others[2:])

    def place_of(self, fault: Fault) -> str:
        """The key of the place where a fault sits."""
        where = fault.info.where
        return f"{where}:{fault.circuit or self.house.final}" if where is FaultPlace.CABLE else where.value


def case_to(cases: list[Case], charge_point: str) -> Case:
    """The run to a charge point; every circuit of it has a route, and its supply's earthing is known.

    Raises:
        InputError: there is none, it has no route yet, or nobody has seen its earthing.
    """
    found = next((one for one in cases if not one.to_loads and one.run.charge_point.id == charge_point), None)
    if found is None or not found.run.chain:
        raise InputError("charge_point", f"no circuit leads to a charge point “{charge_point}”")
    if found.figures is None:
        raise InputError("charge_point", "its circuit has no route yet: draw it, then there is something to test")
    if found.job.supply.earthing is Earthing.NOT_SEEN:
        raise InputError("supply.earthing", "nobody has said how the supply is earthed: every loop hangs on it")
    return found


def steps_of(cases: list[Case], case: Case, readings: tuple[Reading, ...]) -> list[Step]:
    """The steps of the sequence that belong to a run."""
    circuits = {one.circuit.id for one in case.run.chain} | {"origin"}
    return [one for one in sequence(cases, readings) if one.circuit in circuits]


def untested(job: Job) -> Job:
    """A job as an exercise begins: no householder, nothing read or signed, the simulated set in its register."""
    # The unit hangs there, whenever it comes.
    proofs = [
        Change(field=f"charge_points.{at}.{name}", value=value)
        for at in range(len(job.charge_points))
        for name, value in (("clamp_proof", None), ("fitted", Fitted.NOW.value))
    ]
    said = ("householder", "address", "extent", "wanted_position", "route_notes")
    nobody = job.site.model_copy(update=dict.fromkeys(said, ""))
    exact = tuple(
        Accuracy(measures=one.measures, share_percent=one.share_percent, digits=one.digits)
        for one in usual_accuracies().values()
    )
    register = (Instrument(name=INSTRUMENT, serial_number="SIM-1", functions=tuple(Function), accuracies=exact),)
    return apply_changes(job, tuple(proofs)).model_copy(
        update={
            "site": nobody,
            "reference": "",
            "letters": (),
            "defects": (),
            "readings": (),
            "decisions": (),
            "inspections": (),
            "certificate": Particulars(),
            "testing": job.testing.model_copy(update={"instruments": register}),
        }
    )
