"""What a job needs to be bought, worked out from its design: cable, fixings, glands, boxes, devices, groundwork.

Quantities are rounded up to what is sold. How much waste and slack to add is common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil, pi

from fulmen.core.catalogue import CableRecord, cable_of, cable_record
from fulmen.core.errors import TableError
from fulmen.core.joints import joints_of
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.base import Part
from fulmen.core.model.cables import Cable
from fulmen.core.model.circuits import Circuit, DeviceKind
from fulmen.core.model.job import Job
from fulmen.core.model.route import Section, Surroundings
from fulmen.core.model.supply import Earthing, Seen
from fulmen.core.practice import IN_GROUND, ON_CLIPS, clip_spacing_mm
from fulmen.core.prices import PriceList, cable_key

END_M, WASTE_SHARE, BED_M, ROD_WIRE_M = 0.5, 0.05, 0.15, 3.0
BAG_KG, CONCRETE_KG_PER_M3 = 20.0, 2000.0
# Largest overall diameter that a gland takes, by its size; usual figures, makers differ.
GLANDS_MM = (("20s", 15.9), ("20", 20.9), ("25", 26.2), ("32", 33.9))
FINE_STRANDED = ("ev-power-data", "tough-sheathed")
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
    lines = tuple(_priced(one, prices) for one in materials(job, prices))
    return MaterialsList(
        lines=lines,
        price=sum(line.price or 0.0 for line in lines),
        work_min=sum(line.work_min or 0.0 for line in lines),
        unpriced=sum(line.price is None for line in lines),
        invented=any(line.invented for line in lines),
    )


def _priced(material: Material, prices: PriceList) -> MaterialLine:
    line = prices.line(material.key)
    if line is None:
        return MaterialLine(material=material, price=None, work_min=None, invented=False)
    quantity = material.quantity
    return MaterialLine(
        material=material, price=line.price * quantity, work_min=line.work_min * quantity, invented=line.invented
    )


Need = tuple[str, str, float, str, str]


def materials(job: Job, prices: PriceList) -> tuple[Material, ...]:
    """Every material of a job, equal ones added together, in the order of the work from board to car."""
    needs: dict[str, Material] = {}
    for key, name, quantity, unit, why in _needs(job):
        line, before = prices.line(key), needs.get(key)
        words = line.name if line is not None else name
        total = quantity + (before.quantity if before is not None else 0.0)
        reasons = [before.why] if before is not None else []
        told = "; ".join(dict.fromkeys([*reasons, why]))
        needs[key] = Material(key=key, name=words, quantity=total, unit=unit, why=told)
    return tuple(one.model_copy(update={"quantity": _sold(one.quantity, one.unit)}) for one in needs.values())


def _sold(quantity: float, unit: str) -> float:
    return round(ceil(quantity * 100 - 1e-6) / 100, 2) if unit == "m³" else float(ceil(quantity - 1e-6))


def _needs(job: Job) -> Iterator[Need]:
    for circuit in job.circuits:
        yield from _cable(job, circuit)
        for section in circuit.route:
            yield from _laid(section, cable_record(cable_of(circuit, section).record, job), cable_of(circuit, section))
        yield from _ends(job, circuit)
        yield from _device(circuit)
    yield from _boards(job)
    yield from _protection(job)
    yield from _labels(job)


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


def _cable(job: Job, circuit: Circuit) -> Iterator[Need]:
    pieces = stretches(circuit)
    for number, (cable, length_m) in enumerate(pieces):
        slack_m = 2 * END_M + (circuit.slack_m if number == len(pieces) - 1 else 0.0)
        total_m = (length_m + slack_m) * (1 + WASTE_SHARE)
        record = cable_record(cable.record, job)
        why = f"{circuit.name}: {length_m:.1f} m walked, {slack_m:g} m for ends and slack, {WASTE_SHARE:.0%} waste"
        yield cable_key(cable.record, cable.csa_mm2), f"{cable.csa_mm2:g} mm² {record.name}", total_m, "m", why


def _laid(section: Section, record: CableRecord, cable: Cable) -> Iterator[Need]:
    place, length_m = section.surroundings, section.length_m
    if place in ON_CLIPS:
        yield from _clips(section, record, cable)
    if place in IN_GROUND:
        yield "trench", "trench", length_m, "m", f"{section.depth_m:g} m deep, {section.trench_width_m:g} m wide"
        sand_m3 = length_m * section.trench_width_m * BED_M
        yield "sand", "sand", sand_m3, "m³", f"bed of {BED_M:g} m around the cable, {section.trench_width_m:g} m wide"
        if section.warning_tape:
            yield "warning-tape", "warning tape", length_m * (1 + WASTE_SHARE), "m", "above the cable"
    if section.in_duct:
        yield "duct", "duct", length_m * (1 + WASTE_SHARE), "m", "for the sections in duct"
    if place is Surroundings.THROUGH_WALL:
        yield "wall-hole", "hole through a wall", 1, "piece", "each wall crossed"
    if place is Surroundings.CONDUIT_OR_TRUNKING:
        yield "trunking", "conduit or trunking", length_m * (1 + WASTE_SHARE), "m", "for the sections in it"
    if place is Surroundings.TRAY:
        yield "tray", "tray", length_m * (1 + WASTE_SHARE), "m", "for the sections on it"
    if place is Surroundings.POST:
        hole_m3 = pi / 4 * section.hole_width_m**2 * section.hole_depth_m
        bags = hole_m3 * CONCRETE_KG_PER_M3 / BAG_KG
        size = f"hole {section.hole_depth_m:g} m deep, {section.hole_width_m:g} m wide: {hole_m3:.3f} m³"
        yield "post-hole", "hole for a post", 1, "piece", size
        yield "concrete", "concrete", ceil(bags), "bag", size


def _clips(section: Section, record: CableRecord, cable: Cable) -> Iterator[Need]:
    spacing_mm = section.clip_spacing_mm
    if spacing_mm is None:
        try:
            spacing_mm = clip_spacing_mm(record, cable.csa_mm2)
        except TableError:
            return
    key = "clip.armoured" if record.armour else "clip.unarmoured"
    yield key, "clip", ceil(section.length_m * 1000 / spacing_mm) + 1, "piece", f"every {spacing_mm:g} mm"


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


def _ends(job: Job, circuit: Circuit) -> Iterator[Need]:
    """Both ends of every piece of cable: armour glands or plastic ones, ferrules on fine strands; boxes between."""
    for cable, _ in stretches(circuit):
        record = cable_record(cable.record, job)
        if record.armour:
            try:
                size = gland_size(record, cable.csa_mm2)
            except TableError:
                size = "32"
            yield f"gland.{size}", f"gland {size}", 2, "kit", "both ends of each armoured piece, by usual diameter"
        else:
            yield "gland.plastic", "plastic gland", 2, "piece", "both ends of each piece without armour"
        if cable.record in FINE_STRANDED:
            yield "ferrule", "ferrule", 2 * _cores(record, circuit, job), "piece", "every fine-stranded core, both ends"
    for joint in joints_of(circuit, job):
        yield f"box.{joint.kind.removesuffix('_box')}", joint.name, 1, "piece", joint.words


def _cores(record: CableRecord, circuit: Circuit, job: Job) -> int:
    point = next((one for one in job.charge_points if one.id == circuit.feeds), None)
    phases = circuit.phases if point is None else point.phases
    live = 2 if phases == 1 else 4
    return live if record.cpc == "armour" else live + 1


def metal_kg_per_m(record: CableRecord, csa_mm2: float, phases: int) -> float:
    """Copper and steel in a metre of cable [kg/m]: cores of full size, the protective core of its own, the armour."""
    live = 2 if phases == 1 else 4
    cpc_mm2 = 0.0 if record.cpc == "armour" else record.cpc_mm2(csa_mm2)
    copper = (live * csa_mm2 + cpc_mm2) * SOLID_COPPER_KG
    return copper + (record.armour_mm2(csa_mm2) * STEEL_KG if record.armour else 0.0)


def _device(circuit: Circuit) -> Iterator[Need]:
    device = circuit.device
    if device.kind is not DeviceKind.BREAKER:
        yield "fused-switch", "fused switch", 1, "piece", f"{circuit.name}, {device.rating_a} A"
    elif device.rcd is None:
        yield "breaker", "circuit-breaker", 1, "piece", f"{circuit.name}, {device.curve.value}{device.rating_a}"
    else:
        kind = device.rcd.type.value
        yield f"rcbo.{kind.lower()}", "RCBO", 1, "piece", f"{circuit.name}, {device.curve.value}{device.rating_a}"
    if device.rcd is not None and device.kind is not DeviceKind.BREAKER:
        yield f"rcbo.{device.rcd.type.value.lower()}", "RCD", 1, "piece", f"with the fused switch of {circuit.name}"


def _boards(job: Job) -> Iterator[Need]:
    fed = {circuit.feeds for circuit in job.circuits}
    at_origin = [board for board in job.boards if board.id not in fed]
    for board in job.boards:
        if not board.fitted_with_this_job:
            continue
        yield "board.small", "small board", 1, "piece", board.name
        if board.surge_protection is Seen.YES:
            yield "surge", "surge protective device", 1, "piece", board.name
        if board.id not in fed and len(at_origin) > 1:
            yield "connector-block", "connector block", 3, "piece", f"tails split for {board.name}"
            yield "tails", "tails", 6, "m", f"tails split for {board.name}"


def _protection(job: Job) -> Iterator[Need]:
    arrangement = job.arrangement
    tt = job.supply.earthing is Earthing.TT
    if arrangement.car_earth is CarEarth.OWN_ELECTRODE and not tt:
        yield "rod", "earth rod", 1, "piece", "the car's own electrode; more may be needed, see the electrode's page"
        yield "earth-wire", "earthing conductor", ROD_WIRE_M, "m", "to the rod"
    elif arrangement.open_pen is OpenPenMeasure.SEPARATE_DEVICE and not tt:
        yield "pen-device", "open-PEN device", len(job.charge_points), "piece", "before each charge point"
    elif arrangement.open_pen is OpenPenMeasure.LOW_ELECTRODE and not tt:
        yield "rod", "earth rod", 4, "piece", "a low electrode takes several rods, see the electrode's page"
        yield "earth-wire", "earthing conductor", 4 * ROD_WIRE_M, "m", "to the rods"
    if arrangement.rdc_dd is RdcDdPlace.BEFORE_UNIT:
        yield "rdc-dd", "6 mA DC detection", len(job.charge_points), "piece", "before each charge point"


def _labels(job: Job) -> Iterator[Need]:
    each = "circuit chart, RCD test notice, earth connection, isolation, open-PEN arrangement"
    yield "label", "label", 5 * max(1, len(job.charge_points)), "piece", each
