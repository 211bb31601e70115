"""What is asked of somebody who looks for other ways, and what is told so far."""

from __future__ import annotations

from typing import Annotated, Generic, TypeVar

from pydantic import BaseModel, Field

from fulmen.core.alternatives.choice_menu import Alternative
from fulmen.core.alternatives.reach import Reach
from fulmen.core.alternatives.remedies import Remedy
from fulmen.core.alternatives.search.result import SearchResult
from fulmen.core.alternatives.unknowns import UnknownFact
from fulmen.core.circuit.specification import ChoiceKey
from fulmen.core.model.base import Id
from fulmen.core.verification.steps.coach import CoachPlan
from fulmen.web.jobs.schemas import Question
from fulmen.web.looking.lookings import LookingState

Found = TypeVar("Found")


class LookingPath(BaseModel):
    """The ticket that was given when somebody began to look."""

    ticket: Annotated[str, Field(min_length=16, max_length=40)]


class AlternativesQuestion(Question):
    """Which choice of which circuit of this job."""

    circuit: Id
    choice: ChoiceKey


class LookingSoFar(BaseModel, Generic[Found]):
    """How it stands with somebody who looks: how many of how many were tried, and the best so far, once there is any.

    `of` may grow or shrink a little on the way; at the end it is what was tried.
    """

    ticket: str
    state: LookingState
    tried: int
    of: int
    found: Found | None


class SearchSoFar(LookingSoFar[SearchResult]):
    """Every sensible way to feed one charge point, so far."""


class ReachSoFar(LookingSoFar[list[Reach]]):
    """How far a design holds, fact by fact, so far; in the end empty where it falls short as it stands."""


class UnknownsSoFar(LookingSoFar[list[UnknownFact]]):
    """The unknown facts of a job so far, the one that could upset most first."""


class RemediesSoFar(LookingSoFar[list[Remedy]]):
    """The smallest changes that make a finding hold, so far."""


class AlternativesSoFar(LookingSoFar[list[Alternative]]):
    """Every way to fill a choice, and what it would do: told once all are judged."""


class TestOrderSoFar(LookingSoFar[CoachPlan]):
    """The order of the test steps with the fewest moves so far: what is not placed yet keeps the book's."""
