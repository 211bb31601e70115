"""Every board on the way: whether it takes the device, has a way for it, was looked over, and can't feed a fire."""

from __future__ import annotations

from fulmen.core.checks.common import at_board, keeps_weather_out, leaning, mark_wanted
from fulmen.core.circuit.fitness import opens_at_once
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.protection import NEW_BOARD_RCD
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.findings.rules.supply import (
    BOARD_CASE,
    BOARD_IP,
    BOARD_LABELS,
    BOARD_MAKE_UP,
    LOOKED_INSIDE,
    SPARE_WAY,
)
from fulmen.core.installation.guards import PlacedGuard, Stands, rcds_of_groups
from fulmen.core.model.boards import Board, Enclosure, MakeUp
from fulmen.core.model.load import LoadKind
from fulmen.core.model.seen import Seen


def board_findings(case: Case) -> list[Finding]:
    """Every finding about the boards of a run, from the origin on."""
    return [finding for chained in case.run.chain for finding in _one_board(case, chained.board)]


def _new_ways(case: Case, board: Board) -> int:
    """How many circuits of the job want a way of a board."""
    return sum(one.fitted_with_this_job for one in case.installation.tree.leaving[board.id])


def _one_board(case: Case, board: Board) -> list[Finding]:
    def about(rule: Rule) -> Question:
        return at_board(case, board, ask(rule, case.rules, board.id))

    new_ways = _new_ways(case, board)
    findings: list[Finding | None] = [
        _case(board, about(BOARD_CASE)),
        _weather(case, board, about(BOARD_IP)),
        _new_loads(case, board),
    ]
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
    if board.indoors is None:
        return asked.needs_fact(f"Does {board.name} stand indoors or outdoors?")
    if not board.indoors:
        return None
    if board.enclosure is Enclosure.NOT_SEEN:
        return asked.needs_fact(f"Is {board.name} of metal or plastic?")
    if board.enclosure is Enclosure.METAL:
        return asked.meets("Metal.")
    if board.fitted_with_this_job:
        remedy = "Fit a metal board, or put it in a case that won't burn."
        return asked.falls_short("A new board of plastic, indoors in a dwelling.", remedy=remedy)
    detail = "Plastic. Replace it, or leave the existing board as found, tell the owner and comment on it."
    return asked.your_call(detail, basis={"enclosure": board.enclosure, "new": False})


def _weather(case: Case, board: Board, asked: Question) -> Finding | None:
    if board.indoors is not False:
        return None
    if board.ip_code is None:
        return asked.needs_fact(f"Enter the IP code of {board.name}: it stands outdoors.")
    return keeps_weather_out(board.ip_code, case.rules, asked, "board")


def _new_loads(case: Case, board: Board) -> Finding | None:
    """Sockets and lights of a new board stand behind an RCD that opens at once, as those of the house do."""
    fed = [one for one in board.other_loads if one.kind in (LoadKind.SOCKETS, LoadKind.LIGHTING)]
    if not fed or not board.fitted_with_this_job:
        return None
    most_ma = case.rules.value("rcd_residual_ma")
    asked = ask(NEW_BOARD_RCD, case.rules, board.id, board=board.name, residual_ma=f"{most_ma:g}")
    for guard in before_board(case, board):
        if opens_at_once(guard.rcd, most_ma):
            return leaning(case, asked, guard).meets(f"The {guard.name} {guard.where} stands before them.")
        if guard.unread:
            return mark_wanted(asked, guard)
    remedy = f"Put a {most_ma:g} mA RCD in front of its ways, or enter them as circuits with an RCBO each."
    # Which group feeds the sockets is not entered: every one that may feed them has an RCD that opens at once.
    groups = rcds_of_groups(board)
    may_feed = [one for one in groups if one.feeds_others is not Seen.NO]
    open_ones = [one for one in may_feed if not any(opens_at_once(rcd, most_ma) for rcd in one.rcds)]
    bare = next((one for one in open_ones if one.feeds_others is Seen.YES and not one.unread), None)
    if bare is not None or not may_feed:
        where = f"in front of {bare.name}" if bare is not None else "before them"
        return asked.falls_short(f"A new board, and no RCD that opens at once stands {where}.", remedy=remedy)
    behind = [one.name for one in may_feed if one.feeds_others is Seen.YES]
    unread = next((one for one in open_ones if one.unread), None)
    if unread is not None:
        return asked.needs_fact(
            f"Read the mark of the RCD in front of {unread.name}: which type, how many mA, is it S?"
        )
    if open_ones or not behind:
        return asked.needs_fact(f"Do sockets or lights hang behind {(open_ones or may_feed)[0].name}?")
    return asked.meets(f"They hang behind {' and '.join(behind)}.")


def before_board(case: Case, board: Board) -> list[PlacedGuard]:
    """The guards before every way of a board: those of the circuits up to it, and its own incomer."""
    ids = [chained.board.id for chained in case.run.chain]
    fed_by = {one.circuit.id for one in case.run.chain[: ids.index(board.id)]}
    own = case.run.chain[ids.index(board.id)].circuit.id
    return [
        one for one in case.guards if one.circuit in fed_by or (one.circuit == own and one.stands is Stands.INCOMER)
    ]
