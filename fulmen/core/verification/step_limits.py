"""What limits the reading of each step, from the same figures as the checks."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from fulmen.core.checks.disconnection import opening_rcd
from fulmen.core.checks.earthing import low_electrode
from fulmen.core.checks.residual_current import own_rcds
from fulmen.core.circuit.guards import Stands
from fulmen.core.circuit.margins import breaking_limit_ka
from fulmen.core.circuit.origin import declared_ze_ohm
from fulmen.core.circuit.run_figures import Case, CircuitFigures
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.steps import has_car_electrode, relies_on_low_electrode, tested_rcds


class StepLimit(NamedTuple):
    """The most and the least a reading may be, in the unit of its step, and where that comes from.

    `past` is the verdict on a reading that does not keep them. A reading below `plausible_from` or above `asks_from`
    keeps the limits and still asks for a reason, `asks_why`.
    """

    most: float | None = None
    least: float | None = None
    source: str = ""
    past: Verdict = Verdict.FALLS_SHORT
    plausible_from: float | None = None
    asks_from: float | None = None
    asks_why: str = ""


def step_limit(case: Case, key: StepKey, subject: str) -> StepLimit:
    """The limit of a step; empty where nothing limits it."""
    if key in CIRCUIT_LIMITS:
        chained = case.figures_of(subject)
        return CIRCUIT_LIMITS[key](case, chained) if chained is not None else StepLimit()
    if key is StepKey.RCD_TRIP:
        guard = tested_rcds(case, key).get(subject)
        delayed = guard is not None and guard.rcd is not None and guard.rcd.time_delayed
        return _delayed_rcd(case) if delayed else _rcd(case)
    finder = LIMITS.get(key)
    return finder(case) if finder else StepLimit()


def _r1_r2(case: Case, chained: CircuitFigures) -> StepLimit:
    if chained.zs_limit_ohm is None or case.job.supply.earthing is Earthing.TT:
        return StepLimit()
    rcd = opening_rcd(case, chained)
    if rcd is not None and chained.end.loop_ohm > chained.zs_limit_ohm:
        # Only the RCD opens in time: the loop's limit is the RCD's.
        touch_v = case.rules.value("touch_voltage_v")
        most = touch_v / (rcd.residual_ma / 1000) - chained.start.loop_ohm
        return StepLimit(most, source=f"50 V ÷ IΔn − {chained.start.loop_ohm:.2f}")
    most = (chained.zs_limit_ohm - chained.start.loop_ohm) / chained.hot_factor
    if most <= 0:
        return StepLimit(source="the loop before it is past the device's limit already")
    source = f"(Zs max {chained.zs_limit_ohm:.2f} − {chained.start.loop_ohm:.2f})/{chained.hot_factor:.4g}"
    return StepLimit(most, source=source)


def _zs(case: Case, chained: CircuitFigures) -> StepLimit:
    """80 % of the device's limit; where an RCD serves instead, what holds the touch voltage."""
    before = opening_rcd(case, chained)
    past = (Stands.UNIT, Stands.BOX)
    own = [guard.rcd for guard in own_rcds(case) if guard.stands in past] if chained.final else []
    rcd = before or (own[-1] if own else None)
    limit = chained.zs_limit_ohm
    too_high = before is not None and (limit is None or chained.end.loop_ohm > limit)
    by_rcd = case.job.supply.earthing is Earthing.TT or (chained.final and has_car_electrode(case)) or too_high
    if by_rcd or limit is None:
        most = case.rules.value("touch_voltage_v") / (rcd.residual_ma / 1000) if rcd else None
        return StepLimit(most, source="50 V ÷ IΔn")
    share = case.rules.value("measured_loop_factor")
    return StepLimit(share * limit, source=f"{share:.0%} of {limit:.2f} Ω, as conductors are cold")


def _ze(case: Case) -> StepLimit:
    if case.job.supply.earthing is Earthing.TT:
        return StepLimit()
    limit_ohm = declared_ze_ohm(case.job, case.rules)
    if case.job.supply.operator_told_of_ze is Seen.YES:
        # Once the operator knows, the design goes on with what was measured.
        return StepLimit(limit_ohm, source="declared maximum; the operator was told", past=Verdict.YOUR_CALL)
    return StepLimit(limit_ohm, source="declared maximum; above it, tell the operator and say so at the cut-out")


def _fault_current(case: Case) -> StepLimit:
    if case.figures is None:
        return StepLimit()
    first = case.figures.chain[0]
    if first.board_phases == 3:
        # What is read is line to neutral or earth; a fault between three lines is about twice that.
        return StepLimit(breaking_limit_ka(first) / 2, source="half of what the device and its board can break")
    return StepLimit(breaking_limit_ka(first), source="what the device and its board can break")


def _main_bonding(case: Case) -> StepLimit:
    """A good conductor of the size that is asked for; a long one may read more."""
    source = "a good conductor; more needs a long one: about 27 m of 10 mm²"
    return StepLimit(case.rules.value("bonding_ohm"), source=source, past=Verdict.YOUR_CALL)


def _insulation(case: Case) -> StepLimit:
    return StepLimit(least=case.rules.value("insulation_mohm"), source="at 500 V d.c.")


def _electrode(case: Case) -> StepLimit:
    """Low enough to be stable; where it must hold the voltage of a broken PEN, far lower."""
    held = low_electrode(case) if relies_on_low_electrode(case) else None
    if held is not None:
        return StepLimit(held.limit_ohm, source=f"70 V at {held.load_a:g} A with the PEN broken")
    return StepLimit(case.rules.value("electrode_stable_ohm"), source="stable in dry and frozen ground")


def _rcd(case: Case) -> StepLimit:
    """At rated current; on TT 0.2 s rests on more than that, so a slow figure asks for the one at 5×."""
    on_tt = case.job.supply.earthing is Earthing.TT or has_car_electrode(case)
    return StepLimit(
        case.rules.value("rcd_trip_ms"),
        source="at 1× IΔn",
        plausible_from=case.rules.value("rcd_trip_plausible_ms"),
        asks_from=case.rules.value("rcd_trip_tt_asks_ms") if on_tt else None,
        asks_why="take the 5× figure too: a TT circuit must be off in 0.2 s",
    )


def _delayed_rcd(case: Case) -> StepLimit:
    most, least = case.rules.value("rcd_delayed_trip_max_ms"), case.rules.value("rcd_delayed_trip_min_ms")
    return StepLimit(most, least, "S-type at 1× IΔn")


CIRCUIT_LIMITS: dict[StepKey, Callable[[Case, CircuitFigures], StepLimit]] = {StepKey.R1_R2: _r1_r2, StepKey.ZS: _zs}
LIMITS: dict[StepKey, Callable[[Case], StepLimit]] = {
    StepKey.MAIN_BONDING: _main_bonding,
    StepKey.IR_LIVE_EARTH: _insulation,
    StepKey.IR_LINE_NEUTRAL: _insulation,
    StepKey.ELECTRODE: _electrode,
    StepKey.ZE: _ze,
    StepKey.FAULT_CURRENT: _fault_current,
    StepKey.RCD_ORIGIN_TRIP: _delayed_rcd,
}
