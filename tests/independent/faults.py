"""What is planted, one at a time: faults of the house, of the unit, and slips of who tests; written before any run.

`caught` names the rules whose finding names the reading, the pair or the place; nothing else counts. A fault of the
house whose effect on every figure is within the instrument's own error there is counted apart.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from random import Random
from typing import Any

from tests.independent.physics import FLAT_EARTH, SOLID
from tests.independent.round import BEGUN, Reading, Site

Plant = Callable[[Site, str, Random], bool]
Slip = Callable[[list[Reading], str, Random], bool]
DEAD = ("agree_r1_r2", "agree_r1_rn", "agree_rn_r2", "agree_r2", "reading_r1_r2", "reading_r1_rn", "reading_r2")
LIVE = ("agree_zs", "agree_zs_cable", "agree_zs_chain", "reading_zs", "reading_zs_cable")
IR = (
    "reading_ir_live_earth",
    "reading_ir_line_neutral",
    "reading_ir_line_earth",
    "reading_ir_neutral_earth",
    "agree_insulation",
    "cant_be",
)
RCD = ("reading_rcd", "agree_rcd_five", "agree_rcd_kind")
ORIGIN = ("reading_ze", "agree_ze", "agree_ze_kind", "agree_fault", "reading_fault", "agree_electrode_ze", "cant_be")


@dataclass(frozen=True)
class Kind:
    """One kind: its name, the rules that name it, and what plants it in a house or in what was written down."""

    name: str
    caught: tuple[str, ...]
    plant: Plant | None = None
    slip: Slip | None = None
    register: dict[str, Any] | None = None
    where: str = ""


def _joint(conductor: str, least: float, most: float) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        place.house.runs[circuit].joints[conductor] += chance.uniform(least, most)
        return True

    return plant


def _scaled(*conductors: str, least: float, most: float) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        run, times = place.house.runs[circuit], chance.uniform(least, most)
        for one in conductors:
            setattr(run, one, getattr(run, one) * times)
        if run.armour is not None and len(conductors) == 3:
            run.armour *= times
        return True

    return plant


def _thinner(place: Site, circuit: str, chance: Random) -> bool:
    """The next size down was on the drum."""
    of = next(one for one in place.house.job["circuits"] if one["id"] == circuit)["cable"]["csa_mm2"]
    smaller = [size for size in SOLID if size < of]
    run, times = place.house.runs[circuit], SOLID[max(smaller)] / SOLID[of]
    run.line, run.neutral, run.earth = run.line * times, run.neutral * times, run.earth * times
    return True


def _thin_earth(place: Site, circuit: str, chance: Random) -> bool:
    """Flat cable with its small earth, where one with a full core was drawn."""
    of = next(one for one in place.house.job["circuits"] if one["id"] == circuit)["cable"]
    if of["record"] == "twin-and-earth" or of["csa_mm2"] not in FLAT_EARTH:
        return False
    run = place.house.runs[circuit]
    run.earth *= SOLID[FLAT_EARTH[of["csa_mm2"]]] / SOLID[of["csa_mm2"]]
    run.armour = None
    return True


def _crossed(pair: str) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        place.house.runs[circuit].crossed = pair
        place.wrong.add(("polarity_dead", circuit))
        return True

    return plant


def _open(conductor: str) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        run = place.house.runs[circuit]
        run.open.add(conductor)
        if conductor == "E":
            run.armour = None
        return True

    return plant


def _mohm(pairs: tuple[str, ...], least: float, most: float) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        value = chance.uniform(least, most)
        place.house.runs[circuit].mohm |= {pair: value * len(pairs) for pair in pairs}
        return True

    return plant


def _terminal(place: Site, circuit: str, chance: Random) -> bool:
    place.house.runs[circuit].terminal += chance.uniform(0.15, 1.0)
    return True


def _beside(place: Site, circuit: str, chance: Random) -> bool:
    run = place.house.runs[circuit]
    run.beside, run.armour = max(0.002, run.earth * chance.uniform(0.02, 0.15)), None
    return True


def _of_house(name: str, least: float, most: float) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        setattr(place.house, name, getattr(place.house, name) + chance.uniform(least, most))
        return True

    return plant


def _high_ze(place: Site, circuit: str, chance: Random) -> bool:
    """The operator's earth is poor: on a sheath that has come loose, or a PEN that is going."""
    if place.house.kind == "tt":
        return False
    if place.house.kind == "tn_c_s":
        place.house.back += chance.uniform(0.5, 3.0)
    else:
        place.house.earth += chance.uniform(1.0, 5.0)
    return True


def _broken_pen(place: Site, circuit: str, chance: Random) -> bool:
    if place.house.kind != "tn_c_s":
        return False
    place.house.back += chance.uniform(20, 150)
    return True


def _poor_neutral(place: Site, circuit: str, chance: Random) -> bool:
    if place.house.kind == "tn_c_s":
        return False
    place.house.neutral_lost = chance.uniform(0.8, 4.0)
    return True


def _flag(name: str) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        setattr(place.house, name, True)
        return True

    return plant


def _reversed(place: Site, circuit: str, chance: Random) -> bool:
    place.wrong.add(("polarity_live", "origin"))
    return True


def _lead_part(part: int, least: float, most: float) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        point = place.house.runs[circuit].feeds
        if point not in place.house.leads:
            return False
        lead = list(place.house.leads[point])
        lead[part] += chance.uniform(least, most)
        place.house.leads[point] = (lead[0], lead[1])
        return point not in place.house.car_rods

    return plant


def _rcd(**changed: Any) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        rcd = place.rcds.get(circuit)
        if rcd is None or rcd.delayed:
            return False
        for name, value in changed.items():
            setattr(rcd, name, chance.uniform(*value) if isinstance(value, tuple) else value)
        return True

    return plant


def _blind(place: Site, circuit: str, chance: Random) -> bool:
    return place.house.job["testing"]["rcd_school"] == "twelve" and _rcd(blind=True)(place, circuit, chance)


def _wrong(step: str) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        place.wrong.add((step, ""))
        return True

    return plant


def _unit(name: str, change: Callable[[float, Random], float]) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        unit = place.units.get(circuit)
        if unit is None:
            return False
        if name in unit.volts:
            unit.volts[name] = change(unit.volts[name], chance)
        else:
            setattr(unit, name, change(getattr(unit, name), chance))
        return True

    return plant


def _rod(change: Callable[[float, Random], float]) -> Plant:
    def plant(place: Site, circuit: str, chance: Random) -> bool:
        house = place.house
        if house.rod is None:
            return False
        house.rod = change(house.rod, chance)
        return True

    return plant


def _earths_joined(place: Site, circuit: str, chance: Random) -> bool:
    if place.house.runs[circuit].feeds not in place.house.car_rods:
        return False
    place.house.joined = chance.uniform(0.02, 1.5)
    place.house.runs[circuit].mohm["EE"] = 0.0
    return True


def _not_nulled(place: Site, circuit: str, chance: Random) -> bool:
    place.lead_ohm = chance.uniform(0.1, 0.35)
    return True


def _over_nulled(place: Site, circuit: str, chance: Random) -> bool:
    place.lead_ohm = -chance.uniform(0.08, 0.2)
    return True


def _of(readings: list[Reading], step: str, circuit: str) -> Reading | None:
    return next((one for one in readings if one["step"] == step and one["subject"] in (circuit, "origin") and one["value"] is not None), None)  # fmt: skip


def _change(step: str, change: Callable[[float, Random], float], **others: Any) -> Slip:
    def slip(readings: list[Reading], circuit: str, chance: Random) -> bool:
        found = _of(readings, step, circuit)
        if found is None or found["outcome"] != "measured":
            return False
        found["value"] = round(change(found["value"], chance), 4)
        found.update(others)
        return True

    return slip


def _swap(one_step: str, other_step: str, least_times: float = 1.4) -> Slip:
    def slip(readings: list[Reading], circuit: str, chance: Random) -> bool:
        one, other = _of(readings, one_step, circuit), _of(readings, other_step, circuit)
        if one is None or other is None or "over_range" in (one["outcome"], other["outcome"]):
            return False
        if max(one["value"], other["value"]) < least_times * max(0.01, min(one["value"], other["value"])):
            return False
        one["value"], other["value"] = other["value"], one["value"]
        return True

    return slip


def _copied(step: str, from_step: str) -> Slip:
    def slip(readings: list[Reading], circuit: str, chance: Random) -> bool:
        one, other = _of(readings, step, circuit), _of(readings, from_step, circuit)
        # A short cable's loop is the supply's: only where it is more does the slip show at all.
        if one is None or other is None or one["value"] < 1.2 * other["value"] + 0.2:
            return False
        one["value"] = other["value"]
        return True

    return slip


def _another_row(readings: list[Reading], circuit: str, chance: Random) -> bool:
    steps = ("r1_r2", "r1_rn", "zs", "ir_live_earth", "ir_line_neutral")
    others = sorted({one["subject"] for one in readings if one["step"] == "r1_r2"} - {circuit})
    if not others:
        return False
    for step in steps:
        one = next((here for here in readings if (here["step"], here["subject"]) == (step, circuit)), None)
        two = next((here for here in readings if (here["step"], here["subject"]) == (step, others[0])), None)
        if one is not None and two is not None:
            one["value"], one["outcome"] = two["value"], two["outcome"]
    return True


def _all_at_once(readings: list[Reading], circuit: str, chance: Random) -> bool:
    for one in readings:
        one["taken_at"] = BEGUN.isoformat()
    return True


def _later(step: str, hours: int) -> Slip:
    def slip(readings: list[Reading], circuit: str, chance: Random) -> bool:
        for one in readings:
            if one["step"] == step:
                one["taken_at"] = (datetime.fromisoformat(one["taken_at"]) + timedelta(hours=hours)).isoformat()
        return True

    return slip


def _warm(readings: list[Reading], circuit: str, chance: Random) -> bool:
    for one in readings:
        if "temperature_c" in one:
            one["temperature_c"] = chance.uniform(45, 60)
    return True


def _at_250(readings: list[Reading], circuit: str, chance: Random) -> bool:
    for one in readings:
        if one["step"].startswith("ir_"):
            one["test_voltage_v"] = 250
    return True


def _times(factor: float) -> Callable[[float, Random], float]:
    return lambda value, chance: value * factor


def _between(least: float, most: float) -> Callable[[float, Random], float]:
    return lambda value, chance: chance.uniform(least, most)


POLARITY = ("reading_polarity_dead",)
KINDS = (
    Kind("line joint", DEAD, _joint("L", 0.06, 0.6)),
    Kind("neutral joint", DEAD, _joint("N", 0.06, 0.6)),
    Kind("earth joint", DEAD, _joint("E", 0.06, 1.0)),
    Kind("longer cable", (*DEAD, *LIVE), _scaled("line", "neutral", "earth", least=1.6, most=2.5)),
    Kind("shorter cable", (*DEAD, *LIVE), _scaled("line", "neutral", "earth", least=0.2, most=0.5)),
    Kind("next size down", (*DEAD, *LIVE), _thinner),
    Kind("small earth", (*DEAD, *LIVE), _thin_earth),
    Kind("line and neutral crossed", (*POLARITY, *DEAD), _crossed("LN")),
    Kind("line and earth crossed", (*POLARITY, *DEAD), _crossed("LE")),
    Kind("neutral and earth crossed", (*POLARITY, *DEAD), _crossed("NE")),
    Kind("no earth", DEAD, _open("E")),
    Kind("no neutral", DEAD, _open("N")),
    Kind("no line", DEAD, _open("L")),
    Kind("neutral touches earth", IR, _mohm(("NE",), 0.0, 0.02)),
    Kind("line nicked to earth", IR, _mohm(("LE",), 0.005, 0.9)),
    Kind("line nicked to neutral", IR, _mohm(("LN",), 0.005, 0.9)),
    Kind("wet throughout", IR, _mohm(("LN", "LE", "NE"), 0.02, 0.9)),
    Kind("damp", IR, _mohm(("LE", "NE"), 2.0, 60.0)),
    Kind("terminal loose at the breaker", LIVE, _terminal),
    Kind("earth of a tray beside it", (*DEAD, *LIVE), _beside),
    Kind("contactor's contact poor", LIVE, _lead_part(0, 0.15, 1.0)),
    Kind("lead's earth poor", (*LIVE, "agree_lead", "reading_connector_earth"), _lead_part(1, 0.08, 1.0)),
    Kind("operator's earth poor", ORIGIN, _high_ze),
    Kind("PEN broken", ORIGIN, _broken_pen),
    Kind("supply's neutral poor", ORIGIN, _poor_neutral),
    Kind("earthing conductor's terminal poor", ("reading_earthing_conductor", *LIVE, *ORIGIN), _of_house("earthing", 0.3, 2.0)),
    Kind("earthing conductor left off", ("reading_earthing_conductor", *LIVE, *ORIGIN), _flag("earthing_off")),
    Kind("bonding clamp loose", ("reading_main_bonding",), _of_house("bond", 0.15, 3.0)),
    Kind("bonding left off", ("reading_main_bonding",), _flag("bond_off")),
    Kind("reversed at the cut-out", ("reading_polarity_live",), _reversed),
    Kind("RCD slow", RCD, _rcd(one=(310.0, 900.0), five=(60.0, 200.0))),
    Kind("RCD slow at five times", RCD, _rcd(five=(60.0, 400.0))),
    Kind("RCD dead", RCD, _rcd(dead=True)),
    Kind("RCD of 100 mA where 30 was ordered", RCD, _rcd(dead=True)),
    Kind("RCD delayed where none should be", RCD, _rcd(one=(140.0, 290.0))),
    Kind("RCD blind to pulses", RCD, _blind, where="twelve"),
    Kind("RCD's button dead", ("reading_rcd_button",), _wrong("rcd_button")),
    Kind("6 mA detection dead", ("reading_dc_detection",), _wrong("dc_detection")),
    Kind("6 mA detection late", ("reading_dc_detection",), _unit("detects_ma", _between(6.5, 20.0))),
    Kind("6 mA detection nervous", ("cant_be", "reading_dc_detection"), _unit("detects_ma", _between(0.4, 2.6))),
    Kind("open-PEN device dead", ("reading_open_pen_test",), _wrong("open_pen_test")),
    Kind("contactor stuck", ("reading_pilot_a",), _wrong("pilot_a")),
    Kind("set too high", ("agree_offered",), _unit("duty", _times(1.2))),
    Kind("set too low", ("agree_offered",), _unit("duty", _times(0.7))),
    Kind("broken earth noticed late", ("reading_earth_open",), _unit("earth_open_ms", _between(120, 900))),
    Kind("charges without a diode", ("reading_diode",), _wrong("diode")),
    Kind("charges on a shorted pilot", ("reading_pilot_shorted",), _wrong("pilot_shorted")),
    Kind("pilot low in state B", ("reading_pilot_b",), _unit("pilot_b", _between(6.5, 7.8))),
    Kind("pilot low in state C", ("reading_pilot_c",), _unit("pilot_c", _between(3.0, 4.8))),
    Kind("lead coded too high", ("agree_proximity",), _unit("proximity", _between(85, 130))),
    Kind("lead coded for nothing", ("agree_proximity",), _unit("proximity", _between(2700, 6000))),
    Kind("does not reset", ("reading_reset",), _wrong("reset")),
    Kind("surge device spent", ("reading_surge_indicator",), _wrong("surge_indicator")),
    Kind("electrode poor", (*ORIGIN, "reading_electrode", "agree_electrode_forecast"), _rod(_between(230, 900)), where="tt"),
    Kind("electrode beside a pipe", ("electrode_alone", "agree_electrode_forecast", *ORIGIN), _rod(_between(0.3, 4.0)), where="tt"),
    Kind("two earths joined", ("earths_apart", "reading_ir_earths"), _earths_joined, where="island"),
    Kind("leads not nulled", (*DEAD, "reading_earthing_conductor", "reading_main_bonding", "agree_lead"), _not_nulled),
    Kind("leads over-nulled", (*DEAD, "agree_lead", "agree_zs"), _over_nulled),
    Kind("comma in R1+R2", DEAD, slip=_change("r1_r2", _times(10))),
    Kind("comma in Zs", LIVE, slip=_change("zs", _times(10))),
    Kind("comma in Ze", ORIGIN, slip=_change("ze", _times(10))),
    Kind("comma the other way in Zs", (*LIVE, "earths_apart"), slip=_change("zs", _times(0.1))),
    Kind("Zs written for R1+R2", (*DEAD, *LIVE), slip=_swap("r1_r2", "zs", 1.6)),
    Kind("Ze written for Zs", (*LIVE, "earths_apart"), slip=_copied("zs", "ze")),
    Kind("amperes written as kiloamperes", ORIGIN, slip=_change("fault_current_neutral", _times(30))),
    Kind("seconds written as milliseconds", (*RCD, "reading_fits"), slip=_change("rcd_trip", _times(0.001))),
    Kind("1× and 5× swapped", RCD, slip=_swap("rcd_trip", "rcd_five", 1.5)),
    Kind("insulation at 250 V", IR, slip=_at_250),
    Kind("another circuit's row", ("cant_be", *DEAD, *LIVE), slip=_another_row),
    Kind("all in one second", ("cant_be", "reading_order", "holds_signed"), slip=_all_at_once),
    Kind("nulled afterwards", ("cant_be",), slip=_later("leads_nulled", 3)),
    Kind("dead tests after live", ("reading_order", "holds_signed"), slip=_later("r1_r2", 8)),
    Kind("conductors hotter than weather", ("cant_be",), slip=_warm),
    Kind("instrument past its date", ("instrument_due",), register={"calibration_due": "2025-03-01"}),
    Kind("instrument that can't", ("instrument_fits",), register={"functions": ["voltage", "continuity", "vehicle"]}),
)  # fmt: skip
assert len(KINDS) >= 60
