"""The test sequence of Part 6 for one job: its steps in order, what to expect, what limits them."""

from __future__ import annotations

from fulmen.core.checks.residual_current import own_rcds
from fulmen.core.circuit.guards import PlacedGuard
from fulmen.core.circuit.origin import ORIGIN, measured
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Stage, Verdict
from fulmen.core.model.base import Part
from fulmen.core.model.readings import Reading, StepKey
from fulmen.core.verification.expected_bands import Band, r1_r2_band, r1_rn_band, zs_band
from fulmen.core.verification.step_limits import step_limit
from fulmen.core.verification.steps import (
    DEFINITIONS,
    WHERE_WORDS,
    Kind,
    StepDefinition,
    Where,
    has_car_electrode,
    tested_rcds,
)

# What a sub-main is tested for besides the final circuit.
SUB_MAIN_STEPS = {
    StepKey.R1_R2,
    StepKey.IR_LIVE_EARTH,
    StepKey.IR_LINE_NEUTRAL,
    StepKey.POLARITY_DEAD,
    StepKey.ZS,
}
# What a circuit of sockets or lights is tested for.
LOAD_STEPS = SUB_MAIN_STEPS | {StepKey.R1_RN, StepKey.RCD_TRIP, StepKey.RCD_BUTTON}
BETWEEN_LINES = " Each line to neutral, and line to line."
LOAD_TITLES = {StepKey.ZS: "Loop at its farthest point, Zs"}
SUB_MAIN_TITLES = {StepKey.ZS: "Loop at the board, Zs"}


class Step(Part):
    """One step of one job's sequence, with what is expected, what limits it, and the reading that counts."""

    step: StepKey
    subject: str
    stage: Stage
    title: str
    names_circuit: bool
    where: str
    how: str
    kind: Kind
    unit: str
    decimals: int
    leads: tuple[str, ...]
    required: bool
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
    reading: Reading | None = None


def sequence(cases: list[Case]) -> list[Step]:
    """Every step of the job, dead before live; what hangs on several runs (origin, sub-main) stands once."""
    steps, seen = [], set()
    for definition in DEFINITIONS:
        for case in cases:
            if case.to_loads and definition.key not in LOAD_STEPS:
                continue
            if not case.run.chain or not definition.applies(case):
                continue
            for subject in _subjects(definition, case):
                if (definition.key, subject) not in seen:
                    seen.add((definition.key, subject))
                    steps.append(_step(definition, subject, case))
    return steps


def _subjects(definition: StepDefinition, case: Case) -> list[str]:
    """Whom a step is taken for: the origin, or each sub-main where the step serves one and the final circuit."""
    if definition.subject == "origin":
        return [ORIGIN]
    if definition.subject == "rcd":
        return list(tested_rcds(case, definition.key))
    feeders = [chained.circuit.id for chained in case.run.chain[:-1]] if definition.key in SUB_MAIN_STEPS else []
    return [*feeders, case.subject]


def expected_band(case: Case, key: StepKey, subject: str, conductor_c: float | None = None) -> Band | None:
    """Where a reading of this step should lie, if that can be told yet."""
    chained = case.figures_of(subject)
    if chained is None:
        return None
    if key is StepKey.R1_R2:
        return r1_r2_band(chained, case.rules, conductor_c)
    if key is StepKey.R1_RN:
        return r1_rn_band(chained, case.rules, conductor_c)
    if key is StepKey.ZS:
        return _expected_zs(case, subject)
    return None


def _expected_zs(case: Case, subject: str) -> Band | None:
    """Ze, the tails and the R1+R2 of every circuit up to this one, as read or else from its route."""
    figures = case.figures
    assert figures is not None
    if has_car_electrode(case) and subject == case.subject:
        return None
    r1_r2, read_all = 0.0, True
    for chained in figures.chain:
        read = measured(case.job, StepKey.R1_R2, chained.circuit.id)
        read_all = read_all and read is not None
        r1_r2 += read if read is not None else chained.laid.r1_ohm + chained.laid.r2_ohm
        # The tail of a pre-wired unit is in the loop, though R1+R2 was read before it was joined.
        r1_r2 += 2 * chained.laid.flex.r1_ohm
        if chained.circuit.id == subject:
            break
    origin = "as read" if read_all else "from the route"
    ze, tails_ohm = figures.ze, figures.tails.r1_ohm + figures.tails.r2_ohm
    tails = f" + tails {tails_ohm:.3f}" if tails_ohm else ""
    source = f"Ze {ze.value:.2f} {ze.source}{tails} + R1+R2 {r1_r2:.2f} {origin}, cold"
    return zs_band(ze.value + tails_ohm, r1_r2, case.rules, source)


def _lines_apart(definition: StepDefinition, case: Case, feeder: int | None) -> bool:
    """Whether a three-phase circuit's lines are to be told apart as well."""
    unit = feeder is None and not case.to_loads
    phases = (
        case.run.charge_point.phase_count if unit else case.run.chain[-1 if feeder is None else feeder].circuit.phases
    )
    return phases == 3 and definition.key is StepKey.IR_LINE_NEUTRAL


def _tested(definition: StepDefinition, subject: str, case: Case) -> PlacedGuard | None:
    """The RCD that a step tests, if it tests one."""
    return tested_rcds(case, definition.key).get(subject) if definition.subject == "rcd" else None


def _asked_for(definition: StepDefinition, subject: str, case: Case) -> bool:
    """One that was there already and that others share is worth a reading, but its paper is another one."""
    guard = _tested(definition, subject, case)
    if guard is None or subject in (case.subject, ORIGIN):
        return True
    return guard.fitted_with_this_job or guard in own_rcds(case)


def _step(definition: StepDefinition, subject: str, case: Case) -> Step:
    limit = step_limit(case, definition.key, subject)
    band = expected_band(case, definition.key, subject)
    feeder = next((number for number, chained in enumerate(case.run.chain[:-1]) if chained.circuit.id == subject), None)
    title, where, names_circuit = definition.title, WHERE_WORDS[definition.where], True
    if feeder is not None:
        title = f"{SUB_MAIN_TITLES.get(definition.key, definition.title)}, {case.run.chain[feeder].circuit.name}"
        if definition.where is Where.CAR:
            where = f"at {case.run.chain[feeder + 1].board.name}"
    elif (guard := _tested(definition, subject, case)) is not None and subject not in (case.subject, ORIGIN):
        title, where = f"{title}, {guard.name} {guard.where}", WHERE_WORDS[Where.CAR]
    elif case.to_loads:
        title = f"{LOAD_TITLES.get(definition.key, definition.title)}, {case.run.final().circuit.name}"
        where = "at its farthest point" if definition.where is Where.CAR else where
    elif subject != ORIGIN and len(case.job.charge_points) > 1:
        title = f"{title}, {case.run.final().circuit.name}"
    else:
        names_circuit = False
    return Step.made(
        step=definition.key,
        subject=subject,
        stage=definition.stage,
        title=title,
        names_circuit=names_circuit,
        where=where,
        how=definition.how + (BETWEEN_LINES if _lines_apart(definition, case, feeder) else ""),
        kind=definition.kind,
        unit=definition.unit,
        decimals=definition.decimals,
        leads=definition.leads,
        required=definition.required and _asked_for(definition, subject, case),
        expected_low=band.low if band else None,
        expected_high=band.high if band else None,
        expected_from=band.source if band else "",
        limit=limit.most,
        limit_low=limit.least,
        limit_from=limit.source,
        past_limit=limit.past,
        plausible_from=limit.plausible_from,
        asks_from=limit.asks_from,
        asks_why=limit.asks_why,
        reading=case.job.reading(definition.key, subject),
    )
