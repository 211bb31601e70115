"""One day of charging: the car, when it is plugged in, and the house's habits around it."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import Line, Minute, Part, number


class Season(StrEnum):
    """The season of the simulated day."""

    WINTER = "winter"
    SUMMER = "summer"


class ChargingDay(Part):
    """What a day on the supply is worked out from. What is not known of the car is assumed, and said to be."""

    car: Line = ""
    battery_kwh: Annotated[float, number(1, 250)] | None = None
    onboard_kw: Annotated[float, number(1.3, 22.1)] | None = None
    from_percent: Annotated[float, number(0, 100)] = 20
    to_percent: Annotated[float, number(0, 100)] = 80
    plug_in_min: Minute = 18 * 60
    off_peak: bool = True
    off_peak_from_min: Minute = 30
    off_peak_to_min: Minute = 5 * 60 + 30
    random_delay: bool = True
    season: Season = Season.WINTER
    weekend: bool = False
    seed: Annotated[int, Field(strict=True, ge=0, le=9999)] = 1
