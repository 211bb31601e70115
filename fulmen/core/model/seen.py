"""The answer to a yes-or-no question that somebody has to look at."""

from __future__ import annotations

from enum import StrEnum


class Seen(StrEnum):
    """The answer to a yes-or-no question at the survey; not seen yet is an answer."""

    YES = "yes"
    NO = "no"
    NOT_SEEN = "not_seen"
