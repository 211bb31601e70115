"""RCDs and smooth DC on the way to the charge point (BS 7671 722.531.3, 522.6)."""

from __future__ import annotations

from fulmen.core.checks.common import at_board
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.protection import (
    CONCEALED_CABLE,
    DC_PROTECTION,
    FRONT_RCD,
    OWN_RCD,
    RCD_AT_BOARD,
    RCD_BLINDING,
    RCD_NEUTRAL,
    TT_ORIGIN_RCD,
)
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.model.arrangement import RdcDdPlace
from fulmen.core.model.boards import Rcd, RcdType
from fulmen.core.model.run import ChainCircuit
from fulmen.core.model.supply import Earthing, Seen
from fulmen.core.reference.cable_catalogue import cable_of, cable_record
from fulmen.core.reference.rule_set import RuleSet


def residual_current_findings(case: Case) -> list[Finding]:
    """Every finding about RCDs and DC on the way to the charge point."""
    findings = [_own_rcd(case), _dc(case), _blinding(case), _front_rcd_seen(case)]
    if case.run.chain:
        findings.append(_rcd_at_board(case))
        findings.append(_neutral(case))
        findings.append(_concealed(case))
        if case.job.supply.earthing is Earthing.TT:
            findings.append(_tt_origin(case))
    return [finding for finding in findings if finding is not None]


def _about(rule: Rule, case: Case, **words: str) -> Question:
    return ask(rule, case.rules, case.subject, **words)


def board_rcd(case: Case) -> Rcd | None:
    """The RCD of the circuit's own device at the board."""
    return case.run.final().circuit.device.rcd if case.run.chain else None


def front_rcds(case: Case) -> list[Rcd]:
    """RCDs in front of the final circuit's own device, from the origin inwards; those of sub-mains among them."""
    return (
        rcds_before(case, case.run.chain[-1])[: -1 if board_rcd(case) is not None else None] if case.run.chain else []
    )


def rcds_before(case: Case, until: ChainCircuit) -> list[Rcd]:
    """Every RCD that sees an earth fault on a circuit, from the origin to that circuit's own device."""
    found: list[Rcd] = []
    for chained in case.run.chain:
        found.extend(rcd for rcd in (chained.board.front_rcd, chained.circuit.device.rcd) if rcd is not None)
        if chained.circuit.id == until.circuit.id:
            break
    return found


def _own_rcd(case: Case) -> Finding:
    asked = _about(OWN_RCD, case, residual_ma=f"{case.rules.value('rcd_residual_ma'):g}")
    candidates = [rcd for rcd in (board_rcd(case), case.run.charge_point.rcd_inside) if rcd is not None]
    fit = [rcd for rcd in candidates if not _unfit(rcd, case.rules)]
    if fit:
        return asked.meets(f"Type {fit[0].type.value}, {fit[0].residual_ma} mA, switches the neutral.")
    none = "No RCD stands on this circuit, at the board or in the unit."
    return asked.falls_short(
        _unfit(candidates[0], case.rules) if candidates else none,
        remedy=f"Fit a double-pole {case.rules.value('rcd_residual_ma'):g} mA Type A RCBO at the board.",
    )


def _unfit(rcd: Rcd, rules: RuleSet) -> str:
    """Why an RCD can't be the charge point's own, or an empty text."""
    most_ma = rules.value("rcd_residual_ma")
    if rcd.residual_ma > most_ma:
        return f"The RCD opens at {rcd.residual_ma} mA, which is more than {most_ma:g} mA."
    if rcd.time_delayed:
        return "The RCD is time-delayed."
    return "" if rcd.switches_neutral else "The RCD leaves the neutral closed."


def _rcd_at_board(case: Case) -> Finding:
    asked = _about(RCD_AT_BOARD, case)
    if board_rcd(case) is not None:
        return asked.meets("An RCBO guards the cable too.")
    detail = "You rely on the RCD in the unit; the cable before it has none. Allowed; say why."
    return asked.your_call(detail, basis={"at_board": False})


def _neutral(case: Case) -> Finding | None:
    """An RCBO that leaves the neutral closed does not isolate, even where the unit's own RCD opens it."""
    rcd, asked = board_rcd(case), _about(RCD_NEUTRAL, case)
    if rcd is None:
        return None
    if rcd.switches_neutral:
        return asked.meets("Both poles open.")
    inside, remedy = case.run.charge_point.rcd_inside, "Use a double-pole RCBO."
    detail = "It leaves the neutral closed: the circuit can't be made dead at the board"
    if inside is not None and not _unfit(inside, case.rules):
        detail += ", and only the RCD in the unit opens both. Say why it serves."
        return asked.your_call(detail, basis={"switches_neutral": False, "unit_opens_both": True}, remedy=remedy)
    return asked.falls_short(f"{detail}.", remedy=remedy)


def _dc(case: Case) -> Finding:
    """Type B, or Type A or F with an RDC-DD: smooth DC above 6 mA must not blind the RCD."""
    inside, asked = case.run.charge_point.rcd_inside, _about(DC_PROTECTION, case)
    rcd = board_rcd(case) or inside
    if RcdType.B in [entry.type for entry in (rcd, inside) if entry is not None]:
        return asked.meets("A Type B RCD sees smooth DC.")
    place, seen = case.job.arrangement.rdc_dd, case.run.charge_point.rdc_dd_inside
    if place is RdcDdPlace.IN_UNIT and seen is Seen.NOT_SEEN:
        return asked.needs_fact("Look in the unit's data: does it detect 6 mA DC?")
    if _dc_detection(case):
        where = "in the unit" if place is RdcDdPlace.IN_UNIT else "before the unit"
        return asked.meets(f"6 mA DC detection {where} opens before the RCD is blinded.")
    unit = place is RdcDdPlace.IN_UNIT
    return asked.falls_short(
        "The unit has no 6 mA DC detection." if unit else "Nothing detects 6 mA DC.",
        remedy="Use a Type B RCD, or a unit with 6 mA DC detection.",
    )


def _blinding(case: Case) -> Finding:
    """No Type AC anywhere on the way; nothing before a lone Type B that more than 6 mA DC blinds."""
    asked, inside = _about(RCD_BLINDING, case), case.run.charge_point.rcd_inside
    before = [*front_rcds(case), *([own] if (own := board_rcd(case)) else [])]
    chain = [*before, *([inside] if inside else [])]
    if any(rcd.type is RcdType.AC for rcd in chain):
        in_front = RcdType.AC in [rcd.type for rcd in front_rcds(case)]
        where = "in front of this circuit" if in_front else "on this circuit"
        return asked.falls_short(
            f"A Type AC RCD stands {where}: it is blind to pulsating DC and goes numb with smooth DC.",
            remedy="Replace it by a Type A, or feed the circuit from before it.",
        )
    lone_b = any(rcd.type is RcdType.B for rcd in chain) and not _dc_detection(case)
    first_b = next((index for index, rcd in enumerate(chain) if rcd.type is RcdType.B), 0)
    if lone_b and any(rcd.type is not RcdType.B for rcd in chain[:first_b]):
        return asked.falls_short(
            "A Type B lets more than 6 mA DC pass, which blinds the RCD before it.",
            remedy="Put a Type B there too, or use 6 mA DC detection.",
        )
    return asked.meets("None on the way goes blind.")


def _dc_detection(case: Case) -> bool:
    place = case.job.arrangement.rdc_dd
    inside = place is RdcDdPlace.IN_UNIT and case.run.charge_point.rdc_dd_inside is Seen.YES
    return inside or place is RdcDdPlace.BEFORE_UNIT


def _front_rcd_seen(case: Case) -> Finding | None:
    for chained in case.run.chain:
        board = chained.board
        if board.front_rcd_seen is not Seen.NO and board.front_rcd is None:
            asked = at_board(case, board, ask(FRONT_RCD, case.rules, board.id))
            return asked.needs_fact(
                f"Look at {board.name}: does an RCD stand in front of this way, and which waveform mark has it?"
            )
    return None


def _concealed(case: Case) -> Finding:
    most_ma, deep_mm = case.rules.value("concealed_rcd_ma"), case.rules.value("concealed_depth_mm")
    asked, circuit = _about(CONCEALED_CABLE, case, residual_ma=f"{most_ma:g}"), case.run.final().circuit
    concealed = [index for index, section in enumerate(circuit.route) if section.concealed_under_50_mm]
    hidden = [
        index + 1
        for index in concealed
        if not cable_record(cable_of(circuit, circuit.route[index]).record, case.job).earthed_metal_cover
    ]
    if not hidden:
        none = f"No section is hidden less than {deep_mm:g} mm deep."
        return asked.meets("Its armour is earthed metal." if concealed else none)
    before = [*front_rcds(case), *([own] if (own := board_rcd(case)) else [])]
    if any(rcd.residual_ma <= most_ma and not rcd.time_delayed for rcd in before):
        return asked.meets(f"Section {hidden[0]} is guarded.")
    return asked.falls_short(
        f"Section {hidden[0]} is hidden less than {deep_mm:g} mm deep; the RCD in the unit doesn't guard it.",
        remedy="Use an RCBO at the board, armoured cable, or run it on the surface.",
    )


def _tt_origin(case: Case) -> Finding:
    asked, front = _about(TT_ORIGIN_RCD, case), case.run.chain[0].board.front_rcd
    if front is not None and front.time_delayed:
        return asked.meets(f"Type {front.type.value} S, {front.residual_ma} mA, guards everything after the origin.")
    return asked.falls_short(
        "On TT the loop is too high for a fuse: an earth fault before the circuit's own RCD would stay.",
        remedy="Fit an S-type RCD, usually 100 mA, at the origin.",
    )
