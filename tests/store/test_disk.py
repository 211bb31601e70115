"""A full disk, a database that can't be written, or is held: one clear sentence, nothing half written."""

import sqlite3
from contextlib import closing
from unittest.mock import patch

from sqlalchemy import event, text

from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.editing.job_file import write_job
from fulmen.store import database as store_database
from fulmen.store import operations
from fulmen.store.doctor import first_fault
from fulmen.web.app import create_app
from tests.acts import word_header
from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT, job

API = "/api/v1"


class Disk(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.store(DEVICE_IN_UNIT)
        self.by = {"If-Match": "1", **word_header(self.client, 1)}

    def told(self, status: int, words: str, *, every_write: bool = True) -> None:
        """Saving, reading in and issuing are told what to do, and nothing of them is kept."""
        before = operations.load_job(self.sessions, 1)
        # More than fits into the last page.
        more = {"certificate.departures": "x" * 4000, "reference": "Changed"}
        wanted = tuple(Change(field=field, value=value) for field, value in more.items())
        body = write_job(apply_changes(before.job, wanted))
        wish = {"job": before.job.model_dump(mode="json"),
                "signatures": [one.model_dump(mode="json") for one in job().certificate.signatures]}  # fmt: skip
        answers = [
            self.client.put(f"{API}/jobs/1", data=body, content_type="application/json", headers={"If-Match": "1"}),
            self.client.post(f"{API}/jobs", data=body, content_type="application/json"),
        ]
        if every_write:
            answers.append(self.client.post(f"{API}/jobs/1/papers", json=wish, headers=self.by))
        for answer in answers:
            problem = answer.get_json()
            self.assertEqual((answer.status_code, answer.mimetype), (status, "application/problem+json"), answer.text)
            self.assertIn(words, problem["detail"])
            self.assertIn("Nothing was saved.", problem["detail"])
            self.assertNotIn("mistake", problem["detail"])
        self.assertEqual(operations.load_job(self.sessions, 1), before)
        self.assertEqual(first_fault(self.settings.database), "")

    def test_the_disk_is_full(self) -> None:
        engine = self.app.extensions["sessions"].kw["bind"]

        @event.listens_for(engine, "checkout")
        def full(connection: sqlite3.Connection, *_: object) -> None:
            # No page more than there are.
            connection.execute("PRAGMA max_page_count=1")

        # A wish for a paper is so small that it may still fit into the last page.
        self.told(507, "The disk is full: make room on it", every_write=False)

    def test_the_database_can_not_be_written(self) -> None:
        engine = self.app.extensions["sessions"].kw["bind"]

        @event.listens_for(engine, "checkout")
        def read_only(connection: sqlite3.Connection, *_: object) -> None:
            connection.execute("PRAGMA query_only=ON")

        self.told(503, "can't be written: give Fulmen the right")

    def test_the_database_is_held_by_whoever(self) -> None:
        quick = tuple("busy_timeout=50" if one.startswith("busy_timeout") else one for one in store_database.PRAGMAS)
        with patch.object(store_database, "PRAGMAS", quick):
            self.app = create_app(self.settings)
            self.client = self.app.test_client()
            self.addCleanup(self.app.extensions["sessions"].kw["bind"].dispose)
            self.by = {"If-Match": "1", **word_header(self.client, 1)}
            with closing(sqlite3.connect(self.settings.database, isolation_level=None)) as other:
                other.execute("BEGIN IMMEDIATE")
                self.told(503, "The database was held for too long: try again")
                other.execute("ROLLBACK")

    def test_every_acknowledged_write_is_synced(self) -> None:
        with self.sessions() as session:
            self.assertEqual(session.scalar(text("PRAGMA synchronous")), 2)
            self.assertEqual(session.scalar(text("PRAGMA journal_mode")), "wal")
            self.assertEqual(session.scalar(text("PRAGMA recursive_triggers")), 1)

    def test_an_error_after_the_commit_does_not_say_that_nothing_was_saved(self) -> None:
        with (
            patch("fulmen.web.jobs.views.job_reply", side_effect=RuntimeError("after")),
            self.assertLogs(level="ERROR"),
        ):
            answer = self.client.post(f"{API}/jobs/blank", json={"title": "Kept"})
        self.assertEqual(answer.status_code, 500)
        self.assertIn("What you sent was saved.", answer.get_json()["detail"])
        self.assertEqual(self.client.get(f"{API}/jobs?search=Kept").get_json()["total"], 1)
        with patch("fulmen.web.jobs.views.now", side_effect=RuntimeError("before")), self.assertLogs(level="ERROR"):
            answer = self.client.post(f"{API}/jobs/blank", json={"title": "Not kept"})
        self.assertIn("Nothing was saved.", answer.get_json()["detail"])
