"""From version 3: that a load limit holds is shown by the clamp's test, no longer said with one tap."""

from __future__ import annotations

from typing import Any

Document = dict[str, Any]
FIELD = "load_limit_proven"


def limits_are_proven_by_a_test(document: Document) -> Document:
    """The tap goes; what it said is no figure, so the question is open until the test is written down."""
    supply, known_how = document.get("supply"), document.get("known_how")
    after = dict(document)
    if isinstance(supply, dict):
        after["supply"] = {name: value for name, value in supply.items() if name != FIELD}
    if isinstance(known_how, dict):
        after["known_how"] = {path: how for path, how in known_how.items() if path != f"supply.{FIELD}"}
    return after
