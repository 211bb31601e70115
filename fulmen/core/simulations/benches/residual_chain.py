"""The chain of residual-current devices from the origin to the car: what each sees of a residual current, and which
goes blind. Data from memory: IEC 60755 (types AC and A), IEC 62423 (F and B), IEC 62955 (RDC-DD).
"""

from __future__ import annotations

from enum import StrEnum
from functools import cache
from typing import Annotated, Any, Literal

from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.base import Id, Line, Part, number
from fulmen.core.model.guards import Rcd
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.reference.tables import read_toml


class Waveform(StrEnum):
    """The shape of the residual current."""

    AC = "ac"
    PULSATING = "pulsating"
    SMOOTH = "smooth"


class Reaction(StrEnum):
    """What a device does."""

    OPENS = "opens"
    MAY_OPEN = "may_open"
    STAYS = "stays"
    SEES_NOTHING = "sees_nothing"
    BLIND = "blind"


class ChainQuestion(Part):
    """A residual current at the car: its shape and size, and smooth DC that flows beside it."""

    job: Job
    charge_point: Id | Literal[""] = ""
    waveform: Waveform = Waveform.AC
    residual_ma: Annotated[float, number(0, 500)] = 30.0
    standing_dc_ma: Annotated[float, number(0, 300)] = 0.0


class ChainDevice(Part):
    """One device of the chain, where it stands, what it does, and why."""

    name: Line
    place: Line
    reaction: Reaction
    opens_s: float | None
    told: str


class ResidualChain(Part):
    """Every device from the origin to the car, and the whole in one sentence."""

    devices: tuple[ChainDevice, ...]
    interrupted: bool
    told: str


class _Placed(Part):
    """A device before it is asked: an RCD, or an RDC-DD where there is none."""

    place: str
    rcd: Rcd | None


def residual_chain(question: ChainQuestion, rules: RuleSet) -> ResidualChain:
    """What every device before a charge point, the first unless one is named, makes of a residual current at the car.

    Smooth DC flows through every device in series. A DC detector that opens ends it within its time, so it keeps the
    devices before it from staying blind; until then they may be.
    """
    placed = _placed(question)
    dc_ma = question.standing_dc_ma + (question.residual_ma if question.waveform is Waveform.SMOOTH else 0.0)
    detector = any(one.rcd is None for one in placed)
    devices = tuple(
        _rdc_dd(one, dc_ma) if one.rcd is None else _rcd(one, one.rcd, question, dc_ma, detector=detector)
        for one in placed
    )
    devices = tuple(_timed(device, one, rules) for device, one in zip(devices, placed, strict=True))
    interrupted = any(one.reaction is Reaction.OPENS for one in devices)
    return ResidualChain(devices=devices, interrupted=interrupted, told=_told(devices, interrupted=interrupted))


def _placed(question: ChainQuestion) -> list[_Placed]:
    """The residual-current devices of the run, from the origin; a unit's own as far as it is known to be there."""
    runs = installation_of(question.job).runs
    found = [run for run in runs if question.charge_point in ("", run.charge_point.id)]
    return [
        _Placed(place=_place_words(guard), rcd=guard.rcd)
        for guard in (found[0].guards if found else ())
        if guard.rcd is not None or guard.detects_dc
    ]


def _place_words(guard: PlacedGuard) -> str:
    words = {Stands.WAY: f"at {guard.where}", Stands.UNIT: "in the unit"}
    return words.get(guard.stands, guard.where)


def _timed(device: ChainDevice, placed: _Placed, rules: RuleSet) -> ChainDevice:
    """An RCD that opens does so within the time that a test of it allows; an RDC-DD told its own."""
    if placed.rcd is None or device.reaction is not Reaction.OPENS:
        return device
    limit = "rcd_delayed_trip_max_ms" if placed.rcd.time_delayed else "rcd_trip_ms"
    return device.model_copy(update={"opens_s": rules.value(limit) / 1000})


@cache
def _data() -> dict[str, Any]:
    return read_toml(__package__, "residual_types")


def _rcd(placed: _Placed, rcd: Rcd, question: ChainQuestion, dc_ma: float, *, detector: bool) -> ChainDevice:
    kind = _data()["types"][rcd.type.value]
    rated_ma, residual_ma = float(rcd.residual_ma), question.residual_ma
    name = f"Type {rcd.type.value}{' S' if rcd.time_delayed else ''}, {rcd.residual_ma} mA"
    seen = kind["opens"].get(question.waveform.value)
    if dc_ma > kind["dc_blind_ma"]:
        until = " until the DC detector has opened" if detector and dc_ma >= _least_opening_ma() else ""
        told = f"{dc_ma:g} mA smooth DC is more than {kind['dc_blind_ma']:g} mA: it may not open for anything{until}."
        return _device(name, placed.place, Reaction.BLIND, told)
    if seen is None:
        return _device(
            name,
            placed.place,
            Reaction.SEES_NOTHING,
            f"It is not made to see {WAVE_WORDS[question.waveform]}.",
        )
    if residual_ma >= seen * rated_ma:
        told = f"{residual_ma:g} mA is at least {seen:g}·{rated_ma:g} mA: it opens."
        return _device(name, placed.place, Reaction.OPENS, told)
    if residual_ma > kind["quiet"] * rated_ma:
        told = (
            f"{residual_ma:g} mA lies between {kind['quiet']:g}·{rated_ma:g} and {seen:g}·{rated_ma:g} mA: it may open."
        )
        return _device(name, placed.place, Reaction.MAY_OPEN, told)
    return _device(name, placed.place, Reaction.STAYS, f"{residual_ma:g} mA is too little for {rated_ma:g} mA.")


WAVE_WORDS = {
    Waveform.AC: "sine-shaped alternating current",
    Waveform.PULSATING: "pulsating direct current",
    Waveform.SMOOTH: "smooth direct current",
}


def _least_opening_ma() -> float:
    return min(float(step["at_least_ma"]) for step in _data()["rdc_dd"]["opens"])


def _rdc_dd(placed: _Placed, dc_ma: float) -> ChainDevice:
    name = "6 mA DC detection"
    data = _data()["rdc_dd"]
    within_s = next((step["within_s"] for step in data["opens"] if dc_ma >= step["at_least_ma"]), None)
    if within_s is not None:
        return _device(
            name,
            placed.place,
            Reaction.OPENS,
            f"{dc_ma:g} mA smooth DC: it opens within {within_s:g} s.",
            within_s,
        )
    if dc_ma > data["quiet_ma"]:
        return _device(name, placed.place, Reaction.MAY_OPEN, f"{dc_ma:g} mA smooth DC is under 6 mA: it may open.")
    reaction = Reaction.STAYS if dc_ma else Reaction.SEES_NOTHING
    return _device(
        name,
        placed.place,
        reaction,
        "It watches smooth DC only." if not dc_ma else f"{dc_ma:g} mA is too little.",
    )


def _device(name: str, place: str, reaction: Reaction, told: str, opens_s: float | None = None) -> ChainDevice:
    return ChainDevice(name=name, place=place, reaction=reaction, opens_s=opens_s, told=told)


def _told(devices: tuple[ChainDevice, ...], *, interrupted: bool) -> str:
    blind = [one for one in devices if one.reaction is Reaction.BLIND]
    if not devices:
        return "No residual-current device stands on this circuit."
    if interrupted and not blind:
        return "The current is interrupted."
    if interrupted:
        return f"The current is interrupted; until then {_names(blind)} may be blind."
    if blind:
        return (
            f"Nothing must open, and {_names(blind)} is blind: a person who touches a live part is not guarded by it."
        )
    return "Nothing has to open at this current."


def _names(devices: list[ChainDevice]) -> str:
    return " and ".join(f"{one.name} ({one.place})" for one in devices)
