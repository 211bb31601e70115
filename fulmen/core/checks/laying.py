"""How each section is laid: depth, tape, cover, fixings, bends, clearances, fire-stopping, hidden cable, hazards.

One finding for each question that the section's surroundings raise; sections that raise none give none.
"""

from __future__ import annotations

from fulmen.core.checks.common import needs_fact
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.cable_fixing import IN_GROUND, ON_CLIPS, clip_spacing_mm, known_or_none, least_bend_mm
from fulmen.core.findings.finding import Finding, Stage, Verdict, judged, stated
from fulmen.core.findings.words import word
from fulmen.core.model.cables import Cable
from fulmen.core.model.route import Fixings, LengthBy, Section, Surroundings
from fulmen.core.model.run import ChainCircuit
from fulmen.core.model.site import Hazard
from fulmen.core.model.supply import Seen
from fulmen.core.reference.cable_catalogue import CableRecord, cable_of, cable_record

PRACTICE = "common practice, no source"
HAZARD_ADVICE = {
    Hazard.DRAINS: "find where they lie before you dig, and dig by hand there",
    Hazard.CLADDING: "fix to the wall behind it, and keep its fire barriers whole",
    Hazard.PAVING: "lift and relay the blocks, or duct beneath them",
    Hazard.ROUGH_WALL: "use stand-off fixings in the joints, not in the stone's face",
    Hazard.OLD_DUCT: "blocked until proven clear: price for digging",
    Hazard.NEAR_ROAD: "out of reach of wheels, or behind a guard",
}


class _Place:
    """One section of one circuit, with its cable and the name its findings carry."""

    def __init__(self, case: Case, chained: ChainCircuit, index: int) -> None:
        self.case, self.circuit, self.number = case, chained.circuit, index + 1
        self.section: Section = chained.circuit.route[index]
        self.cable: Cable = cable_of(chained.circuit, self.section)
        self.record: CableRecord = cable_record(self.cable.record, case.job)

    @property
    def subject(self) -> str:
        return f"{self.circuit.id}-{self.number}"

    def title(self, words: str) -> str:
        return f"Section {self.number}, {word(self.section.surroundings)}: {words}"


def practice_findings(case: Case) -> list[Finding]:
    """Every finding about how the sections are laid, and the loop of slack at the end."""
    findings: list[Finding | None] = []
    for chained in case.new_circuits():
        for index in range(len(chained.circuit.route)):
            place = _Place(case, chained, index)
            findings.extend(check(place) for check in CHECKS)
        findings.append(_taped(chained))
    if case.run.chain and case.run.final().circuit.route:
        findings.append(_slack(case))
    return [finding for finding in findings if finding is not None]


def _depth(place: _Place) -> Finding | None:
    section, rules = place.section, place.case.rules
    if section.surroundings not in IN_GROUND:
        return None
    limit = "buried_drive_m" if section.under_drive else "buried_garden_m"
    return judged(
        rule="depth",
        subject=place.subject,
        title=place.title("deep enough"),
        value=section.depth_m,
        limit=rules.value(limit),
        unit="m",
        at_least=True,
        clause=rules.clause(limit),
        detail="under a drive" if section.under_drive else "in a garden",
        remedy="Dig deeper, or say what guards the cable instead.",
        otherwise=Verdict.YOUR_CALL,
    )


def _tape(place: _Place) -> Finding | None:
    if place.section.surroundings not in IN_GROUND:
        return None
    title, clause = place.title("marked by tape"), "BS 7671 522.8.10"
    if place.section.warning_tape:
        return stated(
            "warning_tape", place.subject, title, Verdict.MEETS, "Designed with warning tape above it.", clause
        )
    detail, remedy = "Nothing warns who digs there.", "Lay warning tape above the cable."
    return stated("warning_tape", place.subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy)


def _cover(place: _Place) -> Finding | None:
    """In the ground: earthed armour or metal sheath, or a duct that guards as well."""
    section = place.section
    if section.surroundings is not Surroundings.BURIED:
        return None
    title, clause = place.title("armour or duct"), "BS 7671 522.8.10"
    if place.record.earthed_metal_cover or section.in_duct:
        detail = "In a duct." if section.in_duct else "Its armour is earthed."
        return stated("buried_cover", place.subject, title, Verdict.MEETS, detail, clause)
    detail = (
        f"{place.record.name.capitalize()} has no earthed metal cover and lies in no duct: a spade goes through it."
    )
    remedy = "Use armoured cable, or lay it in a duct."
    return stated("buried_cover", place.subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy)


def _fixings(place: _Place) -> Finding | None:
    if place.section.surroundings not in ON_CLIPS or place.section.fixings is Fixings.METAL:
        return None
    title, clause = place.title("can't drop in a fire"), "BS 7671 521.10.202"
    detail, remedy = "Plastic fixings melt, and the cable hangs across the way out.", "Use metal clips or cleats."
    return stated("fixings", place.subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy)


def _clips(place: _Place) -> Finding | None:
    chosen_mm = place.section.clip_spacing_mm
    if chosen_mm is None or place.section.surroundings not in ON_CLIPS:
        return None
    if known_or_none(place.record, place.cable.csa_mm2) is None:
        return None
    return judged(
        rule="clip_spacing",
        subject=place.subject,
        title=place.title("clips close enough"),
        value=chosen_mm,
        limit=clip_spacing_mm(place.record, place.cable.csa_mm2),
        unit="mm",
        decimals=0,
        clause="BS 7671 522.8.5, table clip_spacing",
        remedy="Set the clips closer.",
        otherwise=Verdict.YOUR_CALL,
    )


def _bend(place: _Place) -> Finding | None:
    radius_mm = place.section.bend_radius_mm
    if radius_mm is None or known_or_none(place.record, place.cable.csa_mm2) is None:
        return None
    rules = place.case.rules
    name = "bend_armoured_diameters" if place.record.armour else "bend_unarmoured_diameters"
    return judged(
        rule="bend_radius",
        subject=place.subject,
        title=place.title("bends wide enough"),
        value=radius_mm,
        limit=least_bend_mm(place.record, place.cable.csa_mm2, rules),
        unit="mm",
        decimals=0,
        at_least=True,
        clause=rules.clause(name),
        detail=f"{rules.value(name):g} times the usual diameter; the maker's figure goes first",
        remedy="Bend it wider, or core-drill at an angle.",
    )


def _clearance(place: _Place) -> Finding | None:
    """Clear of data cables and pipes seen along the section; the wider clearance counts."""
    rules, hazards = place.case.rules, place.section.hazards
    wanted = [
        name
        for hazard, name in ((Hazard.DATA_CABLES, "clear_of_data_mm"), (Hazard.PIPES, "clear_of_pipes_mm"))
        if hazard in hazards
    ]
    if not wanted:
        return None
    name, title = wanted[0], place.title("clear of " + " and ".join(word(one) for one in hazards if one in CLEAR_OF))
    if place.section.clearance_mm is None:
        detail = "Measure the least distance between them."
        return needs_fact("clearance", place.subject, title, detail, rules.clause(name), Stage.DESIGN)
    return judged(
        rule="clearance",
        subject=place.subject,
        title=title,
        value=place.section.clearance_mm,
        limit=rules.value(name),
        unit="mm",
        decimals=0,
        at_least=True,
        clause=rules.clause(name),
        remedy="Keep further off, or put a barrier between.",
    )


CLEAR_OF = (Hazard.DATA_CABLES, Hazard.PIPES)


def _fire_stopped(place: _Place) -> Finding | None:
    if place.section.surroundings is not Surroundings.THROUGH_WALL:
        return None
    title, clause = place.title("sealed and fire-stopped"), "BS 7671 527.2"
    if place.section.fire_stopped:
        detail = "Designed sealed outside and fire-stopped inside."
        return stated("fire_stopped", place.subject, title, Verdict.MEETS, detail, clause)
    detail, remedy = "Fire and water get through the hole.", "Fire-stop it inside and seal it outside."
    return stated("fire_stopped", place.subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy)


def _zone(place: _Place) -> Finding | None:
    """Hidden less than 50 mm deep without earthed metal: in the zones where people expect a cable."""
    section = place.section
    if not section.concealed_under_50_mm or place.record.earthed_metal_cover:
        return None
    title, clause = place.title("hidden where one expects it"), place.case.rules.clause("concealed_depth_mm")
    if section.in_zone is Seen.YES:
        detail = "In line with a point, or within 150 mm of a corner or ceiling."
        return stated("concealed_zone", place.subject, title, Verdict.MEETS, detail, clause)
    if section.in_zone is Seen.NOT_SEEN:
        detail = "Does it run in line with a point or within 150 mm of a corner or ceiling?"
        return needs_fact("concealed_zone", place.subject, title, detail, clause, Stage.DESIGN)
    detail, remedy = "Hidden outside the usual zones.", "Move it into a zone, go deeper, or use armoured cable."
    return stated("concealed_zone", place.subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy)


def _cavity(place: _Place) -> Finding | None:
    if Hazard.FULL_CAVITY not in place.section.hazards:
        return None
    title = place.title("grouped with the cables in the cavity")
    if place.section.grouped_circuits > 1:
        detail = f"Rated as one of {place.section.grouped_circuits} circuits."
        return stated("full_cavity", place.subject, title, Verdict.MEETS, detail, "BS 7671 Table 4C1")
    detail = "The cavity is full of cables and this section counts as alone: say how many load it."
    return needs_fact("full_cavity", place.subject, title, detail, "BS 7671 Table 4C1", Stage.DESIGN)


def _hazards(place: _Place) -> Finding | None:
    told = [f"{word(one)}: {HAZARD_ADVICE[one]}" for one in place.section.hazards if one in HAZARD_ADVICE]
    if not told:
        return None
    detail = f"{'; '.join(told)}. Say how you deal with it."
    return stated("section_hazard", place.subject, place.title("seen on the way"), Verdict.YOUR_CALL, detail, PRACTICE)


def _taped(chained: ChainCircuit) -> Finding | None:
    paced = [number for number, one in enumerate(chained.circuit.route, 1) if one.length_by is LengthBy.STEPS]
    if not paced:
        return None
    numbers = ", ".join(str(number) for number in paced)
    detail = f"Section{'s' if len(paced) > 1 else ''} {numbers} paced in steps: tape before the cable is cut."
    return needs_fact("paced", chained.circuit.id, "Lengths taped, not paced", detail, PRACTICE, Stage.DESIGN)


def _slack(case: Case) -> Finding:
    slack_m, title = case.run.final().circuit.slack_m, "Loop of slack for the next charge point"
    if slack_m > 0:
        detail = f"Designed with {slack_m:g} m of slack at the unit."
        return stated("slack", case.subject, title, Verdict.MEETS, detail, PRACTICE)
    detail = "None: the next unit may sit a hand's breadth away. Say why."
    return stated("slack", case.subject, title, Verdict.YOUR_CALL, detail, PRACTICE)


CHECKS = (
    _depth, _tape, _cover, _fixings, _clips, _bend, _clearance, _fire_stopped, _zone, _cavity, _hazards,
)  # fmt: skip
