"""Two at one job: who is there, which step they have open, and how far the job has come."""

import unittest
from typing import Any

from fulmen.web.testing.beside import GONE_AFTER_S, MOST_DEVICES, MOST_JOBS, Beside, Opened
from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT

API = "/api/v1"

ONE, OTHER = "0" * 16, "f" * 16


class Heard(unittest.TestCase):
    def setUp(self) -> None:
        self.now = 0.0
        self.beside = Beside(lambda: self.now)

    def test_each_hears_of_the_others_and_not_of_themselves(self) -> None:
        wren, dunnock = Opened("Wren", "zs", "ev"), Opened("Dunnock")
        self.assertEqual(self.beside.heard(1, ONE, wren), ())
        self.assertEqual(self.beside.heard(1, OTHER, dunnock), (wren,))
        self.assertEqual(self.beside.heard(1, ONE, wren), (dunnock,))
        self.assertEqual(self.beside.heard(2, OTHER, dunnock), ())

    def test_who_is_not_heard_of_for_a_while_is_gone(self) -> None:
        self.beside.heard(1, ONE, Opened("Wren"))
        for after, there in ((GONE_AFTER_S - 0.1, 1), (GONE_AFTER_S, 1), (GONE_AFTER_S + 0.1, 0)):
            self.now = after
            self.assertEqual(len(self.beside.heard(1, OTHER, Opened("Dunnock"))), there, after)

    def test_who_gave_no_name_is_nobody(self) -> None:
        self.beside.heard(1, ONE, Opened(""))
        self.assertEqual(self.beside.heard(1, OTHER, Opened("Dunnock")), ())

    def test_a_flood_of_devices_or_jobs_takes_no_room(self) -> None:
        for number in range(10 * MOST_DEVICES):
            others = self.beside.heard(1, f"{number:016d}", Opened("Wren"))
        self.assertEqual(len(others), MOST_DEVICES - 1)
        for number in range(MOST_JOBS + 10):
            self.beside.heard(number + 2, ONE, Opened("Wren"))
        self.assertEqual(self.beside.heard(1, OTHER, Opened("Dunnock")), ())


class Now(AppCase):
    def ask(self, device: str = ONE, **more: Any) -> Any:
        return self.client.post(f"{API}/jobs/1/now", json={"device": device, **more})

    def test_whatever_happens_to_a_job_shows_in_its_revision(self) -> None:
        stored = self.store(DEVICE_IN_UNIT, {"readings": []})
        first = self.ask().get_json()["revision"]
        self.assertEqual(first, stored.revision)
        reading = {"step": "ze", "subject": "origin", "outcome": "measured", "value": 0.2, "taken_by": "Wren",
                   "entered_by": "Dunnock", "taken_at": "2026-11-26T10:00:00Z"}  # fmt: skip
        came = self.client.post(f"{API}/jobs/1/readings", json=reading).get_json()
        self.assertEqual(self.ask().get_json()["revision"], came["revision"])
        self.assertGreater(came["revision"], first)
        kept = came["job"]["readings"][-1]
        self.assertEqual((kept["taken_by"], kept["entered_by"]), ("Wren", "Dunnock"))

    def test_who_else_is_there_and_what_they_have_open(self) -> None:
        self.store(DEVICE_IN_UNIT)
        self.assertEqual(self.ask(name="Wren", step="zs", subject="ev").get_json()["others"], [])
        told = self.ask(OTHER, name="Dunnock").get_json()["others"]
        self.assertEqual(told, [{"name": "Wren", "step": "zs", "subject": "ev"}])
        # Nothing of it is stored.
        self.assertNotIn("Wren", self.client.get(f"{API}/jobs/1").text)

    def test_what_is_no_such_thing_is_told_by_its_field(self) -> None:
        self.store(DEVICE_IN_UNIT)
        self.assertEqual(self.client.post(f"{API}/jobs/99/now", json={"device": ONE}).status_code, 404)
        for body, field in (({"device": ""}, "device"), ({"device": "A B"}, "device"), ({"device": ONE, "step": "guess"}, "step"),
                            ({"device": ONE, "subject": "a b"}, "subject"), ({"device": ONE, "name": "a\u202eb"}, "name")):  # fmt: skip
            answer = self.client.post(f"{API}/jobs/1/now", json=body)
            self.assertEqual((answer.status_code, answer.get_json()["field"]), (422, field), body)

    def test_nobody_signs_for_another(self) -> None:
        self.store(DEVICE_IN_UNIT, {"readings": []})
        hold = {"step": "isolated", "subject": "origin", "outcome": "right", "taken_by": "Wren", "entered_by": "Dunnock",
                "taken_at": "2026-11-26T10:00:00Z"}  # fmt: skip
        for door in ("readings", "holds"):
            self.assertGreaterEqual(self.client.post(f"{API}/jobs/1/{door}", json=hold).status_code, 400)
        self.assertEqual(self.client.get(f"{API}/jobs/1").get_json()["job"]["readings"], [])


if __name__ == "__main__":
    unittest.main()
