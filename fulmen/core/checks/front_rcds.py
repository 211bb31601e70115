"""RCDs in front: looked for, before everything on TT, not blinded by many detectors, and who goes off with them."""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.checks.common import at_board, leaning, mark_wanted
from fulmen.core.circuit.fitness import stays_closed
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.protection import DC_SUM, FRONT_RCD, GOES_OFF, TT_ORIGIN_RCD
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import PlacedGuard, Stands, rcds_of_groups
from fulmen.core.installation.tree import ChainCircuit
from fulmen.core.model.arrangement import RdcDdPlace
from fulmen.core.model.boards import MakeUp
from fulmen.core.model.guards import RcdType
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing

# How much smooth DC an RCD of each type stands before it goes blind, as the edition's limits name it: Type AC none,
# Type B any.
STANDS_DC = {RcdType.A: "dc_stands_a_ma", RcdType.F: "dc_stands_f_ma"}


def front_rcd_findings(case: Case) -> list[Finding]:
    """Every finding about RCDs in front of the charge point's circuit that protects people."""
    if not case.run.chain:
        return []
    findings = [_seen(case), *_detectors(case)]
    if case.job.supply.earthing is Earthing.TT:
        findings.append(_tt_origin(case))
    return [finding for finding in findings if finding is not None]


def _seen(case: Case) -> Finding | None:
    """Whether an RCD stands in front of the way was looked at, at every board, and which type it is."""
    for chained in case.run.chain:
        board = chained.board
        in_front = [
            guard
            for guard in case.guards
            if guard.circuit == chained.circuit.id and guard.stands in (Stands.INCOMER, Stands.GROUP)
        ]
        unknown = any(one.unread for one in in_front)
        if unknown or (board.front_rcd_seen is not Seen.NO and all(one.rcd is None for one in in_front)):
            asked = at_board(case, board, ask(FRONT_RCD, case.rules, board.id))
            return asked.needs_fact(
                f"Look at {board.name}: does an RCD stand in front of this way, and which waveform mark has it?"
            )
    return None


def _detectors(case: Case) -> Iterator[Finding]:
    """6 mA detectors add up: several behind one RCD may let more smooth DC pass than it stands."""
    if len(case.job.charge_points) < 2:
        return
    each_ma = case.rules.value("dc_detector_ma")
    every = [
        one for one in case.installation.runs
        if one.chain and one.charge_point.arrangement.rdc_dd is not RdcDdPlace.NONE
    ]  # fmt: skip
    for guard in case.run.rcds_outside:
        behind = [one for one in every if any(each.field == guard.field for each in one.guards)]
        if guard.rcd is None or guard.rcd.type is RcdType.B or len(behind) < 2:
            continue
        name = STANDS_DC.get(guard.rcd.type)
        sum_ma, stands_ma = len(behind) * each_ma, case.rules.value(name) if name is not None else 0.0
        asked = ask(DC_SUM, case.rules, guard.subject, rcd=guard.name)
        told = f"{len(behind)} detectors of {each_ma:g} mA behind it may let {sum_ma:g} mA of smooth DC pass"
        if sum_ma <= stands_ma:
            yield asked.meets(f"{told}; it stands {stands_ma:g} mA.")
        elif any(one.stands is not Stands.UNIT for one in case.run.own_rcds):
            detail = f"{told}, and it may go blind. Each car has an RCD of its own; say what else relies on this one."
            basis = {"detectors": len(behind), "type": guard.rcd.type}
            alone = not guard.others and not (guard.stands is Stands.INCOMER and _loads_behind(case, guard))
            yield asked.your_call(detail, basis=basis, conditions=DC_SUM.borne_out(nothing_else=alone))
        else:
            remedy = "Give each charge point an RCD of its own, or use a Type B in front."
            yield asked.falls_short(f"{told}; a Type {guard.rcd.type.value} may go blind.", remedy=remedy)


def goes_off_findings(case: Case) -> Iterator[Finding]:
    """An RCD that others share takes them along: freezer and lights go off with a fault at the car (314.1).

    One that is selective with every RCD behind it stays closed, so nobody goes off with it.
    """
    behind = {one.field: case.run.rcds[at + 1 :] for at, one in enumerate(case.run.rcds)}
    at_once = [one for one in case.run.rcds_outside if not stays_closed(one, behind[one.field])]
    for guard in at_once:
        if guard.shared is Seen.NO or guard.circuit in case.judged_before:
            continue
        asked = ask(GOES_OFF, case.rules, guard.subject, rcd=guard.name)
        others = _others(case, guard)
        if guard.shared is Seen.NOT_SEEN:
            yield asked.needs_fact(f"Does anything else hang behind the {guard.name} {guard.where}?")
        elif not others:
            yield asked.needs_fact(f"What else hangs behind the {guard.name} {guard.where}: freezer, lights?")
        elif len(at_once) == 1:
            yield asked.meets(f"A fault at the car opens it, and with it go {others}.")
        else:
            yield asked.meets(f"{len(at_once)} stand in series, and any of them may open; with this one go {others}.")


def _others(case: Case, guard: PlacedGuard) -> str:
    """What else hangs behind a guard, by name: circuits of this job, loads of its board, and what was written there."""
    chained = next(one for one in case.run.chain if one.circuit.id == guard.circuit)
    own, board = {one.circuit.id for one in case.run.chain}, chained.board
    circuits = [
        one.name for one in case.installation.tree.leaving[board.id]
        if one.id not in own
        and (guard.stands is not Stands.GROUP or one.group == chained.circuit.group)
    ]  # fmt: skip
    loads = [one.name or word(one.kind) for one in board.other_loads] if guard.stands is Stands.INCOMER else []
    return ", ".join(dict.fromkeys([*circuits, *loads, *([guard.others] if guard.others else [])]))


def _loads_behind(case: Case, guard: PlacedGuard) -> bool:
    """Whether its board feeds loads of the house as well."""
    return any(one.circuit.id == guard.circuit and one.board.other_loads for one in case.run.chain)


def _tt_origin(case: Case) -> Finding:
    """On TT an RCD stands before everything the electrode serves, or all up to the RCBOs is insulated throughout.

    One in front of a group guards that group; what stands beside it is guarded by nothing.
    """
    asked, first = ask(TT_ORIGIN_RCD, case.rules, case.subject), case.run.chain[0]
    front = [one for one in case.run.rcds if one.circuit == first.circuit.id and one.stands is Stands.INCOMER]
    unread = next(
        (one for one in case.run.unread if one.circuit == first.circuit.id and one.stands is Stands.INCOMER), None
    )
    if unread is not None and not front:
        return mark_wanted(asked, unread)
    if front:
        return _before_all(case, asked, front)
    spread = next((words for holds, words in _spread(case, first) if holds), None)
    insulated = case.job.supply.insulated_to_rcds
    if spread is not None and insulated is Seen.YES:
        detail = f"{spread}, and all before them in double or reinforced insulation. Say who saw it."
        return asked.your_call(detail, basis={"insulated": insulated}, remedy=S_TYPE)
    if spread is not None and insulated is Seen.NOT_SEEN:
        return asked.needs_fact(
            f"{spread}, and none before them: is all between cut-out and them in double or reinforced insulation?"
        )
    return asked.falls_short(
        "On TT the loop is too high for a fuse: an earth fault before the circuit's own RCD would stay.", remedy=S_TYPE
    )


def _before_all(case: Case, asked: Question, front: list[PlacedGuard]) -> Finding:
    """RCDs in front of every way: a time-delayed one that opens every live conductor is the usual answer."""
    whole = next((one for one in front if one.opens_live), None)
    if whole is None:
        unread = next((one for one in front if one.opens_live is None), None)
        if unread is not None:
            return asked.needs_fact(f"How many poles does the {unread.name} {unread.where} open?")
        return asked.falls_short(
            f"The {front[0].name} {front[0].where} leaves a live conductor closed: on TT the neutral is not at earth.",
            remedy=S_TYPE,
        )
    delayed = next((one for one in front if one.opens_live and one.rcd is not None and one.rcd.time_delayed), None)
    if delayed is not None:
        return leaning(case, asked, delayed).meets(f"{delayed.name} guards everything behind it.")
    detail = f"{whole.name} {whole.where} guards all behind it, and all of that goes off together. Say why."
    conditions = TT_ORIGIN_RCD.borne_out(seen_insulated=case.job.supply.insulated_to_rcds is Seen.YES)
    return leaning(case, asked, whole).your_call(
        detail, basis={"front": whole.name}, remedy=S_TYPE, conditions=conditions
    )


def _spread(case: Case, first: ChainCircuit) -> tuple[tuple[bool, str], ...]:
    """Ways in which every circuit of the origin's board stands behind an RCD, though none stands before them all."""
    board, leaving = first.board, case.installation.tree.leaving[first.board.id]
    own = all(one.device.rcd is not None for one in leaving)
    known = board.fitted_with_this_job and not board.other_loads and board.feeds_others is not Seen.YES
    groups = rcds_of_groups(board)
    in_groups = {one.id for one in groups}
    grouped = bool(groups) and all(one.rcds for one in groups) and all(one.group in in_groups for one in leaving)
    return (
        (own and (board.make_up is MakeUp.ALL_RCBO or known), "An RCBO in every way"),
        (grouped, "An RCD in front of every group"),
    )


S_TYPE = "Fit an S-type RCD, usually 100 mA, at the origin."
