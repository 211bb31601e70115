"""The queue of certificates goes on living: a store that is gone costs one line and a pause, never a spin or a thread."""

import shutil
import threading
import time
import unittest
from unittest.mock import patch

from fulmen.core.papers.certificate import certificate_contents
from fulmen.settings import Settings
from fulmen.store.database import open_database, sessions
from fulmen.store.papers import Issue
from fulmen.web.app import create_app
from fulmen.web.papers.issuing import IssuingQueue
from tests.app import NOW, PATIENCE_S, AppCase
from tests.jobs import DEVICE_IN_UNIT, job

SIGNED = {"signatures": [one.model_dump(mode="json") for one in job().certificate.signatures]}


class Queue(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.store(DEVICE_IN_UNIT)

    def of_its_own(self, settings: Settings) -> IssuingQueue:
        made = sessions(open_database(settings))
        queue = IssuingQueue(made, certificate_contents, lambda issue: b"%PDF-", lambda: NOW)
        self.addCleanup(made.kw["bind"].dispose)
        self.addCleanup(queue.stop)
        return queue

    def test_a_store_that_is_gone_is_told_in_a_line_and_asked_again_later_and_later(self) -> None:
        gone = self.settings.database.parent / "gone"
        queue = self.of_its_own(Settings(database=gone / "fulmen.sqlite"))
        shutil.rmtree(gone)
        with (
            patch("fulmen.web.papers.issuing.FIRST_PAUSE_S", 0.01),
            self.assertLogs("fulmen.web.papers.issuing") as logs,
        ):
            queue.wake()
            until = time.monotonic() + PATIENCE_S
            while len(logs.output) < 4 and time.monotonic() < until:
                time.sleep(0.01)
            queue.stop()
        self.assertFalse(gone.exists())
        self.assertEqual({len(line.splitlines()) for line in logs.output}, {1})
        self.assertIn("unable to open database file", logs.output[0])

    def test_it_spins_no_faster_than_its_pauses_allow(self) -> None:
        """Whatever goes wrong, in a second it tries at most four times: after 0.1, 0.3 and 0.7 s."""
        with (
            patch("fulmen.web.papers.issuing.issue_next", side_effect=OSError("the disk is full")) as tried,
            self.assertLogs("fulmen.web.papers.issuing"),
        ):
            queue, started = self.of_its_own(self.settings), time.monotonic()
            queue.wake()
            time.sleep(1.0)
            queue.stop()
            took_s = time.monotonic() - started
        # Each pause is twice the one before: n tries take at least 0.1·(2^(n-1) - 1) s.
        self.assertLessEqual(0.1 * (2 ** (tried.call_count - 1) - 1), took_s)
        self.assertGreaterEqual(tried.call_count, 1)

    def test_after_an_error_what_waits_is_made(self) -> None:
        failed = threading.Event()

        def fails_once(issue: Issue) -> bytes:
            if not failed.is_set():
                failed.set()
                raise RuntimeError("no font")
            return b"%PDF-"

        app = create_app(self.settings, render=fails_once)
        self.addCleanup(self.let_go, app)
        self.client = app.test_client()
        with self.assertLogs("fulmen.web.papers.issuing") as seen:
            self.assertEqual(self.issued_over_http(1, SIGNED)["state"], "refused")
            # The store says so a moment before the queue's own thread writes its line.
            until = time.monotonic() + PATIENCE_S
            while not seen.records and time.monotonic() < until:
                time.sleep(0.01)
        self.assertEqual(self.issued_over_http(1, SIGNED)["state"], "issued")


if __name__ == "__main__":
    unittest.main()
