"""What limits the reading of each step, from the same figures as the checks."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from fulmen.core.circuit.margins import breaking_limit_ka
from fulmen.core.circuit.origin import declared_ze_ohm
from fulmen.core.circuit.people import has_car_electrode, low_electrode, opening_rcd, relies_on_low_electrode
from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.electrical.control_pilot import duty_of, pilot_volts
from fulmen.core.electrical.fault_loop import temperature_factor
from fulmen.core.findings.finding import Verdict
from fulmen.core.installation.guards import Stands
from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.model.testing import LoopSchool
from fulmen.core.verification.steps.contents import instrument_error
from fulmen.core.verification.steps.expected_readings import PILOTS, conductors_c, r1_r2_read
from fulmen.core.verification.steps.run_test import RunTest
from fulmen.core.verification.steps.step_applies import tested_rcds


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


def step_limit(test: RunTest, key: StepKey, subject: str) -> StepLimit:
    """The limit of a step; empty where nothing limits it."""
    case = test.case
    if key in CIRCUIT_LIMITS:
        chained = case.figures_of(subject)
        limit = CIRCUIT_LIMITS[key](test, chained) if chained is not None else StepLimit()
        return _of_a_part(test, subject, limit)
    if key in RCD_TESTS:
        guard = tested_rcds(case.run, key).get(subject)
        delayed = guard is not None and guard.rcd is not None and guard.rcd.time_delayed
        limit = RCD_TESTS[key](test, subject, delayed=delayed)
        if limit.plausible_from is None or key not in FIVE_TIMES:
            return limit
        # At five times it opens so soon that the instrument's own error counts.
        off_ms = instrument_error(test, key, subject).of(limit.plausible_from)
        return limit._replace(plausible_from=max(0.0, limit.plausible_from - off_ms))
    finder = LIMITS.get(key)
    return finder(test) if finder else StepLimit()


def _of_a_part(test: RunTest, subject: str, limit: StepLimit) -> StepLimit:
    """What a part of a cable may be at most: what the whole may, less the other parts as read, else by their sizes."""
    leg = test.case.installation.leg(subject)
    if leg is None or limit.most is None:
        return limit
    others_ohm = 0.0
    for other in test.case.installation.legs[leg.circuit]:
        if other is not leg:
            read, by_size = r1_r2_read(test, other.subject), test.case.figures_of(other.subject)
            others_ohm += read if read is not None else by_size.laid.r1_ohm + by_size.laid.r2_ohm if by_size else 0.0
    return limit._replace(
        most=max(0.0, limit.most - others_ohm), source=f"{limit.source}, less the rest {others_ohm:.2f}"
    )


def _r1_r2(test: RunTest, chained: CircuitFigures) -> StepLimit:
    case = test.case
    if chained.zs_limit_ohm is None or case.job.supply.earthing is Earthing.TT:
        return StepLimit()
    rcd = opening_rcd(case, chained)
    if rcd is not None and chained.end.loop_ohm > chained.zs_limit_ohm:
        # Only the RCD opens in time: the loop's limit is the RCD's.
        touch_v = case.rules.value("touch_voltage_v")
        most = touch_v / (rcd.residual.residual_ma / 1000) - chained.start.loop_ohm
        return StepLimit(most, source=f"50 V ÷ IΔn − {chained.start.loop_ohm:.2f}")
    most = (chained.zs_limit_ohm - chained.start.loop_ohm) / chained.hot_factor
    if most <= 0:
        return StepLimit(source="the loop before it is past the device's limit already")
    source = f"(Zs max {chained.zs_limit_ohm:.2f} − {chained.start.loop_ohm:.2f})/{chained.hot_factor:.4g}"
    return StepLimit(most, source=source)


def _r2(test: RunTest, chained: CircuitFigures) -> StepLimit:
    """What R2 by the long lead may be at most: what R1+R2 may, less the line conductor by its size."""
    whole = _r1_r2(test, chained)
    if whole.most is None:
        return whole
    return StepLimit(
        max(0.0, whole.most - chained.laid.r1_ohm), source=f"{whole.source}, less R1 {chained.laid.r1_ohm:.2f}"
    )


def _zs(test: RunTest, chained: CircuitFigures) -> StepLimit:
    """What a loop read cold may be at most, by the school chosen; where an RCD serves, what holds the touch voltage."""
    case = test.case
    before = opening_rcd(case, chained)
    past = (Stands.UNIT, Stands.BOX)
    own = [guard for guard in case.run.own_rcds if guard.stands in past] if chained.final else []
    rcd = before or (own[-1] if own else None)
    limit = chained.zs_limit_ohm
    too_high = before is not None and (limit is None or chained.end.loop_ohm > limit)
    by_rcd = case.job.supply.earthing is Earthing.TT or (chained.final and has_car_electrode(case)) or too_high
    if by_rcd or limit is None:
        most = case.rules.value("touch_voltage_v") / (rcd.residual.residual_ma / 1000) if rcd else None
        return StepLimit(most, source="50 V ÷ IΔn")
    return cold_loop_limit(test, chained, limit, StepKey.ZS)


def _zs_cable(test: RunTest, chained: CircuitFigures) -> StepLimit:
    """The cable's own loop on the house earth: the breaker must open on it, whatever the car stands on."""
    case = test.case
    if chained.zs_limit_ohm is None or case.job.supply.earthing is Earthing.TT:
        # Until the unit comes nothing else is read of its loop.
        return _zs(test, chained) if case.run.point is not None and case.run.point.to_come else StepLimit()
    return cold_loop_limit(test, chained, chained.zs_limit_ohm, StepKey.ZS_CABLE)


def cold_loop_limit(test: RunTest, chained: CircuitFigures, limit_ohm: float, key: StepKey) -> StepLimit:
    """The most that a loop may read while its conductors are cold, by the school that the tester chose.

    80 % rule: 0.8·Zs max. By temperature: Zs max − Σ(R1+R2)·(hot/cold − 1) over the circuits up to here, R1+R2 as read
    on the day or from the route: what the conductors will rise by is kept free. Without the day's temperature the
    share counts, which is the safe side for cable of usual size.

    References: BS 7671 Appendix 3; the correction from 1 + 0.004·Δθ (BS EN 60228).
    """
    case = test.case
    share = case.rules.value("measured_loop_factor")
    by_share = StepLimit(share * limit_ohm, source=f"{share:.0%} of {limit_ohm:.2f} Ω, as conductors are cold")
    if case.job.testing.loop_school is not LoopSchool.BY_TEMPERATURE:
        return by_share
    warm_c = conductors_c(test, key, chained.circuit.id)
    if warm_c is None:
        return by_share._replace(source=f"{by_share.source}; say how warm they are to go by temperature")
    rise_ohm = _rise_ohm(test, chained, warm_c)
    return StepLimit(
        limit_ohm - rise_ohm,
        source=f"{limit_ohm:.2f} Ω less {rise_ohm:.2f} that the conductors up to here rise by from {warm_c:g} °C",
    )


def _rise_ohm(test: RunTest, until: CircuitFigures, warm_c: float) -> float:
    """What R1+R2 of every circuit up to one rises by, from the day's temperature to that of full load [Ω]."""
    case = test.case
    rise_ohm, cold = 0.0, temperature_factor(warm_c)
    for chained in case.figures.chain if case.figures is not None else ():
        read = r1_r2_read(test, chained.circuit.id)
        r1_r2 = read if read is not None else (chained.laid.r1_ohm + chained.laid.r2_ohm) * cold
        rise_ohm += r1_r2 * max(0.0, chained.hot_factor / cold - 1)
        if chained is until:
            break
    return rise_ohm


def _ze(test: RunTest) -> StepLimit:
    case = test.case
    if case.job.supply.earthing is Earthing.TT:
        return StepLimit()
    limit_ohm = declared_ze_ohm(case.job.supply, case.rules)
    if case.job.supply.operator_told_of_ze is Seen.YES:
        # Once the operator knows, the design goes on with what was measured.
        return StepLimit(limit_ohm, source="declared maximum; the operator was told", past=Verdict.YOUR_CALL)
    return StepLimit(limit_ohm, source="declared maximum; above it, tell the operator and say so at the cut-out")


def _fault_current(test: RunTest) -> StepLimit:
    case = test.case
    if case.figures is None:
        return StepLimit()
    first = case.figures.chain[0]
    if first.board_phases == 3:
        # What is read is line to neutral or earth; a fault between three lines is about twice that.
        return StepLimit(breaking_limit_ka(first) / 2, source="half of what the device and its board can break")
    return StepLimit(breaking_limit_ka(first), source="what the device and its board can break")


def _main_bonding(test: RunTest) -> StepLimit:
    """A good conductor of the size that is asked for; a long one may read more."""
    source = "a good conductor; more needs a long one: about 27 m of 10 mm²"
    return StepLimit(test.rules.value("bonding_ohm"), source=source, past=Verdict.YOUR_CALL)


def _insulation(test: RunTest) -> StepLimit:
    return StepLimit(least=test.rules.value("insulation_mohm"), source="at 500 V d.c.")


def _electrode(test: RunTest) -> StepLimit:
    """Low enough to be stable; where it must hold the voltage of a broken PEN, far lower."""
    case = test.case
    held = low_electrode(case) if relies_on_low_electrode(case) else None
    if held is not None:
        return StepLimit(held.limit_ohm, source=f"70 V at {held.load_a:g} A with the PEN broken")
    return StepLimit(case.rules.value("electrode_stable_ohm"), source="stable in dry and frozen ground")


def _rcd(test: RunTest, subject: str, *, delayed: bool) -> StepLimit:
    """At rated current; on TT 0.2 s rests on more than that, so a slow figure asks for the one at 5×."""
    case = test.case
    if delayed:
        return _delayed_rcd(test)
    on_tt = case.job.supply.earthing is Earthing.TT or has_car_electrode(case)
    fast = _opened_in_time_at_five(test, subject)
    return StepLimit(
        case.rules.value("rcd_trip_ms"),
        source="at 1× IΔn",
        plausible_from=case.rules.value("rcd_trip_plausible_ms"),
        asks_from=case.rules.value("rcd_trip_tt_asks_ms") if on_tt and not fast else None,
        asks_why="take the 5× figure too: a TT circuit must be off in 0.2 s",
    )


def _opened_in_time_at_five(test: RunTest, subject: str) -> bool:
    read = [one for key in FIVE_TIMES if (one := test.figure(key, subject)) is not None]
    return bool(read) and max(read) <= test.rules.value("rcd_fast_trip_ms")


def _rcd_five(test: RunTest, subject: str, *, delayed: bool) -> StepLimit:
    """At five times its rated current; a time-delayed one has a window there too."""
    if delayed:
        least, most = test.rules.value("rcd_delayed_fast_min_ms"), test.rules.value("rcd_delayed_fast_max_ms")
        return StepLimit(most, least, "S-type at 5× IΔn")
    plausible = test.rules.value("rcd_trip_plausible_ms")
    return StepLimit(test.rules.value("rcd_fast_trip_ms"), source="at 5× IΔn", plausible_from=plausible)


def _rcd_smooth(test: RunTest, subject: str, *, delayed: bool) -> StepLimit:
    """A Type B on smooth DC opens between half and twice its rated current; at twice within the time of 1×."""
    return StepLimit(test.rules.value("rcd_trip_ms"), source="Type B at 2× IΔn smooth d.c., IEC 62423")


def _delayed_rcd(test: RunTest) -> StepLimit:
    most, least = test.rules.value("rcd_delayed_trip_max_ms"), test.rules.value("rcd_delayed_trip_min_ms")
    return StepLimit(most, least, "S-type at 1× IΔn")


def _earthing_conductor(test: RunTest) -> StepLimit:
    source = "a good conductor; more needs a long one"
    return StepLimit(test.rules.value("bonding_ohm"), source=source, past=Verdict.YOUR_CALL)


def _duty(test: RunTest) -> StepLimit:
    """No more than the unit was set to, or the cable was designed for."""
    case = test.case
    if case.to_loads or not case.run.charge_point.current_known:
        return StepLimit()
    current_a = case.run.charge_point.design_current_a()
    most = duty_of(current_a) + case.rules.value("pilot_duty_within_percent")
    return StepLimit(most, source=f"{current_a:g} A as designed")


def _pilot(key: StepKey) -> Callable[[RunTest], StepLimit]:
    low, high = pilot_volts(PILOTS[key])
    return lambda test: StepLimit(high, low, f"IEC 61851-1, state {PILOTS[key].value}")


def _connector_earth(test: RunTest) -> StepLimit:
    return StepLimit(test.rules.value("connector_earth_ohm"), source="a lead of a few metres", past=Verdict.YOUR_CALL)


AT_RATED = (StepKey.RCD_TRIP, StepKey.RCD_AC_0, StepKey.RCD_AC_180, StepKey.RCD_PULSE_0, StepKey.RCD_PULSE_180)
FIVE_TIMES = (
    StepKey.RCD_FIVE,
    StepKey.RCD_FIVE_AC_0,
    StepKey.RCD_FIVE_AC_180,
    StepKey.RCD_FIVE_PULSE_0,
    StepKey.RCD_FIVE_PULSE_180,
)
SMOOTH = (StepKey.RCD_SMOOTH_PLUS, StepKey.RCD_SMOOTH_MINUS)
RCD_TESTS: dict[StepKey, Callable[..., StepLimit]] = {
    **dict.fromkeys(AT_RATED, _rcd),
    **dict.fromkeys(FIVE_TIMES, _rcd_five),
    **dict.fromkeys(SMOOTH, _rcd_smooth),
}
CIRCUIT_LIMITS: dict[StepKey, Callable[[RunTest, CircuitFigures], StepLimit]] = {
    StepKey.R1_R2: _r1_r2,
    StepKey.R2: _r2,
    StepKey.ZS: _zs,
    StepKey.ZS_CABLE: _zs_cable,
}
LIMITS: dict[StepKey, Callable[[RunTest], StepLimit]] = {
    StepKey.EARTHING_CONDUCTOR: _earthing_conductor,
    StepKey.MAIN_BONDING: _main_bonding,
    StepKey.IR_LINE_NEUTRAL: _insulation,
    StepKey.IR_LINE_LINE: _insulation,
    StepKey.IR_LIVE_EARTH: _insulation,
    StepKey.IR_LINE_EARTH: _insulation,
    StepKey.IR_NEUTRAL_EARTH: _insulation,
    StepKey.IR_EARTHS: _insulation,
    StepKey.ELECTRODE: _electrode,
    StepKey.ELECTRODE_LOOP: _electrode,
    StepKey.ZE: _ze,
    StepKey.FAULT_CURRENT_NEUTRAL: _fault_current,
    StepKey.FAULT_CURRENT_EARTH: _fault_current,
    StepKey.FAULT_CURRENT: _fault_current,
    StepKey.RCD_ORIGIN_TRIP: _delayed_rcd,
    StepKey.DC_DETECTION: lambda test: StepLimit(test.case.rules.value("dc_detector_ma"), source="IEC 62955"),
    StepKey.CONNECTOR_EARTH: _connector_earth,
    **{key: _pilot(key) for key in PILOTS},
    StepKey.PILOT_DUTY: _duty,
    StepKey.EARTH_OPEN: lambda test: StepLimit(test.case.rules.value("earth_open_ms"), source="IEC 61851-1"),
}
