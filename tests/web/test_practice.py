"""Practice over the web: nothing that is hidden gets out, acts are kept one by one, results stand under the learner's name."""

from typing import Any
from unittest.mock import patch

from fulmen.core.practice.acts import Act
from fulmen.core.practice.sets import practice_set
from fulmen.core.verification.faults.faults import fault_info
from fulmen.store.practice import done_in
from fulmen.store.tables import PracticeRow
from tests.app import AppCase
from tests.core.practised import exercise, step_of, taking, well_done
from tests.jobs import ALL_ELECTRIC, GARAGE

ISOLATED = {"kind": "sign", "step": "isolated"}


class Practice(AppCase):
    def begun(self, **body: Any) -> Any:
        answer = self.client.post("/api/v1/practice", json={"learner": "Wren", **body})
        self.assertEqual(answer.status_code, 201, answer.text)
        return answer.get_json()

    def act(self, number: int, after: int, act: Any) -> Any:
        given = act if isinstance(act, dict) else act.model_dump(mode="json")
        return self.client.post(f"/api/v1/practice/{number}/acts", json={"after": after, "act": given})

    def all_acts(self, number: int, acts: list[Act]) -> Any:
        for after, act in enumerate(acts):
            answer = self.act(number, after, act)
            self.assertEqual(answer.status_code, 200, answer.text)
        return answer.get_json()

    def results(self, learner: str = "Wren") -> list[Any]:
        found = self.client.get("/api/v1/practice", query_string={"learner": learner}).get_json()
        self.assertGreaterEqual(len(found["sets"]), 5)
        return list(found["results"])

    def test_an_exercise_from_end_to_end(self) -> None:
        begun = self.begun(practice_set="plain", seed=3)
        number = begun["id"]
        with self.app.extensions["sessions"]() as session:
            what = session.get(PracticeRow, number).what
        told = self.all_acts(number, well_done(exercise("plain", what, 3)))
        self.assertGreaterEqual(told["marks"]["total"], 98)
        self.assertEqual(told["marks"]["explained"][0]["words"], fault_info(what).words)
        self.assertEqual(
            [(one["total"], one["practice_set"]) for one in self.results()], [(told["marks"]["total"], "plain")]
        )
        self.assertEqual(self.client.get(f"/api/v1/practice/{number}").get_json(), told)
        self.assertEqual(self.results("Somebody else"), [])
        late = self.act(number, len(told["entries"]), ISOLATED)
        self.assertEqual((late.status_code, "has ended" in late.get_json()["detail"]), (422, True))

    def test_what_is_hidden_stays_hidden_until_the_end(self) -> None:
        """Two exercises that differ in nothing but what is hidden begin alike, whatever it is."""
        texts = set()
        for seed in range(12):
            begun = self.begun(learner=f"Learner {seed}", practice_set="plain", seed=seed)
            self.assertIsNone(begun["marks"])
            texts.add(str({key: value for key, value in begun.items() if key not in ("id", "learner")}))
        self.assertEqual(len(texts), 1)

    def test_a_set_is_gone_through_before_it_repeats(self) -> None:

        count = len(practice_set("garage").faults)
        for seed in range(count):
            self.begun(practice_set="garage", seed=seed)
        self.assertEqual(done_in(self.sessions, "Wren", "garage"), set(practice_set("garage").faults))
        self.begun(practice_set="garage", seed=99)

    def test_on_a_job_of_ones_own_with_nobody_named(self) -> None:
        stored = self.store(GARAGE, {"site.householder": "P. Somebody", "site.address": "1 Somewhere"})
        begun = self.begun(job_id=stored.id, seed=5)
        self.assertEqual((begun["practice_set"], begun["title"]), ("own", stored.job.title))
        with self.app.extensions["sessions"]() as session:
            document = session.get(PracticeRow, begun["id"]).document
        self.assertEqual(
            (document["site"]["householder"], document["site"]["address"], document["readings"]), ("", "", [])
        )

    def test_another_window(self) -> None:
        number = self.begun(practice_set="plain", seed=1)["id"]
        self.assertEqual(self.act(number, 0, ISOLATED).status_code, 200)
        late = self.act(number, 0, ISOLATED)
        self.assertEqual((late.status_code, late.get_json()["title"]), (409, "Moved on"))
        self.assertEqual(len(self.client.get(f"/api/v1/practice/{number}").get_json()["entries"]), 1)

    def test_each_bad_call_names_its_field_and_keeps_nothing(self) -> None:
        number = self.begun(practice_set="plain", seed=1)["id"]
        zs = taking(step_of(exercise(), "zs")).model_dump(mode="json")
        for act, status, field in (
            ({**zs, "dial": "guess"}, 422, "act.dial"),
            ({**zs, "subject": "attic"}, 422, "act.step"),
            ({**zs, "leads": {"L": ["roof.L"]}}, 422, "act"),
            ({"kind": "fly"}, 422, "act"),
            ({"kind": "name", "fault": "no_earth", "place": "attic"}, 422, "act.place"),
        ):
            answer = self.act(number, 0, act)
            with self.subTest(act=act):
                self.assertEqual(answer.status_code, status)
                self.assertTrue(answer.get_json()["field"].startswith(field), answer.get_json())
        self.assertEqual(self.client.get(f"/api/v1/practice/{number}").get_json()["entries"], [])
        for body, status, told in (
            ({"learner": "W", "practice_set": "plain"}, 422, "2"),
            ({"learner": "Wren", "practice_set": "hard"}, 422, "there is no set"),
            ({"learner": "Wren", "job_id": 99}, 404, "no job 99"),
        ):
            answer = self.client.post("/api/v1/practice", json=body)
            self.assertEqual(answer.status_code, status)
            self.assertIn(told, answer.get_json()["detail"])
        self.assertEqual(self.client.get("/api/v1/practice/99").status_code, 404)
        self.assertEqual(self.act(99, 0, ISOLATED).status_code, 404)

    def test_a_job_that_has_nothing_to_test_yet(self) -> None:
        blank = self.store(ALL_ELECTRIC, {"charge_points": [], "circuits": []})
        answer = self.client.post("/api/v1/practice", json={"learner": "Wren", "job_id": blank.id})
        self.assertEqual((answer.status_code, answer.get_json()["field"]), (422, "charge_point"))

    def test_what_another_version_kept_is_told(self) -> None:

        number = self.begun(practice_set="plain", seed=1)["id"]
        for changed in ({"acts": [{"kind": "fly"}]}, {"faults": [{"kind": "gremlins", "size": 1, "circuit": ""}]}):
            with self.app.extensions["sessions"]() as session, session.begin():
                session.connection(execution_options={"writes": True})
                row = session.get(PracticeRow, number)
                for name, value in changed.items():
                    setattr(row, name, value)
            for answer in (self.client.get(f"/api/v1/practice/{number}"), self.act(number, 1, ISOLATED)):
                self.assertEqual(
                    (answer.status_code, answer.get_json()["title"]) in ((410, "Out of date"), (409, "Moved on")), True
                )
            self.assertEqual(self.client.get(f"/api/v1/practice/{number}").status_code, 410)

    def test_too_many_acts(self) -> None:

        number = self.begun(practice_set="plain", seed=1)["id"]
        with patch("fulmen.store.practice.MOST_ACTS", 1):
            self.act(number, 0, ISOLATED)
            self.assertEqual(self.act(number, 1, ISOLATED).get_json()["title"], "Full")
