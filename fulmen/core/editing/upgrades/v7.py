"""From version 7: of a unit taken away one answer says one thing; a yes that could mean two is asked again.

What a move takes is no longer a job's own: it is the same for every order, so that orders can be compared.
"""

from __future__ import annotations

from typing import Any

Document = dict[str, Any]
DOUBLE = ("way_closed", "rest_works")


def removal_says_one_thing(document: Document) -> Document:
    """A way left open stays open; what "blanked, or locked off" and "tested, or nothing shared" meant is asked."""
    site = document.get("site")
    if not isinstance(site, dict) or not isinstance(removal := site.get("removal"), dict):
        return document
    kept = {name: value for name, value in removal.items() if name not in DOUBLE}
    if removal.get("way_closed") == "no":
        kept["way_at_board"] = "open"
    return {**document, "site": {**site, "removal": kept}}


def moves_are_no_jobs_own(document: Document) -> Document:
    """The seconds of moves go."""
    testing = document.get("testing")
    if not isinstance(testing, dict):
        return document
    return {**document, "testing": {name: value for name, value in testing.items() if name != "moves"}}


def asks_again(document: Document) -> bool:
    """Whether a unit was said to be taken away in a document of this version."""
    site = document.get("site")
    return isinstance(site, dict) and site.get("work") == "removed"
