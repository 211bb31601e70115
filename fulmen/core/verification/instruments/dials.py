"""The settings of the instruments, read from `dials.toml`; and the points of an installation that leads go to."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cache

from fulmen.core.errors import TableError
from fulmen.core.model.instruments import Function
from fulmen.core.reference.tables import read_toml


class Shows(StrEnum):
    """What is read with a setting."""

    RESISTANCE = "resistance"
    INSULATION = "insulation"
    VOLTAGE = "voltage"
    LOOP = "loop"
    FAULT_CURRENT = "fault_current"
    RCD = "rcd"
    DC_RISING = "dc_rising"
    ROTATION = "rotation"
    ELECTRODE = "electrode"
    PILOT = "pilot"
    DUTY = "duty"
    PROXIMITY = "proximity"
    EYES = "eyes"


class Point(StrEnum):
    """Where a lead goes: `near` and `far` are the ends of the circuit under test, `plug` the contacts of the connector.

    `supply.E` is the means of earthing by itself, its conductor off the main earthing terminal (`met`).
    """

    SUPPLY_L = "supply.L"
    SUPPLY_N = "supply.N"
    SUPPLY_E = "supply.E"
    MET = "met"
    SERVICE = "service"
    MAIN_L = "main.L"
    MAIN_N = "main.N"
    NEAR_L = "near.L"
    NEAR_L2 = "near.L2"
    NEAR_N = "near.N"
    NEAR_E = "near.E"
    FAR_L = "far.L"
    FAR_L2 = "far.L2"
    FAR_L3 = "far.L3"
    FAR_N = "far.N"
    FAR_E = "far.E"
    UNIT_E = "unit.E"
    PLUG_L = "plug.L"
    PLUG_L2 = "plug.L2"
    PLUG_L3 = "plug.L3"
    PLUG_N = "plug.N"
    PLUG_E = "plug.E"
    PLUG_CP = "plug.CP"
    PLUG_PP = "plug.PP"
    ROD = "rod"
    SPIKE_P = "spike.P"
    SPIKE_C = "spike.C"
    OTHER_LEAD = "lead"


class Link(StrEnum):
    """What is linked at the board while a dead test is taken."""

    NONE = "none"
    LINE_EARTH = "line_earth"
    LINE_NEUTRAL = "line_neutral"


UNITS = {
    Shows.RESISTANCE: "Ω", Shows.INSULATION: "MΩ", Shows.VOLTAGE: "V", Shows.LOOP: "Ω", Shows.FAULT_CURRENT: "kA",
    Shows.RCD: "ms", Shows.ELECTRODE: "Ω", Shows.PILOT: "V", Shows.DUTY: "%", Shows.PROXIMITY: "Ω",
}  # fmt: skip


@dataclass(frozen=True)
class Dial:
    """One setting: `dials.toml` says what each field means."""

    key: str
    function: Function
    words: str
    shows: Shows
    test_voltage_v: int | None = None
    multiple: float = 1.0
    pulses: bool = False
    trips: bool = False

    @property
    def unit(self) -> str:
        """The unit that it shows; none where it shows no figure."""
        return UNITS.get(self.shows, "")


@cache
def dials() -> dict[str, Dial]:
    """Every setting by its key."""
    return {
        key: Dial(
            **{**entry, "key": key, "function": Function(entry["function"]), "shows": Shows(entry["shows"])},
        )
        for key, entry in read_toml(__package__, "dials").items()
    }


def dial(key: str) -> Dial:
    """One setting.

    Raises:
        TableError: there is none of that key.

    >>> dial("insulation_500").test_voltage_v
    500
    """
    found = dials().get(key)
    if found is None:
        raise TableError(f"dial: there is no setting “{key}”")
    return found
