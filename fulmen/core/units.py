"""The unit that the end of a name carries: ``length_m`` is in metres, ``zs_ohm`` in ohms."""

from __future__ import annotations

UNIT_OF_SUFFIX = {
    "km_per_w": "K·m/W",
    "ohm_m": "Ω·m",
    "mohm_per_m": "mΩ/m",
    "mv_per_a_m": "mV/A/m",
    "percent": "%",
    "years": "years",
    "days": "days",
    "hours": "h",
    "min": "min",
    "mohm": "MΩ",
    "ohm": "Ω",
    "mm2": "mm²",
    "mm": "mm",
    "ka": "kA",
    "ma": "mA",
    "ms": "ms",
    "a2s": "A²s",
    "kw": "kW",
    "kwh": "kWh",
    "kg": "kg",
    "m": "m",
    "a": "A",
    "v": "V",
    "c": "°C",
    "s": "s",
}


def unit_of(name: str) -> str:
    """The unit a name carries, or an empty text.

    >>> unit_of("length_m"), unit_of("title")
    ('m', '')
    """
    for suffix, unit in UNIT_OF_SUFFIX.items():
        if name == suffix or name.endswith(f"_{suffix}"):
            return unit
    return ""


def telling_decimals(value: float, limit: float, decimals: int) -> int:
    """The decimals at which a figure past its limit reads as past it: “70 °C, at most 70” would tell nothing.

    >>> telling_decimals(70.4, 70, 0), telling_decimals(71, 70, 0)
    (1, 0)
    """
    while decimals < 6 and f"{value:.{decimals}f}" == f"{limit:.{decimals}f}":
        decimals += 1
    return decimals


def words_of(name: str) -> str:
    """A name as words, without its unit.

    >>> words_of("tails_length_m")
    'tails length'
    """
    for suffix in UNIT_OF_SUFFIX:
        if name.endswith(f"_{suffix}"):
            name = name.removesuffix(f"_{suffix}")
            break
    return name.replace("_", " ")
