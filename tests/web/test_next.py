"""What is left of a job, over HTTP: as the page's document stands, small, and with the paper that was issued from it."""

import json

from fulmen.core.next_things import SIGN
from tests.app import AppCase
from tests.jobs import EXAMPLES, job

MOST_BYTES = 6000


class Next(AppCase):
    def left(self, number: int, document: object) -> dict[str, object]:
        answer = self.client.post(f"/api/v1/jobs/{number}/next", json=document)
        self.assertEqual(answer.status_code, 200, answer.text)
        self.assertLessEqual(len(answer.data), MOST_BYTES)
        found: dict[str, object] = answer.get_json()
        return found

    def test_little_is_sent_of_every_example(self) -> None:
        for path in sorted(EXAMPLES.glob("*.json")):
            with self.subTest(path.stem):
                found = self.left(1, json.loads(path.read_text(encoding="utf-8")))
                self.assertIsNone(found["issued"])

    def test_it_says_what_the_page_holds_and_stores_nothing(self) -> None:
        stored = self.store("tn-c-s-device-in-unit")
        document = stored.job.model_dump(mode="json")
        (thing,) = self.left(stored.id, document)["things"]  # type: ignore[misc]
        self.assertEqual(thing["words"], SIGN)
        typed = document | {"site": document["site"] | {"householder": ""}}
        thing, _ = self.left(stored.id, typed)["things"]  # type: ignore[misc]
        self.assertEqual((thing["field"], thing["part"]), ("site.householder", "ownership"))
        self.assertEqual(self.client.get(f"/api/v1/jobs/{stored.id}").get_json()["version"], stored.version)

    def test_issued_is_told_of_exactly_what_was_issued(self) -> None:
        stored = self.store("tn-c-s-device-in-unit")
        paper = self.issue(stored.version, stored.id)
        document = self.client.get(f"/api/v1/jobs/{stored.id}").get_json()["job"]
        left = self.left(stored.id, document)
        self.assertEqual((left["issued"], left["things"]), (paper.number, []))
        self.assertIsNone(self.left(stored.id, document | {"title": "Another"})["issued"])

    def test_a_bad_document_is_refused_by_its_field(self) -> None:
        bad = job().model_dump(mode="json") | {"title": 7}
        answer = self.client.post("/api/v1/jobs/1/next", json=bad)
        self.assertEqual((answer.status_code, answer.get_json()["fields"][0]["field"]), (422, "title"))
