"""Usual answers over HTTP: kept for every job, refused by field, and what they would change."""

from typing import Any

from tests.app import AppCase
from tests.jobs import job

API = "/api/v1/usual-answers"


class UsualAnswers(AppCase):
    def put(self, **answers: Any) -> Any:
        return self.client.put(API, json=answers)

    def test_none_until_some_are_kept_and_then_the_newest(self) -> None:
        self.assertEqual(set(self.client.get(API).get_json().values()), {None})
        self.assertEqual(self.put(grouped_circuits=1).status_code, 200)
        self.assertEqual(self.put(under_drive=False).status_code, 200)
        kept = self.client.get(API).get_json()
        self.assertEqual((kept["grouped_circuits"], kept["under_drive"]), (None, False))

    def test_bad_ones_are_refused_by_field_and_nothing_is_kept(self) -> None:
        for name, value in (
            ("grouped_circuits", 10),
            ("grouped_circuits", "alone"),
            ("insulation_mm", -1),
            ("tape", True),
        ):
            answer = self.put(**{name: value})
            with self.subTest(name, value=value):
                self.assertEqual((answer.status_code, answer.get_json()["field"]), (422, name))
        self.assertEqual(set(self.client.get(API).get_json().values()), {None})

    def test_what_they_change_on_a_job(self) -> None:
        self.put(grouped_circuits=1)
        open_job = job(changes={"circuits.0.route.0.grouped_circuits": None}).model_dump(mode="json")
        changes = self.client.post(f"{API}/changes", json={"job": open_job}).get_json()["changes"]
        self.assertEqual(changes[0], {"field": "circuits.0.route.0.grouped_circuits", "value": 1})
        self.assertEqual(changes[1]["value"], {"circuits.0.route.grouped_circuits": "taken_as_usual"})
