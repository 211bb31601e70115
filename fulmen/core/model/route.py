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


class Fixings(StrEnum):
    """What holds the cable."""

    METAL = "metal"
    PLASTIC = "plastic"


class Section(Part):
    """One section of a route, in the order of walking from the board.

    Without a cable of its own it goes on with the circuit's; where the cable changes stands a joint.
    Facts that only some surroundings have (depth, tape, clearance) are ignored elsewhere.
    """

    surroundings: Surroundings = Surroundings.CLIPPED
    method: ReferenceMethod = ReferenceMethod.C
    length_m: SectionLengthM
    length_by: LengthBy = LengthBy.TAPE
    cable: Cable | None = None
    joint_accessible: Seen = Seen.NOT_SEEN
    temperature_c: Annotated[float, number(-25, 60)] | None = None
    grouped_circuits: Annotated[int, Field(strict=True, ge=1, le=9)] = 1
    single_layer: bool = False
    insulation_mm: Annotated[float, number(0, 100_000)] = 0
    soil_km_per_w: Annotated[float, number(0.5, 3)] = 2.5
    depth_m: Annotated[float, number(0.1, 3)] = 0.7
    in_duct: bool = False
    under_drive: bool = False
    warning_tape: bool = True
    concealed_under_50_mm: bool = False
    in_zone: Seen = Seen.NOT_SEEN
    fixings: Fixings = Fixings.METAL
    clip_spacing_mm: Annotated[float, number(50, 5000)] | None = None
    bend_radius_mm: Annotated[float, number(5, 5000)] | None = None
    fire_stopped: bool = True
    clearance_mm: Annotated[float, number(0, 5000)] | None = None
    trench_width_m: Annotated[float, number(0.1, 2)] = 0.3
    hole_depth_m: Annotated[float, number(0.1, 2)] = 0.8
    hole_width_m: Annotated[float, number(0.1, 1.5)] = 0.3
    hazards: tuple[Hazard, ...] = ()
