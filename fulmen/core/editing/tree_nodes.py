"""What stands by its name in the tree, and where: boards, groups, guards, circuits, boxes, charge points, tails."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from fulmen.core.errors import InputError
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Guard
from fulmen.core.model.job import Job


class NodeKind(StrEnum):
    """What a part of the tree is."""

    BOARD = "board"
    GROUP = "group"
    GUARD = "guard"
    CIRCUIT = "circuit"
    BOX = "box"
    CHARGE_POINT = "charge_point"
    TAILS = "tails"
    CABLE = "cable"


@dataclass(frozen=True)
class Node:
    """One part of the tree.

    `circuit` is the circuit that it is, or that feeds it; `row` the guards that a guard stands among, at `place`.
    """

    kind: NodeKind
    name: str
    circuit: Circuit | None = None
    row: tuple[Guard, ...] = ()
    place: int = 0


def node_of(job: Job, name: str) -> Node:
    """The part of this name.

    Raises:
        InputError: there is none.
    """
    found = next((one for one in nodes(job) if one.name == name), None)
    if found is None:
        raise InputError("node", f"There is no part “{name}” in the tree.")
    return found


def nodes(job: Job) -> Iterator[Node]:
    """Every part of the tree."""
    feeder = {one.feeds: one for one in job.circuits if one.feeds}
    for board in job.boards:
        yield Node(NodeKind.BOARD, board.id, feeder.get(board.id))
        yield from _guards(board.incomer)
        for group in board.groups:
            yield Node(NodeKind.GROUP, group.id)
            yield from _guards(group.guards)
    for circuit in job.circuits:
        yield Node(NodeKind.CIRCUIT, circuit.id, circuit)
        for box in circuit.boxes:
            yield Node(NodeKind.BOX, box.id)
            yield from _guards(box.guards)
    yield from (Node(NodeKind.CHARGE_POINT, one.id, feeder.get(one.id)) for one in job.charge_points)
    yield from (Node(NodeKind.TAILS, one.id) for one in job.supply.tails)
    yield from (Node(NodeKind.CABLE, one.id) for one in job.maker_cables)


def _guards(row: tuple[Guard, ...]) -> Iterator[Node]:
    return (Node(NodeKind.GUARD, guard.id, None, row, place) for place, guard in enumerate(row))


def behind(job: Job, node: Node) -> set[str]:
    """The boards, circuits, charge points that a board, a circuit or a charge point is, hangs on and has behind it."""
    found = {node.name} | ({node.circuit.id} if node.circuit is not None else set())
    while True:
        more = {one.feeds for one in job.circuits if one.id in found and one.feeds}
        more |= {one.id for one in job.circuits if one.from_board in found}
        if more <= found:
            return found
        found |= more


def with_row(job: Job, row: tuple[Guard, ...], changed: tuple[Guard, ...]) -> Job:
    """The job with another row of guards in the place of one."""

    def one_of(guards: tuple[Guard, ...]) -> tuple[Guard, ...]:
        return changed if guards is row else guards

    boards = tuple(
        board.model_copy(
            update={
                "incomer": one_of(board.incomer),
                "groups": tuple(one.model_copy(update={"guards": one_of(one.guards)}) for one in board.groups),
            }
        )
        for board in job.boards
    )
    circuits = tuple(
        circuit.model_copy(
            update={"boxes": tuple(one.model_copy(update={"guards": one_of(one.guards)}) for one in circuit.boxes)}
        )
        for circuit in job.circuits
    )
    return job.model_copy(update={"boards": boards, "circuits": circuits})
