"""From version 5: nothing is a fact of a found thing because it was a default, or because an earlier upgrade kept it.

An RCD's mark is null until it was read: of what this job fits the old defaults were chosen and stay. Whether a board
stands indoors and whether a unit has a tail could not be left open, so their old defaults arrive as not known, unless a
catalogue record answered for the unit. What an earlier upgrade put in, or kept marked as taken from an earlier version,
is not known any more. Of a circuit that is there already what a file left out is reckoned with, marked as not seen.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from fulmen.core.editing.upgrades.v2_facts import PLACE

Document = dict[str, Any]
RCD = {"residual_ma": 30, "time_delayed": False, "switches_neutral": True}
# What a step from version 2 put into a box of its own, and the names that it gave.
UPGRADED_BOX, OPEN_PEN = "box-before-unit", {
    "sensing": "line_neutral_window", "opens_protective_conductor": True, "opens_within_s": 5,
}  # fmt: skip
KEPT_ANSWERS = ("rcd_inside_seen", "upstream_rcd_asked", "looked_at")
DEVICE = {"kind": "breaker", "curve": "B", "rating_a": 40}
CABLE = {"record": "swa-3-core", "csa_mm2": 6.0, "protective": "core"}
EARLIER, NOT_SEEN = "earlier_version", "not_seen"


def found_things_are_said(document: Document) -> Document:
    """Every default of a found thing that counted as a fact, by the rule above."""
    return _asked_again(document)[0]


def asks_again(document: Document) -> bool:
    """Whether a document of version 5 has to be asked for facts that it seemed to hold."""
    return _asked_again(document)[1]


def _asked_again(document: Document) -> tuple[Document, bool]:
    step = _Step(document)
    return step.done(), step.asks


class _Step:
    """A document on its way, and whether a fact of it was taken back."""

    def __init__(self, document: Document) -> None:
        self.document, self.asks = document, False
        known_how = document.get("known_how")
        self.known_how: dict[str, Any] = dict(known_how) if isinstance(known_how, dict) else {}
        decisions = document.get("decisions")
        held = [one for one in decisions if isinstance(one, dict)] if isinstance(decisions, list) else []
        # A board whose case somebody decided about stands indoors: outdoors nobody is asked.
        self._decided = {str(one.get("key")) for one in held}

    def done(self) -> Document:
        """The document with what nobody said taken back."""
        after = dict(self.document)
        for path in [path for path, how in self.known_how.items() if how == EARLIER]:
            if not self._answered(path):
                after = self._taken_back(after, path.split("."))
                del self.known_how[path]
        after = self._each(after, "boards", self._board)
        after = self._each(after, "circuits", self._circuit)
        after = self._each(after, "charge_points", self._unit)
        if isinstance(self.document.get("known_how"), dict) or self.known_how:
            after["known_how"] = self.known_how
        return after

    def _answered(self, path: str) -> bool:
        """Whether a catalogue record answers for the unit that a fact is of."""
        group, _, rest = path.partition(".")
        place, points = rest.partition(".")[0], self.document.get(group)
        if group != "charge_points" or not isinstance(points, list) or not place.isdigit() or int(place) >= len(points):
            return False
        point = points[int(place)]
        return isinstance(point, dict) and bool(point.get("record"))

    def _each(self, document: Document, group: str, change: Callable[[Document, str], Document]) -> Document:
        entries = document.get(group)
        if not isinstance(entries, list):
            return document
        changed = [change(one, f"{group}.{at}") if isinstance(one, dict) else one for at, one in enumerate(entries)]
        return {**document, group: changed}

    def _taken_back(self, part: Any, path: list[str]) -> Any:
        """A part without one fact; a route's fact is marked once for all its sections."""
        name, *rest = path
        if isinstance(part, list):
            if not name.isdigit():
                return [self._taken_back(one, path) for one in part]
            return [self._taken_back(one, rest) if at == int(name) else one for at, one in enumerate(part)]
        if not isinstance(part, dict) or name not in part:
            return part
        if rest:
            return {**part, name: self._taken_back(part[name], rest)}
        # A route's mark stands for the sections that held the old default; what another one says was stated.
        if name in PLACE and part[name] != PLACE[name]:
            return part
        self.asks = True
        return {**part, name: NOT_SEEN if name in KEPT_ANSWERS else None}

    def _board(self, board: Document, at: str) -> Document:
        said = board.get("fitted_with_this_job") is True or f"board_case/{board.get('id')}" in self._decided
        changed = {**board, "indoors": board.get("indoors", True)}
        if not said and changed["indoors"] is True:
            changed["indoors"], self.asks = None, True
        for held in ("incomer", "groups"):
            if isinstance(board.get(held), list):
                changed[held] = [self._group_or_guard(one) for one in board[held]]
        return changed

    def _group_or_guard(self, part: Any) -> Any:
        if not isinstance(part, dict):
            return part
        guards = part.get("guards")
        return (
            {**part, "guards": [self._guard(one) for one in guards]} if isinstance(guards, list) else self._guard(part)
        )

    def _guard(self, guard: Any, *, upgraded: bool = False) -> Any:
        if not isinstance(guard, dict):
            return guard
        changed = dict(guard)
        if isinstance(guard.get("rcd"), dict):
            fitted = guard.get("fitted_with_this_job") is True
            changed["rcd"] = self._rcd(guard["rcd"], chosen=fitted)
        stored = guard.get("open_pen")
        if upgraded and isinstance(stored, dict) and all(stored.get(name) == one for name, one in OPEN_PEN.items()):
            changed["open_pen"], self.asks = None, True
        return changed

    def _rcd(self, rcd: Document, *, chosen: bool) -> Document:
        """What was chosen stays as the defaults had it; of what was found what was said, and no neutral by default."""
        if chosen:
            return {**RCD, **rcd}
        found = {**dict.fromkeys(RCD), **rcd}
        if found["switches_neutral"] is True:
            found["switches_neutral"] = None
        self.asks = self.asks or found != {**RCD, **rcd}
        return found

    def _circuit(self, circuit: Document, at: str) -> Document:
        fitted, changed = circuit.get("fitted_with_this_job", True) is True, dict(circuit)
        device = circuit.get("device", {} if not fitted else None)
        if isinstance(device, dict):
            changed["device"] = dict(device)
            if isinstance(device.get("rcd"), dict):
                changed["device"]["rcd"] = self._rcd(device["rcd"], chosen=fitted)
        if not fitted:
            cable = circuit.get("cable", {})
            for name, part, defaults in (("device", changed.get("device"), DEVICE), ("cable", cable, CABLE)):
                if isinstance(part, dict):
                    changed[name] = self._reckoned(part, defaults, f"{at}.{name}")
        boxes = circuit.get("boxes")
        if isinstance(boxes, list):
            changed["boxes"] = [self._box(one) if isinstance(one, dict) else one for one in boxes]
        return changed

    def _reckoned(self, part: Document, defaults: Document, at: str) -> Document:
        """A part of a found circuit with what its file left out, each marked as not seen."""
        for name in defaults:
            if name not in part:
                self.known_how[f"{at}.{name}"], self.asks = NOT_SEEN, True
        return {**defaults, **part}

    def _box(self, box: Document) -> Document:
        guards = box.get("guards")
        if not isinstance(guards, list):
            return box
        upgraded = str(box.get("id", "")).startswith(UPGRADED_BOX)
        return {**box, "guards": [self._guard(one, upgraded=upgraded) for one in guards]}

    def _unit(self, point: Document, at: str) -> Document:
        answered = bool(point.get("record"))
        changed = {**point, "flex_tail": point.get("flex_tail", False)}
        if not answered and changed["flex_tail"] is False:
            changed["flex_tail"], self.asks = None, True
        self.asks = self.asks or point.get("set_current_a") is not None
        # Which poles its open-PEN device opens was never asked before.
        self.asks = self.asks or point.get("open_pen_inside") == "yes"
        if isinstance(point.get("rcd_inside"), dict):
            changed["rcd_inside"] = self._rcd(point["rcd_inside"], chosen=answered)
        return changed
