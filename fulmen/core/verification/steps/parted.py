"""Dead tests of a cable that a box parts: each part by itself, or the whole with its cores joined past the device."""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.circuit.run_figures import Case
from fulmen.core.installation.legs import Leg, boxes_in_the_way
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
    subjects whose readings together stand for it.
    """

    leg: Leg
    whole: bool
    joined: tuple[GuardBox, ...] = ()
    asked: bool = True
    instead: tuple[str, ...] = ()

    @property
    def out(self) -> tuple[GuardBox, ...]:
        """The boxes at its ends."""
        return tuple(one for one in (self.leg.starts, self.leg.ends) if one is not None)

    @property
    def beforehand(self) -> str:
        """What is done at those boxes before the test, and why."""
        if not self.out and not self.joined:
            return ""
        told = [f"In {_names(self.out)}, the cores out of the device."] if self.out else []
        if self.joined:
            told.append(f"In {_names(self.joined)}, the cores out of the device and joined past it, each to its own.")
        return " ".join((*told, "It may be open while nothing is on, and never gets 500 V."))


def _names(boxes: tuple[GuardBox, ...]) -> str:
    return ", ".join(one.name for one in boxes)


def of_cable(case: Case, circuit: str, key: StepKey) -> tuple[OfCable, ...]:
    """What a step reads of a circuit's cable: the whole, and its parts where a box parts it; nothing where no cable is
    read dead.
    """
    legs = case.installation.legs.get(circuit, ()) if key in PARTED else ()
    if len(legs) < 2:
        return tuple(OfCable(one, whole=True) for one in legs)
    apart = case.job.testing.box_school is BoxSchool.APART
    subjects = tuple(one.subject for one in legs)
    ends = Leg(circuit, circuit, legs[0].first, legs[-1].until, legs[0].starts, legs[-1].ends)
    whole = OfCable(ends, whole=True, joined=_inside(case, ends), asked=not apart, instead=subjects)
    return (whole, *(OfCable(one, whole=False, asked=apart, instead=(circuit,)) for one in legs))


def _inside(case: Case, whole: Leg) -> tuple[GuardBox, ...]:
    """The boxes in the way that stand within a cable, not at its ends."""
    every = boxes_in_the_way(case.installation.tree.circuits[whole.circuit])
    at_ends = {one.id for one in (whole.starts, whole.ends) if one is not None}
    return tuple(one for one in every if one.id not in at_ends)
