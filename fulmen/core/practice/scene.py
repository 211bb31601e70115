"""The house as it is drawn: the way from the street to the car, its cables, and the terminals that leads may go to."""

from __future__ import annotations

from enum import StrEnum

from fulmen.core.circuit.people import has_car_electrode
from fulmen.core.model.base import Part
from fulmen.core.model.guards import GuardBox
from fulmen.core.model.supply import Earthing
from fulmen.core.practice.exercise import Exercise
from fulmen.core.verification.instruments.dials import Point

# Terminals that are there whatever is tested.
ALWAYS = {Point.SUPPLY_L, Point.SUPPLY_N, Point.MET, Point.NEAR_L, Point.NEAR_N, Point.NEAR_E, Point.FAR_L, Point.FAR_N,
          Point.FAR_E, Point.PLUG_L, Point.PLUG_N, Point.PLUG_E}  # fmt: skip


class PlaceKind(StrEnum):
    """What stands somewhere on the way."""

    SUPPLY = "supply"
    BOARD = "board"
    BOX = "box"
    UNIT = "unit"
    CAR = "car"


class ScenePlace(Part):
    """Something on the way from the street to the car."""

    key: str
    name: str
    kind: PlaceKind


class SceneCable(Part):
    """A circuit's cable, or the part of one, from one place to the next."""

    circuit: str
    name: str
    start: str
    end: str


class Terminal(Part):
    """A point where a lead may go, at the place where it is."""

    point: Point
    place: str
    words: str


class Scene(Part):
    """Everything that is drawn of a house; `earthing` says what comes in from the street.

    `terminals` are those of each cable under test, a circuit's or a part of one: its own two ends, and what is the same
    for all.
    """

    places: tuple[ScenePlace, ...]
    cables: tuple[SceneCable, ...]
    terminals: dict[str, tuple[Terminal, ...]]
    island: bool
    earthing: Earthing
    bonded: bool


SUPPLY_PLACE, CAR_PLACE = "supply", "car"
CONDUCTOR_WORDS = {
    "L": "line",
    "L2": "line 2",
    "L3": "line 3",
    "N": "neutral",
    "E": "earth",
    "CP": "pilot",
    "PP": "proximity",
}
OTHER_WORDS = {
    Point.SUPPLY_E: "earthing conductor, off the terminal",
    Point.MET: "main earthing terminal",
    Point.SERVICE: "each service's metal",
    Point.ROD: "electrode",
    Point.SPIKE_P: "potential spike",
    Point.SPIKE_C: "current spike",
    Point.OTHER_LEAD: "the other lead",
    Point.UNIT_E: "unit's earth bar",
}


def scene(exercise: Exercise) -> Scene:
    """What is drawn of an exercise's house."""
    chain, job = exercise.case.run.chain, exercise.job
    unit = exercise.case.run.charge_point
    ends = [*(one.board.id for one in chain[1:]), unit.id]
    along = [
        place
        for one in chain
        for place in (
            ScenePlace(key=one.board.id, name=one.board.name, kind=PlaceKind.BOARD),
            *(ScenePlace(key=box.id, name=box.name, kind=PlaceKind.BOX) for box in _between(exercise, one.circuit.id)),
        )
    ]
    places = (
        ScenePlace(key=SUPPLY_PLACE, name="Cut-out", kind=PlaceKind.SUPPLY),
        *along,
        ScenePlace(key=unit.id, name=unit.name or "Charge point", kind=PlaceKind.UNIT),
        ScenePlace(key=CAR_PLACE, name="Connector", kind=PlaceKind.CAR),
    )
    whole = [
        SceneCable(circuit=one.circuit.id, name=one.circuit.name, start=one.board.id, end=end)
        for one, end in zip(chain, ends, strict=True)
    ]
    cables = tuple(part for one in whole for part in _parts(exercise, one))
    return Scene(
        places=places,
        cables=cables,
        terminals={one.circuit: _terminals(exercise, one, places, unit.id) for one in (*whole, *cables)},
        island=has_car_electrode(exercise.case),
        earthing=job.supply.earthing,
        bonded=bool(job.supply.bonded_services),
    )


def _between(exercise: Exercise, circuit: str) -> list[GuardBox]:
    """The boxes that part a circuit's cable."""
    return [one.ends for one in exercise.case.installation.legs[circuit][:-1] if one.ends is not None]


def _parts(exercise: Exercise, whole: SceneCable) -> list[SceneCable]:
    """A circuit's cable from box to box."""
    boxes = [one.id for one in _between(exercise, whole.circuit)]
    legs = exercise.case.installation.legs[whole.circuit]
    return [
        SceneCable(circuit=leg.subject, name=whole.name, start=start, end=end)
        for leg, start, end in zip(legs, (whole.start, *boxes), (*boxes, whole.end), strict=True)
    ]


def _terminals(
    exercise: Exercise, cable: SceneCable, places: tuple[ScenePlace, ...], unit: str
) -> tuple[Terminal, ...]:
    """The terminals along the way while a circuit is tested: what is always there, and what any step asks for."""
    at = dict.fromkeys(("met", "service", "main"), places[1].key)
    at |= {"supply": SUPPLY_PLACE, "plug": CAR_PLACE, "lead": CAR_PLACE, "unit": unit}
    at |= dict.fromkeys(("rod", "spike"), _electrode_at(exercise, places[1].key, unit))
    at |= {"near": cable.start, "far": cable.end}
    asked = {point for step in exercise.steps.values() for lead in step.leads for point in lead.at}
    return tuple(
        Terminal(point=point, place=at[point.partition(".")[0]], words=_words(point))
        for point in Point
        if point in asked or point in ALWAYS
    )


def _electrode_at(exercise: Exercise, first_board: str, unit: str) -> str:
    """Where the electrode is: the car's own at the unit, a TT supply's at the intake."""
    if has_car_electrode(exercise.case):
        return unit
    return SUPPLY_PLACE if exercise.job.supply.earthing is Earthing.TT else first_board


def _words(point: Point) -> str:
    place, _, conductor = point.partition(".")
    if point in OTHER_WORDS:
        return OTHER_WORDS[point]
    where = {
        "near": "at the near end",
        "far": "at the far end",
        "plug": "of the connector",
        "main": "at the main switch",
    }
    return f"{CONDUCTOR_WORDS[conductor]} {where.get(place, 'at the cut-out')}"
