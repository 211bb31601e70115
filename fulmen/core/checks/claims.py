"""Entries kinder than usual: each is allowed, and wants what was seen or measured for it (one table, one rule).

Without evidence they are somebody's hope; with it they are a person's call, kept with what was seen.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from fulmen.core.checks.flexible_tail import tabled_a
from fulmen.core.circuit.run_figures import Case, CircuitFigures
from fulmen.core.electrical.cable_rating import kinder_by_hand
from fulmen.core.findings.finding import Finding, Stage
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.supply import CLAIM
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.base import Fact
from fulmen.core.model.load import DemandMethod
from fulmen.core.model.seen import Seen
from fulmen.core.model.stops import Stop


@dataclass(frozen=True, slots=True)
class Claimed:
    """One entry that is kinder than usual: what it is about, what it says, its fact, and what would be evidence."""

    about: str
    says: str
    fact: Fact
    evidence: str
    lacks_it: bool = False


@dataclass(frozen=True, slots=True)
class Claim:
    """One kind of such an entry, and the stop where it is entered; none where it is entered in the design.

    `of_car` says that only a run to a charge point can have it.
    """

    key: str
    stop: Stop | None
    found: Callable[[Case], Iterator[Claimed]]
    of_car: bool = True


def _soil(case: Case) -> Iterator[Claimed]:
    usual = case.rules.value("soil_usual_best_km_per_w")
    for chained in case.new_circuits:
        for number, section in enumerate(chained.circuit.route, 1):
            if section.in_ground and section.soil_km_per_w < usual:
                yield Claimed(
                    f"{chained.circuit.id}-{number}", f"soil of {section.soil_km_per_w:g} K·m/W, section {number}",
                    section.soil_km_per_w, f"{usual:g} K·m/W and less is damp ground all year: who tested or knows it?",
                )  # fmt: skip


def _method(case: Case) -> Iterator[Claimed]:
    for figures in case.new_figures:
        yield from _methods_of(figures)


def _methods_of(figures: CircuitFigures) -> Iterator[Claimed]:
    for number, one in enumerate(figures.sections, 1):
        usual = kinder_by_hand(one.section, one.metre.record, one.cable.csa_mm2, figures.phases)
        if usual is not None and one.section.method is not None:
            yield Claimed(
                f"{figures.circuit.id}-{number}", f"method {one.section.method.value} in section {number}",
                one.section.method.value, f"its place alone gives method {usual.value}: what is there that is kinder?",
            )  # fmt: skip


def _electrode(case: Case) -> Iterator[Claimed]:
    least_ohm = case.rules.value("electrode_usual_best_ohm")
    own = case.arrangement.electrode_design_ohm
    for about, design_ohm, read in (
        (ORIGIN, case.job.supply.electrode_design_ohm, ORIGIN in case.measured.electrode_ohm),
        (case.subject, own, case.subject in case.measured.electrode_ohm),
    ):
        if design_ohm is not None and design_ohm < least_ohm and not read:
            evidence = "a rod alone is rarely below that: which ground, how deep, or which electrode is it?"
            yield Claimed(about, f"an electrode of {design_ohm:g} Ω", design_ohm, evidence)


def _measured(case: Case) -> Iterator[Claimed]:
    load = case.job.load
    if load.method is DemandMethod.MEASURED and load.measured_a is not None and load.half_hours is None:
        says = f"a measured maximum of {load.measured_a:g} A"
        yield Claimed(
            ORIGIN, says, load.measured_a, "with which instrument, on which days, how long?", not load.measured_how
        )


def _older_than_its_devices(case: Case) -> Iterator[Claimed]:
    point, first = case.run.charge_point, case.rules.value("devices_inside_from_year")
    held = [
        words
        for seen, words in ((point.open_pen_inside, "an open-PEN device"), (point.rdc_dd_inside, "6 mA DC detection"))
        if seen is Seen.YES
    ]
    if point.built_year is not None and point.built_year < first and held:
        says = f"{' and '.join(held)} in a unit of {point.built_year}"
        yield Claimed(
            point.id, says, point.built_year, f"they came into units around {first:.0f}: which paper says so?"
        )


def _tail_by_its_maker(case: Case) -> Iterator[Claimed]:
    point, phases = case.run.charge_point, case.run.charge_point.phase_count
    if not point.flex_tail or point.flex_csa_mm2 is None or point.flex_rating_a is None:
        return
    usual_a = tabled_a(point.flex_csa_mm2, phases)
    if usual_a is None or point.flex_rating_a > usual_a:
        says = f"{point.flex_rating_a:g} A for a flexible tail of {point.flex_csa_mm2:g} mm²"
        yield Claimed(point.id, says, point.flex_rating_a, "which paper of the unit's maker says so?")


CLAIMS = (
    Claim("soil", None, _soil, of_car=False),
    Claim("method", None, _method, of_car=False),
    Claim("electrode", Stop.EARTH, _electrode),
    Claim("measured", Stop.LOADS, _measured),
    Claim("flex", Stop.CHARGE_POINT, _tail_by_its_maker),
    Claim("older", Stop.CHARGE_POINT, _older_than_its_devices),
)


def claim_findings(case: Case) -> Iterator[Finding]:
    """Every entry of a run that is kinder than usual."""
    for claim in CLAIMS:
        if claim.of_car and case.to_loads:
            continue
        for one in claim.found(case):
            asked = ask(CLAIM, case.rules, f"{one.about}-{claim.key}", says=one.says).placed(
                claim.stop, Stage.SURVEY if claim.stop is not None else Stage.DESIGN
            )
            if one.lacks_it:
                yield asked.needs_fact(f"{one.evidence[:1].upper()}{one.evidence[1:]}")
            else:
                yield asked.your_call(
                    f"Kinder than usual; {one.evidence} Say what was seen.", basis={"claimed": one.fact}
                )
