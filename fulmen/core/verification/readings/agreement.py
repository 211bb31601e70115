"""One question of agreement: a reading inside its band meets, outside it is the tester's to explain."""

from __future__ import annotations

from collections.abc import Callable

from fulmen.core.findings.finding import Finding, WorkingLine
from fulmen.core.findings.question import Question
from fulmen.core.verification.instruments.accuracy import Errors, asks_of, off_together, said_only
from fulmen.core.verification.steps.band import Band


def agrees(
    asked: Question, value: float, band: Band, otherwise: str, *, unit: str = "Ω", working: tuple[WorkingLine, ...] = ()
) -> Finding:
    """Meets inside the band; outside it is the tester's to explain, with how far and the likeliest reason said.

    What lies in the band only as long as something is not said waits for that.
    """
    expected = "{:.2f} to {:.2f}".format(*band.shown)
    lines = (
        *(WorkingLine(symbol=one.words, figures=one.told, unit=unit) for one in band.parts),
        WorkingLine(symbol="expected", figures=expected, unit=unit, source=band.source),
        *working,
    )
    told = f"Read {value:.2f}, expected {expected} {unit}: {band.source}."
    basis = {"value": round(value, 2), "low": round(band.low, 2), "high": round(band.high, 2)}
    if band.surely_holds(value):
        return asked.meets(told, working=lines, basis=basis)
    if band.holds(value):
        return asked.needs_fact(f"{told} {' '.join(band.asks)}", working=lines)
    return asked.your_call(f"{told} {band.beyond(value):.3f} {unit} beyond. {otherwise}", working=lines, basis=basis)


def within_errors(asked: Question, errors: Errors, holds: Callable[[float], bool], told: str) -> Finding | None:
    """Meets where it holds by what the instruments are known to be off, and waits where that is to be said first.

    Args:
        errors: of each reading that is held against another, with its value.
        holds: whether it holds with so much off.

    Returns:
        None where it does not hold by any of them.
    """
    if holds(off_together(said_only(errors))):
        return asked.meets(told)
    return asked.needs_fact(f"{told} {asks_of(errors)}") if asks_of(errors) and holds(off_together(errors)) else None
