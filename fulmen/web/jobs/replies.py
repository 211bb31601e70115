"""A job judged, and a stored job as an answer."""

from __future__ import annotations

from flask import Response

from fulmen.core.answer import told_to
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import rule_set
from fulmen.store.database import kept_designs
from fulmen.store.stored_jobs import StoredJob
from fulmen.web.doors.replies import asker, reply, store
from fulmen.web.jobs.schemas import JobState


def job_reply(stored: StoredJob, status: int = 200) -> Response:
    """A stored job with its version as ETag."""
    state = JobState(
        id=stored.id,
        version=stored.version,
        revision=stored.revision,
        cleaned=stored.cleaned,
        job=stored.job,
        evaluation=told_to(asker(), stored.evaluation),
    )
    response = reply(state, status)
    response.headers["ETag"] = f'"{stored.version}"'
    return response


def judged(job: Job) -> Evaluation:
    """What a job's own rules say of it, whether it is stored or not."""
    return evaluate(job, rule_set(job.rule_set), kept_designs(store()))
