"""Errors as application/problem+json: one clear sentence, and the field it is about."""

from __future__ import annotations

from typing import cast

from flask import Flask, Response, current_app
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from fulmen.core.certificate import Gap
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.field_messages import input_errors
from fulmen.core.job_file import MAX_BYTES
from fulmen.core.model.job import Job
from fulmen.store.errors import Conflict, NotFound, NothingChanged, NotReady, ReadingsChanged


class FieldProblem(BaseModel):
    """One field at fault."""

    field: str
    message: str


class Problem(BaseModel):
    """What every error answers with. `stored` and `version` come with a conflict, `gaps` with a refused issue."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    field: str = ""
    fields: list[FieldProblem] = []
    version: int | None = None
    stored: Job | None = None
    gaps: list[Gap] = []


def problem_response(problem: Problem) -> Response:
    """The problem as an HTTP answer."""
    return Response(problem.model_dump_json(), problem.status, mimetype="application/problem+json")


def input_problem(errors: list[InputError], status: int = 422) -> Response:
    """The answer to fields that can't be taken; the first one speaks for all."""
    fields = [FieldProblem(field=error.field, message=error.message) for error in errors]
    return problem_response(
        Problem(title="Can't be taken", status=status, detail=errors[0].message, field=errors[0].field, fields=fields)
    )


def validation_response(error: ValidationError) -> Response:
    """The answer to a body or query that does not fit its schema."""
    return input_problem(input_errors(error))


def register_problems(app: Flask) -> None:
    """Have every error answered as a problem."""

    @app.errorhandler(JobFileError)
    def job_file(error: JobFileError) -> Response:
        return input_problem(error.problems)

    @app.errorhandler(InputError)
    def input_error(error: InputError) -> Response:
        return input_problem([error])

    @app.errorhandler(NotFound)
    def not_found(error: NotFound) -> Response:
        return problem_response(Problem(title="Not found", status=404, detail=str(error)))

    @app.errorhandler(Conflict)
    def conflict(error: Conflict) -> Response:
        return problem_response(
            Problem(title="Saved meanwhile", status=409, detail=str(error), version=error.version, stored=error.stored)
        )

    @app.errorhandler(ReadingsChanged)
    def readings_changed(error: ReadingsChanged) -> Response:
        return input_problem([InputError("readings", str(error))])

    @app.errorhandler(NotReady)
    def not_ready(error: NotReady) -> Response:
        first = error.gaps[0].text
        detail = f"{error} {len(error.gaps)} open, first: {first}."
        return problem_response(Problem(title="Not ready", status=409, detail=detail, gaps=list(error.gaps)))

    @app.errorhandler(NothingChanged)
    def nothing_changed(error: NothingChanged) -> Response:
        return problem_response(Problem(title="Nothing changed", status=409, detail=str(error)))

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        if error.response is not None:
            return cast(Response, error.response)
        details = {413: f"Too big: at most {MAX_BYTES / 1e6:.0f} MB can be taken."}
        detail = details.get(error.code or 500, error.description or error.name)
        return problem_response(Problem(title=error.name, status=error.code or 500, detail=detail))

    @app.errorhandler(Exception)
    def unexpected(error: Exception) -> Response:
        current_app.logger.exception("unexpected error", exc_info=error)
        detail = "Fulmen made a mistake; nothing was saved. The log says more."
        return problem_response(Problem(title="Unexpected error", status=500, detail=detail))
