"""The guards of one run in order, from the cut-out fuse to what is inside the unit, derived from the tree.

Checks, test steps, schedules, the sentence, the band, the chain of residual-current devices, “what goes off”, the
search and the materials read this list; nothing else knows where a guard stands.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import NamedTuple

from fulmen.core.electrical.selectivity import device_words
from fulmen.core.findings.words import word
from fulmen.core.installation.tree import Chain, Tree
from fulmen.core.model.boards import Board
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Device, Guard, GuardBox, GuardKind, OpenPenDevice, Rcd, RcdMark
from fulmen.core.model.job import Job
from fulmen.core.model.seen import Seen

YES_OR_NO = {Seen.YES: True, Seen.NO: False, Seen.NOT_SEEN: None}


class Stands(StrEnum):
    """Where a guard stands."""

    CUT_OUT = "cut_out"
    INCOMER = "incomer"
    GROUP = "group"
    WAY = "way"
    BOX = "box"
    UNIT = "unit"


@dataclass(frozen=True)
class PlacedGuard:
    """One guard of a run: what it is, where it stands, and whose test readings are its own.

    `circuit` is the circuit it stands on or before; `shared` says whether circuits that are not of this run hang
    behind it. `after_section` is a box's place along that circuit's route, counted in sections. `phases` are the lines
    of what passes it, `poles` those it opens where they were read, `opens_live` whether it opens every line and the
    neutral; None is not known. `rcd` is what its mark says, `unread` that it is an RCD and nobody has read that.
    """

    stands: Stands
    name: str
    where: str
    field: str
    subject: str
    circuit: str
    device: Device | None = None
    guard: Guard | None = None
    fuse_a: float | None = None
    rcd: Rcd | None = None
    unread: bool = False
    open_pen: OpenPenDevice | None = None
    detects_dc: bool = False
    after_section: int | None = None
    shared: Seen = Seen.NO
    others: str = ""
    fitted_with_this_job: bool = False
    phases: int = 1
    opens_live: bool | None = None

    @property
    def part(self) -> Device | Guard | None:
        """What the job stores of it; nothing of the cut-out, nor of what is inside a unit."""
        return self.device or self.guard

    @property
    def is_rcd(self) -> bool:
        """Whether it is an RCD, its mark read or not."""
        return self.rcd is not None or self.unread

    @property
    def is_in_front(self) -> bool:
        """Whether it stands in front of several ways of a board."""
        return self.stands in (Stands.INCOMER, Stands.GROUP)

    @property
    def residual(self) -> Rcd:
        """What it sees; only an RCD is asked."""
        assert self.rcd is not None
        return self.rcd

    @property
    def poles(self) -> int | None:
        """The poles it opens, where somebody read them."""
        return self.part.poles if self.part is not None else None


def guards_of(job: Job, tree: Tree, point: ChargePoint | None, chain: Chain) -> tuple[PlacedGuard, ...]:
    """Every guard of a run in order, the network operator's fuse first, the unit's own last."""
    fuse_a = job.supply.cut_out_fuse_a
    first = chain[0].circuit.id if chain else ""
    known = f"{fuse_a} A cut-out fuse" if fuse_a else "Cut-out fuse"
    cut_out = PlacedGuard(
        Stands.CUT_OUT, known, "Cut-out", "supply.cut_out_fuse_a", "origin", first,
        fuse_a=float(fuse_a) if fuse_a else None, shared=Seen.YES,
    )  # fmt: skip
    own, at_board = {chained.circuit.id for chained in chain}, job.supply.phase_count
    chained: list[PlacedGuard] = []
    for one in chain:
        lines = point.phase_count if point is not None and one is chain[-1] else one.circuit.phases
        chained += _at_circuit(tree, own, one.board, one.circuit, Lines(at_board, lines))
        at_board = min(at_board, lines)
    if point is None:
        return (cut_out, *chained)
    return (cut_out, *chained, *_in_unit(point, chain[-1].circuit if chain else None, tree.paths[point.id]))


def rcd_beside_device(guards: tuple[PlacedGuard, ...]) -> bool:
    """Whether an RCD stands before the unit that is not the one of the last circuit's own device."""
    ways = [one for one in guards if one.stands is Stands.WAY]
    return any(one.rcd is not None and one.stands is not Stands.UNIT and one not in ways[-1:] for one in guards)


class Lines(NamedTuple):
    """How many lines reach a board, and how many a circuit takes from it."""

    at_board: int
    of_circuit: int


def _at_circuit(tree: Tree, own: set[str], board: Board, circuit: Circuit, lines: Lines) -> Iterator[PlacedGuard]:
    """The guards before and on one circuit: its board's incomer, its group's, its way's, its boxes'."""
    at, behind = tree.paths[board.id], tree.leaving[board.id]
    shared = Seen.YES if board.other_loads else _shared(own, board.feeds_others, behind)
    for number, guard in enumerate(board.incomer):
        here = Placing(
            Stands.INCOMER, f"in front, {board.name}", f"{at}.incomer.{number}", circuit, lines.at_board, shared,
            board.others,
        )  # fmt: skip
        yield _placed(guard, here)
    for place_of_group, group in enumerate(board.groups):
        if group.id != circuit.group:
            continue
        shared = _shared(own, group.feeds_others, tuple(one for one in behind if one.group == group.id))
        for number, guard in enumerate(group.guards):
            field = f"{at}.groups.{place_of_group}.guards.{number}"
            where = f"in front of {group.name}, {board.name}"
            yield _placed(guard, Placing(Stands.GROUP, where, field, circuit, lines.of_circuit, shared, group.others))
    at = tree.paths[circuit.id]
    yield _on_way(board, circuit, at, lines.of_circuit)
    for place_of_box, box in sorted(enumerate(circuit.boxes), key=lambda one: box_section(one[1], circuit)):
        section = box_section(box, circuit)
        for number, guard in enumerate(box.guards):
            field = f"{at}.boxes.{place_of_box}.guards.{number}"
            where = f"in {box.name}"
            yield _placed(guard, Placing(Stands.BOX, where, field, circuit, lines.of_circuit, Seen.NO, "", section))


def feeds_others_behind(board: Board, stands: Stands, group_id: str) -> bool:
    """Whether circuits that nobody has entered may hang behind a guard of a board, in front or in front of a group."""
    group = next((one for one in board.groups if one.id == group_id), None)
    if stands is Stands.GROUP and group is not None:
        return group.feeds_others is not Seen.NO
    return board.feeds_others is not Seen.NO or bool(board.other_loads)


@dataclass(frozen=True, slots=True)
class GroupRcds:
    """The RCDs in front of a group of a board's ways, and whether circuits that nobody has entered hang behind them."""

    id: str
    name: str
    rcds: tuple[Rcd, ...]
    unread: bool
    feeds_others: Seen


def rcds_of_groups(board: Board) -> tuple[GroupRcds, ...]:
    """Every group of a board with the RCDs in front of it."""
    return tuple(GroupRcds(one.id, one.name, *_marks(one.guards), one.feeds_others) for one in board.groups)


def _marks(guards: tuple[Guard, ...]) -> tuple[tuple[Rcd, ...], bool]:
    """The RCDs among some guards, and whether there is one whose mark nobody has read."""
    known = [_known(one.rcd) for one in guards if one.kind is GuardKind.RCCB]
    return tuple(one for one in known if one is not None), None in known


def _known(mark: RcdMark | None) -> Rcd | None:
    return mark.known() if mark is not None else None


def box_section(box: GuardBox, circuit: Circuit) -> int:
    """After how many sections a box stands; never past the end."""
    most = len(circuit.route)
    return most if box.after_section is None else min(box.after_section, most)


def _shared(own: set[str], feeds_others: Seen, behind: tuple[Circuit, ...]) -> Seen:
    """Whether circuits that are not of this run hang behind a guard: those of the job are known."""
    return Seen.YES if any(one.id not in own for one in behind) else feeds_others


@dataclass(frozen=True)
class Placing:
    """Where a stored guard stands, in words and as a path, and whether circuits of others hang behind it."""

    stands: Stands
    where: str
    field: str
    circuit: Circuit
    phases: int
    shared: Seen
    others: str = ""
    after_section: int | None = None


def _placed(guard: Guard, at: Placing) -> PlacedGuard:
    rcd = _known(guard.rcd)
    return PlacedGuard(
        at.stands, guard_words(guard), at.where, at.field, guard.id, at.circuit.id, guard=guard, rcd=rcd,
        unread=guard.kind is GuardKind.RCCB and rcd is None, open_pen=guard.open_pen,
        detects_dc=guard.kind is GuardKind.DC_DETECTOR, after_section=at.after_section, shared=at.shared,
        others=at.others, fitted_with_this_job=guard.fitted_with_this_job, phases=at.phases,
        opens_live=_opens_live(guard.poles, guard.rcd, at.phases),
    )  # fmt: skip


def _opens_live(poles: int | None, rcd: RcdMark | None, phases: int) -> bool | None:
    """Whether every line and the neutral opens: by the poles that were read; on one line an RCD's neutral says it."""
    if rcd is not None and rcd.switches_neutral is False:
        return False
    if poles is not None:
        return poles > phases
    return True if rcd is not None and rcd.switches_neutral and phases == 1 else None


def _on_way(board: Board, circuit: Circuit, at: str, phases: int) -> PlacedGuard:
    device, rcd = circuit.device, _known(circuit.device.rcd)
    return PlacedGuard(
        Stands.WAY, device_words(device), board.name, f"{at}.device", circuit.id, circuit.id, device=device,
        rcd=rcd, unread=device.rcd is not None and rcd is None, fitted_with_this_job=circuit.fitted_with_this_job,
        phases=phases, opens_live=_opens_live(device.poles, device.rcd, phases),
    )  # fmt: skip


def _in_unit(point: ChargePoint, circuit: Circuit | None, at: str) -> Iterator[PlacedGuard]:
    """What is inside the unit, each as a guard of its own, in the order current meets them."""
    behind = circuit.id if circuit is not None else ""
    if point.open_pen_inside is Seen.YES:
        yield PlacedGuard(
            Stands.UNIT, "Open-PEN device", point.name, f"{at}.open_pen_device", point.id, behind,
            open_pen=point.open_pen_device, phases=point.phase_count, opens_live=YES_OR_NO[point.open_pen_opens_live],
        )  # fmt: skip
    if point.rcd_inside is not None:
        rcd = point.rcd_inside.known()
        name = rcd_name(rcd) if rcd is not None else "RCD"
        yield PlacedGuard(
            Stands.UNIT, name, point.name, f"{at}.rcd_inside", point.id, behind, rcd=rcd, unread=rcd is None,
            phases=point.phase_count, opens_live=point.rcd_inside.switches_neutral,
        )  # fmt: skip
    if point.rdc_dd_inside is Seen.YES:
        yield PlacedGuard(
            Stands.UNIT, "6 mA DC detection", point.name, f"{at}.rdc_dd_inside", point.id, behind, detects_dc=True
        )


def holds_rcd(guards: tuple[PlacedGuard, ...]) -> bool:
    """Whether the unit of a run holds an RCD, its mark read or not."""
    return any(one.is_rcd and one.stands is Stands.UNIT for one in guards)


def rcd_name(rcd: Rcd) -> str:
    """A residual-current device by type, delay and current.

    >>> from fulmen.core.model.guards import RcdType
    >>> rcd_name(Rcd(type=RcdType.A, residual_ma=100, time_delayed=True))
    'Type A S 100 mA'
    """
    return f"Type {rcd.type.value}{' S' if rcd.time_delayed else ''} {rcd.residual_ma} mA"


def guard_words(guard: Guard) -> str:
    """A stored guard in a few words: what it is and what is known of it."""
    rated = f"{guard.rating_a:g} A " if guard.rating_a is not None else ""
    rcd = _known(guard.rcd)
    if rcd is not None:
        return f"{rated}{rcd_name(rcd)} RCCB"
    return f"{rated}{word(guard.kind)}"
