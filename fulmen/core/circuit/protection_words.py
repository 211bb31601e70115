"""How people are protected at one charge point, in words that say what stands there and no more."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.model.arrangement import OpenPenMeasure, RdcDdPlace
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.guards import GuardKind, RcdMark, RcdType
from fulmen.core.model.seen import Seen

NONE_THERE = {Seen.YES: "", Seen.NO: ", which has none", Seen.NOT_SEEN: ", not looked up yet"}


def dc_words(case: Case) -> str:
    """Where 6 mA DC is detected, and whether anything is there that does."""
    own = [one.rcd for one in case.run.own_rcds if one.rcd is not None]
    return dc_place_words(
        case.arrangement.rdc_dd,
        by_type_b=any(one.type is RcdType.B for one in own),
        inside=case.run.charge_point.rdc_dd_inside,
        before=any(one.detects_dc and one.stands is not Stands.UNIT for one in case.guards),
    )


def dc_place_words(place: RdcDdPlace, *, by_type_b: bool = False, inside: Seen = Seen.YES, before: bool = True) -> str:
    """A place of 6 mA DC detection in words.

    Args:
        place: where the arrangement counts on it.
        by_type_b: whether the charge point's own RCD sees smooth DC by itself.
        inside: whether the unit detects it.
        before: whether a detector stands before the unit.

    >>> dc_place_words(RdcDdPlace.NONE), dc_place_words(RdcDdPlace.NONE, by_type_b=True)
    ('nowhere', 'not needed: the RCD is Type B')
    """
    if place is RdcDdPlace.NONE:
        return "not needed: the RCD is Type B" if by_type_b else word(place)
    lacks = NONE_THERE[inside] if place is RdcDdPlace.IN_UNIT else "" if before else ", where none stands"
    return f"{word(place)}{lacks}"


def measure_words(measure: OpenPenMeasure, point: ChargePoint, guards: tuple[PlacedGuard, ...]) -> str:
    """The open-PEN measure that is counted on, and whether the device of it is there."""
    if measure is OpenPenMeasure.DEVICE_IN_UNIT:
        return f"{word(measure)}{NONE_THERE[point.open_pen_inside]}"
    if measure is OpenPenMeasure.SEPARATE_DEVICE and not _open_pen_before(guards):
        return f"{word(measure)}, where none stands"
    return word(measure)


def _open_pen_before(guards: tuple[PlacedGuard, ...]) -> bool:
    return any(one.guard is not None and one.guard.kind is GuardKind.OPEN_PEN_DEVICE for one in guards)


def surge_in_words(case: Case) -> str:
    """Surge protection of the board that the run begins at; where that has none, the one of the house's board."""
    first, origin = case.run.chain[0].board, case.installation.tree.origin
    words = surge_words(first.surge_protection)
    if first.surge_protection is not Seen.NO or origin is None or origin.id == first.id:
        return words
    there = {Seen.YES: "fitted", Seen.NO: "left out", Seen.NOT_SEEN: "not seen yet"}[origin.surge_protection]
    return f"{words} at {first.name}, {there} at {origin.name}"


def surge_words(seen: Seen) -> str:
    """Surge protection at a board in words."""
    return {Seen.YES: "fitted at the board", Seen.NO: "left out", Seen.NOT_SEEN: "not seen yet"}[seen]


def rcd_choice_words(case: Case) -> str:
    """The RCD that guards this charge point: its device's, one before the unit, or the unit's own."""
    rcd = case.run.final().circuit.device.rcd
    if rcd is not None:
        return rcd_words(rcd)
    before = case.run.rcds_outside
    own = [guard for guard in case.run.own_rcds if guard.stands is not Stands.UNIT]
    named, unread = own or before, [one for one in case.run.unread if one.stands is not Stands.UNIT]
    inside = [one for one in case.guards if one.stands is Stands.UNIT and one.is_rcd]
    in_unit = _unit_words(case.run.charge_point, inside)
    if not named and unread:
        return f"the {unread[-1].name} {unread[-1].where}, whose mark nobody has read"
    if not named:
        return f"only {in_unit}" if in_unit else "no RCD"
    words = f"the {named[-1].name} {named[-1].where}"
    return words if own or not inside else f"{in_unit}, behind {words}"


def _unit_words(point: ChargePoint, inside: list[PlacedGuard]) -> str:
    """The RCD inside the unit, or that nobody has looked; empty where there is none."""
    if inside:
        return "the RCD in the unit" + (", whose mark nobody has read" if inside[-1].unread else "")
    return "what the unit may hold, not looked up yet" if point.rcd_inside_seen is Seen.NOT_SEEN else ""


def rcd_words(rcd: RcdMark | None, *, in_unit: bool = True, before: bool = False) -> str:
    """The RCD of the circuit's device in words; without one, what else there is.

    Args:
        in_unit: whether the unit has one.
        before: whether one stands before the unit that is not the device's.
    """
    if rcd is None:
        return "no RCD with the device" if before else "only the RCD in the unit" if in_unit else "no RCD"
    known, poles = rcd.known(), ", neutral not switched" if rcd.switches_neutral is False else ""
    if known is None:
        return f"an RCBO at the board whose mark nobody has read{poles}"
    delay = ", time-delayed" if known.time_delayed else ""
    return f"a Type {known.type.value} {known.residual_ma} mA RCBO at the board{delay}{poles}"
