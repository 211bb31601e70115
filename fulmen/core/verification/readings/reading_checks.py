"""Readings judged: each against its limit."""

from __future__ import annotations

from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Edition, Question, ask
from fulmen.core.findings.rules.readings import READINGS
from fulmen.core.findings.words import word
from fulmen.core.model.instruments import Function
from fulmen.core.model.readings import LEFT_OUT, Outcome, Reading
from fulmen.core.verification.steps.sequence import Step

AGAIN = "Find out why and test again."


def reading_finding(step: Step, edition: Edition) -> Finding | None:
    """The reading that counts against its limit; None before it is taken, or where nothing limits it."""
    reading = step.reading
    if reading is None:
        return None
    asked = ask(READINGS[step.step], edition, step.subject, step=step.title)
    asked = asked.shown_at(step.stage, named=step.names_circuit)
    if reading.outcome is Outcome.RIGHT:
        signed = f"Signed by {reading.taken_by}, {reading.taken_at:%-d %B, %H:%M}." if step.kind == "hold" else "Right."
        return asked.meets(signed)
    if reading.outcome is Outcome.WRONG:
        read = "" if reading.value is None else f" Read {reading.value:.{step.decimals}f} {step.unit}."
        return asked.falls_short(f"Found wrong.{read} {reading.reason}".strip(), remedy="Put it right and test again.")
    if reading.outcome in LEFT_OUT:
        return _not_tested(asked, step, reading)
    assert reading.value is not None
    voltage = _at_voltage(asked, step, reading, edition)
    if voltage is not None:
        return voltage
    if step.cores_joined and not step.as_chosen:
        # Another way than was chosen: it may have been read through the device, or 500 V put on its electronics.
        basis = {"value": reading.value, "through": step.cores_joined}
        return asked.your_call(f"Read past a box as one piece. {step.beforehand} Say that it was so.", basis=basis)
    if reading.outcome is Outcome.OVER_RANGE:
        return _over_range(asked, step, reading.value)
    return _figure(asked, step, reading.value)


def _not_tested(asked: Question, step: Step, reading: Reading) -> Finding:
    """A limitation is the tester's to explain where a step may be left out, and no answer where it may not."""
    said = "Could not test" if reading.outcome is Outcome.COULD_NOT_TEST else "Not applicable"
    detail = f"{said}: {reading.reason}"
    if step.stood_for:
        return asked.meets(f"{detail}. Another reading stands for it.")
    before = [one for one in step.earlier if one.outcome not in LEFT_OUT]
    if before:
        # What could be tested once is not left out: a bad figure would vanish behind a reason.
        return asked.needs_reading(f"{detail}. It was tested before, so it can be: test it again.", stage=step.stage)
    if step.required and not step.waivable:
        return asked.needs_reading(detail, stage=step.stage)
    back = " Read before, and taken back." if step.taken_back else ""
    return asked.your_call(f"{detail}.{back} A limitation: say who accepts it.", basis={"not_tested": reading.outcome})


def _at_voltage(asked: Question, step: Step, reading: Reading, edition: Edition) -> Finding | None:
    """Insulation counts at its test voltage; half of it where electronics or surge protection stay connected."""
    if step.function is not Function.INSULATION:
        return None
    volts, full_v, half_v = (
        reading.test_voltage_v,
        edition.value("insulation_test_v"),
        edition.value("insulation_test_connected_v"),
    )
    if volts is None:
        return asked.needs_reading("At which voltage was it tested?", stage=step.stage)
    if volts < half_v:
        return asked.falls_short(f"Tested at {volts} V; {full_v:g} V d.c. is asked for.", remedy=AGAIN)
    enough = reading.value is not None and step.limit_low is not None and reading.value >= step.limit_low
    stays = ", ".join(word(one) for one in step.stays_connected)
    if volts < full_v and enough and not stays:
        detail = f"Tested at {volts} V, not {full_v:g}: say what stays connected."
        return asked.your_call(detail, basis={"test_voltage_v": volts})
    if volts >= full_v and stays and enough:
        detail = f"Tested at {volts} V with {stays} connected: it may be hurt. Was it off for this, or is it sound?"
        return asked.your_call(detail, basis={"test_voltage_v": volts, "stays": step.stays_connected})
    return None


def _over_range(asked: Question, step: Step, value: float) -> Finding:
    """Over range is good for insulation above its limit; for anything else it is an open circuit."""
    detail = f"More than {value:g} {step.unit}, over the instrument's range."
    if step.limit is None and step.limit_low is not None and value >= step.limit_low:
        return asked.meets(detail)
    return asked.falls_short(detail, remedy="Look for an open circuit or a lead that is off.")


def _figure(asked: Question, step: Step, value: float) -> Finding | None:
    too_low = step.limit_low is not None and (step.limit is None or value < step.limit_low)
    limit = step.limit_low if too_low else step.limit
    if limit is None:
        return None
    implausible = step.plausible_from is not None and value < step.plausible_from
    if implausible:
        detail = f"{value:g} {step.unit}: faster than it can open. Was it the right dial, with the circuit on?"
        return asked.your_call(detail, basis={"value": value}, remedy=AGAIN)
    if step.asks_from is not None and step.asks_from < value <= limit:
        detail = f"{value:g} {step.unit}, at most {limit:g}; above {step.asks_from:g} {step.asks_why}."
        return asked.your_call(detail, basis={"value": value})
    return asked.judged(
        value=value,
        limit=limit,
        at_least=too_low,
        unit=step.unit,
        decimals=step.decimals,
        detail=step.limit_from,
        remedy=AGAIN,
        otherwise=step.past_limit,
    )
