"""What several checks share."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.question import Question
from fulmen.core.model.boards import Board


def at_board(case: Case, board: Board, question: Question) -> Question:
    """A question about a board, where its facts are entered: on the walk at the origin, with the design further on."""
    return question if board.id == case.run.chain[0].board.id else question.further_on()
