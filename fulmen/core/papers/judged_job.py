"""A job as its papers look at it: what both layers say of it, its installation, its runs with what was read."""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.circuit.run_figures import CircuitFigures, Known, cases_of
from fulmen.core.evaluate import Evaluation
from fulmen.core.installation.installation import Installation
from fulmen.core.judging.known import known_for
from fulmen.core.model.job import Job
from fulmen.core.model.readings import ByStep, by_step
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.verification.readings.reading_fit import fitting
from fulmen.core.verification.steps.run_test import RunTest


@dataclass(frozen=True, slots=True)
class JudgedJob:
    """A job with its evaluation, the figures of its circuits, and the readings that count."""

    job: Job
    evaluation: Evaluation
    known: Known
    tests: tuple[RunTest, ...]
    readings: ByStep

    @property
    def installation(self) -> Installation:
        """The job's installation."""
        return self.known.installation

    def of_circuit(self, circuit: str) -> tuple[RunTest, CircuitFigures] | None:
        """The run that a circuit is judged on first, and the circuit's figures; None where it has none."""
        for test in self.tests:
            chained = test.case.figures_of(circuit)
            if chained is not None:
                return test, chained
        return None


def judged_job(job: Job, evaluation: Evaluation, rules: RuleSet) -> JudgedJob:
    """A job as its papers look at it."""
    readings, known = by_step(fitting(job)), known_for(job, rules)
    return JudgedJob(job, evaluation, known, tuple(RunTest(case, readings) for case in cases_of(known)), readings)
