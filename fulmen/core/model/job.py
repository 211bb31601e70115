"""The job document: everything known about one charge point circuit."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from fulmen.core.model.base import Line, Part, Text
from fulmen.core.model.boards import Board
from fulmen.core.model.cables import MakerCable
from fulmen.core.model.certificate import Particulars
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.day import ChargingDay
from fulmen.core.model.decisions import Decision
from fulmen.core.model.defects import Defect
from fulmen.core.model.elsewhere import Elsewhere
from fulmen.core.model.inspections import Inspection, InspectionItem
from fulmen.core.model.instruments import Instrument
from fulmen.core.model.known_how import KnownHow
from fulmen.core.model.letters import Letter
from fulmen.core.model.load import Load
from fulmen.core.model.readings import Reading
from fulmen.core.model.site import Site
from fulmen.core.model.supply import Supply
from fulmen.core.model.testing import Testing

SCHEMA_VERSION: Literal[8] = 8


FieldPath = Annotated[str, Field(pattern=r"^[a-z0-9_]+(\.[a-z0-9_]+){0,8}$", max_length=120)]


class Job(Part):
    """One job. Boards and circuits form a tree from the origin; a run is derived, never stored.

    `known_how` says of a fact, by its path, how it is known, where that is told.
    """

    schema_version: Literal[8] = SCHEMA_VERSION
    rule_set: Line = "bs7671_2018_a3_2024"
    title: Annotated[Text, Field(min_length=1, max_length=120)]
    reference: Line = ""
    site: Site = Site()
    supply: Supply = Supply()
    load: Load = Load()
    day: ChargingDay = ChargingDay()
    boards: tuple[Board, ...] = Field(default=(), max_length=20)
    circuits: tuple[Circuit, ...] = Field(default=(), max_length=40)
    charge_points: tuple[ChargePoint, ...] = Field(default=(), max_length=10)
    known_how: dict[FieldPath, KnownHow] = Field(default_factory=dict, max_length=2000)
    maker_cables: tuple[MakerCable, ...] = Field(default=(), max_length=20)
    defects: tuple[Defect, ...] = Field(default=(), max_length=60)
    letters: tuple[Letter, ...] = Field(default=(), max_length=200)
    decisions: tuple[Decision, ...] = Field(default=(), max_length=1000)
    testing: Testing = Testing()
    readings: tuple[Reading, ...] = Field(default=(), max_length=2000)
    inspections: tuple[Inspection, ...] = Field(default=(), max_length=40)
    certificate: Particulars = Particulars()
    elsewhere: Elsewhere = Elsewhere()

    @model_validator(mode="after")
    def _like_units_share_their_facts(self) -> Job:
        """Facts of a kind are entered once: whoever names another unit of its kind has that one's."""
        by_id = {one.id: one for one in self.charge_points if not one.like}
        alike = tuple(one.as_like(by_id[one.like]) if one.like in by_id else one for one in self.charge_points)
        if alike != self.charge_points:
            self.__dict__["charge_points"] = alike
        return self

    def instrument(self, name: str) -> Instrument | None:
        """The instrument of this name in the register."""
        return next((one for one in self.testing.instruments if one.name == name), None)

    def inspection(self, item: InspectionItem) -> Inspection | None:
        """What was found under this heading of the schedule of inspections."""
        return next((entry for entry in self.inspections if entry.item == item), None)

    def decision(self, key: str) -> Decision | None:
        """The decision that settles the finding of this key, if one was taken."""
        return next((entry for entry in reversed(self.decisions) if entry.key == key), None)
