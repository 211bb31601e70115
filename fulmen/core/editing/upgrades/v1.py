"""From version 1: boards lose their phases, a unit's origin is its provenance, letters and decisions rest on facts.

Version 1 grew without a number of its own: files differ in whether boards say phases and decisions what they are about.
"""

from __future__ import annotations

import re
from typing import Any

from fulmen.core.editing.upgrades.v1_decisions import basis_of

Document = dict[str, Any]
LETTER = re.compile(
    r"(?:demand not known|(?P<demand>\d+) A in all)(?:, load limit (?P<limit>[\d.e+]+) A)?"
    r", charge point (?P<car>[\d.e+]+) A(?P<against>(?:; (?:looped|cut-out not sound))*)"
)
AGAINST = {"looped": "looped", "cut-out not sound": "cut_out_not_sound"}


def boards_without_phases(document: Document) -> Document:
    """Phases at a board follow from the supply and the sub-main before it."""
    return _each(document, "boards", lambda board: {name: board[name] for name in board if name != "phases"})


def provenance_of_units(document: Document) -> Document:
    """`origin` was where a unit comes from; the origin is where the supply comes in."""
    return _each(document, "charge_points", _renamed_origin)


def _renamed_origin(point: Document) -> Document:
    return {"provenance" if name == "origin" else name: value for name, value in point.items()}


def letters_rest_on_facts(document: Document) -> Document:
    """What a letter was about stood in a sentence of one shape; now it stands as facts."""
    return _each(document, "letters", letter_rests_on_facts)


def letter_rests_on_facts(letter: Document) -> Document:
    """The same for one letter; where its sentence has another shape nobody can tell what it was about.

    >>> letter_rests_on_facts({"about": "74 A in all, charge point 32 A; looped"})["about"]["against"]
    ['looped']
    """
    if not isinstance(letter.get("about"), str):
        return letter
    found = LETTER.fullmatch(letter["about"])
    return {**letter, "about": _facts(found) if found else None}


def _facts(found: re.Match[str]) -> Document:
    demand, limit = found["demand"], found["limit"]
    return {
        "demand_a": float(demand) if demand else None,
        "load_limit_a": float(limit) if limit else None,
        "car_a": float(found["car"]),
        "against": [AGAINST[one] for one in found["against"].split("; ") if one],
    }


def decisions_rest_on_facts(document: Document) -> Document:
    """A decision kept the sentence it was about; now it keeps what that sentence rested on, where it can be told."""

    def rested(decision: Document) -> Document:
        if "basis" in decision:
            return decision
        return {"about": "", **decision, "basis": basis_of(document, decision)}

    return _each(document, "decisions", rested)


def _each(document: Document, group: str, change: Any) -> Document:
    entries = document.get(group)
    if not isinstance(entries, list):
        return document
    return {**document, group: [change(one) if isinstance(one, dict) else one for one in entries]}
