"""A circuit: its protective device, its cable and its route."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field

from fulmen.core.model.base import CsaMm2, FaultKa, Id, Line, Part
from fulmen.core.model.boards import Rcd
from fulmen.core.model.route import Section


class Curve(StrEnum):
    """The instantaneous tripping characteristic of a circuit-breaker."""

    B = "B"
    C = "C"


DeviceRatingA = Annotated[Literal[16, 20, 25, 32, 40], Field(description="rated current In, A")]


class Device(Part):
    """The overcurrent device at the board: a circuit-breaker, or an RCBO where it holds an RCD."""

    curve: Curve = Curve.B
    rating_a: DeviceRatingA = 40
    breaking_capacity_ka: FaultKa = 6
    rcd: Rcd | None = None


class Cable(Part):
    """The cable of a circuit: a record of the catalogue, and a size."""

    record: Id = "swa-3-core"
    csa_mm2: CsaMm2 = 6


class Circuit(Part):
    """A circuit from a board to a charge point (final) or to another board (distribution)."""

    id: Id
    name: Line
    way: Line = ""
    from_board: Id
    feeds: Id
    device: Device = Device()
    cable: Cable = Cable()
    route: tuple[Section, ...] = Field(default=(), max_length=200)
