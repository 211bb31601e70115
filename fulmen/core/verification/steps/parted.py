"""Dead tests of a cable that a box parts: each part by itself, or the whole with its cores joined past the device."""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.circuit.run_figures import Case
from fulmen.core.installation.legs import Leg, begins_in_the_way, boxes_in_the_way
from fulmen.core.model.guards import GuardBox
from fulmen.core.model.readings import StepKey
from fulmen.core.model.testing import BoxSchool

# What is read of a cable while nothing is on.
PARTED = frozenset({
    StepKey.R1_R2, StepKey.R2, StepKey.R1_RN, StepKey.POLARITY_DEAD, StepKey.IR_LINE_NEUTRAL, StepKey.IR_LINE_LINE,
    StepKey.IR_LIVE_EARTH, StepKey.IR_LINE_EARTH, StepKey.IR_NEUTRAL_EARTH,
})  # fmt: skip


@dataclass(frozen=True, slots=True)
class OfCable:
    """What of a circuit's cable a dead test is of: all of it or a part.

    `joined` are the boxes that the test goes through, their cores joined past the device, `out` those at its ends,
    their cores out of the device; `asked` whether the way of testing that was chosen asks for it, and `instead` the
    subjects whose readings together stand for it. `board` is the one that it ends at, where that begins with such a
    device.
    """

    leg: Leg
    whole: bool
    joined: tuple[GuardBox, ...] = ()
    asked: bool = True
    instead: tuple[str, ...] = ()
    board: str = ""

    @property
    def out(self) -> tuple[GuardBox, ...]:
        """The boxes at its ends."""
        return tuple(one for one in (self.leg.starts, self.leg.ends) if one is not None)

    @property
    def beforehand(self) -> str:
        """What is done at those boxes before the test, and why."""
        ends = [one.name for one in self.out] + ([self.board] if self.board else [])
        if not ends and not self.joined:
            return ""
        told = [f"In {', '.join(ends)}, the cores out of the device."] if ends else []
        if self.joined:
            names = ", ".join(one.name for one in self.joined)
            told.append(f"In {names}, the cores out of the device and joined past it, each to its own.")
        return " ".join((*told, "It may be open while nothing is on, and never gets 500 V."))


def of_cable(case: Case, circuit: str, key: StepKey) -> tuple[OfCable, ...]:
    """What a step reads of a circuit's cable: the whole, and its parts where a box parts it; nothing where no cable is
    read dead.
    """
    legs = case.installation.legs.get(circuit, ()) if key in PARTED else ()
    board = _ends_at(case, circuit) if legs else ""
    if len(legs) < 2:
        return tuple(OfCable(one, whole=True, board=board) for one in legs)
    apart = case.job.testing.box_school is BoxSchool.APART
    subjects = tuple(one.subject for one in legs)
    ends = Leg(circuit, circuit, legs[0].first, legs[-1].until, legs[0].starts, legs[-1].ends)
    whole = OfCable(ends, whole=True, joined=_inside(case, ends), asked=not apart, instead=subjects, board=board)
    parts = [OfCable(one, whole=False, asked=apart, instead=(circuit,)) for one in legs[:-1]]
    return (whole, *parts, OfCable(legs[-1], whole=False, asked=apart, instead=(circuit,), board=board))


def _ends_at(case: Case, circuit: str) -> str:
    """The board that a circuit feeds, where it begins with a device that no test goes through."""
    tree = case.installation.tree
    fed = tree.boards.get(tree.circuits[circuit].feeds)
    return fed.name if fed is not None and begins_in_the_way(fed) else ""


def _inside(case: Case, whole: Leg) -> tuple[GuardBox, ...]:
    """The boxes in the way that stand within a cable, not at its ends."""
    every = boxes_in_the_way(case.installation.tree.circuits[whole.circuit])
    at_ends = {one.id for one in (whole.starts, whole.ends) if one is not None}
    return tuple(one for one in every if one.id not in at_ends)
