"""What several checks share."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, Proof
from fulmen.core.findings.question import Question
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.boards import Board
from fulmen.core.model.readings import StepKey
from fulmen.core.reference.rule_set import RuleSet


def at_board(case: Case, board: Board, question: Question) -> Question:
    """A question about a board, where its facts are entered: on the walk at the origin, with the design further on."""
    return question if board.id == case.run.chain[0].board.id else question.further_on()


def leaning(case: Case, question: Question, *guards: PlacedGuard) -> Question:
    """A question answered by leaning on some guards of the run: each is proven by a test of its own."""
    return question.leaning_on(*(_proof(case, one) for one in guards))


def _proof(case: Case, guard: PlacedGuard) -> Proof:
    if guard.rcd is None:
        step = StepKey.DC_DETECTION if guard.detects_dc else StepKey.OPEN_PEN_TEST
        return Proof(step, case.subject)
    subject = case.run.tested_as[guard.field] if case.run.chain else guard.subject
    return Proof(StepKey.RCD_ORIGIN_TRIP if subject == ORIGIN else StepKey.RCD_TRIP, subject)


def keeps_weather_out(ip_code: str, rules: RuleSet, asked: Question, what: str) -> Finding:
    """An IP code against what stands outdoors."""
    solids, water = int(rules.value("ip_outdoors_solids")), int(rules.value("ip_outdoors_water"))
    detail = f"{ip_code}; IP{solids}{water} or better outdoors."
    if int(ip_code[2]) >= solids and int(ip_code[3]) >= water:
        return asked.meets(detail)
    return asked.falls_short(detail, remedy=f"Use a {what} of IP{solids}{water} or better.")


def current_unknown(case: Case) -> bool:
    """Whether nobody has said yet what the unit takes, nor set it to a current."""
    if case.to_loads:
        return False
    point = case.run.charge_point
    return point.max_current_a is None and point.set_current_a is None


def tails_unknown(case: Case) -> bool:
    """Whether a size or a length of the tails to the run's first board is not known yet."""
    tails = case.installation.tails_to[case.run.chain[0].board.id]
    return not tails or any(one.csa_mm2 is None or one.length_m is None for one in tails)


def mark_wanted(asked: Question, guard: PlacedGuard) -> Finding:
    """An RCD whose mark nobody has read: what it says decides, and until then nothing is taken for it."""
    what = "RCD" if guard.stands is Stands.UNIT else "RCBO" if guard.device is not None else "RCCB"
    return asked.needs_fact(f"Read the mark of the {what} {where_words(guard)}: which type, how many mA, and is it S?")


def where_words(guard: PlacedGuard) -> str:
    """Where a guard of the run stands, told from its circuit."""
    return {Stands.UNIT: "in the unit", Stands.WAY: f"at {guard.where}"}.get(guard.stands, guard.where)
