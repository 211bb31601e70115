"""What flows where while a set measures: the share of its current in each conductor, for who watches it work."""

from __future__ import annotations

from fulmen.core.electrical.network import Edge, currents_between
from fulmen.core.model.base import Part
from fulmen.core.simulations.as_built.as_installed import AsInstalled
from fulmen.core.simulations.as_built.set_up import Placed, Setup
from fulmen.core.verification.instruments.dials import Point, Shows, dial
from fulmen.core.verification.steps.sequence import Step

BY_THE_SUPPLY = {Shows.LOOP, Shows.FAULT_CURRENT, Shows.RCD, Shows.DC_RISING}
LEAST_SHARE = 0.01
WIRES = {
    frozenset(("star", "supply.L")): "supply.L",
    frozenset(("star", "supply.N")): "supply.N",
    frozenset(("star", "supply.E")): "supply.E",
    frozenset(("supply.N", "supply.E")): "supply.E",
    frozenset(("supply.L", "main.L")): "tails.L",
    frozenset(("supply.N", "main.N")): "tails.N",
    frozenset(("met", "supply.E")): "earthing",
    frozenset(("met", "service")): "bond",
    frozenset(("unit.E", "star")): "ground",
    frozenset(("unit.E", "plug.E")): "plug.E",
}


class Flow(Part):
    """A conductor and the part of the current that flows in it, 0 to 1; `back` from the car towards the street."""

    wire: str
    share: float
    back: bool


def flow(house: AsInstalled, step: Step, setup: Setup) -> tuple[Flow, ...]:
    """What flows where: with an ohmmeter in what is linked, with a loop tester through the supply."""
    shows, placed = dial(setup.dial).shows, Placed(house, step, setup)
    if not placed.on_points or placed.first == placed.last or Point.OTHER_LEAD in placed.first:
        return ()
    if shows is Shows.RESISTANCE:
        edges = house.dead_edges(placed.subject, placed.links())
    elif shows in BY_THE_SUPPLY:
        edges = house.supply if Point.SUPPLY_E in placed.last else house.edges
    else:
        return ()
    shares = currents_between(edges, *placed.pair)
    named: dict[str, tuple[float, bool]] = {}
    for edge, share in zip(edges, shares, strict=True):
        wire = _wire(edge, placed)
        if wire and abs(share) >= LEAST_SHARE:
            named[wire] = (max(abs(share), named.get(wire, (0.0, False))[0]), share < 0)
    return tuple(Flow(wire=wire, share=round(share, 3), back=back) for wire, (share, back) in named.items())


def _wire(edge: Edge, placed: Placed) -> str:
    """The conductor of the drawing that an edge of the network is; none for a mere joint."""
    one, other, _ = edge
    known = WIRES.get(frozenset((one, other)))
    if known is not None:
        return known
    if {one, other} in [set(linked) for linked in placed.links()]:
        return f"{placed.subject}.link"
    legs = [leg.subject for legs in placed.house.case.installation.legs.values() for leg in legs]
    laid = next((leg for leg in legs if edge in placed.house.parts.get(leg, ())), None)
    if laid is not None:
        return f"{laid}.{one.rpartition('.')[2][0]}"
    if "plug.L" in edge or "plug.N" in edge:
        return f"plug.{one[-2]}"
    return "beside" if placed.house.final in one and other in ("met", "unit.E") and edge[2] > LEAST_BESIDE_OHM else ""


LEAST_BESIDE_OHM = 1e-3
