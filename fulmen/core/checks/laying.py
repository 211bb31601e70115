"""How each section is laid: depth, tape, cover, fixings, bends, clearances, fire-stopping, joints, hazards.

One finding for each question that the section's surroundings raise; sections that raise none give none.
"""

from __future__ import annotations

from fulmen.core.circuit.fitness import guarded_in_ground, in_safe_zone, stands_weather
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.cable_fixing import clip_spacing_mm, known_or_none, least_bend_mm
from fulmen.core.electrical.joints import joints_of
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules import run as rules
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.findings.words import word
from fulmen.core.installation.installation import Installation
from fulmen.core.installation.tree import ChainCircuit
from fulmen.core.model.cables import Cable
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.route import (
    IN_GROUND,
    MAY_BE_OUTDOORS,
    ON_CLIPS,
    Fixings,
    LengthBy,
    Section,
    Surroundings,
    WayMade,
)
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import Hazard
from fulmen.core.reference.cable_catalogue import CableRecord, cable_of

HAZARD_ADVICE = {
    Hazard.DRAINS: "find where they lie before you dig, and dig by hand there",
    Hazard.CLADDING: "fix to the wall behind it, and keep its fire barriers whole",
    Hazard.PAVING: "lift and relay the blocks, or duct beneath them",
    Hazard.ROUGH_WALL: "use stand-off fixings in the joints, not in the stone's face",
    Hazard.OLD_DUCT: "blocked until proven clear: price for digging",
    Hazard.NEAR_ROAD: "out of reach of wheels, or behind a guard",
}
JOINT_REMEDY = "Move the box to where it can be reached, or joint the cable by a means made to be buried or hidden."
# What a cable keeps clear of, and the limit that says how far; the first that was seen counts.
CLEAR_OF = ((Hazard.DATA_CABLES, "clear_of_data_mm"), (Hazard.PIPES, "clear_of_pipes_mm"))


class _Place:
    """One section of one circuit, with its cable, and the questions that are asked about it."""

    def __init__(self, case: Case, chained: ChainCircuit, index: int) -> None:
        self.case, self.circuit, self.number = case, chained.circuit, index + 1
        self.section: Section = chained.circuit.route[index]
        self.cable: Cable = cable_of(chained.circuit, self.section)
        self.record: CableRecord = case.installation.record(self.cable)

    def ask(self, rule: Rule, *, variant: str = "", **words: str) -> Question:
        """A rule asked about this section."""
        subject, place = f"{self.circuit.id}-{self.number}", word(self.section.surroundings)
        return ask(rule, self.case.rules, subject, variant=variant, number=str(self.number), place=place, **words)

    def limit(self, name: str) -> float:
        """A limit of the edition."""
        return self.case.rules.value(name)


def laying_findings(case: Case) -> list[Finding]:
    """Every finding about how the sections are laid, and the loop of slack at the end."""
    findings: list[Finding | None] = []
    for chained in case.new_circuits:
        for index in range(len(chained.circuit.route)):
            place = _Place(case, chained, index)
            findings.extend(check(place) for check in CHECKS)
        findings.append(_taped(case, chained))
    if case.run.chain and case.run.final().circuit.route and not case.to_loads:
        findings.append(_slack(case))
    return [finding for finding in findings if finding is not None]


def asks_outdoors(installation: Installation, circuit: Circuit, section: Section) -> bool:
    """Whether it matters that a section lies outdoors, and nobody has said: cable or fixings stand no weather."""
    if section.surroundings not in MAY_BE_OUTDOORS or section.outdoors is not None:
        return False
    plastic = section.surroundings in ON_CLIPS and section.fixings is Fixings.PLASTIC
    return plastic or stands_weather(section, installation.record_of(circuit, section)) is Seen.NOT_SEEN


def joint_findings(case: Case) -> list[Finding]:
    """Every joint on the way: can it be reached and inspected?"""
    return [finding for chained in case.new_circuits for finding in _joints(case, chained)]


def _depth(place: _Place) -> Finding | None:
    section = place.section
    if section.surroundings not in IN_GROUND:
        return None
    # Until somebody says what passes over it, a drive does.
    limit = "buried_garden_m" if section.under_drive is False else "buried_drive_m"
    asked = place.ask(rules.DEPTH, variant=limit)
    if section.depth_m is None:
        return asked.needs_fact("How deep does it lie?")
    if section.under_drive is None and section.depth_m < place.limit(limit):
        return asked.needs_fact(f"{section.depth_m:g} m deep: does anything drive over it?")
    return asked.judged(
        value=section.depth_m,
        limit=place.limit(limit),
        unit="m",
        at_least=True,
        detail="in a garden" if section.under_drive is False else "under a drive",
        remedy="Dig deeper, or say what guards the cable instead.",
        otherwise=Verdict.YOUR_CALL,
    )


def _tape(place: _Place) -> Finding | None:
    if place.section.surroundings not in IN_GROUND:
        return None
    asked = place.ask(rules.WARNING_TAPE)
    if place.section.warning_tape is None:
        return asked.needs_fact("Does warning tape lie above it?")
    if place.section.warning_tape:
        return asked.meets("Designed with warning tape above it.")
    seen = (*place.section.hazards, *place.case.job.site.hazards)
    if place.section.surroundings is Surroundings.DUCT and Hazard.OLD_DUCT in seen:
        detail = "The duct is there already and nothing warns who digs: say what does, or mark its way on a plan."
        return asked.your_call(detail, basis={"old_duct": True})
    return asked.falls_short("Nothing warns who digs there.", remedy="Lay warning tape above the cable.")


def _cover(place: _Place) -> Finding | None:
    """In the ground: earthed armour or metal sheath, or a duct that guards as well."""
    guarded = guarded_in_ground(place.section, place.record)
    if guarded is None:
        return None
    asked = place.ask(rules.BURIED_COVER)
    if guarded is Seen.YES:
        return asked.meets("In a duct." if place.section.in_duct else "Its armour is earthed.")
    name = place.record.name.capitalize()
    return asked.falls_short(
        f"{name} has no earthed metal cover and lies in no duct: a spade goes through it.",
        remedy="Use armoured cable, or lay it in a duct.",
    )


def _made_for(place: _Place) -> Finding | None:
    """A cable that stands neither sun nor wet: indoors only, and dry."""
    stands = stands_weather(place.section, place.record)
    if stands is None:
        return None
    asked, name = place.ask(rules.INDOOR_CABLE), place.record.name.capitalize()
    if stands is Seen.NO:
        where = "in the ground" if place.section.surroundings in IN_GROUND else "outdoors"
        return asked.falls_short(f"{name} {where}.", remedy="Use a cable made for sun and wet.")
    if stands is Seen.NOT_SEEN:
        return asked.needs_fact(f"{name} stands neither sun nor rain: is it indoors here?")
    return asked.meets("Indoors.")


def _fixings(place: _Place) -> Finding | None:
    if place.section.surroundings not in ON_CLIPS or place.section.fixings is Fixings.METAL:
        return None
    if place.section.fixings is None:
        return place.ask(rules.FIXINGS).needs_fact("What holds it: metal or plastic?")
    if place.section.outdoors:
        detail = "Plastic fixings outdoors: say why nobody's way out passes beneath the cable."
        return place.ask(rules.FIXINGS).your_call(detail, basis={"outdoors": True})
    if place.section.surroundings in MAY_BE_OUTDOORS and place.section.outdoors is None:
        return place.ask(rules.FIXINGS).needs_fact("Plastic fixings: is it outdoors here?")
    detail = "Plastic fixings melt, and the cable hangs across the way out."
    return place.ask(rules.FIXINGS).falls_short(detail, remedy="Use metal clips or cleats.")


def _clips(place: _Place) -> Finding | None:
    chosen_mm = place.section.clip_spacing_mm
    if chosen_mm is None or place.section.surroundings not in ON_CLIPS:
        return None
    if known_or_none(place.record, place.cable.csa_mm2) is None:
        return None
    return place.ask(rules.CLIP_SPACING).judged(
        value=chosen_mm,
        limit=clip_spacing_mm(place.record, place.cable.csa_mm2),
        unit="mm",
        decimals=0,
        remedy="Set the clips closer.",
        otherwise=Verdict.YOUR_CALL,
    )


def _bend(place: _Place) -> Finding | None:
    radius_mm = place.section.bend_radius_mm
    if radius_mm is None or known_or_none(place.record, place.cable.csa_mm2) is None:
        return None
    name = "bend_armoured_diameters" if place.record.armour else "bend_unarmoured_diameters"
    return place.ask(rules.BEND_RADIUS, variant=name).judged(
        value=radius_mm,
        limit=least_bend_mm(place.record, place.cable.csa_mm2, place.case.rules),
        unit="mm",
        decimals=0,
        at_least=True,
        detail=f"{place.limit(name):g} times the usual diameter; the maker's figure goes first",
        remedy="Bend it wider, or core-drill at an angle.",
    )


def _clearance(place: _Place) -> Finding | None:
    """Clear of data cables and pipes seen along the section; the wider clearance counts."""
    hazards = place.section.hazards
    wanted = [(hazard, name) for hazard, name in CLEAR_OF if hazard in hazards]
    if not wanted:
        return None
    seen, name = [hazard for hazard, _ in wanted], wanted[0][1]
    what = " and ".join(word(one) for one in hazards if one in seen)
    asked = place.ask(rules.CLEARANCE, variant=name, what=what)
    if place.section.clearance_mm is None:
        return asked.needs_fact("Measure the least distance between them.")
    return asked.judged(
        value=place.section.clearance_mm,
        limit=place.limit(name),
        unit="mm",
        decimals=0,
        at_least=True,
        remedy="Keep further off, or put a barrier between.",
    )


def _fire_stopped(place: _Place) -> Finding | None:
    if place.section.surroundings is not Surroundings.THROUGH_WALL:
        return None
    asked = place.ask(rules.FIRE_STOPPED)
    if place.section.fire_stopped is None:
        return asked.needs_fact("Is the hole sealed outside and fire-stopped inside?")
    if place.section.fire_stopped:
        return asked.meets("Designed sealed outside and fire-stopped inside.")
    remedy = "Fire-stop it inside and seal it outside."
    return asked.falls_short("Fire and water get through the hole.", remedy=remedy)


def _zone(place: _Place) -> Finding | None:
    """Hidden less than 50 mm deep without earthed metal: in the zones where people expect a cable."""
    safe = in_safe_zone(place.section, place.record)
    if safe is None:
        return None
    asked = place.ask(rules.CONCEALED_ZONE)
    if "concealed_under_50_mm" in place.section.unknown():
        return asked.needs_fact("Does it lie less than 50 mm deep here?")
    if safe is Seen.YES:
        return asked.meets("In line with a point, or within 150 mm of a corner or ceiling.")
    if safe is Seen.NOT_SEEN:
        return asked.needs_fact("Does it run in line with a point or within 150 mm of a corner or ceiling?")
    remedy = "Move it into a zone, go deeper, or use armoured cable."
    return asked.falls_short("Hidden outside the usual zones.", remedy=remedy)


def _cavity(place: _Place) -> Finding | None:
    if Hazard.FULL_CAVITY not in place.section.hazards:
        return None
    asked = place.ask(rules.FULL_CAVITY)
    if place.section.company() > 1:
        return asked.meets(f"Rated as one of {place.section.grouped_circuits} circuits.")
    return asked.needs_fact("The cavity is full of cables and this section counts as alone: say how many load it.")


def _hazards(place: _Place) -> Finding | None:
    told = [one for one in place.section.hazards if one in HAZARD_ADVICE]
    if not told:
        return None
    advice = "; ".join(f"{word(one)}: {HAZARD_ADVICE[one]}" for one in told)
    asked = place.ask(rules.SECTION_HAZARD)
    return asked.your_call(f"{advice}. Say how you deal with it.", basis={"hazards": tuple(told)})


def _taped(case: Case, chained: ChainCircuit) -> Finding | None:
    paced = [number for number, one in enumerate(chained.circuit.route, 1) if one.length_by is LengthBy.STEPS]
    if not paced:
        return None
    numbers = ", ".join(str(number) for number in paced)
    detail = f"Section{'s' if len(paced) > 1 else ''} {numbers} paced in steps: tape before the cable is cut."
    return ask(rules.PACED, case.rules, chained.circuit.id).needs_fact(detail)


def _slack(case: Case) -> Finding:
    slack_m, asked = case.run.final().circuit.slack_m, ask(rules.SLACK, case.rules, case.subject)
    if slack_m > 0:
        return asked.meets(f"Designed with {slack_m:g} m of slack at the unit.")
    detail = "None: the next unit may sit a hand's breadth away. Say why."
    return asked.your_call(detail, basis={"slack_m": slack_m})


def _joints(case: Case, chained: ChainCircuit) -> list[Finding]:
    findings = []
    for joint in joints_of(chained.circuit, case.installation.cables):
        number = joint.section + 1
        subject, seen = f"{chained.circuit.id}-{number}", chained.circuit.route[joint.section].joint_accessible
        asked = ask(rules.JOINT, case.rules, subject, joint=joint.name, number=str(number))
        if seen is Seen.YES:
            findings.append(asked.meets(f"{joint.words}; it can be reached and inspected."))
        elif seen is Seen.NO:
            findings.append(asked.falls_short(f"{joint.words}; it can't be reached.", remedy=JOINT_REMEDY))
        else:
            detail = f"{joint.words}. Can it be reached for inspection when all is covered up?"
            findings.append(asked.needs_fact(detail))
    return findings


def _shared_way(place: _Place) -> Finding | None:
    """A way that is shared is made for another circuit of the job, and another cable lies beside this one."""
    section, asked = place.section, place.ask(rules.SHARED_WAY)
    if section.way_made is not WayMade.SHARED:
        return None
    others = [
        one
        for leaving in place.case.installation.tree.leaving.values()
        for circuit in leaving
        if circuit.id != place.circuit.id
        for one in circuit.route
        if one.surroundings is section.surroundings and one.way_made is not WayMade.SHARED
    ]
    if not others:
        return asked.needs_fact("Which circuit makes it? None of the job's others runs in such a way of its own.")
    if section.company() < ALONGSIDE:
        return asked.needs_fact("Another cable lies beside it there: how many are they together?")
    return asked.meets("Another circuit of the job makes it.")


ALONGSIDE = 2
CHECKS = (
    _depth, _tape, _cover, _made_for, _fixings, _clips, _bend, _clearance, _fire_stopped, _zone, _cavity, _hazards,
    _shared_way,
)  # fmt: skip
