"""The steps that a design asks for, before anything is read: where each is taken, with what, and what it is called."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from fulmen.core.circuit.people import has_car_electrode
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Proof
from fulmen.core.installation.guards import PlacedGuard
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.instruments import Function
from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.verification.instruments.dials import Point
from fulmen.core.verification.steps.step_applies import applies, has_three_lines, tested_rcds
from fulmen.core.verification.steps.steps import WHERE_WORDS, Lead, StepDefinition, Where, definitions, in_common

# What every cable is tested for: a sub-main, and a circuit of sockets or lights, besides the RCD before it.
CABLE_STEPS = {
    StepKey.RING_R1,
    StepKey.RING_RN,
    StepKey.RING_R2,
    StepKey.RING_ALIKE,
    StepKey.R1_R2,
    StepKey.R2,
    StepKey.R1_RN,
    StepKey.IR_LIVE_EARTH,
    StepKey.IR_LINE_EARTH,
    StepKey.IR_NEUTRAL_EARTH,
    StepKey.IR_LINE_NEUTRAL,
    StepKey.IR_LINE_LINE,
    StepKey.POLARITY_DEAD,
    StepKey.ZS,
}
# The tests that prove an RCD; the fuller way of testing has several in their place.
RCD_PROOFS = (StepKey.RCD_TRIP, StepKey.RCD_ORIGIN_TRIP)
LOAD_TITLES = {StepKey.ZS: "Loop at its farthest point, Zs"}
SUB_MAIN_TITLES = {StepKey.ZS: "Loop at the board, Zs"}
# Where nothing but the cable is there yet, no adapter is used.
NO_ADAPTER = tuple(
    Lead(jack=jack, terminal=terminal, at=(Point(f"far.{jack}"),))
    for jack, terminal in zip("LNE", ("line", "neutral", "earth"), strict=True)
)


@dataclass(frozen=True, slots=True)
class PlannedStep:
    """A step of one run: whom it is taken for, the RCD that it tests if any, whether the papers wait for it."""

    definition: StepDefinition
    subject: str
    case: Case
    guard: PlacedGuard | None
    required: bool

    @property
    def key(self) -> StepKey:
        """Which step it is."""
        return self.definition.key

    @property
    def only_if_read(self) -> bool:
        """Whether nobody is asked for it any more: it stays where it was read."""
        return self.definition.only_if_read

    def asks(self) -> dict[str, Any]:
        """All of it that no reading changes, by the names of a `Step`."""
        definition, subject, guard, named = self.definition, self.subject, self.guard, _Named(self)
        leads, adapter = _leads(definition, subject, self.case)
        return {
            **in_common(definition),
            "subject": subject,
            "circuit": guard.circuit if guard is not None and subject != ORIGIN else subject,
            "guard": guard.field if guard is not None else "",
            "title": named.title,
            "names_circuit": named.names_circuit,
            "where": named.where,
            "place": named.place,
            "leads": leads,
            "linked_at": _board_of(subject, self.case) if definition.links else "",
            "adapter": adapter,
            "required": self.required,
            "waivable": definition.waivable
            or definition.function is Function.VEHICLE
            or _hard_to_time(guard, self.case)
            # Of three lines there may be no neutral to read: a reason says so.
            or (self.key is StepKey.R1_RN and has_three_lines(self.case, subject)),
        }


def plan(
    cases: list[Case], proofs: frozenset[Proof] = frozenset(), only: frozenset[StepKey] | None = None
) -> tuple[PlannedStep, ...]:
    """Every step that the runs of a job may have, dead before live; what hangs on several runs stands once.

    Args:
        cases: the runs.
        proofs: the tests of what the design leans on; none where nobody's papers wait for them.
        only: of these steps alone, at the origin, whatever is drawn; all where not given.
    """
    if only is not None:
        found = (one for one in definitions() if one.key in only and one.subject == "origin")
        return tuple(PlannedStep(one, ORIGIN, case, None, required=True) for case in cases[:1] for one in found)
    return tuple(_planned(cases, frozenset(one.subject for one in proofs if one.step in RCD_PROOFS)))


def _planned(cases: list[Case], relied: frozenset[str]) -> Iterator[PlannedStep]:
    seen = set()
    chosen = cases[0].job.testing.rcd_school if cases else None
    for definition in definitions():
        if definition.rcd_school not in (None, chosen):
            continue
        for case in cases:
            for subject in _subjects(definition, case):
                here = (definition.key, subject, definition.only_if_read)
                if here not in seen and applies(definition, case, subject):
                    seen.add(here)
                    guard = tested_rcds(case.run, definition.key).get(subject) if definition.subject == "rcd" else None
                    required = _required(definition, subject, case, guard) or (
                        guard is not None and definition.required and subject in relied
                    )
                    yield PlannedStep(definition, subject, case, guard, required)


def _subjects(definition: StepDefinition, case: Case) -> list[str]:
    """Whom a step is taken for: the origin, each RCD, or the final circuit and the sub-mains that the step serves."""
    if not case.run.chain:
        return []
    if definition.subject == "origin":
        return [] if case.to_loads else [ORIGIN]
    if definition.subject == "rcd":
        return list(tested_rcds(case.run, definition.key))
    if case.to_loads and definition.key not in CABLE_STEPS:
        return []
    feeders = [chained.circuit.id for chained in case.run.chain[:-1]] if definition.key in CABLE_STEPS else []
    return [*feeders, case.subject]


def _required(definition: StepDefinition, subject: str, case: Case, guard: PlacedGuard | None) -> bool:
    """Whether the papers wait for it: on an island the cable's own loop too, and 5× where 1× asks for it."""
    if definition.key is StepKey.ZS_CABLE:
        return has_car_electrode(case)
    return definition.required and _asked_for(subject, case, guard)


def _asked_for(subject: str, case: Case, guard: PlacedGuard | None) -> bool:
    """One that was there already, that others share and nothing leans on, is worth a reading and no more."""
    if guard is None or subject in (case.subject, ORIGIN):
        return True
    return guard.fitted_with_this_job or guard in case.run.own_rcds


class _Named:
    """How a step is called and where it stands: by its circuit where a job has several."""

    def __init__(self, planned: PlannedStep) -> None:
        definition, subject, case, guard = planned.definition, planned.subject, planned.case, planned.guard
        self.title, self.where, self.names_circuit = definition.title, WHERE_WORDS[definition.where], True
        self.place = _place(definition, case)
        chain = case.run.chain
        feeder = next((at for at, chained in enumerate(chain[:-1]) if chained.circuit.id == subject), None)
        if feeder is not None:
            self.title = f"{SUB_MAIN_TITLES.get(definition.key, definition.title)}, {chain[feeder].circuit.name}"
            if definition.where is Where.CAR:
                self.where, self.place = f"at {chain[feeder + 1].board.name}", chain[feeder + 1].board.id
            elif definition.where is Where.BOARD:
                self.place = chain[feeder].board.id
        elif guard is not None and subject not in (case.subject, ORIGIN):
            self.title = f"{definition.title}, {guard.name} {guard.where}"
        elif case.to_loads:
            self.title = f"{LOAD_TITLES.get(definition.key, definition.title)}, {case.run.final().circuit.name}"
            self.where = _where_on(definition) if definition.where is Where.CAR else self.where
        elif subject != ORIGIN and len(case.job.charge_points) > 1:
            self.title = f"{definition.title}, {case.run.final().circuit.name}"
        else:
            self.names_circuit = False


def _where_on(definition: StepDefinition) -> str:
    """Where a circuit of loads is read: at its end, a ring at every point."""
    return "at every point" if definition.applies == "ring" else "at its farthest point"


def _place(definition: StepDefinition, case: Case) -> str:
    """Where the tester stands: who walks there walks there for every step of that name."""
    if definition.where is Where.CAR:
        return case.run.charge_point.id if not case.to_loads else case.subject
    return case.run.final().board.id if definition.where is Where.BOARD else definition.where.value


def _board_of(subject: str, case: Case) -> str:
    """The board that a circuit of the run leaves."""
    return next((chained.board.id for chained in case.run.chain if chained.circuit.id == subject), ORIGIN)


def _leads(definition: StepDefinition, subject: str, case: Case) -> tuple[tuple[Lead, ...], str]:
    """Leads and adapter position: past the unit through the connector, at a board or a socket straight."""
    through_car = not case.to_loads and (definition.subject == "rcd" or subject == case.subject)
    if definition.adapter and not through_car:
        return NO_ADAPTER, ""
    return definition.leads, definition.adapter


def _hard_to_time(guard: PlacedGuard | None, case: Case) -> bool:
    """Whether a reason may stand in the place of an RCD's time: it was there before and others hang behind it, or
    another RCD of no more current may open first.
    """
    if guard is None or guard.rcd is None:
        return False
    if not guard.fitted_with_this_job and guard.shared is not Seen.NO:
        return True
    others = [one.rcd for one in case.run.rcds if one.rcd is not None and one is not guard]
    return any(one.residual_ma <= guard.rcd.residual_ma and not one.time_delayed for one in others)
