"""One round of tests at a house: what is true at every step, and what the tester writes down."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from math import inf
from random import Random
from typing import Any

from tests.independent.house import House
from tests.independent.instruments import Set
from tests.independent.physics import between

BEGUN = datetime(2026, 11, 26, 8, 30, tzinfo=UTC)
TOP = {
    "continuity": 19.99,
    "insulation": 999.0,
    "loop": 1999.0,
    "loop_no_trip": 1999.0,
    "electrode": 1999.0,
    "rcd": 1999.0,
}
Reading = dict[str, Any]
Key = tuple[str, str]


@dataclass
class Asked:
    """One step as the product asks for it: its key and subject, the kind, and where the mark of its RCD stands."""

    step: str
    subject: str
    kind: str
    guard: str
    unit: str


@dataclass
class Unit:
    """What a charge point does: pilots, duty, what its guards do; right until a fault says otherwise."""

    volts: dict[str, float]
    duty: float
    proximity: float
    earth_open_ms: float
    detects_ma: float
    wrong: set[str] = field(default_factory=set)


@dataclass
class Breaker:
    """An RCD's times at once and five times its current [ms]; blind to pulses, or to everything."""

    one: float
    five: float
    blind: bool = False
    dead: bool = False
    delayed: bool = False


@dataclass
class Site:
    """A house with its units and RCDs, by subject."""

    house: House
    units: dict[str, Unit]
    rcds: dict[str, Breaker]
    lead_ohm: float = 0.0
    wrong: set[Key] = field(default_factory=set)


def site(house: House, steps: Iterable[Asked], chance: Random) -> Site:
    """The parts of a house that do something, as they are when nothing is wrong."""
    points = {one["id"]: one for one in house.job["charge_points"]}
    fed = {run.id: points[run.feeds] for run in house.runs.values() if run.feeds in points}
    rcds = {one.subject: _breaker(house, one, chance) for one in steps if one.guard}
    units = {}
    for circuit, point in fed.items():
        set_a = point["set_current_a"] or point["max_current_a"] or 32.0
        units[circuit] = Unit(
            volts={
                "pilot_a": chance.uniform(11.5, 12.5),
                "pilot_b": chance.uniform(8.5, 9.5),
                "pilot_c": chance.uniform(5.5, 6.5),
            },
            # IEC 61851-1: a duty of so many per cent offers 0.6 A each.
            duty=set_a / 0.6 + chance.uniform(-0.5, 0.5),
            proximity={True: 220.0, False: 680.0}[set_a > 20] * chance.uniform(0.97, 1.03),
            earth_open_ms=chance.uniform(15, 90),
            detects_ma=chance.uniform(3.6, 5.8),
        )
    return Site(house, units, rcds)


def _breaker(house: House, asked: Asked, chance: Random) -> Breaker:
    mark: Any = house.job
    for name in asked.guard.split("."):
        mark = mark[int(name)] if isinstance(mark, list) else mark[name]
    mark = mark.get("rcd", mark) if isinstance(mark, dict) else {}
    if mark and mark.get("time_delayed"):
        return Breaker(chance.uniform(150, 420), chance.uniform(60, 140), delayed=True)
    one = chance.uniform(17, 45)
    return Breaker(one, one * chance.uniform(0.3, 0.6))


def truth(place: Site, steps: Iterable[Asked]) -> dict[Key, tuple[str, float]]:
    """What each step with a figure would show on a perfect instrument, and what measures it."""
    found = {}
    for one in steps:
        true = _true(place, one)
        if true is not None:
            found[one.step, one.subject] = true
    return found


LINKED = {"r1_r2": ("LE", "L1", "E1"), "r1_rn": ("LN", "L1", "N1"), "r2": ("", "E0", "E1")}


def _true(place: Site, asked: Asked) -> tuple[str, float] | None:
    house, step = place.house, asked.step
    run = house.cable(asked.subject)
    if step in LINKED and run is not None:
        link, a, b = LINKED[step]
        return "continuity", house.dead(run, link, f"{run.id}.{a}", f"{run.id}.{b}") + place.lead_ohm
    if step.startswith("ir_") and run is not None:
        return "insulation", _insulation(run.mohm, step)
    if step in ("zs", "zs_cable") and run is not None:
        to_car = step == "zs" and run.feeds in house.leads
        a, b = (f"{run.feeds}.L", f"{run.feeds}.E") if to_car else (f"{run.id}.L1", f"{run.id}.E1")
        return "loop_no_trip", house.loop(a, b)
    if step.startswith("rcd_") and asked.kind == "figure":
        return "rcd", _time(place.rcds[asked.subject], step)
    if step == "connector_earth" and run is not None:
        return "continuity", house.leads[run.feeds][1] + place.lead_ohm
    return _at_origin(place, asked)


def _at_origin(place: Site, asked: Asked) -> tuple[str, float] | None:
    house, step = place.house, asked.step
    if step == "earthing_conductor":
        return "continuity", (inf if house.earthing_off else house.earthing) + place.lead_ohm
    if step == "main_bonding":
        return "continuity", (inf if house.bond_off else house.bond) + place.lead_ohm
    if step == "ze":
        return "loop", between(house.supply(), "cut.L", "means")
    if step == "fault_current_neutral":
        return "current", house.loop("cut.L", "cut.N")
    if step == "fault_current_earth":
        return "current", house.loop("cut.L", "met")
    if step == "electrode":
        car = house.runs[asked.subject].feeds if asked.subject in house.runs else ""
        ohm = house.car_rods[car] if car else house.rod
        return ("electrode", ohm) if ohm is not None else None
    return None


def _insulation(mohm: dict[str, float], step: str) -> float:
    pairs = {
        "ir_line_neutral": ("LN",), "ir_live_earth": ("LE", "NE"), "ir_line_earth": ("LE",), "ir_neutral_earth": ("NE",),
        "ir_line_line": ("LL",), "ir_earths": ("EE",),
    }[step]  # fmt: skip
    return 1 / sum(1 / max(mohm.get(pair, 4000.0), 1e-4) for pair in pairs)


def _time(rcd: Breaker, step: str) -> float:
    if rcd.dead or (rcd.blind and "pulse" in step):
        return inf
    return rcd.five if "five" in step else rcd.one


def _fault_of(house: House, subject: str) -> str:
    """The circuit whose faults show at a subject: of a parted cable those are in its last part."""
    whole = house.circuit(subject)
    return whole if whole == subject or subject == list(house.runs[whole].shares)[-1] else subject


@dataclass
class Tester:
    """Who tests: a set of instruments, what is told of the day, an order of their own."""

    tools: Set
    chance: Random
    told_c: float
    name: str = "A. Tester"

    def write(self, place: Site, steps: list[Asked]) -> list[Reading]:
        """Every step as it is written down."""
        true, found = truth(place, steps), []
        at = BEGUN
        for one in steps:
            at += timedelta(seconds=self.chance.randint(25, 160))
            found.append(self._reading(place, one, true.get((one.step, one.subject)), at))
        return found

    def _reading(self, place: Site, one: Asked, true: tuple[str, float] | None, at: datetime) -> Reading:
        base: Reading = {
            "step": one.step, "subject": one.subject, "outcome": "right", "value": None, "taken_by": self.name,
            "taken_at": at.isoformat(), "instrument": "Own tester",
        }  # fmt: skip
        if one.step.startswith("ir_"):
            base["test_voltage_v"] = 500
        if one.step in LINKED:
            base["temperature_c"] = self.told_c
        if {(one.step, _fault_of(place.house, one.subject)), (one.step, "")} & place.wrong:
            return {**base, "outcome": "wrong", "reason": "found so"}
        if true is not None:
            return {**base, **self._shown(*true)}
        unit = place.units.get(one.subject)
        return {**base, **(self._of_unit(unit, one.step) if unit is not None else {})}

    def _shown(self, what: str, true: float) -> Reading:
        if what == "current":
            return {
                "outcome": "measured",
                "value": self.tools.fault_ka(true, self.chance.uniform(222, 248)) if true < inf else 0.0,
            }
        if true > TOP[what]:
            return {"outcome": "over_range", "value": TOP[what]}
        return {"outcome": "measured", "value": self.tools.show(what, true)}

    def _of_unit(self, unit: Unit, step: str) -> Reading:
        if step in unit.wrong:
            return {"outcome": "wrong", "reason": "found so"}
        figures = {
            **{key: round(volts, 1) for key, volts in unit.volts.items()},
            "pilot_duty": round(unit.duty, 1), "proximity": round(unit.proximity), "earth_open": round(unit.earth_open_ms),
            "dc_detection": round(unit.detects_ma, 1),
        }  # fmt: skip
        return {"outcome": "measured", "value": figures[step]} if step in figures else {}
