"""Boards: what their case is, the guards in front of their ways, and what else hangs behind those."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import FaultKa, Id, IpCode, Line, LoadA, Part, number
from fulmen.core.model.guards import Guards
from fulmen.core.model.load import Appliance
from fulmen.core.model.seen import Seen


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


class WayGroup(Part):
    """Some ways of a board behind guards of their own, such as the RCD side of a split load.

    `feeds_others` says whether circuits hang behind it that are not in this job, `others` which: they go off too.
    """

    id: Id
    name: Line
    guards: Guards = ()
    feeds_others: Seen = Seen.NOT_SEEN
    others: Line = ""


class Board(Part):
    """A board. One that no circuit feeds stands at the origin; what else it feeds is `other_loads`.

    `incomer` are the guards in front of all its ways, `groups` those in front of some. `feeds_others` and `others`
    are as a group's. `front_rcd_seen` says whether anybody looked for an RCD in front of the new way.
    `surge_as_made` says whether surge protection is connected as its maker says, `devices_allowed` whether the board's
    maker allows what stands in it. `diversity_factor` and `busbar_a` are its maker's: how much of their rated current
    several ways carry for hours, and what the busbar carries. `smooth_dc` and `leakage_ma` are what hangs behind an RCD
    that its ways share, `flash_guards` whether those of an old board were asked about before anybody drills.
    """

    id: Id
    name: Line
    location: Line = ""
    indoors: bool | None = None
    ip_code: IpCode | None = None
    enclosure: Enclosure = Enclosure.NOT_SEEN
    conditional_rating_ka: FaultKa | None = None
    incomer: Guards = ()
    groups: tuple[WayGroup, ...] = Field(default=(), max_length=8)
    front_rcd_seen: Seen = Seen.NOT_SEEN
    feeds_others: Seen = Seen.NOT_SEEN
    others: Line = ""
    surge_protection: Seen = Seen.NOT_SEEN
    surge_as_made: Seen = Seen.NOT_SEEN
    devices_allowed: Seen = Seen.NOT_SEEN
    diversity_factor: Annotated[float, number(0.3, 1)] | None = None
    busbar_a: LoadA | None = None
    smooth_dc: Seen = Seen.NOT_SEEN
    leakage_ma: Annotated[float, number(0, 500)] | None = None
    flash_guards: Seen = Seen.NOT_SEEN
    ways: Annotated[int, Field(strict=True, ge=1, le=60)] | None = None
    fitted_with_this_job: bool = False
    make_up: MakeUp = MakeUp.NOT_SEEN
    spare_ways: Annotated[int, Field(strict=True, ge=0, le=60)] | None = None
    looked_inside: Seen = Seen.NOT_SEEN
    labels_complete: Seen = Seen.NOT_SEEN
    extraneous_parts: Seen = Seen.NOT_SEEN
    other_loads: tuple[Appliance, ...] = Field(default=(), max_length=30)
