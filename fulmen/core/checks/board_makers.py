"""What the makers of boards and surge protection ask, and what else hangs behind an RCD that the car shares."""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.checks.common import at_board
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules import around as rules
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.installation.guards import PlacedGuard
from fulmen.core.model.boards import Board, MakeUp
from fulmen.core.model.guards import RcdType
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing


def board_maker_findings(case: Case) -> Iterator[Finding]:
    """Every such finding of the boards of a run."""
    for chained in case.run.chain:
        board, leaving = chained.board, case.installation.tree.leaving[chained.board.id]
        if board.fitted_with_this_job or any(one.fitted_with_this_job for one in leaving):
            yield from _devices(board, _about(rules.BOARD_DEVICES, case, board))
        yield from _diversity(case, board)
        yield from _surge(case, board)
        yield from _flash_guards(case, board)
        yield from _shared(case, board)


def _about(rule: Rule, case: Case, board: Board) -> Question:
    return at_board(case, board, ask(rule, case.rules, board.id, board=board.name))


def _devices(board: Board, asked: Question) -> Iterator[Finding]:
    if board.devices_allowed is Seen.YES:
        yield asked.meets("As its maker says.")
    elif board.devices_allowed is Seen.NO:
        remedy = "Use a device that the board's maker names, or put it in a board of its own."
        yield asked.falls_short("Its maker does not name what goes in.", remedy=remedy)
    else:
        yield asked.needs_fact(
            f"Does the maker of {board.name} name the devices that go into it? Fitting is not enough."
        )


def _diversity(case: Case, board: Board) -> Iterator[Finding]:
    """In·RDF ≥ Ib for each of several circuits with cars, which run for hours at once (BS EN 61439-3)."""
    tree = case.installation.tree
    points = tree.points
    cars = [one for one in tree.leaving[board.id] if one.feeds in points]
    if len(cars) < SEVERAL:
        return
    asked = _about(rules.BOARD_DIVERSITY, case, board)
    if board.diversity_factor is None:
        yield asked.needs_fact(
            f"What diversity factor gives the maker of {board.name} for {len(cars)} circuits at once?"
        )
        return
    worst = max(cars, key=lambda one: points[one.feeds].design_current_a() / one.device.rating_a)
    yield asked.judged(
        value=points[worst.feeds].design_current_a(),
        limit=board.diversity_factor * worst.device.rating_a,
        unit="A",
        decimals=1,
        detail=f"{worst.name}: its car for hours, against {board.diversity_factor:g} of {worst.device.rating_a} A",
        remedy="Use bigger devices where the cable allows, leave an empty way between them, or turn the cars down.",
    )


SEVERAL = 2


def _surge(case: Case, board: Board) -> Iterator[Finding]:
    """534.4: connected for the earthing that is there, with a device before it within its maker's limit."""
    if board.surge_protection is not Seen.YES:
        return
    asked = _about(rules.SURGE_AS_MADE, case, board)
    tt = case.job.supply.earthing is Earthing.TT
    how = "from line to neutral with a gap to earth, or behind an S-type (TT)" if tt else "for this earthing"
    if board.surge_as_made is Seen.YES:
        yield asked.meets(f"Connected {how}, a device before it within its maker's limit.")
    elif board.surge_as_made is Seen.NO:
        remedy = "Connect it as its maker says, behind a device within its limit."
        yield asked.falls_short(f"Not connected {how}, or without a device within its maker's limit.", remedy=remedy)
    else:
        yield asked.needs_fact(f"Is it connected {how}, with a device before it within its maker's limit?")


def _flash_guards(case: Case, board: Board) -> Iterator[Finding]:
    if board.make_up is not MakeUp.REWIRABLE or board.fitted_with_this_job:
        return
    asked = _about(rules.FLASH_GUARDS, case, board)
    if board.flash_guards is Seen.YES:
        yield asked.meets("Asked about before anybody drills.")
    else:
        yield asked.needs_fact(
            "Its flash guards may hold asbestos: don't drill or break them before somebody has asked."
        )


def _shared(case: Case, board: Board) -> Iterator[Finding]:
    """What else hangs behind an RCD in front that opens at once: smooth DC blinds it, standing leakage opens it."""
    shared = next((one for one in case.guards if _shares(case, one, board)), None)
    if shared is None:
        return
    asked = _about(rules.SMOOTH_DC, case, board)
    if shared.residual.type is not RcdType.B:
        if board.smooth_dc is Seen.NO:
            yield asked.meets("Nothing else of smooth DC hangs behind it.")
        elif board.smooth_dc is Seen.YES:
            remedy = "Feed the car past it by an RCBO of its own, or put the other behind a Type B."
            yield asked.falls_short(f"Something else of smooth DC hangs behind the {shared.name}.", remedy=remedy)
        else:
            yield asked.needs_fact(
                f"Does another thing of smooth DC hang behind the {shared.name}: an inverter, a battery, a big drive?"
            )
    asked, share = _about(rules.LEAKAGE, case, board), case.rules.value("leakage_share")
    if board.leakage_ma is None:
        yield asked.needs_fact(f"Clamp the circuits behind the {shared.name}: how much leaks all the time?")
        return
    yield asked.judged(
        value=board.leakage_ma,
        limit=share * shared.residual.residual_ma,
        unit="mA",
        decimals=1,
        detail=f"behind the {shared.name}, before the car is added",
        remedy="Feed the car past it by an RCBO of its own.",
    )


def _shares(case: Case, guard: PlacedGuard, board: Board) -> bool:
    """Whether it is an RCD in front of ways of this board that open at once, with others behind it."""
    own = any(one.board.id == board.id and one.circuit.id == guard.circuit for one in case.run.chain)
    if not own or not guard.is_in_front or guard.rcd is None or guard.rcd.time_delayed:
        return False
    return guard.shared is Seen.YES
