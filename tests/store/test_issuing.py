"""Certificates: made of what stands at that moment, or not issued; fifty at once; numbers in a row, whoever dies."""

import threading
import time
from collections.abc import Callable
from typing import Any

from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.model.job import Job
from fulmen.core.model.letters import Letter
from fulmen.core.model.readings import Reading, StepKey, by_step
from fulmen.core.model.stops import Stop
from fulmen.core.verification.readings.taken_again import after
from fulmen.photos import make_photo
from fulmen.store import operations, papers
from fulmen.store.papers import CHANGED, Issue, WishState
from fulmen.store.photos import Place, add_photo, remove_photo
from fulmen.web.app import create_app
from tests.acts import warrant, word_header
from tests.app import NOW, PATIENCE_S, AppCase, Served
from tests.jobs import DEVICE_IN_UNIT, job
from tests.photos import picture

READING = {
    "step": "zs",
    "subject": "ev",
    "outcome": "measured",
    "value": 99.0,
    "instrument": "Tester 4",
    "follows": after(by_step(job().readings).every(StepKey.ZS, "ev")[-1]),
    "again_because": "looked at again",
    "taken_by": "A. Tester",
    "taken_at": NOW,
}


class WhileItIsMade(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.store(DEVICE_IN_UNIT)
        self.photo = add_photo(self.sessions, 1, make_photo(picture()), Place(Stop.CUT_OUT), NOW)

    def changes(self) -> dict[str, Callable[[], object]]:
        """Everything that a certificate is made of, changed."""

        def edit() -> None:
            now = operations.load_job(self.sessions, 1)
            changed = now.job.model_copy(update={"reference": "meanwhile"})
            operations.save_job(self.sessions, 1, now.version, changed, NOW)

        reading = Reading.model_validate(READING)
        return {
            "a reading": lambda: operations.add_reading(self.sessions, 1, reading, NOW),
            "a photo": lambda: add_photo(self.sessions, 1, make_photo(picture()), Place(Stop.CUT_OUT), NOW),
            "a photo taken out": lambda: remove_photo(self.sessions, 1, self.photo.id, NOW),
            "an edit": edit,
            "a letter": lambda: operations.add_letters(self.sessions, 1, (self.letter(),), NOW),
        }

    def letter(self) -> Letter:
        return job().letters[0]

    def made(self, render: Callable[[Issue], bytes]) -> WishState:
        version = operations.load_job(self.sessions, 1).version
        # Signed on the day of the test's own readings.
        signatures = tuple(one.model_copy(update={"signed_on": NOW.date()}) for one in job().certificate.signatures)
        wish = papers.ask_for_certificate(
            self.sessions, 1, papers.Seen(version), signatures, warrant(self.sessions, 1), NOW
        ).wish
        papers.issue_next(self.sessions, render, lambda: NOW)
        return papers.wish_state(self.sessions, wish.id)

    def test_what_changes_meanwhile_is_never_left_out_of_a_paper(self) -> None:
        """Ten tries of each: not issued, told, and the number goes to the next one."""
        for what, change in self.changes().items():
            for _ in range(10 if what == "an edit" else 1):
                found = self.made(lambda issue, change=change: (change() and b"") or b"%PDF")  # type: ignore[misc]
                with self.subTest(what):
                    self.assertEqual((found.wish.state, found.wish.refused), ("refused", CHANGED))
                    self.assertIsNone(found.wish.number)
            if what == "a reading":
                wrong = {"taken_by": READING["taken_by"], "taken_at": NOW}
                right = Reading.model_validate(READING | {"value": 0.29, "follows": wrong})
                operations.add_reading(self.sessions, 1, right, NOW)
        self.assertEqual(papers.list_papers(self.sessions, 1), [])

    def test_a_change_before_its_turn_refuses_it_too(self) -> None:
        signatures = job().certificate.signatures
        wish = papers.ask_for_certificate(
            self.sessions, 1, papers.Seen(1), signatures, warrant(self.sessions, 1), NOW
        ).wish
        operations.add_reading(self.sessions, 1, Reading.model_validate(READING), NOW)
        papers.issue_next(self.sessions, lambda issue: b"%PDF", lambda: NOW)
        self.assertEqual(papers.wish_state(self.sessions, wish.id).wish.refused, CHANGED)

    def test_what_can_not_be_rendered_is_told_and_the_next_one_has_its_turn(self) -> None:
        def fails(issue: Issue) -> bytes:
            raise RuntimeError("no font")

        with self.assertRaises(RuntimeError):
            self.made(fails)
        self.assertEqual(self.made(lambda issue: b"%PDF").wish.number, "FC-2026-0001")

    def test_one_who_died_is_taken_up_again_with_the_same_number(self) -> None:
        class Died(BaseException):
            pass

        def dies(issue: Issue) -> bytes:
            raise Died

        with self.assertRaises(Died):
            self.made(dies)
        again = papers.issue_next(self.sessions, lambda issue: b"%PDF", lambda: NOW)
        assert again is not None
        self.assertEqual((again.state, again.number), ("issued", "FC-2026-0001"))

    def test_asked_twice_it_is_one_wish(self) -> None:
        signatures = job().certificate.signatures
        first, second = (
            papers.ask_for_certificate(self.sessions, 1, papers.Seen(1), signatures, warrant(self.sessions, 1), NOW)
            for _ in range(2)
        )
        self.assertEqual(first.wish.id, second.wish.id)

    def test_a_signer_who_saw_less_is_told(self) -> None:
        shown = operations.load_job(self.sessions, 1).job
        answer = self.asked(shown, revision=1)
        self.assertEqual((answer.status_code, answer.get_json()["title"]), (409, "Saved meanwhile"))

    def asked(self, shown: Job, **more: Any) -> Any:
        signatures = [one.model_dump(mode="json") for one in job().certificate.signatures]
        body = {"job": shown.model_dump(mode="json"), "signatures": signatures, **more}
        by = word_header(self.client, 1)
        return self.client.post("/api/v1/jobs/1/papers", json=body, headers={"If-Match": "1", **by})

    def test_what_the_screen_shows_and_the_store_does_not_have_is_named_and_nothing_is_issued(self) -> None:
        stored = operations.load_job(self.sessions, 1).job
        for changes, field, name in (
            ({"site.householder": "Never sent"}, "site.householder", "Site householder"),
            ({"circuits.0.route.1.length_m": 0.5}, "circuits.0.route.1.length_m", "Circuit 1, section 2: length"),
            ({"readings": []}, "readings", "Readings"),
            ({"certificate.comments_on_existing": "More", "title": "First"}, "title", "Title"),
        ):
            shown = apply_changes(stored, tuple(Change(field=one, value=value) for one, value in changes.items()))
            told = self.asked(shown).get_json()
            with self.subTest(field):
                self.assertEqual((told["status"], told["title"], told["field"]), (409, "Not as saved", field))
                self.assertIn(f"{name} differs. Nothing was issued.", told["detail"])
        self.assertEqual(papers.list_papers(self.sessions, 1), [])
        self.assertEqual(self.asked(stored).status_code, 202)

    def test_without_what_the_screen_shows_nothing_is_asked_for(self) -> None:
        bare = {"signatures": [one.model_dump(mode="json") for one in job().certificate.signatures]}
        answer = self.client.post(
            "/api/v1/jobs/1/papers", json=bare, headers={"If-Match": "1", **word_header(self.client, 1)}
        )
        self.assertEqual((answer.status_code, answer.get_json()["field"]), (422, "job"))


class AtOnce(AppCase):
    def test_fifty_at_once_are_fifty_papers_with_numbers_in_a_row(self) -> None:
        made = [self.store(DEVICE_IN_UNIT, {"title": f"House {number}"}) for number in range(50)]
        app = create_app(self.settings, render=lambda issue: b"%PDF-" + issue.number.encode())
        body = {"signatures": [one.model_dump(mode="json") for one in job().certificate.signatures]}
        states: list[Any] = []
        clients = {one.id: app.test_client() for one in made}
        words = {number: word_header(client, number) for number, client in clients.items()}

        def ask(number: int) -> None:
            until = time.monotonic() + PATIENCE_S
            seen = body | {"job": clients[number].get(f"/api/v1/jobs/{number}").get_json()["job"]}
            by = {"If-Match": "1", **words[number]}
            answer = clients[number].post(f"/api/v1/jobs/{number}/papers", json=seen, headers=by)
            # A full machine may keep the store locked for longer than the app waits: it says so, and is asked again.
            while answer.status_code == 503 and time.monotonic() < until:
                answer = clients[number].post(f"/api/v1/jobs/{number}/papers", json=seen, headers=by)
            states.append((answer.status_code, answer.get_json()))

        threads = [threading.Thread(target=ask, args=(one.id,)) for one in made]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual({status for status, _ in states}, {202})
        client, until = app.test_client(), time.monotonic() + PATIENCE_S
        numbers: list[str] = []
        for _, state in states:
            while state["state"] in ("waiting", "rendering") and time.monotonic() < until:
                time.sleep(0.02)
                state = client.get(f"/api/v1/issues/{state['id']}").get_json()
            self.assertEqual(state["state"], "issued", state)
            numbers.append(state["paper"]["number"])
        self.assertEqual(sorted(numbers), [f"FC-2026-{count:04d}" for count in range(1, 51)])
        app.extensions["sessions"].kw["bind"].dispose()

    def test_in_a_process_of_its_own(self) -> None:
        """The server's own renderer, over the wire: queued, made, handed out; a killed process is replaced."""
        import os
        import signal

        from fulmen.documents.render_process import RenderProcess

        self.store(DEVICE_IN_UNIT)
        render = RenderProcess()
        app = create_app(self.settings, render=render, state=render.state)
        with Served(app):
            self.client = app.test_client()
            body = {"signatures": [one.model_dump(mode="json") for one in job().certificate.signatures]}
            pid = render.process_id()
            os.kill(pid, signal.SIGKILL)
            paper = self.issued_over_http(1, body)["paper"]
            pdf = self.client.get(f"/api/v1/papers/{paper['id']}.pdf").data
        self.assertEqual(pdf[:5], b"%PDF-")
        self.assertNotEqual(render.process_id(), pid)
        render.stop()
        app.extensions["sessions"].kw["bind"].dispose()
