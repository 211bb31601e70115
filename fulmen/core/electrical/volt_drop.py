"""Volt drop from the origin to the charge point, at the conductor's real temperature (BS 7671 Appendix 4 §6)."""

from __future__ import annotations

from math import sqrt

from fulmen.core.electrical.fault_loop import conductor_ohm, temperature_factor
from fulmen.core.reference.cable_catalogue import OPERATING_C
from fulmen.core.reference.tables import table


def temperature_correction(operating_c: float, reference_c: float, factor: float, ib_a: float, it_a: float) -> float:
    """Ct, the correction for a conductor that runs cooler than its limit.

    Ct = (230 + tp − (C² − Ib²/It²)(tp − tref))/(230 + tp), with C the product of the correction factors,
    taken as 1 at most, since a place cooler than the reference must not be credited twice.

    Args:
        operating_c: tp, highest continuous conductor temperature [°C].
        reference_c: tref, 30 °C in air, 20 °C in the ground.
        factor: product of the correction factors of the section [1].
        ib_a: design current [A].
        it_a: tabulated capacity [A], > 0.

    >>> round(temperature_correction(70, 30, 1.0, 32, 47), 3)
    0.928
    """
    credited = min(factor, 1.0)
    cooler = (credited**2 - (ib_a / it_a) ** 2) * (operating_c - reference_c)
    return (230 + operating_c - cooler) / (230 + operating_c)


def millivolts_per_a_m(
    insulation: str, csa_mm2: float, phases: int = 1, *, fine_strands: bool = False, maker_mv: float | None = None
) -> float:
    """The volt drop [mV/A/m] at the insulation's operating temperature; a rounded table never flatters.

    The larger of the table's figure, or its maker's, and 2·r·1000 (√3·r·1000 on three phases), with r the hot
    resistance per metre.

    Raises:
        TableError: the table has no such size, and its maker's figure is not given.

    >>> millivolts_per_a_m("pvc_70", 10), round(millivolts_per_a_m("xlpe_90", 4, phases=3), 2)
    (4.4, 10.22)
    """
    loaded = 2 if phases == 1 else 3
    printed = table("volt_drop").at(f"{insulation}.{loaded}", csa_mm2) if maker_mv is None else maker_mv
    hot_ohm = conductor_ohm(1, csa_mm2, fine_strands=fine_strands) * temperature_factor(OPERATING_C[insulation])
    return max(printed, (2 if phases == 1 else sqrt(3)) * hot_ohm * 1000)
