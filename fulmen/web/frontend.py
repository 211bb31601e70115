"""Serving the built front end; every page address that is no file is the app itself."""

from __future__ import annotations

from pathlib import Path

from flask import Blueprint, Response, abort, current_app, send_from_directory

from fulmen.web.policy import Role, allows

frontend = Blueprint("frontend", __name__)


@frontend.get("/", defaults={"page": ""})
@frontend.get("/<path:page>")
@allows(Role.ANYONE)
def show_page(page: str) -> Response:
    """A built file, or the app's one page."""
    folder = current_app.config["FRONTEND"]
    if page.startswith("api/"):
        abort(404, "There is no such address in the API.")
    if not (folder / "index.html").is_file():
        abort(503, "The front end is not built yet: run make demo.")
    if page.startswith("assets/"):
        response = send_from_directory(folder, page)
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response
    if page and _is_file(folder / page):
        return send_from_directory(folder, page)
    response = send_from_directory(folder, "index.html")
    response.headers["Cache-Control"] = "no-cache"
    return response


def _is_file(path: Path) -> bool:
    """Whether there is such a file; a name that no disk takes is none."""
    try:
        return path.is_file()
    except (OSError, ValueError):
        return False
