"""Errors as application/problem+json: one clear sentence, and the field it is about."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from typing import cast

from flask import Flask, Response, current_app, request
from pydantic import BaseModel, ValidationError
from sqlalchemy.exc import DatabaseError
from werkzeug.exceptions import HTTPException, RequestEntityTooLarge

from fulmen.core.editing.differences import Difference
from fulmen.core.editing.job_file import MAX_BYTES
from fulmen.core.errors import InputError, JobFileError, PaperError
from fulmen.core.field_messages import input_errors
from fulmen.core.model.job import Job
from fulmen.core.verification.certificate_gaps import Gap
from fulmen.store.database import something_kept
from fulmen.store.errors import (
    Altered,
    AppendOnly,
    Busy,
    Conflict,
    InUse,
    KeyTaken,
    LinkGone,
    MovedOn,
    NotAsSeen,
    NotFound,
    NothingChanged,
    NotReady,
    NotYours,
    Outdated,
    StoreError,
    TooMany,
)
from fulmen.told import disk_trouble

# Refusals that their own sentence explains.
PLAIN: tuple[tuple[type[StoreError], str, int], ...] = (
    (NotFound, "Not found", 404),
    (NothingChanged, "Nothing changed", 409),
    (TooMany, "Full", 409),
    (MovedOn, "Moved on", 409),
    (Outdated, "Out of date", 410),
    (InUse, "In use", 409),
    (LinkGone, "Link ended", 410),
    (KeyTaken, "Another entry", 409),
    (NotYours, "Not signed", 403),
    (Altered, "Altered", 409),
    (Busy, "Busy", 503),
)


class FieldProblem(BaseModel):
    """One field at fault."""

    field: str
    message: str


class Problem(BaseModel):
    """What every error answers with. `stored`, `version`, who saved it (as typed) and when, and each field that differs
    come with a conflict, `gaps` with a refused issue."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    field: str = ""
    fields: list[FieldProblem] = []
    version: int | None = None
    stored: Job | None = None
    saved_by: str = ""
    saved_at: datetime | None = None
    differences: list[Difference] = []
    gaps: list[Gap] = []


MOST_FIELDS = 100


def problem_response(problem: Problem) -> Response:
    """The problem as an HTTP answer."""
    return Response(problem.model_dump_json(), problem.status, mimetype="application/problem+json")


def input_problem(errors: list[InputError], status: int = 422) -> Response:
    """The answer to fields that can't be taken; the first one speaks for all, of very many the first are named."""
    fields = [FieldProblem(field=error.field, message=error.message) for error in errors[:MOST_FIELDS]]
    return problem_response(
        Problem(title="Can't be taken", status=status, detail=errors[0].message, field=errors[0].field, fields=fields)
    )


def validation_response(error: ValidationError) -> Response:
    """The answer to a body or query that does not fit its schema."""
    return input_problem(input_errors(error))


def _conflict(error: Conflict) -> Response:
    stored = error.stored
    problem = Problem(title="Saved meanwhile", status=409, detail=str(error), version=stored.version, stored=stored.job)
    told = {"saved_by": stored.by, "saved_at": stored.at, "differences": list(error.differences)}
    return problem_response(problem.model_copy(update=told))


def register_problems(app: Flask) -> None:
    """Have every error answered as a problem."""

    @app.errorhandler(JobFileError)
    def job_file(error: JobFileError) -> Response:
        return input_problem(error.problems)

    @app.errorhandler(InputError)
    def input_error(error: InputError) -> Response:
        return input_problem([error])

    @app.errorhandler(PaperError)
    def paper_error(error: PaperError) -> Response:
        return problem_response(Problem(title="Can't be printed", status=409, detail=str(error)))

    app.register_error_handler(Conflict, _conflict)

    @app.errorhandler(AppendOnly)
    def append_only(error: AppendOnly) -> Response:
        return input_problem([InputError(error.field, str(error))])

    @app.errorhandler(NotAsSeen)
    def not_as_seen(error: NotAsSeen) -> Response:
        return problem_response(Problem(title="Not as saved", status=409, detail=str(error), field=error.field))

    @app.errorhandler(NotReady)
    def not_ready(error: NotReady) -> Response:
        return problem_response(Problem(title="Not ready", status=409, detail=str(error), gaps=list(error.gaps)))

    for kind, title, status in PLAIN:
        app.register_error_handler(kind, _plain(title, status))

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        if error.response is not None:
            return cast(Response, error.response)
        detail = error.description or error.name
        if error.code == 413 and error.description == RequestEntityTooLarge.description:
            most = request.max_content_length or MAX_BYTES
            detail = f"Too big: at most {most / 1e6:.0f} MB can be taken."
        return problem_response(Problem(title=error.name, status=error.code or 500, detail=detail))

    @app.errorhandler(DatabaseError)
    def database(error: DatabaseError) -> Response:
        trouble = disk_trouble(str(error.orig))
        if trouble is None:
            return unexpected(error)
        # With SQLite's own name for it: one sentence of its stands for thirty errors.
        which = getattr(error.orig, "sqlite_errorname", "")
        current_app.logger.warning("the store can't be used: %s %s", error.orig, which)
        status, detail = trouble
        return problem_response(Problem(title="Store out of reach", status=status, detail=detail + _kept()))

    @app.errorhandler(Exception)
    def unexpected(error: Exception) -> Response:
        current_app.logger.exception("unexpected error", exc_info=error)
        detail = f"Fulmen made a mistake. The log says more.{_kept()}"
        return problem_response(Problem(title="Unexpected error", status=500, detail=detail))


def _kept() -> str:
    """Whether anything was saved before it went wrong."""
    return " What you sent was saved." if something_kept.get() else " Nothing was saved."


def _plain(title: str, status: int) -> Callable[[StoreError], Response]:
    """The answer to a refusal that its own sentence explains."""
    return lambda error: problem_response(Problem(title=title, status=status, detail=str(error)))
