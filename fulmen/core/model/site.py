"""The site: whose it is, where it is, and where the car will stand."""

from __future__ import annotations

from enum import StrEnum

from fulmen.core.model.base import Line, Paragraph, Part


class CarPlace(StrEnum):
    """Where a car can be charged from the connector; a lead that reaches outdoors counts as outdoors."""

    OUTDOORS = "outdoors"
    INDOORS_ONLY = "indoors_only"
    NOT_SEEN = "not_seen"


class WorkKind(StrEnum):
    """What the certificate is for."""

    NEW_INSTALLATION = "new_installation"
    ADDITION = "addition"
    ALTERATION = "alteration"


class Site(Part):
    """The dwelling and its householder."""

    householder: Line = ""
    address: Paragraph = ""
    car_place: CarPlace = CarPlace.NOT_SEEN
    work: WorkKind = WorkKind.ADDITION
    extent: Paragraph = ""
