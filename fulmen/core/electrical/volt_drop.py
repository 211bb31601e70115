"""Volt drop from the origin to the charge point, at the conductor's real temperature (BS 7671 Appendix 4 §6)."""

from __future__ import annotations

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


def millivolts_per_a_m(insulation: str, csa_mm2: float, phases: int = 1) -> float:
    """The tabulated volt drop [mV/A/m] at the insulation's operating temperature.

    >>> millivolts_per_a_m("pvc_70", 6)
    7.3
    """
    return table("volt_drop").at(f"{insulation}.{2 if phases == 1 else 3}", csa_mm2)
