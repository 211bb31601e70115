"""Job documents of an earlier version, as an old file or an open page sends them, brought up before a view reads."""

from __future__ import annotations

from typing import Any

from flask import request

from fulmen.core.editing.upgrades import is_older, upgraded


def bring_up_to_date() -> None:
    """Upgrade the job that a request's body is, or holds as `job`, where it says an earlier version."""
    if not request.is_json:
        return
    body = request.get_json(silent=True)
    inner = body.get("job") if isinstance(body, dict) else None
    for document in (body, inner):
        if isinstance(document, dict) and is_older(document.get("schema_version")):
            _replace(document, upgraded(document, document["schema_version"]))


def _replace(document: dict[str, Any], new: dict[str, Any]) -> None:
    """In place: the body is parsed once and kept with the request."""
    document.clear()
    document.update(new)
