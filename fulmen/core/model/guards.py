"""Guards: everything that can open a circuit, stored once, where it stands in the tree.

A guard stands as a board's incomer, in front of a group of its ways, on a way (`Device`), in a box of its own along a
circuit, or inside a unit. The ordered list of one run is derived from there; nothing keeps a second one.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Literal, get_args

from pydantic import Field

from fulmen.core.model.base import FaultKa, Id, Line, LoadA, LoopOhm, Part, number
from fulmen.core.model.seen import Seen


class RcdType(StrEnum):
    """The waveforms an RCD sees, by its mark."""

    AC = "AC"
    A = "A"
    F = "F"
    B = "B"


ResidualMa = Literal[10, 30, 100, 300, 500]


@dataclass(frozen=True, slots=True)
class Rcd:
    """A residual-current device, or the residual-current part of an RCBO, whose mark was read or is ordered.

    `switches_neutral` is None where nobody looked; on one that stands by itself its poles tell it.
    """

    type: RcdType
    residual_ma: ResidualMa = 30
    time_delayed: bool = False
    switches_neutral: bool | None = True


class RcdMark(Part):
    """An RCD as a job keeps it: what its mark says, null until it was read."""

    type: RcdType | None = None
    residual_ma: ResidualMa | None = None
    time_delayed: bool | None = None
    switches_neutral: bool | None = None

    def known(self) -> Rcd | None:
        """The RCD, once type, residual current and delay were read."""
        if self.type is None or self.residual_ma is None or self.time_delayed is None:
            return None
        return Rcd(self.type, self.residual_ma, self.time_delayed, self.switches_neutral)


def ordered_rcd(kind: RcdType, residual_ma: ResidualMa = 30, *, delayed: bool = False, neutral: bool = True) -> RcdMark:
    """An RCD to be fitted: all of it is chosen."""
    return RcdMark(type=kind, residual_ma=residual_ma, time_delayed=delayed, switches_neutral=neutral)


class OpenPenSensing(StrEnum):
    """How an open-PEN device notices: main earth terminal to true earth, or line-to-neutral window."""

    MET_VOLTAGE = "met_voltage"
    LINE_NEUTRAL_WINDOW = "line_neutral_window"


class OpenPenDevice(Part):
    """An open-PEN detection device, in the charge point or before it: its maker's facts, null until looked up.

    `closes_by_hand` says whether it stays open until somebody closes it.
    """

    sensing: OpenPenSensing | None = None
    opens_protective_conductor: bool | None = None
    opens_within_s: Annotated[float, number(0.01, 60)] | None = None
    closes_by_hand: bool | None = None


class DeviceKind(StrEnum):
    """What the overcurrent device is."""

    BREAKER = "breaker"
    FUSE = "fuse"
    MOULDED_CASE = "moulded_case"
    REWIRABLE = "rewirable"


class Curve(StrEnum):
    """The instantaneous tripping characteristic of a circuit-breaker."""

    B = "B"
    C = "C"
    D = "D"


DeviceRatingA = Annotated[
    Literal[6, 10, 16, 20, 25, 32, 40, 50, 63, 80, 100, 125, 160, 200, 250], Field(description="rated current In, A")
]
# The largest rating that the tables of gG fuses and of small breakers hold.
TABLED_FUSE_A, TABLED_BREAKER_A = 100, 125
# Every rating that a device can be told to have, the smallest first.
RATINGS_A: tuple[int, ...] = get_args(get_args(DeviceRatingA)[0])
Poles = Annotated[int, Field(strict=True, ge=1, le=4, description="poles that open")]
RatedV = Annotated[int, Field(strict=True, ge=230, le=415, description="rated voltage, V")]


class Device(Part):
    """The guard on a way: a circuit-breaker (an RCBO where it holds an RCD), or a fuse.

    A fuse is a BS 88-2 gG fuse in a fused switch. `breaking_capacity_ka` is Icn of a breaker; fuses break more.
    `energy_class` is the figure in the small square under it; a new breaker is ordered in class 3. `both_ways` says
    whether it opens whichever way the current flows. `voltage_v` is asked where it stands across three lines.
    What no table holds goes by its maker's figures: the largest loop that opens it, `maker_zs_ohm`, within which time,
    and the most energy that it lets through at its board; `maker_source` names the paper.
    """

    kind: DeviceKind = DeviceKind.BREAKER
    curve: Curve = Curve.B
    rating_a: DeviceRatingA = 40
    breaking_capacity_ka: FaultKa = 6
    both_ways: Seen = Seen.NOT_SEEN
    energy_class: Literal[1, 2, 3] | None = None
    poles: Poles | None = None
    voltage_v: RatedV | None = None
    rcd: RcdMark | None = None
    maker_zs_ohm: LoopOhm | None = None
    maker_opens_s: Annotated[float, number(0.01, 5)] | None = None
    maker_energy_a2s: Annotated[float, number(1000, 100_000_000)] | None = None
    maker_source: Line = ""

    @property
    def by_maker(self) -> bool:
        """Whether only its maker knows when it opens and what it lets through."""
        most_a = {DeviceKind.FUSE: TABLED_FUSE_A, DeviceKind.BREAKER: TABLED_BREAKER_A, DeviceKind.MOULDED_CASE: 0}
        return self.rating_a > most_a.get(self.kind, self.rating_a)

    @property
    def opens_poles(self) -> bool:
        """Whether it opens all of its poles together."""
        return self.kind in (DeviceKind.BREAKER, DeviceKind.MOULDED_CASE)


class GuardKind(StrEnum):
    """What a guard that is not on a way is."""

    SWITCH = "switch"
    RCCB = "rccb"
    OPEN_PEN_DEVICE = "open_pen_device"
    DC_DETECTOR = "dc_detector"


class Guard(Part):
    """A guard in front of several ways, or in a box of its own. What is not known yet is null.

    `carries_by_maker` says whether its maker takes what hangs behind it; `both_ways` is as a device's.
    `rcd` is what an RCCB sees; `open_pen` how an open-PEN device notices; `standard` is a main switch's. An
    overcurrent device stands on a way.
    """

    id: Id
    kind: GuardKind
    rating_a: LoadA | None = None
    poles: Poles | None = None
    voltage_v: RatedV | None = None
    standard: Line = ""
    location: Line = ""
    rcd: RcdMark | None = None
    open_pen: OpenPenDevice | None = None
    carries_by_maker: Seen = Seen.NOT_SEEN
    both_ways: Seen = Seen.NOT_SEEN
    fitted_with_this_job: bool = False


Guards = Annotated[tuple[Guard, ...], Field(max_length=6, description="from the supply inwards")]


class GuardBox(Part):
    """A box along a circuit that holds guards and no overcurrent device.

    It stands after so many sections of the route: 0 is at the board, null at the circuit's end.
    """

    id: Id
    name: Line
    location: Line = ""
    after_section: Annotated[int, Field(strict=True, ge=0, le=200)] | None = None
    guards: Guards = ()
    fitted_with_this_job: bool = True
