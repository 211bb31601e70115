"""The house's own sources: what they are, where they come in, how much they feed, and how they stand when alone."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from fulmen.core.model.base import Id, LoadA, Part
from fulmen.core.model.seen import Seen


class SourceKind(StrEnum):
    """What feeds the house besides the network."""

    SOLAR = "solar"
    BATTERY = "battery"
    GENERATOR = "generator"


class Source(Part):
    """One own source. `board` is where it comes in, `feeds_a` the most that it feeds at once on a line.

    `runs_alone` says whether it goes on when the network is gone, `own_earth` whether it then has an earth of its own.
    """

    kind: SourceKind = SourceKind.SOLAR
    board: Id | Literal[""] = ""
    feeds_a: LoadA | None = None
    runs_alone: Seen = Seen.NOT_SEEN
    own_earth: Seen = Seen.NOT_SEEN
