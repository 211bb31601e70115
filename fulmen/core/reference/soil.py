"""Soils by their resistivity, and what cold does to it."""

from __future__ import annotations

from functools import cache

from fulmen.core.errors import InputError
from fulmen.core.model.base import Part
from fulmen.core.reference.tables import read_toml, table


class Soil(Part):
    """One kind of soil: the range its resistivity is found in, and the figure to plan with."""

    key: str
    name: str
    least_ohm_m: float
    most_ohm_m: float
    typical_ohm_m: float


@cache
def soils() -> tuple[Soil, ...]:
    """Every soil of the data file, wettest first."""
    return tuple(Soil(key=key, **entry) for key, entry in read_toml(__package__, "soils")["soils"].items())


def soil(key: str) -> Soil:
    """The soil of this key.

    Raises:
        InputError: there is none.
    """
    found = next((one for one in soils() if one.key == key), None)
    if found is None:
        raise InputError("soil", f"There is no soil “{key[:40]}”.")
    return found


def resistivity_at(ground_c: float) -> float:
    """Resistivity of a sandy loam at a temperature [Ω·m]: the printed row at or below it, never interpolated.

    At 0 °C the frozen figure is taken, which is the safe side.

    >>> resistivity_at(10), resistivity_at(4), resistivity_at(0), resistivity_at(-3)
    (99.0, 138.0, 300.0, 790.0)
    """
    cold = table("soil_temperature")
    if ground_c > 0:
        row = max((row for row in cold.rows if row <= ground_c), default=0.0)
        return cold.at("wet", row)
    row = max((row for row in cold.rows if row <= ground_c), default=cold.rows[0])
    return cold.at("frozen", row)
