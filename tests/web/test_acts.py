"""Acts are a person's: a hold, a call or a signature comes from a page of ours, with a word drawn for it, or not at all."""

import json
from datetime import timedelta
from typing import Any
from unittest.mock import patch

from fulmen.core.editing.acts import as_history
from fulmen.core.editing.job_file import read_job
from fulmen.core.evaluate import evaluate
from fulmen.core.model.readings import HOLDS, StepKey
from fulmen.core.verification.steps.steps import definitions
from fulmen.store.acts import VALID
from fulmen.store.tables import ActRow
from fulmen.web.doors.replies import now
from tests.acts import OUR_PAGE, word_header
from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, RULES, TREATED_AS_PME, as_file, example_text, job

API = "/api/v1"
SIGNED = {"outcome": "right", "taken_by": "R. Quillfeather", "taken_at": "2026-06-01T10:12:00+01:00"}


class Acts(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.job_id = self.store(DEVICE_IN_UNIT, {"readings": [], "decisions": []}).id
        self.at = f"{API}/jobs/{self.job_id}"
        self.call_key = job().decisions[0].key
        steps = self.state()["evaluation"]["steps"]
        self.holds = [(one["step"], one["subject"]) for one in steps if one["kind"] == "hold"]

    def state(self) -> Any:
        return self.client.get(self.at).get_json()

    def hold(self, step: str, subject: str, **more: Any) -> dict[str, Any]:
        return {"step": step, "subject": subject, **SIGNED, **more}

    def call(self) -> dict[str, Any]:
        said = job().decisions[0]
        return {
            "finding": said.key, "reason": said.reason, "name": said.name, "condition": said.condition,
            "decided_at": "2026-06-01T10:12:00+01:00",
        }  # fmt: skip

    def signing(self, job_id: int) -> dict[str, Any]:
        signatures = [one.model_dump(mode="json") for one in job().certificate.signatures]
        return {"job": self.client.get(f"{API}/jobs/{job_id}").get_json()["job"], "signatures": signatures}

    def acts(self, ready: int) -> list[tuple[str, str, str, dict[str, Any]]]:
        """Every act: its door, its kind, what it is about, and what is sent."""
        found = [("holds", "hold", f"{step}/{subject}", self.hold(step, subject)) for step, subject in self.holds]
        found.append(("calls", "call", self.call_key, self.call()))
        return [*found, ("papers", "signature", "certificate", self.signing(ready))]

    def done(self) -> tuple[int, int, int]:
        """How many holds and calls count, and how many acts were kept."""
        found = self.state()["job"]
        with self.sessions() as session:
            kept = session.query(ActRow).count()
        return sum(one["step"] in HOLDS for one in found["readings"]), len(found["decisions"]), kept


class TheDoor(Acts):
    def test_the_holds_are_those_of_the_steps(self) -> None:
        self.assertEqual({one.key for one in definitions() if one.kind == "hold"}, HOLDS)
        # A box in the way is no part of this job.
        self.assertEqual({step for step, _ in self.holds} | {StepKey.BOX_MADE_UP}, HOLDS)

    def test_a_person_at_a_screen_signs(self) -> None:
        for step, subject in self.holds:
            by = word_header(self.client, self.job_id, "hold", f"{step}/{subject}")
            came = self.client.post(f"{self.at}/holds", json=self.hold(step, subject), headers=by)
            self.assertEqual(came.status_code, 201, came.text)
            kept = came.get_json()["job"]["readings"][-1]
            self.assertEqual((kept["step"], kept["taken_at"]), (step, SIGNED["taken_at"]))
            self.assertLess(abs(now().timestamp() - _time(kept["came_at"])), 60)
        by = word_header(self.client, self.job_id, "call", self.call_key)
        came = self.client.post(f"{self.at}/calls", json=self.call(), headers=by)
        self.assertEqual(came.status_code, 201, came.text)
        settled = next(one for one in came.get_json()["evaluation"]["findings"] if one["key"] == self.call_key)
        self.assertEqual(settled["decision"]["reason"], self.call()["reason"])
        self.assertEqual(settled["decision"]["basis"], settled["basis"])
        self.assertEqual(self.done(), (2, 1, 3))
        with self.sessions() as session:
            acts = session.query(ActRow).all()
        self.assertEqual({one.name for one in acts}, {"R. Quillfeather", job().decisions[0].name})
        self.assertEqual(len({one.device for one in acts}), 1)

    def test_without_page_session_or_its_own_word_nothing_is_signed(self) -> None:
        other = self.app.test_client()
        other_job = self.store(DEVICE_IN_UNIT, {"readings": [], "decisions": []}).id
        # One that could be issued, so that it is the word that refuses it.
        ready = self.store(DEVICE_IN_UNIT).id
        before = self.done()
        for door, kind, about, body in self.acts(ready):
            of = ready if kind == "signature" else self.job_id
            at = f"{API}/jobs/{of}"
            mine = word_header(self.client, of, kind, about)
            used = word_header(self.client, of, kind, about)
            headers = {
                "no word": OUR_PAGE,
                "no page": {"Fulmen-Word": mine["Fulmen-Word"]},
                "another site's page": {**mine, "Origin": "http://elsewhere.example"},
                "a made-up word": {**mine, "Fulmen-Word": "A" * 32},
                "no word at all": {**mine, "Fulmen-Word": ""},
                "another device's word": word_header(other, of, kind, about),
                "another job's word": word_header(self.client, other_job, kind, about),
                "another act's word": word_header(self.client, of, "hold", "isolated/elsewhere"),
                "another kind's word": word_header(
                    self.client, of, "call" if kind == "hold" else "hold", self.call_key
                ),
            }
            for name, sent in headers.items():
                with self.subTest(name, act=about):
                    extra = {"If-Match": "1"} if kind == "signature" else {}
                    answer = self.client.post(f"{at}/{door}", json=body, headers={**sent, **extra})
                    self.assertIn(answer.status_code, (403, 422), answer.text)
                    self.assertEqual(self.done(), before)
            with self.subTest("from a device without a session", act=about):
                bare = self.app.test_client()
                answer = bare.post(f"{at}/{door}", json=body, headers={**used, "If-Match": "1"})
                self.assertEqual(answer.status_code, 403)
        self.assertEqual(self.done(), before)
        self.assertEqual(self.client.get(f"{API}/jobs/{ready}/papers").get_json()["papers"], [])

    def test_a_word_is_spent_once_and_runs_out_after_a_day(self) -> None:
        step, subject = self.holds[0]
        act = ("hold", f"{step}/{subject}")
        by = word_header(self.client, self.job_id, *act)
        late = word_header(self.client, self.job_id, *act)
        body = self.hold(step, subject)
        for status in (201, 403, 403):
            self.assertEqual(self.client.post(f"{self.at}/holds", json=body, headers=by).status_code, status)
        for after, status in ((VALID + timedelta(seconds=1), 403), (VALID - timedelta(minutes=1), 201)):
            with patch("fulmen.web.jobs.acts.now", lambda after=after: now() + after):
                answer = self.client.post(f"{self.at}/holds", json=body, headers=late)
            self.assertEqual(answer.status_code, status, answer.text)
        self.assertIn("ran out", self.spent(VALID + timedelta(hours=1), act, body))

    def spent(self, after: timedelta, act: tuple[str, str], body: dict[str, Any]) -> str:
        by = word_header(self.client, self.job_id, *act)
        with patch("fulmen.web.jobs.acts.now", lambda: now() + after):
            return str(self.client.post(f"{self.at}/holds", json=body, headers=by).get_json()["detail"])

    def test_a_hold_that_its_device_sends_again_is_kept_once(self) -> None:
        step, subject = self.holds[0]
        by = word_header(self.client, self.job_id, "hold", f"{step}/{subject}") | {"Fulmen-Entry": "a" * 32}
        body = self.hold(step, subject)
        came = [self.client.post(f"{self.at}/holds", json=body, headers=by).status_code for _ in range(3)]
        self.assertEqual((came, self.done()), ([201] * 3, (1, 0, 1)))

    def test_words_of_one_device_are_bounded(self) -> None:
        wanted = {"acts": [{"kind": "hold", "about": "isolated/ev"}, {"kind": "hold", "about": "isolated/ev2"}]}
        with patch("fulmen.store.acts.MOST_WORDS", 3):
            first, second = (self.client.post(f"{self.at}/words", json=wanted, headers=OUR_PAGE) for _ in range(2))
        self.assertEqual((first.status_code, second.status_code), (201, 409))
        many = {"acts": [{"kind": "hold", "about": f"isolated/c{place}"} for place in range(201)]}
        self.assertEqual(self.client.post(f"{self.at}/words", json=many, headers=OUR_PAGE).status_code, 422)

    def test_only_a_call_of_the_job_as_it_is_saved_is_settled(self) -> None:
        for finding, more, status in (
            ("no_such_rule/ev", {}, 409),
            (self.call_key, {"decided_at": "2026-06-01T10:12:00"}, 422),
            (self.call_key, {"decided_at": "2099-01-01T00:00:00Z"}, 422),
            (self.call_key, {"reason": "x"}, 422),
            (self.call_key, {"name": ""}, 422),
        ):
            by = word_header(self.client, self.job_id, "call", finding)
            body = {**self.call(), "finding": finding, **more}
            with self.subTest(finding, **more):
                answer = self.client.post(f"{self.at}/calls", json=body, headers=by)
                self.assertEqual(answer.status_code, status, answer.text)
        self.assertEqual(self.done(), (0, 0, 0))

    def test_nobody_signs_on_a_day_that_is_yet_to_come(self) -> None:
        step, subject = self.holds[0]
        for ahead, status in ((VALID * 2, 422), (VALID / 2, 201)):
            by = word_header(self.client, self.job_id, "hold", f"{step}/{subject}")
            body = self.hold(step, subject, taken_at=(now() + ahead).isoformat())
            answer = self.client.post(f"{self.at}/holds", json=body, headers=by)
            with self.subTest(ahead):
                self.assertEqual(answer.status_code, status, answer.text)

    def test_only_a_hold_is_signed_at_the_holds_door(self) -> None:
        step, subject = self.holds[0]
        for body in (
            {**self.hold("ze", "origin"), "outcome": "measured", "value": 0.2},
            {**self.hold(step, subject), "outcome": "not_applicable", "reason": "nobody there"},
        ):
            by = word_header(self.client, self.job_id, "hold", f"{body['step']}/{body['subject']}")
            self.assertEqual(self.client.post(f"{self.at}/holds", json=body, headers=by).status_code, 422)
        self.assertEqual(self.done(), (0, 0, 0))


class EveryOtherDoor(Acts):
    def test_no_list_file_or_instrument_signs_a_hold(self) -> None:
        for step, subject in self.holds:
            for body in (
                self.hold(step, subject),
                self.hold(step, subject, outcome="not_applicable", reason="nobody there"),
            ):
                with self.subTest(step, outcome=body["outcome"]):
                    one = self.client.post(f"{self.at}/readings", json=body)
                    many = self.client.post(f"{self.at}/readings/many", json={"readings": [body]})
                    self.assertEqual((one.status_code, many.status_code), (422, 422))
                    self.assertIn("signed by a person", one.get_json()["detail"])
            row = {"step": step, "circuit": subject, "outcome": "right", "value": ""}
            csv = "\n".join([",".join(row), ",".join(row.values())])
            for text in (csv, json.dumps([row]), csv.replace("right", "n/a")):
                body = {"data": as_file(text), "taken_by": "R. Quillfeather", "taken_at": SIGNED["taken_at"]}
                lines = self.client.post(f"{self.at}/readings/file", json=body).get_json()["lines"]
                self.assertEqual([(line["fate"], line["reading"]) for line in lines], [("refused", None)])
            asked = self.client.post(f"{self.at}/test-set", json={"step": step, "subject": subject})
            self.app.config["TEST_SET_PORT"] = 1
            asked = self.client.post(f"{self.at}/test-set", json={"step": step, "subject": subject})
            self.assertEqual((asked.status_code, asked.get_json()["field"]), (422, "step"))
        self.assertEqual(self.done(), (0, 0, 0))

    def test_no_document_brings_an_act(self) -> None:
        told = json.loads(example_text(DEVICE_IN_UNIT))
        document = self.state()["job"]
        for field, value in (
            ("readings", told["readings"]),
            ("decisions", told["decisions"]),
            ("certificate", told["certificate"]),
            ("elsewhere", {"holds": told["readings"][:1], "decisions": [], "signatures": []}),
        ):
            answer = self.client.put(self.at, json={**document, field: value}, headers={"If-Match": "1"})
            with self.subTest(field):
                self.assertEqual(answer.status_code, 422)
                self.assertTrue(answer.get_json()["field"].startswith(field))
        self.assertEqual(self.client.put(self.at, json=document, headers={"If-Match": "1"}).status_code, 200)
        self.assertEqual(self.done(), (0, 0, 0))

    def test_what_a_job_file_signed_is_history_for_every_example(self) -> None:
        for path in sorted(EXAMPLES.glob("*.json")):
            told = read_job(path.read_text(encoding="utf-8"))
            came = self.client.post(
                f"{API}/jobs", data=path.read_text(encoding="utf-8"), content_type="application/json"
            )
            state = came.get_json()
            there = state["job"]
            with self.subTest(path.stem):
                self.assertEqual([one for one in there["readings"] if one["step"] in HOLDS], [])
                self.assertEqual((there["decisions"], there["certificate"]["signatures"]), ([], []))
                holds = [one for one in told.readings if one.step in HOLDS]
                self.assertEqual(len(there["elsewhere"]["holds"]), len(holds))
                self.assertEqual(len(there["elsewhere"]["decisions"]), len(told.decisions))
                self.assertEqual(len(there["elsewhere"]["signatures"]), len(told.certificate.signatures))
                steps = [one for one in state["evaluation"]["steps"] if one["kind"] == "hold"]
                self.assertEqual([one["step"] for one in steps if one["met"] or one["reading"]], [])
                self.assertEqual([one for one in state["evaluation"]["findings"] if one["decision"]], [])
                gaps = {one["text"] for one in state["evaluation"]["gaps"]}
                self.assertLessEqual({"Not signed: Design", "Not signed: Construction"}, gaps)

    def test_a_file_that_tells_of_more_acts_than_can_be_kept_can_be_read_again(self) -> None:
        """Read in, exported and read in again: what is told stays within what a file may hold."""
        told = json.loads(example_text(DEVICE_IN_UNIT))
        (hold,) = (one for one in told["readings"] if one["step"] == "isolated")
        many = [{**hold, "taken_by": f"Tester {number}"} for number in range(1000)]
        whole = {**told, "elsewhere": {"holds": many, "decisions": [], "signatures": []}}
        text = json.dumps(whole)
        self.assertLess(len(text), 1_000_000)
        for _ in range(3):
            came = self.client.post(f"{API}/jobs", data=text, content_type="application/json")
            self.assertEqual(came.status_code, 201, came.text[:300])
            again = self.client.get(f"{API}/jobs/{came.get_json()['id']}")
            self.assertEqual(again.status_code, 200)
            self.assertEqual(len(again.get_json()["job"]["elsewhere"]["holds"]), 1000)
            text = self.client.get(f"{API}/jobs/{came.get_json()['id']}/file").text
            text = text.replace('"readings": [', '"readings": [' + json.dumps(hold) + ",", 1)

    def test_history_never_changes_what_is_judged(self) -> None:
        """The same job with and without its history computes to the same: nothing that judges reads it."""
        for name in (DEVICE_IN_UNIT, TREATED_AS_PME):
            moved = as_history(job(name))
            bare = moved.model_copy(update={"elsewhere": type(moved.elsewhere)()})
            self.assertEqual(evaluate(moved, RULES), evaluate(bare, RULES))


def _time(iso: str) -> float:
    from datetime import datetime

    return datetime.fromisoformat(iso).timestamp()
