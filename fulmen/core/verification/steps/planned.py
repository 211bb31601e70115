"""The steps that a design asks for, before anything is read: where each is taken, with what, and what it is called."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from fulmen.core.circuit.people import has_car_electrode
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Proof
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.installation.legs import boxes_along, boxes_in_the_way
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.arrangement import OpenPenMeasure
from fulmen.core.model.circuits import StaysConnected
from fulmen.core.model.guards import GuardBox, GuardKind
from fulmen.core.model.instruments import Function
from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.verification.instruments.dials import Point, dial
from fulmen.core.verification.steps.parted import OfCable, of_cable
from fulmen.core.verification.steps.step_applies import applies, has_three_lines, stays_on, tested_rcds
from fulmen.core.verification.steps.steps import (
    MET_BY,
    WHERE_WORDS,
    Lead,
    StepDefinition,
    Where,
    definitions,
    in_common,
)

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
# Where nothing but the cable is there yet, no adapter is used: what a contact of the connector is there.
NO_ADAPTER = {
    Point.PLUG_L: ("line", Point.FAR_L), Point.PLUG_L2: ("line 2", Point.FAR_L2),
    Point.PLUG_L3: ("line 3", Point.FAR_L3), Point.PLUG_N: ("neutral", Point.FAR_N),
    Point.PLUG_E: ("earth", Point.FAR_E),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class PlannedStep:
    """A step of one run: whom it is taken for, the RCD that it tests if any, whether the papers wait for it.

    `circuit` is whose order it keeps; `cable` what it reads of its cable, where it reads one dead.
    """

    definition: StepDefinition
    circuit: str
    case: Case
    guard: PlacedGuard | None
    required: bool
    cable: OfCable | None = None

    @property
    def subject(self) -> str:
        """What its readings are of."""
        return self.cable.leg.subject if self.cable is not None else self.circuit

    @property
    def key(self) -> StepKey:
        """Which step it is."""
        return self.definition.key

    @property
    def only_if_read(self) -> bool:
        """Whether nobody is asked for it any more: it stays where it was read."""
        return self.definition.only_if_read or (self.cable is not None and not self.cable.asked)

    @property
    def stood_for_by(self) -> tuple[tuple[tuple[StepKey, str], ...], ...]:
        """The readings in whose presence nobody takes this one: each entry is a set that together takes its place."""
        same = [tuple((one, self.subject) for one in sorted(others)) for others in MET_BY.get(self.key, ())]
        whole = self.cable.instead if self.cable is not None else ()
        keys = [(self.key,), *(tuple(sorted(others)) for others in MET_BY.get(self.key, ()))]
        return (*same, *(tuple((key, part) for part in whole for key in some) for some in keys if whole))

    def asks(self) -> dict[str, Any]:
        """All of it that no reading changes, by the names of a `Step`."""
        definition, subject, guard, named = self.definition, self.circuit, self.guard, _Named(self)
        leads, adapter = _leads(definition, subject, self.case)
        tested = guard or _tested_device(self)
        return {
            **in_common(definition),
            **_at_half_voltage(definition, stays_on(self.case, subject)),
            "subject": self.subject,
            "circuit": guard.circuit if guard is not None and subject != ORIGIN else _circuit_of(subject, self.case),
            "guard": guard.field if guard is not None else "",
            "stands_at": place_of(self.case, tested) if tested is not None else "",
            "title": named.title,
            "names_circuit": named.names_circuit,
            "where": named.where,
            "place": named.place,
            "leads": leads,
            "links": definition.links.format(near=named.near) if definition.links else "",
            "linked_at": _near_end(self) if definition.links else "",
            "cores_out": tuple(one.id for one in self.cable.out) if self.cable is not None else (),
            "cores_joined": tuple(one.id for one in self.cable.joined) if self.cable is not None else (),
            "beforehand": self.cable.beforehand if self.cable is not None else "",
            "as_chosen": self.cable is None or self.cable.asked,
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
                    for cable in of_cable(case, subject, definition.key) or (None,):
                        asked = required and (cable is None or cable.asked)
                        yield PlannedStep(definition, subject, case, guard, asked, cable)


def _subjects(definition: StepDefinition, case: Case) -> list[str]:
    """Whom a step is taken for: the origin, each RCD, or the final circuit and the sub-mains that the step serves."""
    if not case.run.chain:
        return []
    if definition.subject == "origin":
        return [] if case.to_loads else [ORIGIN]
    if definition.subject == "rcd":
        return list(tested_rcds(case.run, definition.key))
    if definition.subject == "box":
        return [box.id for chained in case.run.chain for box in boxes_in_the_way(chained.circuit)]
    if case.to_loads and definition.key not in CABLE_STEPS:
        return []
    feeders = [chained.circuit.id for chained in case.run.chain[:-1]] if definition.key in CABLE_STEPS else []
    return [*feeders, case.subject]


def _required(definition: StepDefinition, subject: str, case: Case, guard: PlacedGuard | None) -> bool:
    """Whether the papers wait for it: on an island the cable's own loop too, and 5× where 1× asks for it."""
    if definition.key is StepKey.ZS_CABLE:
        return has_car_electrode(case) or case.run.charge_point.to_come
    return definition.required and _asked_for(subject, case, guard)


def _asked_for(subject: str, case: Case, guard: PlacedGuard | None) -> bool:
    """One that was there already, that others share and nothing leans on, is worth a reading and no more."""
    if guard is None or subject in (case.subject, ORIGIN):
        return True
    return guard.fitted_with_this_job or guard in case.run.own_rcds


class _Named:
    """How a step is called and where it stands: by its circuit where a job has several, by its part of a cable."""

    def __init__(self, planned: PlannedStep) -> None:
        definition, subject, case, guard = planned.definition, planned.circuit, planned.case, planned.guard
        self.title, self.where, self.names_circuit = definition.title, WHERE_WORDS[definition.where], True
        self.place, self.near = _place(definition, case), "the board"
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
        at_unit = self.place in {one.id for one in case.job.charge_points}
        if at_unit and not case.to_loads and case.run.charge_point.to_come:
            self.where = "in the closed box at its end"
        self._at_a_box(planned)

    def _at_a_box(self, planned: PlannedStep) -> None:
        """At the box where a part of a cable begins or ends, or where the device stands that is tested."""
        cable, where = planned.cable, planned.definition.where
        if cable is not None:
            starts, ends = cable.leg.starts, cable.leg.ends
            here = ends if where is Where.CAR else starts
            self.near = starts.name if starts is not None else self.near
            self.title += f", {cable.leg.name}" if cable.leg.name else ""
            self.names_circuit = self.names_circuit or bool(cable.leg.name)
            if here is not None:
                self.place, self.where = here.id, f"at {here.name}"
            return
        box = next((one for one in _boxes(planned.case) if one.id == planned.circuit), None)
        if box is not None:
            self.title, self.place, self.where = f"{self.title}, {box.name}", box.id, f"at {box.name}"
            self.names_circuit = True
        elif (tested := planned.guard or _tested_device(planned)) is not None and planned.key in AT_THE_DEVICE:
            self.place = place_of(planned.case, tested)
            self.where = _place_words(planned.case, tested)


# What is done at the very device that is tested, wherever the rest of it is read.
AT_THE_DEVICE = frozenset({StepKey.RCD_BUTTON, StepKey.OPEN_PEN_TEST})


def _boxes(case: Case) -> Iterator[GuardBox]:
    return (box for chained in case.run.chain for box, _ in boxes_along(chained.circuit))


def _at_half_voltage(definition: StepDefinition, stays: tuple[StaysConnected, ...]) -> dict[str, Any]:
    """Insulation where something stays connected: at half the voltage, with what that is."""
    if definition.function is not Function.INSULATION or not stays:
        return {}
    half = dial("insulation_250")
    return {"dial": half.key, "range": half.words, "stays_connected": stays}


def _tested_device(planned: PlannedStep) -> PlacedGuard | None:
    """The open-PEN device that a step tests; one in the unit is tested there."""
    if planned.key is not StepKey.OPEN_PEN_TEST:
        return None
    separate = planned.case.arrangement.open_pen is OpenPenMeasure.SEPARATE_DEVICE
    return next(
        (
            one
            for one in planned.case.guards
            if separate and one.guard is not None and one.guard.kind is GuardKind.OPEN_PEN_DEVICE
        ),
        None,
    )


def place_of(case: Case, guard: PlacedGuard) -> str:
    """Where a guard stands: its board, its box or its unit."""
    if guard.stands is Stands.UNIT:
        return case.run.charge_point.id
    if guard.stands is Stands.BOX:
        return next(box.id for box in _boxes(case) if guard.guard in box.guards)
    return _board_of(guard.circuit, case)


def _place_words(case: Case, guard: PlacedGuard) -> str:
    """The same in words."""
    if guard.stands is Stands.UNIT:
        return WHERE_WORDS[Where.CAR]
    place = place_of(case, guard)
    names = {one.id: one.name for one in case.job.boards} | {one.id: one.name for one in _boxes(case)}
    return WHERE_WORDS[Where.BOARD] if place == case.run.final().board.id else f"at {names[place]}"


def _near_end(planned: PlannedStep) -> str:
    """Where the near end of a cable is: its board, or the box that its part begins at."""
    starts = planned.cable.leg.starts if planned.cable is not None else None
    return starts.id if starts is not None else _board_of(planned.circuit, planned.case)


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


def _circuit_of(subject: str, case: Case) -> str:
    """The circuit whose order a step keeps: that of a box for a box."""
    circuits = (chained.circuit for chained in case.run.chain)
    return next((one.id for one in circuits if any(box.id == subject for box, _ in boxes_along(one))), subject)


def _leads(definition: StepDefinition, subject: str, case: Case) -> tuple[tuple[Lead, ...], str]:
    """Leads and adapter position: past the unit through the connector, at a board or a socket straight."""
    to_unit = not case.to_loads and not case.run.charge_point.to_come
    through_car = to_unit and (definition.subject == "rcd" or subject == case.subject)
    if definition.adapter and not through_car:
        bare = [(lead.jack, *NO_ADAPTER[lead.at[0]]) for lead in definition.leads]
        return tuple(Lead(jack=jack, terminal=terminal, at=(at,)) for jack, terminal, at in bare), ""
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
