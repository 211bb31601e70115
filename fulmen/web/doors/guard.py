"""What stands between the network and the views: same origin only, safe headers, bounded bodies.

A body is one JSON object, unless its view says that it takes a photo.
"""

from __future__ import annotations

from collections.abc import Callable
from threading import Lock
from typing import Any, TypeVar
from urllib.parse import urlsplit

from flask import Flask, Response, abort, current_app, g, request

from fulmen.documents.paper_reader import MOST_BYTES
from fulmen.photos import MAX_BYTES as PHOTO_BYTES
from fulmen.store.database import something_kept
from fulmen.store.errors import Busy
from fulmen.web.doors import policy

View = TypeVar("View", bound=Callable[..., Any])

# Scripts and styles from files of ours alone; the one style that is made in the browser bears the page's nonce.
POLICY = (
    "default-src 'self'; script-src 'self'; style-src 'self'{nonce}; img-src 'self' data: blob:; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)
# A built script, style or font is no page: what only pages heed would be sent sixty times for nothing.
BUILT, BUILT_KINDS = "/assets/", ("text/javascript", "application/javascript", "text/css", "font/woff2")
HEADERS_OF_BUILT = {"Cross-Origin-Resource-Policy": "same-origin", "X-Content-Type-Options": "nosniff"}
HEADERS = {
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Permissions-Policy": "geolocation=(), camera=(), microphone=()",
}
# A job travels inside a question with little around it, so bodies get some room above the file's limit.
MORE_THAN_A_JOB = 50_000
HALF_HOURS_BYTES = 4_000_000
CHANGING = ("POST", "PUT", "PATCH", "DELETE")


def takes(most_bytes: int, *, file: str = "") -> Callable[[View], View]:
    """Declare on a view a body larger than usual, or one that is a file instead of JSON: a "photo" or a "PDF"."""

    def mark(view: View) -> View:
        view.takes = (most_bytes, file)  # type: ignore[attr-defined]
        return view

    return mark


def one_at_a_time(view: View) -> View:
    """Declare on a view that its calls are handled one after another, from before their bodies are read.

    Fifty that come at the same moment share the interpreter with whoever saves meanwhile as one would.
    """
    view.turn = Lock()  # type: ignore[attr-defined]
    return view


# How long a call waits for the others before it.
TURN_S = 20


takes_photo = takes(PHOTO_BYTES, file="photo")
takes_paper = takes(MOST_BYTES, file="PDF")


def register_guard(app: Flask) -> None:
    """Check every request before its view, and set safe headers on every answer."""

    @app.before_request
    def before() -> None:
        something_kept.set(False)
        if request.endpoint is not None:
            policy.check(request.endpoint)
        if request.method in CHANGING:
            _same_origin()
            _wait_for_turn()
            _body()

    @app.teardown_request
    def end_turn(_: BaseException | None) -> None:
        turn: Lock | None = g.pop("turn", None)
        if turn is not None:
            turn.release()

    @app.after_request
    def after(response: Response) -> Response:
        if request.path.startswith(BUILT) and response.mimetype in BUILT_KINDS:
            response.headers.update(HEADERS_OF_BUILT)
            return response
        nonce = f" 'nonce-{g.nonce}'" if "nonce" in g else ""
        response.headers.setdefault("Content-Security-Policy", POLICY.format(nonce=nonce))
        for name, value in (HEADERS_OF_BUILT | HEADERS).items():
            response.headers.setdefault(name, value)
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response


def _same_origin() -> None:
    """Another site's page must not change anything here; behind a proxy the householders' address is ours too."""
    origin = request.headers.get("Origin")
    if origin is None:
        return
    outside = urlsplit(current_app.config["HOUSEHOLDER_URL"])
    ours = {f"{request.scheme}://{request.host}", f"{outside.scheme}://{outside.netloc}"}
    if origin not in ours:
        abort(403, "This request comes from another site.")


def _wait_for_turn() -> None:
    turn: Lock | None = getattr(current_app.view_functions.get(request.endpoint or ""), "turn", None)
    if turn is None:
        return
    if not turn.acquire(timeout=TURN_S):
        raise Busy("Many ask for this at the same moment: try again in a moment. Nothing was done.")
    g.turn = turn


def _body() -> None:
    view = current_app.view_functions.get(request.endpoint or "")
    usual = (current_app.config["MAX_CONTENT_LENGTH"], "")
    most_bytes, file = getattr(view, "takes", usual)
    request.max_content_length = most_bytes
    if file:
        _file_body(file, most_bytes)
    else:
        _json_body()


# What a browser may say that a file of each kind is. No type of these can be sent by another site's form.
TYPES = {"photo": "image/", "PDF": "application/pdf"}


def _file_body(file: str, most_bytes: int) -> None:
    """The type is only what a browser guesses; the bytes decide."""
    if request.content_length is None:
        abort(411, f"Say how long the {file} is.")
    if request.content_length > most_bytes:
        abort(413, f"The {file} is too big: at most {most_bytes / 1e6:.0f} MB can be taken.")
    if not request.mimetype.startswith(TYPES[file]) and request.mimetype != "application/octet-stream":
        abort(415, f"Send a {file}.")


def _json_body() -> None:
    if request.content_length and request.mimetype != "application/json":
        abort(415, "Send JSON.")
    # A browser says that a body is empty; a view that wants one refuses it itself.
    if not request.content_length:
        return
    try:
        body = request.get_json(silent=True)
    except RecursionError:
        abort(400, "The body is nested too deeply.")
    if body is None:
        abort(400, "The body breaks off or is no JSON.")
    if not isinstance(body, dict):
        abort(400, "The body must be one JSON object.")
