"""What a paper of a job is made of: the job, what both layers say of it, its installation, the readings that count."""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.circuit.run_figures import Known
from fulmen.core.evaluate import Evaluation
from fulmen.core.installation.installation import Installation
from fulmen.core.judging.known import known_for
from fulmen.core.model.job import Job
from fulmen.core.model.readings import ByStep, by_step
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.verification.reading_fit import fitting


@dataclass(frozen=True, slots=True)
class Contents:
    """A job with its evaluation, and what its papers look up in either."""

    job: Job
    evaluation: Evaluation
    known: Known
    readings: ByStep

    @property
    def installation(self) -> Installation:
        """The job's installation."""
        return self.known.installation


def contents_of(job: Job, evaluation: Evaluation) -> Contents:
    """What the papers of a job are made of."""
    counting = fitting(job)
    known = known_for(job, rule_set(job.rule_set))
    return Contents(job, evaluation, known, by_step(counting))
