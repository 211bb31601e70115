"""What a job needs to be bought, worked out from its design: cable, fixings, glands, boxes, devices, groundwork.

Quantities are rounded up to what is sold. How much waste and slack to add is common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import suppress
from math import ceil, pi

from fulmen.core.electrical.cable_fixing import clip_spacing_mm
from fulmen.core.electrical.joints import joints_of
from fulmen.core.electrical.selectivity import device_words
from fulmen.core.errors import TableError
from fulmen.core.findings.words import word
from fulmen.core.installation.installation import Installation, installation_of
from fulmen.core.materials.prices import PriceLine, PriceList, cable_key, shipped_items
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure
from fulmen.core.model.base import Part
from fulmen.core.model.cables import Cable, Protective
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import DeviceKind, Guard, GuardKind, RcdMark, RcdType
from fulmen.core.model.job import Job
from fulmen.core.model.route import IN_GROUND, ON_CLIPS, Section, Surroundings, WayMade
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.cable_catalogue import CableRecord, cable_of

END_M, WASTE_SHARE, BED_M, ROD_WIRE_M = 0.5, 0.05, 0.15, 3.0
BAG_KG, CONCRETE_KG_PER_M3 = 20.0, 2000.0
# Largest overall diameter that a gland takes, by its size; usual figures, makers differ.
GLANDS_MM = (("20s", 15.9), ("20", 20.9), ("25", 26.2), ("32", 33.9))
LARGEST_GLAND = GLANDS_MM[-1][0]
CLOSEST_CLIPS_MM = 250.0
LABELS = "circuit chart, RCD test notice, earth connection, isolation, open-PEN arrangement"
SOLID_COPPER_KG = 8.96e-3
STEEL_KG = 7.85e-3


class Material(Part):
    """One thing to buy or do: how much of it, and where that comes from."""

    key: str
    name: str
    quantity: float
    unit: str
    why: str


class MaterialLine(Part):
    """A material with its price and working time; None where the price list has no such line."""

    material: Material
    price: float | None
    work_min: float | None
    invented: bool


class MaterialsList(Part):
    """Everything, with what it comes to. `unpriced` items are in no sum."""

    lines: tuple[MaterialLine, ...]
    price: float
    work_min: float
    unpriced: int
    invented: bool


def materials_list(job: Job, prices: PriceList) -> MaterialsList:
    """Every material of a job with its price and working time."""
    by_key = {line.key: line for line in prices.lines}
    lines = tuple(_priced(one, by_key.get(one.key)) for one in materials(job))
    return MaterialsList(
        lines=lines,
        price=sum(line.price or 0.0 for line in lines),
        work_min=sum(line.work_min or 0.0 for line in lines),
        unpriced=sum(line.price is None for line in lines),
        invented=any(line.invented for line in lines),
    )


def _priced(material: Material, line: PriceLine | None) -> MaterialLine:
    if line is None:
        return MaterialLine(material=material, price=None, work_min=None, invented=False)
    quantity = material.quantity
    return MaterialLine(
        material=material, price=line.price * quantity, work_min=line.work_min * quantity, invented=line.invented
    )


Need = tuple[str, float, str]


def materials(job: Job) -> tuple[Material, ...]:
    """Every material of a job, equal ones added together, in the order of the work from board to car.

    Name and unit of an item are those of the price list that ships.
    """
    totals: dict[str, tuple[float, dict[str, None]]] = {}
    for key, quantity, why in _needs(installation_of(job)):
        before, reasons = totals.get(key, (0.0, {}))
        totals[key] = (before + quantity, reasons | {why: None})
    return tuple(_material(job, key, quantity, "; ".join(reasons)) for key, (quantity, reasons) in totals.items())


def _material(job: Job, key: str, quantity: float, why: str) -> Material:
    name, unit = shipped_items().get(key) or (_own_cable_name(job, key), "m")
    return Material(key=key, name=name, quantity=_sold(quantity, unit), unit=unit, why=why)


def _own_cable_name(job: Job, key: str) -> str:
    """A maker's own cable has no line in the list that ships."""
    names = {
        cable_key(one.id, r.csa_mm2): f"{r.csa_mm2:g} mm² {one.name}" for one in job.maker_cables for r in one.ratings
    }
    return names.get(key, key)


def _sold(quantity: float, unit: str) -> float:
    return round(ceil(quantity * 100 - 1e-6) / 100, 2) if unit == "m³" else float(ceil(quantity - 1e-6))


def _needs(installation: Installation) -> Iterator[Need]:
    job = installation.job
    for circuit in job.circuits:
        if not circuit.fitted_with_this_job:
            continue
        yield from _cable(circuit)
        for section in circuit.route:
            yield from _laid(section, installation.record_of(circuit, section), cable_of(circuit, section))
        yield from _ends(installation, circuit)
        yield from _device(circuit)
    for circuit in job.circuits:
        yield from _boxes(circuit)
    yield from _tails(job)
    yield from _boards(installation)
    yield from _protection(job)
    yield "label", 5.0 * max(1, len(job.charge_points)), LABELS


def stretches(circuit: Circuit) -> list[tuple[Cable, float]]:
    """The pieces of cable along a circuit, from joint to joint, with their length as walked [m]."""
    pieces: list[tuple[Cable, float]] = []
    for section in circuit.route:
        cable = cable_of(circuit, section)
        if pieces and pieces[-1][0] == cable:
            pieces[-1] = (cable, pieces[-1][1] + section.length_m)
        else:
            pieces.append((cable, section.length_m))
    return pieces


def _cable(circuit: Circuit) -> Iterator[Need]:
    pieces = stretches(circuit)
    for number, (cable, length_m) in enumerate(pieces):
        slack_m = 2 * END_M + (circuit.slack_m if number == len(pieces) - 1 else 0.0)
        total_m = (length_m + slack_m) * (1 + WASTE_SHARE)
        why = f"{circuit.name}: {length_m:.1f} m walked, {slack_m:g} m for ends and slack, {WASTE_SHARE:.0%} waste"
        yield cable_key(cable.record, cable.csa_mm2), total_m, why
        if cable.protective is Protective.SEPARATE:
            yield "separate-cpc", total_m, f"{circuit.name}: beside the cable, {cable.separate_csa_mm2 or '?'} mm²"


def _laid(section: Section, record: CableRecord, cable: Cable) -> Iterator[Need]:
    place, with_waste_m = section.surroundings, section.length_m * (1 + WASTE_SHARE)
    if place in ON_CLIPS:
        yield from _clips(section, record, cable)
    made = section.way_made is WayMade.FOR_IT
    if place in IN_GROUND and made:
        yield from _dug(section)
    if section.in_duct and section.way_made is not WayMade.THERE:
        yield "duct", with_waste_m, "for the sections in duct"
    if place is Surroundings.THROUGH_WALL and made:
        yield "wall-hole", 1, "each wall crossed"
    if place is Surroundings.CONDUIT_OR_TRUNKING:
        yield "trunking", with_waste_m, "for the sections in it"
    if place is Surroundings.TRAY:
        yield "tray", with_waste_m, "for the sections on it"
    if place is Surroundings.POST and made:
        hole_m3 = pi / 4 * section.hole_width_m**2 * section.hole_depth_m
        size = f"hole {section.hole_depth_m:g} m deep, {section.hole_width_m:g} m wide: {hole_m3:.3f} m³"
        yield "post-hole", 1, size
        yield "concrete", ceil(hole_m3 * CONCRETE_KG_PER_M3 / BAG_KG), size


def _dug(section: Section) -> Iterator[Need]:
    width_m = section.trench_width_m
    yield "trench", section.length_m, f"{section.dug_m():g} m deep, {width_m:g} m wide"
    yield "sand", section.length_m * width_m * BED_M, f"bed of {BED_M:g} m around the cable, {width_m:g} m wide"
    if section.warning_tape:
        yield "warning-tape", section.length_m * (1 + WASTE_SHARE), "above the cable"


def _clips(section: Section, record: CableRecord, cable: Cable) -> Iterator[Need]:
    spacing_mm = section.clip_spacing_mm
    if spacing_mm is None:
        # A cable whose diameter nobody printed gets the closest clips.
        with suppress(TableError):
            spacing_mm = clip_spacing_mm(record, cable.csa_mm2)
        spacing_mm = spacing_mm or CLOSEST_CLIPS_MM
    key = "clip.armoured" if record.armour else "clip.unarmoured"
    yield key, ceil(section.length_m * 1000 / spacing_mm) + 1, f"every {spacing_mm:g} mm"


def gland_size(record: CableRecord, csa_mm2: float) -> str:
    """The gland of a cable by its usual diameter; measure the cable before buying.

    Raises:
        TableError: no diameter is known, or no gland of the list takes it.
    """
    diameter = record.overall_diameter_mm(csa_mm2)
    found = next((size for size, most_mm in GLANDS_MM if diameter <= most_mm), None)
    if found is None:
        raise TableError(f"no gland of the list takes {diameter:g} mm")
    return found


def _ends(installation: Installation, circuit: Circuit) -> Iterator[Need]:
    """Both ends of every piece of cable: armour glands or plastic ones, ferrules on fine strands; boxes between."""
    point = installation.tree.points.get(circuit.feeds)
    for cable, _ in stretches(circuit):
        record = installation.record(cable)
        if record.armour:
            size = LARGEST_GLAND
            with suppress(TableError):
                size = gland_size(record, cable.csa_mm2)
            yield f"gland.{size}", 2, "both ends of each armoured piece, by usual diameter"
        else:
            yield "gland.plastic", 2, "both ends of each piece without armour"
        if record.fine_strands:
            yield "ferrule", 2 * _cores(record, circuit, point), "every fine-stranded core, both ends"
    if point is not None and point.flex_tail:
        yield "box.flex", 1, "where the unit's flexible tail is joined"
    for joint in joints_of(circuit, installation.cables):
        yield f"box.{joint.kind.removesuffix('_box')}", 1, joint.words


def _cores(record: CableRecord, circuit: Circuit, point: ChargePoint | None) -> int:
    phases = circuit.phases if point is None else point.phase_count
    live = 2 if phases == 1 else 4
    return live if record.cpc == "armour" else live + 1


def metal_kg_per_m(record: CableRecord, csa_mm2: float, phases: int) -> float:
    """Copper and steel in a metre of cable [kg/m]: cores of full size, the protective core of its own, the armour."""
    live = 2 if phases == 1 else 4
    cpc_mm2 = 0.0 if record.cpc == "armour" else record.cpc_mm2(csa_mm2)
    copper = (live * csa_mm2 + cpc_mm2) * SOLID_COPPER_KG
    return copper + (record.armour_mm2(csa_mm2) * STEEL_KG if record.armour else 0.0)


def _device(circuit: Circuit) -> Iterator[Need]:
    device, why = circuit.device, f"{circuit.name}, {device_words(circuit.device)}"
    if device.kind is DeviceKind.MOULDED_CASE:
        yield "moulded-case", 1, why
    elif device.kind is not DeviceKind.BREAKER:
        yield "fused-switch", 1, why
    elif device.rcd is None:
        yield "breaker", 1, why
    if device.rcd is not None:
        yield f"rcbo.{_type(device.rcd)}", 1, why


def _boards(installation: Installation) -> Iterator[Need]:
    boards, fed = installation.job.boards, installation.tree.feeders
    at_origin = [board for board in boards if board.id not in fed]
    for board in boards:
        for guard in (*board.incomer, *(guard for group in board.groups for guard in group.guards)):
            yield from _guard(guard, board.name, with_board=board.fitted_with_this_job)
        if not board.fitted_with_this_job:
            continue
        yield "board.small", 1, board.name
        if board.surge_protection is Seen.YES:
            yield "surge", 1, board.name
        if board.id not in fed and len(at_origin) > 1:
            yield "connector-block", 3, f"tails split for {board.name}"


def _tails(job: Job) -> Iterator[Need]:
    """New stretches of the tails: a line and a neutral conductor each, with something for the ends."""
    for one in job.supply.tails:
        if one.fitted_with_this_job:
            yield "tails", 2 * ((one.length_m or 0.0) + END_M), f"to the {word(one.ends_at)}"


def _boxes(circuit: Circuit) -> Iterator[Need]:
    """Boxes along a circuit with what they hold; an open-PEN device comes in its own enclosure."""
    for box in circuit.boxes:
        if box.fitted_with_this_job and any(one.kind is GuardKind.RCCB for one in box.guards):
            yield "box.guards", 1, box.name
        for guard in box.guards:
            yield from _guard(guard, box.name, with_board=False)


GUARD_ITEMS = {GuardKind.OPEN_PEN_DEVICE: "pen-device", GuardKind.DC_DETECTOR: "rdc-dd"}


def _guard(guard: Guard, where: str, *, with_board: bool) -> Iterator[Need]:
    """A guard to buy; a new board brings its main switch."""
    if not guard.fitted_with_this_job or (guard.kind is GuardKind.SWITCH and with_board):
        return
    if guard.kind is GuardKind.RCCB:
        yield f"rccb.{_type(guard.rcd)}", 1, where
    elif guard.kind is GuardKind.SWITCH:
        yield "main-switch", 1, where
    else:
        yield GUARD_ITEMS[guard.kind], 1, where


def _protection(job: Job) -> Iterator[Need]:
    """Electrodes that an arrangement asks for, each car's own once."""
    if job.supply.earthing is Earthing.TT:
        return
    for point in job.charge_points:
        if point.arrangement.car_earth is CarEarth.OWN_ELECTRODE:
            yield from _rods(1, "the car's own electrode; more may be needed, see the electrode's page")
    on_house_earth = [one.arrangement for one in job.charge_points if one.arrangement.car_earth is CarEarth.HOUSE_EARTH]
    if any(one.open_pen is OpenPenMeasure.LOW_ELECTRODE for one in on_house_earth):
        yield from _rods(4, "a low electrode takes several rods, see the electrode's page")


def _rods(count: int, why: str) -> Iterator[Need]:
    yield "rod", count, why
    yield "earth-wire", count * ROD_WIRE_M, f"to {'the rod' if count == 1 else 'the rods'}"


def _type(mark: RcdMark | None) -> str:
    """The type of an RCD to buy, by its item's key; Type A until it is chosen."""
    return (mark.type if mark is not None and mark.type is not None else RcdType.A).value.lower()
