"""Defects that are often found in passing, to pick from; common practice, no source."""

from __future__ import annotations

from fulmen.core.model.base import Part
from fulmen.core.model.stops import Stop


class UsualDefect(Part):
    """A defect in its usual words, where it is found, and whether it can hurt somebody as it is."""

    what: str
    stop: Stop
    dangerous: bool = False


USUAL_DEFECTS = (
    UsualDefect(what="Cut-out cover broken or missing", stop=Stop.CUT_OUT, dangerous=True),
    UsualDefect(what="Signs of heat at the cut-out", stop=Stop.CUT_OUT, dangerous=True),
    UsualDefect(what="Meter terminals not covered", stop=Stop.METER, dangerous=True),
    UsualDefect(what="Tails not marked brown and blue", stop=Stop.TAILS),
    UsualDefect(what="Tails not fixed, pulling on the terminals", stop=Stop.TAILS),
    UsualDefect(what="Tails scorched", stop=Stop.TAILS, dangerous=True),
    UsualDefect(what="Earthing conductor loose at its terminal", stop=Stop.EARTH, dangerous=True),
    UsualDefect(what="Bonding clamp loose or without its label", stop=Stop.EARTH),
    UsualDefect(what="Conductor loose in its terminal", stop=Stop.BOARD, dangerous=True),
    UsualDefect(what="Conductor over-stripped, bare end showing", stop=Stop.BOARD),
    UsualDefect(what="One end of a ring not clamped", stop=Stop.BOARD),
    UsualDefect(what="Neutral bar burnt", stop=Stop.BOARD, dangerous=True),
    UsualDefect(what="Terminal scorched", stop=Stop.BOARD, dangerous=True),
    UsualDefect(what="Blank missing, live parts can be touched", stop=Stop.BOARD, dangerous=True),
    UsualDefect(what="Circuits without labels", stop=Stop.BOARD),
    UsualDefect(what="Plastic board indoors", stop=Stop.BOARD),
    UsualDefect(what="No RCD test notice", stop=Stop.BOARD),
    UsualDefect(what="Hole through a fire barrier not sealed", stop=Stop.ROUTE),
)
