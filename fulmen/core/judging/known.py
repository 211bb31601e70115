"""Where a job is parted in two: what its design is judged from, and the readings that the testing layer takes."""

from __future__ import annotations

from fulmen.core.circuit.measured import measured_of
from fulmen.core.circuit.run_figures import Known, known_of
from fulmen.core.demand.demand import demand_of
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.verification.readings.reading_fit import fitting


def unread(job: Job) -> Job:
    """The job without its readings: all of it that a design is judged from."""
    return job.model_copy(update={"readings": ()}) if job.readings else job


def known_for(job: Job, rules: RuleSet) -> Known:
    """What the runs of a job are worked out from; its structure must have been checked."""
    installation = installation_of(unread(job))
    return known_of(installation, rules, demand_of(installation, rules), measured_of(fitting(job)))
