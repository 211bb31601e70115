"""From version 2: what stood only as a default was never said, and arrives as not known.

What differs from the old default was stated. What equals it stays where a paper may rest on it, that is where readings
were taken, marked as taken from an earlier version (for a route as a whole: sections are cut, joined and moved); a
unit's facts stay where a catalogue record answered them. What we fit (depth, tape, clips, a sealed hole) was chosen, so
it stays with a circuit that this job fits.
"""

from __future__ import annotations

from typing import Any

Document = dict[str, Any]
EARLIER = "earlier_version"
UNIT = {"phases": 1, "max_current_a": 32}
OPEN_PEN = {"sensing": "line_neutral_window", "opens_protective_conductor": True, "opens_within_s": 5}
PLACE = {"grouped_circuits": 1, "insulation_mm": 0, "under_drive": False, "concealed_under_50_mm": False}
CHOSEN = {"depth_m": 0.7, "warning_tape": True, "fixings": "metal", "fire_stopped": True}
DEVICE = {"kind": "breaker", "curve": "B", "rating_a": 40, "breaking_capacity_ka": 6}


def defaults_are_not_facts(document: Document) -> Document:
    """Every field whose old default counted as a fact, by the rule above."""
    return _Facts(document).settled()


class _Facts:
    """A document on its way, and which of its defaults are kept as taken from an earlier version."""

    def __init__(self, document: Document) -> None:
        self.document, self.kept = document, bool(document.get("readings"))
        self.known_how: dict[str, str] = {}

    def settled(self) -> Document:
        """The document with its defaults settled, and the list of those that were kept."""
        after = dict(self.document)
        if isinstance(after.get("supply"), dict):
            after["supply"] = self._with(after["supply"], {"phases": 1}, "supply", keep=self.kept)
        for group, change in (("circuits", self._circuit), ("charge_points", self._unit)):
            entries = after.get(group)
            if isinstance(entries, list):
                after[group] = [
                    change(one, f"{group}.{at}") if isinstance(one, dict) else one for at, one in enumerate(entries)
                ]
        return {**after, "known_how": self.known_how} if self.known_how else after

    def _with(self, part: Document, defaults: Document, at: str, *, keep: bool) -> Document:
        """A part with its defaults kept and marked, or made unknown."""
        changed = dict(part)
        for name, default in defaults.items():
            if part.get(name, default) != default or part.get(name, default) is None:
                continue
            changed[name] = default if keep else None
            if keep:
                self.known_how[f"{at}.{name}"] = EARLIER
        return changed

    def _circuit(self, circuit: Document, at: str) -> Document:
        fitted = circuit.get("fitted_with_this_job", True) is True
        route = circuit.get("route")
        changed = dict(circuit)
        if isinstance(route, list):
            changed["route"] = [
                self._section(one, f"{at}.route", fitted=fitted) if isinstance(one, dict) else one for one in route
            ]
        if not fitted:
            device = circuit.get("device")
            said = isinstance(device, dict) and any(device.get(name, one) != one for name, one in DEVICE.items())
            changed["looked_at"] = "yes" if said or self.kept else "not_seen"
            if not said and self.kept:
                self.known_how[f"{at}.looked_at"] = EARLIER
        return changed

    def _section(self, section: Document, at: str, *, fitted: bool) -> Document:
        changed = self._with(section, PLACE, at, keep=self.kept)
        if fitted:
            return {**CHOSEN, **changed}
        return self._with(changed, CHOSEN, at, keep=self.kept)

    def _unit(self, point: Document, at: str) -> Document:
        """A unit's facts, which a record answers in one go; two that had no word for “none” get one."""
        keep = self.kept or bool(point.get("record"))
        changed = self._with(point, UNIT, at, keep=keep)
        for field, seen in (("rcd_inside", "rcd_inside_seen"), ("upstream_rcd", "upstream_rcd_asked")):
            there = point.get(field) is not None
            changed[seen] = "yes" if there else "no" if keep else "not_seen"
            if keep and not there:
                self.known_how[f"{at}.{seen}"] = EARLIER
        device = point.get("open_pen_device")
        if point.get("open_pen_inside") == "yes" or isinstance(device, dict):
            stored = device if isinstance(device, dict) else {}
            changed["open_pen_device"] = self._with(
                {**OPEN_PEN, **stored}, OPEN_PEN, f"{at}.open_pen_device", keep=keep
            )
        return changed
