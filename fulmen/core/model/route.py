"""A section of a route: a stretch of cable with one set of surroundings."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import Part, SectionLengthM, number


class Surroundings(StrEnum):
    """What the cable runs through, in the order a person would say it."""

    CLIPPED = "clipped"
    IN_WALL = "in_wall"
    THROUGH_WALL = "through_wall"
    UNDER_FLOOR = "under_floor"
    LOFT = "loft"
    CONDUIT_OR_TRUNKING = "conduit_or_trunking"
    TRAY = "tray"
    BURIED = "buried"
    DUCT = "duct"
    POST = "post"


class ReferenceMethod(StrEnum):
    """The reference method of BS 7671 Appendix 4 that the section is rated by."""

    A = "A"
    B = "B"
    C = "C"
    D = "D"
    E = "E"
    M100 = "100"
    M101 = "101"
    M102 = "102"
    M103 = "103"


class Section(Part):
    """One section of a route, in the order of walking from the board."""

    surroundings: Surroundings = Surroundings.CLIPPED
    method: ReferenceMethod = ReferenceMethod.C
    length_m: SectionLengthM
    temperature_c: Annotated[float, number(-25, 60)] | None = None
    grouped_circuits: Annotated[int, Field(strict=True, ge=1, le=9)] = 1
    single_layer: bool = False
    insulation_mm: Annotated[float, number(0, 100_000)] = 0
    soil_km_per_w: Annotated[float, number(0.5, 3)] = 2.5
    depth_m: Annotated[float, number(0.1, 3)] = 0.7
    in_duct: bool = False
    concealed_under_50_mm: bool = False
