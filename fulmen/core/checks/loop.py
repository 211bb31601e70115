"""Volt drop, disconnection in time, and conductors that survive the fault."""

from __future__ import annotations

from fulmen.core.adiabatic import least_csa_mm2, let_through_a2s
from fulmen.core.catalogue import K_COPPER, K_SOURCE
from fulmen.core.checks.common import needs_fact, needs_reading
from fulmen.core.checks.residual_current import board_rcd
from fulmen.core.errors import TableError
from fulmen.core.figures import Case, RunFigures, fault_current
from fulmen.core.findings import Finding, Stage, Verdict, WorkingLine, judged, stated
from fulmen.core.model.supply import Earthing
from fulmen.core.volt_drop import millivolts_per_a_m


def loop_findings(case: Case) -> list[Finding]:
    """Every finding about volts lost and the fault loop; one that asks for the route where there is none."""
    if case.figures is None:
        detail = "Choose a circuit, its cable and its route from the board to the charge point."
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
    return [_volt_drop(case, case.figures), _disconnection(case, case.figures), _survives(case, case.figures)]


def _volt_drop(case: Case, figures: RunFigures) -> Finding:
    u0_v = case.rules.value("u0_v")
    circuit = case.run.final().circuit
    millivolts = millivolts_per_a_m(figures.record.insulation, circuit.cable.csa_mm2, case.run.charge_point.phases)
    lines = [
        WorkingLine(
            symbol="ΔU tails",
            value=figures.tails.drop_v,
            unit="V",
            source=f"at {figures.tails.load_a:.0f} A" if figures.tails.load_a else "tails not entered, left out",
        )
    ]
    for number, (section, own) in enumerate(zip(circuit.route, figures.sections, strict=True), 1):
        lines.append(
            WorkingLine(
                symbol=f"ΔU {number}",
                formula="mV·Ib·L·Ct/1000",
                value=own.drop_v,
                unit="V",
                figures=f"{millivolts:g}·{figures.ib_a:g}·{section.length_m:g}·{own.ct:.3f}/1000",
            )
        )
    percent = figures.volts_lost_v / u0_v * 100
    lines.append(
        WorkingLine(
            symbol="ΔU",
            formula="ΣΔU/U0·100",
            figures=f"{figures.volts_lost_v:.2f}/{u0_v:g}·100",
            value=percent,
            unit="%",
        )
    )
    return judged(
        rule="volt_drop",
        subject=case.subject,
        title="Volt drop to the car",
        value=percent,
        unit="%",
        limit=case.rules.value("volt_drop_percent"),
        clause=case.rules.clause("volt_drop_percent"),
        working=tuple(lines),
        detail=f"{figures.volts_lost_v:.1f} V from the origin",
        mend="Use a bigger cable or a shorter route.",
    )


def _disconnection(case: Case, figures: RunFigures) -> Finding:
    """TN: the device opens at once where Zs ≤ U0·Cmin/Ia. TT: the RCD opens where (RA + R2)·IΔn ≤ 50 V."""
    if case.job.supply.earthing is Earthing.TT:
        return _rcd_opens(case, figures)
    device = case.run.final().circuit.device
    u0_v, cmin = case.rules.value("u0_v"), case.rules.value("voltage_factor_min")
    multiple = 5 if device.curve.value == "B" else 10
    tails = figures.board_loop_ohm - figures.ze.value
    r1_r2_ohm = figures.r1_ohm + figures.r2_ohm
    lines = (
        WorkingLine(
            symbol="Zs",
            formula=f"Ze + tails + (R1+R2)·{figures.hot_factor:g}",
            unit="Ω",
            value=figures.zs_hot_ohm,
            figures=f"{figures.ze.value:.3f} + {tails:.3f} + {r1_r2_ohm:.3f}·{figures.hot_factor:g}",
            source=f"Ze {figures.ze.source}; BS EN 60228",
        ),
        WorkingLine(
            symbol="Zs max",
            formula="U0·Cmin/Ia",
            figures=f"{u0_v:g}·{cmin:g}/({multiple}·{device.rating_a})",
            value=figures.zs_limit_ohm,
            unit="Ω",
            source="BS 7671 Table 41.3",
        ),
    )
    rcd = board_rcd(case)
    detail = f"Ze {figures.ze.value:.2f} Ω {figures.ze.source}, conductors hot"
    if rcd is not None and figures.zs_hot_ohm > figures.zs_limit_ohm:
        volts = figures.zs_hot_ohm * rcd.residual_ma / 1000
        detail += f"; only the {rcd.residual_ma} mA RCD opens in time ({volts:.1f} V ≤ 50 V): allowed, say why"
    return judged(
        rule="disconnection",
        subject=case.subject,
        title=f"Loop opens the device in {case.rules.value('tn_disconnection_s'):g} s",
        value=figures.zs_hot_ohm,
        limit=figures.zs_limit_ohm,
        unit="Ω",
        clause="BS 7671 411.4.4, Table 41.3",
        working=lines,
        detail=detail,
        mend="Use a B curve, a smaller device, a bigger cable, or measure Ze.",
        otherwise=Verdict.YOUR_CALL if rcd is not None else Verdict.FALLS_SHORT,
    )


def _rcd_opens(case: Case, figures: RunFigures) -> Finding:
    rcd, title = board_rcd(case), f"RCD opens the circuit in {case.rules.value('tt_disconnection_s'):g} s"
    clause = "BS 7671 411.5.3, Table 41.1"
    if rcd is None:
        detail = "On TT only an RCD opens in time, and none stands at the board: the cable has no fault protection."
        return stated(
            "disconnection", case.subject, title, Verdict.FALLS_SHORT, detail, clause, mend="Fit an RCBO at the board."
        )
    loop_ohm = figures.zs_hot_ohm
    volts = loop_ohm * rcd.residual_ma / 1000
    lines = (
        WorkingLine(
            symbol="U",
            formula="Zs·IΔn",
            figures=f"{loop_ohm:.1f}·{rcd.residual_ma / 1000:g}",
            value=volts,
            decimals=1,
            unit="V",
        ),
    )
    return judged(
        rule="disconnection",
        subject=case.subject,
        title=title,
        value=volts,
        limit=case.rules.value("touch_voltage_v"),
        unit="V",
        decimals=1,
        clause=clause,
        working=lines,
        detail=f"whole loop {loop_ohm:.1f} Ω, {figures.ze.source}",
        mend="Lower the electrode's resistance or use a more sensitive RCD.",
    )


def _survives(case: Case, figures: RunFigures) -> Finding:
    """S ≥ √(I²t)/k for the smaller of line and protective conductor, at the fault current at the board."""
    device, title, clause = case.run.final().circuit.device, "Conductors survive the fault", "BS 7671 543.1.3, 434.5.2"
    known = fault_current(case.job, case.rules)
    try:
        energy, cell = let_through_a2s(device.curve.value, device.rating_a, known.value)
    except TableError:
        detail = f"{known.value:.1f} kA {known.source} is past the let-through table: measure it at the origin."
        return needs_reading("survives_fault", case.subject, title, detail, clause)
    k = K_COPPER[figures.record.insulation]
    least = least_csa_mm2(energy, k)
    smaller = min(case.run.final().circuit.cable.csa_mm2, figures.cpc_mm2)
    lines = (
        WorkingLine(symbol="I²t", value=energy, decimals=0, unit="A²s", source=cell),
        WorkingLine(symbol="k", value=k, decimals=0, source=K_SOURCE),
        WorkingLine(symbol="S", formula="√(I²t)/k", figures=f"√{energy:.0f}/{k:.0f}", value=least, unit="mm²"),
    )
    return judged(
        rule="survives_fault",
        subject=case.subject,
        title=title,
        value=smaller,
        limit=least,
        unit="mm²",
        at_least=True,
        clause=clause,
        working=lines,
        detail=f"smallest conductor {smaller:g} mm², fault current {known.value:.2f} kA {known.source}",
        mend="Use a bigger protective conductor or a smaller device.",
    )
