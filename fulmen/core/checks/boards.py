"""Every board on the way: whether it takes the device, has a way for it, was looked over, and can't feed a fire."""

from __future__ import annotations

from fulmen.core.checks.common import at_board, needs_fact
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, Stage, Verdict, judged, stated
from fulmen.core.model.boards import Board, Enclosure, MakeUp
from fulmen.core.model.supply import Seen

PRACTICE = "common practice, no source"
WAY = "A way for the circuit"


def board_findings(case: Case) -> list[Finding]:
    """Every finding about the boards of a run, from the origin on."""
    boards = [chained.board for chained in case.run.chain]
    return [at_board(case, board, finding) for board in boards for finding in _one_board(board, _new_ways(case, board))]


def _new_ways(case: Case, board: Board) -> int:
    """How many circuits of the job want a way of a board."""
    return sum(one.from_board == board.id and one.fitted_with_this_job for one in case.job.circuits)


def _one_board(board: Board, new_ways: int) -> list[Finding]:
    findings: list[Finding | None] = [_case(board)]
    if board.fitted_with_this_job or not new_ways:
        detail = "A new board fitted with this job." if board.fitted_with_this_job else "Its circuit is there already."
        findings.append(_said("spare_way", WAY, Verdict.MEETS, detail, board))
    else:
        findings += [_make_up(board), _spare_way(board, new_ways)]
    if not board.fitted_with_this_job:
        findings += [_lid(board), _labels(board)]
    return [one for one in findings if one is not None]


def _said(rule: str, title: str, verdict: Verdict, detail: str, board: Board, clause: str = PRACTICE) -> Finding:
    return stated(rule, board.id, title, verdict, detail, clause, stage=Stage.SURVEY)


def _make_up(board: Board) -> Finding:
    title = "Board takes the new device"
    if board.make_up is MakeUp.NOT_SEEN:
        detail = f"How is {board.name} made up: RCBOs, split load, breakers, or rewirable fuses?"
        return needs_fact("board_make_up", board.id, title, detail, PRACTICE)
    if board.make_up is MakeUp.REWIRABLE:
        detail = "Rewirable fuses: no RCBO fits, and such a fuse must not guard this circuit."
        remedy = "Fit an own small board off split tails, or have the board replaced."
        found = _said("board_make_up", title, Verdict.FALLS_SHORT, detail, board)
        return found.model_copy(update={"remedy": remedy})
    details = {
        MakeUp.ALL_RCBO: "An RCBO in every way: take one more.",
        MakeUp.SPLIT_LOAD: "Split load: an RCD stands before most ways; name it, or use the non-RCD side.",
        MakeUp.BREAKERS_ONLY: "Breakers without RCD: the new way brings its own.",
    }
    return _said("board_make_up", title, Verdict.MEETS, details[board.make_up], board)


def _spare_way(board: Board, new_ways: int) -> Finding:
    if board.spare_ways is None:
        return needs_fact("spare_way", board.id, WAY, f"Count the spare ways of {board.name}.", PRACTICE)
    return judged(
        rule="spare_way",
        subject=board.id,
        title=WAY,
        stage=Stage.SURVEY,
        value=float(board.spare_ways),
        limit=float(new_ways),
        unit="spare",
        decimals=0,
        at_least=True,
        clause=PRACTICE,
        detail="Leave an empty way each side where you can: it runs warm for hours.",
        remedy="Fit an own small board off split tails, or have the board replaced.",
    )


def _lid(board: Board) -> Finding | None:
    if board.looked_inside is Seen.YES:
        return None
    title = "Looked over with its lid off"
    detail = "With the supply isolated: loose or over-stripped conductors, a ring end not clamped, scorching."
    return needs_fact("looked_inside", board.id, title, detail, "BS 7671 132.16")


def _labels(board: Board) -> Finding | None:
    if board.labels_complete is not Seen.NO:
        return None
    detail = "Labels are missing: identify what you can, label the new circuit, tell the owner of the rest."
    title, clause = "Circuits of the board labelled", "BS 7671 514.8, 514.9"
    return _said("board_labels", title, Verdict.YOUR_CALL, detail, board, clause)


def _case(board: Board) -> Finding | None:
    if not board.indoors:
        return None
    title, clause = "Board's case won't feed a fire", "BS 7671 421.1.201"
    if board.enclosure is Enclosure.NOT_SEEN:
        return needs_fact("board_case", board.id, title, f"Is {board.name} of metal or plastic?", clause)
    if board.enclosure is Enclosure.METAL:
        return stated("board_case", board.id, title, Verdict.MEETS, "Metal.", clause)
    detail = "Plastic. Replace it, or leave an existing board as found, tell the owner and comment on it."
    return stated("board_case", board.id, title, Verdict.YOUR_CALL, detail, clause)
