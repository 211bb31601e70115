"""How every blueprint of the API is made: prefix, problem answers, plain operation names."""

from __future__ import annotations

from typing import Any

from flask_openapi import APIBlueprint

from fulmen.web.problems import Problem


def operation_id(**named: Any) -> str:
    """The view's own name is the operation's name."""
    return str(named["name"])


def api_blueprint(name: str) -> APIBlueprint:
    """A blueprint below /api/v1."""
    return APIBlueprint(
        name,
        __name__,
        url_prefix="/api/v1",
        abp_responses={422: Problem},
        operation_id_callback=operation_id,
    )
