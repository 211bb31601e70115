"""The installation of a job, derived once: whoever judges, tests, draws or searches asks it and looks nothing up again.

It stands between the model and the figures of its circuits: no limit of an edition and no reading comes into it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fulmen.core.installation.legs import Leg, legs_of
from fulmen.core.installation.run import Run, run_of
from fulmen.core.installation.tree import Tree, first_switch, tree_of
from fulmen.core.installation.unseen import unseen_subjects
from fulmen.core.model.boards import Board
from fulmen.core.model.cables import Cable
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Guard
from fulmen.core.model.job import Job
from fulmen.core.model.route import Section
from fulmen.core.model.supply import Supply
from fulmen.core.model.tails import TailsStretch
from fulmen.core.reference.cable_catalogue import CableRecord, cable_of, cable_record, cables_for, last_cable

Tails = tuple[TailsStretch, ...]


@dataclass(frozen=True, slots=True)
class Installation:
    """What a job's boards, circuits, tails and cables are together, each worked out once.

    `phases_at` are the phases that reach each board: the supply's, or one past a single-phase sub-main. `tails_to` are
    the stretches of the tails from the cut-out to each board, in order; `main_tails` those to the origin's first
    board, what is stored while there is no board counts as them; `boards_behind` are those that each stretch feeds.
    `unseen` is what nothing is said to meet of, since something it rests on was not seen.
    `legs` are the parts that each circuit's cable is tested in, by the circuit's name.
    `runs` lead to the charge points and `load_runs` to the loads of circuits, each in the order of the job.
    """

    job: Job
    tree: Tree
    phases_at: Mapping[str, int]
    tails_to: Mapping[str, Tails]
    main_tails: Tails
    boards_behind: Mapping[str, tuple[Board, ...]]
    main_switch: Guard | None
    main_switch_field: str
    cables: Mapping[str, CableRecord]
    unseen: frozenset[str]
    runs: tuple[Run, ...]
    load_runs: tuple[Run, ...]
    legs: Mapping[str, tuple[Leg, ...]]

    def record(self, cable: Cable) -> CableRecord:
        """The record of a cable.

        Raises:
            InputError: neither the catalogue nor the job's makers hold such a cable.
        """
        return cable_record(self.cables, cable.record)

    def record_of(self, circuit: Circuit, section: Section) -> CableRecord:
        """The record of the cable of one section; raises as `record`."""
        return self.record(cable_of(circuit, section))

    def last_record(self, circuit: Circuit) -> CableRecord:
        """The record of the cable that reaches the end of a circuit; raises as `record`."""
        return self.record(last_cable(circuit))

    def leg(self, subject: str) -> Leg | None:
        """The part of a cable that readings of a subject are of; None where they are of no part by itself."""
        every = (one for legs in self.legs.values() if len(legs) > 1 for one in legs)
        return next((one for one in every if one.subject == subject), None)

    def run_to(self, charge_point: str) -> Run | None:
        """The run to a charge point."""
        return next((run for run in self.runs if run.charge_point.id == charge_point), None)


def installation_of(job: Job) -> Installation:
    """The installation of a job. Its structure must have been checked, see `check_structure`."""
    tree = tree_of(job)
    tails_to = {board.id: _tails_to(job.supply, board.id) for board in job.boards}
    switch, switch_field = first_switch(tree)
    return Installation(
        job=job,
        tree=tree,
        phases_at={board.id: _phases_at(job, tree, board) for board in job.boards},
        tails_to=tails_to,
        main_tails=_tails_to(job.supply, tree.origin.id if tree.origin is not None else "") or job.supply.tails[:1],
        boards_behind={
            one.id: tuple(board for board in job.boards if one in tails_to[board.id]) for one in job.supply.tails
        },
        main_switch=switch,
        main_switch_field=switch_field,
        cables=cables_for(job),
        unseen=unseen_subjects(job, tree),
        runs=tuple(run_of(job, tree, point, tree.chain_to(point.id)) for point in job.charge_points),
        load_runs=tuple(run_of(job, tree, None, tree.chain_of(one)) for one in job.circuits if not one.feeds),
        legs={one.id: legs_of(one) for one in job.circuits},
    )


def _phases_at(job: Job, tree: Tree, board: Board) -> int:
    feeder = tree.feeders.get(board.id)
    if feeder is None:
        return job.supply.phase_count
    return 1 if feeder.phases == 1 else _phases_at(job, tree, tree.boards[feeder.from_board])


def _tails_to(supply: Supply, board_id: str) -> Tails:
    by_id = {one.id: one for one in supply.tails}
    found: list[TailsStretch] = []
    step = next((one for one in supply.tails if one.board == board_id), None)
    while step is not None and step not in found:
        found.append(step)
        step = by_id.get(step.after)
    return tuple(reversed(found))
