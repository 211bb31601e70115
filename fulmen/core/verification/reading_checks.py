"""Readings judged: each against its limit."""

from __future__ import annotations

from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Edition, Question, ask
from fulmen.core.findings.rules.readings import READINGS
from fulmen.core.model.readings import Outcome
from fulmen.core.verification.sequence import Step

AGAIN = "Find out why and test again."


def reading_findings(steps: tuple[Step, ...], edition: Edition) -> list[Finding]:
    """A finding for each reading taken that something limits."""
    return [finding for step in steps if (finding := _judge(step, edition)) is not None]


def _judge(step: Step, edition: Edition) -> Finding | None:
    """The reading that counts against its limit; None before it is taken, or where nothing limits it."""
    reading = step.reading
    if reading is None:
        return None
    asked = ask(READINGS[step.step], edition, step.subject, step=step.title)
    asked = asked.shown_at(step.stage, named=step.names_circuit)
    if reading.outcome is Outcome.RIGHT:
        return asked.meets("Right.")
    if reading.outcome is Outcome.WRONG:
        return asked.falls_short(f"Found wrong. {reading.reason}".strip(), remedy="Put it right and test again.")
    if reading.outcome is Outcome.COULD_NOT_TEST:
        detail = f"Could not test: {reading.reason}"
        return asked.needs_reading(detail, stage=step.stage) if step.required else asked.meets(detail)
    assert reading.value is not None
    if reading.outcome is Outcome.OVER_RANGE:
        return _over_range(asked, step, reading.value)
    return _figure(asked, step, reading.value)


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
