"""The testing layer: steps, limits and bands, readings judged and held against each other, and the deadline they set.

It takes a design and the readings; whoever types a reading waits for this alone.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial

from fulmen.core.checks.operator import operator_findings
from fulmen.core.findings.finding import Finding
from fulmen.core.judging.design import Design
from fulmen.core.judging.merging import once_each
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS, ByStep, Reading, by_step
from fulmen.core.network_operator.notification import OperatorMatter, energised_on, operator_matter
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.verification.faults.diagnosis import Diagnosis, diagnoses
from fulmen.core.verification.reading_order import order_findings
from fulmen.core.verification.readings.cross_checks import agreement_findings
from fulmen.core.verification.readings.instrument_checks import instrument_findings, stray_findings
from fulmen.core.verification.readings.kept_steps import JudgedStep, judged_once
from fulmen.core.verification.readings.reading_fit import misfit_findings
from fulmen.core.verification.readings.taken_again import retest_findings
from fulmen.core.verification.steps.planned import PlannedStep, plan
from fulmen.core.verification.steps.run_test import RunTest
from fulmen.core.verification.steps.sequence import Step

# Every step that a design asks for, judged by some readings.
JudgeSteps = Callable[[ByStep], tuple[JudgedStep, ...]]


@dataclass(frozen=True, slots=True)
class Tested:
    """The tests of a design judged: its steps with what was read, the operator's deadline, what is found, and what that
    looks like together.
    """

    readings: ByStep
    steps: tuple[Step, ...]
    matter: OperatorMatter
    told: tuple[Finding, ...]
    found: tuple[Finding, ...]
    looks_like: tuple[Diagnosis, ...] = ()


def testing_of(design: Design, job: Job, counting: tuple[Reading, ...], judge: JudgeSteps | None) -> Tested:
    """Judge the readings of a job against its design.

    Args:
        design: the job's design.
        job: the whole job.
        counting: those of its readings that count, see `fitting`.
        judge: judges the steps that the design asks for; none where nobody wants them, nor what follows from them.
    """
    live_on, rules = energised_on(counting), design.rules
    readings = replace(by_step(counting), back=by_step(job.readings).back)
    matter = operator_matter(design.installation.job, rules, design.demand, live_on)
    judged = judge(readings) if judge is not None else ()
    steps = tuple(one.step for one in judged)
    unfit = tuple(misfit_findings(job, counting, rules))
    if not design.has_charge_point:
        asked_of_removal = design.is_removal and judge is not None
        left = _removal_findings(readings, counting, steps, rules) if asked_of_removal else []
        return Tested(readings, steps, matter, (), (*once_each(left, job, design.still), *unfit))
    told = operator_findings(design.cases[0], matter, live_on)
    tests = [RunTest(case, readings) for case in design.cases]
    register = design.installation.job.testing.instruments
    # What protects people at the car follows from readings held against each other: that needs no step.
    found = [*(one.finding for one in judged if one.finding is not None), *agreement_findings(tests)]
    if judge is not None:
        found += order_findings(readings, steps, rules)
        found += instrument_findings(register, counting, rules)
        found += [*retest_findings(steps, rules), *stray_findings(readings, steps, rules)]
    of_operator, of_readings, misfits = (once_each(each, job, design.still) for each in (told, found, unfit))
    # The clamp was judged with the design.
    told_of = (*of_readings, *design.along)
    looks_like = diagnoses(tests, steps, told_of) if judge is not None else ()
    return Tested(readings, steps, matter, of_operator, (*of_readings, *misfits), looks_like)


def _removal_findings(
    readings: ByStep, counting: tuple[Reading, ...], steps: tuple[Step, ...], rules: RuleSet
) -> list[Finding]:
    """Of a unit that is taken away: the holds in their order, and what was read of it while it was there."""
    holds = by_step(tuple(one for one in counting if one.step in HOLDS))
    return [*order_findings(holds, steps, rules), *stray_findings(readings, steps, rules)]


def steps_of(design: Design) -> tuple[PlannedStep, ...]:
    """The steps that a design asks for, none of them worked out yet."""
    if design.is_removal:
        return plan(list(design.cases[:1]), only=HOLDS)
    return plan(list(design.cases), design.proofs)


def judging_once(design: Design) -> JudgeSteps:
    """Judges the steps of a design for who asks but once."""
    return partial(judged_once, steps_of(design), design.rules)
