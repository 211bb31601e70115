"""Readings judged: each against its limit, and each against what the other figures say it should be."""

from __future__ import annotations

from typing import Any

from fulmen.core.circuit.origin import ORIGIN, external_loop, measured
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.fault_loop import prospective_fault_ka
from fulmen.core.findings.finding import Finding, Stage, Verdict, WorkingLine, judged, stated
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.expected_bands import Band
from fulmen.core.verification.sequence import Step, expected_band

TEST_CLAUSE = "BS 7671 Part 6"
CLAUSES = {
    StepKey.R1_R2: "BS 7671 643.2, 411.4.4",
    StepKey.IR_LIVE_EARTH: "BS 7671 643.3, Table 64",
    StepKey.IR_LINE_NEUTRAL: "BS 7671 643.3, Table 64",
    StepKey.ELECTRODE: "BS 7671 643.7.2, 411.5.3",
    StepKey.ZE: "BS 7671 643.7.3",
    StepKey.FAULT_CURRENT: "BS 7671 643.7.3.201, 434.5.1",
    StepKey.ZS: "BS 7671 643.7.3, Appendix 3",
    StepKey.RCD_TRIP: "BS 7671 643.8",
    StepKey.RCD_ORIGIN_TRIP: "BS 7671 643.8",
}
AGREE_CLAUSE = "common practice, no source"


def reading_findings(cases: list[Case], steps: tuple[Step, ...]) -> list[Finding]:
    """A finding for each reading taken, then whether the readings agree."""
    judgements = [finding for step in steps if (finding := _judge(step)) is not None]
    taken = [case for case in cases if case.job.readings]
    agreements = [
        finding
        for case in taken
        for chained in case.new_circuits()
        for finding in _agreements(case, chained.circuit.id)
    ]
    unique = {finding.key(): finding for finding in [*judgements, *agreements]}
    return list(unique.values())


def _judge(step: Step) -> Finding | None:
    """The reading that counts against its limit; None before it is taken, or where nothing limits it."""
    reading = step.reading
    if reading is None:
        return None
    rule, clause = f"reading_{step.step.value}", CLAUSES.get(step.step, TEST_CLAUSE)
    if reading.outcome is Outcome.RIGHT:
        return stated(rule, step.subject, step.title, Verdict.MEETS, "Right.", clause, stage=step.stage)
    if reading.outcome is Outcome.WRONG:
        detail = f"Found wrong. {reading.reason}".strip()
        return stated(
            rule,
            step.subject,
            step.title,
            Verdict.FALLS_SHORT,
            detail,
            clause,
            stage=step.stage,
            remedy="Put it right and test again.",
        )
    if reading.outcome is Outcome.COULD_NOT_TEST:
        verdict = Verdict.NEEDS if step.required else Verdict.MEETS
        detail = f"Could not test: {reading.reason}"
        return stated(rule, step.subject, step.title, verdict, detail, clause, stage=step.stage, waits_for="reading")
    assert reading.value is not None
    if reading.outcome is Outcome.OVER_RANGE:
        return _over_range(step, reading.value, rule, clause)
    return _figure(step, reading.value, rule, clause)


def _over_range(step: Step, value: float, rule: str, clause: str) -> Finding:
    """Over range is good for insulation above its limit; for anything else it is an open circuit."""
    detail = f"More than {value:g} {step.unit}, over the instrument's range."
    good = step.limit is None and step.limit_low is not None and value >= step.limit_low
    remedy = "" if good else "Look for an open circuit or a lead that is off."
    return stated(
        rule,
        step.subject,
        step.title,
        Verdict.MEETS if good else Verdict.FALLS_SHORT,
        detail,
        clause,
        stage=step.stage,
        remedy=remedy,
    )


def _figure(step: Step, value: float, rule: str, clause: str) -> Finding | None:
    common: dict[str, Any] = {
        "rule": rule,
        "subject": step.subject,
        "title": step.title,
        "value": value,
        "unit": step.unit,
        "decimals": step.decimals,
        "clause": clause,
        "stage": step.stage,
        "detail": step.limit_from,
    }
    if step.limit_low is not None and (step.limit is None or value < step.limit_low):
        return judged(**common, limit=step.limit_low, at_least=True, remedy="Find out why and test again.")
    if step.limit is not None:
        return judged(**common, limit=step.limit, remedy="Find out why and test again.")
    return None


def _agreements(case: Case, subject: str) -> list[Finding]:
    at_origin = [_ze_survey(case), _fault_current_ze(case)]
    checks = (_r1_r2_route, _r1_rn_route, _zs_sum, _insulation_new)
    found = [*at_origin, *(check(case, subject) for check in checks)]
    return [finding for finding in found if finding is not None]


def _agrees(
    case: Case, rule: str, subject: str, title: str, value: float, band: Band, stage: Stage, otherwise: str
) -> Finding:
    """Meets inside the band, the tester's call outside it, with the likeliest reason said out loud."""
    line = WorkingLine(symbol="expected", figures=f"{band.low:.2f} to {band.high:.2f}", unit="Ω", source=band.source)
    if band.holds(value):
        detail = f"Read {value:.2f}, expected {band.low:.2f} to {band.high:.2f} Ω: {band.source}."
        return stated(rule, subject, title, Verdict.MEETS, detail, AGREE_CLAUSE, stage=stage, working=(line,))
    detail = f"Read {value:.2f}, expected {band.low:.2f} to {band.high:.2f} Ω: {band.source}. {otherwise}"
    return stated(rule, subject, title, Verdict.YOUR_CALL, detail, AGREE_CLAUSE, stage=stage, working=(line,))


def _against_route(case: Case, subject: str, step: StepKey, rule: str, title: str) -> Finding | None:
    reading = case.job.reading(step, subject)
    value = measured(case.job, step, subject)
    band = expected_band(case, step, subject, reading.temperature_c if reading else None)
    if value is None or band is None:
        return None
    below = "Lower means a parallel path, a shorter route than entered or leads over-nulled."
    above = "Higher means a poor joint, a longer route than entered or leads not nulled."
    return _agrees(case, rule, subject, title, value, band, Stage.DEAD, below if value < band.low else above)


def _r1_r2_route(case: Case, subject: str) -> Finding | None:
    return _against_route(case, subject, StepKey.R1_R2, "agree_r1_r2", "R1+R2 with the route")


def _r1_rn_route(case: Case, subject: str) -> Finding | None:
    return _against_route(case, subject, StepKey.R1_RN, "agree_r1_rn", "R1+Rn with the route")


def _ze_survey(case: Case) -> Finding | None:
    value, enquiry = measured(case.job, StepKey.ZE, ORIGIN), case.job.supply.ze_enquiry_ohm
    if value is None or enquiry is None:
        return None
    rules = case.rules
    allowed = max(rules.value("enquiry_agreement_ohm"), rules.value("enquiry_agreement_share") * enquiry)
    band = Band(max(0.0, enquiry - allowed), enquiry + allowed, f"{enquiry:.2f} by enquiry")
    why = "Ask the operator, or see that the earthing conductor was off while you measured."
    return _agrees(case, "agree_ze", ORIGIN, "Ze with the enquiry", value, band, Stage.LIVE, why)


def _fault_current_ze(case: Case) -> Finding | None:
    """The larger of line–neutral and line–earth can't be less than what Ze alone gives."""
    fault_ka, ze_ohm = measured(case.job, StepKey.FAULT_CURRENT, ORIGIN), measured(case.job, StepKey.ZE, ORIGIN)
    if fault_ka is None or ze_ohm is None or ze_ohm == 0 or case.job.supply.earthing is Earthing.TT:
        return None
    alone_ka = prospective_fault_ka(ze_ohm, case.rules.value("u0_v"), 1.0)
    least = alone_ka * (1 - case.rules.value("fault_current_agreement_share"))
    title = "Fault current with Ze"
    detail = f"Read {fault_ka:.2f} kA; Ze {ze_ohm:.2f} Ω alone gives about {alone_ka:.2f} kA."
    verdict = Verdict.MEETS if fault_ka >= least else Verdict.YOUR_CALL
    if verdict is Verdict.YOUR_CALL:
        detail += " It should be the larger of line–neutral and line–earth."
    return stated("agree_fault_current", ORIGIN, title, verdict, detail, AGREE_CLAUSE, stage=Stage.LIVE)


def _zs_sum(case: Case, subject: str) -> Finding | None:
    value, band = measured(case.job, StepKey.ZS, subject), expected_band(case, StepKey.ZS, subject)
    ze = external_loop(case.job, case.rules)
    if value is None or band is None or not ze.measured:
        return None
    r1_r2 = measured(case.job, StepKey.R1_R2, subject)
    why = "Higher means a poor joint or a warm cable."
    if value < band.low:
        why = "Lower means a parallel path: tray, bonding, armour."
        if r1_r2 is not None and value < r1_r2:
            why = "Below R1+R2: a parallel path (tray, bonding, armour) or leads not nulled."
    return _agrees(case, "agree_zs", subject, "Zs with Ze and R1+R2", value, band, Stage.LIVE, why)


def _insulation_new(case: Case, subject: str) -> Finding | None:
    worry = case.rules.limit("insulation_worry_mohm")
    for step in (StepKey.IR_LIVE_EARTH, StepKey.IR_LINE_NEUTRAL):
        value = measured(case.job, step, subject)
        if value is not None and case.rules.value("insulation_mohm") <= value < worry.value:
            detail = (
                f"Read {value:g} MΩ; new cable reads more than {worry.value:g}. Is something still connected, or damp?"
            )
            return stated(
                "agree_insulation",
                subject,
                "Insulation like new cable",
                Verdict.YOUR_CALL,
                detail,
                worry.clause,
                stage=Stage.DEAD,
            )
    return None
