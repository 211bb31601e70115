"""The test sequence of Part 6 for one job: its steps in order, what to expect, what limits them."""

from __future__ import annotations

from fulmen.core.agreement import Band, r1_r2_band, r1_rn_band, zs_band
from fulmen.core.figures import ORIGIN, Case, measured
from fulmen.core.findings import Stage
from fulmen.core.model.base import Part
from fulmen.core.model.readings import Reading, StepKey
from fulmen.core.step_limits import step_limit
from fulmen.core.steps import DEFINITIONS, Kind, StepDefinition, has_car_electrode


class Step(Part):
    """One step of one job's sequence, with what is expected, what limits it, and the reading that counts."""

    step: StepKey
    subject: str
    stage: Stage
    title: str
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
    reading: Reading | None = None


def sequence(cases: list[Case]) -> list[Step]:
    """Every step of the job, dead before live; a step at the origin stands once, whatever hangs on it."""
    steps, seen = [], set()
    for definition in DEFINITIONS:
        for case in cases:
            if not case.run.links or not definition.applies(case):
                continue
            subject = ORIGIN if definition.subject == "origin" else case.subject
            if (definition.key, subject) not in seen:
                seen.add((definition.key, subject))
                steps.append(_step(definition, subject, case))
    return steps


def expected_band(case: Case, key: StepKey, conductor_c: float | None = None) -> Band | None:
    """Where a reading of this step should lie, if that can be told yet."""
    if case.figures is None:
        return None
    if key is StepKey.R1_R2:
        return r1_r2_band(case.figures, case.rules, conductor_c)
    if key is StepKey.R1_RN:
        return r1_rn_band(case.figures, case.rules, conductor_c)
    if key is StepKey.ZS:
        return _expected_zs(case)
    return None


def _expected_zs(case: Case) -> Band | None:
    figures = case.figures
    assert figures is not None
    if has_car_electrode(case):
        return None
    read = measured(case.job, StepKey.R1_R2, case.subject)
    r1_r2 = read if read is not None else figures.r1_ohm + figures.r2_ohm
    origin = "as read" if read is not None else "from the route"
    source = f"Ze {figures.ze.value:.2f} {figures.ze.source} + R1+R2 {r1_r2:.2f} {origin}, cold"
    return zs_band(figures.ze.value, r1_r2, case.rules, source)


def _step(definition: StepDefinition, subject: str, case: Case) -> Step:
    limit = step_limit(case, definition.key)
    band = expected_band(case, definition.key)
    return Step(
        step=definition.key,
        subject=subject,
        stage=definition.stage,
        title=definition.title,
        where=definition.where,
        how=definition.how,
        kind=definition.kind,
        unit=definition.unit,
        decimals=definition.decimals,
        leads=definition.leads,
        required=definition.required,
        expected_low=band.low if band else None,
        expected_high=band.high if band else None,
        expected_from=band.source if band else "",
        limit=limit.most,
        limit_low=limit.least,
        limit_from=limit.source,
        reading=case.job.reading(definition.key, subject),
    )
