"""What each place means for a cable: the reference methods that it allows, the first of which follows from it.

Nobody's choice is kinder than the place: a method that the place does not allow is never lent to it.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from fulmen.core.model.reference_method import ReferenceMethod
from fulmen.core.model.route import IN_GROUND, Section, Surroundings
from fulmen.core.reference.cable_catalogue import CableRecord
from fulmen.core.reference.tables import read_toml

# Methods whose ratings hold the insulation around the cable in themselves.
HOLDS_INSULATION = {
    ReferenceMethod.A,
    ReferenceMethod.M100,
    ReferenceMethod.M101,
    ReferenceMethod.M102,
    ReferenceMethod.M103,
}


@dataclass(frozen=True)
class Place:
    """What one kind of surroundings means; the data file says what each field is."""

    letter: str
    methods: tuple[str, ...]
    also: tuple[str, ...] = ()
    also_clear: tuple[str, ...] = ()
    in_insulation: tuple[str, ...] = ()
    in_insulation_throughout: bool = False


@cache
def places() -> dict[Surroundings, Place]:
    """Every kind of surroundings with what it means."""
    raw = read_toml(__package__, "places")
    return {
        Surroundings(key): Place(
            letter=entry["letter"],
            in_insulation_throughout=entry.get("in_insulation_throughout", False),
            **{name: tuple(value) for name, value in entry.items() if isinstance(value, list)},
        )
        for key, entry in raw.items()
    }


@dataclass(frozen=True)
class LaidMethod:
    """A reference method as a place lends it.

    `surrounded` counts the whole length as in insulation, by Ci; `holds_insulation` says that the method's own rating
    has the place's insulation in it.
    """

    method: ReferenceMethod
    surrounded: bool = False
    holds_insulation: bool = False


# Where a flat cable is enclosed all round: method B of the round one rates it there, and nowhere else.
ENCLOSURES = (Surroundings.CONDUIT_OR_TRUNKING, Surroundings.POST)


def methods_in(section: Section, record: CableRecord) -> tuple[LaidMethod, ...]:
    """The methods that a section's place allows a cable, the one that follows from the place first; never none."""
    return _methods_in(section.surroundings, section.insulated_mm() > 0, record)


def _methods_in(surroundings: Surroundings, insulated: bool, record: CableRecord) -> tuple[LaidMethod, ...]:  # noqa: FBT001
    place = places()[surroundings]
    follows = place.in_insulation if insulated and place.in_insulation else place.methods
    wanted = [*follows, *place.also, *(() if insulated else place.also_clear)]
    rated = rated_methods(record, surroundings)
    first = next((one for one in wanted if one in rated), None)
    if first is None and surroundings not in IN_GROUND:
        return (LaidMethod(ReferenceMethod.C, surrounded=True),)
    printed = dict.fromkeys([first or follows[0], *(one for one in wanted if one in rated)])
    throughout = place.in_insulation_throughout
    return tuple(
        LaidMethod(
            method,
            surrounded=throughout and method not in HOLDS_INSULATION,
            holds_insulation=(throughout or bool(place.in_insulation)) and method in HOLDS_INSULATION,
        )
        for method in map(ReferenceMethod, printed)
    )


def rated_methods(record: CableRecord, surroundings: Surroundings) -> frozenset[str]:
    """The methods that rate a cable at a place: its table's own, and method B lent to an armoured cable, or to a flat
    one that is enclosed.
    """
    lent = bool(record.armour) or (record.flat and surroundings in ENCLOSURES)
    return frozenset([*record.methods, *(["B"] if lent else [])])


def follows_from(section: Section, record: CableRecord) -> LaidMethod:
    """The method that follows from a section's place for a cable."""
    return methods_in(section, record)[0]
