"""What the API takes and gives about routes, chains, protection, materials and prices."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from fulmen.core.editing.chain_editing import LayoutChoice
from fulmen.core.editing.tree_editing import TreeAct
from fulmen.core.findings.finding import Finding
from fulmen.core.model.base import Id, Text
from fulmen.core.model.cables import Cable
from fulmen.core.model.route import Section, Surroundings
from fulmen.core.reference.soil import Soil
from fulmen.core.simulations.benches.pen_bench import Preset
from fulmen.web.jobs.schemas import Question


class Teaching(BaseModel):
    """The streets that teach, and the soils to plan with."""

    presets: list[Preset]
    soils: list[Soil]


Index = Annotated[int, Field(strict=True, ge=0, le=199)]


class RouteQuestion(Question):
    """How to write the route of one circuit."""

    circuit: Id
    act: Literal["write", "add", "split", "join", "surround", "cable", "rate"]
    text: Annotated[Text, Field(max_length=4000)] = ""
    index: Index = 0
    at_m: Annotated[float, Field(ge=0, le=500)] = 0.0
    surroundings: Surroundings = Surroundings.CLIPPED
    cable: Cable | None = None


class RouteAnswer(BaseModel):
    """The route as it then reads."""

    route: list[Section]


class PointQuestion(Question):
    """About one charge point of a job."""

    charge_point: Id


class LayoutList(BaseModel):
    """Ways to feed a charge point."""

    layouts: list[LayoutChoice]


class NodeQuestion(Question):
    """About one part of the tree, by its name: whatever stands by one in a job."""

    node: Id


class ActQuestion(NodeQuestion):
    """One act on a part of the tree."""

    act: TreeAct


class TreeActs(BaseModel):
    """What can be done with a part of the tree."""

    acts: list[TreeAct]


class FindingQuestion(Question):
    """About one finding."""

    finding: Annotated[Text, Field(min_length=3, max_length=120)]


class WholeFinding(BaseModel):
    """All of one finding."""

    finding: Finding


class PriceFile(BaseModel):
    """A price list as CSV."""

    model_config = ConfigDict(extra="forbid")

    text: Annotated[str, Field(max_length=250_000)]
