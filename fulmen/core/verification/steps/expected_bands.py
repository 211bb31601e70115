"""Do the readings agree? Bands within which two figures of the same copper should lie.

The width of the bands is common practice, no source: the larger of 0.02 Ω and a tenth.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import ceil, floor

from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.electrical.fault_loop import temperature_factor
from fulmen.core.reference.rule_set import RuleSet


@dataclass(frozen=True)
class Band:
    """Where a reading is expected, and the sum that says so; `about` is what the band was laid about."""

    low: float
    high: float
    source: str
    about: float = 0.0

    @property
    def shown(self) -> tuple[float, float]:
        """Its ends as they are told, in hundredths and inwards: a figure that is told as expected is in it.

        >>> Band(0.0718, 0.1118, "15 m of 6 mm²").shown
        (0.08, 0.11)
        """
        low, high = ceil(self.low * 100 - 1e-7) / 100, floor(self.high * 100 + 1e-7) / 100
        return (low, high) if low <= high else (round(self.low, 2), round(self.high, 2))

    def holds(self, value: float) -> bool:
        """Whether a reading lies in the band, its ends included."""
        return self.low - 1e-9 <= value <= self.high + 1e-9


def band_around(value: float, rules: RuleSet, source: str, low: float | None = None) -> Band:
    """The band around an expected resistance [Ω]; `low` replaces its lower end's centre where given.

    >>> from fulmen.core.reference.rule_set import rule_set
    >>> band_around(0.09, rule_set(), "15 m of 6 mm²").high
    0.11
    """
    allowed = max(rules.value("agreement_ohm"), rules.value("agreement_share") * value)
    floor = value if low is None else low
    allowed_below = max(rules.value("agreement_ohm"), rules.value("agreement_share") * floor)
    return Band(round(max(0.0, floor - allowed_below), 6), round(value + allowed, 6), source, value)


def r1_r2_band(figures: CircuitFigures, rules: RuleSet, conductor_c: float | None) -> Band:
    """Where R1+R2 should lie from the route's length and size; armour beside the core may lower it."""
    factor = 1.0 if conductor_c is None else temperature_factor(conductor_c)
    expected = (figures.laid.r1_ohm + figures.laid.r2_ohm) * factor
    low = None
    least_r2 = figures.laid.least_r2_ohm
    if least_r2 < figures.laid.r2_ohm:
        low = (figures.laid.r1_ohm + least_r2) * factor
    source = f"{figures.laid.cable_m:.1f} m of {_size(figures)} mm²"
    if conductor_c is not None:
        source += f" at {conductor_c:g} °C"
    return band_around(expected, rules, source + (", armour beside the core" if low else ""), low)


def r1_rn_band(figures: CircuitFigures, rules: RuleSet, conductor_c: float | None) -> Band:
    """Where R1+Rn should lie: line and neutral are the same size."""
    factor = 1.0 if conductor_c is None else temperature_factor(conductor_c)
    sizes = _in_turn(f"{one.cable.csa_mm2:g}" for one in figures.sections)
    return band_around(2 * figures.laid.r1_ohm * factor, rules, f"{figures.laid.cable_m:.1f} m of {sizes} mm²")


def r2_band(figures: CircuitFigures, rules: RuleSet, conductor_c: float | None) -> Band:
    """Where R2 by the long lead should lie; armour beside the core may lower it."""
    factor = 1.0 if conductor_c is None else temperature_factor(conductor_c)
    least_ohm = figures.laid.least_r2_ohm * factor
    low = least_ohm if figures.laid.least_r2_ohm < figures.laid.r2_ohm else None
    source = f"{figures.laid.cable_m:.1f} m of {_size(figures)} mm²"
    return band_around(figures.laid.r2_ohm * factor, rules, source, low)


def zs_band(ze_ohm: float, r1_r2_ohm: float, rules: RuleSet, source: str) -> Band:
    """Where the measured Zs should lie: Ze and tails + (R1+R2), all cold."""
    return band_around(ze_ohm + r1_r2_ohm, rules, source)


def _size(figures: CircuitFigures) -> str:
    return _in_turn(
        f"{one.cable.csa_mm2:g}"
        if one.cable.csa_mm2 == one.metre.cpc_mm2
        else f"{one.cable.csa_mm2:g}/{one.metre.cpc_mm2:g}"
        for one in figures.sections
    )


def _in_turn(sizes: Iterable[str]) -> str:
    """Each size once, as met on the way."""
    return " and ".join(dict.fromkeys(sizes))
