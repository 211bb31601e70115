"""What ends an exercise at once, read from `mishaps.toml`, with what would have happened in this very house."""

from __future__ import annotations

from enum import StrEnum

from fulmen.core.model.base import Part
from fulmen.core.reference.tables import read_toml
from fulmen.core.verification.faults.faults import Fault


class MishapKey(StrEnum):
    """What was done that hurts."""

    LIVE_BY_OHMS = "live_by_ohms"
    LIVE_TERMINALS = "live_terminals"
    UNIT_TESTED = "unit_tested"
    EARTH_OFF = "earth_off"
    NOT_DEAD_TESTED = "not_dead_tested"
    DEAD_TESTS_FAILED = "dead_tests_failed"
    LIVE_TOO_EARLY = "live_too_early"
    LINK_LEFT_IN = "link_left_in"
    COVERS_OFF = "covers_off"
    COVER_LEFT_OFF = "cover_left_off"


# After these the circuit is on, so what is wrong with it shows itself.
SWITCHED_ON = (MishapKey.NOT_DEAD_TESTED, MishapKey.DEAD_TESTS_FAILED, MishapKey.LIVE_TOO_EARLY)
MOST_NAMED = 4


class Mishap(Part):
    """What happened, in words; `then` is what would have come of it."""

    key: MishapKey
    title: str
    told: str
    then: str


def mishap(key: MishapKey, faults: tuple[Fault, ...], missing: tuple[str, ...] = ()) -> Mishap:
    """A mishap in a house with its faults; `missing` are the tests that it is about."""
    words = read_toml(__package__, "mishaps")[key]
    named = ", ".join(missing[:MOST_NAMED]) + (f" and {len(missing) - MOST_NAMED} more" if missing[MOST_NAMED:] else "")
    then = ""
    if key in SWITCHED_ON:
        happens = " ".join(one.info.switched_on for one in faults if one.info.switched_on)
        then = happens or "This time nothing would have shown. The next house is not this one."
    return Mishap(key=key, title=words["title"], told=words["told"].format(missing=named), then=then)
