"""Copies of parts of the tree, each under a name of its own.

A copy is one more of its kind, fitted with this job: what was seen of the one, or is true of it alone (a serial number,
a proof by test), starts empty in the other.
"""

from __future__ import annotations

from fulmen.core.editing.tree_nodes import Node, NodeKind, behind, nodes, with_row
from fulmen.core.model.boards import Board, WayGroup
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit, Phase
from fulmen.core.model.guards import Guard, GuardBox
from fulmen.core.model.job import Job
from fulmen.core.model.seen import Seen
from fulmen.core.model.tails import TailsStretch

# A name may have so many characters, with the number that makes it another.
LONGEST = 36
Names = dict[str, str]


def copy_names(job: Job, node: Node) -> Names:
    """A free name for a part and for each part within and behind it, by the name it has."""
    if node.kind is NodeKind.GUARD:
        return _fresh(job, [node.name])
    if node.kind is NodeKind.GROUP:
        return _fresh(job, _within_group(next(one for one in _groups(job) if one.id == node.name)))
    if node.kind is NodeKind.BOX:
        boxes = [box for circuit in job.circuits for box in circuit.boxes]
        return _fresh(job, _within_box(next(one for one in boxes if one.id == node.name)))
    found = behind(job, node)
    wanted: list[str] = []
    for board in job.boards:
        if board.id in found:
            wanted += [board.id, *(one.id for one in board.incomer)]
            wanted += [name for group in board.groups for name in _within_group(group)]
    for circuit in job.circuits:
        if circuit.id in found:
            wanted += [circuit.id, *(name for box in circuit.boxes for name in _within_box(box))]
    wanted += [one.id for one in job.charge_points if one.id in found]
    wanted += [one.id for one in job.supply.tails if one.board in found]
    return _fresh(job, wanted)


def _groups(job: Job) -> list[WayGroup]:
    return [group for board in job.boards for group in board.groups]


def _within_group(group: WayGroup) -> list[str]:
    return [group.id, *(one.id for one in group.guards)]


def _within_box(box: GuardBox) -> list[str]:
    return [box.id, *(one.id for one in box.guards)]


def _fresh(job: Job, wanted: list[str]) -> Names:
    taken = {"origin"} | {one.name for one in nodes(job)}
    names: Names = {}
    for name in wanted:
        number = 2
        while (fresh := f"{name[:LONGEST]}-{number}") in taken:
            number += 1
        names[name] = fresh
        taken.add(fresh)
    return names


def put_beside(job: Job, node: Node, names: Names) -> Job:
    """The job with a copy of a part, and of all that hangs behind it, beside the part itself."""
    if node.kind is NodeKind.GUARD:
        row = node.row
        return with_row(job, row, (*row[: node.place + 1], _guard(row[node.place], names), *row[node.place + 1 :]))
    if node.kind is NodeKind.GROUP:
        return _with_group(job, node.name, names)
    if node.kind is NodeKind.BOX:
        return _with_box(job, node.name, names)
    tails = [_tails(one, names) for one in job.supply.tails if one.id in names]
    points = [_point(one, names) for one in job.charge_points if one.id in names]
    return job.model_copy(
        update={
            "supply": job.supply.model_copy(update={"tails": (*job.supply.tails, *tails)}),
            "boards": (*job.boards, *(_board(one, names) for one in job.boards if one.id in names)),
            "circuits": (*job.circuits, *(_circuit(job, one, names) for one in job.circuits if one.id in names)),
            "charge_points": (*job.charge_points, *points),
        }
    )


def _second(name: str) -> str:
    return f"{name[:198]} 2"


def _guard(one: Guard, names: Names) -> Guard:
    unseen = {"carries_by_maker": Seen.NOT_SEEN, "both_ways": Seen.NOT_SEEN, "location": ""}
    return one.model_copy(update={"id": names[one.id], "fitted_with_this_job": True, **unseen})


def _group(one: WayGroup, names: Names) -> WayGroup:
    guards = tuple(_guard(guard, names) for guard in one.guards)
    new = {"id": names[one.id], "name": _second(one.name), "guards": guards}
    return one.model_copy(update={**new, "feeds_others": Seen.NOT_SEEN, "others": ""})


def _box(one: GuardBox, names: Names) -> GuardBox:
    guards = tuple(_guard(guard, names) for guard in one.guards)
    new = {"id": names[one.id], "name": _second(one.name), "guards": guards, "location": ""}
    return one.model_copy(update={**new, "fitted_with_this_job": True})


# What somebody saw of a board that was there says nothing of another one.
SEEN_OF_A_BOARD = (
    "front_rcd_seen", "feeds_others", "surge_protection", "looked_inside", "labels_complete", "extraneous_parts",
    "surge_as_made", "devices_allowed", "smooth_dc", "flash_guards",
)  # fmt: skip


def _board(one: Board, names: Names) -> Board:
    new = {
        "id": names[one.id],
        "name": _second(one.name),
        "location": "",
        "incomer": tuple(_guard(guard, names) for guard in one.incomer),
        "groups": tuple(_group(group, names) for group in one.groups),
        "others": "",
        "other_loads": (),
        "fitted_with_this_job": True,
    }
    unseen = {} if one.fitted_with_this_job else dict.fromkeys(SEEN_OF_A_BOARD, Seen.NOT_SEEN)
    return one.model_copy(update={**new, **unseen})


def _circuit(job: Job, one: Circuit, names: Names) -> Circuit:
    """A copy that leaves the same board takes the next line conductor of a three-phase one."""
    phases, beside = list(Phase), one.from_board not in names
    following = phases[(phases.index(one.phase) + 1) % len(phases)]
    device = one.device.model_copy(update={"both_ways": Seen.NOT_SEEN})
    return one.model_copy(
        update={
            "id": names[one.id],
            "name": _second(one.name),
            "way": "" if beside else one.way,
            "from_board": names.get(one.from_board, one.from_board),
            "group": names.get(one.group, one.group),
            "feeds": names.get(one.feeds, one.feeds),
            "boxes": tuple(_box(box, names) for box in one.boxes),
            "device": device,
            "phase": following if beside and job.supply.phase_count == 3 else one.phase,
            "fitted_with_this_job": True,
            "looked_at": Seen.NOT_SEEN,
            "remarks": "",
        }
    )


def _point(one: ChargePoint, names: Names) -> ChargePoint:
    alone = {
        "like": one.like or one.id,
        "serial_number": "",
        "built_year": None,
        "seen_working": Seen.NOT_SEEN,
        "clamp_proof": None,
    }
    return one.model_copy(update={"id": names[one.id], "name": _second(one.name), **alone})


def _tails(one: TailsStretch, names: Names) -> TailsStretch:
    new = {"id": names[one.id], "after": names.get(one.after, one.after), "board": names.get(one.board, one.board)}
    unseen = {"length_m": None, "sleeved": Seen.NOT_SEEN, "accepted_in_writing": Seen.NOT_SEEN}
    return one.model_copy(update={**new, **unseen, "fitted_with_this_job": True})


def _with_group(job: Job, name: str, names: Names) -> Job:
    def beside(one: WayGroup) -> tuple[WayGroup, ...]:
        return (one, _group(one, names)) if one.id == name else (one,)

    boards = tuple(
        board.model_copy(update={"groups": tuple(two for one in board.groups for two in beside(one))})
        for board in job.boards
    )
    return job.model_copy(update={"boards": boards})


def _with_box(job: Job, name: str, names: Names) -> Job:
    def beside(one: GuardBox) -> tuple[GuardBox, ...]:
        return (one, _box(one, names)) if one.id == name else (one,)

    circuits = tuple(
        circuit.model_copy(update={"boxes": tuple(two for one in circuit.boxes for two in beside(one))})
        for circuit in job.circuits
    )
    return job.model_copy(update={"circuits": circuits})
