"""Volt drop, disconnection in time, and conductors that survive the fault, for every circuit on the way."""

from __future__ import annotations

from fulmen.core.checks.common import needs_fact, needs_reading
from fulmen.core.checks.residual_current import rcds_before
from fulmen.core.circuit.margins import (
    Margin,
    energy_margin,
    fault_energy,
    lighting_margin,
    loop_margin,
    touch_margin,
    volt_drop_margin,
)
from fulmen.core.circuit.run_figures import Case, CircuitFigures, RunFigures
from fulmen.core.electrical.fault_loop import INSTANTANEOUS_MULTIPLE
from fulmen.core.electrical.selectivity import device_words
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import Finding, Stage, Verdict, WorkingLine, judged, stated
from fulmen.core.model.boards import Rcd
from fulmen.core.model.circuits import DeviceKind
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.cable_catalogue import K_SOURCE


def loop_findings(case: Case) -> list[Finding]:
    """Every finding about volts lost and the fault loop; one that asks for the route where there is none."""
    if case.figures is None:
        unrouted = next((chained for chained in case.run.chain if not chained.circuit.route), None)
        detail = "Choose a circuit, its cable and its route from the board to the charge point."
        if unrouted is not None and len(case.run.chain) > 1:
            detail = f"Enter the route of {unrouted.circuit.name}."
        return [
            needs_fact(
                "route",
                case.subject,
                "Route from the board to the charge point",
                detail,
                "BS 7671 525, 411.4",
                Stage.DESIGN,
            )
        ]
    findings = [_volt_drop(case, case.figures)]
    for chained in case.new_figures():
        findings.extend([_disconnection(case, chained), _survives(case, chained)])
        lighting = lighting_margin(case.job, chained, case.rules)
        if lighting is not None:
            findings.append(_lighting_drop(case, chained, lighting))
    return findings


def _lighting_drop(case: Case, chained: CircuitFigures, margin: Margin) -> Finding:
    """Lights at a board further on: 3 % from the origin, their own circuit included."""
    drop_v, u0_v = chained.end.drop_v, case.rules.value("u0_v")
    line = WorkingLine(
        symbol="ΔU", formula="ΣΔU/U0·100", figures=f"{drop_v:.2f}/{u0_v:g}·100", value=margin.value, unit="%"
    )
    name = next(board.name for board in case.job.boards if board.id == margin.subject)
    return judged(
        rule=margin.rule,
        subject=margin.subject,
        title=f"Volt drop to the lights at {name}",
        value=margin.value,
        unit="%",
        limit=margin.limit,
        clause=case.rules.clause("volt_drop_lighting_percent"),
        working=(line,),
        detail=f"{drop_v:.1f} V up to the board; the lighting circuit's own drop comes on top",
        remedy="Use a bigger sub-main.",
    )


def _volt_drop(case: Case, figures: RunFigures) -> Finding:
    u0_v = case.rules.value("u0_v")
    lines = [
        WorkingLine(
            symbol="ΔU tails",
            value=figures.tails.drop_v,
            unit="V",
            source=f"at {figures.tails.load_a:.0f} A" if figures.tails.load_a else "tails not entered, left out",
        )
    ]
    for chained in figures.chain:
        before = "" if chained.final else f"{chained.circuit.id} "
        lines.extend(_drop_line(chained, number, before) for number in range(1, len(chained.sections) + 1))
    margin = volt_drop_margin(figures.final, case.rules)
    total_v = figures.final.end.drop_v
    lines.append(
        WorkingLine(
            symbol="ΔU",
            formula="ΣΔU/U0·100",
            figures=f"{total_v:.2f}/{u0_v:g}·100",
            value=margin.value,
            unit="%",
        )
    )
    return judged(
        rule=margin.rule,
        subject=margin.subject,
        title="Volt drop to the car",
        value=margin.value,
        unit="%",
        limit=margin.limit,
        clause=case.rules.clause("volt_drop_percent"),
        working=tuple(lines),
        detail=f"{total_v:.1f} V from the origin" + (", sub-main included" if len(figures.chain) > 1 else ""),
        remedy="Use a bigger cable or a shorter route.",
    )


def _drop_line(chained: CircuitFigures, number: int, before: str) -> WorkingLine:
    one = chained.sections[number - 1]
    parts = []
    if chained.load.single_a:
        parts.append(f"{one.metre.single_mv:g}·{chained.load.single_a:g}")
    if chained.load.balanced_a:
        parts.append(f"{one.metre.balanced_mv:.2f}·{chained.load.balanced_a:g}")
    total = " + ".join(parts) if len(parts) == 1 else f"({' + '.join(parts)})"
    return WorkingLine(
        symbol=f"ΔU {before}{number}",
        formula="mV·Ib·L·Ct/1000" + (", mV three-phase/√3" if chained.load.balanced_a else ""),
        figures=f"{total}·{one.section.length_m:g}·{one.ct:.3f}/1000",
        value=one.drop_v,
        unit="V",
    )


def _disconnection(case: Case, chained: CircuitFigures) -> Finding:
    """TN: the device opens at once where Zs ≤ U0·Cmin/Ia. TT: the RCD opens where (RA + R2)·IΔn ≤ 50 V."""
    rcd = opening_rcd(case, chained)
    if case.job.supply.earthing is Earthing.TT:
        return _rcd_opens(case, chained, rcd)
    margin, device = loop_margin(chained), chained.device
    time_s = case.rules.value("tn_disconnection_s" if chained.final else "tn_distribution_s")
    title = f"Loop opens the {'device' if chained.final else 'sub-main'} in {time_s:g} s"
    clause = (
        "BS 7671 411.4.4, Table 41.3" if device.kind is DeviceKind.BREAKER else "BS 7671 411.4.4, Tables 41.2, 41.4"
    )
    if margin is None:
        detail = f"No loop limit is known for a {device_words(device)} in {time_s:g} s: choose another device."
        return needs_fact("disconnection", chained.circuit.id, title, detail, clause, Stage.DESIGN)
    ze = case.figures.ze if case.figures is not None else None
    assert ze is not None
    detail = f"Ze {ze.value:.2f} Ω {ze.source}, conductors hot"
    if rcd is not None and not margin.holds():
        volts = margin.value * rcd.residual_ma / 1000
        detail += f"; only the {rcd.residual_ma} mA RCD opens in time ({volts:.1f} V ≤ 50 V): allowed, say why"
    return judged(
        rule=margin.rule,
        subject=margin.subject,
        title=title,
        value=margin.value,
        limit=margin.limit,
        unit="Ω",
        clause=clause,
        working=_loop_lines(case, chained, ze.value, ze.source),
        detail=detail,
        remedy="Use a B curve, a smaller device, a bigger cable, or measure Ze.",
        otherwise=Verdict.YOUR_CALL if rcd is not None else Verdict.FALLS_SHORT,
    )


def opening_rcd(case: Case, chained: CircuitFigures) -> Rcd | None:
    """The nearest RCD before a circuit that opens in its time: a time-delayed one is too slow for a final circuit."""
    fit = [rcd for rcd in rcds_before(case, chained.in_chain) if not (chained.final and rcd.time_delayed)]
    return fit[-1] if fit else None


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
        source = "BS 7671 Table 41.2 or 41.4, gG fuse"
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


def _rcd_opens(case: Case, chained: CircuitFigures, rcd: Rcd | None) -> Finding:
    time_s = case.rules.value("tt_disconnection_s" if chained.final else "tt_distribution_s")
    title, clause = (
        f"RCD opens the {'circuit' if chained.final else 'sub-main'} in {time_s:g} s",
        "BS 7671 411.5.3, Table 41.1",
    )
    subject = chained.circuit.id
    if rcd is None:
        detail = "On TT only an RCD opens in time, and none stands at the board: the cable has no fault protection."
        remedy = "Fit an RCBO at the board."
        return stated("disconnection", subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy)
    margin = touch_margin(chained, rcd, case.rules)
    ze_source = case.figures.ze.source if case.figures is not None else ""
    line = WorkingLine(
        symbol="U",
        formula="Zs·IΔn",
        figures=f"{chained.end.loop_ohm:.1f}·{rcd.residual_ma / 1000:g}",
        value=margin.value,
        decimals=1,
        unit="V",
    )
    return judged(
        rule=margin.rule,
        subject=subject,
        title=title,
        value=margin.value,
        limit=margin.limit,
        unit="V",
        decimals=1,
        clause=clause,
        working=(line,),
        detail=f"whole loop {chained.end.loop_ohm:.1f} Ω, {ze_source}",
        remedy="Lower the electrode's resistance or use a more sensitive RCD.",
    )


def _survives(case: Case, chained: CircuitFigures) -> Finding:
    """S ≥ √(I²t)/k for line and protective conductor, at the highest and the least fault of the circuit."""
    assert case.figures is not None
    title, clause, subject = "Conductors survive the fault", "BS 7671 543.1.3, 434.5.2", chained.circuit.id
    fault_ka, source = chained.start_fault_ka, case.figures.fault.source
    try:
        found = fault_energy(chained, fault_ka, case.rules)
    except TableError as error:
        if chained.device.kind is not DeviceKind.BREAKER:
            return needs_fact("survives_fault", subject, title, f"{error}.", clause, Stage.DESIGN)
        detail = f"{fault_ka:.1f} kA {source} is past the let-through table: measure it at the origin."
        return needs_reading("survives_fault", subject, title, detail, clause)
    margin = energy_margin(found, subject)
    lines = (
        WorkingLine(symbol="I²t", value=found.energy_a2s, decimals=0, unit="A²s", source=found.source),
        WorkingLine(symbol="k", value=found.k, decimals=0, source=K_SOURCE),
        WorkingLine(
            symbol="S",
            formula="√(I²t)/k",
            figures=f"√{found.energy_a2s:.0f}/{found.k:.0f}",
            value=margin.limit,
            unit="mm²",
        ),
    )
    return judged(
        rule=margin.rule,
        subject=subject,
        title=title,
        value=margin.value,
        limit=margin.limit,
        unit="mm²",
        at_least=True,
        clause=clause,
        working=lines,
        detail=f"{found.conductor} {found.conductor_mm2:g} mm², fault current {fault_ka:.2f} kA {source}",
        remedy="Use a bigger protective conductor or a smaller device.",
    )
