"""What a check answers: a finding with its verdict, figure, limit, margin, clause and working.

A rule that fails is a finding. Rendering to text, page and paper is elsewhere.
"""

from __future__ import annotations

from dataclasses import field
from enum import StrEnum
from typing import Literal, NewType

from fulmen.core.model.base import Basis
from fulmen.core.model.decisions import Decision
from fulmen.core.model.readings import StepKey
from fulmen.core.model.stops import Stop
from fulmen.core.plain import plain

# The name of a rule: many are words that a field bears as well, and a plain string is none of them.
RuleKey = NewType("RuleKey", str)


class Verdict(StrEnum):
    """The four verdicts, everywhere the same."""

    MEETS = "meets"
    FALLS_SHORT = "falls_short"
    NEEDS = "needs"
    YOUR_CALL = "your_call"


class Stage(StrEnum):
    """The stage of the job that a finding or a step belongs to."""

    SURVEY = "survey"
    DESIGN = "design"
    DEAD = "dead"
    LIVE = "live"


class Topic(StrEnum):
    """What a finding is listed with besides its stage."""

    PEOPLE = "people"
    DESIGN = "design"
    DEMAND = "demand"
    OPERATOR = "operator"
    READING = "reading"
    AGREEMENT = "agreement"
    CLAMP = "clamp"


WaitsFor = Literal["fact", "reading"]
# What a person can do about a finding where it is told: have changes tried that would mend it, or say why it is so.
Offers = Literal["remedies", "reason"]


@plain
class WorkingLine:
    """One line of a working: symbol = formula = figures substituted = value unit, and the table used."""

    symbol: str
    formula: str = ""
    figures: str = ""
    value: float | None = None
    decimals: int = 2
    unit: str = ""
    source: str = ""

    def text(self) -> str:
        """The line as plain text.

        >>> WorkingLine(symbol="Zs", formula="Ze + Zc", figures="0.21 + 0.12", value=0.33, unit="Ω").text()
        'Zs = Ze + Zc = 0.21 + 0.12 = 0.33 Ω'
        """
        result = "" if self.value is None else f"{self.value:.{self.decimals}f} {self.unit}".rstrip()
        line = " = ".join(part for part in (self.symbol, self.formula, self.figures, result) if part)
        return f"{line}   [{self.source}]" if self.source else line


@plain
class Proof:
    """A test that proves what a rule leans on: a step, and whose reading it is.

    An RCD's is its opening at the rated current, whatever the way of testing that was chosen.
    """

    step: StepKey
    subject: str


@plain
class Condition:
    """What makes a call sound: something that can be looked at, by its key and in words."""

    key: str
    words: str


@plain
class Finding:
    """One judged question about the job; `findings.question` makes it.

    `basis` is what the verdict rests on, as data: a decision about the finding holds while it stays the same, whatever
    the sentences say. `key` identifies it among all findings of one job, by rule and subject; `is_open` says whether it
    still stands in the way of a certificate. `margin` is the share of the limit left over: (limit − value)/limit where
    the value must stay at or below, (value − limit)/limit where it must reach it; negative when it falls short. `fear`
    says what can happen where it falls short, `school` which way of two this is where practice differs; `protects`
    marks the rules that protect people at the car. `conditions` are those of which one must be named where it is
    decided. `proven_by` are the tests of what it leans on. `waits_for` says what it needs, `offers` what can be done
    about it. `place` is the stop of the walk where its facts are looked at; `step` the test step it judges; `whose`
    names the circuit or board it is about, where the job holds several. `alike` are the keys of other open calls of the
    same rule on the same facts: one reason may serve them all.
    """

    key: str
    rule: RuleKey
    subject: str
    stage: Stage
    title: str
    verdict: Verdict
    is_open: bool
    protects: bool
    detail: str
    clause: str
    basis: Basis = field(default_factory=dict)
    place: Stop | None = None
    step: StepKey | None = None
    topics: tuple[Topic, ...] = ()
    value: float | None = None
    limit: float | None = None
    unit: str = ""
    decimals: int = 2
    at_least: bool = False
    waits_for: WaitsFor | None = None
    offers: Offers | None = None
    margin: float | None = None
    working: tuple[WorkingLine, ...] = ()
    remedy: str = ""
    fear: str = ""
    school: str = ""
    conditions: tuple[Condition, ...] = ()
    named: bool = False
    proven_by: tuple[Proof, ...] = ()
    whose: str = ""
    alike: tuple[str, ...] = ()
    decision: Decision | None = None

    def condition_words(self) -> str:
        """The condition that its decision rests on, in words; empty where none was asked for."""
        chosen = self.decision.condition if self.decision is not None else ""
        return next((one.words for one in self.conditions if one.key == chosen), "")

    def figures(self) -> str:
        """Value against limit as plain text, empty where the question has no figure."""
        if self.value is None:
            return ""
        value = f"{self.value:.{self.decimals}f} {self.unit}".strip()
        if self.limit is None:
            return value
        return f"{value}, at {'least' if self.at_least else 'most'} {self.limit:.{self.decimals}f}"
