"""Broken PEN conductor: the voltage it puts on the main earthing terminal (BS 7671 722.411.4.1)."""

from __future__ import annotations


def met_voltage_v(electrode_ohm: float, load_a: float, u0_v: float, cmax: float) -> float:
    """Voltage of the main earthing terminal to true earth when the PEN of a single-phase service opens.

    V = C·U0·RA/(RA + U0/I): the house's load as a resistance in series with the electrode.

    Args:
        electrode_ohm: RA, electrode connected to the main earthing terminal [Ω], > 0.
        load_a: load current of the house at nominal voltage [A], > 0.
        u0_v: nominal voltage to earth [V].
        cmax: voltage factor [1].

    >>> round(met_voltage_v(2.2, 40, 230, 1.1), 0)
    70.0
    """
    return cmax * u0_v * electrode_ohm / (electrode_ohm + u0_v / load_a)


def electrode_limit_ohm(load_a: float, u0_v: float, cmax: float, touch_v: float) -> float:
    """The largest electrode resistance that holds the terminal to a touch voltage.

    RA = Ut·U0/(I·(C·U0 − Ut)), the inverse of `met_voltage_v`.

    >>> round(electrode_limit_ohm(40, 230, 1.1, 70), 2)
    2.2
    """
    return touch_v * u0_v / (load_a * (cmax * u0_v - touch_v))
