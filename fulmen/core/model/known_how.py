"""How the known facts of a job are known, where that is worth keeping: a side map by path."""

from __future__ import annotations

from enum import StrEnum


class KnownHow(StrEnum):
    """How a fact is known; one not seen is only reckoned with."""

    SEEN = "seen"
    TOLD = "told"
    MAKERS_PAPER = "makers_paper"
    OPERATOR = "operator"
    MEASURED = "measured"
    TAKEN_AS_USUAL = "taken_as_usual"
    EARLIER_VERSION = "earlier_version"
    NOT_SEEN = "not_seen"
