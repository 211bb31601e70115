"""What is closed in a house, and what a set that is placed somewhere needs open: a terminal is under its cover."""

from __future__ import annotations

from fulmen.core.model.base import Part
from fulmen.core.practice.exercise import Exercise
from fulmen.core.simulations.as_built.set_up import Setup
from fulmen.core.verification.instruments.dials import Link, Point
from fulmen.core.verification.steps.sequence import Step

UNIT = "unit"
# Terminals of the first board; what is bonded, spikes in the ground and a plug's contacts have no cover.
AT_THE_ORIGIN = ("supply", "main", "met")


class Covered(Part):
    """A cover: what is behind it, and its name."""

    key: str
    name: str


def covers(exercise: Exercise) -> tuple[Covered, ...]:
    """The covers of a house, from the origin on."""
    boards = {one.board.id: f"Cover of {one.board.name}" for one in exercise.case.run.chain}
    unit = exercise.case.run.charge_point.name or "the unit"
    return (*(Covered(key=key, name=name) for key, name in boards.items()), Covered(key=UNIT, name=f"Cover of {unit}"))


def under(exercise: Exercise, step: Step, setup: Setup) -> frozenset[str]:
    """The covers that are off while a set stands so."""
    points = {point for at in setup.leads.values() for point in at}
    linked = {Point.NEAR_L} if setup.linked is not Link.NONE and step.leads else set()
    found = {_cover_of(exercise, step, point) for point in points | linked}
    return frozenset(one for one in found if one)


def _cover_of(exercise: Exercise, step: Step, point: Point) -> str:
    chain, place = exercise.case.run.chain, point.value.partition(".")[0]
    if place in AT_THE_ORIGIN:
        return chain[0].board.id
    if place == "unit":
        return UNIT
    circuit = next((one for one in chain if one.circuit.id == step.circuit), chain[-1])
    leg = exercise.case.installation.leg(step.subject)
    if place == "near":
        # A box in the way is open as long as its cores are out: it is signed for when it is made up again.
        return "" if leg is not None and leg.starts is not None else circuit.board.id
    if place == "far" and not (leg is not None and leg.ends is not None):
        after = chain.index(circuit) + 1
        return chain[after].board.id if after < len(chain) else UNIT
    return ""
