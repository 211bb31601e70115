"""Earth electrodes: rods in soil (BS 7430), in a row, in winter; where the spikes of a fall-of-potential test go.

Formulae from memory: one rod by Dwight's formula as BS 7430 gives it, rods in line by its reduction factors.
"""

from __future__ import annotations

from math import ceil, log, pi
from typing import Annotated

from fulmen.core.errors import InputError
from fulmen.core.findings.finding import Verdict, WorkingLine
from fulmen.core.model.base import ElectrodeOhm, Part, number
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.reference.soil import Soil, resistivity_at, soil
from fulmen.core.reference.tables import table

# Rods come in 1.2 m lengths; common practice, no source.
ROD_M = 1.2
MOST_RODS = 6
# Where nobody wrote the ground's temperature down: the yearly mean at a rod's depth, taken as usual, no source.
USUAL_GROUND_C = 10.0
# The warmest row of the printed table: ground late in summer at the most. Half rods down to 9.6 m are drawn.
WARM_GROUND_C, DEEPEST_M_STEPS = 20.0, 16


class ElectrodePlan(Part):
    """What is to be planned: soil, the rods, how many in line, temperatures, the RCD, the wanted resistance."""

    soil: str = "garden"
    resistivity_ohm_m: Annotated[float, number(1, 20000)] | None = None
    rod_m: Annotated[float, number(0.3, 12)] = 2.4
    rod_mm: Annotated[float, number(8, 50)] = 16
    rods: Annotated[int, number(1, MOST_RODS)] = 1
    spacing_m: Annotated[float, number(0.5, 20)] = 2.4
    ground_now_c: Annotated[float, number(-15, 20)] = 10
    ground_winter_c: Annotated[float, number(-15, 20)] = 0
    residual_ma: Annotated[float, number(10, 500)] = 30
    wanted_ohm: ElectrodeOhm = 200.0


class ElectrodeWay(Part):
    """One way to come lower: what it comes to now and in winter, and what it takes in rods and metres."""

    title: str
    now_ohm: float
    winter_ohm: float
    rods: int
    driven_m: float
    trench_m: float
    verdict: Verdict


class ElectrodeDepth(Part):
    """What the same rods come to at one depth, through the seasons."""

    rod_m: float
    warm_ohm: float
    now_ohm: float
    winter_ohm: float


class FallOfPotentialPlan(Part):
    """Where the spikes of a fall-of-potential test go, measured from the electrode."""

    current_spike_m: float
    potential_spike_m: tuple[float, float, float]
    told: str


class ElectrodeOutlook(Part):
    """What an electrode is expected to come to, what follows, where to put the spikes, and the ways to come lower."""

    soil_told: str
    now_ohm: float
    low_ohm: float
    high_ohm: float
    winter_ohm: float
    touch_v: float
    touch_verdict: Verdict
    stable_verdict: Verdict
    stable_told: str
    working: tuple[WorkingLine, ...]
    test: FallOfPotentialPlan
    depths: tuple[ElectrodeDepth, ...]
    ways: tuple[ElectrodeWay, ...]


def rod_ohm(resistivity_ohm_m: float, rod_m: float, rod_mm: float) -> float:
    """Resistance of one vertical rod, R = ρ/(2πL)·(ln(8L/d) − 1) (BS 7430).

    Args:
        resistivity_ohm_m: ρ, resistivity of the soil [Ω·m], > 0.
        rod_m: L, length in contact with the soil [m], > 0 and well above the diameter.
        rod_mm: d, diameter [mm], > 0.

    >>> round(rod_ohm(100, 2.4, 16), 1)
    40.4
    """
    return resistivity_ohm_m / (2 * pi * rod_m) * (log(8 * rod_m / (rod_mm / 1000)) - 1)


def rods_in_line_ohm(one_ohm: float, rods: int, spacing_m: float, resistivity_ohm_m: float) -> float:
    """Resistance of n rods in a straight line, R·(1 + λ·a)/n with a = ρ/(2π·R·s) (BS 7430).

    Args:
        one_ohm: R, one rod alone [Ω].
        rods: n, 1 to 6.
        spacing_m: s, between neighbours [m]; no less than the rods are long.
        resistivity_ohm_m: ρ [Ω·m].

    >>> round(rods_in_line_ohm(40.3, 2, 2.4, 100), 1)
    23.5
    """
    if rods == 1:
        return one_ohm
    factor = table("rods_in_line").at("lambda", rods)
    return one_ohm * (1 + factor * resistivity_ohm_m / (2 * pi * one_ohm * spacing_m)) / rods


def fall_of_potential(rod_m: float, rules: RuleSet) -> FallOfPotentialPlan:
    """Current spike ten rod lengths away, potential spike at 61.8 % of it and a tenth of it to either side.

    Args:
        rod_m: length of the deepest rod [m].
        rules: the shares and the agreement that is asked for.

    >>> from fulmen.core.reference.rule_set import rule_set
    >>> fall_of_potential(2.4, rule_set()).potential_spike_m
    (12.4, 14.8, 17.2)
    """
    current_m = rod_m * rules.value("current_spike_lengths")
    at_m = current_m * rules.value("potential_spike_share")
    step_m = current_m * rules.value("potential_spike_step_share")
    agree = rules.value("fall_of_potential_agreement_share")
    told = f"The three readings must agree within {agree:.0%}; else go further out, or round the other way."
    spikes = (round(at_m - step_m, 1), round(at_m, 1), round(at_m + step_m, 1))
    return FallOfPotentialPlan(current_spike_m=round(current_m, 1), potential_spike_m=spikes, told=told)


def agreed_ohm(readings_ohm: tuple[float, float, float], rules: RuleSet) -> tuple[float, float]:
    """Mean of three fall-of-potential readings, and the largest distance of one from it as a share.

    >>> from fulmen.core.reference.rule_set import rule_set
    >>> agreed_ohm((31.0, 32.0, 33.0), rule_set())
    (32.0, 0.03125)
    """
    mean_ohm = sum(readings_ohm) / 3
    return mean_ohm, max(abs(each - mean_ohm) for each in readings_ohm) / mean_ohm


def electrode_outlook(plan: ElectrodePlan, rules: RuleSet) -> ElectrodeOutlook:
    """What the planned electrode is expected to come to, and the ways to come lower.

    Raises:
        InputError: there is no such soil, or the rods stand closer than they are long.
    """
    if plan.rods > 1 and plan.spacing_m < plan.rod_m:
        message = f"Rods must stand at least as far apart as they are long, {plan.rod_m:g} m."
        raise InputError("spacing_m", message)
    ground = soil(plan.soil)
    resistivity = plan.resistivity_ohm_m or ground.typical_ohm_m
    now_ohm = _plan_ohm(plan, resistivity)
    winter = winter_factor(plan.ground_now_c, plan.ground_winter_c)
    touch_v = now_ohm * winter * plan.residual_ma / 1000
    return ElectrodeOutlook(
        soil_told=f"{ground.name}: {ground.least_ohm_m:g} to {ground.most_ohm_m:g} Ω·m",
        now_ohm=now_ohm,
        low_ohm=now_ohm if plan.resistivity_ohm_m else _plan_ohm(plan, ground.least_ohm_m),
        high_ohm=now_ohm if plan.resistivity_ohm_m else _plan_ohm(plan, ground.most_ohm_m),
        winter_ohm=now_ohm * winter,
        touch_v=touch_v,
        touch_verdict=_at_most(touch_v, rules.value("touch_voltage_v")),
        stable_verdict=_at_most(now_ohm * winter, rules.value("electrode_stable_ohm")),
        stable_told=_stable_told(now_ohm * winter, rules.value("electrode_stable_ohm")),
        working=_working(plan, resistivity, now_ohm, winter),
        test=fall_of_potential(plan.rod_m, rules),
        depths=_depths(plan, resistivity, winter),
        ways=_ways(plan, ground, resistivity, winter),
    )


def _plan_ohm(plan: ElectrodePlan, resistivity_ohm_m: float) -> float:
    one = rod_ohm(resistivity_ohm_m, plan.rod_m, plan.rod_mm)
    return rods_in_line_ohm(one, plan.rods, plan.spacing_m, resistivity_ohm_m)


def winter_factor(now_c: float, winter_c: float) -> float:
    """How much more the ground resists in winter; the whole rod is taken to lie in it, which is the safe side.

    >>> round(winter_factor(10, 0), 2), winter_factor(0, 10)
    (3.03, 1.0)
    """
    return max(1.0, resistivity_at(winter_c) / resistivity_at(now_c))


def _working(plan: ElectrodePlan, resistivity: float, now_ohm: float, winter: float) -> tuple[WorkingLine, ...]:
    one = rod_ohm(resistivity, plan.rod_m, plan.rod_mm)
    lines = [
        WorkingLine(symbol="R", formula="ρ/(2πL)·(ln(8L/d) − 1)", unit="Ω", value=one, decimals=1, source="BS 7430",
                    figures=f"{resistivity:g}/(2π·{plan.rod_m:g})·(ln(8·{plan.rod_m:g}/{plan.rod_mm / 1000:g}) − 1)"),
    ]  # fmt: skip
    if plan.rods > 1:
        factor = table("rods_in_line").at("lambda", plan.rods)
        a = resistivity / (2 * pi * one * plan.spacing_m)
        lines.append(
            WorkingLine(symbol="Rn", formula="R·(1 + λ·a)/n", value=now_ohm, decimals=1, unit="Ω",
                        figures=f"{one:.1f}·(1 + {factor:g}·{a:.3f})/{plan.rods}",
                        source=table("rods_in_line").source("lambda", plan.rods))
        )  # fmt: skip
    source = table("soil_temperature").name()
    figures = f"{now_ohm:.1f}·{resistivity_at(plan.ground_winter_c):g}/{resistivity_at(plan.ground_now_c):g}"
    lines.append(
        WorkingLine(
            symbol="R winter",
            formula="R·ρw/ρ",
            figures=figures,
            value=now_ohm * winter,
            decimals=1,
            unit="Ω",
            source=source,
        )
    )
    lines.append(
        WorkingLine(symbol="U", formula="R winter·IΔn", figures=f"{now_ohm * winter:.1f}·{plan.residual_ma / 1000:g}",
                    value=now_ohm * winter * plan.residual_ma / 1000, decimals=1, unit="V")
    )  # fmt: skip
    return tuple(lines)


def _depths(plan: ElectrodePlan, resistivity: float, winter: float) -> tuple[ElectrodeDepth, ...]:
    """The planned rods at every depth that rods are driven to, in warm ground, on the day and in winter."""
    warm = resistivity_at(WARM_GROUND_C) / resistivity_at(plan.ground_now_c)
    found = []
    for step in range(1, DEEPEST_M_STEPS + 1):
        rod_m = round(step * ROD_M / 2, 1)
        spacing_m = max(plan.spacing_m, rod_m)
        now_ohm = _plan_ohm(plan.model_copy(update={"rod_m": rod_m, "spacing_m": spacing_m}), resistivity)
        found.append(ElectrodeDepth(rod_m=rod_m, warm_ohm=now_ohm * warm, now_ohm=now_ohm, winter_ohm=now_ohm * winter))
    return tuple(found)


def _ways(plan: ElectrodePlan, ground: Soil, resistivity: float, winter: float) -> tuple[ElectrodeWay, ...]:
    """Deeper by whole rods, then more of them in a row; each with what it takes."""
    candidates = [
        plan.model_copy(update={"rod_m": round(plan.rod_m + more * ROD_M, 2), "rods": 1}) for more in (1, 2, 3)
    ]
    for rods in range(2, 5):
        spacing = max(plan.spacing_m, plan.rod_m)
        candidates.append(plan.model_copy(update={"rods": rods, "spacing_m": spacing}))
    ways = []
    for one in candidates:
        now_ohm = _plan_ohm(one, resistivity)
        title = (
            f"One rod {one.rod_m:g} m deep"
            if one.rods == 1
            else f"{one.rods} rods of {one.rod_m:g} m, {one.spacing_m:g} m apart"
        )
        pieces = ceil(round(one.rod_m / ROD_M, 6)) * one.rods
        ways.append(
            ElectrodeWay(
                title=title,
                now_ohm=now_ohm,
                winter_ohm=now_ohm * winter,
                rods=pieces,
                driven_m=round(one.rod_m * one.rods, 1),
                trench_m=round(one.spacing_m * (one.rods - 1), 1),
                verdict=_at_most(now_ohm * winter, plan.wanted_ohm),
            )
        )
    return tuple(ways)


def _at_most(value: float, limit: float) -> Verdict:
    return Verdict.MEETS if value <= limit else Verdict.FALLS_SHORT


def _stable_told(winter_ohm: float, limit_ohm: float) -> str:
    if winter_ohm <= limit_ohm:
        return f"Not above {limit_ohm:g} Ω: stable enough."
    return f"Above {limit_ohm:g} Ω: not stable."
