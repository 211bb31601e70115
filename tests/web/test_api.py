"""The API: the way of one job, problems that name the field, conflicts, policy, guard."""

import json
from typing import Any
from unittest.mock import patch

from fulmen.core.editing.acts import as_history
from fulmen.core.editing.job_file import MAX_BYTES, read_job, write_job
from fulmen.web.doors import policy
from tests.acts import word_header
from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, HALFWAY, example_text, job

API = "/api/v1"


class Way(AppCase):
    def test_from_a_blank_sheet_to_a_saved_job(self) -> None:
        started = self.client.post(f"{API}/jobs/blank", json={"title": "Drive"})
        self.assertEqual((started.status_code, started.headers["ETag"]), (201, '"1"'))
        state = started.get_json()
        state["job"]["supply"]["earthing"] = "tn_c_s"
        saved = self.client.put(f"{API}/jobs/{state['id']}", json=state["job"], headers={"If-Match": '"1"'})
        self.assertEqual((saved.status_code, saved.get_json()["version"]), (200, 2))
        listed = self.client.get(f"{API}/jobs?search=drive").get_json()
        self.assertEqual((listed["total"], listed["jobs"][0]["title"]), (1, "Drive"))

    def test_import_and_export_give_the_same_bytes(self) -> None:
        for path in EXAMPLES.glob("*.json"):
            with self.subTest(path.name):
                text = path.read_text(encoding="utf-8")
                came = self.client.post(f"{API}/jobs", data=text, content_type="application/json")
                self.assertEqual(came.status_code, 201)
                # But for what was signed: that is history here, and stays what it is however often it is read in.
                told = write_job(as_history(read_job(text)))
                self.assertEqual(self.client.get(f"{API}/jobs/{came.get_json()['id']}/file").text, told)
                again = self.client.post(f"{API}/jobs", data=told, content_type="application/json")
                self.assertEqual(self.client.get(f"{API}/jobs/{again.get_json()['id']}/file").text, told)

    def test_evaluating_stores_nothing(self) -> None:
        evaluated = self.client.post(f"{API}/evaluate", data=example_text(HALFWAY), content_type="application/json")
        self.assertEqual(evaluated.status_code, 200)
        self.assertTrue(evaluated.get_json()["findings"])
        self.assertEqual(self.client.get(f"{API}/jobs").get_json()["total"], 0)

    def test_alternatives(self) -> None:
        body = {"job": json.loads(example_text(DEVICE_IN_UNIT)), "circuit": "ev", "choice": "csa"}
        found = self.looked("alternatives", body)
        self.assertEqual([one["label"] for one in found if one["chosen"]], ["6 mm²"])
        refused = self.client.post(f"{API}/alternatives", json={**body, "circuit": "shed"})
        self.assertEqual((refused.status_code, refused.get_json()["field"]), (422, "circuit"))

    def test_issue_and_download(self) -> None:
        stored = self.store(DEVICE_IN_UNIT)
        self.assertEqual(stored.job.certificate.signatures, ())
        body = {"signatures": [one.model_dump(mode="json") for one in job().certificate.signatures]}
        paper = self.issued_over_http(1, body)["paper"]
        pdf = self.client.get(f"{API}/papers/{paper['id']}.pdf")
        self.assertEqual((pdf.mimetype, pdf.data[:5]), ("application/pdf", b"%PDF-"))
        self.assertEqual(self.client.get(f"{API}/papers/{paper['id']}.pdf").data, pdf.data)
        self.assertEqual(self.client.get(f"{API}/jobs").get_json()["jobs"][0]["paper"], paper["number"])

    def test_a_certificate_refused_says_what_is_missing(self) -> None:
        stored = self.store(HALFWAY)
        signatures = [one.model_dump(mode="json") for one in job(DEVICE_IN_UNIT).certificate.signatures]
        refused = self.client.post(
            f"{API}/jobs/{stored.id}/papers",
            json={"job": stored.job.model_dump(mode="json"), "signatures": signatures},
            headers={"If-Match": "1", **word_header(self.client, stored.id)},
        )
        self.assertEqual(refused.status_code, 409)
        self.assertIn("Reading missing: Loop at the car, Zs", [gap["text"] for gap in refused.get_json()["gaps"]])

    def test_catalogue_has_words_for_every_choice(self) -> None:
        catalogue = self.client.get(f"{API}/catalogue").get_json()
        self.assertIn("prove dead", catalogue["caution"])
        self.assertEqual(
            {one["value"] for one in catalogue["choices"]["Earthing"]}, {"tn_c_s", "tn_s", "tt", "not_seen"}
        )


class Problems(AppCase):
    def problem(self, response: Any, status: int) -> dict[str, Any]:
        self.assertEqual(response.status_code, status, response.text[:300])
        self.assertEqual(response.mimetype, "application/problem+json")
        return dict(response.get_json())

    def put(self, changes: dict[str, Any]) -> Any:
        stored = self.store(HALFWAY)
        document = json.loads(write_job(stored.job))
        for path, value in changes.items():
            target = document
            *parts, last = path.split(".")
            for part in parts:
                target = target[int(part) if isinstance(target, list) else part]
            target[last] = value
        return self.client.put(f"{API}/jobs/{stored.id}", json=document, headers={"If-Match": "1"})

    def test_bad_fields_are_named_and_nothing_is_saved(self) -> None:
        cases = [
            ("circuits.0.route.1.length_m", "abc"), ("circuits.0.route.1.length_m", -3),
            ("circuits.0.route.1.length_m", 10_000), ("circuits.0.route.1.length_m", float("nan")),
            ("circuits.0.cable.record", "rope"), ("circuits.0.feeds", "board"),
        ]  # fmt: skip
        for path, value in cases:
            with self.subTest(path=path, value=value):
                problem = self.problem(self.put({path: value}), 422)
                self.assertEqual(problem["field"], path)
                self.assertTrue(problem["detail"].endswith("."))
        rows = self.client.get(f"{API}/jobs").get_json()["jobs"]
        for row in rows:
            self.assertEqual(self.client.get(f"{API}/jobs/{row['id']}").get_json()["version"], 1)

    def test_bodies_that_are_no_job(self) -> None:
        whole = example_text(HALFWAY)
        cases = [
            (whole[:900], 400, "breaks off"), ("[]", 400, "one JSON object"), ("{}", 422, "Title is missing"),
            (json.dumps({"title": "x" * 2_000_000}), 413, "at most 1 MB"),
            (whole + " " * (MAX_BYTES + 1 - len(whole.encode())), 422, "at most 1 MB"),
        ]  # fmt: skip
        for body, status, words in cases:
            with self.subTest(words):
                response = self.client.post(f"{API}/jobs", data=body.encode(), content_type="application/json")
                self.assertIn(words, self.problem(response, status)["detail"])
        self.assertEqual(self.client.get(f"{API}/jobs").get_json()["total"], 0)

    def test_a_conflict_shows_both_sides(self) -> None:
        stored = self.store(HALFWAY)
        theirs = {**json.loads(write_job(stored.job)), "title": "Theirs"}
        named = {"If-Match": "1", "Fulmen-Person": "W.%20%C3%93tterby%0A%E2%80%AE"}
        self.client.put(f"{API}/jobs/1", json=theirs, headers=named)
        response = self.client.put(f"{API}/jobs/1", json={**theirs, "title": "Mine"}, headers={"If-Match": "1"})
        problem = self.problem(response, 409)
        self.assertEqual((problem["version"], problem["stored"]["title"]), (2, "Theirs"))
        self.assertEqual((problem["saved_by"], problem["saved_at"][:2]), ("W. Ótterby \ufffd", "20"))
        title = {"field": "title", "where": "", "name": "Title", "mine": "Mine", "theirs": "Theirs"}
        self.assertEqual(problem["differences"], [title])

    def test_what_is_no_name_is_refused_or_nobody_and_a_job_is_saved_once(self) -> None:
        document = json.loads(write_job(self.store(HALFWAY).job))
        for name, status in (("x" * 601, 422), ("%FF%FE%00", 200)):
            headers = {"If-Match": "1", "Fulmen-Person": name}
            with self.subTest(name[:8]):
                answer = self.client.put(f"{API}/jobs/1", json={**document, "title": "Named"}, headers=headers)
                self.assertEqual(answer.status_code, status, answer.text[:200])
        self.assertEqual(self.client.get(f"{API}/jobs/1").get_json()["version"], 2)

    def test_readings(self) -> None:
        self.store(HALFWAY)
        good = {"step": "zs", "subject": "ev", "outcome": "measured", "value": 0.3, "taken_by": "A. Tester",
                "taken_at": "2026-11-24T10:00:00Z"}  # fmt: skip
        self.assertEqual(self.client.post(f"{API}/jobs/1/readings", json=good).status_code, 201)
        for change, field in (({"value": -1}, "value"), ({"step": "guess"}, "step"), ({"taken_by": ""}, "taken_by")):
            with self.subTest(field):
                problem = self.problem(self.client.post(f"{API}/jobs/1/readings", json={**good, **change}), 422)
                self.assertEqual(problem["field"], field)
        self.assertEqual(len(self.client.get(f"{API}/jobs/1").get_json()["job"]["readings"]), 14)

    def test_no_such_thing(self) -> None:
        self.problem(self.client.get(f"{API}/jobs/9"), 404)
        self.problem(self.client.get(f"{API}/papers/9.pdf"), 404)
        self.problem(self.client.get(f"{API}/nothing"), 404)
        self.problem(self.client.delete(f"{API}/jobs/1"), 405)

    def test_version_is_asked_for_and_checked(self) -> None:
        self.store(HALFWAY)
        body = json.loads(example_text(HALFWAY))
        self.problem(self.client.put(f"{API}/jobs/1", json=body), 422)
        self.problem(self.client.put(f"{API}/jobs/1", json=body, headers={"If-Match": "abc"}), 422)

    def test_a_mistake_of_ours_is_a_problem_too_and_is_logged(self) -> None:
        with patch("fulmen.store.operations.list_jobs", side_effect=RuntimeError("spring")), self.assertLogs() as logs:
            problem = self.problem(self.client.get(f"{API}/jobs"), 500)
        self.assertNotIn("spring", problem["detail"])
        self.assertIn("spring", "".join(logs.output))


class Guard(AppCase):
    def test_every_route_says_who_may_call_it(self) -> None:
        for rule in self.app.url_map.iter_rules():
            with self.subTest(rule.endpoint):
                self.assertTrue(policy.POLICY.get(rule.endpoint), f"{rule} declares nobody")

    def test_a_route_that_declares_nobody_lets_nobody_in(self) -> None:
        with patch.dict(policy.POLICY, {"jobs.list_jobs": frozenset()}):
            self.assertEqual(self.client.get(f"{API}/jobs").status_code, 403)

    def test_another_sites_page_changes_nothing(self) -> None:
        foreign = self.client.post(
            f"{API}/jobs/blank", json={"title": "x"}, headers={"Origin": "http://elsewhere.invalid"}
        )
        self.assertEqual(foreign.status_code, 403)
        own = self.client.post(f"{API}/jobs/blank", json={"title": "x"}, headers={"Origin": "http://localhost"})
        self.assertEqual(own.status_code, 201)

    def test_a_foreign_host_name_reads_nothing(self) -> None:
        self.assertEqual(self.client.get(f"{API}/jobs", headers={"Host": "elsewhere.invalid"}).status_code, 400)

    def test_forms_are_not_taken(self) -> None:
        self.assertEqual(self.client.post(f"{API}/jobs/blank", data={"title": "x"}).status_code, 415)

    def test_safe_headers(self) -> None:
        headers = self.client.get(f"{API}/jobs").headers
        self.assertIn("default-src 'self'", headers["Content-Security-Policy"])
        self.assertEqual(headers["X-Content-Type-Options"], "nosniff")
        self.assertEqual(headers["Cache-Control"], "no-store")
