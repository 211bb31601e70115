"""Where the tests of a job are taken: its places by their own names, and how far each is from the next."""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.installation.installation import Installation
from fulmen.core.installation.legs import boxes_along
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.circuits import Circuit
from fulmen.core.verification.steps.steps import Where

# How far a rod usually stands from the meter, and tails that nobody has measured. Common practice, no source.
ELECTRODE_M, TAILS_M = 5.0, 2.0


@dataclass(frozen=True)
class SiteMap:
    """Places by their ids: their names, and the next place towards the origin with the metres to it.

    `fed_by` names the circuit that each circuit hangs on; `points` are the places of charge points.
    """

    names: dict[str, str]
    towards: dict[str, tuple[str, float]]
    fed_by: dict[str, str]
    points: frozenset[str]

    def metres(self, one: str, other: str) -> float:
        """How far it is from one place to another along the cable's way [m]."""
        here, there = self._way(one), self._way(other)
        common = next(place for place in here if place in there)
        return here[common] + there[common]

    def name(self, place: str) -> str:
        """What a place is called."""
        return self.names.get(place, place)

    def before(self, circuit: str) -> set[str]:
        """Every circuit between the origin and this one."""
        found = set()
        while (circuit := self.fed_by.get(circuit, "")) and circuit not in found:
            found.add(circuit)
        return found

    def _way(self, place: str) -> dict[str, float]:
        """Every place between here and the origin, with the metres to it."""
        found, at_m = {place: 0.0}, 0.0
        while place in self.towards:
            place, next_m = self.towards[place]
            at_m += next_m
            found[place] = at_m
        return found if ORIGIN in found else {**found, ORIGIN: at_m}


def site_map(installation: Installation) -> SiteMap:
    """The places of a job where something is tested."""
    job, tree = installation.job, installation.tree
    names = {ORIGIN: "the origin", Where.ELECTRODE.value: "the electrode"}
    towards = {Where.ELECTRODE.value: (ORIGIN, ELECTRODE_M)}
    fed_by = {}
    for board in job.boards:
        names[board.id] = board.name
        feeder = tree.feeders.get(board.id)
        if feeder is None:
            tails = installation.tails_to.get(board.id) or ()
            towards[board.id] = (ORIGIN, sum(one.length_m or TAILS_M for one in tails) or TAILS_M)
    for circuit in job.circuits:
        end = circuit.feeds or circuit.id
        towards |= _along(circuit, end)
        names |= {box.id: box.name for box, _ in boxes_along(circuit)}
        feeder = tree.feeders.get(circuit.from_board)
        if feeder is not None:
            fed_by[circuit.id] = feeder.id
        if not circuit.feeds:
            names[circuit.id] = circuit.name
    # Of a unit that comes later there is the box at its cable's end.
    names |= {point.id: f"the box for {point.name}" if point.to_come else point.name for point in job.charge_points}
    return SiteMap(
        names=names,
        towards=towards,
        fed_by=fed_by,
        points=frozenset(point.id for point in job.charge_points),
    )


def _along(circuit: Circuit, end: str) -> dict[str, tuple[str, float]]:
    """The places along a circuit from its board to its end, its boxes where they stand."""
    found, before, at = {}, circuit.from_board, 0
    for box, here in boxes_along(circuit):
        found[box.id] = (before, sum(one.length_m for one in circuit.route[at:here]))
        before, at = box.id, here
    found[end] = (before, sum(one.length_m for one in circuit.route[at:]))
    return found
