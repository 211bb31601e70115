"""The load of the house: appliances and circuits to add up, or what a meter recorded."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from fulmen.core.model.base import Line, LoadA, Moment, Part, number


class LoadKind(StrEnum):
    """A kind of load by the diversity rule that counts it."""

    LIGHTING = "lighting"
    SOCKETS = "sockets"
    COOKER = "cooker"
    SHOWER = "shower"
    WATER_HEATER = "water_heater"
    HEATING = "heating"
    FLOOR_HEATING = "floor_heating"
    STORAGE_HEATING = "storage_heating"
    HEAT_PUMP = "heat_pump"
    CAR = "car"
    OTHER = "other"


class DemandMethod(StrEnum):
    """How the house's maximum demand is known."""

    ENTERED = "entered"
    ADDED_UP = "added_up"
    MEASURED = "measured"


class Appliance(Part):
    """One appliance or circuit of the house, by its current or its power."""

    kind: LoadKind
    name: Line = ""
    rating_a: Annotated[float, number(0.1, 200)] | None = None
    rating_kw: Annotated[float, number(0.01, 46)] | None = None
    socket_in_unit: bool = False

    @model_validator(mode="after")
    def one_rating(self) -> Self:
        """Amps or kilowatts, never both and never neither."""
        if (self.rating_a is None) == (self.rating_kw is None):
            raise PydanticCustomError("one_rating", "needs either amps or kilowatts")
        return self


class HalfHours(Part):
    """What a file of half-hourly energy came to. The entries themselves are not kept.

    `near_peak_hours` is how long it stayed near its peak in a row at the longest; null in files of before.
    """

    peak_kwh: Annotated[float, number(0, 50)]
    peak_at: Moment
    first_at: Moment
    last_at: Moment
    entries: Annotated[int, Field(strict=True, ge=1)]
    missing: Annotated[int, Field(strict=True, ge=0)] = 0
    near_peak_hours: Annotated[float, number(0, 100_000)] | None = None


class Load(Part):
    """What the house draws without the new charge point, and how that is known."""

    method: DemandMethod = DemandMethod.ENTERED
    appliances: tuple[Appliance, ...] = Field(default=(), max_length=60)
    measured_a: LoadA | None = None
    measured_how: Line = ""
    half_hours: HalfHours | None = None
