"""How this job is tested: with which instruments, and which of two schools where practice differs."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import Part, number
from fulmen.core.model.instruments import Instrument


class LoopSchool(StrEnum):
    """How a loop measured cold is held against a limit for warm conductors."""

    SHARE = "share"
    BY_TEMPERATURE = "by_temperature"


class RcdSchool(StrEnum):
    """How many tests an RCD gets: one at its rated current, or every current, half-wave and form."""

    ONE = "one"
    TWELVE = "twelve"


class BoxSchool(StrEnum):
    """How a cable is tested past a box that no test goes through: each part by itself, or joined past the device."""

    APART = "apart"
    BRIDGED = "bridged"


class Testing(Part):
    """The choices of who tests. `conductors_c` is how warm the conductors are on the day, `test_lead_ohm` what the lead
    between a socketed unit and the adapter adds to a loop; null until looked at.
    """

    instruments: tuple[Instrument, ...] = Field(default=(), max_length=20)
    loop_school: LoopSchool = LoopSchool.SHARE
    rcd_school: RcdSchool = RcdSchool.ONE
    box_school: BoxSchool = BoxSchool.APART
    conductors_c: Annotated[float, number(-25, 60)] | None = None
    test_lead_ohm: Annotated[float, number(0, 0.5)] | None = None
