"""A section of a route: a stretch of cable with one set of surroundings."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import Part, SectionLengthM, number
from fulmen.core.model.cables import Cable
from fulmen.core.model.reference_method import ReferenceMethod
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import Hazard


class Surroundings(StrEnum):
    """What the cable runs through, in the order a person would say it."""

    CLIPPED = "clipped"
    IN_MASONRY = "in_masonry"
    IN_WALL = "in_wall"
    THROUGH_WALL = "through_wall"
    UNDER_FLOOR = "under_floor"
    LOFT = "loft"
    LOFT_UNDER = "loft_under"
    CONDUIT_OR_TRUNKING = "conduit_or_trunking"
    TRAY = "tray"
    BURIED = "buried"
    DUCT = "duct"
    POST = "post"


class LengthBy(StrEnum):
    """How a section's length is known."""

    TAPE = "tape"
    STEPS = "steps"


class WayMade(StrEnum):
    """Who makes the way of a section: trench, duct, hole in a wall or for a post."""

    FOR_IT = "for_it"
    SHARED = "shared"
    THERE = "there"


class Fixings(StrEnum):
    """What holds the cable."""

    METAL = "metal"
    PLASTIC = "plastic"


USUAL_DEPTH_M = 0.7


class Section(Part):
    """One section of a route, in the order of walking from the board.

    Without a cable of its own it goes on with the circuit's; where the cable changes stands a joint.
    `method` is null where it follows from the place, see `reference.places`; one that the place does not allow counts
    only where it carries less.
    `way_made` says whether trench, duct or hole are made for it, shared with another circuit, or there already.
    Facts that only some surroundings have (depth, tape, clearance) are ignored elsewhere; see `ASKED_OF`. What nobody
    has said yet is null: figures take it on, verdicts wait for it.
    """

    surroundings: Surroundings = Surroundings.CLIPPED
    method: ReferenceMethod | None = None
    length_m: SectionLengthM
    length_by: LengthBy = LengthBy.TAPE
    cable: Cable | None = None
    joint_accessible: Seen = Seen.NOT_SEEN
    temperature_c: Annotated[float, number(-25, 60)] | None = None
    grouped_circuits: Annotated[int, Field(strict=True, ge=1, le=9)] | None = None
    single_layer: bool = False
    insulation_mm: Annotated[float, number(0, 100_000)] | None = None
    soil_km_per_w: Annotated[float, number(0.5, 3)] = 2.5
    depth_m: Annotated[float, number(0.1, 3)] | None = None
    in_duct: bool = False
    under_drive: bool | None = None
    warning_tape: bool | None = None
    concealed_under_50_mm: bool | None = None
    in_zone: Seen = Seen.NOT_SEEN
    metal_frame: bool | None = None
    outdoors: bool | None = None
    fixings: Fixings | None = None
    clip_spacing_mm: Annotated[float, number(50, 5000)] | None = None
    bend_radius_mm: Annotated[float, number(5, 5000)] | None = None
    fire_stopped: bool | None = None
    clearance_mm: Annotated[float, number(0, 5000)] | None = None
    trench_width_m: Annotated[float, number(0.1, 2)] = 0.3
    hole_depth_m: Annotated[float, number(0.1, 2)] = 0.8
    hole_width_m: Annotated[float, number(0.1, 1.5)] = 0.3
    way_made: WayMade = WayMade.FOR_IT
    hazards: tuple[Hazard, ...] = ()

    def unknown(self) -> tuple[str, ...]:
        """The facts of the place that rate or refuse this section and that nobody has said yet."""
        return tuple(name for name in ASKED_OF[self.surroundings] if getattr(self, name) is None)

    def insulated_mm(self) -> float:
        """Length of cable wholly in insulation [mm]; none until somebody says otherwise."""
        return self.insulation_mm or 0.0

    def ducted(self) -> bool:
        """Whether it lies in a duct in the ground."""
        return self.in_duct or self.surroundings is Surroundings.DUCT

    @property
    def in_ground(self) -> bool:
        """Whether it lies in the ground, in a duct or not."""
        return self.surroundings in IN_GROUND

    def dug_m(self) -> float:
        """Depth [m]; the usual one until it is known."""
        return USUAL_DEPTH_M if self.depth_m is None else self.depth_m

    def company(self) -> int:
        """Circuits that lie together, this one included; alone until somebody says otherwise."""
        return self.grouped_circuits or 1


IN_INSULATION = {Surroundings.THROUGH_WALL, Surroundings.UNDER_FLOOR}
HIDDEN = {Surroundings.IN_MASONRY, Surroundings.IN_WALL, Surroundings.UNDER_FLOOR}
IN_GROUND = (Surroundings.BURIED, Surroundings.DUCT)
# Where everybody sees the cable, and a hole on the way.
ON_THE_SURFACE = (
    Surroundings.CLIPPED,
    Surroundings.THROUGH_WALL,
    Surroundings.CONDUIT_OR_TRUNKING,
    Surroundings.TRAY,
    Surroundings.POST,
)
# Places that are out of doors by themselves, and those that may be.
OUT_OF_DOORS = (*IN_GROUND, Surroundings.POST)
MAY_BE_OUTDOORS = (Surroundings.CLIPPED, Surroundings.CONDUIT_OR_TRUNKING, Surroundings.TRAY)
ON_CLIPS = (
    Surroundings.CLIPPED,
    Surroundings.UNDER_FLOOR,
    Surroundings.LOFT,
    Surroundings.LOFT_UNDER,
    Surroundings.POST,
)


def _asked(surroundings: Surroundings) -> tuple[str, ...]:
    """Which facts a place asks for: the company everywhere, insulation, depth and cover where there may be any.

    A loft's insulation and that of a stud wall are in their surroundings.

    >>> ASKED_OF[Surroundings.CLIPPED]
    ('grouped_circuits',)
    """
    return (
        "grouped_circuits",
        *(["insulation_mm"] if surroundings in IN_INSULATION else []),
        *(["concealed_under_50_mm"] if surroundings in HIDDEN else []),
        *(["metal_frame"] if surroundings is Surroundings.IN_WALL else []),
        *(["depth_m", "under_drive"] if surroundings in IN_GROUND else []),
    )


ASKED_OF = {surroundings: _asked(surroundings) for surroundings in Surroundings}
