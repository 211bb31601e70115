"""Every board on the way: whether it takes the device, has a way for it, was looked over, and can't feed a fire."""

from __future__ import annotations

from fulmen.core.checks.common import at_board
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.findings.rules.supply import BOARD_CASE, BOARD_LABELS, BOARD_MAKE_UP, LOOKED_INSIDE, SPARE_WAY
from fulmen.core.model.boards import Board, Enclosure, MakeUp
from fulmen.core.model.seen import Seen


def board_findings(case: Case) -> list[Finding]:
    """Every finding about the boards of a run, from the origin on."""
    return [finding for chained in case.run.chain for finding in _one_board(case, chained.board)]


def _new_ways(case: Case, board: Board) -> int:
    """How many circuits of the job want a way of a board."""
    return sum(one.from_board == board.id and one.fitted_with_this_job for one in case.job.circuits)


def _one_board(case: Case, board: Board) -> list[Finding]:
    def about(rule: Rule) -> Question:
        return at_board(case, board, ask(rule, case.rules, board.id))

    new_ways = _new_ways(case, board)
    findings: list[Finding | None] = [_case(board, about(BOARD_CASE))]
    if board.fitted_with_this_job or not new_ways:
        detail = "A new board fitted with this job." if board.fitted_with_this_job else "Its circuit is there already."
        findings.append(about(SPARE_WAY).meets(detail))
    else:
        findings += [_make_up(board, about(BOARD_MAKE_UP)), _spare_way(board, about(SPARE_WAY), new_ways)]
    if not board.fitted_with_this_job:
        findings += [_lid(board, about(LOOKED_INSIDE)), _labels(board, about(BOARD_LABELS))]
    return [one for one in findings if one is not None]


def _make_up(board: Board, asked: Question) -> Finding:
    if board.make_up is MakeUp.NOT_SEEN:
        return asked.needs_fact(f"How is {board.name} made up: RCBOs, split load, breakers, or rewirable fuses?")
    if board.make_up is MakeUp.REWIRABLE:
        return asked.falls_short(
            "Rewirable fuses: no RCBO fits, and such a fuse must not guard this circuit.",
            remedy="Fit an own small board off split tails, or have the board replaced.",
        )
    details = {
        MakeUp.ALL_RCBO: "An RCBO in every way: take one more.",
        MakeUp.SPLIT_LOAD: "Split load: an RCD stands before most ways; name it, or use the non-RCD side.",
        MakeUp.BREAKERS_ONLY: "Breakers without RCD: the new way brings its own.",
    }
    return asked.meets(details[board.make_up])


def _spare_way(board: Board, asked: Question, new_ways: int) -> Finding:
    if board.spare_ways is None:
        return asked.needs_fact(f"Count the spare ways of {board.name}.")
    return asked.judged(
        value=float(board.spare_ways),
        limit=float(new_ways),
        unit="spare",
        decimals=0,
        at_least=True,
        detail="Leave an empty way each side where you can: it runs warm for hours.",
        remedy="Fit an own small board off split tails, or have the board replaced.",
    )


def _lid(board: Board, asked: Question) -> Finding | None:
    if board.looked_inside is Seen.YES:
        return None
    return asked.needs_fact(
        "With the supply isolated: loose or over-stripped conductors, a ring end not clamped, scorching."
    )


def _labels(board: Board, asked: Question) -> Finding | None:
    if board.labels_complete is not Seen.NO:
        return None
    detail = "Labels are missing: identify what you can, label the new circuit, tell the owner of the rest."
    return asked.your_call(detail, basis={"labels_complete": board.labels_complete})


def _case(board: Board, asked: Question) -> Finding | None:
    if not board.indoors:
        return None
    if board.enclosure is Enclosure.NOT_SEEN:
        return asked.needs_fact(f"Is {board.name} of metal or plastic?")
    if board.enclosure is Enclosure.METAL:
        return asked.meets("Metal.")
    detail = "Plastic. Replace it, or leave an existing board as found, tell the owner and comment on it."
    basis = {"enclosure": board.enclosure, "new": board.fitted_with_this_job}
    return asked.your_call(detail, basis=basis)
