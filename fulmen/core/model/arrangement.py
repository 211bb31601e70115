"""The arrangement: the earth of the car, the open-PEN measure and the place of 6 mA DC detection."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from fulmen.core.model.base import CsaMm2, Day, ElectrodeOhm, LoadA, Name, Part, number
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import ConductorProtection


class CarEarth(StrEnum):
    """What the car body is earthed to."""

    HOUSE_EARTH = "house_earth"
    OWN_ELECTRODE = "own_electrode"


class OpenPenMeasure(StrEnum):
    """What guards against a broken PEN conductor."""

    DEVICE_IN_UNIT = "device_in_unit"
    SEPARATE_DEVICE = "separate_device"
    LOW_ELECTRODE = "low_electrode"
    THREE_PHASE_BALANCE = "three_phase_balance"
    INDOORS_ONLY = "indoors_only"
    NONE = "none"


class MetalAtUnit(StrEnum):
    """Whether metal on the house earth (armour, conduit, trunking) reaches what the charge point is earthed to.

    Apart means a plastic gland, or armour cut back and sleeved, and the house earth parked in an insulated terminal.
    """

    NONE = "none"
    APART = "apart"
    TOUCHING = "touching"
    NOT_SEEN = "not_seen"


class FallOfPotential(Part):
    """The record of a fall-of-potential test: where the current spike stood, and three readings."""

    current_spike_m: Annotated[float, number(1, 500)]
    readings_ohm: tuple[ElectrodeOhm, ElectrodeOhm, ElectrodeOhm]
    ground_c: Annotated[float, number(-15, 20)] = 10
    taken_by: Name
    taken_on: Day


class RdcDdPlace(StrEnum):
    """Where 6 mA DC is detected."""

    IN_UNIT = "in_unit"
    BEFORE_UNIT = "before_unit"
    NONE = "none"


class Arrangement(Part):
    """The choices that protect people at the car.

    `measuring_electrode` says whether the electrode that an open-PEN device measures against stands, and was tested.
    `insulated_to_rcd` says whether all before the unit's own RCD is in double or reinforced insulation.
    """

    car_earth: CarEarth = CarEarth.HOUSE_EARTH
    open_pen: OpenPenMeasure = OpenPenMeasure.DEVICE_IN_UNIT
    rdc_dd: RdcDdPlace = RdcDdPlace.IN_UNIT
    electrode_design_ohm: ElectrodeOhm | None = None
    electrode_conductor_csa_mm2: CsaMm2 | None = None
    electrode_conductor_protection: ConductorProtection = ConductorProtection.NOT_SEEN
    insulated_to_rcd: Seen = Seen.NOT_SEEN
    separation_m: Annotated[float, number(0, 100)] | None = None
    electrode_clear: Seen = Seen.NOT_SEEN
    metal_at_unit: MetalAtUnit = MetalAtUnit.NOT_SEEN
    measuring_electrode: Seen = Seen.NOT_SEEN
    least_load_a: tuple[LoadA, LoadA, LoadA] | None = None
    fall_of_potential: FallOfPotential | None = None
