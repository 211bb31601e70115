"""What an instrument makes of a true figure: each has an error of its own for each thing it measures, and a last digit."""

from __future__ import annotations

from dataclasses import dataclass, field
from random import Random

# By what is measured: ± share, ± in its unit, and the last digit. Ordinary ones as the issue gives them.
ORDINARY = {
    "continuity": (0.02, 0.02, 0.01),
    "insulation": (0.03, 0.03, 0.01),
    "electrode": (0.05, 0.5, 0.1),
    "loop": (0.05, 0.03, 0.01),
    "loop_no_trip": (0.05, 0.03, 0.01),
    "rcd": (0.02, 2.0, 0.1),
}
POOR = {key: (0.10, besides, digit) for key, (_, besides, digit) in ORDINARY.items()}
DIGITS = {"continuity": 2, "insulation": 3, "electrode": 5, "loop": 3, "loop_no_trip": 3, "rcd": 2}


@dataclass
class Set:
    """One tester's instruments: a gain of its own a function, within its sheet; digits wander from reading to reading."""

    sheet: dict[str, tuple[float, float, float]]
    chance: Random
    gains: dict[str, float] = field(default_factory=dict)
    by_volts: bool = False

    def __post_init__(self) -> None:
        self.gains = {key: self.chance.uniform(-share, share) for key, (share, _, _) in self.sheet.items()}
        self.by_volts = self.chance.random() < 0.5

    def show(self, what: str, true: float) -> float:
        """What stands on its display."""
        _, besides, digit = self.sheet[what]
        read = true * (1 + self.gains[what]) + self.chance.uniform(-besides, besides)
        return round(max(0.0, round(read / digit) * digit), 4)

    def fault_ka(self, loop_ohm: float, volts: float) -> float:
        """A fault current: the loop as it reads it, at 230 V or at the volts of the moment."""
        _, besides, _ = self.sheet["loop"]
        read = loop_ohm * (1 + self.gains["loop"]) + self.chance.uniform(-besides, besides)
        return round((volts if self.by_volts else 230.0) / max(read, 0.005) / 1000, 2)

    def within(self, what: str, true: float) -> float:
        """How far it may be off at a figure."""
        share, besides, _ = self.sheet[what]
        return share * abs(true) + besides

    def accuracies(self) -> list[dict[str, object]]:
        """Its sheet, as somebody enters it."""
        return [
            {"measures": key, "share_percent": share * 100, "digits": DIGITS[key]}
            for key, (share, _, _) in self.sheet.items()
        ]
