"""The test sequence of Part 6 for one job: its steps in order, what to expect, what limits them."""

from __future__ import annotations

from fulmen.core.checks.residual_current import own_rcds
from fulmen.core.circuit.guards import PlacedGuard
from fulmen.core.circuit.origin import ORIGIN
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Stage, Verdict
from fulmen.core.model.base import Part
from fulmen.core.model.instruments import Function
from fulmen.core.model.readings import LEFT_OUT, Reading, StepKey
from fulmen.core.verification.dials import Link, Point
from fulmen.core.verification.expected_readings import expected_band
from fulmen.core.verification.step_applies import applies, has_car_electrode, tested_rcds
from fulmen.core.verification.step_limits import step_limit
from fulmen.core.verification.steps import (
    MET_BY,
    WHERE_WORDS,
    FigureRange,
    Kind,
    Lead,
    StepDefinition,
    Where,
    definitions,
)

# What every cable is tested for: a sub-main, and a circuit of sockets or lights, besides the RCD before it.
CABLE_STEPS = {
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
LOAD_TITLES = {StepKey.ZS: "Loop at its farthest point, Zs"}
SUB_MAIN_TITLES = {StepKey.ZS: "Loop at the board, Zs"}
# Where nothing but the cable is there yet, no adapter is used.
NO_ADAPTER = tuple(
    Lead(jack=jack, terminal=terminal, at=(Point(f"far.{jack}"),))
    for jack, terminal in zip("LNE", ("line", "neutral", "earth"), strict=True)
)


class Step(Part):
    """One step of one job's sequence, with what is expected, what limits it, and the reading that counts.

    `met` says whether it was tested, or others that stand for it were (`stood_for`); `earlier` are those that were
    taken before.
    `place` is where the tester stands, by the name of a board, a unit or the origin; `circuit` whose order it keeps;
    `guard` is the path of the RCD that it tests.
    """

    step: StepKey
    subject: str
    circuit: str
    guard: str
    stage: Stage
    rank: int
    title: str
    names_circuit: bool
    where: str
    place: str
    how: str
    why: str
    damages: str
    kind: Kind
    unit: str
    decimals: int
    figures: FigureRange | None
    function: Function
    dial: str
    range: str
    leads: tuple[Lead, ...]
    links: str
    linked: Link
    linked_at: str
    adapter: str
    required: bool
    waivable: bool
    offered_with: StepKey | None = None
    expected_low: float | None = None
    expected_high: float | None = None
    expected_from: str = ""
    limit: float | None = None
    limit_low: float | None = None
    limit_from: str = ""
    past_limit: Verdict = Verdict.FALLS_SHORT
    plausible_from: float | None = None
    asks_from: float | None = None
    asks_why: str = ""
    met: bool = False
    stood_for: bool = False
    earlier: tuple[Reading, ...] = ()
    reading: Reading | None = None


def sequence(cases: list[Case]) -> list[Step]:
    """Every step of the job, dead before live; what hangs on several runs (origin, sub-main) stands once."""
    steps, seen = [], set()
    chosen = cases[0].job.testing.rcd_school if cases else None
    for definition in definitions():
        if definition.rcd_school not in (None, chosen):
            continue
        for case in cases:
            if not case.run.chain:
                continue
            for subject in _subjects(definition, case):
                here = (definition.key, subject)
                if here not in seen and applies(definition, case, subject):
                    seen.add(here)
                    steps.append(_step(definition, subject, case))
    return steps


def _subjects(definition: StepDefinition, case: Case) -> list[str]:
    """Whom a step is taken for: the origin, each RCD, or the final circuit and the sub-mains that the step serves."""
    if definition.subject == "origin":
        return [] if case.to_loads else [ORIGIN]
    if definition.subject == "rcd":
        return list(tested_rcds(case, definition.key))
    if case.to_loads and definition.key not in CABLE_STEPS:
        return []
    feeders = [chained.circuit.id for chained in case.run.chain[:-1]] if definition.key in CABLE_STEPS else []
    return [*feeders, case.subject]


def _tested(definition: StepDefinition, subject: str, case: Case) -> PlacedGuard | None:
    """The RCD that a step tests, if it tests one."""
    return tested_rcds(case, definition.key).get(subject) if definition.subject == "rcd" else None


def _asked_for(definition: StepDefinition, subject: str, case: Case) -> bool:
    """One that was there already and that others share is worth a reading, but its paper is another one."""
    guard = _tested(definition, subject, case)
    if guard is None or subject in (case.subject, ORIGIN):
        return True
    return guard.fitted_with_this_job or guard in own_rcds(case)


def _stands_for(case: Case, key: StepKey, subject: str) -> bool:
    """Whether readings of other steps stand in the place of this one."""
    return any(all(_taken(case, one, subject) for one in others) for others in MET_BY.get(key, ()))


def _taken(case: Case, key: StepKey, subject: str) -> bool:
    reading = case.job.reading(key, subject)
    return reading is not None and reading.outcome not in LEFT_OUT


class _Named:
    """How a step is called and where it stands: by its circuit where a job has several."""

    def __init__(self, definition: StepDefinition, subject: str, case: Case) -> None:
        self.title, self.where, self.names_circuit = definition.title, WHERE_WORDS[definition.where], True
        self.place = _place(definition, case)
        chain, guard = case.run.chain, _tested(definition, subject, case)
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
            self.where = "at its farthest point" if definition.where is Where.CAR else self.where
        elif subject != ORIGIN and len(case.job.charge_points) > 1:
            self.title = f"{definition.title}, {case.run.final().circuit.name}"
        else:
            self.names_circuit = False


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


def _step(definition: StepDefinition, subject: str, case: Case) -> Step:
    limit, guard = step_limit(case, definition.key, subject), _tested(definition, subject, case)
    reading, band = case.job.reading(definition.key, subject), expected_band(case, definition.key, subject)
    stood_for = _stands_for(case, definition.key, subject)
    named, (leads, adapter) = _Named(definition, subject, case), _leads(definition, subject, case)
    return Step.made(
        **definition.in_common,
        subject=subject,
        circuit=guard.circuit if guard is not None and subject != ORIGIN else subject,
        guard=guard.field if guard is not None else "",
        title=named.title,
        names_circuit=named.names_circuit,
        where=named.where,
        place=named.place,
        leads=leads,
        linked_at=_board_of(subject, case) if definition.links else "",
        adapter=adapter,
        required=_required(definition, subject, case),
        waivable=definition.waivable or definition.function is Function.VEHICLE or _races(definition, subject, case),
        expected_low=band.shown[0] if band else None,
        expected_high=band.shown[1] if band else None,
        expected_from=band.source if band else "",
        limit=limit.most,
        limit_low=limit.least,
        limit_from=limit.source,
        past_limit=limit.past,
        plausible_from=limit.plausible_from,
        asks_from=limit.asks_from,
        asks_why=limit.asks_why,
        met=stood_for or (reading is not None and reading.outcome not in LEFT_OUT),
        stood_for=stood_for,
        earlier=case.job.readings_of(definition.key, subject)[:-1] if reading is not None else (),
        reading=reading,
    )


def _required(definition: StepDefinition, subject: str, case: Case) -> bool:
    """Whether the papers wait for it: on an island the cable's own loop too, and 5× where 1× asks for it."""
    if definition.key is StepKey.ZS_CABLE:
        return has_car_electrode(case)
    return definition.required and _asked_for(definition, subject, case)


def _races(definition: StepDefinition, subject: str, case: Case) -> bool:
    """Whether another RCD of no more current may open first, so that this one can't be timed through it."""
    guard = _tested(definition, subject, case)
    if guard is None or guard.rcd is None:
        return False
    others = [one.rcd for one in case.guards if one.rcd is not None and one is not guard]
    return any(one.residual_ma <= guard.rcd.residual_ma and not one.time_delayed for one in others)
