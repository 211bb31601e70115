"""RCD, 6 mA DC detection and surge protection (BS 7671 722.531.3, 522.6, 443), in their simplest true form."""

from __future__ import annotations

from fulmen.core.checks.common import at_board, needs_fact
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, Verdict, stated
from fulmen.core.model.arrangement import RdcDdPlace
from fulmen.core.model.boards import Rcd, RcdType
from fulmen.core.model.run import ChainCircuit
from fulmen.core.model.supply import Earthing, Seen
from fulmen.core.reference.cable_catalogue import cable_of, cable_record

OWN_CLAUSE = "BS 7671 722.531.3.101"
DC_CLAUSE = "BS 7671 722.531.3.101, IEC 62955"


def residual_current_findings(case: Case) -> list[Finding]:
    """Every finding about RCDs, DC and surges on the way to the charge point."""
    findings = [_own_rcd(case), _dc(case), _blinding(case), _front_rcd_seen(case), _surge(case)]
    if case.run.chain:
        findings.append(_rcd_at_board(case))
        findings.append(_neutral(case))
        findings.append(_concealed(case))
        if case.job.supply.earthing is Earthing.TT:
            findings.append(_tt_origin(case))
    return [finding for finding in findings if finding is not None]


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
    title = "Own RCD of 30 mA or less, opening every live conductor"
    candidates = [rcd for rcd in (board_rcd(case), case.run.charge_point.rcd_inside) if rcd is not None]
    fit = [rcd for rcd in candidates if not _unfit(rcd)]
    if fit:
        detail = f"Type {fit[0].type.value}, {fit[0].residual_ma} mA, switches the neutral."
        return stated("own_rcd", case.subject, title, Verdict.MEETS, detail, OWN_CLAUSE)
    detail = _unfit(candidates[0]) if candidates else "No RCD stands on this circuit, at the board or in the unit."
    remedy = "Fit a double-pole 30 mA Type A RCBO at the board."
    return stated("own_rcd", case.subject, title, Verdict.FALLS_SHORT, detail, OWN_CLAUSE, remedy=remedy)


def _unfit(rcd: Rcd) -> str:
    """Why an RCD can't be the charge point's own, or an empty text."""
    if rcd.residual_ma > 30:
        return f"The RCD opens at {rcd.residual_ma} mA, which is more than 30 mA."
    if rcd.time_delayed:
        return "The RCD is time-delayed."
    return "" if rcd.switches_neutral else "The RCD leaves the neutral closed."


def _rcd_at_board(case: Case) -> Finding:
    title = "RCD at the board as well as in the unit"
    if board_rcd(case) is not None:
        return stated("rcd_at_board", case.subject, title, Verdict.MEETS, "An RCBO guards the cable too.", OWN_CLAUSE)
    detail = "You rely on the RCD in the unit; the cable before it has none. Allowed; say why."
    return stated("rcd_at_board", case.subject, title, Verdict.YOUR_CALL, detail, OWN_CLAUSE)


def _neutral(case: Case) -> Finding | None:
    """An RCBO that leaves the neutral closed does not isolate, even where the unit's own RCD opens it."""
    rcd, title = board_rcd(case), "RCD at the board opens the neutral too"
    if rcd is None:
        return None
    if rcd.switches_neutral:
        return stated("rcd_neutral", case.subject, title, Verdict.MEETS, "Both poles open.", OWN_CLAUSE)
    inside, remedy = case.run.charge_point.rcd_inside, "Use a double-pole RCBO."
    detail = "It leaves the neutral closed: the circuit can't be made dead at the board"
    if inside is not None and not _unfit(inside):
        detail += ", and only the RCD in the unit opens both. Say why it serves."
        return stated("rcd_neutral", case.subject, title, Verdict.YOUR_CALL, detail, OWN_CLAUSE, remedy=remedy)
    return stated("rcd_neutral", case.subject, title, Verdict.FALLS_SHORT, f"{detail}.", OWN_CLAUSE, remedy=remedy)


def _dc(case: Case) -> Finding:
    """Type B, or Type A or F with an RDC-DD: smooth DC above 6 mA must not blind the RCD."""
    title = "Smooth DC from the car can't blind the RCD"
    rcd = board_rcd(case) or case.run.charge_point.rcd_inside
    inside = case.run.charge_point.rcd_inside
    if RcdType.B in [entry.type for entry in (rcd, inside) if entry is not None]:
        return stated("dc_protection", case.subject, title, Verdict.MEETS, "A Type B RCD sees smooth DC.", DC_CLAUSE)
    place, seen = case.job.arrangement.rdc_dd, case.run.charge_point.rdc_dd_inside
    if place is RdcDdPlace.IN_UNIT and seen is Seen.NOT_SEEN:
        detail = "Look in the unit's data: does it detect 6 mA DC?"
        return needs_fact("dc_protection", case.subject, title, detail, DC_CLAUSE)
    present = place is RdcDdPlace.BEFORE_UNIT or (place is RdcDdPlace.IN_UNIT and seen is Seen.YES)
    if present:
        where = "in the unit" if place is RdcDdPlace.IN_UNIT else "before the unit"
        detail = f"6 mA DC detection {where} opens before the RCD is blinded."
        return stated("dc_protection", case.subject, title, Verdict.MEETS, detail, DC_CLAUSE)
    detail = "The unit has no 6 mA DC detection." if place is RdcDdPlace.IN_UNIT else "Nothing detects 6 mA DC."
    remedy = "Use a Type B RCD, or a unit with 6 mA DC detection."
    return stated("dc_protection", case.subject, title, Verdict.FALLS_SHORT, detail, DC_CLAUSE, remedy=remedy)


def _blinding(case: Case) -> Finding:
    """No Type AC anywhere on the way; nothing before a lone Type B that more than 6 mA DC blinds."""
    title = "No RCD on the way that the car's DC blinds"
    inside = case.run.charge_point.rcd_inside
    before = [*front_rcds(case), *([own] if (own := board_rcd(case)) else [])]
    chain = [*before, *([inside] if inside else [])]
    if any(rcd.type is RcdType.AC for rcd in chain):
        where = (
            "in front of this circuit" if RcdType.AC in [rcd.type for rcd in front_rcds(case)] else "on this circuit"
        )
        detail = f"A Type AC RCD stands {where}: it is blind to pulsating DC and goes numb with smooth DC."
        remedy = "Replace it by a Type A, or feed the circuit from before it."
        return stated("rcd_blinding", case.subject, title, Verdict.FALLS_SHORT, detail, OWN_CLAUSE, remedy=remedy)
    lone_b = any(rcd.type is RcdType.B for rcd in chain) and not _dc_detection(case)
    first_b = next((index for index, rcd in enumerate(chain) if rcd.type is RcdType.B), 0)
    if lone_b and any(rcd.type is not RcdType.B for rcd in chain[:first_b]):
        detail = "A Type B lets more than 6 mA DC pass, which blinds the RCD before it."
        remedy = "Put a Type B there too, or use 6 mA DC detection."
        return stated("rcd_blinding", case.subject, title, Verdict.FALLS_SHORT, detail, OWN_CLAUSE, remedy=remedy)
    return stated("rcd_blinding", case.subject, title, Verdict.MEETS, "None on the way goes blind.", OWN_CLAUSE)


def _dc_detection(case: Case) -> bool:
    place = case.job.arrangement.rdc_dd
    inside = place is RdcDdPlace.IN_UNIT and case.run.charge_point.rdc_dd_inside is Seen.YES
    return inside or place is RdcDdPlace.BEFORE_UNIT


def _front_rcd_seen(case: Case) -> Finding | None:
    for chained in case.run.chain:
        board = chained.board
        if board.front_rcd_seen is not Seen.NO and board.front_rcd is None:
            detail = f"Look at {board.name}: does an RCD stand in front of this way, and which waveform mark has it?"
            found = needs_fact("front_rcd", board.id, "RCD in front of the circuit", detail, OWN_CLAUSE)
            return at_board(case, board, found)
    return None


def _concealed(case: Case) -> Finding:
    title, clause = "Concealed cable has a 30 mA RCD before it", "BS 7671 522.6.202"
    circuit = case.run.final().circuit
    concealed = [index for index, section in enumerate(circuit.route) if section.concealed_under_50_mm]
    hidden = [
        index + 1
        for index in concealed
        if not cable_record(cable_of(circuit, circuit.route[index]).record, case.job).earthed_metal_cover
    ]
    if not hidden:
        detail = "Its armour is earthed metal." if concealed else "No section is hidden less than 50 mm deep."
        return stated("concealed_cable", case.subject, title, Verdict.MEETS, detail, clause)
    before = [*front_rcds(case), *([own] if (own := board_rcd(case)) else [])]
    if any(rcd.residual_ma <= 30 and not rcd.time_delayed for rcd in before):
        return stated("concealed_cable", case.subject, title, Verdict.MEETS, f"Section {hidden[0]} is guarded.", clause)
    detail = f"Section {hidden[0]} is hidden less than 50 mm deep; the RCD in the unit doesn't guard it."
    remedy = "Use an RCBO at the board, armoured cable, or run it on the surface."
    return stated("concealed_cable", case.subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy)


def _tt_origin(case: Case) -> Finding:
    title, clause = "TT origin has a time-delayed RCD", "BS 7671 411.5.2, 531.3.5.3.2"
    front = case.run.chain[0].board.front_rcd
    if front is not None and front.time_delayed:
        detail = f"Type {front.type.value} S, {front.residual_ma} mA, guards everything after the origin."
        return stated("tt_origin_rcd", case.subject, title, Verdict.MEETS, detail, clause)
    detail = "On TT the loop is too high for a fuse: an earth fault before the circuit's own RCD would stay."
    remedy = "Fit an S-type RCD, usually 100 mA, at the origin."
    return stated("tt_origin_rcd", case.subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy)


def _surge(case: Case) -> Finding | None:
    if not case.run.chain:
        return None
    title, clause, board = "Surge protection", "BS 7671 443.4.1", case.run.chain[0].board
    if board.surge_protection is Seen.YES:
        return stated("surge", board.id, title, Verdict.MEETS, "A surge protective device is fitted.", clause)
    if board.surge_protection is Seen.NOT_SEEN:
        return needs_fact("surge", board.id, title, f"Look whether {board.name} has one.", clause)
    detail = "None is fitted. Fit one, or keep the owner's written refusal and say so."
    return stated("surge", board.id, title, Verdict.YOUR_CALL, detail, clause)
