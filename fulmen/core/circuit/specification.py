"""The specification sentence: the design in plain English, with the choices that can be changed in it."""

from __future__ import annotations

from itertools import pairwise
from typing import Literal

from fulmen.core.circuit.protection_words import dc_words, measure_words, rcd_choice_words, surge_in_words
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.words import word
from fulmen.core.model.arrangement import CarEarth
from fulmen.core.model.guards import Device, DeviceKind
from fulmen.core.model.supply import Earthing
from fulmen.core.plain import plain

ChoiceKey = Literal["car_earth", "open_pen", "rcd", "rdc_dd", "surge", "device", "csa", "cable", "route"]


@plain
class SentencePart:
    """A piece of the sentence: plain text, or a choice by its key and present words.

    `circuit` names whose choice it is where that is not the final circuit.
    """

    text: str
    choice: ChoiceKey | None = None
    circuit: str = ""


def specification(case: Case) -> tuple[SentencePart, ...]:
    """The sentence for one run; empty while no circuit feeds the charge point."""
    if not case.run.chain:
        return ()
    arrangement, circuit = case.arrangement, case.run.final().circuit
    parts = [_plain("Earth the car through "), _choice(word(arrangement.car_earth), "car_earth")]
    if case.job.supply.earthing is Earthing.TT:
        parts = [_plain("The supply is TT, so the car is earthed through the house electrode. ")]
    elif arrangement.car_earth is CarEarth.HOUSE_EARTH:
        parts += [
            _plain(", with broken-PEN protection by "),
            _choice(measure_words(arrangement.open_pen, case.run.charge_point, case.guards), "open_pen"),
            _plain(". "),
        ]
    else:
        parts += [_plain(", apart from the house earth. ")]
    parts += [
        _plain("Protect people with "),
        _choice(rcd_choice_words(case), "rcd"),
        _plain(" and 6 mA DC detection "),
        _choice(dc_words(case), "rdc_dd"),
        _plain("; surge protection is "),
        _choice(surge_in_words(case), "surge"),
        _plain(". Guard the cable with "),
        _choice(device_choice_words(circuit.device), "device"),
        _plain(", and run "),
        _choice(f"{circuit.cable.csa_mm2:g} mm²", "csa"),
        _plain(" "),
        _choice(case.installation.record(circuit.cable).name, "cable"),
        _plain(" along "),
        _choice(route_words(case), "route"),
        _plain("."),
    ]
    return (*_sub_mains(case), *parts)


def _sub_mains(case: Case) -> list[SentencePart]:
    """How each board after the first is fed, with the choices of its sub-main."""
    parts: list[SentencePart] = []
    for chained, following in pairwise(case.run.chain):
        circuit = chained.circuit
        name = case.installation.record(circuit.cable).name
        parts += [
            _plain(f"Feed {following.board.name} through "),
            _of(device_choice_words(circuit.device), "device", circuit.id),
            _plain(" and "),
            _of(f"{circuit.cable.csa_mm2:g} mm²", "csa", circuit.id),
            _plain(" "),
            _of(name, "cable", circuit.id),
            _plain(". "),
        ]
    return parts


def _of(text: str, choice: ChoiceKey, circuit: str) -> SentencePart:
    return SentencePart(text=text, choice=choice, circuit=circuit)


def device_choice_words(device: Device) -> str:
    """The overcurrent device in words."""
    if device.kind is DeviceKind.BREAKER:
        return f"{device.curve.value} {device.rating_a} A"
    return f"a {device.rating_a} A {word(device.kind)}"


def route_words(case: Case) -> str:
    """Number of sections and length of the route."""
    route = case.run.final().circuit.route
    if not route:
        return "a route still to be entered"
    length_m = sum(section.length_m for section in route)
    return f"{len(route)} section{'s' if len(route) > 1 else ''}, {length_m:.1f} m"


def _plain(text: str) -> SentencePart:
    return SentencePart(text=text)


def _choice(text: str, choice: ChoiceKey) -> SentencePart:
    return SentencePart(text=text, choice=choice)
