"""The flexible tail that a unit comes with: a joint more, and a conductor like any other (433.1.1, 434.5.2)."""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.circuit.run_figures import Case, CircuitFigures
from fulmen.core.electrical.fault_energy import device_energy_a2s, least_csa_mm2
from fulmen.core.electrical.selectivity import device_words
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import Finding, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.run import FLEX_RATING, FLEX_SURVIVES, FLEX_TAIL
from fulmen.core.model.guards import DeviceKind
from fulmen.core.reference.cable_catalogue import K_COPPER
from fulmen.core.reference.tables import table


def flexible_tail_findings(case: Case) -> Iterator[Finding]:
    """Every finding about it, once somebody said what it is; the rest follows when the circuit has a route."""
    point, asked = case.run.charge_point, ask(FLEX_TAIL, case.rules, case.subject)
    if point.flex_tail is None:
        yield asked.needs_fact("Look in the unit's data: does it come with a flexible tail?")
    if not point.flex_tail:
        return
    if point.flex_csa_mm2 is None or point.flex_length_m is None:
        yield asked.needs_fact("Enter size and length of its flexible tail.")
        return
    detail = "It comes with a flexible tail: a junction box outside, one more joint. Some refuse it; say why you don't."
    yield asked.your_call(detail, basis={"flex_tail": True})
    if case.figures is not None:
        yield _rating(case, case.figures.final, point.flex_csa_mm2)
        yield _survives(case, case.figures.final, point.flex_csa_mm2)


def tabled_a(csa_mm2: float, phases: int) -> float | None:
    """What a flexible cord carries in free air [A]; None where no table says so."""
    ratings, column = table("flex_rating"), "2" if phases == 1 else "3"
    return ratings.at(column, csa_mm2) if ratings.has(column, csa_mm2) else None


def _rating(case: Case, final: CircuitFigures, csa_mm2: float) -> Finding:
    """Iz of the tail against the unit in full, then against the device before it."""
    point, asked = case.run.charge_point, ask(FLEX_RATING, case.rules, case.subject)
    iz_a = point.flex_rating_a or tabled_a(csa_mm2, final.phases)
    if iz_a is None:
        return asked.needs_fact(f"No table rates a flexible tail of {csa_mm2:g} mm²: ask the unit's maker, enter it.")
    if point.max_current_a is None:
        return asked.needs_fact("Enter the most that the unit can take: its flexible tail must carry that.")
    source = "unit's maker" if point.flex_rating_a else table("flex_rating").source("2", csa_mm2)
    line = WorkingLine(symbol="Iz", value=iz_a, decimals=0, unit="A", source=source)
    full_a, in_a, remedy = point.max_current_a, final.in_a, "Use a smaller device, or a unit with another tail."
    tail = f"{csa_mm2:g} mm² flexible tail, {iz_a:g} A"
    if iz_a < full_a:
        return asked.judged(
            value=iz_a, limit=full_a, unit="A", decimals=0, at_least=True, working=(line,), remedy=remedy,
            detail=f"{csa_mm2:g} mm² flexible tail against what the unit can take",
        )  # fmt: skip
    if iz_a >= in_a:
        return asked.judged(
            value=iz_a, limit=in_a, unit="A", decimals=0, at_least=True, working=(line,),
            detail=f"{csa_mm2:g} mm² flexible tail against its device",
        )  # fmt: skip
    below = f"{tail}, behind {device_words(final.device)}"
    if point.device_max_a is None:
        return asked.needs_fact(f"{below}: look up the biggest device that the unit's maker allows before it.")
    if in_a > point.device_max_a:
        detail = f"{below}; the maker allows {point.device_max_a:g} A at most."
        return asked.falls_short(detail, remedy=remedy, working=(line,))
    return asked.meets(
        f"{below}, which the maker allows; the unit takes {full_a:g} A at most and can't overload it (433.3.1).",
        basis={"iz_a": iz_a, "device_max_a": point.device_max_a},
        working=(line,),
    )


def _survives(case: Case, final: CircuitFigures, csa_mm2: float) -> Finding:
    """S ≥ √(I²t)/k at the joint where the tail begins, and at its far end."""
    asked, k = ask(FLEX_SURVIVES, case.rules, case.subject), K_COPPER["pvc_70"]
    source_v = case.rules.value("u0_v") * case.rules.value("voltage_factor_min")
    device = final.device
    if device.kind is DeviceKind.BREAKER and device.energy_class is None and not final.circuit.fitted_with_this_job:
        return asked.needs_fact(f"Read the energy class of the {device_words(device)}.")
    try:
        energy, source = device_energy_a2s(device, final.end_fault_ka, source_v / final.end.widest_loop_ohm)
    except TableError as error:
        return asked.needs_fact(f"{error}.")
    return asked.judged(
        value=csa_mm2,
        limit=least_csa_mm2(energy, k),
        unit="mm²",
        at_least=True,
        working=(
            WorkingLine(symbol="I²t", value=energy, decimals=0, unit="A²s", source=source),
            WorkingLine(symbol="k", value=k, decimals=0, source="the least of its insulations, Table 43.1"),
        ),
        detail=f"line, neutral and protective conductor alike; {final.end_fault_ka:.2f} kA where it begins",
        remedy="Use a smaller device, or a unit with another tail.",
    )
