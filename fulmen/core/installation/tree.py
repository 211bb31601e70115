"""The tree of boards and circuits, by name: what feeds what, what leaves where, each one's place in the job file."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fulmen.core.model.boards import Board
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit, Phase
from fulmen.core.model.guards import Guard, GuardKind
from fulmen.core.model.job import Job


@dataclass(frozen=True)
class ChainCircuit:
    """One board and the circuit that leaves it on the way to the charge point."""

    board: Board
    circuit: Circuit


Chain = tuple[ChainCircuit, ...]


@dataclass(frozen=True, slots=True)
class Tree:
    """Boards, circuits and charge points by their names.

    `feeders` are circuits by what they feed, `leaving` those that leave each board, `paths` where each part stands in
    the job file. `origin` is the board that no circuit feeds.
    """

    boards: Mapping[str, Board]
    circuits: Mapping[str, Circuit]
    points: Mapping[str, ChargePoint]
    feeders: Mapping[str, Circuit]
    leaving: Mapping[str, tuple[Circuit, ...]]
    paths: Mapping[str, str]
    origin: Board | None

    def chain_to(self, end: str) -> Chain:
        """The circuits from the origin's board to a board or charge point, in order; empty where nothing feeds it."""
        chain: list[ChainCircuit] = []
        while (circuit := self.feeders.get(end)) is not None:
            chain.append(ChainCircuit(self.boards[circuit.from_board], circuit))
            end = circuit.from_board
        return tuple(reversed(chain))

    def chain_of(self, circuit: Circuit) -> Chain:
        """The circuits from the origin's board up to one and with it."""
        return (*self.chain_to(circuit.from_board), ChainCircuit(self.boards[circuit.from_board], circuit))

    def line_of(self, circuit: Circuit) -> Phase:
        """The line conductor of a single-phase circuit: its own, or that of the single-phase sub-main before it."""
        feeder = self.feeders.get(circuit.from_board)
        return circuit.phase if feeder is None or feeder.phases == 3 else self.line_of(feeder)


def tree_of(job: Job) -> Tree:
    """The tree of a job. Its structure must have been checked."""
    feeders = {one.feeds: one for one in job.circuits if one.feeds}
    leaving: dict[str, tuple[Circuit, ...]] = {board.id: () for board in job.boards}
    for one in job.circuits:
        leaving[one.from_board] = (*leaving[one.from_board], one)
    paths = {one.id: f"boards.{place}" for place, one in enumerate(job.boards)}
    paths |= {one.id: f"circuits.{place}" for place, one in enumerate(job.circuits)}
    paths |= {one.id: f"charge_points.{place}" for place, one in enumerate(job.charge_points)}
    return Tree(
        boards={board.id: board for board in job.boards},
        circuits={one.id: one for one in job.circuits},
        points={point.id: point for point in job.charge_points},
        feeders=feeders,
        leaving=leaving,
        paths=paths,
        origin=next((board for board in job.boards if board.id not in feeders), None),
    )


def stored_guards(job: Job) -> list[Guard]:
    """Every guard that the job stores by itself: in boards and in boxes."""
    found = [guard for board in job.boards for guard in guards_in(board)]
    return found + [guard for circuit in job.circuits for guard in guards_along(circuit)]


def guards_in(board: Board) -> list[Guard]:
    """The guards that a board stores: in front of all its ways, and of its groups."""
    return [*board.incomer, *(guard for group in board.groups for guard in group.guards)]


def guards_along(circuit: Circuit) -> list[Guard]:
    """The guards in boxes along a circuit."""
    return [guard for box in circuit.boxes for guard in box.guards]


def first_switch(tree: Tree) -> tuple[Guard | None, str]:
    """The main switch, the first switch of the incomer of the origin's first board, and its path in the job file; of
    the incomer it belongs to where none is stored yet.
    """
    for at, guard in enumerate(tree.origin.incomer if tree.origin is not None else ()):
        if guard.kind is GuardKind.SWITCH and tree.origin is not None:
            return guard, f"{tree.paths[tree.origin.id]}.incomer.{at}"
    return None, "boards.0.incomer"
