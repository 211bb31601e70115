"""Serialising answers, who asks, and the one clock of the web layer."""

from __future__ import annotations

from datetime import UTC, datetime

from flask import Response, current_app, request
from pydantic import BaseModel

from fulmen.core.answer import Asker
from fulmen.store.database import Sessions

# How a page says what it shows of a job.
SHOWS = "Fulmen-Shows"


def asker() -> Asker:
    """Who asks, by what is shown there; whoever says nothing is told everything."""
    said = request.headers.get(SHOWS, Asker.ALL)
    return Asker(said) if said in set(Asker) else Asker.ALL


def reply(body: BaseModel, status: int = 200) -> Response:
    """A model as JSON."""
    return Response(body.model_dump_json(), status, mimetype="application/json")


def now() -> datetime:
    """The time, in UTC."""
    return datetime.now(UTC)


def store() -> Sessions:
    """Where this app's operations get their transactions from."""
    sessions: Sessions = current_app.extensions["sessions"]
    return sessions
