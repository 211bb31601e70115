"""What is seen at a step without a figure, read from `seen.toml`."""

from __future__ import annotations

from enum import StrEnum

from fulmen.core.model.readings import StepKey
from fulmen.core.reference.tables import read_toml


class Sight(StrEnum):
    """Whether what is seen is as it should be."""

    RIGHT = "right"
    WRONG = "wrong"


RCD_HOLDS = (StepKey.RCD_HALF_AC_0, StepKey.RCD_HALF_AC_180, StepKey.RCD_HALF_PULSE_0, StepKey.RCD_HALF_PULSE_180)


def sight(step: StepKey, what: Sight) -> str:
    """What somebody sees who looks; empty where the step has nothing to see.

    >>> sight(StepKey.DIODE, Sight.WRONG)
    'The unit closes and charges.'
    """
    entry = read_toml(__package__, "seen").get("rcd_hold" if step in RCD_HOLDS else step.value, {})
    return str(entry.get(what.value, ""))
