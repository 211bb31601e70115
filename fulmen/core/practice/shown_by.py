"""Which tests show what is hidden, when every one is taken as it is asked for."""

from __future__ import annotations

from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.finding import Finding, Topic, Verdict
from fulmen.core.findings.rules.run import LOAD_CLAMP
from fulmen.core.model.readings import LEFT_OUT
from fulmen.core.practice.exercise import BEGUN, LEARNER, Exercise
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.simulations.as_built.simulated_set import TestSet
from fulmen.core.verification.faults.faults import FaultPlace

CLAMP_TEST = "The clamp's test"


SAID = (Verdict.FALLS_SHORT, Verdict.YOUR_CALL)


def doubts(evaluation: Evaluation, said: tuple[Verdict, ...] = SAID) -> list[Finding]:
    """What is open about readings that were taken, and about the clamp's test."""
    open_ones = [one for one in evaluation.findings if one.is_open and one.verdict in said]
    return [
        one for one in open_ones if {Topic.READING, Topic.AGREEMENT} & set(one.topics) or one.rule == LOAD_CLAMP.key
    ]


def shown_by(exercise: Exercise, said: tuple[Verdict, ...] = SAID) -> tuple[str, ...]:
    """The titles of the steps whose reading is open, or that can't be read, with everything taken."""
    found = shown_at(exercise, said)
    shown = [one.title for key, one in exercise.steps.items() if key in found]
    clamped = any(one.info.where is FaultPlace.CLAMP for one in exercise.faults)
    return (*shown, *([CLAMP_TEST] if clamped else []))


def shown_at(exercise: Exercise, said: tuple[Verdict, ...] = SAID) -> set[tuple[str, str]]:
    """The same steps by key and subject."""
    steps = [one for one in exercise.steps.values() if one.kind != "hold"]
    readings = tuple(set_for(exercise, one.step).reading(one, LEARNER, BEGUN) for one in steps)
    job = exercise.job.model_copy(update={"readings": readings})
    judged = evaluate(job, rule_set(job.rule_set))
    found = {(str(one.step), one.subject) for one in doubts(judged, said) if one.step is not None}
    return found | {(str(one.step), one.subject) for one in readings if one.outcome in LEFT_OUT}


def set_for(exercise: Exercise, step: str) -> TestSet:
    """The set at a step: the same step of the same house reads the same, however often it is asked."""
    return TestSet(exercise.house, exercise.seed + sum(map(ord, step)))
