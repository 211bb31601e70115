"""Whether each device opens in its time: the loop on TN, the RCD on TT (BS 7671 411.4, 411.5)."""

from __future__ import annotations

from fulmen.core.checks.common import leaning, mark_wanted
from fulmen.core.circuit.margins import loop_margin, rcd_in_time, touch_margin
from fulmen.core.circuit.people import opening_rcd, within_s
from fulmen.core.circuit.run_figures import Case, CircuitFigures
from fulmen.core.electrical.fault_loop import INSTANTANEOUS_MULTIPLE
from fulmen.core.electrical.selectivity import device_words
from fulmen.core.findings.finding import Condition, Finding, Verdict, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.protection import DISCONNECTION
from fulmen.core.findings.rules.run import ROUTE
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.model.guards import DeviceKind
from fulmen.core.model.supply import Earthing


def disconnection_findings(case: Case) -> list[Finding]:
    """Every finding about opening in time; one that asks for the route where there is none."""
    if case.figures is None:
        return [_no_route(case)]
    return [_disconnection(case, chained) for chained in case.new_figures]


def _no_route(case: Case) -> Finding:
    unrouted = next((chained for chained in case.run.chain if not chained.circuit.route), None)
    detail = "Choose a circuit, its cable and its route from the board to the charge point."
    if unrouted is not None and len(case.run.chain) > 1:
        detail = f"Enter the route of {unrouted.circuit.name}."
    return ask(ROUTE, case.rules, case.subject).needs_fact(detail)


def _disconnection(case: Case, chained: CircuitFigures) -> Finding:
    """TN: the device opens at once where Zs ≤ U0·Cmin/Ia. TT: the RCD opens where (RA + R2)·IΔn ≤ 50 V."""
    rcd = opening_rcd(case, chained)
    if case.job.supply.earthing is Earthing.TT:
        return _rcd_opens(case, chained, rcd)
    margin, device = loop_margin(chained), chained.device
    time_s = within_s(case, chained)
    opens = f"Loop opens the {'device' if chained.final else 'sub-main'}"
    variant = "" if device.kind is DeviceKind.BREAKER else "fuse"
    asked = ask(DISCONNECTION, case.rules, chained.circuit.id, variant=variant, opens=opens, time_s=f"{time_s:g}")
    if margin is None:
        otherwise = "enter its maker's figures" if device.by_maker else "choose another device"
        return asked.needs_fact(f"No loop limit is known for a {device_words(device)} in {time_s:g} s: {otherwise}.")
    ze = case.figures.ze if case.figures is not None else None
    assert ze is not None
    detail = f"Ze {ze.value:.2f} Ω {ze.source}, conductors hot"
    not_seen = case.job.supply.earthing is Earthing.NOT_SEEN
    if not_seen:
        detail += "; whether the supply is TN or TT decides it"
    basis: dict[str, object] = {}
    conditions = None
    if rcd is not None and not margin.holds():
        residual_ma, touch_v = rcd.residual.residual_ma, case.rules.value("touch_voltage_v")
        volts, asked = margin.value * residual_ma / 1000, leaning(case, asked, rcd)
        basis, conditions = {"residual_ma": residual_ma}, _sound_by_rcd(case, chained)
        detail += f"; only the {residual_ma} mA RCD opens in time ({volts:.1f} V ≤ {touch_v:g} V): allowed, say why"
    return asked.judged(
        value=margin.value,
        limit=margin.limit,
        unit="Ω",
        working=_loop_lines(case, chained, ze.value, ze.source),
        detail=detail,
        remedy="Use a B curve, a smaller device, a bigger cable, or measure Ze.",
        otherwise=Verdict.YOUR_CALL if rcd is not None else Verdict.FALLS_SHORT,
        holding=Verdict.NEEDS if not_seen else Verdict.MEETS,
        basis=basis,
        conditions=conditions,
    )


def _sound_by_rcd(case: Case, chained: CircuitFigures) -> tuple[Condition, ...]:
    """What may make it sound that only an RCD opens in time, as far as the guards bear it out."""
    time_s = within_s(case, chained)
    in_time = [one for one in case.run.rcds_before[chained.circuit.id] if rcd_in_time([one], time_s, case.rules)]
    own = any(one.stands is not Stands.UNIT for one in case.run.own_rcds)
    return DISCONNECTION.borne_out(own_rcd=chained.final and own, two_rcds=len(in_time) > 1)


def _loop_lines(case: Case, chained: CircuitFigures, ze_ohm: float, ze_source: str) -> tuple[WorkingLine, ...]:
    assert case.figures is not None
    own_ohm, before_ohm = chained.laid.r1_ohm + chained.laid.r2_ohm, chained.start.loop_ohm - ze_ohm
    before = "tails" if chained.in_chain is case.run.chain[0] else "tails and sub-main"
    device, u0_v = chained.device, case.rules.value("u0_v")
    zs = WorkingLine(
        symbol="Zs",
        formula=f"Ze + {before} + (R1+R2)·{chained.hot_factor:.4g}",
        unit="Ω",
        value=chained.end.loop_ohm,
        figures=f"{ze_ohm:.3f} + {before_ohm:.3f} + {own_ohm:.3f}·{chained.hot_factor:.4g}",
        source=f"Ze {ze_source}; BS EN 60228",
    )
    if device.kind is not DeviceKind.BREAKER:
        by_maker = f"its maker, within {device.maker_opens_s:g} s: {device.maker_source}" if device.by_maker else ""
        source = by_maker or "BS 7671 Table 41.2 or 41.4, gG fuse"
        return zs, WorkingLine(symbol="Zs max", value=chained.zs_limit_ohm, unit="Ω", source=source)
    multiple = INSTANTANEOUS_MULTIPLE[device.curve.value]
    return zs, WorkingLine(
        symbol="Zs max",
        formula="U0·Cmin/Ia",
        figures=f"{u0_v:g}·{case.rules.value('voltage_factor_min'):g}/({multiple:g}·{device.rating_a})",
        value=chained.zs_limit_ohm,
        unit="Ω",
        source="BS 7671 Table 41.3",
    )


def _rcd_opens(case: Case, chained: CircuitFigures, rcd: PlacedGuard | None) -> Finding:
    time_s = within_s(case, chained)
    opens = f"RCD opens the {'circuit' if chained.final else 'sub-main'}"
    asked = ask(DISCONNECTION, case.rules, chained.circuit.id, variant="rcd", opens=opens, time_s=f"{time_s:g}")
    if rcd is None and case.run.unread_before[chained.circuit.id]:
        return mark_wanted(asked, case.run.unread_before[chained.circuit.id][-1])
    if rcd is None:
        return asked.falls_short(
            "On TT only an RCD opens in time, and none stands at the board: the cable has no fault protection.",
            remedy="Fit an RCBO at the board.",
        )
    margin = touch_margin(chained, rcd.residual, case.rules)
    ze_source = case.figures.ze.source if case.figures is not None else ""
    line = WorkingLine(
        symbol="U",
        formula="Zs·IΔn",
        figures=f"{chained.end.loop_ohm:.1f}·{rcd.residual.residual_ma / 1000:g}",
        value=margin.value,
        decimals=1,
        unit="V",
    )
    return leaning(case, asked, rcd).judged(
        value=margin.value,
        limit=margin.limit,
        unit="V",
        decimals=1,
        working=(line,),
        detail=f"whole loop {chained.end.loop_ohm:.1f} Ω, {ze_source}",
        remedy="Lower the electrode's resistance or use a more sensitive RCD.",
    )
