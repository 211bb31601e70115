"""What a check answers: a finding with its verdict, figure, limit, margin, clause and working.

A rule that fails is a finding. Rendering to text, page and paper is elsewhere.
"""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from fulmen.core.model.base import Part
from fulmen.core.model.decisions import Decision
from fulmen.core.units import telling_decimals


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


WaitsFor = Literal["fact", "reading"]


class WorkingLine(Part):
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


class Finding(Part):
    """One judged question about the job.

    `margin` is the share of the limit left over: (limit − value)/limit where the value must stay at or
    below, (value − limit)/limit where it must reach it; negative when it falls short. `fear` says what can happen
    where it falls short, `school` which way of two this is where practice differs;
    `protects` marks the rules that protect people at the car. `whose` names the circuit or board it is about, where
    the job holds several.
    """

    rule: str
    subject: str
    stage: Stage
    title: str
    verdict: Verdict
    detail: str
    clause: str
    value: float | None = None
    limit: float | None = None
    unit: str = ""
    decimals: int = 2
    at_least: bool = False
    waits_for: WaitsFor = "fact"
    margin: float | None = None
    working: tuple[WorkingLine, ...] = ()
    remedy: str = ""
    fear: str = ""
    school: str = ""
    protects: bool = False
    whose: str = ""
    decision: Decision | None = None

    def key(self) -> str:
        """Identifies the finding among all findings of one job."""
        return f"{self.rule}/{self.subject}"

    def is_open(self) -> bool:
        """Whether it still stands in the way of a certificate."""
        if self.verdict is Verdict.YOUR_CALL:
            return self.decision is None
        return self.verdict is not Verdict.MEETS

    def figures(self) -> str:
        """Value against limit as plain text, empty where the question has no figure."""
        if self.value is None:
            return ""
        value = f"{self.value:.{self.decimals}f} {self.unit}".strip()
        if self.limit is None:
            return value
        return f"{value}, at {'least' if self.at_least else 'most'} {self.limit:.{self.decimals}f}"


def judged(
    *,
    rule: str,
    subject: str,
    title: str,
    value: float,
    limit: float,
    unit: str,
    clause: str,
    detail: str = "",
    stage: Stage = Stage.DESIGN,
    at_least: bool = False,
    decimals: int = 2,
    working: tuple[WorkingLine, ...] = (),
    remedy: str = "",
    otherwise: Verdict = Verdict.FALLS_SHORT,
    waits_for: WaitsFor = "fact",
) -> Finding:
    """A finding whose verdict follows from a value and a limit; exactly at the limit meets.

    Args:
        at_least: the value must reach the limit; otherwise it must not pass it.
        otherwise: the verdict when it does not hold.
        mend: what would put it right, kept only when it does not hold.
    """
    holds = value >= limit - 1e-9 if at_least else value <= limit + 1e-9
    spare = (value - limit) if at_least else (limit - value)
    return Finding(
        rule=rule,
        subject=subject,
        stage=stage,
        title=title,
        verdict=Verdict.MEETS if holds else otherwise,
        detail=detail,
        clause=clause,
        value=value,
        limit=limit,
        unit=unit,
        decimals=decimals if holds else telling_decimals(value, limit, decimals),
        at_least=at_least,
        waits_for=waits_for,
        margin=spare / limit if limit else None,
        working=working,
        remedy="" if holds else remedy,
    )


def stated(
    rule: str,
    subject: str,
    title: str,
    verdict: Verdict,
    detail: str,
    clause: str,
    *,
    stage: Stage = Stage.DESIGN,
    remedy: str = "",
    working: tuple[WorkingLine, ...] = (),
    waits_for: WaitsFor = "fact",
) -> Finding:
    """A finding about a fact or a choice, without a figure."""
    return Finding(
        rule=rule,
        subject=subject,
        stage=stage,
        title=title,
        verdict=verdict,
        detail=detail,
        clause=clause,
        remedy=remedy,
        working=working,
        waits_for=waits_for,
    )
