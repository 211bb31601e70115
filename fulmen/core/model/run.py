"""The run: the path of copper from the origin to a charge point, derived from the tree, never stored."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from fulmen.core.model.boards import Board
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit, Phase
from fulmen.core.model.guards import Guard, GuardKind
from fulmen.core.model.job import Job
from fulmen.core.model.tails import TailsStretch


@dataclass(frozen=True)
class ChainCircuit:
    """One board and the circuit that leaves it on the way to the charge point."""

    board: Board
    circuit: Circuit


@dataclass(frozen=True)
class Run:
    """The chain of circuits from the origin's board to one charge point, or to the loads of its last circuit.

    It is empty where nothing feeds the charge point yet.
    """

    point: ChargePoint | None
    chain: tuple[ChainCircuit, ...]

    @property
    def charge_point(self) -> ChargePoint:
        """The charge point at its end; a run to loads has none, and nothing that needs one is asked of it."""
        assert self.point is not None
        return self.point

    def final(self) -> ChainCircuit:
        """The last circuit of the chain: it ends at the charge point or at its loads."""
        return self.chain[-1]


def runs(job: Job) -> list[Run]:
    """One run for each charge point, in the order of the job. The job's structure must have been checked."""
    boards = {board.id: board for board in job.boards}
    feeder = {circuit.feeds: circuit for circuit in job.circuits if circuit.feeds}
    return [Run(point, _chain(point.id, boards, feeder)) for point in job.charge_points]


def load_runs(job: Job) -> list[Run]:
    """One run for each circuit that feeds loads of its own, in the order of the job."""
    boards = {board.id: board for board in job.boards}
    feeder = {circuit.feeds: circuit for circuit in job.circuits if circuit.feeds}
    return [
        Run(None, (*_chain(one.from_board, boards, feeder), ChainCircuit(boards[one.from_board], one)))
        for one in job.circuits
        if not one.feeds
    ]


def origin_index(job: Job) -> int:
    """The place in the list of the board that stands at the origin: no circuit feeds it."""
    fed = {circuit.feeds for circuit in job.circuits}
    return next(place for place, board in enumerate(job.boards) if board.id not in fed)


def board_index(job: Job, board: Board) -> int:
    """The place of a board in the job's list."""
    return next(place for place, one in enumerate(job.boards) if one.id == board.id)


def phases_at(job: Job, board: Board) -> int:
    """The phases that reach a board: the supply's, or one past a single-phase sub-main."""
    feeder = next((one for one in job.circuits if one.feeds == board.id), None)
    if feeder is None:
        return job.supply.phase_count
    return 1 if feeder.phases == 1 else phases_at(job, next(one for one in job.boards if one.id == feeder.from_board))


def line_of(job: Job, circuit: Circuit) -> Phase:
    """The line conductor of a single-phase circuit: its own, or that of the single-phase sub-main before its board."""
    feeder = next((one for one in job.circuits if one.feeds == circuit.from_board), None)
    return circuit.phase if feeder is None or feeder.phases == 3 else line_of(job, feeder)


def tails_to(job: Job, board_id: str) -> tuple[TailsStretch, ...]:
    """The stretches of the tails from the cut-out to a board, in order; empty where none is known to feed it."""
    by_id = {one.id: one for one in job.supply.tails}
    found: list[TailsStretch] = []
    step = next((one for one in job.supply.tails if one.board == board_id), None)
    while step is not None and step not in found:
        found.append(step)
        step = by_id.get(step.after)
    return tuple(reversed(found))


def main_tails(job: Job) -> tuple[TailsStretch, ...]:
    """The tails to the origin's first board; what is stored while there is no board counts as them."""
    return tails_to(job, job.boards[origin_index(job)].id if job.boards else "") or job.supply.tails[:1]


def stored_guards(job: Job) -> list[Guard]:
    """Every guard that the job stores by itself: in boards and in boxes."""
    found = [guard for board in job.boards for guard in board.incomer]
    found += [guard for board in job.boards for group in board.groups for guard in group.guards]
    return found + [guard for circuit in job.circuits for box in circuit.boxes for guard in box.guards]


def main_switch(job: Job) -> Guard | None:
    """The main switch of the installation: the first switch of the incomer of the origin's first board."""
    return next((job.boards[place].incomer[at] for place, at in _main_switch(job)), None)


def main_switch_field(job: Job) -> str:
    """The path of the main switch in the job file; where none is stored yet, of the incomer it belongs to."""
    place = next(_main_switch(job), None)
    return f"boards.{place[0]}.incomer.{place[1]}" if place is not None else "boards.0.incomer"


def _main_switch(job: Job) -> Iterator[tuple[int, int]]:
    if job.boards:
        place = origin_index(job)
        for at, guard in enumerate(job.boards[place].incomer):
            if guard.kind is GuardKind.SWITCH:
                yield place, at


def _chain(end: str, boards: dict[str, Board], feeder: dict[str, Circuit]) -> tuple[ChainCircuit, ...]:
    chain: list[ChainCircuit] = []
    while end in feeder:
        circuit = feeder[end]
        chain.append(ChainCircuit(boards[circuit.from_board], circuit))
        end = circuit.from_board
    return tuple(reversed(chain))
