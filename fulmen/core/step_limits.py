"""What limits the reading of each step, from the same figures as the checks."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from fulmen.core.checks.earthing import low_electrode
from fulmen.core.checks.overcurrent import breaking_limit_ka
from fulmen.core.checks.residual_current import board_rcd
from fulmen.core.figures import Case, declared_ze_ohm
from fulmen.core.model.readings import StepKey
from fulmen.core.model.supply import Earthing
from fulmen.core.steps import has_car_electrode, relies_on_low_electrode


class StepLimit(NamedTuple):
    """The most and the least a reading may be, in the unit of its step, and where that comes from."""

    most: float | None = None
    least: float | None = None
    source: str = ""


def step_limit(case: Case, key: StepKey) -> StepLimit:
    """The limit of a step; empty where nothing limits it."""
    finder = LIMITS.get(key)
    return finder(case) if finder else StepLimit()


def _r1_r2(case: Case) -> StepLimit:
    figures = case.figures
    if figures is None or case.job.supply.earthing is Earthing.TT:
        return StepLimit()
    most = (figures.zs_limit_ohm - figures.board_loop_ohm) / figures.hot_factor
    source = f"(Zs max {figures.zs_limit_ohm:.2f} − {figures.board_loop_ohm:.2f})/{figures.hot_factor:g}"
    return StepLimit(max(most, 0.0), source=source)


def _zs(case: Case) -> StepLimit:
    """80 % of the device's limit; where an RCD serves instead, what holds the touch voltage."""
    figures = case.figures
    if figures is None:
        return StepLimit()
    rcd = board_rcd(case) or case.run.charge_point.rcd_inside
    too_high = board_rcd(case) is not None and figures.zs_hot_ohm > figures.zs_limit_ohm
    if case.job.supply.earthing is Earthing.TT or has_car_electrode(case) or too_high:
        most = case.rules.value("touch_voltage_v") / (rcd.residual_ma / 1000) if rcd else None
        return StepLimit(most, source="50 V ÷ IΔn")
    share = case.rules.value("measured_loop_factor")
    return StepLimit(
        share * figures.zs_limit_ohm, source=f"{share:.0%} of {figures.zs_limit_ohm:.2f} Ω, as conductors are cold"
    )


def _ze(case: Case) -> StepLimit:
    if case.job.supply.earthing is Earthing.TT:
        return StepLimit()
    return StepLimit(declared_ze_ohm(case.job, case.rules), source="declared maximum")


def _fault_current(case: Case) -> StepLimit:
    return StepLimit(breaking_limit_ka(case), source="what the device and its board can break")


def _insulation(case: Case) -> StepLimit:
    return StepLimit(least=case.rules.value("insulation_mohm"), source="at 500 V d.c.")


def _electrode(case: Case) -> StepLimit:
    """Low enough to be stable; where it must hold the voltage of a broken PEN, far lower."""
    held = low_electrode(case) if relies_on_low_electrode(case) else None
    if held is not None:
        return StepLimit(held.limit_ohm, source=f"70 V at {held.load_a:g} A with the PEN broken")
    return StepLimit(case.rules.value("electrode_stable_ohm"), source="stable in dry and frozen ground")


def _rcd(case: Case) -> StepLimit:
    return StepLimit(case.rules.value("rcd_trip_ms"), source="at 1× IΔn")


def _delayed_rcd(case: Case) -> StepLimit:
    most, least = case.rules.value("rcd_delayed_trip_max_ms"), case.rules.value("rcd_delayed_trip_min_ms")
    return StepLimit(most, least, "S-type at 1× IΔn")


LIMITS: dict[StepKey, Callable[[Case], StepLimit]] = {
    StepKey.R1_R2: _r1_r2,
    StepKey.IR_LIVE_EARTH: _insulation,
    StepKey.IR_LINE_NEUTRAL: _insulation,
    StepKey.ELECTRODE: _electrode,
    StepKey.ZE: _ze,
    StepKey.FAULT_CURRENT: _fault_current,
    StepKey.ZS: _zs,
    StepKey.RCD_TRIP: _rcd,
    StepKey.RCD_ORIGIN_TRIP: _delayed_rcd,
}
