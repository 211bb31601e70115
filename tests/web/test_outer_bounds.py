"""Bounded from outside: floods, odd times, text that nobody sees, slow sets, lists without end; each told, none a failure."""

import json
import socketserver
import threading
import time
import unittest
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any
from unittest.mock import patch

from sqlalchemy import func, select

from fulmen.core.model.base import UNSHOWABLE
from fulmen.core.model.readings import HOLDS
from fulmen.simulators import test_set_client
from fulmen.simulators.test_set_client import TestSetError, ask
from fulmen.store import links, operations, papers, practice, turns
from fulmen.store.errors import TooMany
from fulmen.store.tables import IssueRequestRow, PracticeRow
from fulmen.web.app import create_app
from tests.acts import warrant
from tests.app import NOW, AppCase
from tests.core.test_file_rows import FLOODS, MB
from tests.jobs import DEVICE_IN_UNIT, as_file, example_text, job
from tests.web.test_poison import POISON

API = "/api/v1"
DAY = timedelta(days=1)
TAKEN = {"taken_by": "R. Quillfeather", "taken_at": "2026-06-01T10:12:00+01:00"}


class AtEveryDoor(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.stored = self.store(DEVICE_IN_UNIT)
        self.at = f"{API}/jobs/{self.stored.id}"

    def reading(self, **changes: Any) -> dict[str, Any]:
        return {"step": "zs", "subject": "ev", "outcome": "measured", "value": 0.3, **TAKEN, **changes}

    def texts(self, text: str) -> dict[str, Any]:
        """A text at every door by which one comes in and is kept: what it is, and the answer."""
        post, put = self.client.post, self.client.put
        document = json.loads(example_text(DEVICE_IN_UNIT))
        record = self.client.get(f"{API}/charge-points").get_json()["shipped"][0]
        instrument = {"name": text, "serial_number": "1", "functions": []}
        prices = "key,name,unit,price,work_min\ngland,{},each,1,1\n"
        rows = "step,circuit,value,unit,instrument\nzs,ev,0.3,Ω,{}\n"
        return {
            "a new job": post(f"{API}/jobs/blank", json={"title": text}),
            "a job file": post(f"{API}/jobs", json=document | {"reference": text}),
            "a reading": post(f"{self.at}/readings", json=self.reading(reason=text)),
            "who read it": post(f"{self.at}/readings", json=self.reading(taken_by=text)),
            "readings": post(f"{self.at}/readings/many", json={"readings": [self.reading(instrument=text)]}),
            "who brings a file": post(
                f"{self.at}/readings/file", json={"data": as_file(rows), **TAKEN, "taken_by": text}
            ),
            "an instrument": put(f"{API}/instruments", json={"instruments": [instrument]}),
            "a link": post(f"{self.at}/links", json={"made_by": text}),
            "a letter": post(f"{self.at}/letters", json={"kind": "accepted", "dated": "2026-11-20", "text": text}),
            "a price": post(f"{API}/prices/csv", json={"text": prices.format(text)}),
            "a charge point": put(f"{API}/charge-points/mine", json=record | {"id": "mine", "name": text}),
            "a learner": post(f"{API}/practice", json={"learner": text, "practice_set": "plain"}),
            "a learner's results": self.client.get(f"{API}/practice", query_string={"learner": text}),
            "a search": self.client.get(f"{API}/jobs", query_string={"search": text}),
        }

    def test_no_door_takes_what_nobody_sees_or_what_turns_the_rest(self) -> None:
        sound = self.texts("Wren and Dunnock")
        self.assertEqual({what: one.status_code for what, one in sound.items() if one.status_code >= 300}, {})
        for poison in ("\u202e", "\u2066", "\u200b", "\xad", "\U000e0041", "\u3164", "a\u200db"):
            for what, answer in self.texts(f"Wren {poison} Dunnock").items():
                with self.subTest(what, poison=ascii(poison)):
                    self.assertEqual(answer.status_code, 422, answer.text[:200])
                    self.assertRegex(answer.get_json()["detail"], "can't be shown")

    def test_lines_of_files_and_names_of_who_saves_show_a_mark_or_are_told(self) -> None:
        rows = "step,circuit,value,unit,instrument\nzs,ev,0.3,Ω,Set \u202e9\n"
        told = self.client.post(f"{self.at}/readings/file", json={"data": as_file(rows), **TAKEN})
        self.assertIn("Line 2 can't be taken: column 5 holds U+202E", told.get_json()["detail"])
        text = "start \u202e,kWh\n" + "2026-01-14 17:30,0.5\n"
        shape = {"separator": ",", "heading": True, "time_column": 0, "energy_column": 1}
        self.assertIn("can't be shown", self.client.post(f"{API}/half-hours", json={"text": text}).get_json()["detail"])
        again = self.client.post(f"{API}/half-hours", json={"text": text, "shape": shape})
        self.assertEqual(again.status_code, 422)

    def test_of_very_many_faults_the_first_are_named(self) -> None:
        document = json.loads(example_text(DEVICE_IN_UNIT))
        document["known_how"] = {f"field.x{n}": "nowhere" for n in range(2000)}
        answer = self.client.post(f"{API}/evaluate", json=document)
        self.assertEqual((answer.status_code, len(answer.get_json()["fields"])), (422, 100))

    def test_pictures_with_their_joiners_and_every_script_get_in(self) -> None:
        for text in ("Rosé Ô'Hara", "שלום", "مرحبا", "नमस्ते", "漢字", "2 × 6 mm², ≤ 0.3 Ω", "❤️ 👨‍👩‍👧", "Flat\u00a03"):
            with self.subTest(text):
                answer = self.client.post(f"{API}/jobs/blank", json={"title": text})
                self.assertEqual((answer.status_code, answer.get_json()["job"]["title"]), (201, text))

    def test_floods_are_refused_in_one_sentence(self) -> None:
        for what, text in FLOODS.items():
            for path, body in (
                ("half-hours", {"text": text}),
                (f"jobs/{self.stored.id}/readings/file", {"data": as_file(text[:400_000]), **TAKEN}),
                ("prices/csv", {"text": text[:240_000]}),
            ):
                with self.subTest(what, path=path):
                    answer = self.client.post(f"{API}/{path}", json=body)
                    self.assertIn(answer.status_code, (400, 413, 422), answer.text[:200])
                    self.assertLess(len(answer.data), 20_000)
                    self.assertNotRegex(answer.get_json()["detail"], "mistake|csv|codec|limit \\(")
        self.assertGreaterEqual(max(map(len, FLOODS.values())), MB)

    def test_figures_and_times_that_end_no_reading(self) -> None:
        """By a file of readings: each is told in its line, and taken is none."""
        head = "step,circuit,value,unit,test_voltage_v,taken_at\n"
        for volts, at in (
            ("inf", ""), ("1e999", ""), ("nan", ""), ("9" * 150, ""), ("", "9999-12-31T23:59:59-23:59"),
            ("", "0001-01-01T00:00:00+23:59"), ("", "2026-13-01T10:00:00Z"), ("", "2099-01-01T10:00:00Z"),
        ):  # fmt: skip
            text = f"{head}zs,ev,0.3,Ω,{volts},{at}\n"
            answer = self.client.post(f"{self.at}/readings/file", json={"data": as_file(text), **TAKEN})
            with self.subTest(volts=volts[:5], at=at):
                self.assertEqual(answer.status_code, 200, answer.text[:200])
                (line,) = answer.get_json()["lines"]
                self.assertEqual((line["fate"], line["reading"]), ("refused", None))
                self.assertLess(len(line["told"]), 400)
        for text in ('[{"step": ' + "9" * 5000 + "}]", "[NaN]", '[{"step": 1e999}]', "[" * 5000):
            with self.subTest(text[:12]):
                answer = self.client.post(f"{self.at}/readings/file", json={"data": as_file(text), **TAKEN})
                self.assertIn(answer.status_code, (200, 422), answer.text[:200])
        naive = self.client.post(
            f"{self.at}/readings/file", json={"data": as_file(head), **TAKEN, "taken_at": "2026-06-01T10:00"}
        )
        self.assertEqual((naive.status_code, naive.get_json()["field"]), (422, "taken_at"))

    def test_nothing_was_done_on_a_day_that_is_yet_to_come(self) -> None:
        """At, below and above a day ahead, by the store's own clock."""
        told = next(one for one in reversed(self.stored.job.readings) if one.step not in HOLDS)
        for ahead, fits in ((DAY - timedelta(seconds=1), True), (DAY, True), (DAY + timedelta(seconds=1), False)):
            made = told.model_copy(update={"taken_at": NOW + ahead})
            with self.subTest(ahead):
                if fits:
                    operations.add_reading(self.sessions, self.stored.id, made, NOW)
                else:
                    with self.assertRaisesRegex(Exception, "is yet to come"):
                        operations.add_reading(self.sessions, self.stored.id, made, NOW)
        for path, body in (
            ("readings", self.reading(taken_at="2099-01-01T10:00:00Z")),
            ("readings/many", {"readings": [self.reading(taken_at="2099-01-01T10:00:00Z")]}),
        ):
            answer = self.client.post(f"{self.at}/{path}", json=body)
            self.assertEqual((answer.status_code, answer.get_json()["field"]), (422, "taken_at"))


class Rooms(AppCase):
    """A job that held more than its document may could never be read again."""

    def test_at_below_and_above_what_a_job_holds(self) -> None:
        whole = job(DEVICE_IN_UNIT)
        for name, one, add in (
            ("letters", whole.letters[0], operations.add_letters),
            ("readings", next(r for r in whole.readings if r.step == "zs"), operations.add_readings),
        ):
            most = turns.most_of(name)
            full = whole.model_copy(update={name: (one,) * (most - 1)})
            stored = operations.create_job(self.sessions, full, NOW)
            add(self.sessions, stored.id, (one,), NOW)
            with self.subTest(name), self.assertRaisesRegex(TooMany, f"at most {most} {name}"):
                add(self.sessions, stored.id, (one,), NOW)
            self.assertEqual(len(getattr(operations.load_job(self.sessions, stored.id).job, name)), most)

    def test_links_and_own_charge_points_have_an_end(self) -> None:
        stored = self.store(DEVICE_IN_UNIT)
        with patch.object(links, "MOST_LINKS", 2):
            for status in (201, 201, 409):
                answer = self.client.post(f"{API}/jobs/{stored.id}/links", json={"made_by": "R. Quillfeather"})
                self.assertEqual(answer.status_code, status)
        self.assertIn("at most 2 links", answer.get_json()["detail"])
        record = self.client.get(f"{API}/charge-points").get_json()["shipped"][0]
        with patch("fulmen.store.charge_points.MOST_OWN", 2):
            for number, status in ((1, 200), (2, 200), (3, 409), (2, 200)):
                kept = self.client.put(f"{API}/charge-points/own-{number}", json=record | {"id": f"own-{number}"})
                self.assertEqual(kept.status_code, status, kept.text[:200])

    def test_a_wish_whose_paper_is_listed_no_more_still_tells_of_it(self) -> None:
        stored = self.store(DEVICE_IN_UNIT)
        first = self.issue(1, stored.id)
        now = operations.load_job(self.sessions, stored.id)
        changed = now.job.model_copy(update={"reference": "Changed"})
        operations.save_job(self.sessions, stored.id, now.version, changed, NOW)
        with patch.object(papers, "MOST_LISTED", 1):
            second = self.issue(now.version + 1, stored.id)
            listed = self.client.get(f"{API}/jobs/{stored.id}/papers").get_json()["papers"]
            told = self.client.get(f"{API}/issues/1").get_json()
        self.assertEqual([one["number"] for one in listed], [second.number])
        self.assertEqual((told["state"], told["paper"]["number"]), ("issued", first.number))

    def test_the_desks_calendar_has_an_end(self) -> None:
        stored = self.store(DEVICE_IN_UNIT)
        self.client.post(f"{API}/jobs/{stored.id}/desk")
        with patch("fulmen.store.desk.LAST_YEAR", NOW.year):
            answers = [self.client.post(f"{API}/jobs/{stored.id}/desk/days", json={"days": 60}) for _ in range(2)]
        self.assertEqual(answers[-1].status_code, 422)
        self.assertEqual(answers[-1].get_json()["field"], "days")


class Pruned(AppCase):
    """By stated rules (docs/security.md), and nothing else."""

    def count(self, table: Any) -> int:
        with self.sessions() as session:
            return session.scalar(select(func.count()).select_from(table)) or 0

    def test_wishes_that_ended_long_ago_go_and_their_papers_stay(self) -> None:
        signed = job().certificate.signatures
        numbers = [self.store(DEVICE_IN_UNIT).id for _ in range(4)]
        first = self.issue(1, numbers[0])
        self.issue(1, numbers[1])
        late = NOW + papers.ENDED_KEPT_FOR
        # To the second: those that were asked for thirty days ago are kept, a second later they go.
        for number, at, kept in ((numbers[2], late, 3), (numbers[3], late + timedelta(seconds=1), 2)):
            self.issue(1, number, at=at)
            self.assertEqual(self.count(IssueRequestRow), kept)
        made = [papers.list_papers(self.sessions, number)[0].number for number in numbers]
        self.assertEqual((made[0], len(set(made))), (first.number, 4))
        # One that waits stays, however long.
        waits = self.store(DEVICE_IN_UNIT).id
        by = warrant(self.sessions, waits)
        wish = papers.ask_for_certificate(self.sessions, waits, papers.Seen(1), signed, by, NOW).wish
        self.assertGreater(wish.id, 4)
        taken = papers.issue_next(self.sessions, lambda issue: b"%PDF", lambda: late + 31 * DAY)
        assert taken is not None
        self.assertEqual((taken.id, taken.state, self.count(IssueRequestRow)), (wish.id, "issued", 1))

    def begin(self, learner: str, at: datetime) -> int:
        exercise = practice.begin(self.sessions, self.begun(learner), at)
        return exercise.id

    def begun(self, learner: str) -> practice.Begun:
        from tests.core.practised import exercise

        return practice.Begun(learner, "plain", "Plain", "no_earth", exercise("plain", "no_earth", 1))

    def test_exercises_by_learner_and_by_age(self) -> None:
        with patch.object(practice, "MOST_KEPT", 3):
            for _ in range(5):
                newest = self.begin("Wren", NOW)
            other = self.begin("Dunnock", NOW)
            self.assertEqual(len(practice.results(self.sessions, "Wren")), 3)
        late = NOW + practice.UNENDED_KEPT_FOR
        self.begin("Robin", late)
        self.assertEqual(self.count(PracticeRow), 5)
        self.begin("Robin", late + timedelta(seconds=1))
        # Those of Wren and Dunnock were never ended; a number is not given twice.
        self.assertEqual(self.count(PracticeRow), 2)
        self.assertGreater(min(one.id for one in practice.results(self.sessions, "Robin")), max(newest, other))


class Dripping(socketserver.StreamRequestHandler):
    """A set that answers a letter at a time, for as long as anybody listens."""

    def handle(self) -> None:
        try:
            while True:
                self.wfile.write(b"F")
                time.sleep(0.02)
        except OSError:
            return


@contextmanager
def dripping() -> Iterator[int]:
    with socketserver.ThreadingTCPServer(("127.0.0.1", 0), Dripping) as server:
        server.daemon_threads = True
        threading.Thread(target=server.serve_forever, daemon=True).start()
        yield int(server.server_address[1])
        server.shutdown()


class SlowSet(AppCase):
    def test_one_deadline_for_the_whole_answer(self) -> None:
        """Each letter comes in time, the answer never does; one without an end is cut off by its length."""
        with dripping() as port:
            started = time.monotonic()
            with self.assertRaisesRegex(TestSetError, "in time|No test set"):
                ask(port, "1", "zs", "ev", wait_s=0.5)
            self.assertLess(time.monotonic() - started, 5)

    def test_figures_of_other_scripts_are_no_reading(self) -> None:
        for value in ("٠.٣", "0.３"):
            with self.assertRaisesRegex(TestSetError, "is no reading"):
                test_set_client._reading(f"VALUE zs ev measured {value} Ω -", "zs", "ev", "Set")

    def test_one_ask_at_a_time_for_each(self) -> None:
        """While a slow set is at one reading its asker gets no second one; somebody else does."""
        self.store(DEVICE_IN_UNIT)
        with dripping() as port, patch.object(test_set_client, "WAIT_S", 1.0):
            app = create_app(replace(self.settings, test_set_port=port))
            self.addCleanup(app.extensions["sessions"].kw["bind"].dispose)
            at_it, answers = threading.Event(), {}
            asked = test_set_client.ask

            def slowly(*given: Any) -> Any:
                at_it.set()
                return asked(*given, wait_s=0.8)

            def post(who: str) -> None:
                client = app.test_client()
                answers[who] = client.post(
                    f"{API}/jobs/1/test-set",
                    json={"step": "zs", "subject": "ev"},
                    environ_overrides={"REMOTE_ADDR": who.split()[0]},
                )

            with patch("fulmen.web.testing.views.ask", slowly):
                first = threading.Thread(target=post, args=("10.0.0.1",))
                first.start()
                self.assertTrue(at_it.wait(30))
                post("10.0.0.1 again")
                self.assertEqual(answers["10.0.0.1 again"].status_code, 409)
                self.assertIn("still at your last reading", answers["10.0.0.1 again"].get_json()["detail"])
                post("10.0.0.2")
                first.join()
            self.assertEqual({answers[who].status_code for who in ("10.0.0.1", "10.0.0.2")}, {503})
            post("10.0.0.1")
            self.assertEqual(answers["10.0.0.1"].status_code, 503)


class Everywhere(unittest.TestCase):
    def test_poison_is_what_is_refused(self) -> None:
        """The table of the doors and the rule know the same kinds."""
        for one in POISON:
            self.assertTrue(UNSHOWABLE.search(one), ascii(one))
