"""Whether a conductor survives the energy its device lets through (BS 7671 543.1.3 and 434.5.2)."""

from __future__ import annotations

from math import sqrt

from fulmen.core.errors import TableError
from fulmen.core.tables import table

BANDS_A = (16, 32, 40)


def let_through_a2s(curve: str, rating_a: float, fault_current_ka: float) -> tuple[float, str]:
    """Let-through energy I²t of an energy-limiting class 3 device, and the table cell used.

    Read at the next fault current up that the table prints, in the band that holds the rating.

    Raises:
        TableError: the fault current or the rating is past the table.

    >>> let_through_a2s("B", 32, 4.1)[0]
    45000.0
    """
    band = next((top for top in BANDS_A if rating_a <= top), None)
    if band is None:
        raise TableError(f"{table('let_through').name()}: no band holds {rating_a:g} A")
    energies = table("let_through")
    column = f"{curve}.{band}"
    value, row = energies.at_or_above(column, fault_current_ka)
    return value, energies.source(column, row)


def least_csa_mm2(energy_a2s: float, k: float) -> float:
    """The least conductor size that survives: S = √(I²t)/k.

    Args:
        energy_a2s: I²t [A²s], ≥ 0.
        k: material and temperature constant, 115 for copper in 70 °C, 143 in 90 °C insulation.

    >>> round(least_csa_mm2(45000, 115), 2)
    1.84
    """
    return sqrt(energy_a2s) / k
