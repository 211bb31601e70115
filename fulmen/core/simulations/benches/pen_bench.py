"""The broken-PEN bench: what every car body gets, which device sees it and when it opens, and what a person feels.

The person stands on true earth, which is the worst place; the body is taken as a resistance. Bands of body current
follow IEC TS 60479-1 for alternating current from hand to feet, long lasting: from memory, rounded to the safe side.
"""

from __future__ import annotations

from typing import Annotated

from fulmen.core.model.base import Part, number
from fulmen.core.model.guards import OpenPenSensing
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.simulations.benches.pen_network import House, Street, street_volts

FELT_MA = ((0.5, "nothing"), (5.0, "a tingle"), (10.0, "pain; letting go is still possible"))
GRIPPED_MA = 30.0


class Bench(Part):
    """A street to break, the voltage that stands there, the person's resistance, the car's earth, the device's time."""

    street: Street
    supply_v: Annotated[float, number(200, 260)] = 230.0
    body_ohm: Annotated[float, number(300, 10000)] = 1000.0
    car_on_own_electrode: bool = False
    opens_within_s: Annotated[float, number(0.01, 60)] = 5.0


class DeviceSees(Part):
    """One kind of device at this house: what it watches, whether that is past its limit, and when it opens."""

    sensing: OpenPenSensing
    watched_v: float
    sees: bool
    opens_s: float | None
    told: str


class BenchHouse(Part):
    """One house: its car body to true earth, line to neutral on the phases it uses, its electrode's current."""

    car_v: float
    line_neutral_v: tuple[float | None, float | None, float | None]
    electrode_a: float


class Touch(Part):
    """What a person who touches the car gets."""

    volts_v: float
    body_ma: float
    felt: str


class BenchResult(Part):
    """The whole street, what each kind of device at this house does, and the person before and after.

    `after` is with a device fitted that sees it; where neither kind does, nothing changes.
    """

    houses: tuple[BenchHouse, ...]
    devices: tuple[DeviceSees, ...]
    before: Touch
    after: Touch
    told: str


class Preset(Part):
    """A street that teaches one thing."""

    key: str
    title: str
    lesson: str
    bench: Bench


def run_bench(bench: Bench, rules: RuleSet) -> BenchResult:
    """Break the PEN and tell what happens.

    Args:
        bench: the street and the person.
        rules: the limits of the open-PEN clauses.
    """
    u0_v = rules.value("u0_v")
    volts = street_volts(bench.street, bench.supply_v, u0_v)
    here = volts[bench.street.here]
    touched = street_volts(bench.street, bench.supply_v, u0_v, bench.body_ohm)[bench.street.here]
    used = [
        [line_v if load_a else None for line_v, load_a in zip(one.line_neutral_v, house.loads_a, strict=True)]
        for one, house in zip(volts, bench.street.houses, strict=True)
    ]
    devices = (
        _met_device(here.met_v, bench, rules),
        _window_device(_own_line(bench, here.line_neutral_v), bench, rules),
    )
    before = _touch(0.0 if bench.car_on_own_electrode else touched.met_v, bench.body_ohm)
    return BenchResult(
        houses=tuple(
            BenchHouse(
                car_v=0.0 if bench.car_on_own_electrode and place == bench.street.here else one.met_v,
                line_neutral_v=(lines[0], lines[1], lines[2]),
                electrode_a=one.electrode_a,
            )
            for place, (one, lines) in enumerate(zip(volts, used, strict=True))
        ),
        devices=devices,
        before=before,
        after=_touch(0.0, bench.body_ohm) if any(device.sees for device in devices) else before,
        told=_told(bench, before, devices, rules),
    )


def _own_line(bench: Bench, line_neutral_v: tuple[float, float, float]) -> float:
    """Line to neutral where this house draws most: there the charge point is, as a single-phase house has it."""
    loads_a = bench.street.houses[bench.street.here].loads_a
    return line_neutral_v[max(range(3), key=lambda phase: loads_a[phase])]


def _met_device(met_v: float, bench: Bench, rules: RuleSet) -> DeviceSees:
    limit_v = rules.value("pen_touch_voltage_v")
    sees = met_v > limit_v
    told = f"{met_v:.0f} V on the earth terminal, {'above' if sees else 'not above'} {limit_v:g} V"
    return _device(OpenPenSensing.MET_VOLTAGE, met_v, sees=sees, told=told, bench=bench)


def _window_device(line_v: float, bench: Bench, rules: RuleSet) -> DeviceSees:
    low_v, high_v = rules.value("pen_window_low_v"), rules.value("pen_window_high_v")
    sees = not low_v <= line_v <= high_v
    told = f"{line_v:.0f} V line to neutral, {'outside' if sees else 'within'} {low_v:g} to {high_v:g} V"
    return _device(OpenPenSensing.LINE_NEUTRAL_WINDOW, line_v, sees=sees, told=told, bench=bench)


def _device(sensing: OpenPenSensing, watched_v: float, *, sees: bool, told: str, bench: Bench) -> DeviceSees:
    opens_s = bench.opens_within_s if sees else None
    return DeviceSees(sensing=sensing, watched_v=watched_v, sees=sees, opens_s=opens_s, told=told)


def _touch(volts_v: float, body_ohm: float) -> Touch:
    body_ma = volts_v / body_ohm * 1000
    felt = next((words for below_ma, words in FELT_MA if body_ma < below_ma), "")
    if not felt:
        felt = "muscles grip; the hand can't let go" if body_ma < GRIPPED_MA else "danger to life: the heart can stop"
    return Touch(volts_v=volts_v, body_ma=body_ma, felt=felt)


def _told(bench: Bench, before: Touch, devices: tuple[DeviceSees, ...], rules: RuleSet) -> str:
    """The bench in one sentence."""
    if bench.car_on_own_electrode:
        return "The car stands on its own electrode: whatever the PEN does, its body stays at earth."
    if bench.street.broken == "nowhere":
        return f"The PEN is whole: {before.volts_v:.0f} V on the car."
    limit_v = rules.value("pen_touch_voltage_v")
    if before.volts_v <= limit_v:
        told = f"A hand on the car gets {before.volts_v:.0f} V, not above {limit_v:g} V"
        harms = before.body_ma >= FELT_MA[-1][0]
        return f"{told}: the standard accepts it" + ("; on wet skin it is dangerous all the same." if harms else ".")
    seen = [device.sees for device in devices]
    if all(seen):
        return f"A hand on the car gets {before.volts_v:.0f} V; either kind of device sees it."
    if not any(seen):
        return f"A hand on the car gets {before.volts_v:.0f} V, and no device sees it."
    watched = ("the earth terminal", "line and neutral")
    sees, misses = watched if seen[0] else watched[::-1]
    gets = f"A hand on the car gets {before.volts_v:.0f} V"
    return f"{gets}; a device that watches {sees} sees it, one on {misses} does not."


def presets() -> tuple[Preset, ...]:
    """Streets that teach; every figure is invented."""
    night, evening = House(loads_a=(0.9, 0.0, 0.0)), House(loads_a=(40.0, 0.0, 0.0))
    rods = {ohm: evening.model_copy(update={"electrode_ohm": ohm}) for ohm in (32.0, 2.0)}
    fooled = tuple(_on_phase(phase, load_a) for phase, load_a in enumerate((20.0, 30.0, 2.0)))
    amps = (12.0, 9.0, 15.0, 6.0, 20.0, 3.0, 8.0, 14.0, 5.0)
    row = tuple(_on_phase(place % 3, load_a) for place, load_a in enumerate(amps))
    lessons = {
        "night": "Even a fridge and a clock put almost the whole line voltage on the car.",
        "rod_32": "A good garden rod hardly helps: it can't hold what the house draws.",
        "rod_2": "Only a very low electrode holds the car below 70 V. It is rarely had.",
        "fooled": "The neutral shifts across this phase: line to neutral looks right while the car is live.",
        "row": "All past the break share one floating neutral: light phases get too much, cars get the shift.",
        "whole": "What it looks like on any other day.",
    }
    made = {
        "night": ("Light load at night, no electrode", (night,), "service", 0, 0),
        "rod_32": ("Evening load, a 32 Ω rod", (rods[32.0],), "service", 0, 0),
        "rod_2": ("Evening load, a 2 Ω rod", (rods[2.0],), "service", 0, 0),
        "fooled": ("A broken main that fools an L–N window", fooled, "main", 0, 0),
        "row": ("A row of nine, the main broken at the fourth", row, "main", 4, 3),
        "whole": ("The same row, PEN whole", row, "nowhere", 4, 0),
    }
    return tuple(
        Preset(key=key, title=title, lesson=lessons[key], bench=_bench(houses, broken, here, before))
        for key, (title, houses, broken, here, before) in made.items()
    )


def _on_phase(phase: int, load_a: float) -> House:
    loads = [load_a if each == phase else 0.0 for each in range(3)]
    return House(loads_a=(loads[0], loads[1], loads[2]))


def _bench(houses: tuple[House, ...], broken: str, here: int, broken_before: int) -> Bench:
    entries = [one.model_dump() for one in houses]
    street = {"houses": entries, "broken": broken, "here": here, "broken_before": broken_before}
    return Bench(street=Street.model_validate(street))
