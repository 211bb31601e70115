"""Load, device and cable: Ib ≤ In ≤ Iz, the maker's device range, and breaking capacity."""

from __future__ import annotations

from typing import get_args

from fulmen.core.cable_rating import conductor_temperature_c
from fulmen.core.catalogue import cable_record
from fulmen.core.checks.common import needs_fact
from fulmen.core.figures import Case, RunFigures, fault_current
from fulmen.core.findings import Finding, Stage, Verdict, WorkingLine, judged, stated
from fulmen.core.model.circuits import DeviceRatingA
from fulmen.core.words import word

COORDINATION = "BS 7671 433.1.1"
RATINGS_A: tuple[int, ...] = get_args(get_args(DeviceRatingA)[0])


def overcurrent_findings(case: Case) -> list[Finding]:
    """Every finding about current on the final circuit."""
    if not case.run.links:
        return []
    findings = [_size_made(case), _load(case), _maker(case), _breaking_capacity(case)]
    if case.figures is not None:
        findings.extend([_weakest_section(case, case.figures), _terminals(case, case.figures)])
    return [finding for finding in findings if finding is not None]


def _size_made(case: Case) -> Finding | None:
    cable = case.run.final().circuit.cable
    record = cable_record(cable.record)
    if cable.csa_mm2 in record.sizes_mm2:
        return None
    sizes = ", ".join(f"{size:g}" for size in record.sizes_mm2)
    detail = f"The record of {record.name} holds {sizes} mm² only."
    return stated(
        "cable_size",
        case.subject,
        "Cable made in this size",
        Verdict.FALLS_SHORT,
        detail,
        "the cable's record in the catalogue",
        mend="Choose a size of the record.",
    )


def _load(case: Case) -> Finding:
    device, ib_a = case.run.final().circuit.device, case.run.charge_point.design_current_a()
    lines = (
        WorkingLine(symbol="Ib", value=ib_a, decimals=0, unit="A", source="charge point, no diversity, 722.311.201"),
    )
    return judged(
        rule="load_on_device",
        subject=case.subject,
        title="Device carries the load",
        value=ib_a,
        unit="A",
        decimals=0,
        limit=float(device.rating_a),
        clause=COORDINATION,
        working=lines,
        detail="Ib against In; charging runs for hours",
        mend=f"Use a device of at least {ib_a:g} A, or turn the charge point down.",
    )


def least_rating_a(ib_a: float) -> int | None:
    """The smallest device rating that carries a load [A]; None where no rating does.

    >>> least_rating_a(32), least_rating_a(33)
    (32, 40)
    """
    return next((rating for rating in RATINGS_A if rating >= ib_a), None)


def _maker(case: Case) -> Finding:
    """The maker's word on the upstream device, and the school of a bigger device than the load needs."""
    point, rating = case.run.charge_point, case.run.final().circuit.device.rating_a
    title, clause = (
        f"{rating} A device for a {point.design_current_a():g} A unit",
        "BS 7671 510.3, the maker's instructions",
    )
    if point.device_min_a is None or point.device_max_a is None:
        detail = "Look up which device ratings the unit's maker allows."
        return needs_fact("maker_device", case.subject, title, detail, clause)
    allowed = f"The maker allows {point.device_min_a:g} to {point.device_max_a:g} A"
    if not point.device_min_a <= rating <= point.device_max_a:
        mend = "Choose a device in the maker's range."
        return stated("maker_device", case.subject, title, Verdict.FALLS_SHORT, f"{allowed}.", clause, mend=mend)
    least = least_rating_a(max(point.design_current_a(), point.device_min_a))
    if least is not None and rating > least:
        detail = f"{allowed}; {least} A would do. Say why the bigger one."
        return stated("maker_device", case.subject, title, Verdict.YOUR_CALL, detail, clause)
    return stated("maker_device", case.subject, title, Verdict.MEETS, f"{allowed}.", clause)


def _weakest_section(case: Case, figures: RunFigures) -> Finding:
    rating_a = int(figures.in_a)
    title = f"Weakest section carries {rating_a} A"
    for number, section in enumerate(figures.sections, 1):
        if section.rating.iz_a is None:
            detail = f"Section {number}: {section.rating.why_unrated} Choose another method or cable, or ask its maker."
            return needs_fact("weakest_section", case.subject, title, detail, COORDINATION, Stage.DESIGN)
    index = figures.weakest
    assert index is not None
    weakest, route = figures.sections[index].rating, case.run.final().circuit.route
    assert weakest.iz_a is not None
    return judged(
        rule="weakest_section",
        subject=case.subject,
        title=title,
        value=weakest.iz_a,
        limit=figures.in_a,
        unit="A",
        decimals=1,
        at_least=True,
        clause=f"{COORDINATION}, Appendix 4",
        working=weakest.working,
        detail=f"section {index + 1}, {word(route[index].surroundings)}, method {route[index].method.value}",
        mend="Use a bigger cable, ease the weakest section, or use a smaller device.",
    )


def _terminals(case: Case, figures: RunFigures) -> Finding | None:
    """The hottest conductor at the design current against 70 °C terminals; only 90 °C cable can pass it."""
    operating_c = figures.record.operating_c()
    temperatures = [
        (conductor_temperature_c(figures.ib_a, section.rating.iz_a, section.rating.ambient_c, operating_c), section)
        for section in figures.sections
        if section.rating.iz_a
    ]
    if operating_c <= case.rules.value("terminal_c") or not temperatures:
        return None
    hottest, section = max(temperatures, key=lambda entry: entry[0])
    rating = section.rating
    line = WorkingLine(
        symbol="θ",
        formula="θamb + (θp − θamb)·(Ib/Iz)²",
        decimals=0,
        unit="°C",
        value=hottest,
        figures=f"{rating.ambient_c:g} + ({operating_c:g} − {rating.ambient_c:g})·"
        f"({figures.ib_a:g}/{rating.iz_a:.1f})²",
    )
    return judged(
        rule="terminal_temperature",
        subject=case.subject,
        title="Conductor cool enough for 70 °C terminals",
        value=hottest,
        limit=case.rules.value("terminal_c"),
        unit="°C",
        decimals=0,
        clause=case.rules.clause("terminal_c"),
        detail="hottest section at the load current",
        working=(line,),
        mend="Use a bigger cable, so that it runs cooler.",
    )


def breaking_limit_ka(case: Case) -> float:
    """What the device can break: its own Icn, or what its board withstands with the cut-out fuse before it [kA]."""
    final = case.run.final()
    return max(final.circuit.device.breaking_capacity_ka, final.board.conditional_rating_ka or 0.0)


def _breaking_capacity(case: Case) -> Finding:
    known, limit = fault_current(case.job, case.rules), breaking_limit_ka(case)
    own = limit == case.run.final().circuit.device.breaking_capacity_ka
    source = "device's own Icn" if own else "board's conditional rating with the cut-out fuse"
    line = WorkingLine(symbol="Ipf", value=known.value, unit="kA", source=known.source)
    return judged(
        rule="breaking_capacity",
        subject=case.subject,
        title="Device can break the fault current at the board",
        value=known.value,
        limit=limit,
        unit="kA",
        clause="BS 7671 434.5.1, 536.4.201",
        working=(line,),
        detail=f"{known.source}, against the {source}",
        otherwise=Verdict.FALLS_SHORT if known.measured else Verdict.NEEDS,
        waits_for="reading",
        mend="Use a device of higher breaking capacity, or a board rated with the cut-out fuse.",
    )
