"""One question of agreement: a reading inside its band meets, outside it is the tester's to explain."""

from __future__ import annotations

from fulmen.core.findings.finding import Finding, WorkingLine
from fulmen.core.findings.question import Question
from fulmen.core.verification.steps.expected_bands import Band


def agrees(
    asked: Question, value: float, band: Band, otherwise: str, *, unit: str = "Ω", working: tuple[WorkingLine, ...] = ()
) -> Finding:
    """Meets inside the band, the tester's call outside it, with the likeliest reason said out loud."""
    expected = "{:.2f} to {:.2f}".format(*band.shown)
    line = WorkingLine(symbol="expected", figures=expected, unit=unit, source=band.source)
    told = f"Read {value:.2f}, expected {expected} {unit}: {band.source}."
    basis = {"value": round(value, 2), "low": round(band.low, 2), "high": round(band.high, 2)}
    if band.holds(value):
        return asked.meets(told, working=(line, *working), basis=basis)
    return asked.your_call(f"{told} {otherwise}", working=(line, *working), basis=basis)
