"""Broken PEN conductor: the voltage it puts on the main earthing terminal (BS 7671 722.411.4.1)."""

from __future__ import annotations

from cmath import exp, pi
from collections.abc import Sequence
from itertools import combinations

Lines = tuple[float, float, float]


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


def balanced_met_v(loads_a: Lines, line_v: float) -> float:
    """Voltage of the earth terminal when the PEN of a three-phase service opens and no electrode holds it [V].

    V = |ΣUk·Ik|/ΣIk (Millman), loads as resistances; without any load the terminal floats at a line's voltage.

    Args:
        loads_a: load on each line conductor at nominal voltage [A], ≥ 0.
        line_v: a line's voltage to earth, voltage factor included [V].

    >>> round(balanced_met_v((42, 10, 10), 253), 1), round(balanced_met_v((7, 7, 7), 253), 6)
    (130.6, 0.0)
    """
    total_a = sum(loads_a)
    if not total_a:
        return line_v
    return abs(sum(load * line_v * exp(-2j * pi * line / 3) for line, load in enumerate(loads_a))) / total_a


def worst_balance(least_a: Lines, cars_a: Sequence[Lines], line_v: float) -> tuple[float, int]:
    """The highest such voltage with any of the cars charging beside the least load, or none; and how many charge then.

    Args:
        least_a: load that is always on, on each line conductor [A].
        cars_a: what each charge point draws on each line conductor [A].
        line_v: a line's voltage to earth, voltage factor included [V].
    """
    worst = (balanced_met_v(least_a, line_v), 0)
    for number in range(1, len(cars_a) + 1):
        for charging in combinations(cars_a, number):
            first, second, third = (sum(on) for on in zip(least_a, *charging, strict=True))
            worst = max(worst, (balanced_met_v((first, second, third), line_v), number))
    return worst
