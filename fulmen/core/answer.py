"""What a page is told of a job: no more than it shows, and nothing worked out for what it does not show."""

from __future__ import annotations

from dataclasses import fields, is_dataclass, replace
from enum import StrEnum
from typing import Any

from fulmen.core.evaluate import Evaluation, Told, design_evaluation, evaluate
from fulmen.core.findings.finding import Finding, Stage, Topic, Verdict
from fulmen.core.judging.kept_designs import KeptDesigns
from fulmen.core.model.job import Job
from fulmen.core.plain import plain
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.verification.certificate_gaps import Gap
from fulmen.core.verification.faults.diagnosis import Diagnosis
from fulmen.core.verification.steps.sequence import Step


class Asker(StrEnum):
    """Who asks, by what is shown there."""

    ALL = "all"
    DESIGN = "design"
    TESTS = "tests"
    PAPERS = "papers"


# Which findings an asker shows; the others show them all.
SHOWN_BY = {Asker.DESIGN: (Stage.SURVEY, Stage.DESIGN), Asker.TESTS: (Stage.DEAD, Stage.LIVE)}
SHOWS_STEPS = (Asker.ALL, Asker.TESTS)


# No row shows a figure, or the share of a limit, with more.
ROW_DECIMALS = 4
# Of what is drawn: far below a pixel.
DRAWN_DECIMALS = 6


@plain
class Figure:
    """A figure against its limit, as a row shows it."""

    value: float
    limit: float | None
    unit: str
    decimals: int
    at_least: bool


@plain
class Settled:
    """A finding that nothing hangs on any more, as the row of a list: the rest of it is told to who opens it.

    What it is about stands in its `key`, after the name of its rule.
    """

    key: str
    stage: Stage
    title: str
    verdict: Verdict
    topics: tuple[Topic, ...]
    figure: Figure | None
    margin: float | None
    whose: str


class Answer(Told):
    """What the job computes to, as far as its asker shows it. Findings come worst first.

    A design page is told what is open in full, in `findings`, and what is settled as rows, in `settled`. `steps` is
    null for who shows none, and so is `gaps`, which is empty where a certificate may be issued. `looks_like` is told
    with the steps.
    """

    findings: tuple[Finding, ...]
    settled: tuple[Settled, ...]
    steps: tuple[Step, ...] | None
    gaps: tuple[Gap, ...] | None
    looks_like: tuple[Diagnosis, ...]


def answer_for(asker: Asker, job: Job, rules: RuleSet, kept: KeptDesigns) -> Answer:
    """What an asker is told of a job; raises as `evaluate`.

    Args:
        asker: who asks; what is not shown there is not worked out.
        job: the job document.
        rules: the edition.
        kept: what was worked out before.
    """
    if asker is not Asker.DESIGN:
        return told_to(asker, evaluate(job, rules, kept))
    return told_to(asker, design_evaluation(job, rules, kept))


def told_to(asker: Asker, whole: Evaluation) -> Answer:
    """The part of a whole evaluation that an asker shows."""
    shown = _shown_to(asker, whole.findings)
    folds = asker is Asker.DESIGN
    return Answer.made(
        **{name: getattr(whole, name) for name in Told.model_fields if name != "profiles"},
        profiles=tuple(_shortened(one) for one in whole.profiles) if folds else whole.profiles,
        findings=tuple(one for one in shown if one.is_open) if folds else shown,
        settled=tuple(_row(one) for one in shown if not one.is_open) if folds else (),
        steps=whole.steps if asker in SHOWS_STEPS else None,
        looks_like=whole.looks_like if asker in SHOWS_STEPS else (),
        gaps=whole.gaps if asker in (Asker.ALL, Asker.PAPERS) else None,
    )


def _shortened(told: Any) -> Any:
    """What is drawn, its figures to the decimals that a drawing can show: half of them would be digits of noise."""
    if isinstance(told, float):
        return round(told, DRAWN_DECIMALS)
    if isinstance(told, tuple):
        return tuple(_shortened(one) for one in told)
    if is_dataclass(told) and not isinstance(told, type):
        return replace(told, **{one.name: _shortened(getattr(told, one.name)) for one in fields(told)})
    return told


def _shown_to(asker: Asker, findings: tuple[Finding, ...]) -> tuple[Finding, ...]:
    stages = SHOWN_BY.get(asker)
    if stages is None:
        return findings
    # The clamp is asked about in the survey and proven among the tests.
    return tuple(one for one in findings if one.stage in stages or Topic.CLAMP in one.topics)


def _row(one: Finding) -> Settled:
    limit, margin = (None if each is None else round(each, ROW_DECIMALS) for each in (one.limit, one.margin))
    figure = None
    if one.value is not None:
        figure = Figure(round(one.value, ROW_DECIMALS), limit, one.unit, one.decimals, one.at_least)
    return Settled(one.key, one.stage, one.title, one.verdict, one.topics, figure, margin, one.whose)
