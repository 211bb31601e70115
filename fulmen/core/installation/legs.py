"""Legs: the parts that a circuit's cable is tested in, where a box on its way holds what no test may go through.

An open-PEN device opens all of its conductors while nothing is on, and electronics between live conductors must not see
500 V: continuity and insulation are read before and behind such a box, each by itself.
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

from fulmen.core.installation.guards import box_section
from fulmen.core.model.boards import Board
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Guard, GuardBox, GuardKind, RcdType


@dataclass(frozen=True, slots=True)
class Leg:
    """Some sections of a route, from `first` up to `until`, with what stands at their ends.

    `subject` is what its readings are of: the circuit where its cable is in one piece. `starts` and `ends` are the
    boxes in the way there, None at the board and at the circuit's end.
    """

    subject: str
    circuit: str
    first: int
    until: int
    starts: GuardBox | None = None
    ends: GuardBox | None = None

    @property
    def name(self) -> str:
        """Which part of the cable it is, in words; nothing where it is the whole."""
        if self.subject == self.circuit or (self.starts is None and self.ends is None):
            return ""
        if self.starts is None:
            return f"up to {self.ends.name}" if self.ends is not None else ""
        return (
            f"from {self.starts.name} to {self.ends.name}" if self.ends is not None else f"from {self.starts.name} on"
        )


def stands_in_the_way(box: GuardBox) -> bool:
    """Whether no dead test goes through a box: anything may be in one that nobody has said, or an RCD of any type."""
    return not box.guards or any(_no_test_through(one) for one in box.guards)


def begins_in_the_way(board: Board) -> bool:
    """Whether what a board begins with is such a device: the cable that feeds it ends at its terminals."""
    return any(_no_test_through(one) for one in board.incomer)


def _no_test_through(guard: Guard) -> bool:
    if guard.kind is GuardKind.RCCB:
        return guard.rcd is None or guard.rcd.type in (None, RcdType.B)
    return guard.kind in (GuardKind.OPEN_PEN_DEVICE, GuardKind.DC_DETECTOR)


def boxes_along(circuit: Circuit) -> tuple[tuple[GuardBox, int], ...]:
    """The boxes of a circuit from its board on, each with the number of sections before it."""
    return tuple(sorted(((one, box_section(one, circuit)) for one in circuit.boxes), key=lambda one: one[1]))


def boxes_in_the_way(circuit: Circuit) -> tuple[GuardBox, ...]:
    """The boxes of a circuit that no dead test goes through, from its board on."""
    return tuple(one for one, _ in boxes_along(circuit) if stands_in_the_way(one))


def legs_of(circuit: Circuit) -> tuple[Leg, ...]:
    """The parts of a circuit's cable, from its board on; one, the whole, where nothing on its way parts it."""
    whole, boxes = len(circuit.route), boxes_in_the_way(circuit)
    inside = sorted({box_section(box, circuit) for box in boxes} - {0, whole}) if not circuit.ring else []
    legs = []
    for first, until in pairwise([0, *inside, whole]):
        starts = next((box for box in reversed(boxes) if box_section(box, circuit) == first), None)
        ends = next((box for box in boxes if box_section(box, circuit) == until), None)
        subject = circuit.id
        if ends is not None and until in inside:
            subject = f"{ends.id}:before"
        elif starts is not None and first in inside:
            subject = f"{starts.id}:behind"
        legs.append(Leg(subject, circuit.id, first, until, starts, ends))
    return tuple(legs)
