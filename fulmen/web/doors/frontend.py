"""Serving the built front end; every page address that is no file is the app itself."""

from __future__ import annotations

import mimetypes
import secrets
from pathlib import Path

from flask import Blueprint, Response, abort, current_app, g, request, send_from_directory

from fulmen.web.doors.compression import built_encodings
from fulmen.web.doors.policy import Role, allows

frontend = Blueprint("frontend", __name__)
# Where the page's one-time word goes, which lets the theme's style in.
NONCE = "csp-nonce-goes-here"


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
        response = _built(folder, page)
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response
    if page and _is_file(folder / page):
        return send_from_directory(folder, page)
    g.nonce = secrets.token_urlsafe(16)
    page_text = (folder / "index.html").read_text(encoding="utf-8").replace(NONCE, g.nonce)
    return Response(page_text, mimetype="text/html", headers={"Cache-Control": "no-store"})


def _built(folder: Path, page: str) -> Response:
    """A built file, as it was compressed at the build where the client takes that."""
    for encoding, ending in built_encodings(request.headers.get("Accept-Encoding", "")):
        if _is_file(folder / f"{page}{ending}"):
            kind = mimetypes.guess_type(page)[0] or "application/octet-stream"
            response = send_from_directory(folder, f"{page}{ending}", mimetype=kind)
            response.headers["Content-Encoding"] = encoding
            break
    else:
        response = send_from_directory(folder, page)
    response.vary.add("Accept-Encoding")
    return response


def _is_file(path: Path) -> bool:
    """Whether there is such a file; a name that no disk takes is none."""
    try:
        return path.is_file()
    except (OSError, ValueError):
        return False
