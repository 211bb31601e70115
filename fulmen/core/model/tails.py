"""The tails in stretches: from the cut-out by meter, isolator and connector blocks to a board, or to several."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from fulmen.core.model.base import CsaMm2, Id, LoadA, Part, TailsLengthM
from fulmen.core.model.seen import Seen


class TailsEnd(StrEnum):
    """What a stretch of the tails ends at."""

    METER = "meter"
    ISOLATOR = "isolator"
    BLOCKS = "blocks"
    BOARD = "board"


class TailsRun(StrEnum):
    """How a stretch of the tails runs: what cools it."""

    CLIPPED = "clipped"
    ENCLOSED = "enclosed"
    INSULATED_WALL = "insulated_wall"
    NOT_SEEN = "not_seen"


class TailsStretch(Part):
    """One stretch of the tails. It goes on from the stretch named in `after`, or from the cut-out where that is empty.

    `board` is the board it feeds. `accepted_in_writing` says whether the network operator took a size smaller than
    usual, in writing, and `accepted_to_a` up to which current.
    """

    id: Id
    after: Id | Literal[""] = ""
    ends_at: TailsEnd = TailsEnd.BOARD
    board: Id | Literal[""] = ""
    csa_mm2: CsaMm2 | None = None
    length_m: TailsLengthM | None = None
    sleeved: Seen = Seen.NOT_SEEN
    runs: TailsRun = TailsRun.NOT_SEEN
    accepted_in_writing: Seen = Seen.NOT_SEEN
    accepted_to_a: LoadA | None = None
    fitted_with_this_job: bool = False
