"""What is looked at where a unit is taken away, each with what is asked and what is said of it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from fulmen.core.findings.rules import removal as rules
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.model.site import CableLeft, Removal


class Left(NamedTuple):
    """One thing as it was left: the field that says so, what to ask, what is said of it right and wrong."""

    rule: Rule
    field: str
    question: str
    right: str
    wrong: str
    remedy: str


LEFT = (
    Left(
        rules.REMOVED_ENDS, "ends_safe", "Is its cable dead at both ends, each in a box and labelled?",
        "Dead at both ends, in boxes, labelled.", "An end is open, or can be made live.",
        "Take both ends off, end them in boxes, label them.",
    ),
    Left(
        rules.REMOVED_WAY, "way_closed", "Is its way blanked, or its device off, locked and labelled?",
        "Blanked, or off, locked and labelled.", "Left open, or on.",
        "Fit a blank, or lock the device off and label it.",
    ),
    Left(
        rules.REMOVED_EARTH, "earth_whole",
        "Are earth and bonding of the house whole, its own electrode taken out or labelled?",
        "Whole; an electrode of its own is out or labelled.", "Something that it carried hangs loose.",
        "Join what it carried again, and read it.",
    ),
    Left(
        rules.REMOVED_REST, "rest_works", "Was what shares its guards (RCD, open-PEN device, load limit) tested again?",
        "Tested again, or nothing shared them.", "Not tested, or it failed.", "Test it before you leave.",
    ),
    Left(
        rules.REMOVED_HOLES, "holes_closed", "Are its holes closed against rain and fire?", "Closed.", "Left open.",
        "Close them.",
    ),
    Left(
        rules.REMOVED_LABELS, "labels_right", "Are labels and circuit chart put right?", "Put right.",
        "They still name it.", "Take its labels off, change the chart.",
    ),
    Left(
        rules.REMOVED_TOLD, "operator_told", "Was the network operator told that it is gone?", "Told.", "Not told.",
        "Tell them: a form as for one that is fitted.",
    ),
)  # fmt: skip


def wanted(removal: Removal) -> Iterator[Left]:
    """What is asked: the ends only of a cable that stays."""
    return (one for one in LEFT if one.rule is not rules.REMOVED_ENDS or removal.cable is CableLeft.PARKED)
