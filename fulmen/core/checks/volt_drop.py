"""Volts lost from the origin to the car or to loads, and to lights at a board further on (BS 7671 525)."""

from __future__ import annotations

from fulmen.core.checks.common import current_unknown, tails_unknown
from fulmen.core.circuit.laid_cable import RING_SHARE
from fulmen.core.circuit.margins import Margin, lighting_margin, volt_drop_margin
from fulmen.core.circuit.run_figures import Case, CircuitFigures, RunFigures
from fulmen.core.findings.finding import Finding, Verdict, WorkingLine
from fulmen.core.findings.question import ask


def volt_drop_findings(case: Case) -> list[Finding]:
    """Every finding about volts lost; none before every circuit has a route."""
    if case.figures is None:
        return []
    findings = [_volt_drop(case, case.figures)]
    for chained in case.new_figures:
        lighting = lighting_margin(case.installation.tree, chained, case.rules)
        if lighting is not None and not (lighting.holds() and chained.circuit.id in case.installation.unseen):
            findings.append(_lighting_drop(case, chained, lighting))
    return findings


def _lighting_drop(case: Case, chained: CircuitFigures, margin: Margin) -> Finding:
    """Lights at a board further on: 3 % from the origin, their own circuit included."""
    drop_v, u0_v = chained.end.drop_v, case.rules.value("u0_v")
    line = WorkingLine(
        symbol="ΔU", formula="ΣΔU/U0·100", figures=f"{drop_v:.2f}/{u0_v:g}·100", value=margin.value, unit="%"
    )
    name = case.installation.tree.boards[margin.subject].name
    return ask(margin.rule, case.rules, margin.subject, board=name).judged(
        value=margin.value,
        unit="%",
        limit=margin.limit,
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
    margin, total_v = volt_drop_margin(figures.final, case.rules), figures.final.end.drop_v
    lines.append(
        WorkingLine(
            symbol="ΔU",
            formula="ΣΔU/U0·100",
            figures=f"{total_v:.2f}/{u0_v:g}·100",
            value=margin.value,
            unit="%",
        )
    )
    told = f"{total_v:.1f} V from the origin" + (", sub-main included" if len(figures.chain) > 1 else "")
    open_ones = [
        *(["what the unit takes"] if current_unknown(case) else []),
        *(["size and length of the tails"] if tails_unknown(case) else []),
    ]
    end = "its loads" if case.to_loads else "the car"
    return ask(margin.rule, case.rules, margin.subject, end=end).judged(
        value=margin.value,
        unit="%",
        limit=margin.limit,
        working=tuple(lines),
        detail=f"{told}; it waits for {' and '.join(open_ones)}" if open_ones else told,
        remedy="Use a bigger cable or a shorter route.",
        holding=Verdict.NEEDS if open_ones else Verdict.MEETS,
    )


def _drop_line(chained: CircuitFigures, number: int, before: str) -> WorkingLine:
    one, parts = chained.sections[number - 1], []
    slack_m = chained.laid.slack_m if number == len(chained.sections) else 0.0
    quarter, share = ("/4", RING_SHARE) if chained.laid.ring else ("", 1.0)
    length_m = one.section.length_m + slack_m
    if chained.load.single_a:
        parts.append(f"{one.metre.single_mv:g}·{chained.load.single_a:g}")
    if chained.load.balanced_a:
        parts.append(f"{one.metre.balanced_mv:.2f}·{chained.load.balanced_a:g}")
    total = " + ".join(parts) if len(parts) == 1 else f"({' + '.join(parts)})"
    return WorkingLine(
        symbol=f"ΔU {before}{number}",
        formula=f"mV·Ib·L·Ct/1000{quarter}" + (", mV three-phase/√3" if chained.load.balanced_a else ""),
        figures=f"{total}·{length_m:g}·{one.ct:.3f}/1000{quarter}",
        value=one.drop_v * share * length_m / one.section.length_m,
        unit="V",
        source="; ".join(
            [f"with {slack_m:g} m of slack"] * bool(slack_m)
            + ["one way's share at the middle of the ring, the rest spread round it"] * chained.laid.ring
        ),
    )
