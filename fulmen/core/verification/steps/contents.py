"""What a reading contains besides copper: contacts, the car's lead, how exactly length, metal and warmth are known.

Every allowance is an entry of `band_parts.toml` with its reason; a breaker's own resistance follows from the most heat
that its standard allows.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import cache
from itertools import pairwise

from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.electrical.fault_loop import conductor_ohm, temperature_factor
from fulmen.core.installation.guards import Stands
from fulmen.core.model.guards import Device
from fulmen.core.model.readings import StepKey
from fulmen.core.model.route import LengthBy
from fulmen.core.reference.tables import read_toml
from fulmen.core.verification.instruments.accuracy import InstrumentError, error_of, measures_with, off_together
from fulmen.core.verification.steps.band import BandPart
from fulmen.core.verification.steps.run_test import RunTest
from fulmen.core.verification.steps.steps import definition_of

# What a lead may be where nobody has said it: no longer than usual, no thinner than its unit's current allows. Common
# practice, no source.
LEAD_ASKED = "Say how long and how thick the unit's lead is, or read its earth through to the connector."
LONGEST_LEAD_M, MOST_TEST_LEAD_OHM, THIN_LEAD_A = 10.0, 0.1, 20.0


@cache
def allowances() -> dict[str, dict[str, float]]:
    """How far each part may differ, by its key."""
    return read_toml(__package__, "band_parts")


def within(words: str, key: str, times: int = 1) -> BandPart:
    """A part that adds so many times what its entry says."""
    entry = allowances()[key]
    return BandPart(words, times * entry["low_ohm"], times * entry["high_ohm"])


@cache
def _breaker_loss() -> tuple[tuple[tuple[float, float], ...], float]:
    """Watts by rated current, and which part of that a pole makes at least."""
    told = read_toml(__package__, "breaker_loss")
    return tuple(zip(told["up_to_a"], told["loss_w"], strict=True)), told["least_share"]


def pole_ohm(rating_a: float) -> float:
    """The most that a pole of an overcurrent device can have, R = P/In² [Ω].

    >>> round(pole_ohm(32) * 1000, 2)
    5.86
    """
    losses, _ = _breaker_loss()
    loss_w = next((loss for up_to, loss in losses if rating_a <= up_to), losses[-1][1])
    return loss_w / rating_a**2


def device_part(device: Device) -> BandPart:
    """The contacts of an overcurrent device."""
    most = pole_ohm(device.rating_a)
    return BandPart(f"{device.rating_a} A device", most * _breaker_loss()[1], most)


def instrument_error(test: RunTest, key: StepKey, subject: str) -> InstrumentError:
    """How far a reading of a step may be off by its instrument: by the one that took it, else the first that can."""
    dial = definition_of(key).dial
    measures = measures_with(dial)
    assert measures is not None
    reading, job = test.readings.latest(key, subject), test.case.job
    if reading is not None:
        return error_of(job.instrument(reading.instrument), measures)
    return error_of(next((one for one in job.testing.instruments if dial.function in one.functions), None), measures)


def errors_part(*read: tuple[InstrumentError, float]) -> BandPart:
    """What the instruments of some readings may be off together, each at its value."""
    off, asks = off_together(read), next((error.asks for error, _ in read if error.asks), "")
    return BandPart(
        "instrument" if len(read) == 1 else f"instrument, {len(read)} readings together", -off, off, asks, error=True
    )


def conductor_parts(
    figures: CircuitFigures, words: str, ohm: tuple[float, float], conductor_c: float | None, test: RunTest
) -> Iterator[BandPart]:
    """Some conductors of a circuit: by the route and the table, and how far each of the two may be off.

    Args:
        words: which they are.
        ohm: at 20 °C by the table, the least where armour lies beside the core, and without it.
        conductor_c: how warm they are; None where nobody has said it.
    """
    told = allowances()
    factor = 1.0 if conductor_c is None else temperature_factor(conductor_c)
    least, most = (one * factor for one in ohm)
    yield BandPart(words, least, most)
    share = _length_share(figures)
    yield BandPart("length as drawn", -share * least, share * most)
    yield BandPart("metal, less than the table's most", -told["metal"]["share"] * least, 0.0)
    if conductor_c is None:
        coldest, warmest = (test.rules.value(f"conductors_{one}_c") for one in ("coldest", "warmest"))
        cold, warm = (temperature_factor(one) - 1 for one in (coldest, warmest))
        yield BandPart("warmth", cold * least, warm * most, "Say how warm the conductors were.")
    else:
        off = temperature_factor(20 + told["warmth_c"]["kelvin"]) - 1
        yield BandPart("warmth", -off * least, off * most)
    yield within("link and terminals", "link")


def _length_share(figures: CircuitFigures) -> float:
    """How exactly the route's length is known: by the share of it that was paced."""
    sections, paced = [one.section for one in figures.sections], LengthBy.STEPS
    by_tape, by_steps = (allowances()[f"length_by_{one.value}"]["share"] for one in (LengthBy.TAPE, paced))
    paced_m = sum(one.length_m for one in sections if one.length_by is paced)
    return by_tape + (by_steps - by_tape) * paced_m / (sum(one.length_m for one in sections) or 1.0)


def contact_parts(test: RunTest, subject: str, *, to_connector: bool) -> Iterator[BandPart]:
    """What a loop goes through from the origin to a circuit's end: switches, devices, joints; the unit's own last."""
    chain = [one.circuit.id for one in test.case.run.chain]
    passed = set(chain[: chain.index(subject) + 1])
    here = [one for one in test.case.guards if one.circuit in passed and one.part is not None]
    switches = sum(one.device is None for one in here)
    if switches:
        yield within("switches and RCDs", "switch", switches)
    for one in here:
        if one.device is not None and one.stands is Stands.WAY:
            yield device_part(one.device)
    circuits = [one for one in test.case.figures.chain if one.circuit.id in passed] if test.case.figures else []
    boxes = {(one.circuit, one.after_section) for one in here if one.stands is Stands.BOX}
    joints = len(circuits) + sum(_changes(one) for one in circuits) + len(boxes)
    yield within("terminals and joints", "joint", joints)
    if to_connector:
        yield within("contactor", "contactor")
        yield within("connector and adapter", "connector")


def _changes(figures: CircuitFigures) -> int:
    """How often a circuit's cable changes, in a box each time."""
    return sum(one != after for one, after in pairwise(one.cable for one in figures.sections))


def lead_earth(test: RunTest) -> tuple[str, float] | None:
    """The earth of the lead between the unit and the adapter by what is said of it [Ω], with its words."""
    point = test.case.run.charge_point
    if point.tethered is False:
        both_ohm = test.case.job.testing.test_lead_ohm
        return ("test lead", both_ohm / 2) if both_ohm is not None else None
    if point.lead_length_m is None or point.lead_csa_mm2 is None:
        return None
    words = f"the car's lead, {point.lead_length_m:g} m of {point.lead_csa_mm2:g} mm²"
    return words, conductor_ohm(point.lead_length_m, point.lead_csa_mm2, fine_strands=True)


def lead_parts(test: RunTest) -> Iterator[BandPart]:
    """What the lead adds to a loop: by its length and size, else by its earth as read, else what it may be."""
    point, said = test.case.run.charge_point, lead_earth(test)
    read_ohm = test.figure(StepKey.CONNECTOR_EARTH, test.case.subject)
    if said is not None:
        off = 2 * allowances()["lead"]["share"] * said[1]
        yield BandPart(said[0], 2 * said[1], 2 * said[1])
        yield BandPart("length of the lead", -off, off)
    elif read_ohm is not None:
        off = 2 * instrument_error(test, StepKey.CONNECTOR_EARTH, test.case.subject).of(read_ohm)
        yield BandPart(f"the lead, its earth read {read_ohm:.2f}", max(0.0, 2 * read_ohm - off), 2 * read_ohm + off)
    elif point.tethered is False:
        yield BandPart("test lead", 0.0, MOST_TEST_LEAD_OHM, "Say what your lead to the adapter adds to a loop.")
    else:
        usual_mm2 = 2.5 if point.design_current_a() <= THIN_LEAD_A else 6.0
        length_m, size_mm2 = point.lead_length_m or LONGEST_LEAD_M, point.lead_csa_mm2 or usual_mm2
        yield BandPart("the car's lead", 0.0, 2 * conductor_ohm(length_m, size_mm2, fine_strands=True), LEAD_ASKED)


def summed(words: str, parts: Iterable[BandPart]) -> BandPart:
    """Some parts as one; what is to be said of any of them stays to be said."""
    parts = list(parts)
    asks = next((one.asks for one in parts if one.asks), "")
    return BandPart(words, sum(one.low for one in parts), sum(one.high for one in parts), asks)


def length_words(figures: CircuitFigures, conductor_c: float | None, *, earth: bool = True) -> str:
    """A circuit's cable in words: how long, of which sizes, its earth's too where that is read, and how warm."""
    sizes = sizes_of(figures) if earth else _in_turn(f"{one.cable.csa_mm2:g}" for one in figures.sections)
    warm = "" if conductor_c is None else f" at {conductor_c:g} °C"
    return f"{figures.laid.cable_m:.1f} m of {sizes} mm²{warm}"


def sizes_of(figures: CircuitFigures) -> str:
    """The sizes of a circuit's cables, line and earth, each once as met on the way."""
    return _in_turn(
        f"{one.cable.csa_mm2:g}"
        if one.cable.csa_mm2 == one.metre.cpc_mm2
        else f"{one.cable.csa_mm2:g}/{one.metre.cpc_mm2:g}"
        for one in figures.sections
    )


def _in_turn(sizes: Iterable[str]) -> str:
    return " and ".join(dict.fromkeys(sizes))
