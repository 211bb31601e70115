"""What was read at the connector against what the unit was set to: the current offered, the lead's coding."""

from __future__ import annotations

from fulmen.core.electrical.control_pilot import coded_a, least_code, offered_a
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.readings import AGREE_LEAD, AGREE_OFFERED, AGREE_PROXIMITY
from fulmen.core.model.readings import StepKey
from fulmen.core.verification.readings.agreement import agrees
from fulmen.core.verification.steps.expected_readings import expected_band
from fulmen.core.verification.steps.run_test import RunTest

NOT_KNOWN = "What is the unit set to, and what can it take at most?"


def charge_point_reading_findings(test: RunTest) -> list[Finding]:
    """Every finding about the bench's figures."""
    case = test.case
    found = [] if case.to_loads else [_offered(test), _proximity(test), _lead(test)]
    return [one for one in found if one is not None]


def _offered(test: RunTest) -> Finding | None:
    """The duty offers what the unit was set to: more is past the design, less charges slower than promised."""
    case = test.case
    duty = test.figure(StepKey.PILOT_DUTY, case.subject)
    if duty is None:
        return None
    asked, designed_a, current_a = ask(AGREE_OFFERED, case.rules, case.subject), _designed_a(test), offered_a(duty)
    if not case.run.charge_point.current_known:
        return asked.needs_fact(NOT_KNOWN)
    within_a = 0.6 * case.rules.value("pilot_duty_within_percent")
    if current_a is None:
        basis = {"duty_percent": round(duty, 1)}
        return asked.your_call(f"A duty of {duty:g} % offers a car no current. In which state was it?", basis=basis)
    detail = f"A duty of {duty:g} % offers {current_a:.1f} A; designed for {designed_a:g} A."
    if current_a > designed_a + within_a + 1e-9:
        return asked.falls_short(detail, remedy=f"Set the unit to {designed_a:g} A, and measure again.")
    if current_a < designed_a - within_a - 1e-9:
        basis = {"offered_a": round(current_a, 1), "designed_a": designed_a}
        return asked.your_call(f"{detail} A load limit, or another setting?", basis=basis)
    return asked.meets(detail)


def _lead(test: RunTest) -> Finding | None:
    """The lead's earth as read against what it is."""
    subject = test.case.subject
    value, band = test.figure(StepKey.CONNECTOR_EARTH, subject), expected_band(test, StepKey.CONNECTOR_EARTH, subject)
    if value is None or band is None:
        return None
    why = (
        "Lower: another way beside it, or over-nulled."
        if value < band.low
        else "Higher: a poor contact, or not nulled."
    )
    return agrees(ask(AGREE_LEAD, test.rules, subject), value, band, why)


def _designed_a(test: RunTest) -> float:
    case = test.case
    return case.run.charge_point.design_current_a()


def _proximity(test: RunTest) -> Finding | None:
    """The lead's code: a car draws no more than it says, and the lead must carry what it says."""
    case = test.case
    resistor_ohm = test.figure(StepKey.PROXIMITY, case.subject)
    if resistor_ohm is None:
        return None
    asked, coded = ask(AGREE_PROXIMITY, case.rules, case.subject), coded_a(resistor_ohm)
    if not case.run.charge_point.current_known:
        return asked.needs_fact(NOT_KNOWN)
    if coded is None:
        basis = {"resistor_ohm": round(resistor_ohm)}
        return asked.your_call(f"{resistor_ohm:g} Ω codes no current: ask the maker of the lead.", basis=basis)
    designed_a, most_a = _designed_a(test), case.run.charge_point.max_current_a
    detail = f"{resistor_ohm:g} Ω codes {coded:g} A."
    # Codes stand far apart: the lead of a 16 A unit is coded for 20 A.
    if most_a is not None and coded > least_code(most_a)[0]:
        more = f"{detail} That is more than the unit's {most_a:g} A: is it its own lead?"
        return asked.your_call(more, basis={"coded_a": coded, "most_a": most_a})
    if coded < designed_a:
        less = f"{detail} Less than the {designed_a:g} A it is set to: the lead may be too thin."
        return asked.your_call(less, basis={"coded_a": coded, "designed_a": designed_a})
    return asked.meets(detail)
