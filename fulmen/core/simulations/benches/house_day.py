"""A plausible house, minute by minute from noon to noon: synthetic habits of our own, seeded and repeatable.

Every appliance follows a habit of its kind; none draws more than its rating. The figures are invented, for showing
how a load limit behaves; they are no measurement of any house.
"""

from __future__ import annotations

from collections.abc import Callable
from random import Random
from typing import NamedTuple

from fulmen.core.demand.diversity import appliance_a
from fulmen.core.model.day import ChargingDay, Season
from fulmen.core.model.load import Appliance, LoadKind

MINUTES = 1440
NOON = 720
USUAL_HOUSE = (
    Appliance(kind=LoadKind.LIGHTING, rating_a=6),
    Appliance(kind=LoadKind.SOCKETS, rating_a=32),
    Appliance(kind=LoadKind.SOCKETS, rating_a=32),
    Appliance(kind=LoadKind.COOKER, rating_kw=10),
    Appliance(kind=LoadKind.SHOWER, rating_kw=9.5),
)


class Timeline:
    """Current of one appliance over the day; times are clock minutes, the day runs from noon to noon."""

    def __init__(self, rating_a: float, random: Random) -> None:
        self.amps = [0.0] * MINUTES
        self.rating_a = rating_a
        self.random = random

    def run(self, clock_min: float, minutes: float, share: float) -> None:
        """Draw a share of the rating for some minutes from a clock time on, never more than the rating."""
        start = (round(clock_min) - NOON) % MINUTES
        for minute in range(start, min(start + round(minutes), MINUTES)):
            self.amps[minute] = min(self.rating_a, self.amps[minute] + share * self.rating_a)

    def cycle(self, from_min: float, minutes: float, duty: float, period_min: float = 20) -> None:
        """A thermostat: full on for a share of each period."""
        offset = self.random.uniform(0, period_min)
        for start in range(0, round(minutes), round(period_min)):
            self.run(from_min + start + offset * 0.3, duty * period_min, 1.0)

    def about(self, clock_min: float, spread_min: float) -> float:
        """A time around another."""
        return clock_min + self.random.uniform(-spread_min, spread_min)


class DayKind(NamedTuple):
    """What kind of day it is."""

    winter: bool
    weekend: bool


def house_minutes(appliances: tuple[Appliance, ...], day: ChargingDay, u0_v: float) -> list[float]:
    """Current of the whole house for each minute from noon to noon.

    Args:
        appliances: what is there; a usual house where the list is empty.
        day: season, weekend and seed.
        u0_v: nominal voltage [V].

    Returns:
        1440 currents [A].
    """
    total = [0.0] * MINUTES
    for index, appliance in enumerate(appliances or USUAL_HOUSE):
        line = Timeline(appliance_a(appliance, u0_v), Random(f"{day.seed}/{index}/{appliance.kind.value}"))
        HABITS[appliance.kind](line, DayKind(winter=day.season is Season.WINTER, weekend=day.weekend))
        total = [sum_a + amps for sum_a, amps in zip(total, line.amps, strict=True)]
    return total


def _lighting(line: Timeline, day: DayKind) -> None:
    line.run(line.about(17 * 60 if day.winter else 21 * 60, 20), 360 if day.winter else 120, 0.35)
    if day.winter:
        line.run(line.about(7 * 60, 20), 90, 0.3)


def _sockets(line: Timeline, day: DayKind) -> None:
    line.run(12 * 60, MINUTES, 0.03)
    line.run(line.about(18 * 60, 30), 280, 0.05)
    for clock in (7, 8, 13, 17, 20, 21):
        line.run(line.about(clock * 60, 25), 3, 0.38)
    if day.weekend or line.random.random() < 0.5:
        line.run(line.about(10 * 60 if day.weekend else 19 * 60, 60), 25, 0.28)
    if day.winter and line.random.random() < 0.6:
        line.run(line.about(20 * 60, 60), 50, 0.3)


def _cooker(line: Timeline, day: DayKind) -> None:
    dinner = line.about(18 * 60, 30)
    line.run(dinner, 12, 0.65)
    line.cycle(dinner + 12, 40, 0.45, 8)
    if day.weekend:
        line.run(line.about(13 * 60, 30), 30, 0.45)
        line.run(line.about(9 * 60 + 30, 20), 15, 0.25)


def _shower(line: Timeline, day: DayKind) -> None:
    morning = 9 * 60 if day.weekend else 7 * 60
    for place in range(3 if day.weekend else 2):
        line.run(line.about(morning + 20 * place, 8), line.random.uniform(5, 9), 1.0)
    if line.random.random() < 0.7:
        line.run(line.about(21 * 60, 60), line.random.uniform(6, 11), 1.0)


def _water_heater(line: Timeline, day: DayKind) -> None:
    line.run(line.about(5 * 60, 15), 110 if day.winter else 80, 1.0)
    line.cycle(17 * 60, 60, 0.4)


def _heating(line: Timeline, day: DayKind) -> None:
    if day.winter:
        line.cycle(line.about(6 * 60 + 30, 20), 120, 0.7)
        line.cycle(line.about((12 if day.weekend else 16) * 60 + 30, 20), 300, 0.55)


def _storage_heating(line: Timeline, day: DayKind) -> None:
    if day.winter:
        line.run(30, 270, 1.0)
        line.cycle(5 * 60, 120, 0.5)


def _heat_pump(line: Timeline, day: DayKind) -> None:
    if day.winter:
        line.cycle(12 * 60, MINUTES - 30, 0.55, 45)
    line.run(line.about(14 * 60, 30), 50, 0.6)


def _car(line: Timeline, day: DayKind) -> None:
    line.run(30 + line.random.uniform(0, 10), 180, 1.0)


def _other(line: Timeline, day: DayKind) -> None:
    line.cycle(line.about(18 * 60, 30), 200, 0.45)


HABITS: dict[LoadKind, Callable[[Timeline, DayKind], None]] = {
    LoadKind.LIGHTING: _lighting,
    LoadKind.SOCKETS: _sockets,
    LoadKind.COOKER: _cooker,
    LoadKind.SHOWER: _shower,
    LoadKind.WATER_HEATER: _water_heater,
    LoadKind.HEATING: _heating,
    LoadKind.FLOOR_HEATING: _heating,
    LoadKind.STORAGE_HEATING: _storage_heating,
    LoadKind.HEAT_PUMP: _heat_pump,
    LoadKind.CAR: _car,
    LoadKind.OTHER: _other,
}
