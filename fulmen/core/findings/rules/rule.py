"""What the register keeps of one rule; its clause and its limits are the edition's, see `reference.rule_set`."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import NamedTuple

from fulmen.core.findings.finding import Condition, RuleKey, Stage, Topic
from fulmen.core.model.readings import StepKey
from fulmen.core.model.stops import Stop


class Protects(StrEnum):
    """What a rule is there for."""

    PEOPLE = "people at the car"
    HOUSE = "the house and who lives there"
    CABLE = "cable and equipment"
    SUPPLY = "the supply and the neighbours"
    WORK = "who works on it"
    RECORD = "what the papers say"


class Schools(NamedTuple):
    """Two ways that good practitioners go; the cautious one first."""

    cautious: str
    other: str

    def words(self) -> str:
        """Both in one sentence, for who takes the other."""
        return f"Cautious school: {self.cautious}. This one: {self.other}."


@dataclass(frozen=True)
class Rule:
    """One rule, `written` by its name.

    `title` is the question, with places in braces for what it is asked about. `stage` is where its answer shows,
    `asked_at` where its facts are entered, if elsewhere; `stop` where on the walk they are looked at and `looks_at` by
    which names of facts there, first things first. `short` names its figure in a list. `can_happen` says what may
    follow where it falls short, `schools` where practice differs, `conditions` what makes a call of it sound, of which
    a decision names one.
    """

    written: str
    title: str
    stage: Stage
    protects: Protects
    can_happen: str = ""
    stop: Stop | None = None
    asked_at: Stage | None = None
    short: str = ""
    schools: Schools | None = None
    conditions: tuple[Condition, ...] = ()
    topics: tuple[Topic, ...] = ()
    step: StepKey | None = None
    looks_at: tuple[str, ...] = ()
    told_with_choices: bool = False

    @property
    def key(self) -> RuleKey:
        """Its name, as findings bear it."""
        return RuleKey(self.written)

    @property
    def protects_people(self) -> bool:
        """Whether it protects people at the car."""
        return Topic.PEOPLE in self.topics

    def borne_out(self, **holds: bool) -> tuple[Condition, ...]:
        """The conditions that the facts of a job don't contradict; one that is not named is for a person to look at.

        Where they contradict every one, all are asked about: none of them may be left out unseen.
        """
        return tuple(one for one in self.conditions if holds.get(one.key, True)) or self.conditions
