"""An app on a temporary database, for store, web and browser tests."""

from __future__ import annotations

import tempfile
import threading
import time
import unittest
from datetime import datetime
from functools import cache
from pathlib import Path
from typing import Any

from waitress import wasyncore

from fulmen.settings import Settings
from fulmen.store.database import Sessions
from fulmen.store.papers import Seen, ask_for_certificate, issue_next, wish_state
from fulmen.store.stored_jobs import StoredJob
from fulmen.store.tables import PaperRow
from fulmen.store.upkeep import back_up, migrate
from fulmen.web.app import create_app
from fulmen.web.doors.listening import FRONT_THREADS, Bounds, Door, front_bounds, listen
from tests.acts import signed_job, warrant, word_header
from tests.jobs import job
from tests.when import NOW as NOW

# How long a test waits for what is rendered at lowest priority while everything else runs beside it: on a full machine a
# certificate took longer than a minute.
PATIENCE_S = 300


FOLDERS: list[tempfile.TemporaryDirectory[str]] = []


@cache
def migrated() -> Settings:
    """A migrated, empty database: migrated once, copied for each test."""
    FOLDERS.append(tempfile.TemporaryDirectory())
    settings = Settings(database=Path(FOLDERS[-1].name) / "migrated.sqlite")
    migrate(settings)
    return settings


class AppCase(unittest.TestCase):
    """A migrated, empty app before each test."""

    start_from = staticmethod(migrated)

    def setUp(self) -> None:
        # A page that was just closed may still be saving while its folder goes.
        folder = tempfile.TemporaryDirectory(ignore_cleanup_errors=True)
        self.addCleanup(folder.cleanup)
        self.settings = Settings(database=Path(folder.name) / "test.sqlite")
        back_up(self.start_from(), self.settings.database)
        self.app = create_app(self.settings)
        self.sessions: Sessions = self.app.extensions["sessions"]
        self.client = self.app.test_client()
        self.addCleanup(self.let_go, self.app)

    @staticmethod
    def let_go(app: Any) -> None:
        """Its queue, whoever looks for other ways, and its connections end before its folder goes."""
        app.extensions["lookings"].stop_all()
        app.extensions["issuing"].stop()
        app.extensions["sessions"].kw["bind"].dispose()

    def looked(self, what: str, body: Any) -> Any:
        """What is found by whoever looks for other ways, asked for until they have ended."""
        address = f"/api/v1/{what}"
        told = self.client.post(address, json=body).get_json()
        while told["state"] in ("waits", "goes_on"):
            time.sleep(0.05)
            told = self.client.get(f"{address}/{told['ticket']}").get_json()
        self.assertEqual((told["state"], told["tried"]), ("finished", told["of"]))
        return told["found"]

    def issue(
        self, version: int = 1, job_id: int = 1, signatures: Any = None, at: datetime = NOW, render: Any = None
    ) -> PaperRow:
        """A certificate asked for and made at once."""
        signatures = job().certificate.signatures if signatures is None else signatures
        by = warrant(self.sessions, job_id, at=at)
        wish = ask_for_certificate(self.sessions, job_id, Seen(version), signatures, by, at).wish
        issue_next(self.sessions, render or (lambda issue: issue.data.encode()), lambda: at)
        paper = wish_state(self.sessions, wish.id).paper
        assert paper is not None, wish_state(self.sessions, wish.id).wish.refused
        return paper

    def issued_over_http(self, job_id: int, body: Any, version: int = 1) -> Any:
        """Ask for a certificate and wait until it is issued or refused."""
        seen = {"job": self.client.get(f"/api/v1/jobs/{job_id}").get_json()["job"]}
        headers = {"If-Match": str(version), **word_header(self.client, job_id)}
        asked = self.client.post(f"/api/v1/jobs/{job_id}/papers", json=seen | body, headers=headers)
        assert asked.status_code == 202, asked.text
        state = asked.get_json()
        until = time.monotonic() + PATIENCE_S
        while state["state"] in ("waiting", "rendering") and time.monotonic() < until:
            time.sleep(0.05)
            state = self.client.get(f"/api/v1/issues/{state['id']}").get_json()
        return state

    def store(self, name: str, changes: dict[str, Any] | None = None) -> StoredJob:
        """An example in the store, what it tells of signed there by a person."""
        return signed_job(self.sessions, job(name, changes))


class Served:
    """The app behind waitress on a free port of this machine."""

    def __init__(self, app: Any, bounds: Bounds | None = None) -> None:
        self.sockets: dict[int, Any] = {}
        self.server = listen(
            app, Door("127.0.0.1", 0, "FULMEN_PORT", FRONT_THREADS, bounds or front_bounds()), self.sockets
        )
        self.url = f"http://127.0.0.1:{self.server.effective_port}"
        self.ending = threading.Event()
        self.thread = threading.Thread(target=self._serve, daemon=True)

    def _serve(self) -> None:
        while not self.ending.is_set():
            wasyncore.loop(timeout=0.05, map=self.sockets, count=1)
        wasyncore.close_all(self.sockets)

    def __enter__(self) -> Served:
        self.thread.start()
        return self

    def __exit__(self, *raised: object) -> None:
        # Work in hand first, then the sockets, by the thread that uses them: whoever writes to a closed descriptor
        # writes to whatever has its number by then, such as the next test's database.
        self.server.task_dispatcher.shutdown(timeout=30)
        self.ending.set()
        self.thread.join(timeout=30)
