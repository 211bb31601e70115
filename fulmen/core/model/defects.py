"""Defects found in passing: put right, or left and told the owner. They go into the certificate's comments."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import Part, Text
from fulmen.core.model.stops import Stop


class DefectOutcome(StrEnum):
    """What became of it."""

    PUT_RIGHT = "put_right"
    LEFT_TOLD_OWNER = "left_told_owner"


class Defect(Part):
    """One defect of the existing installation."""

    what: Annotated[Text, Field(min_length=3, max_length=200)]
    stop: Stop
    outcome: DefectOutcome
    dangerous: bool = False
