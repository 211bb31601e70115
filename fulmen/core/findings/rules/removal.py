"""The rules about a unit that is taken away: how what it hung on is left. Each is a fact that somebody saw."""

from __future__ import annotations

from fulmen.core.findings.finding import Stage
from fulmen.core.findings.rules.rule import Protects, Rule
from fulmen.core.model.stops import Stop

SURVEY, PEOPLE, HERE = Stage.SURVEY, Protects.PEOPLE, Stop.OWNERSHIP

REMOVED_PUT_IN = Rule(
    "removed_put_in", "Nothing is put in", SURVEY, PEOPLE,
    "Something new is switched on that nobody has designed or tested.", stop=HERE,
)  # fmt: skip
REMOVED_CABLE = Rule(
    "removed_cable", "Its cable", SURVEY, PEOPLE, "Somebody drills into a cable that he takes for dead.", stop=HERE
)
REMOVED_ENDS = Rule(
    "removed_ends", "Both ends of the cable that stays", SURVEY, PEOPLE,
    "Bare ends behind a hole in the wall are made live again.", stop=HERE,
)  # fmt: skip
REMOVED_WAY = Rule(
    "removed_way", "Its way at the board", SURVEY, PEOPLE, "A finger reaches live metal through an open way.", stop=HERE
)
REMOVED_EARTH = Rule(
    "removed_earth", "Earth and bonding of the house", SURVEY, PEOPLE,
    "What went through its earth clamp hangs on nothing now.", stop=HERE,
)  # fmt: skip
REMOVED_ELECTRODE = Rule(
    "removed_electrode", "Electrode of its own", SURVEY, PEOPLE,
    "Somebody joins the house to a rod that nobody knows.", stop=HERE,
)  # fmt: skip
REMOVED_REST = Rule(
    "removed_rest", "What shared its guards", SURVEY, PEOPLE, "Others rely on an RCD that nobody tested.", stop=HERE
)
REMOVED_HOLES = Rule(
    "removed_holes",
    "Holes in wall and floor",
    SURVEY,
    Protects.HOUSE,
    "Rain gets in, and fire gets through.",
    stop=HERE,
)
REMOVED_LABELS = Rule(
    "removed_labels", "Labels and circuit chart", SURVEY, Protects.WORK,
    "The next one switches off a circuit that is not there.", stop=HERE,
)  # fmt: skip
REMOVED_TOLD = Rule(
    "removed_told", "Operator told that it is gone", SURVEY, Protects.RECORD,
    "The supply counts a load that is not there.", stop=HERE,
)  # fmt: skip
