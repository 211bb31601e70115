"""The schedule of inspections: what was looked at, and what was found."""

from __future__ import annotations

from enum import StrEnum

from fulmen.core.model.base import Line, Part


class InspectionItem(StrEnum):
    """The headings looked at, in our own words, in the order of the standard's model schedule."""

    INTAKE = "intake"
    OTHER_SOURCES = "other_sources"
    AUTOMATIC_DISCONNECTION = "automatic_disconnection"
    BASIC_PROTECTION = "basic_protection"
    OTHER_PROTECTION = "other_protection"
    ADDITIONAL_PROTECTION = "additional_protection"
    DISTRIBUTION_EQUIPMENT = "distribution_equipment"
    CIRCUITS = "circuits"
    ISOLATION_AND_SWITCHING = "isolation_and_switching"
    CURRENT_USING_EQUIPMENT = "current_using_equipment"
    IDENTIFICATION_AND_NOTICES = "identification_and_notices"
    BATH_OR_SHOWER = "bath_or_shower"
    CHARGE_POINT_LOCATION = "charge_point_location"
    PROSUMER = "prosumer"


class InspectionOutcome(StrEnum):
    """What was found. A certificate is not issued over something found wrong."""

    GOOD = "good"
    WRONG = "wrong"
    NOT_APPLICABLE = "not_applicable"
    LIMITED = "limited"


class Inspection(Part):
    """One heading of the schedule and its outcome."""

    item: InspectionItem
    outcome: InspectionOutcome
    note: Line = ""
