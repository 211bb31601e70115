"""Job files of an earlier version over HTTP: brought in, sent by a page left open, and inside a question."""

from typing import Any

from fulmen.core.model.job import SCHEMA_VERSION
from tests.app import AppCase
from tests.core.test_upgrades import frozen_files

API = "/api/v1"


class OldFiles(AppCase):
    def newest(self, name: str) -> dict[str, Any]:
        """The newest version 1 file of an example."""
        found = [one["document"] for one in frozen_files() if one["path"].endswith(f"{name}.json")]
        return next(one for one in reversed(found) if one["schema_version"] == 1)

    def test_each_is_brought_in(self) -> None:
        for one in frozen_files():
            with self.subTest(commit=one["commit"], path=one["path"]):
                answer = self.client.post(f"{API}/jobs", json=one["document"])
                self.assertEqual(answer.status_code, 201, answer.text[:300])
                self.assertEqual(answer.get_json()["job"]["schema_version"], SCHEMA_VERSION)

    def test_a_page_left_open_saves_what_was_typed(self) -> None:
        document = self.newest("looped-terrace-at-survey")
        about = "88 A in all, charge point 32 A; looped; cut-out not sound"
        document["letters"] = [{"kind": "accepted", "dated": "2026-11-20", "about": about}]
        state = self.client.post(f"{API}/jobs", json=document).get_json()
        self.assertEqual(state["evaluation"]["operator"]["state"], "accepted")
        document["title"] = "Typed in a page of yesterday"
        saved = self.client.put(f"{API}/jobs/{state['id']}", json=document, headers={"If-Match": str(state["version"])})
        self.assertEqual(saved.status_code, 200, saved.text[:300])
        self.assertEqual(saved.get_json()["job"]["title"], "Typed in a page of yesterday")

    def test_inside_a_question(self) -> None:
        question = {"job": self.newest("tn-c-s-device-in-unit"), "charge_point": "charge-point"}
        answer = self.client.post(f"{API}/protection/arrangements", json=question)
        self.assertEqual(answer.status_code, 200, answer.text[:300])

    def test_a_later_version_is_refused_by_name(self) -> None:
        for version in (SCHEMA_VERSION + 1, 0, "1", True):
            answer = self.client.post(f"{API}/evaluate", json={"title": "x", "schema_version": version})
            with self.subTest(version):
                self.assertEqual((answer.status_code, answer.get_json()["field"]), (422, "schema_version"))
