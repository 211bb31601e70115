"""How every blueprint of the API is made: prefix, problem answers, plain operation names."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable
from typing import Any

from flask_openapi import APIBlueprint, utils

from fulmen.web.doors.problems import Problem

described = False
# What any route may answer: by its guard, its door, or the disk below it.
ANYWHERE = (400, 403, 411, 413, 415, 422, 429, 500, 503, 507)


def document_routes() -> None:
    """Have every route described as it is imported, for the OpenAPI document; a server does not wait for that.

    Raises:
        RuntimeError: the routes were imported before.
    """
    global described
    if "fulmen.web.app" in sys.modules:
        raise RuntimeError("The routes were imported undescribed: ask for the document in a process of its own.")
    described = True
    utils.get_model_schema = _asked_once(utils.get_model_schema)


def _asked_once(schema_of: Callable[..., dict[str, Any]]) -> Callable[..., dict[str, Any]]:
    """The framework asks a model for its schema at every route that names it: a minute for one and the same answer.

    What a schema refers to is described once for the whole document, by the first route that names it.
    """
    known: dict[Any, str] = {}

    def schema(model: Any, mode: str = "validation") -> dict[str, Any]:
        if (model, mode) in known:
            # Read anew, since whoever asked writes into what it gets.
            return dict(json.loads(known[model, mode]))
        found = schema_of(model, mode)
        known[model, mode] = json.dumps({key: part for key, part in found.items() if key != "$defs"})
        return found

    return schema


def operation_id(**named: Any) -> str:
    """The view's own name is the operation's name."""
    return str(named["name"])


def api_blueprint(name: str) -> APIBlueprint:
    """A blueprint below /api/v1."""
    return APIBlueprint(
        name,
        __name__,
        url_prefix="/api/v1",
        abp_responses=dict.fromkeys(ANYWHERE, Problem),
        operation_id_callback=operation_id,
        doc_ui=described,
    )
