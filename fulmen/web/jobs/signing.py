"""What an act of a person comes with: a session of this browser, a page of ours that sends it, and a one-time word."""

from __future__ import annotations

import secrets
from datetime import timedelta
from typing import Annotated
from urllib.parse import urlsplit

from flask import Flask, Request, abort, request, session
from flask.sessions import SecureCookieSession, SecureCookieSessionInterface, SessionMixin
from itsdangerous import URLSafeTimedSerializer
from pydantic import Field

from fulmen.store.acts import Warrant
from fulmen.store.kept import session_key
from fulmen.web.jobs.schemas import EntryHeader, VersionHeader

DEVICE = "device"
SESSION_LASTS = timedelta(days=400)


class StoreSessions(SecureCookieSessionInterface):
    """Sessions signed by the store's own key, drawn when the first page asks for words: looking writes nothing."""

    def get_signing_serializer(self, app: Flask) -> URLSafeTimedSerializer | None:
        """Whatever signs and reads the cookie."""
        if app.secret_key is None:
            app.secret_key = session_key(app.extensions["sessions"])
        return super().get_signing_serializer(app)

    def open_session(self, app: Flask, request: Request) -> SecureCookieSession | None:
        """The session that a browser brings; one that brings none has an empty one."""
        if self.get_cookie_name(app) not in request.cookies:
            return self.session_class()
        return super().open_session(app, request)

    def should_set_cookie(self, app: Flask, session: SessionMixin) -> bool:
        """Only where it was begun or renewed: every other answer is free of it, and may be compressed."""
        return session.modified


Word = Annotated[str, Field(alias="Fulmen-Word", pattern=r"^[A-Za-z0-9_-]{16,64}$")]


class WordHeader(EntryHeader):
    """The one-time word that lets this device do the act, and the entry's key where its device may send it again."""

    word: Word


class SigningHeader(VersionHeader):
    """The version that was signed, and the one-time word that lets this device sign it."""

    word: Word


def this_device(*, begin: bool = False) -> str:
    """The device of this browser's session; a page that asks for words begins one."""
    _from_our_page()
    device = session.get(DEVICE)
    if device is None:
        if not begin:
            abort(403, "This page has no session: open the job again and sign there. Nothing was signed.")
        device = session[DEVICE] = secrets.token_hex(16)
        session.permanent = True
    # Whoever opens a job again keeps the session for as long again.
    session.modified = session.modified or begin
    return str(device)


def who_asks() -> str:
    """Whoever asks: by this browser's session, or by the address where it has none. It proves nothing."""
    return str(session.get(DEVICE) or request.remote_addr)


def warrant(word: str) -> Warrant:
    """What the act is done by."""
    return Warrant(word, this_device())


def _from_our_page() -> None:
    """A browser says which page sends what; whoever says nothing is no page. The householders' page is another."""
    origin = request.headers.get("Origin")
    if origin is None or urlsplit(origin).netloc != request.host:
        abort(403, "This is signed on a page of Fulmen's, by a person; nothing else can send it.")
