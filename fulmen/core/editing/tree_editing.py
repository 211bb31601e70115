"""Acts on the tree: taking out, duplicating and moving boards, groups, guards, circuits, boxes, charge points, tails.

What stands by its name in the tree is acted on as a whole, with all that hangs behind it. Whatever an act gives can be
saved and read again: every copy has a name of its own, nothing points at what is gone, and how a fact is known follows
the fact.
"""

from __future__ import annotations

from enum import StrEnum

from fulmen.core.editing.changes import Change, changes_between
from fulmen.core.editing.found_circuits import said_found
from fulmen.core.editing.job_file import check_structure, parse_job
from fulmen.core.editing.known_how import with_known_how
from fulmen.core.editing.tree_copies import copy_names, put_beside
from fulmen.core.editing.tree_nodes import Node, NodeKind, behind, node_of, with_row
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.model.base import Part
from fulmen.core.model.boards import Board
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.job import Job


class TreeActKind(StrEnum):
    """What is done with a part of the tree; a circuit can also be said to be there already, or to be fitted."""

    TAKE_OUT = "take_out"
    DUPLICATE = "duplicate"
    MOVE = "move"
    EARLIER = "earlier"
    LATER = "later"
    FOUND = "found"
    FITTED = "fitted"


class TreeAct(Part):
    """One act on one part; a circuit moves `to` a board, or to a group of its ways."""

    kind: TreeActKind
    to: str = ""
    words: str = ""


def acts_on(job: Job, name: str) -> tuple[TreeAct, ...]:
    """What can be done with a part of the tree.

    Args:
        name: its id.

    Raises:
        InputError: there is no such part.
    """
    check_structure(job)
    node = node_of(job, name)
    asked = [TreeAct(kind=kind) for kind in TreeActKind if kind is not TreeActKind.MOVE]
    asked += [TreeAct(kind=TreeActKind.MOVE, to=to) for to in _destinations(job, node)]
    return tuple(one.model_copy(update={"words": _words(job, one)}) for one in asked if not _refusal(job, node, one))


def after_act(job: Job, name: str, act: TreeAct) -> tuple[Change, ...]:
    """The changes that an act on a part of the tree makes.

    Raises:
        InputError: there is no such part, or that can't be done with it, and why.
    """
    check_structure(job)
    changed = acted(job, name, act)
    check_structure(changed)
    return changes_between(job, changed)


def acted(job: Job, name: str, act: TreeAct) -> Job:
    """The job after an act on a part of its tree.

    Raises:
        InputError: there is no such part, or that can't be done with it, and why.
    """
    node = node_of(job, name)
    refused = _refusal(job, node, act)
    if refused:
        raise InputError("act", refused)
    if act.kind is TreeActKind.DUPLICATE:
        names = copy_names(job, node)
        return with_known_how(job, put_beside(job, node, names), names)
    if act.kind is TreeActKind.MOVE:
        return with_known_how(job, _moved(job, node, act.to), {})
    if act.kind is TreeActKind.TAKE_OUT:
        return with_known_how(job, without(job, node), {})
    if act.kind in (TreeActKind.FOUND, TreeActKind.FITTED):
        return said_found(job, name, found=act.kind is TreeActKind.FOUND)
    return with_known_how(job, _shifted(job, node, -1 if act.kind is TreeActKind.EARLIER else 1), {})


def _words(job: Job, act: TreeAct) -> str:
    if act.kind is not TreeActKind.MOVE:
        return {"take_out": "Take it out", "duplicate": "Duplicate it", "earlier": "Move it towards the supply",
                "later": "Move it away from the supply", "found": "It is there already",
                "fitted": "It is new with this job"}[act.kind.value]  # fmt: skip
    board, group = _destination(job, act.to)
    behind = next((one.name for one in board.groups if one.id == group), "")
    return f"Move it to {board.name}" + (f", behind {behind}" if behind else "")


def _refusal(job: Job, node: Node, act: TreeAct) -> str:
    """Why an act can't be done; nothing where it can."""
    if act.kind is TreeActKind.TAKE_OUT:
        return _can_not_go(job, node)
    if act.kind is TreeActKind.DUPLICATE:
        return _can_not_be_twice(job, node)
    if act.kind is TreeActKind.MOVE:
        return "" if act.to in _destinations(job, node) else f"It can't be moved to “{act.to}”."
    if act.kind in (TreeActKind.FOUND, TreeActKind.FITTED):
        return _can_not_be_said(job, node, found=act.kind is TreeActKind.FOUND)
    step = -1 if act.kind is TreeActKind.EARLIER else 1
    can = node.kind is NodeKind.GUARD and 0 <= node.place + step < len(node.row)
    return "" if can else "Nothing stands there to change places with."


def _can_not_go(job: Job, node: Node) -> str:
    if node.kind is NodeKind.CABLE:
        laid = {one.cable.record for one in job.circuits}
        laid |= {section.cable.record for one in job.circuits for section in one.route if section.cable is not None}
        return "A cable is laid by this record." if node.name in laid else ""
    left = without(job, node)
    if not left.charge_points and job.charge_points:
        return "It is the only charge point of this job."
    return "" if left.boards else "It is the only board of this job."


def _can_not_be_twice(job: Job, node: Node) -> str:
    if node.kind in (NodeKind.TAILS, NodeKind.CABLE):
        return "It can't be there twice."
    try:
        parse_job(put_beside(job, node, copy_names(job, node)).model_dump(mode="json"))
    except JobFileError as error:
        return f"There is no room for another: {error.problems[0].message}"
    return ""


def _can_not_be_said(job: Job, node: Node, *, found: bool) -> str:
    if node.kind is not NodeKind.CIRCUIT or node.circuit is None:
        return "That is said of a circuit."
    if node.circuit.fitted_with_this_job is not found:
        return f"It is {'there already' if found else 'new with this job'}."
    return ""


def _destinations(job: Job, node: Node) -> list[str]:
    """Where a circuit, or what hangs on it, can be moved: any board or group but its own and those behind it."""
    circuit = node.circuit
    if circuit is None or node.kind in (NodeKind.GUARD, NodeKind.BOX):
        return []
    below = behind(job, node)
    places = [place for board in job.boards for place in (board.id, *(one.id for one in board.groups))]
    groups = {group.id for board in job.boards if board.id in below for group in board.groups}
    return [one for one in places if one not in below | groups and one != (circuit.group or circuit.from_board)]


def _destination(job: Job, to: str) -> tuple[Board, str]:
    board = next(one for one in job.boards if to == one.id or to in {group.id for group in one.groups})
    return board, "" if to == board.id else to


def _moved(job: Job, node: Node, to: str) -> Job:
    board, group = _destination(job, to)
    changed = tuple(
        one.model_copy(update={"from_board": board.id, "group": group, "way": ""}) if one is node.circuit else one
        for one in job.circuits
    )
    return job.model_copy(update={"circuits": changed})


def _shifted(job: Job, node: Node, step: int) -> Job:
    row = list(node.row)
    row[node.place], row[node.place + step] = row[node.place + step], row[node.place]
    return with_row(job, node.row, tuple(row))


def without(job: Job, node: Node) -> Job:
    """The job without a part and all that hangs behind it; circuits of a group hang on their board again."""
    if node.kind is NodeKind.GUARD:
        return with_row(job, node.row, tuple(one for one in node.row if one.id != node.name))
    if node.kind is NodeKind.BOX:
        return _without_box(job, node.name)
    if node.kind is NodeKind.CABLE:
        kept = tuple(one for one in job.maker_cables if one.id != node.name)
        return job.model_copy(update={"maker_cables": kept})
    if node.kind is NodeKind.TAILS:
        return _without_tails(job, {node.name})
    if node.kind is NodeKind.GROUP:
        return _without_group(job, node.name)
    gone = behind(job, node)
    tails = {one.id for one in job.supply.tails if one.board in gone}
    left = _without_tails(job, tails)
    return left.model_copy(
        update={
            "boards": tuple(one for one in left.boards if one.id not in gone),
            "circuits": tuple(one for one in left.circuits if one.id not in gone),
            "charge_points": tuple(_on_its_own(one, gone) for one in left.charge_points if one.id not in gone),
        }
    )


def _on_its_own(point: ChargePoint, gone: set[str]) -> ChargePoint:
    """A unit whose like is gone keeps the facts that it shared."""
    return point.model_copy(update={"like": ""}) if point.like in gone else point


def _without_tails(job: Job, gone: set[str]) -> Job:
    """What goes on from a stretch that is gone goes on from the one before it."""
    after = {one.id: one.after for one in job.supply.tails}

    def standing(name: str) -> str:
        while name in gone:
            name = after[name]
        return name

    kept = tuple(
        one.model_copy(update={"after": standing(one.after)}) for one in job.supply.tails if one.id not in gone
    )
    return job.model_copy(update={"supply": job.supply.model_copy(update={"tails": kept})})


def _without_group(job: Job, group: str) -> Job:
    boards = tuple(
        one.model_copy(update={"groups": tuple(other for other in one.groups if other.id != group)})
        for one in job.boards
    )
    circuits = tuple(one.model_copy(update={"group": ""}) if one.group == group else one for one in job.circuits)
    return job.model_copy(update={"boards": boards, "circuits": circuits})


def _without_box(job: Job, box: str) -> Job:
    circuits = tuple(
        one.model_copy(update={"boxes": tuple(other for other in one.boxes if other.id != box)}) for one in job.circuits
    )
    return job.model_copy(update={"circuits": circuits})
