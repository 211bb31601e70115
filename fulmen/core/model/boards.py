"""Boards and the residual-current devices that stand in them."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field

from fulmen.core.model.base import FaultKa, Id, Line, Part
from fulmen.core.model.load import Appliance
from fulmen.core.model.supply import Seen


class RcdType(StrEnum):
    """The waveforms an RCD sees, by its mark."""

    AC = "AC"
    A = "A"
    F = "F"
    B = "B"


class Rcd(Part):
    """A residual-current device or the residual-current part of an RCBO."""

    type: RcdType
    residual_ma: Literal[10, 30, 100, 300, 500] = 30
    time_delayed: bool = False
    switches_neutral: bool = True


class Enclosure(StrEnum):
    """What the board's case is made of."""

    METAL = "metal"
    PLASTIC = "plastic"
    NOT_SEEN = "not_seen"


class MakeUp(StrEnum):
    """How a board is made up, as seen with its lid open."""

    ALL_RCBO = "all_rcbo"
    SPLIT_LOAD = "split_load"
    BREAKERS_ONLY = "breakers_only"
    REWIRABLE = "rewirable"
    NOT_SEEN = "not_seen"


class Board(Part):
    """A board. One that no circuit feeds stands at the origin; what else it feeds is `other_loads`."""

    id: Id
    name: Line
    location: Line = ""
    indoors: bool = True
    enclosure: Enclosure = Enclosure.NOT_SEEN
    conditional_rating_ka: FaultKa | None = None
    front_rcd: Rcd | None = None
    front_rcd_seen: Seen = Seen.NOT_SEEN
    surge_protection: Seen = Seen.NOT_SEEN
    ways: Annotated[int, Field(strict=True, ge=1, le=60)] | None = None
    fitted_with_this_job: bool = False
    make_up: MakeUp = MakeUp.NOT_SEEN
    spare_ways: Annotated[int, Field(strict=True, ge=0, le=60)] | None = None
    looked_inside: Seen = Seen.NOT_SEEN
    labels_complete: Seen = Seen.NOT_SEEN
    extraneous_parts: Seen = Seen.NOT_SEEN
    other_loads: tuple[Appliance, ...] = Field(default=(), max_length=30)
