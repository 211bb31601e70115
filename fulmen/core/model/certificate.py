"""What the certificate says beyond the design and the readings: comments, departures, signatures."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import Day, Line, Name, Paragraph, Part


class SignedPart(StrEnum):
    """The three parts that are each signed for."""

    DESIGN = "design"
    CONSTRUCTION = "construction"
    INSPECTION_AND_TESTING = "inspection_and_testing"


class Signature(Part):
    """One person signing for one part of the work."""

    part: SignedPart
    name: Name
    position: Line = ""
    company: Line = ""
    address: Line = ""
    registration: Line = ""
    signed_on: Day


class Particulars(Part):
    """The particulars that only the certificate asks for."""

    departures: Paragraph = ""
    comments_on_existing: Paragraph = ""
    next_inspection_years: Annotated[int, Field(strict=True, ge=1, le=10)] | None = None
    signatures: tuple[Signature, ...] = Field(default=(), max_length=3)

    def signature(self, part: SignedPart) -> Signature | None:
        """Who signed for this part, if anybody."""
        return next((entry for entry in self.signatures if entry.part == part), None)
