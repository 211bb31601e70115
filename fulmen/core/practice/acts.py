"""What a learner does in an exercise, as it is kept: each act is one of these, in the order done."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.base import Part, Subject
from fulmen.core.model.readings import StepKey
from fulmen.core.verification.instruments.dials import Link, Point

Jack = Annotated[str, Field(min_length=1, max_length=4)]
Key = Annotated[str, Field(max_length=60)]


class Sign(Part):
    """A hold is signed: isolated, proved dead and locked off; a box, `subject`, made up again; or fit to energise,
    which switches on.
    """

    kind: Literal["sign"] = "sign"
    step: Literal[StepKey.ISOLATED, StepKey.BOX_MADE_UP, StepKey.SAFE_TO_ENERGISE]
    subject: Subject = ORIGIN


class Switch(Part):
    """The main switch is put on or off."""

    kind: Literal["switch"] = "switch"
    on: bool


class Connect(Part):
    """The unit is connected to the cable's end, or taken off."""

    kind: Literal["connect"] = "connect"
    connected: bool


class Cover(Part):
    """A cover is taken off, or put back."""

    kind: Literal["cover"] = "cover"
    place: Key
    off: bool


class Unlink(Part):
    """The link at the near end of a cable is taken out."""

    kind: Literal["unlink"] = "unlink"
    subject: Subject


class Take(Part):
    """A step is taken with the set as the learner placed it."""

    kind: Literal["take"] = "take"
    step: StepKey
    subject: Subject
    dial: Key
    leads: Annotated[dict[Jack, Annotated[tuple[Point, ...], Field(max_length=2)]], Field(max_length=4)]
    linked: Link = Link.NONE
    adapter: Key = ""


class Judge(Part):
    """What the learner makes of a step's newest display: it is as it should be, or not."""

    kind: Literal["judge"] = "judge"
    step: StepKey
    subject: Subject
    right: bool


class TestClamp(Part):
    """A known load is switched on while the clamp is watched."""

    __test__ = False

    kind: Literal["clamp"] = "clamp"


class Name(Part):
    """The fault and its place are named, or that nothing is wrong; this ends the exercise."""

    kind: Literal["name"] = "name"
    fault: Key | None
    place: Key = ""


Act = Annotated[Sign | Switch | Connect | Cover | Unlink | Take | Judge | TestClamp | Name, Field(discriminator="kind")]
