"""What a design is told by: the run along its length, the sentence, what opens, guards, ways out, what is open."""

from __future__ import annotations

from fulmen.core.checks.laying import asks_outdoors
from fulmen.core.checks.supply import ze_above_declared
from fulmen.core.checks.tails import how_they_run_asked
from fulmen.core.circuit.fault_clearing import FaultAt, what_opens
from fulmen.core.circuit.guard_views import RunGuards, run_guards
from fulmen.core.circuit.run_profile import RunProfile, run_profile
from fulmen.core.circuit.specification import SentencePart, specification
from fulmen.core.demand.ways_out import WayOut, ways_out
from fulmen.core.findings.finding import Verdict
from fulmen.core.findings.rules import around
from fulmen.core.installation.installation import Installation
from fulmen.core.judging.design import Design
from fulmen.core.plain import plain
from fulmen.core.survey.put_in import put_in
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
    cars = [case for case in design.cases if not case.to_loads and not design.is_removal]
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
        guards=() if design.is_removal else tuple(run_guards(case.run) for case in design.cases),
        unsaid=_unsaid(installation),
        asked=_asked(design),
        ways_out=ways_out(installation, design.rules, design.demand),
        facts=facts,
        questions=open_questions(facts),
    )


# What a board's rules wait for, where there is a reason to ask.
ASKED_OF_BOARDS = {
    around.BOARD_DIVERSITY.key: "diversity_factor",
    around.SMOOTH_DC.key: "smooth_dc",
    around.LEAKAGE.key: "leakage_ma",
    around.BUSBAR.key: "busbar_a",
}


def _asked(design: Design) -> tuple[str, ...]:
    """The fields that are asked only because of what is known."""
    job = design.installation.job
    if design.is_removal:
        return tuple(put_in(job))
    makers = tuple(f"circuits.{at}.device.maker_zs_ohm" for at, one in enumerate(job.circuits) if one.device.by_maker)
    if not design.has_charge_point:
        return makers
    origin = design.cases[0]
    places = {board.id: place for place, board in enumerate(job.boards)}
    open_ones = [one for one in design.along if one.verdict is Verdict.NEEDS]
    of_boards = [
        f"boards.{places[one.subject]}.{ASKED_OF_BOARDS[one.rule]}" for one in open_ones if one.rule in ASKED_OF_BOARDS
    ]
    waiting = {one.subject for one in open_ones if one.rule == around.MEASURING_ELECTRODE.key}
    electrodes = [
        f"charge_points.{job.charge_points.index(case.run.point)}.arrangement.measuring_electrode"
        for case in design.cases
        if case.subject in waiting and case.run.point is not None
    ]
    return (*makers, *ze_above_declared(origin), *how_they_run_asked(origin), *of_boards, *electrodes)


def _unsaid(installation: Installation) -> tuple[str, ...]:
    """The paths of what a route's places ask for and nobody has said yet."""
    return tuple(
        f"circuits.{index}.route.{place}.{name}"
        for index, circuit in enumerate(installation.job.circuits)
        for place, section in enumerate(circuit.route)
        for name in (*section.unknown(), *(["outdoors"] if asks_outdoors(installation, circuit, section) else []))
    )
