"""Serialising answers, and the one clock of the web layer."""

from __future__ import annotations

from datetime import UTC, datetime

from flask import Response, current_app, request
from pydantic import BaseModel

from fulmen.core.answer import Asker, told_to
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import rule_set
from fulmen.store.database import Sessions, kept_designs
from fulmen.store.stored_jobs import StoredJob
from fulmen.web.schemas import JobState

# How a page says what it shows of a job.
SHOWS = "Fulmen-Shows"


def asker() -> Asker:
    """Who asks, by what is shown there; whoever says nothing is told everything."""
    said = request.headers.get(SHOWS, Asker.ALL)
    return Asker(said) if said in set(Asker) else Asker.ALL


def reply(body: BaseModel, status: int = 200) -> Response:
    """A model as JSON."""
    return Response(body.model_dump_json(), status, mimetype="application/json")


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


def now() -> datetime:
    """The time, in UTC."""
    return datetime.now(UTC)


def store() -> Sessions:
    """Where this app's operations get their transactions from."""
    sessions: Sessions = current_app.extensions["sessions"]
    return sessions
