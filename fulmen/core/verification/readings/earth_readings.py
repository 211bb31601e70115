"""What the earth readings say together: whether the car's earth is apart from the house's, and an electrode alone."""

from __future__ import annotations

from fulmen.core.circuit.people import has_car_electrode
from fulmen.core.findings.finding import Finding, Stage, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.readings import AGREE_ELECTRODE_FORECAST, EARTHS_APART, ELECTRODE_ALONE
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.readings import StepKey
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.instruments.accuracy import asks_of, off_together
from fulmen.core.verification.steps.contents import instrument_error
from fulmen.core.verification.steps.origin_bands import electrode_band, electrode_error
from fulmen.core.verification.steps.run_test import RunTest

WHERE_JOINED = (
    "Look where armour, a bracket, a data cable's screen, a pipe or a neighbour's earth joins them, part them, and "
    "take the loop at the car again on its own electrode."
)


def earth_findings(test: RunTest) -> list[Finding]:
    """Every finding about earth readings of one run."""
    case = test.case
    found = [_earths_apart(test)]
    for subject in (ORIGIN, case.subject):
        found += [_electrode_alone(test, subject), _as_forecast(test, subject)]
    return [one for one in found if one is not None]


def _earths_apart(test: RunTest) -> Finding | None:
    """On a TT island the loop at the car goes through its electrode: less than that means another way back.

    RA ≤ Zs, as the loop holds the electrode and more. Below RA by more than both instruments may be off it goes past;
    below nine tenths of RA a person says why, however coarse the instruments are: people are hurt by what hides there.
    """
    case = test.case
    zs_ohm = test.figure(StepKey.ZS, case.subject)
    if not has_car_electrode(case) or zs_ohm is None:
        return None
    electrode = case.origin.car_electrodes[case.run.charge_point.id]
    asked = ask(EARTHS_APART, case.rules, case.subject)
    if not electrode.measured:
        return asked.needs_reading(
            "Measure the car's electrode: the loop at the car is judged by it.", stage=Stage.DEAD
        )
    errors = (
        electrode_error(test, case.subject, electrode.value),
        (instrument_error(test, StepKey.ZS, case.subject), zs_ohm),
    )
    off_ohm = off_together(errors)
    share, joined = (case.rules.value(one) for one in ("earths_apart_share", "earths_joined_share"))
    # No sheet that a standard lets pass explains less than half.
    least_ohm, asks_below_ohm = max(electrode.value - off_ohm, electrode.value * joined), electrode.value * (1 - share)
    line = WorkingLine(
        symbol="Zs min", formula="RA − what both instruments may be off", value=least_ohm, decimals=1, unit="Ω",
        figures=f"{electrode.value:g} − {off_ohm:.1f}",
        source="the loop holds the electrode and more",
    )  # fmt: skip
    detail = f"loop at the car against its electrode, {electrode.value:g} Ω"
    if least_ohm <= zs_ohm < asks_below_ohm:
        told = f"Read {zs_ohm:g} Ω, {detail}: no lower than both instruments may be off, and lower all the same."
        if asks_of(errors):
            return asked.needs_fact(f"{told} {asks_of(errors)}", working=(line,))
        basis = {"zs_ohm": round(zs_ohm, 2), "electrode_ohm": round(electrode.value, 2)}
        return asked.your_call(f"{told} {WHERE_JOINED}", working=(line,), basis=basis)
    if zs_ohm < least_ohm:
        detail += ": it goes back another way, so a broken PEN in the street reaches the car"
    limit_ohm = min(least_ohm, asks_below_ohm) if zs_ohm < least_ohm else asks_below_ohm
    return asked.judged(
        value=zs_ohm, limit=limit_ohm, unit="Ω", at_least=True, detail=detail, working=(line,), remedy=WHERE_JOINED
    )


def _electrode_alone(test: RunTest, subject: str) -> Finding | None:
    """An electrode lower than rods come to has something in parallel, which may be taken away one day."""
    case = test.case
    if subject == ORIGIN and case.job.supply.earthing is not Earthing.TT:
        return None
    value = test.figure(StepKey.ELECTRODE, subject)
    step = "Electrode"
    if value is None and subject == ORIGIN:
        value, step = test.figure(StepKey.ZE, ORIGIN), "Ze"
    least_ohm = case.rules.value("electrode_alone_ohm")
    if value is None:
        return None
    asked = ask(ELECTRODE_ALONE, case.rules, subject)
    if value >= least_ohm:
        return asked.meets(f"{step} {value:g} Ω.")
    detail = (
        f"{step} {value:g} Ω: rods come to less than {least_ohm:g} Ω only with something in parallel (a metal pipe, "
        "steel in concrete, a neighbour's earth). Was everything else off? Say what it is, and that it stays."
    )
    return asked.your_call(detail, basis={"step": step, "value": round(value, 2)})


def _as_forecast(test: RunTest, subject: str) -> Finding | None:
    """An electrode far from what was reckoned with: the ground, the rod or the test is another."""
    value, band = test.figure(StepKey.ELECTRODE, subject), electrode_band(test, subject)
    if value is None or band is None:
        return None
    asked = ask(AGREE_ELECTRODE_FORECAST, test.rules, subject)
    detail = f"Read {value:g} Ω, {band.source}."
    if band.low <= value <= band.high:
        return asked.meets(detail)
    why = "Lower: something in parallel, or wet ground. Higher: dry or made-up ground, or the spikes too near."
    return asked.your_call(f"{detail} {why}", basis={"value": value, "forecast_ohm": band.about})
