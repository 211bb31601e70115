"""The layouts worth trying for one charge point: as it stands, an own board, through a sub-main, direct, or with a box
before a unit whose terminals take no thicker cable.

A layout is the whole job with its boards and circuits set that way; cables and devices are tried on it afterwards.
"""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.installation.installation import Installation, installation_of
from fulmen.core.installation.run import Run
from fulmen.core.installation.tree import stored_guards
from fulmen.core.model.boards import Board, Enclosure, MakeUp
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Device, Guard, GuardKind
from fulmen.core.model.job import Job
from fulmen.core.model.route import ON_THE_SURFACE
from fulmen.core.model.seen import Seen
from fulmen.core.model.tails import TailsStretch

MOST_SECTIONS = 200
# What is reckoned with until the way of the second tails is measured; common practice, no source.
SECOND_TAILS_M = 1.0
# What a new board's switch is made for, above any device before it.
SWITCH_A = 100.0


@dataclass(frozen=True)
class Layout:
    """One way to feed the charge point; `boxed` where its last section goes on from a box."""

    words: str
    installation: Installation
    run: Run
    as_it_stands: bool
    boxed: bool = False

    @property
    def job(self) -> Job:
        """The whole job laid out so."""
        return self.installation.job


def layouts(installation: Installation, charge_point: str) -> list[Layout]:
    """Every layout worth trying; only the one that stands where its route is not known yet or its circuit is there."""
    job, run = installation.job, _run(installation, charge_point)
    standing = Layout(_standing_words(run), installation, run, as_it_stands=True)
    if any(not chained.circuit.route for chained in run.chain) or not run.final().circuit.fitted_with_this_job:
        return [standing]
    others: list[tuple[str, Job] | None]
    others = [_own_board(installation, run), _sub_main(job, run)] if len(run.chain) == 1 else [_direct(job, run)]
    found = [_layout(one, charge_point) for one in others if one is not None]
    circuit = box_before_unit(installation, run)
    if circuit is not None:
        changed = installation_of(_with(job, job.boards, run.final().circuit, (circuit,)))
        words = f"{_standing_words(run)}, {BOX_WORDS}"
        found.append(Layout(words, changed, _run(changed, charge_point), as_it_stands=False, boxed=True))
    return [standing, *found]


# How far before the unit a box hangs; common practice, no source.
BOX_BEFORE_M = 1.0
BOX_WORDS = "to a box before the unit"


def box_before_unit(installation: Installation, run: Run) -> Circuit | None:
    """The final circuit with a box before the unit, and from there on the thickest cable that its terminals take.

    None where nobody looked up what they take, where a box hangs there already, or where it would be hidden.
    """
    circuit, most_mm2 = run.final().circuit, run.charge_point.terminal_max_mm2
    last = circuit.route[-1] if circuit.route else None
    if most_mm2 is None or last is None or last.cable is not None or last.surroundings not in ON_THE_SURFACE:
        return None
    sizes = [size for size in installation.record(circuit.cable).sizes_mm2 if size <= most_mm2]
    long_enough = last.length_m > BOX_BEFORE_M or len(circuit.route) > 1
    if not sizes or not long_enough or len(circuit.route) >= MOST_SECTIONS:
        return None
    tail = circuit.cable.model_copy(update={"csa_mm2": max(sizes)})
    end = last.model_copy(update={"cable": tail, "length_m": min(BOX_BEFORE_M, last.length_m)})
    before_m = round(last.length_m - BOX_BEFORE_M, 2)
    before = (last.model_copy(update={"length_m": before_m}),) if before_m > 0 else ()
    return circuit.model_copy(update={"route": (*circuit.route[:-1], *before, end)})


def own_board_layout(installation: Installation, run: Run) -> Layout | None:
    """The run from a small board of its own off split tails; None where it has one, or where tails can't be split."""
    if len(run.chain) != 1 or not run.final().circuit.fitted_with_this_job:
        return None
    own = _own_board(installation, run)
    return _layout(own, run.charge_point.id) if own is not None else None


def _layout(found: tuple[str, Job], charge_point: str) -> Layout:
    words, changed = found[0], installation_of(found[1])
    return Layout(words, changed, _run(changed, charge_point), as_it_stands=False)


def _run(installation: Installation, charge_point: str) -> Run:
    found = installation.run_to(charge_point)
    assert found is not None
    return found


def _standing_words(run: Run) -> str:
    if len(run.chain) > 1:
        return f"through {run.chain[-1].board.name}"
    return f"from {run.chain[0].board.name}"


def free_id(job: Job, wanted: str) -> str:
    """The wanted id, or the next free one after it."""
    taken = {one.id for group in (job.boards, job.circuits, job.charge_points) for one in group}
    taken |= {guard.id for guard in stored_guards(job)} | {stretch.id for stretch in job.supply.tails}
    taken |= {group.id for board in job.boards for group in board.groups}
    taken |= {box.id for circuit in job.circuits for box in circuit.boxes}
    return next(name for name in (wanted, *(f"{wanted}-{number}" for number in range(2, 99))) if name not in taken)


def _switch(job: Job) -> Guard:
    """The switch that a new small board brings: both live conductors of a single-phase supply, all of a three-phase."""
    phases = job.supply.phase_count
    return Guard(
        id=free_id(job, "switch"), kind=GuardKind.SWITCH, rating_a=SWITCH_A, poles=phases + 1,
        voltage_v=ordered_v(phases), fitted_with_this_job=True,
    )  # fmt: skip


def ordered_v(phases: int) -> int:
    """The rated voltage that a new guard is ordered for [V]."""
    return 230 if phases == 1 else 400


def _own_board(installation: Installation, run: Run) -> tuple[str, Job] | None:
    """A small board of its own off split tails, where the one that stands was not fitted with this job."""
    job, chained = installation.job, run.final()
    if chained.board.fitted_with_this_job or job.supply.room_to_split_tails is Seen.NO:
        return None
    board = Board(
        id=free_id(job, "own-board"), name="Own board", location=chained.board.location, indoors=chained.board.indoors,
        enclosure=Enclosure.METAL, conditional_rating_ka=chained.board.conditional_rating_ka, front_rcd_seen=Seen.NO,
        surge_protection=chained.board.surge_protection, fitted_with_this_job=True, make_up=MakeUp.ALL_RCBO,
        looked_inside=Seen.YES, labels_complete=Seen.YES, feeds_others=Seen.NO, incomer=(_switch(job),),
    )  # fmt: skip
    changed = chained.circuit.model_copy(update={"from_board": board.id, "group": ""})
    tails = (*job.supply.tails, _second_tails(installation, board))
    split = job.model_copy(update={"supply": job.supply.model_copy(update={"tails": tails})})
    return "from an own board off split tails", _with(split, (*job.boards, board), chained.circuit, (changed,))


def _second_tails(installation: Installation, board: Board) -> TailsStretch:
    """The tails that will be laid from connector blocks to an own board; reckoned from the end of the main ones."""
    job, main = installation.job, installation.main_tails
    return TailsStretch(
        id=free_id(job, "second-tails"), after=main[-1].id if main else "", board=board.id, csa_mm2=25.0,
        length_m=SECOND_TAILS_M, sleeved=Seen.YES, fitted_with_this_job=True,
    )  # fmt: skip


def _sub_main(job: Job, run: Run) -> tuple[str, Job] | None:
    """A sub-main along all but the last section, and a small board there."""
    chained, point = run.final(), run.charge_point
    if len(chained.circuit.route) < 2:
        return None
    board = Board(
        id=free_id(job, "far-board"), name="Board at the far end", indoors=False, ip_code="IP65",
        enclosure=Enclosure.METAL,
        front_rcd_seen=Seen.NO, fitted_with_this_job=True, make_up=MakeUp.ALL_RCBO, looked_inside=Seen.YES,
        labels_complete=Seen.YES, feeds_others=Seen.NO, incomer=(_switch(job),),
    )  # fmt: skip
    feeder = Circuit(
        id=free_id(job, "sub-main"), name="Sub-main", way=chained.circuit.way, from_board=chained.board.id,
        group=chained.circuit.group,
        feeds=board.id,
        phases=point.phase_count, phase=chained.circuit.phase,
        device=Device(
            rating_a=chained.circuit.device.rating_a, poles=point.phase_count + 1,
            voltage_v=ordered_v(point.phase_count),
        ),
        cable=chained.circuit.cable, slack_m=0, route=chained.circuit.route[:-1],
    )  # fmt: skip
    final = chained.circuit.model_copy(
        update={"from_board": board.id, "group": "", "way": "1", "route": chained.circuit.route[-1:]}
    )
    return "through a sub-main and a small board", _with(job, (*job.boards, board), chained.circuit, (feeder, final))


def _direct(job: Job, run: Run) -> tuple[str, Job] | None:
    """One circuit all the way, where the boards between feed nothing else."""
    between = [chained.board for chained in run.chain[1:]]
    if not all(chained.circuit.fitted_with_this_job for chained in run.chain):
        return None
    shared = {
        circuit.from_board for circuit in job.circuits if circuit not in [chained.circuit for chained in run.chain]
    }
    if any(board.other_loads or board.id in shared or not board.fitted_with_this_job for board in between):
        return None
    route = tuple(section for chained in run.chain for section in chained.circuit.route)
    if len(route) > MOST_SECTIONS:
        return None
    final = run.final().circuit.model_copy(
        update={"from_board": run.chain[0].board.id, "group": run.chain[0].circuit.group, "route": route}
    )
    gone = {board.id for board in between}
    boards = tuple(board for board in job.boards if board.id not in gone)
    feeders = {chained.circuit.id for chained in run.chain[:-1]}
    circuits = tuple(final if one.id == final.id else one for one in job.circuits if one.id not in feeders)
    return f"direct from {run.chain[0].board.name}", job.model_copy(update={"boards": boards, "circuits": circuits})


def _with(job: Job, boards: tuple[Board, ...], old: Circuit, new: tuple[Circuit, ...]) -> Job:
    circuits: list[Circuit] = []
    for circuit in job.circuits:
        circuits.extend(new if circuit.id == old.id else (circuit,))
    return job.model_copy(update={"boards": boards, "circuits": tuple(circuits)})
