"""What flows back: own generation, batteries, units that feed the car's battery into the house (551, 551.7.2)."""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.checks.common import at_board
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.around import BUSBAR, ISLAND_EARTH, SOURCE
from fulmen.core.findings.words import word
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.boards import Board
from fulmen.core.model.seen import Seen
from fulmen.core.model.sources import Source


def own_source_findings(case: Case) -> Iterator[Finding]:
    """What is known of the own sources, and how they stand when the network is gone."""
    supply = case.job.supply
    if supply.own_generation is not Seen.YES:
        return
    asked = ask(SOURCE, case.rules, ORIGIN)
    if not supply.sources:
        yield asked.needs_fact("Which source is it, where does it come in, and how much does it feed?")
        return
    open_ones = [word(one.kind) for one in supply.sources if not _known(case, one)]
    if open_ones:
        yield asked.needs_fact(f"Of {' and '.join(open_ones)}: at which board does it come in, how much does it feed?")
    else:
        yield asked.meets(", ".join(f"{word(one.kind)} {one.feeds_a:g} A" for one in supply.sources) + ".")
    for place, one in enumerate(supply.sources, 1):
        yield _alone(case, one, place)


def busbar_findings(case: Case) -> Iterator[Finding]:
    """551.7.2: a busbar that several sources feed carries what they give together."""
    tree = case.installation.tree
    if not case.run.chain:
        return
    there = [one.board for one in case.job.supply.sources if one.board in tree.boards]
    on_their_way = [chained.board for name in there for chained in tree.chain_to(name)]
    boards = [chained.board for chained in case.run.chain] + on_their_way + [tree.boards[name] for name in there]
    for board in {one.id: one for one in boards}.values():
        found = _busbar(case, board)
        if found is not None:
            yield found


def _known(case: Case, one: Source) -> bool:
    return one.board in case.installation.tree.boards and one.feeds_a is not None


def _alone(case: Case, one: Source, place: int) -> Finding:
    """551.4.3: a source that goes on without the network does not have the network's earth then."""
    asked = ask(ISLAND_EARTH, case.rules, f"{ORIGIN}-source-{place}", source=word(one.kind))
    if one.runs_alone is Seen.NOT_SEEN:
        return asked.needs_fact("Does it go on feeding the house when the network is gone?")
    if one.runs_alone is Seen.NO:
        return asked.meets("It stops with the network.")
    if one.own_earth is Seen.YES:
        return asked.meets("It goes on alone, on an earth of its own.")
    if one.own_earth is Seen.NO:
        remedy = "Put in an electrode and the switching that goes with it, or keep the car off while it runs alone."
        return asked.falls_short("It goes on alone, with no earth of its own: no RCD opens then.", remedy=remedy)
    return asked.needs_fact("It goes on alone: has it an electrode of its own then, and is neutral joined to it?")


def _busbar(case: Case, board: Board) -> Finding | None:
    """In of what feeds the board, and what flows in besides, against what its maker says the busbar carries."""
    back_a, open_ones = _flows_in_a(case, board)
    if not back_a and not open_ones:
        return None
    asked = at_board(case, board, ask(BUSBAR, case.rules, board.id, board=board.name))
    if open_ones:
        return asked.needs_fact(f"How much does it feed: {' and '.join(open_ones)}?")
    feeder = case.installation.tree.feeders.get(board.id)
    fed_a = float(feeder.device.rating_a) if feeder is not None else case.job.supply.cut_out_fuse_a
    if board.busbar_a is None or fed_a is None:
        return asked.needs_fact(f"Enter what the busbar of {board.name} carries, from its label, and the cut-out fuse.")
    total_a = fed_a + back_a
    line = WorkingLine(
        symbol="I", formula="In + I source", figures=f"{fed_a:g} + {back_a:g}", value=total_a, decimals=0, unit="A"
    )
    return asked.judged(
        value=total_a,
        limit=board.busbar_a,
        unit="A",
        decimals=0,
        working=(line,),
        detail="what feeds the board, and what flows in besides, against its busbar",
        remedy="Bring the source in before the board, or use a board with a bigger busbar.",
    )


def _flows_in_a(case: Case, board: Board) -> tuple[float, list[str]]:
    """What own sources and cars feed into a board, from it on and beyond it [A], and those that nobody has told."""
    tree, back_a, open_ones = case.installation.tree, 0.0, []
    for one in case.job.supply.sources if case.job.supply.own_generation is Seen.YES else ():
        if one.board not in tree.boards or not _at_or_behind(case, one.board, board):
            continue
        if one.feeds_a is None:
            open_ones.append(word(one.kind))
        back_a += one.feeds_a or 0.0
    for point in case.job.charge_points:
        feeder = tree.feeders.get(point.id)
        if point.feeds_back is not Seen.YES or feeder is None or not _at_or_behind(case, feeder.from_board, board):
            continue
        if point.max_current_a is None:
            open_ones.append(point.name)
        back_a += point.max_current_a or 0.0
    return back_a, open_ones


def _at_or_behind(case: Case, there: str, board: Board) -> bool:
    """Whether a board is this one, or one that it feeds."""
    return there == board.id or any(one.board.id == board.id for one in case.installation.tree.chain_to(there))
