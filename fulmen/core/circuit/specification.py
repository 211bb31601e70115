"""The specification sentence: the design in plain English, with the choices that can be changed in it."""

from __future__ import annotations

from itertools import pairwise
from typing import Literal

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import Stands
from fulmen.core.model.arrangement import CarEarth
from fulmen.core.model.guards import Device, DeviceKind, RcdMark
from fulmen.core.model.seen import Seen
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
            _choice(word(arrangement.open_pen), "open_pen"),
            _plain(". "),
        ]
    else:
        parts += [_plain(", apart from the house earth. ")]
    parts += [
        _plain("Protect people with "),
        _choice(_rcd_choice(case), "rcd"),
        _plain(" and 6 mA DC detection "),
        _choice(word(arrangement.rdc_dd), "rdc_dd"),
        _plain("; surge protection is "),
        _choice(surge_words(case.run.chain[0].board.surge_protection), "surge"),
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


def _rcd_choice(case: Case) -> str:
    """The RCD that guards this charge point alone: its device's, one before the unit, or the unit's own."""
    rcd = case.run.final().circuit.device.rcd
    if rcd is not None:
        return rcd_words(rcd)
    before = case.run.rcds_outside
    own = [guard for guard in case.run.own_rcds if guard.stands is not Stands.UNIT]
    named = own or before
    in_unit = len(case.run.rcds) > len(before)
    if not named:
        return rcd_words(None, in_unit=in_unit)
    words = f"the {named[-1].name} {named[-1].where}"
    return words if own or not in_unit else f"the RCD in the unit, behind {words}"


def rcd_words(rcd: RcdMark | None, *, in_unit: bool = True, before: bool = False) -> str:
    """The RCD of the circuit's device in words; without one, what else there is.

    Args:
        in_unit: whether the unit has one, or may have.
        before: whether one stands before the unit that is not the device's.
    """
    if rcd is None:
        return "no RCD with the device" if before else "only the RCD in the unit" if in_unit else "no RCD"
    known, poles = rcd.known(), ", neutral not switched" if rcd.switches_neutral is False else ""
    if known is None:
        return f"an RCBO at the board whose mark nobody has read{poles}"
    return f"a Type {known.type.value} {known.residual_ma} mA RCBO at the board{poles}"


def surge_words(seen: Seen) -> str:
    """Surge protection at the origin in words."""
    return {Seen.YES: "fitted at the board", Seen.NO: "left out", Seen.NOT_SEEN: "not seen yet"}[seen]


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
