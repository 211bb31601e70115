"""The arrangement: the earth of the car, the open-PEN measure and the place of 6 mA DC detection."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import ElectrodeOhm, Part
from fulmen.core.model.charge_point import OpenPenDevice


class CarEarth(StrEnum):
    """What the car body is earthed to."""

    HOUSE_EARTH = "house_earth"
    OWN_ELECTRODE = "own_electrode"


class OpenPenMeasure(StrEnum):
    """What guards against a broken PEN conductor."""

    DEVICE_IN_UNIT = "device_in_unit"
    SEPARATE_DEVICE = "separate_device"
    LOW_ELECTRODE = "low_electrode"
    NONE = "none"


class RdcDdPlace(StrEnum):
    """Where 6 mA DC is detected."""

    IN_UNIT = "in_unit"
    BEFORE_UNIT = "before_unit"
    NONE = "none"


class Arrangement(Part):
    """The choices that protect people at the car."""

    car_earth: CarEarth = CarEarth.HOUSE_EARTH
    open_pen: OpenPenMeasure = OpenPenMeasure.DEVICE_IN_UNIT
    separate_device: OpenPenDevice = OpenPenDevice()
    rdc_dd: RdcDdPlace = RdcDdPlace.IN_UNIT
    electrode_design_ohm: ElectrodeOhm | None = None
    separation_m: Annotated[float, Field(strict=True, ge=0, le=100)] | None = None
