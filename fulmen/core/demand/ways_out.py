"""The ways out when the demand does not fit, each with the figure it would come to.

A load limit with a current clamp, the charge point turned down, a bigger fuse, a three-phase supply.
"""

from __future__ import annotations

from typing import Literal

from fulmen.core.demand.demand import Demand, held_demand_a, least_carried_a, tails_carry_a
from fulmen.core.editing.changes import Change
from fulmen.core.findings.finding import Verdict, WorkingLine
from fulmen.core.installation.installation import Installation
from fulmen.core.model.job import Job
from fulmen.core.plain import changed, plain
from fulmen.core.reference.rule_set import RuleSet

WayKey = Literal["load_limit", "turned_down", "bigger_fuse", "three_phase"]
FUSES_A = (60.0, 80.0, 100.0)
TURNED_DOWN_A = (25.0, 20.0, 16.0, 13.0, 10.0)


@plain
class WayOut:
    """One way to make the demand fit: what it comes to, against what, and what it takes, where it does make it fit."""

    key: WayKey
    title: str
    verdict: Verdict
    result_a: float
    limit_a: float
    detail: str
    working: WorkingLine
    changes: tuple[Change, ...] = ()


def ways_out(installation: Installation, rules: RuleSet, demand: Demand) -> tuple[WayOut, ...]:
    """Every way out with its figure; empty while the demand or what carries it is not known."""
    job, carried_a = installation.job, least_carried_a(installation)
    if demand.house_a is None or carried_a is None or not job.charge_points:
        return ()
    ways = (
        _load_limit(demand, carried_a, rules),
        _turned_down(job, demand.house_a, carried_a),
        _bigger_fuse(installation, demand, rules),
        _three_phase(demand, carried_a),
    )
    found = [way for way in ways if way is not None]
    return tuple(way if way.verdict is Verdict.MEETS else changed(way, changes=()) for way in found)


def _load_limit(demand: Demand, carried_a: float, rules: RuleSet) -> WayOut:
    """The usual 60 A, or what the least of fuse, tails and switch carries."""
    house_a = demand.house_a or 0.0
    limit_a = min(rules.value("usual_load_limit_a"), carried_a)
    limit_a = carried_a if house_a > limit_a else limit_a
    result_a = held_demand_a(house_a, demand.car_a, limit_a) or 0.0
    left_a = limit_a - house_a
    if left_a >= rules.value("car_min_a"):
        detail = f"At the house's maximum the car still gets {left_a:.0f} A, and up to {demand.car_a:g} A otherwise."
    elif left_a >= 0:
        detail = "The car pauses at the house's maximum and charges when the house draws less."
    else:
        detail = "The house alone is over it: a clamp can't help."
    working = WorkingLine(
        symbol="I",
        formula="min(I house + I car, max(limit, I house))",
        figures=f"min({house_a:.1f} + {demand.car_a:g}, max({limit_a:g}, {house_a:.1f}))",
        value=result_a,
        decimals=0,
        unit="A",
    )
    title = f"Load limit of {limit_a:g} A with a current clamp"
    changes = (Change(field="supply.load_limit_a", value=limit_a),) if 20 <= limit_a <= 100 else ()
    return _option("load_limit", title, working, carried_a, detail, changes)


def _turned_down(job: Job, house_a: float, carried_a: float) -> WayOut:
    """The largest usual setting of the first charge point that fits, else the smallest."""
    others_a = sum(point.design_current_a() for point in job.charge_points[1:])
    most_a = job.charge_points[0].design_current_a()
    settings = [each for each in TURNED_DOWN_A if each < most_a] or [TURNED_DOWN_A[-1]]
    set_a = next((each for each in settings if house_a + others_a + each <= carried_a), settings[-1])
    result_a = house_a + others_a + set_a
    power = set_a * 0.23
    working = WorkingLine(
        symbol="I", formula="I house + I set", figures=f"{house_a + others_a:.1f} + {set_a:g}", value=result_a,
        decimals=0, unit="A",
    )  # fmt: skip
    detail = f"The car then takes {power:.1f} kW at most, whatever the house draws."
    changes = (Change(field="charge_points.0.set_current_a", value=set_a),)
    return _option("turned_down", f"Charge point turned down to {set_a:g} A", working, carried_a, detail, changes)


def _bigger_fuse(installation: Installation, demand: Demand, rules: RuleSet) -> WayOut | None:
    total_a, fuse_a = demand.total_a or 0.0, float(installation.job.supply.cut_out_fuse_a or 0)
    bigger = [each for each in FUSES_A if each > fuse_a]
    if not bigger:
        return None
    wanted_a = next((each for each in bigger if total_a <= each), bigger[-1])
    tails_a, switch = tails_carry_a(installation), installation.main_switch
    switch_a = switch.rating_a if switch is not None else None
    also = ["tails of 25 mm²"] if tails_a is not None and tails_a < wanted_a else []
    also += [f"a main switch of {wanted_a:g} A"] if switch_a is not None and switch_a < wanted_a else []
    takes = f" It takes {' and '.join(also)} too." if also else ""
    working = WorkingLine(
        symbol="Imax", formula="I house + I car", figures=f"{demand.house_a:.1f} + {demand.car_a:g}", value=total_a,
        decimals=0, unit="A",
    )  # fmt: skip
    detail = f"The operator decides, and fits it; apply before any work.{takes}"
    return _option("bigger_fuse", f"Bigger fuse, {wanted_a:g} A", working, wanted_a, detail)


def _three_phase(demand: Demand, carried_a: float) -> WayOut:
    house_a = demand.house_a or 0.0
    result_a = house_a / 3 + demand.car_a
    working = WorkingLine(
        symbol="I phase", formula="I house/3 + I car", figures=f"{house_a:.1f}/3 + {demand.car_a:g}", value=result_a,
        decimals=0, unit="A",
    )  # fmt: skip
    detail = (
        "On the phase with the car, if the house is split evenly over three: a new service, which the operator "
        "prices and fits."
    )
    return _option("three_phase", "Three-phase supply", working, carried_a, detail)


def _option(
    key: WayKey, title: str, working: WorkingLine, limit_a: float, detail: str, changes: tuple[Change, ...] = ()
) -> WayOut:
    """A way whose figure is what its working comes to."""
    result_a = working.value
    assert result_a is not None
    return WayOut(
        key=key,
        title=title,
        verdict=Verdict.MEETS if result_a <= limit_a + 1e-9 else Verdict.FALLS_SHORT,
        result_a=result_a,
        limit_a=limit_a,
        detail=detail,
        working=working,
        changes=changes,
    )
