"""Writing a route as it is walked: from shorthand, by splitting a section and by joining two.

Shorthand is a letter for the surroundings and a length, in the order of walking: ``u4.2 t.4 c12s d5.5``. A length that
ends in ``s`` is in steps.
"""

from __future__ import annotations

import re

from fulmen.core.editing.changes import Change
from fulmen.core.errors import InputError
from fulmen.core.findings.words import word
from fulmen.core.model.cables import Cable
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.job import Job
from fulmen.core.model.route import (
    IN_GROUND,
    IN_INSULATION,
    ON_CLIPS,
    USUAL_DEPTH_M,
    Fixings,
    LengthBy,
    Section,
    Surroundings,
    WayMade,
)
from fulmen.core.model.seen import Seen
from fulmen.core.reference.cable_catalogue import CableRecord, cable_of, cable_record, cables_for
from fulmen.core.reference.places import methods_in, places

STRETCH = re.compile(r"^([a-z])([0-9]*[.,]?[0-9]+)(s?)$")
LEAST_M, MOST_M, MOST_SECTIONS = 0.1, 500.0, 200


def section_in(surroundings: Surroundings, length_m: float, by: LengthBy, *, fitted: bool = True) -> Section:
    """A new section in a place.

    What we will fit starts at the usual choice; what is there already, or there anyway, is not known until it is said.
    """
    return Section(
        surroundings=surroundings,
        length_m=length_m,
        length_by=by,
        insulation_mm=None if surroundings in IN_INSULATION else 0.0,
        in_duct=surroundings is Surroundings.DUCT,
    ).model_copy(update=usual_choices(surroundings) if fitted else {})


def usual_choices(surroundings: Surroundings) -> dict[str, object]:
    """What is usually fitted in a place: depth and tape in the ground, metal clips, a sealed hole."""
    found: dict[str, object] = {}
    if surroundings in IN_GROUND:
        found |= {"depth_m": USUAL_DEPTH_M, "warning_tape": True}
    if surroundings in ON_CLIPS:
        found["fixings"] = Fixings.METAL
    if surroundings is Surroundings.THROUGH_WALL:
        found["fire_stopped"] = True
    return found


def surrounded(section: Section, surroundings: Surroundings, *, fitted: bool = True) -> Section:
    """A section moved into other surroundings: method, duct and insulation follow, the rest stays."""
    fresh = section_in(surroundings, section.length_m, section.length_by, fitted=fitted)
    follows = {"method": None, "in_duct": fresh.in_duct, "insulation_mm": fresh.insulation_mm}
    chosen = {
        name: value for name, value in usual_choices(surroundings).items() if fitted and getattr(section, name) is None
    }
    return section.model_copy(update={"surroundings": surroundings, **follows, **chosen})


def route_from_shorthand(text: str, job: Job, circuit: Circuit) -> tuple[Section, ...]:
    """The sections that a shorthand text says.

    Args:
        text: stretches apart by spaces, such as ``u4.2 t.4 c12s``.
        job: its stride turns steps to metres.
        circuit: whether it is fitted with this job says which facts start at the usual choice.

    Raises:
        InputError: a stretch can't be read, is too short or too long, or there are too many; it says which.
    """
    stretches = text.lower().split()
    if not stretches:
        raise InputError("text", "Write at least one stretch, such as u4.2 for 4.2 m under the floor.")
    if len(stretches) > MOST_SECTIONS:
        raise InputError("text", f"A route has at most {MOST_SECTIONS} sections; you wrote {len(stretches)}.")
    letters = {place.letter: surroundings for surroundings, place in places().items()}
    fitted = circuit.fitted_with_this_job
    return tuple(_stretch(one, letters, job.site.stride_m, fitted=fitted) for one in stretches)


def _stretch(text: str, letters: dict[str, Surroundings], stride_m: float, *, fitted: bool) -> Section:
    found = STRETCH.match(text)
    if found is None or found[1] not in letters:
        known = ", ".join(f"{letter} {word(one)}" for letter, one in letters.items())
        raise InputError("text", f"“{text[:20]}” can't be read: a letter and a length, such as c3.5. Letters: {known}.")
    number, steps = float(found[2].replace(",", ".")), found[3] == "s"
    length_m = round(number * stride_m, 1) if steps else number
    if not LEAST_M <= length_m <= MOST_M:
        raise InputError("text", f"“{text[:20]}” is {length_m:g} m; a section is {LEAST_M:g} to {MOST_M:g} m long.")
    return section_in(letters[found[1]], length_m, LengthBy.STEPS if steps else LengthBy.TAPE, fitted=fitted)


def split_section(route: tuple[Section, ...], index: int, at_m: float) -> tuple[Section, ...]:
    """The route with one section cut in two, everything else of it kept on both sides.

    Raises:
        InputError: there is no such section, or a side would be shorter than 0.1 m.
    """
    section = _at(route, index)
    rest_m = round(section.length_m - at_m, 6)
    if at_m < LEAST_M or rest_m < LEAST_M:
        most_m = section.length_m - LEAST_M
        raise InputError("at_m", f"Section {index + 1} is {section.length_m:g} m; cut it between 0.1 and {most_m:g} m.")
    first = section.model_copy(update={"length_m": at_m})
    second = section.model_copy(update={"length_m": rest_m, "joint_accessible": Seen.NOT_SEEN})
    return (*route[:index], first, second, *route[index + 1 :])


def join_sections(route: tuple[Section, ...], index: int) -> tuple[Section, ...]:
    """The route with one section and the next, laid alike, made one with the harsher of their other facts.

    Sections laid in different ways are refused: one of them would vanish with what it asks for.

    Raises:
        InputError: there is no next section, or they differ in cable, surroundings, method, duct or depth.
    """
    first, second = _at(route, index), _at(route, index + 1)
    differs = _laid_apart(first, second)
    if differs:
        raise InputError("index", f"Sections {index + 1} and {index + 2} differ in {differs}: make them alike first.")
    length_m = round(first.length_m + second.length_m, 6)
    if length_m > MOST_M:
        raise InputError("index", f"Together they are {length_m:g} m; a section is at most {MOST_M:g} m long.")
    joined = first.model_copy(update={"length_m": length_m, **_harsher(first, second)})
    return (*route[:index], joined, *route[index + 2 :])


def _laid_apart(first: Section, second: Section) -> str:
    """What two sections differ in that one section can't have both of, in words; empty where they are laid alike."""
    buried = first.surroundings in IN_GROUND or second.surroundings in IN_GROUND
    differences = (
        ("cable", first.cable != second.cable),
        ("surroundings", first.surroundings is not second.surroundings),
        ("reference method", first.method is not second.method),
        ("duct", first.in_duct != second.in_duct),
        ("depth in the ground", buried and first.depth_m != second.depth_m),
    )
    return ", ".join(words for words, differ in differences if differ)


def _harsher(first: Section, second: Section) -> dict[str, object]:
    """Of two sections the facts that rate a cable lower or ask more of who lays it."""
    known = _known(first.temperature_c, second.temperature_c)
    reference = 20.0 if first.surroundings in IN_GROUND else 30.0
    hottest = None if not known else max(*known, *([reference] if len(known) == 1 else []), known[0])
    paced = LengthBy.STEPS in (first.length_by, second.length_by)
    plastic = Fixings.PLASTIC in (first.fixings, second.fixings)
    zones = {first.in_zone, second.in_zone}
    return {
        "length_by": LengthBy.STEPS if paced else LengthBy.TAPE,
        "temperature_c": hottest,
        "grouped_circuits": _harsh(first.grouped_circuits, second.grouped_circuits),
        "single_layer": first.single_layer and second.single_layer,
        "insulation_mm": _harsh(first.insulation_mm, second.insulation_mm),
        "soil_km_per_w": max(first.soil_km_per_w, second.soil_km_per_w),
        "under_drive": _either((first.under_drive, second.under_drive), harsh=True),
        "metal_frame": _either((first.metal_frame, second.metal_frame), harsh=True),
        "warning_tape": _either((first.warning_tape, second.warning_tape), harsh=False),
        "concealed_under_50_mm": _either((first.concealed_under_50_mm, second.concealed_under_50_mm), harsh=True),
        "fire_stopped": _either((first.fire_stopped, second.fire_stopped), harsh=False),
        "in_zone": next(one for one in (Seen.NO, Seen.NOT_SEEN, Seen.YES) if one in zones),
        "fixings": Fixings.PLASTIC if plastic else first.fixings and second.fixings,
        "clip_spacing_mm": max(_known(first.clip_spacing_mm, second.clip_spacing_mm), default=None),
        "bend_radius_mm": min(_known(first.bend_radius_mm, second.bend_radius_mm), default=None),
        "clearance_mm": min(_known(first.clearance_mm, second.clearance_mm), default=None),
        "trench_width_m": max(first.trench_width_m, second.trench_width_m),
        "way_made": next(one for one in WayMade if one in (first.way_made, second.way_made)),
        "hole_depth_m": max(first.hole_depth_m, second.hole_depth_m),
        "hole_width_m": max(first.hole_width_m, second.hole_width_m),
        "hazards": tuple(dict.fromkeys((*first.hazards, *second.hazards))),
    }


def _harsh(first: float | None, second: float | None) -> float | None:
    """The larger of two; not known where either is not."""
    return None if first is None or second is None else max(first, second)


def _either(answers: tuple[bool | None, bool | None], *, harsh: bool) -> bool | None:
    """The harsh answer where either gives it; else not known where either is not."""
    if harsh in answers:
        return harsh
    return None if None in answers else not harsh


def _known(*values: float | None) -> list[float]:
    return [value for value in values if value is not None]


def with_cable(route: tuple[Section, ...], circuit: Circuit, index: int, cable: Cable, job: Job) -> tuple[Section, ...]:
    """The route with another cable in one section."""
    own = None if cable == circuit.cable else cable
    changed = _kept_method(
        _at(route, index).model_copy(update={"cable": own}), cable_record(cables_for(job), cable.record)
    )
    return (*route[:index], changed, *route[index + 1 :])


def rated_again(circuit: Circuit, job: Job) -> tuple[Section, ...]:
    """The route without the chosen methods that the place does not allow its cable."""
    cables = cables_for(job)
    return tuple(_kept_method(one, cable_record(cables, cable_of(circuit, one).record)) for one in circuit.route)


def _kept_method(section: Section, record: CableRecord) -> Section:
    allowed = {one.method for one in methods_in(section, record)}
    return section if section.method in allowed else section.model_copy(update={"method": None})


def record_changes(job: Job, index: int, record: str) -> tuple[Change, ...]:
    """The changes that give a circuit another kind of cable, with the methods that its table knows.

    Raises:
        InputError: there is no such cable.
    """
    cable_record(cables_for(job), record)
    circuit = job.circuits[index]
    changed = circuit.model_copy(update={"cable": circuit.cable.model_copy(update={"record": record})})
    route = rated_again(changed, job)
    changes = [Change(field=f"circuits.{index}.cable.record", value=record)]
    if route != circuit.route:
        sections = [section.model_dump(mode="json") for section in route]
        changes.append(Change(field=f"circuits.{index}.route", value=sections))
    return tuple(changes)


def _at(route: tuple[Section, ...], index: int) -> Section:
    if not 0 <= index < len(route):
        raise InputError("index", f"There is no section {index + 1}; the route has {len(route)}.")
    return route[index]
