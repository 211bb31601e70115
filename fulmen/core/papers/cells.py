"""How a figure and a reading stand in a form's cell."""

from __future__ import annotations

from fulmen.core.model.readings import ByStep, Outcome, Reading, StepKey
from fulmen.core.verification.steps.steps import definition_of

LEFT_OUT = {Outcome.COULD_NOT_TEST: "LIM", Outcome.NOT_APPLICABLE: "N/A", Outcome.WRONG: "✗"}


def figure(value: float | None, decimals: int | None = None) -> str:
    """A figure for a form's cell, a dash where there is none.

    >>> figure(0.294, 2), figure(None)
    ('0.29', '–')
    """
    if value is None:
        return "–"
    return f"{value:g}" if decimals is None else f"{value:.{decimals}f}"


def reading_text(reading: Reading | None, decimals: int | None = None) -> str:
    """A reading as it stands in a form's cell, to the decimals of its step."""
    if reading is None:
        return "–"
    if reading.outcome is Outcome.RIGHT:
        return "✓"
    if reading.outcome in LEFT_OUT:
        read = "" if reading.value is None else f" {figure(reading.value, decimals)}"
        return LEFT_OUT[reading.outcome] + read
    return f">{reading.value:g}" if reading.outcome is Outcome.OVER_RANGE else figure(reading.value, decimals)


def results(readings: ByStep, subject: str) -> dict[str, str]:
    """The reading that counts of every step at one subject, by the step's key."""
    return {key.value: reading_text(readings.latest(key, subject), definition_of(key).decimals) for key in StepKey}
