"""What several checks share."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.question import Question
from fulmen.core.model.boards import Board
from fulmen.core.model.run import tails_to


def at_board(case: Case, board: Board, question: Question) -> Question:
    """A question about a board, where its facts are entered: on the walk at the origin, with the design further on."""
    return question if board.id == case.run.chain[0].board.id else question.further_on()


def current_unknown(case: Case) -> bool:
    """Whether nobody has said yet what the unit takes, nor set it to a current."""
    if case.to_loads:
        return False
    point = case.run.charge_point
    return point.max_current_a is None and point.set_current_a is None


def tails_unknown(case: Case) -> bool:
    """Whether a size or a length of the tails to the run's first board is not known yet."""
    tails = tails_to(case.job, case.run.chain[0].board.id)
    return not tails or any(one.csa_mm2 is None or one.length_m is None for one in tails)
