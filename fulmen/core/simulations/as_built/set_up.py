"""How a test set stands at a house: its dial and leads, the points that they are on, and what a display shows."""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.circuit.people import has_car_electrode
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.simulations.as_built.as_installed import AsInstalled
from fulmen.core.simulations.as_built.seen import Sight, sight
from fulmen.core.verification.instruments.dials import Link, Point
from fulmen.core.verification.steps.sequence import Step

LINKED = {Link.LINE_EARTH: ("L", "E"), Link.LINE_NEUTRAL: ("L", "N")}


@dataclass(frozen=True)
class Setup:
    """How the set stands: its dial, the points that each jack's lead is on, what is linked, the adapter's position."""

    dial: str
    leads: dict[str, tuple[Point, ...]]
    linked: Link = Link.NONE
    adapter: str = ""

    @classmethod
    def of(cls, step: Step) -> Setup:
        """As a step asks for it."""
        leads = {lead.jack: lead.at for lead in step.leads}
        return cls(step.dial, leads, step.linked, step.adapter)


@dataclass(frozen=True)
class Shown:
    """What stands on a display: a figure or the top of the range, or how a step without a figure ended.

    Where the set shows nothing the step could not be tested; `words` say why, or what was seen.
    """

    outcome: Outcome
    value: float | None = None
    words: str = ""


def nothing(words: str) -> Shown:
    """The set shows nothing, and says why."""
    return Shown(Outcome.COULD_NOT_TEST, words=words)


def seen(step: StepKey, what: Sight) -> Shown:
    """What is seen at a step without a figure."""
    return Shown(Outcome.WRONG if what is Sight.WRONG else Outcome.RIGHT, words=sight(step, what))


class Placed:
    """The set's leads on the points of a house."""

    def __init__(self, house: AsInstalled, step: Step, setup: Setup) -> None:
        self.house, self.step, self.setup = house, step, setup
        circuit = step.circuit if step.circuit in house.parts else house.final
        self.subject = step.subject if step.subject in house.parts else circuit
        jacks = list(setup.leads)
        self.first, self.last = (setup.leads[jacks[0]], setup.leads[jacks[-1]]) if jacks else ((), ())
        self.on_points = all(setup.leads.values()) and len(jacks) > 1

    def node(self, point: Point) -> str:
        """The node of the network that a point is."""
        place, _, conductor = point.partition(".")
        if place in ("near", "far"):
            return self.house.node(self.subject, conductor[0], far=place == "far")
        if point is Point.UNIT_E and not has_car_electrode(self.house.case):
            return f"{self.house.final}.E1"
        return point.value

    @property
    def pair(self) -> tuple[str, str]:
        """The nodes of the first and the last lead."""
        return self.node(self.first[0]), self.node(self.last[0])

    def sides(self) -> tuple[set[str], set[str]]:
        """The conductors of the circuit on each side."""
        one, other = ({_conductor(point) for point in side} for side in (self.first, self.last))
        return one, other

    def links(self) -> tuple[tuple[str, str], ...]:
        """The nodes that are linked at the near end, and those that one lead holds together."""
        held = [tuple(map(self.node, side)) for side in (self.first, self.last) if len(side) == 2]
        linked = LINKED.get(self.setup.linked)
        if linked is not None:
            held.append(self.joined(*linked))
        return tuple((one[0], one[1]) for one in held)

    def joined(self, one: str, other: str) -> tuple[str, str]:
        """Two conductors linked at their near end."""
        return self.house.node(self.subject, one, far=False), self.house.node(self.subject, other, far=False)


def _conductor(point: Point) -> str:
    """The conductor that a point is of; the earthing terminal and what is bonded to it are earth."""
    return "E" if point in (Point.MET, Point.SERVICE) else point.partition(".")[2]
