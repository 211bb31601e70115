"""A band: where a reading is expected, as the sum of the parts that it contains.

Each part adds at least and at most so much. A part that rests on something that nobody has said yet says what to ask;
without such parts the band is narrower, and what lies between the two waits for the answer.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import ceil, floor, inf


@dataclass(frozen=True, slots=True)
class BandPart:
    """One part of what a reading contains: what it adds at least and at most; `asks` is what is to be said of it.

    An `error` may fall anywhere between its ends each time; anything else is one figure there, known or not.
    """

    words: str
    low: float
    high: float
    asks: str = ""
    error: bool = False

    @property
    def surely(self) -> tuple[float, float]:
        """The ends that hold whatever is said of it: an error may turn out none, a figure may be at either end."""
        if not self.asks:
            return self.low, self.high
        return (0.0, 0.0) if self.error else (self.high, self.low)

    @property
    def told(self) -> str:
        """What it adds, in thousandths; one figure where it is one."""
        low, high = f"{self.low:.3f}", f"{self.high:.3f}"
        if low == high:
            return low
        return f"±{high}" if abs(self.low + self.high) < 1e-9 else f"{low} to {high}"


@dataclass(frozen=True, slots=True)
class Band:
    """Where a reading is expected, and the sum that says so; `about` is what the band was laid about."""

    low: float
    high: float
    source: str
    about: float = 0.0
    parts: tuple[BandPart, ...] = ()

    @classmethod
    def of(cls, parts: Iterable[BandPart], source: str, about: float) -> Band:
        """The sum of some parts.

        >>> Band.of([BandPart("cable", 0.1, 0.1), BandPart("instrument", -0.02, 0.02)], "15 m", 0.1).high
        0.12
        """
        parts = tuple(one for one in parts if one.low or one.high)
        low, high = (sum(ends) for ends in zip(*((one.low, one.high) for one in parts), strict=True))
        return cls(max(0.0, round(low, 6)), round(high, 6), source, about, parts)

    @property
    def shown(self) -> tuple[float, float | None]:
        """Its ends as they are told, in hundredths and inwards: a figure that is told as expected is in it. None where
        it has no upper one.

        >>> Band(0.0718, 0.1118, "15 m of 6 mm²").shown
        (0.08, 0.11)
        """
        if self.high == inf:
            return ceil(self.low * 100 - 1e-7) / 100, None
        low, high = ceil(self.low * 100 - 1e-7) / 100, floor(self.high * 100 + 1e-7) / 100
        return (low, high) if low <= high else (round(self.low, 2), round(self.high, 2))

    @property
    def asks(self) -> tuple[str, ...]:
        """What is to be said before the band is what it is."""
        return tuple(dict.fromkeys(one.asks for one in self.parts if one.asks))

    def holds(self, value: float) -> bool:
        """Whether a reading lies in the band, its ends included."""
        return self.low - 1e-9 <= value <= self.high + 1e-9

    def surely_holds(self, value: float) -> bool:
        """Whether a reading lies in the band whatever is said of what is not known yet."""
        if not self.asks:
            return self.holds(value)
        low, high = (sum(ends) for ends in zip(*(one.surely for one in self.parts), strict=True))
        return bool(low - 1e-9 <= value <= high + 1e-9)

    def beyond(self, value: float) -> float:
        """How far a reading lies past the nearer end; 0 inside."""
        return max(0.0, value - self.high, self.low - value)
