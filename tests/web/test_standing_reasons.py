"""Standing reasons over HTTP: kept for every job, fitting only where rule and facts are the same, never taken by itself."""

from typing import Any

from fulmen.core.evaluate import evaluate
from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT, RULES, job

API = "/api/v1/standing-reasons"
OPEN: dict[str, Any] = {"decisions": []}


class StandingReasons(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.call = next(one for one in evaluate(job(changes=OPEN), RULES).findings if one.rule == "maker_device")

    def reason(self, **more: Any) -> dict[str, Any]:
        return {"rule": self.call.rule, "basis": self.call.basis, "reason": "Two circuits share a size on our vans.",
                "name": "R. Quillfeather", "kept_on": "2026-11-26", **more}  # fmt: skip

    def fitting(self, **changes: Any) -> Any:
        body = job(DEVICE_IN_UNIT, {**OPEN, **{name.replace("__", "."): value for name, value in changes.items()}})
        answer = self.client.post(f"{API}/fitting", json=body.model_dump(mode="json"))
        self.assertEqual(answer.status_code, 200, answer.text)
        return answer.get_json()["fitting"]

    def test_it_fits_the_same_facts_only_and_settles_nothing_by_itself(self) -> None:
        self.assertEqual(self.fitting(), [])
        kept = self.client.post(API, json=self.reason())
        self.assertEqual(kept.status_code, 200)
        self.assertEqual(self.client.get(API).get_json()["reasons"][0]["reason"], self.reason()["reason"])
        (found,) = self.fitting()
        self.assertEqual(found["finding"], self.call.key)
        self.assertEqual(found["standing"]["name"], "R. Quillfeather")
        self.assertEqual(self.fitting(charge_points__0__device_max_a=45.0), [], "other facts, no reason")
        self.assertTrue(self.call.is_open, "kept for every job, taken on none")

    def test_the_newest_counts_and_a_settled_call_needs_none(self) -> None:
        for words in ("The older words.", "The newer words."):
            self.client.post(API, json=self.reason(reason=words))
        self.assertEqual(self.fitting()[0]["standing"]["reason"], "The newer words.")
        self.assertEqual(len(self.client.get(API).get_json()["reasons"]), 1)
        settled = self.client.post(f"{API}/fitting", json=job().model_dump(mode="json"))
        self.assertEqual([one for one in settled.get_json()["fitting"] if one["finding"] == self.call.key], [])

    def test_bad_ones_are_refused_by_field_and_nothing_is_kept(self) -> None:
        for more, field in (
            ({"reason": "ok"}, "reason"),
            ({"name": ""}, "name"),
            ({"kept_on": "yesterday"}, "kept_on"),
            ({"rule": "no such!"}, "rule"),
        ):
            answer = self.client.post(API, json=self.reason(**more))
            with self.subTest(field):
                self.assertEqual((answer.status_code, answer.get_json()["field"]), (422, field))
        self.assertEqual(self.client.get(API).get_json()["reasons"], [])

    def test_a_forgotten_one_is_offered_no_more(self) -> None:
        self.client.post(API, json=self.reason())
        facts = {"rule": self.call.rule, "basis": self.call.basis}
        self.assertEqual(self.client.post(f"{API}/forget", json=facts).get_json()["reasons"], [])
        self.assertEqual(self.fitting(), [])
