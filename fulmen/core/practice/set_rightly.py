"""Whether a set stands as a step asks: dial, points, links and adapter."""

from __future__ import annotations

from fulmen.core.simulations.as_built.as_installed import AsInstalled
from fulmen.core.simulations.as_built.set_up import Placed, Setup
from fulmen.core.verification.instruments.dials import Point, Shows, dial
from fulmen.core.verification.steps.sequence import Step

# Their two leads may change places.
EITHER_WAY = {Shows.RESISTANCE, Shows.INSULATION, Shows.PILOT, Shows.DUTY, Shows.PROXIMITY}


def set_rightly(house: AsInstalled, step: Step, setup: Setup) -> bool:
    """Whether what is shown is the reading that the step asks for; an eye alone needs no dial.

    Args:
        house: as designed; two points that are one piece of metal there count as one.
    """
    if setup.adapter != step.adapter:
        return False
    if not step.leads:
        return True
    asked = Setup.of(step)
    if setup.dial != asked.dial or setup.linked is not asked.linked or set(setup.leads) != set(asked.leads):
        return False
    placed = Placed(house, step, setup)
    wanted, found = ([_nodes(placed, at) for at in one.leads.values()] for one in (asked, setup))
    return found == wanted or (dial(setup.dial).shows in EITHER_WAY and found == wanted[::-1])


def _nodes(placed: Placed, at: tuple[Point, ...]) -> frozenset[str]:
    """The points of a lead; a board's bars are one with the terminals of its circuits."""
    first = next(iter(placed.house.conductors))
    one_with = {f"{first}.E0": "met", f"{first}.L0": "main.L", f"{first}.N0": "main.N"}
    names = (placed.node(point) for point in at)
    return frozenset(one_with.get(name, name) for name in names)
