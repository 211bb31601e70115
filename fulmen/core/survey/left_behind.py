"""What is looked at where a unit is taken away, each with what is asked and what is said of every answer."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from enum import StrEnum
from typing import NamedTuple

from fulmen.core.findings.rules import removal as rules
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import CableLeft, ElectrodeLeft, Removal, SharedLeft, WayLeft


class Left(NamedTuple):
    """One thing as it was left: the field that says so, what to ask, what is said of each answer, right or wrong.

    An answer that is neither is none yet.
    """

    rule: Rule
    field: str
    question: str
    right: Mapping[StrEnum, str]
    wrong: Mapping[StrEnum, str]
    remedy: str


def _seen(rule: Rule, field: str, question: str, right: str, wrong: str, remedy: str) -> Left:
    return Left(rule, field, question, {Seen.YES: right}, {Seen.NO: wrong}, remedy)


LEFT = (
    _seen(
        rules.REMOVED_ENDS, "ends_safe", "Is its cable dead at both ends, each in a box and labelled?",
        "Dead at both ends, in boxes, labelled.", "An end is open, or can be made live.",
        "Take both ends off, end them in boxes, label them.",
    ),
    Left(
        rules.REMOVED_WAY, "way_at_board", "What became of its way at the board?",
        {WayLeft.BLANKED: "Blanked.", WayLeft.LOCKED_OFF: "Its device off, locked and labelled."},
        {WayLeft.OPEN: "Left open, or on."}, "Fit a blank, or lock the device off and label it.",
    ),
    _seen(
        rules.REMOVED_EARTH, "earth_whole", "Are earth and bonding of the house whole?", "Whole.",
        "Something that it carried hangs loose.", "Join what it carried again, and read it.",
    ),
    Left(
        rules.REMOVED_ELECTRODE, "electrode", "What became of an electrode of its own?",
        {
            ElectrodeLeft.HAD_NONE: "It had none.", ElectrodeLeft.TAKEN_OUT: "Taken out.",
            ElectrodeLeft.LABELLED: "Left, labelled as not in use.",
        },
        {ElectrodeLeft.UNMARKED: "Left, and nothing says what it is."}, "Take it out, or label it.",
    ),
    Left(
        rules.REMOVED_REST, "shared", "Was what shared its guards (RCD, open-PEN device, load limit) tested again?",
        {SharedLeft.NOTHING_SHARED: "Nothing shared them.", SharedLeft.WORKS: "Tested again, works."},
        {SharedLeft.NOT_TESTED: "Not tested.", SharedLeft.FAILED: "Tested again, failed."},
        "Put it right, and test it before you leave.",
    ),
    _seen(
        rules.REMOVED_HOLES, "holes_closed", "Are its holes closed against rain and fire?", "Closed.", "Left open.",
        "Close them.",
    ),
    _seen(
        rules.REMOVED_LABELS, "labels_right", "Are labels and circuit chart put right?", "Put right.",
        "They still name it.", "Take its labels off, change the chart.",
    ),
    _seen(
        rules.REMOVED_TOLD, "operator_told", "Was the network operator told that it is gone?", "Told.", "Not told.",
        "Tell them: a form as for one that is fitted.",
    ),
)  # fmt: skip
# Asked where the cable is so: ends of one that stays, a way that feeds nothing.
ONLY_WHERE = {
    rules.REMOVED_ENDS: frozenset({CableLeft.PARKED}),
    rules.REMOVED_WAY: frozenset(CableLeft) - {CableLeft.FEEDS_OTHER},
}


def wanted(removal: Removal) -> Iterator[Left]:
    """What is asked of a unit that is taken away."""
    return (one for one in LEFT if removal.cable in ONLY_WHERE.get(one.rule, CableLeft))
