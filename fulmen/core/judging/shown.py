"""What a design is told by: the run along its length, the sentence, what opens, guards, ways out, what is open."""

from __future__ import annotations

from fulmen.core.checks.laying import asks_outdoors
from fulmen.core.checks.supply import ze_above_declared
from fulmen.core.checks.tails import how_they_run_asked
from fulmen.core.circuit.fault_clearing import FaultAt, what_opens
from fulmen.core.circuit.guard_views import RunGuards, run_guards
from fulmen.core.circuit.run_figures import Case
from fulmen.core.circuit.run_profile import RunProfile, run_profile
from fulmen.core.circuit.specification import SentencePart, specification
from fulmen.core.demand.ways_out import WayOut, ways_out
from fulmen.core.installation.installation import Installation
from fulmen.core.judging.design import Design
from fulmen.core.plain import plain
from fulmen.core.survey.walk import OpenQuestion, WalkedFact, open_questions, walked


@plain
class RunFaults:
    """What opens for each fault along one run."""

    circuit: str
    charge_point: str
    faults: tuple[FaultAt, ...]


@plain
class RunSentence:
    """The specification sentence of one circuit."""

    circuit: str
    charge_point: str
    parts: tuple[SentencePart, ...]


@plain
class Shown:
    """What a design shows besides its findings, before anything is read of it.

    `profiles` stand under the name of their run's subject; `unsaid` are the fields of the routes that a verdict waits
    for, `asked` fields that are asked only because of what is known; `facts` those of the walk, and whether they are
    known.
    """

    profiles: dict[str, RunProfile]
    sentences: tuple[RunSentence, ...]
    faults: tuple[RunFaults, ...]
    guards: tuple[RunGuards, ...]
    unsaid: tuple[str, ...]
    asked: tuple[str, ...]
    ways_out: tuple[WayOut, ...]
    facts: tuple[WalkedFact, ...]
    questions: tuple[OpenQuestion, ...]


def shown_of(design: Design) -> Shown:
    """What a design shows."""
    installation, facts = design.installation, walked(design.installation)
    cars = [case for case in design.cases if not case.to_loads]
    return Shown(
        profiles={case.subject: profile for case in cars if (profile := run_profile(case)) is not None},
        sentences=tuple(
            RunSentence(circuit=case.subject, charge_point=case.run.charge_point.id, parts=specification(case))
            for case in cars
            if case.run.chain
        ),
        faults=tuple(
            RunFaults(circuit=case.subject, charge_point=case.run.charge_point.id, faults=what_opens(case))
            for case in cars
        ),
        guards=tuple(run_guards(case.run) for case in design.cases),
        unsaid=_unsaid(installation),
        asked=_asked(design.cases[0]) if design.has_charge_point else (),
        ways_out=ways_out(installation, design.rules, design.demand),
        facts=facts,
        questions=open_questions(facts),
    )


def _asked(case: Case) -> tuple[str, ...]:
    """The fields that are asked only because of what is known."""
    return (*ze_above_declared(case), *how_they_run_asked(case))


def _unsaid(installation: Installation) -> tuple[str, ...]:
    """The paths of what a route's places ask for and nobody has said yet."""
    return tuple(
        f"circuits.{index}.route.{place}.{name}"
        for index, circuit in enumerate(installation.job.circuits)
        for place, section in enumerate(circuit.route)
        for name in (*section.unknown(), *(["outdoors"] if asks_outdoors(installation, circuit, section) else []))
    )
