"""Do the readings agree? Each against what the other figures of the same copper say it should be."""

from __future__ import annotations

from fulmen.core.circuit.origin import ORIGIN, external_loop, measured
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.fault_loop import prospective_fault_ka
from fulmen.core.findings.finding import Finding, WorkingLine
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.readings import (
    AGREE_FAULT_CURRENT,
    AGREE_INSULATION,
    AGREE_R1_R2,
    AGREE_R1_RN,
    AGREE_ZE,
    AGREE_ZS,
)
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.model.readings import StepKey
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.earth_readings import earth_findings
from fulmen.core.verification.expected_bands import Band
from fulmen.core.verification.sequence import expected_band


def agreement_findings(cases: list[Case]) -> list[Finding]:
    """Whether the readings of each circuit agree, each question once."""
    taken = [case for case in cases if case.job.readings]
    found = [one for case in taken for chained in case.new_circuits() for one in _agreements(case, chained.circuit.id)]
    found += [one for case in taken for one in earth_findings(case)]
    return list({finding.key: finding for finding in found}.values())


def _agreements(case: Case, subject: str) -> list[Finding]:
    at_origin = [_ze_survey(case), _fault_current_ze(case)]
    checks = (_r1_r2_route, _r1_rn_route, _zs_sum, _insulation_new)
    found = [*at_origin, *(check(case, subject) for check in checks)]
    return [finding for finding in found if finding is not None]


def _agrees(asked: Question, value: float, band: Band, otherwise: str) -> Finding:
    """Meets inside the band, the tester's call outside it, with the likeliest reason said out loud."""
    line = WorkingLine(symbol="expected", figures=f"{band.low:.2f} to {band.high:.2f}", unit="Ω", source=band.source)
    told = f"Read {value:.2f}, expected {band.low:.2f} to {band.high:.2f} Ω: {band.source}."
    basis = {"value": round(value, 2), "low": round(band.low, 2), "high": round(band.high, 2)}
    if band.holds(value):
        return asked.meets(told, working=(line,), basis=basis)
    return asked.your_call(f"{told} {otherwise}", working=(line,), basis=basis)


def _against_route(case: Case, subject: str, step: StepKey, rule: Rule) -> Finding | None:
    reading = case.job.reading(step, subject)
    value = measured(case.job, step, subject)
    band = expected_band(case, step, subject, reading.temperature_c if reading else None)
    if value is None or band is None:
        return None
    below = "Lower means a parallel path, a shorter route than entered or leads over-nulled."
    above = "Higher means a poor joint, a longer route than entered or leads not nulled."
    return _agrees(ask(rule, case.rules, subject), value, band, below if value < band.low else above)


def _r1_r2_route(case: Case, subject: str) -> Finding | None:
    return _against_route(case, subject, StepKey.R1_R2, AGREE_R1_R2)


def _r1_rn_route(case: Case, subject: str) -> Finding | None:
    return _against_route(case, subject, StepKey.R1_RN, AGREE_R1_RN)


def _ze_survey(case: Case) -> Finding | None:
    value, enquiry = measured(case.job, StepKey.ZE, ORIGIN), case.job.supply.ze_enquiry_ohm
    if value is None or enquiry is None:
        return None
    rules = case.rules
    allowed = max(rules.value("enquiry_agreement_ohm"), rules.value("enquiry_agreement_share") * enquiry)
    band = Band(max(0.0, enquiry - allowed), enquiry + allowed, f"{enquiry:.2f} by enquiry")
    why = "Ask the operator, or see that the earthing conductor was off while you measured."
    return _agrees(ask(AGREE_ZE, rules, ORIGIN), value, band, why)


def _fault_current_ze(case: Case) -> Finding | None:
    """The larger of line–neutral and line–earth can't be less than what Ze alone gives."""
    fault_ka, ze_ohm = measured(case.job, StepKey.FAULT_CURRENT, ORIGIN), measured(case.job, StepKey.ZE, ORIGIN)
    if fault_ka is None or ze_ohm is None or ze_ohm == 0 or case.job.supply.earthing is Earthing.TT:
        return None
    alone_ka = prospective_fault_ka(ze_ohm, case.rules.value("u0_v"), 1.0)
    least = alone_ka * (1 - case.rules.value("fault_current_agreement_share"))
    asked = ask(AGREE_FAULT_CURRENT, case.rules, ORIGIN)
    detail = f"Read {fault_ka:.2f} kA; Ze {ze_ohm:.2f} Ω alone gives about {alone_ka:.2f} kA."
    basis = {"fault_ka": round(fault_ka, 2), "ze_ohm": round(ze_ohm, 2)}
    most = alone_ka * (1 + case.rules.value("fault_current_most_share"))
    if case.job.supply.earthing is Earthing.TN_C_S and fault_ka > most:
        return asked.your_call(f"{detail} On TN-C-S the two are one loop, so one of them is wrong.", basis=basis)
    if fault_ka >= least:
        return asked.meets(detail)
    return asked.your_call(f"{detail} It should be the larger of line–neutral and line–earth.", basis=basis)


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
    return _agrees(ask(AGREE_ZS, case.rules, subject), value, band, why)


def _insulation_new(case: Case, subject: str) -> Finding | None:
    worry_mohm = case.rules.value("insulation_worry_mohm")
    for step in (StepKey.IR_LIVE_EARTH, StepKey.IR_LINE_NEUTRAL):
        value = measured(case.job, step, subject)
        if value is not None and case.rules.value("insulation_mohm") <= value < worry_mohm:
            detail = (
                f"Read {value:g} MΩ; new cable reads more than {worry_mohm:g}. Is something still connected, or damp?"
            )
            asked = ask(AGREE_INSULATION, case.rules, subject)
            return asked.your_call(detail, basis={"step": step, "value": round(value, 2)})
    return None
