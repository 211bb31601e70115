"""What several checks share."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, Stage, Verdict, stated
from fulmen.core.model.boards import Board


def needs_fact(rule: str, subject: str, title: str, detail: str, clause: str, stage: Stage = Stage.SURVEY) -> Finding:
    """A finding that waits for a fact; its stage is where the fact is entered."""
    return stated(rule, subject, title, Verdict.NEEDS, detail, clause, stage=stage)


def at_board(case: Case, board: Board, finding: Finding) -> Finding:
    """A finding about a board, at the stage where its facts are entered: survey at the origin, design further on."""
    if board.id == case.run.chain[0].board.id:
        return finding
    return finding.model_copy(update={"stage": Stage.DESIGN})


def needs_reading(rule: str, subject: str, title: str, detail: str, clause: str) -> Finding:
    """A finding that waits for a live reading."""
    return stated(rule, subject, title, Verdict.NEEDS, detail, clause, stage=Stage.LIVE, waits_for="reading")
