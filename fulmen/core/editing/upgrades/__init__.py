"""Job files of earlier versions brought to the present one, by small steps in order.

A step takes the decoded document of its version and gives it changed; it takes anything that JSON can hold, and leaves
alone what it does not know: the model refuses that afterwards, by name. A step never guesses a fact.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from fulmen.core.editing.upgrades.v1 import (
    boards_without_phases,
    decisions_rest_on_facts,
    letter_rests_on_facts,
    letters_rest_on_facts,
    provenance_of_units,
)
from fulmen.core.editing.upgrades.v2 import (
    arrangement_for_each_point,
    guards_stand_in_boards,
    reliance_names_the_unit,
    tails_in_stretches,
)
from fulmen.core.editing.upgrades.v2_facts import defaults_are_not_facts
from fulmen.core.editing.upgrades.v3 import limits_are_proven_by_a_test
from fulmen.core.editing.upgrades.v5 import asks_again, found_things_are_said
from fulmen.core.editing.upgrades.v6 import fuse_standard_is_chosen
from fulmen.core.editing.upgrades.v7 import moves_are_no_jobs_own, removal_says_one_thing
from fulmen.core.model.job import SCHEMA_VERSION

Document = dict[str, Any]
STEPS: dict[int, tuple[Callable[[Document], Document], ...]] = {
    1: (boards_without_phases, provenance_of_units, letters_rest_on_facts, decisions_rest_on_facts),
    2: (
        reliance_names_the_unit,
        guards_stand_in_boards,
        tails_in_stretches,
        arrangement_for_each_point,
        defaults_are_not_facts,
    ),
    3: (limits_are_proven_by_a_test,),
    # Readings stay as they were taken; what is not what its step asks for is told, and counts for nothing.
    4: (),
    5: (found_things_are_said,),
    6: (fuse_standard_is_chosen,),
    7: (removal_says_one_thing, moves_are_no_jobs_own),
}
OLDEST = min(STEPS)
# From this version on nothing is a fact of a found thing because it was a default.
FACTS_SAID = 6


def is_older(version: object) -> bool:
    """Whether this is the number of a version before the present one."""
    return type(version) is int and OLDEST <= version < SCHEMA_VERSION


def upgraded(document: Document, version: int) -> Document:
    """A document of a known version as one of the present version."""
    return {**_brought_to(document, version, SCHEMA_VERSION), "schema_version": SCHEMA_VERSION}


def _brought_to(document: Document, version: int, to: int) -> Document:
    for earlier in range(version, to):
        for step in STEPS[earlier]:
            document = step(document)
    return document


def asks_again_for_facts(document: Document) -> bool:
    """Whether a document of an earlier version has to be asked for facts that it seemed to hold."""
    version = document.get("schema_version")
    if not isinstance(version, int) or not OLDEST <= version < FACTS_SAID:
        return False
    return asks_again(_brought_to(document, version, FACTS_SAID - 1))


def upgraded_letter(letter: Document) -> Document:
    """A letter that is kept by itself, in the shape of the day it was kept; it is never written anew."""
    return letter_rests_on_facts(letter)
