"""Practice over the web: nothing that is hidden gets out, acts are kept one by one, results stand under the learner's name."""

import csv
import io
import json
from collections.abc import Callable
from random import Random
from typing import Any
from unittest.mock import patch

from fulmen.core.practice.acts import Act
from fulmen.core.practice.sets import practice_set, practice_sets
from fulmen.core.verification.faults.faults import fault_info
from fulmen.store.practice import load_exercise
from fulmen.store.tables import PracticeRow
from tests.app import AppCase
from tests.core.practised import exercise, step_of, taking, well_done
from tests.jobs import ALL_ELECTRIC, GARAGE

ISOLATED = {"kind": "sign", "step": "isolated"}


class Chosen(Random):
    """A chance that chooses one thing whenever it may, and is one seed otherwise."""

    def __init__(self, what: str) -> None:
        super().__init__(11)
        self.what = what

    def choice(self, seq: Any) -> Any:
        return self.what if self.what in seq else super().choice(seq)


def drawing(what: str) -> Callable[[], Random]:
    """Every chance the same, but that it hides this very fault."""
    return lambda: Chosen(what)


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
        begun = self.begun(practice_set="plain")
        number = begun["id"]
        whole = load_exercise(self.sessions, number).course.exercise
        what = whole.faults[0].kind
        told = self.all_acts(number, well_done(whole))
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
        """Exercises in one house that differ in nothing but what is hidden begin alike, whatever it is, and stay so while
        nothing is measured; the same goes for what lies behind a link. Neither seed, size, fault nor its place is sent.
        """
        kinds = practice_set("plain").faults
        texts, acts = set(), [ISOLATED, {"kind": "cover", "place": "board", "off": True}]
        for number, what in enumerate(kinds):
            with patch("fulmen.web.practice.views.chance", drawing(what)):
                begun = self.begun(learner=f"Learner {number}", practice_set="plain")
            for after, act in enumerate(acts):
                state = self.act(begun["id"], after, act).get_json()
            self.assertIsNone(state["marks"])
            with self.sessions() as session:
                row = session.get(PracticeRow, begun["id"])
                self.assertEqual(row.what, what)
                self.assertNotIn(str(row.seed), json.dumps(state))
            texts.add(json.dumps({key: value for key, value in state.items() if key not in ("id", "learner")}))
        self.assertEqual(len(texts), 1)
        for word in ("seed", "size", "what"):
            self.assertNotIn(f'"{word}"', next(iter(texts)))

    def test_a_seed_that_is_asked_for_is_no_field(self) -> None:
        answer = self.client.post("/api/v1/practice", json={"learner": "Wren", "practice_set": "plain", "seed": 3})
        self.assertEqual(answer.status_code, 422, answer.text)

    def test_exercises_are_drawn_anew_within_a_grade(self) -> None:
        """Twelve of one grade: several sets, lengths and days, faults that come again; what is met is not left out."""
        begun = [self.begun(grade=2)["id"] for _ in range(12)]
        with self.sessions() as session:
            rows = [session.get(PracticeRow, one) for one in begun]
            drawn = [(row.set_key, row.what, json.dumps(row.document["circuits"]), row.seed) for row in rows]
        sets, _, circuits, seeds = (set(one) for one in zip(*drawn, strict=True))
        self.assertLessEqual(sets, {one.key for one in practice_sets() if one.grade == 2})
        self.assertGreaterEqual(len(sets), 2)
        self.assertEqual((len(circuits), len(seeds)), (12, 12))
        refused = self.client.post("/api/v1/practice", json={"learner": "Wren", "grade": 9})
        self.assertEqual((refused.status_code, refused.get_json()["field"]), (422, "grade"))

    def test_an_exercise_for_others_behind_a_link(self) -> None:
        stored = self.store(GARAGE, {"site.householder": "P. Somebody"})
        offered = self.client.get("/api/v1/practice/faults", query_string={"job_id": stored.id}).get_json()["faults"]
        self.assertIn({"key": "earth_joint", "words": "a poor joint in the earth"}, offered)
        asked = {"by": "R. Quillfeather", "job_id": stored.id, "fault": "earth_joint", "size": 0.5}
        made = self.client.post("/api/v1/practice/links", json=asked)
        self.assertEqual(made.status_code, 201, made.text)
        link = made.get_json()["link"]
        told = self.client.get(f"/api/v1/practice/links/{link}")
        self.assertEqual(told.get_json(), {"link": link, "title": stored.job.title})
        others = [self.begun(learner=name, link=link) for name in ("Wren", "Teal")]
        for begun in others:
            self.assertNotIn("earth_joint", json.dumps({**begun, "faults": []}))
            exercise = load_exercise(self.sessions, begun["id"]).course.exercise
            self.assertEqual((exercise.faults[0].kind, exercise.job.site.householder), ("earth_joint", ""))
        for body, status, field in (
            ({**asked, "fault": "gremlins"}, 422, "fault"), ({**asked, "fault": "earths_joined"}, 422, "fault"),
            ({**asked, "size": 2}, 422, "size"), ({**asked, "job_id": 99}, 404, ""), ({**asked, "by": ""}, 422, "by"),
        ):  # fmt: skip
            answer = self.client.post("/api/v1/practice/links", json=body)
            with self.subTest(body=body):
                self.assertEqual((answer.status_code, answer.get_json().get("field")), (status, field), answer.text)
        self.assertEqual(self.client.get("/api/v1/practice/links/none-such").status_code, 404)
        self.assertEqual(
            self.client.post("/api/v1/practice", json={"learner": "Wren", "link": "none"}).status_code, 404
        )

    def test_results_as_csv_under_each_name(self) -> None:
        for name in ("Wren", "=1+1"):
            begun = self.begun(learner=name, practice_set="plain")
            self.act(begun["id"], 0, {"kind": "name", "fault": None})
        self.begun(learner="Wren", practice_set="garage")
        answer = self.client.get("/api/v1/practice/results.csv", query_string={"learner": "Wren"})
        self.assertEqual(answer.mimetype, "text/csv")
        rows = list(csv.DictReader(io.StringIO(answer.text)))
        self.assertEqual([(one["learner"], one["set"], one["total"], one["ended by"]) for one in rows],
                         [("Wren", "garage", "", ""), ("Wren", "plain", "0", "the fault")])  # fmt: skip
        self.assertEqual((rows[1]["Complete"], rows[1]["Fault"]), ("0 of 15", "0 of 20"))
        everybody = self.client.get("/api/v1/practice/results.csv").text
        self.assertEqual(len(everybody.strip().splitlines()), 4)
        self.assertNotIn("\n=1+1", everybody)

    def test_on_a_job_of_ones_own_with_nobody_named(self) -> None:
        stored = self.store(GARAGE, {"site.householder": "P. Somebody", "site.address": "1 Somewhere"})
        begun = self.begun(job_id=stored.id)
        self.assertEqual((begun["practice_set"], begun["title"]), ("own", stored.job.title))
        with self.app.extensions["sessions"]() as session:
            document = session.get(PracticeRow, begun["id"]).document
        self.assertEqual(
            (document["site"]["householder"], document["site"]["address"], document["readings"]), ("", "", [])
        )

    def test_another_window(self) -> None:
        number = self.begun(practice_set="plain")["id"]
        self.assertEqual(self.act(number, 0, ISOLATED).status_code, 200)
        late = self.act(number, 0, ISOLATED)
        self.assertEqual((late.status_code, late.get_json()["title"]), (409, "Moved on"))
        self.assertEqual(len(self.client.get(f"/api/v1/practice/{number}").get_json()["entries"]), 1)

    def test_each_bad_call_names_its_field_and_keeps_nothing(self) -> None:
        number = self.begun(practice_set="plain")["id"]
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

        number = self.begun(practice_set="plain")["id"]
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

        number = self.begun(practice_set="plain")["id"]
        with patch("fulmen.store.practice.MOST_ACTS", 1):
            self.act(number, 0, ISOLATED)
            self.assertEqual(self.act(number, 1, ISOLATED).get_json()["title"], "Full")
