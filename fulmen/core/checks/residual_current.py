"""RCDs and smooth DC on the way to the charge point (BS 7671 722.531.3, 522.6)."""

from __future__ import annotations

from fulmen.core.checks.common import leaning, mark_wanted, where_words
from fulmen.core.circuit.fitness import opens_at_once
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Condition, Finding
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.protection import (
    CONCEALED_CABLE,
    DC_PROTECTION,
    LOADS_RCD,
    OWN_RCD,
    RCD_AT_BOARD,
    RCD_BLINDING,
    RCD_NEUTRAL,
)
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.installation.tree import ChainCircuit
from fulmen.core.model.arrangement import RdcDdPlace
from fulmen.core.model.guards import RcdType
from fulmen.core.model.load import LoadKind
from fulmen.core.model.route import HIDDEN, ON_THE_SURFACE, Section, Surroundings
from fulmen.core.model.seen import Seen
from fulmen.core.reference.rule_set import RuleSet


def residual_current_findings(case: Case) -> list[Finding]:
    """Every finding about RCDs and DC on the way to the charge point."""
    findings: list[Finding | None] = [_own_rcd(case), _dc(case), _blinding(case)]
    if case.run.chain:
        findings.append(_rcd_at_board(case))
        findings.append(_neutral(case))
        findings.extend(_concealed(case, chained) for chained in case.new_circuits)
    return [finding for finding in findings if finding is not None]


def load_circuit_findings(case: Case) -> list[Finding]:
    """Every finding about RCDs before a circuit of sockets, lights or other loads."""
    hidden = (_concealed(case, chained) for chained in case.new_circuits)
    return [one for one in (_loads_rcd(case), *hidden) if one is not None]


def _loads_rcd(case: Case) -> Finding | None:
    """Sockets up to 32 A and luminaires in a dwelling stand behind an RCD that opens at once, outbuildings too."""
    circuit, most_ma = case.run.final().circuit, case.rules.value("rcd_residual_ma")
    asked = _about(LOADS_RCD, case, residual_ma=f"{most_ma:g}")
    if not circuit.loads:
        return asked.needs_fact(f"Say what {circuit.name} feeds: sockets, lights or something else.")
    if not any(one.kind in (LoadKind.SOCKETS, LoadKind.LIGHTING) for one in circuit.loads):
        return None
    before = [one for one in case.run.rcds_before[case.subject] if opens_at_once(one.rcd, most_ma)]
    if before:
        return leaning(case, asked, before[-1]).meets("An RCD that opens at once stands before it.")
    if case.run.unread_before[case.subject]:
        return mark_wanted(asked, case.run.unread_before[case.subject][-1])
    return asked.falls_short("None stands before it.", remedy=f"Use an RCBO of {most_ma:g} mA, Type A.")


def _about(rule: Rule, case: Case, **words: str) -> Question:
    return ask(rule, case.rules, case.subject, **words)


def unread_on(case: Case) -> PlacedGuard | None:
    """An RCD on or before the last circuit, outside the unit, whose mark nobody has read yet."""
    return next((one for one in case.run.unread if one.circuit == case.subject and one.stands is not Stands.UNIT), None)


def fit_rcds(case: Case) -> list[PlacedGuard]:
    """The charge point's own RCDs that are what its rule asks for; those at the board before those in the unit."""
    return [one for one in case.run.own_rcds if not _unfit(one, case.rules) and one.opens_live]


def _own_rcd(case: Case) -> Finding:
    asked = _about(OWN_RCD, case, residual_ma=f"{case.rules.value('rcd_residual_ma'):g}")
    found, fit = case.run.own_rcds, fit_rcds(case)
    if fit and fit[0].rcd is not None:
        opens = "line and neutral" if fit[0].phases == 1 else "three lines and the neutral"
        told = f"Type {fit[0].rcd.type.value}, {fit[0].rcd.residual_ma} mA, opens {opens}."
        return leaning(case, asked, fit[0]).meets(told)
    unread_poles = next((one for one in found if not _unfit(one, case.rules)), None)
    if unread_poles is not None:
        return asked.needs_fact(f"How many poles does the {unread_poles.name} {where_words(unread_poles)} open?")
    in_front = _may_be_its_own(case)
    if in_front is not None and not found:
        return asked.needs_fact(f"Does anything else hang behind the {in_front.name} {in_front.where}?")
    unread = next((one for one in case.run.unread if one.circuit == case.subject), None)
    if unread is not None:
        return mark_wanted(asked, unread)
    serves = _shared_with_others(case) if not found else None
    if serves is not None:
        others = serves.others or "other circuits"
        detail = (
            f"The {serves.name} ({serves.where}) serves this charge point and {others}. The clause may be read so, or "
            "as asking for an RCD of its own: say why, and what goes off together."
        )
        return leaning(case, asked, serves).your_call(detail, basis={"shared": serves.name, "others": others[:100]})
    if not found and case.run.charge_point.rcd_inside_seen is Seen.NOT_SEEN:
        return asked.needs_fact("None stands before the unit: look in the unit's data, has it an RCD inside?")
    none = "No RCD stands on this circuit, at the board or in the unit."
    poles = "double-pole" if case.run.charge_point.phase_count == 1 else "four-pole"
    shared = "Only an RCD that serves other circuits too stands before this circuit: it needs one of its own."
    return asked.falls_short(
        _unfit(found[0], case.rules) if found else shared if case.run.rcds else none,
        remedy=f"Fit a {poles} {case.rules.value('rcd_residual_ma'):g} mA Type A RCBO at the board.",
    )


def _shared_with_others(case: Case) -> PlacedGuard | None:
    """An RCD in front that is all that the rule asks for, but that circuits without a charge point hang behind too."""
    for guard in case.run.rcds:
        behind = [one for one in case.installation.runs if any(each.field == guard.field for each in one.guards)]
        alone = len(behind) == 1 and guard.circuit == case.subject and guard.shared is Seen.YES
        if alone and guard.is_in_front and guard.opens_live and not _unfit(guard, case.rules):
            return guard
    return None


def _may_be_its_own(case: Case) -> PlacedGuard | None:
    """An RCD in front that would serve, were nobody else behind it: whether there is was not looked at."""
    return next(
        (
            guard
            for guard in case.run.rcds
            if guard.circuit == case.subject and guard.shared is Seen.NOT_SEEN
            and not _unfit(guard, case.rules)
        ),
        None,
    )  # fmt: skip


def _unfit(guard: PlacedGuard, rules: RuleSet) -> str:
    """Why an RCD can't be the charge point's own, or an empty text; poles that nobody read are asked for."""
    most_ma, rcd = rules.value("rcd_residual_ma"), guard.rcd
    if rcd is None:
        return "It is no RCD."
    if rcd.residual_ma > most_ma:
        return f"The RCD opens at {rcd.residual_ma} mA, which is more than {most_ma:g} mA."
    if rcd.time_delayed:
        return "The RCD is time-delayed."
    if guard.opens_live is not False:
        return ""
    if guard.poles is not None and guard.phases > 1:
        return f"The RCD opens {guard.poles} poles; three lines and the neutral are four."
    return "The RCD leaves the neutral closed."


def _rcd_at_board(case: Case) -> Finding | None:
    """Whether the cable of the circuit stands behind an RCD too, or only what follows it."""
    asked, own = _about(RCD_AT_BOARD, case), case.run.own_rcds
    most_ma, before = case.rules.value("concealed_rcd_ma"), case.run.rcds_before[case.subject]
    at_once = [one for one in before if opens_at_once(one.rcd, most_ma)]
    if at_once:
        what = "An RCBO" if at_once[-1].stands is Stands.WAY else "The RCD before it"
        return leaning(case, asked, at_once[-1]).meets(f"{what} guards the cable too.")
    if case.run.unread_before[case.subject]:
        return mark_wanted(asked, case.run.unread_before[case.subject][-1])
    if not own:
        return None
    asked = leaning(case, asked, own[-1])
    there = f"none that opens at once on {most_ma:g} mA" if before else "none"
    detail = f"You rely on the RCD {where_words(own[-1])}; the cable before it has {there}. Allowed; say why."
    held = [(one.stands, one.rcd) for one in own if one.rcd is not None]
    basis = {
        "at_board": False,
        "relies_on": tuple(stands for stands, _ in held),
        "types": tuple(rcd.type for _, rcd in held),
        "residual_ma": tuple(rcd.residual_ma for _, rcd in held),
    }
    return asked.your_call(detail, basis=basis, conditions=_sound_past_the_cable(case))


def _sound_past_the_cable(case: Case) -> tuple[Condition, ...]:
    """What may make it sound that no RCD stands before the cable, as far as the route bears it out."""
    circuit = case.run.final().circuit
    cables = [case.installation.record_of(circuit, one) for one in circuit.route]
    hidden = [one for one in circuit.route if one.surroundings in HIDDEN]
    return RCD_AT_BOARD.borne_out(
        armoured=all(one.earthed_metal_cover for one in cables),
        on_the_surface=all(one.surroundings in ON_THE_SURFACE for one in circuit.route),
        deep=all(one.concealed_under_50_mm is False for one in hidden),
    )


def _neutral(case: Case) -> Finding | None:
    """An RCBO that leaves the neutral closed does not isolate, even where the unit's own RCD opens it."""
    ways = (one for one in case.guards if one.stands is Stands.WAY and one.circuit == case.subject)
    way = next((one for one in ways if one.rcd is not None or one.unread), None)
    asked = _about(RCD_NEUTRAL, case)
    if way is None:
        return None
    if way.opens_live:
        return asked.meets("Both poles open." if way.phases == 1 else "Four poles open.")
    if way.opens_live is None:
        return asked.needs_fact(f"How many poles does the {way.name} {where_words(way)} open?")
    others = fit_rcds(case)
    detail = "It leaves the neutral closed: the circuit can't be made dead at the board"
    remedy = "Use a double-pole RCBO."
    if others:
        detail += f", and only the RCD {where_words(others[0])} opens both. Say why it serves."
        return asked.your_call(detail, basis={"switches_neutral": False, "unit_opens_both": True}, remedy=remedy)
    return asked.falls_short(f"{detail}.", remedy=remedy)


def _dc(case: Case) -> Finding:
    """Type B, or Type A or F with an RDC-DD: smooth DC above 6 mA must not blind the RCD."""
    asked = _about(DC_PROTECTION, case)
    most_ma = case.rules.value("rcd_residual_ma")
    for guard in case.run.own_rcds:
        if guard.residual.type is RcdType.B and opens_at_once(guard.rcd, most_ma):
            return leaning(case, asked, guard).meets("A Type B RCD sees smooth DC.")
    place = case.arrangement.rdc_dd
    unread = next((one for one in case.run.unread if one.circuit == case.subject), None)
    if place is RdcDdPlace.NONE and unread is not None:
        return mark_wanted(asked, unread)
    if place is RdcDdPlace.IN_UNIT and case.run.charge_point.rdc_dd_inside is Seen.NOT_SEEN:
        return asked.needs_fact("Look in the unit's data: does it detect 6 mA DC?")
    detector = dc_detection(case)
    if detector is not None:
        where = "in the unit" if place is RdcDdPlace.IN_UNIT else "before the unit"
        told = f"6 mA DC detection {where} opens before the RCD is blinded."
        return leaning(case, asked, detector).meets(told)
    details = {
        RdcDdPlace.IN_UNIT: "The unit has no 6 mA DC detection.",
        RdcDdPlace.BEFORE_UNIT: "No 6 mA DC detector stands before the unit.",
        RdcDdPlace.NONE: "Nothing detects 6 mA DC.",
    }
    return asked.falls_short(details[place], remedy="Use a Type B RCD, or a unit with 6 mA DC detection.")


def _blinding(case: Case) -> Finding:
    """No Type AC anywhere on the way; nothing before a lone Type B that more than 6 mA DC blinds."""
    asked, chain = _about(RCD_BLINDING, case), case.run.rcds
    numb = next((one for one in chain if one.rcd is not None and one.rcd.type is RcdType.AC), None)
    if numb is not None:
        where = "on this circuit" if numb in case.run.own_rcds else "in front of this circuit"
        return asked.falls_short(
            f"A Type AC RCD stands {where}: it is blind to pulsating DC and goes numb with smooth DC.",
            remedy="Replace it by a Type A, or feed the circuit from before it.",
        )
    types = [one.rcd.type for one in chain if one.rcd is not None]
    lone_b = RcdType.B in types and dc_detection(case) is None
    if lone_b and any(kind is not RcdType.B for kind in types[: types.index(RcdType.B)]):
        return asked.falls_short(
            "A Type B lets more than 6 mA DC pass, which blinds the RCD before it.",
            remedy="Put a Type B there too, or use 6 mA DC detection.",
        )
    if case.run.unread:
        return mark_wanted(asked, case.run.unread[0])
    if case.run.charge_point.rcd_inside_seen is Seen.NOT_SEEN and not any(one.stands is Stands.UNIT for one in chain):
        return asked.needs_fact("Look in the unit's data: has it an RCD inside, and of which type?")
    return asked.meets("None on the way goes blind.")


def dc_detection(case: Case) -> PlacedGuard | None:
    """The detection that the arrangement relies on, where it is there."""
    place = case.arrangement.rdc_dd
    if place is RdcDdPlace.NONE:
        return None
    inside = place is RdcDdPlace.IN_UNIT
    found = (one for one in case.guards if one.detects_dc and (one.stands is Stands.UNIT) is inside)
    return next(found, None)


def _concealed(case: Case, chained: ChainCircuit) -> Finding:
    """Hidden shallow, or at any depth among metal parts: earthed metal or an RCD, on sub-mains too."""
    circuit, rules = chained.circuit, case.rules
    most_ma, deep_mm = rules.value("concealed_rcd_ma"), rules.value("concealed_depth_mm")
    asked = ask(CONCEALED_CABLE, rules, circuit.id, residual_ma=f"{most_ma:g}")
    bare = [
        index
        for index, section in enumerate(circuit.route)
        if not case.installation.record_of(circuit, section).earthed_metal_cover
    ]
    hidden = [index for index in bare if hides(circuit.route[index])]
    unknown = [
        index for index in bare if not hides(circuit.route[index]) and HIDES & set(circuit.route[index].unknown())
    ]
    open_ones = [index for index in unknown if _guard_of(case, circuit.id, index, most_ma) is None]
    if not hidden and open_ones:
        number, facts = open_ones[0] + 1, circuit.route[open_ones[0]].unknown()
        metal = "are there metal parts in the wall" if "concealed_under_50_mm" not in facts else ""
        return asked.needs_fact(f"Section {number}: {metal or f'does it lie less than {deep_mm:g} mm deep'}?")
    if not hidden:
        covered = len(bare) < len(circuit.route) and any(hides(one) or one.unknown() for one in circuit.route)
        none = f"No section is hidden less than {deep_mm:g} mm deep, or among metal parts."
        return asked.meets("Its armour is earthed metal." if covered else none)
    guards = [_guard_of(case, circuit.id, index, most_ma) for index in hidden]
    open_at = next((index for index, guard in zip(hidden, guards, strict=True) if guard is None), None)
    if open_at is None:
        relied = {one.field: one for one in guards if one is not None}
        return leaning(case, asked, *relied.values()).meets(f"Section {hidden[0] + 1} is guarded.")
    if case.run.unread_before[circuit.id]:
        return mark_wanted(asked, case.run.unread_before[circuit.id][-1])
    where = f"hidden less than {deep_mm:g} mm deep"
    if not circuit.route[open_at].concealed_under_50_mm:
        where = "in a wall with metal parts"
    return asked.falls_short(
        f"Section {open_at + 1} is {where}; no RCD before it guards it.",
        remedy="Use an RCBO at the board, armoured cable, or run it on the surface.",
    )


HIDES = {"concealed_under_50_mm", "metal_frame"}


def hides(section: Section) -> bool:
    """Whether a nail finds the cable: hidden less than 50 mm deep, or at any depth among a wall's metal parts."""
    framed = section.surroundings is Surroundings.IN_WALL and bool(section.metal_frame)
    return framed or bool(section.concealed_under_50_mm)


def _guard_of(case: Case, circuit: str, section: int, most_ma: float) -> PlacedGuard | None:
    """The nearest RCD that opens at once on so little and stands before a section of a circuit."""
    passed = [chained.circuit.id for chained in case.run.chain]
    passed = passed[: passed.index(circuit) + 1]
    fit = [
        one
        for one in case.run.rcds_outside
        if one.circuit in passed
        and not (one.circuit == circuit and (one.after_section or 0) > section)
        and opens_at_once(one.rcd, most_ma)
    ]
    return fit[-1] if fit else None
