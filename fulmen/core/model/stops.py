"""The stops of the survey, from the street inwards."""

from __future__ import annotations

from enum import StrEnum


class Stop(StrEnum):
    """Where you stand and look."""

    CUT_OUT = "cut_out"
    METER = "meter"
    TAILS = "tails"
    EARTH = "earth"
    BOARD = "board"
    ROUTE = "route"
    PARKING = "parking"
    DATA = "data"
    LOADS = "loads"
    OWNERSHIP = "ownership"
    CHARGE_POINT = "charge_point"
