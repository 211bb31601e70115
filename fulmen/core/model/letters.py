"""Letters to and from the network operator. They are only ever added."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import Day, LoadA, Paragraph, Part, PhotoRef, number


class LetterKind(StrEnum):
    """What a letter says: the first two go to the operator, the others come from there."""

    NOTICE = "notice"
    APPLICATION = "application"
    ACCEPTED = "accepted"
    FUSE_UPGRADE_BOOKED = "fuse_upgrade_booked"
    UNLOOPING_BOOKED = "unlooping_booked"
    MORE_WANTED = "more_wanted"
    WORK_DONE = "work_done"


TO_OPERATOR = (LetterKind.NOTICE, LetterKind.APPLICATION)


class Against(StrEnum):
    """What speaks against a supply."""

    LOOPED = "looped"
    CUT_OUT_NOT_SOUND = "cut_out_not_sound"
    FEEDS_BACK = "feeds_back"


# What is added up from appliances or meters may be far past what any fuse of a house carries: it is told all the same.
DemandA = Annotated[float, number(0, 100_000)]


class LetterFacts(Part):
    """What an answer of the operator rests on: the demand in whole amperes, the car, what speaks against the supply."""

    demand_a: DemandA | None = None
    load_limit_a: LoadA | None = None
    car_a: LoadA
    against: tuple[Against, ...] = Field(default=(), max_length=len(Against))


class Letter(Part):
    """One letter. `about` keeps what the job said then: an answer to other facts is no answer, and where what it was
    about can't be told, it answers nothing.

    `booked_on` is the day of the operator's own work. A `stand_in` letter comes from the simulated desk that
    ships with Fulmen: no operator has seen it.
    """

    kind: LetterKind
    dated: Day
    about: LetterFacts | None = None
    text: Paragraph = ""
    booked_on: Day | None = None
    stand_in: bool = False
    photo: PhotoRef = ""
