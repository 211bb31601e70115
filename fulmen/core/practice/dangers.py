"""What a set-up would do to people or things as the house stands."""

from __future__ import annotations

from fulmen.core.model.supply import Earthing
from fulmen.core.practice.exercise import Exercise
from fulmen.core.practice.mishaps import MishapKey
from fulmen.core.simulations.as_built.as_installed import Potential
from fulmen.core.simulations.as_built.set_up import Placed, Setup
from fulmen.core.verification.instruments.dials import Point, Shows, dial
from fulmen.core.verification.steps.sequence import Step

BY_ITS_OWN_VOLTS = {Shows.RESISTANCE, Shows.INSULATION}
LIVE_AT_ALL_TIMES = {Point.SUPPLY_L, Point.SUPPLY_N}
EARTH_OFF = {Point.SUPPLY_E}


def danger_of(exercise: Exercise, step: Step, setup: Setup, *, main_on: bool, connected: bool) -> MishapKey | None:
    """What ends the exercise when the set is used like this; None where nobody is hurt.

    Args:
        main_on: the house's main switch is on, so every circuit is live.
        connected: the unit hangs on the cable.
    """
    points = {point for at in setup.leads.values() for point in at}
    shows = dial(setup.dial).shows
    if shows in BY_ITS_OWN_VOLTS and _live(exercise, step, setup, points, main_on=main_on):
        return MishapKey.LIVE_BY_OHMS
    if main_on and _earth_is_off(exercise, points):
        return MishapKey.EARTH_OFF
    if shows is Shows.INSULATION and connected and _between_live(step, setup, exercise):
        return MishapKey.UNIT_TESTED
    return None


def _live(exercise: Exercise, step: Step, setup: Setup, points: set[Point], *, main_on: bool) -> bool:
    if points & LIVE_AT_ALL_TIMES:
        return True
    placed = Placed(exercise.house, step, setup)
    at = {exercise.house.potential(placed.node(one)) for one in points}
    return main_on and bool(at & {Potential.LINE, Potential.NEUTRAL})


def _earth_is_off(exercise: Exercise, points: set[Point]) -> bool:
    """The supply's earth off its terminal; on TT the electrode is that earth."""
    own = exercise.job.supply.earthing is Earthing.TT and Point.ROD in points
    return own or bool(points & EARTH_OFF)


def _between_live(step: Step, setup: Setup, exercise: Exercise) -> bool:
    """Whether the test voltage stands between two live conductors that the unit hangs on."""
    one, other = Placed(exercise.house, step, setup).sides()
    both = {name[:1] for name in one | other}
    return both == {"L", "N"} and not one & other and step.circuit == exercise.house.final
