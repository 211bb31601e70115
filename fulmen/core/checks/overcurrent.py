"""Load, device and cable of every circuit on the way: Ib ≤ In ≤ Iz, the maker's device range, breaking capacity."""

from __future__ import annotations

from typing import get_args

from fulmen.core.checks.common import current_unknown
from fulmen.core.circuit.fitness import maker_takes
from fulmen.core.circuit.laid_cable import cable_per_metre
from fulmen.core.circuit.margins import breaking_margin, capacity_margin, load_margin, rated_at_70, terminal_margin
from fulmen.core.circuit.run_figures import Case, CircuitFigures
from fulmen.core.electrical.cable_rating import (
    TERMINALS_C,
    SectionRating,
    lends_duct_column,
    neighbours_share,
)
from fulmen.core.electrical.selectivity import device_words
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import Finding, Verdict, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.run import (
    CABLE_SIZE,
    DEVICE_KIND,
    EXISTING_CIRCUIT,
    MAKER_DEVICE,
    WEAKEST_SECTION,
)
from fulmen.core.findings.words import word
from fulmen.core.installation.tree import ChainCircuit
from fulmen.core.installation.unseen import not_seen_of
from fulmen.core.model.cables import Protective
from fulmen.core.model.guards import Device, DeviceKind, DeviceRatingA
from fulmen.core.model.seen import Seen
from fulmen.core.reference.cable_catalogue import cables_of

RATINGS_A: tuple[int, ...] = get_args(get_args(DeviceRatingA)[0])


def overcurrent_findings(case: Case) -> list[Finding]:
    """Every finding about current, for each circuit of the run."""
    if not case.run.chain:
        return []
    findings: list[Finding | None] = [] if case.to_loads else [_maker(case)]
    for chained in case.new_circuits:
        findings.append(existing_circuit_finding(case, chained))
        findings.extend([_size_made(case, chained), _device_kind(case, chained)])
    for figures in case.new_figures:
        findings.extend([_load(case, figures), _weakest_section(case, figures), _terminals(case, figures)])
        findings.append(_breaking_capacity(case, figures))
    return [finding for finding in findings if finding is not None]


def _size_made(case: Case, chained: ChainCircuit) -> Finding | None:
    for cable in cables_of(chained.circuit):
        record = case.installation.record(cable)
        if cable.protective is Protective.SEPARATE and cable.separate_csa_mm2 is None:
            asked = ask(CABLE_SIZE, case.rules, chained.circuit.id)
            return asked.needs_fact("Enter the size of the protective conductor that runs beside the cable.")
        if cable.csa_mm2 not in record.sizes_mm2:
            sizes = ", ".join(f"{size:g}" for size in record.sizes_mm2)
            return ask(CABLE_SIZE, case.rules, chained.circuit.id).falls_short(
                f"The record of {record.name} holds {sizes} mm² only.", remedy="Choose a size of the record."
            )
        if any(own.id == record.id and own.fine_strands is None for own in case.job.maker_cables):
            asked = ask(CABLE_SIZE, case.rules, chained.circuit.id)
            return asked.needs_fact(f"Has {record.name} fine-strand cores? They resist more, and want ferrules.")
        try:
            cable_per_metre(record, cable)
        except TableError as error:
            asked = ask(CABLE_SIZE, case.rules, chained.circuit.id)
            return asked.needs_fact(f"No figure for {cable.csa_mm2:g} mm² of {record.name}: ask its maker ({error}).")
    return None


def _device_kind(case: Case, chained: ChainCircuit) -> Finding | None:
    """A rewirable fuse needs so much cable and so much time that this circuit refuses it (Cf 0.725); what goes by its
    maker's figures names the paper that they are from.
    """
    device, asked = chained.circuit.device, ask(DEVICE_KIND, case.rules, chained.circuit.id)
    if device.by_maker and not device.maker_source:
        return asked.needs_fact(f"From which paper are the figures of the {device_words(device)}?")
    if device.kind is not DeviceKind.REWIRABLE:
        return None
    return asked.falls_short(
        "A rewirable fuse melts late: the cable would count at 72.5 %, and no let-through energy is known.",
        remedy="Use a circuit-breaker or a gG fuse.",
    )


def _load(case: Case, chained: CircuitFigures) -> Finding:
    margin, load = load_margin(chained), chained.load
    lines = [
        WorkingLine(symbol="I car", value=load.car_a, decimals=0, unit="A", source="no diversity, BS 7671 722.311.201")
    ]
    if case.to_loads:
        lines = []
    if not chained.final or case.to_loads:
        lines.append(WorkingLine(symbol="I others", value=load.other_a, decimals=1, unit="A", source="with diversity"))
        held = chained.circuit.load_limit_a
        formula = "I car + I others" if held is None else "min(I car + I others, max(load limit, I others))"
        lines.append(WorkingLine(symbol="Ib", formula=formula, value=load.ib_a, decimals=1, unit="A"))
    what = "charging runs for hours" if chained.final else "cars in full, the other loads of its boards with diversity"
    remedy = f"Use a device of at least {chained.ib_a:g} A, or turn the charge point down."
    if chained.final and case.to_loads:
        what, remedy = "its loads with diversity", "Use a bigger device and cable, or put less on the circuit."
    if chained.final and current_unknown(case):
        what = f"look up what the unit takes; {chained.ib_a:g} A is reckoned until then"
    device = "Device" if chained.final else "Sub-main's device"
    return ask(margin.rule, case.rules, margin.subject, device=device).judged(
        value=margin.value,
        unit="A",
        decimals=0 if chained.final else 1,
        limit=margin.limit,
        working=tuple(lines),
        detail=f"Ib against In; {what}",
        remedy=remedy if chained.final else "Use a bigger device and cable, or hold the load with a clamp.",
        holding=Verdict.NEEDS if chained.final and current_unknown(case) else Verdict.MEETS,
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
    unit_a = point.design_current_a()
    asked = ask(MAKER_DEVICE, case.rules, case.subject, rating_a=str(rating), unit_a=f"{unit_a:g}")
    takes = maker_takes(point, rating)
    if takes is Seen.NOT_SEEN or point.device_min_a is None:
        return asked.needs_fact("Look up which device ratings the unit's maker allows.")
    allowed = f"The maker allows {point.device_min_a:g} to {point.device_max_a:g} A"
    if takes is Seen.NO:
        return asked.falls_short(f"{allowed}.", remedy="Choose a device in the maker's range.")
    least = least_rating_a(max(unit_a, point.device_min_a))
    if least is not None and rating > least:
        basis = {"min_a": point.device_min_a, "max_a": point.device_max_a, "least_a": least, "rating_a": rating}
        return asked.your_call(f"{allowed}; {least} A would do. Say why the bigger one.", basis=basis)
    return asked.meets(f"{allowed}.")


def _weakest_section(case: Case, chained: CircuitFigures) -> Finding:
    circuit, margin = chained.circuit, capacity_margin(chained)
    rating_a = f"{chained.least_iz_a:g}"
    for number, section in enumerate(chained.sections, 1):
        if section.rating.iz_a is None:
            detail = f"Section {number}: {section.rating.why_unrated} Choose another method or cable, or ask its maker."
            unrated = ask(WEAKEST_SECTION, case.rules, circuit.id, variant="unrated", rating_a=rating_a)
            return unrated.needs_fact(detail)
    assert margin is not None and chained.laid.weakest is not None
    weakest = chained.sections[chained.laid.weakest]
    where, method = word(weakest.section.surroundings), weakest.rating.method.value
    place = f"section {chained.laid.weakest + 1}, {where}, method {method}"
    open_ones = _not_said(chained)
    lent = [
        f"section {number}"
        for number, one in enumerate(chained.sections, 1)
        if lends_duct_column(one.section, one.metre.record)
    ]
    taken = f"; {' and '.join(lent)} by the D column of another cable of its insulation: ask the maker" if lent else ""
    taken += "".join(
        f"; section {number}: method {one.rating.overruled.value} is kinder than its place, "
        f"{word(one.section.surroundings)}, allows: {one.rating.method.value} rates it"
        for number, one in enumerate(chained.sections, 1)
        if one.rating.overruled is not None
    )
    return ask(margin.rule, case.rules, margin.subject, rating_a=rating_a).judged(
        value=margin.value,
        limit=margin.limit,
        unit="A",
        decimals=1,
        at_least=True,
        working=weakest.rating.working(),
        detail=open_ones or place + (", rated from the 70 °C table" if rated_at_70(chained) else "") + taken,
        remedy="Use a bigger cable, ease the weakest section, or use a smaller device.",
        holding=Verdict.NEEDS if open_ones else Verdict.YOUR_CALL if lent else Verdict.MEETS,
        basis={"lent": tuple(lent)} if lent else {},
    )


RATES = {
    "grouped_circuits": "how many circuits lie together",
    "insulation_mm": "how much insulation it passes",
    "depth_m": "how deep it lies",
}


def _not_said(chained: CircuitFigures) -> str:
    """What nobody has said yet that could rate a section lower; empty where all is said."""
    found = [
        f"section {number}: {' and '.join(RATES[name] for name in unknown)}"
        for number, one in enumerate(chained.sections, 1)
        if (unknown := [name for name in one.section.unknown() if name in RATES])
    ]
    return f"Say for {'; '.join(found)}." if found else ""


def existing_circuit_finding(case: Case, chained: ChainCircuit) -> Finding | None:
    """What was there already is judged by what was seen of it: nothing of it meets before somebody looked."""
    circuit = chained.circuit
    if circuit.fitted_with_this_job:
        return None
    asked = ask(EXISTING_CIRCUIT, case.rules, circuit.id)
    if circuit.looked_at is not Seen.YES:
        return asked.needs_fact(f"Look at {circuit.name}: its device, its cable and the way it takes.")
    open_ones = not_seen_of(case.job, case.job.circuits.index(circuit))
    if open_ones:
        return asked.needs_fact(f"Not seen yet of {circuit.name}: {', '.join(open_ones)}.")
    return asked.meets("Device and cable as found.")


def _terminals(case: Case, chained: CircuitFigures) -> Finding | None:
    """The hottest conductor at the design current against 70 °C terminals; only 90 °C cable can pass it."""
    margin = terminal_margin(chained, case.rules)
    if margin is None or chained.laid.hottest_end is None:
        return None
    rating = chained.laid.hottest_end[1].rating
    assert rating.iz_a is not None
    line = WorkingLine(
        symbol="θ",
        formula="θamb + (θp − θr)·((Cg·Ib/Iz)² + q·(1 − Cg²))" if rating.cg < 1 else "θamb + (θp − θr)·(Ib/Iz)²",
        decimals=0,
        unit="°C",
        value=margin.value,
        figures=_temperature_figures(chained.ib_a, rating),
        source=f"θr: Iz is for {rating.rated_c:g} °C around the cable"
        + ("; q: its neighbours, whose terminals stand 70 °C too, Appendix 4 §6.1" if rating.cg < 1 else ""),
    )
    school = (
        "the 70 °C table rates the cable" if rated_at_70(chained) else "the other school rates it from the 70 °C table"
    )
    waits = current_unknown(case) or bool(_not_said(chained))
    return ask(margin.rule, case.rules, margin.subject, terminal_c=f"{margin.limit:g}").judged(
        value=margin.value,
        holding=Verdict.NEEDS if waits else Verdict.MEETS,
        limit=margin.limit,
        unit="°C",
        decimals=0,
        detail=f"hottest section that ends at a terminal, at the load current; {school}",
        working=(line,),
        remedy="Use a bigger cable, so that it runs cooler.",
    )


def _temperature_figures(ib_a: float, rating: SectionRating) -> str:
    share = f"({ib_a:g}/{rating.iz_a:.1f})²"
    if rating.cg < 1:
        q = neighbours_share(rating.ambient_c, rating.operating_c - rating.rated_c, TERMINALS_C)
        share = f"(({rating.cg:g}·{ib_a:g}/{rating.iz_a:.1f})² + {q:.2f}·(1 − {rating.cg:g}²))"
    return f"{rating.ambient_c:g} + ({rating.operating_c:g} − {rating.rated_c:g})·{share}"


def breaks_words(device: Device, *, own: bool) -> str:
    """Where the breaking capacity comes from."""
    if device.kind is DeviceKind.FUSE:
        return "gG fuse's least breaking capacity"
    if device.kind is DeviceKind.MOULDED_CASE and own:
        return "device's own Icu"
    return "device's own Icn" if own else "board's conditional rating with the cut-out fuse"


def _breaking_capacity(case: Case, chained: CircuitFigures) -> Finding:
    assert case.figures is not None
    known, margin, first = case.figures.fault, breaking_margin(chained), chained.in_chain is case.run.chain[0]
    device = chained.device
    source = breaks_words(device, own=margin.limit == device.breaking_capacity_ka)
    three = " three-phase, about twice line to neutral" if chained.start_fault_ka > known.value else ""
    where = known.source + three if first else f"{known.source} at the origin, less the cable before{three}"
    line = WorkingLine(symbol="Ipf", value=margin.value, unit="kA", source=where)
    return ask(margin.rule, case.rules, margin.subject).judged(
        value=margin.value,
        limit=margin.limit,
        unit="kA",
        working=(line,),
        detail=f"{where}, against the {source}",
        otherwise=Verdict.FALLS_SHORT if known.measured else Verdict.NEEDS,
        waits_for="reading",
        remedy="Use a device of higher breaking capacity, or a board rated with the cut-out fuse.",
    )
