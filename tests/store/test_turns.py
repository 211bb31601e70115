"""Changes in turn: judged without the lock, kept in it, judged anew where the job moved on; many at once."""

import sqlite3
import threading
import time
from collections.abc import Callable
from contextlib import closing
from typing import Any
from unittest.mock import patch

from fulmen.core.model.readings import HOLDS
from fulmen.core.network_operator.form import operator_form
from fulmen.core.reference.rule_set import rule_set
from fulmen.simulators.operator_desk import desk_answers, sent_letter
from fulmen.store import database as store_database
from fulmen.store import desk, links, operations, papers, turns
from fulmen.store.acts import Act, ActKind, Call, hold, settle_call, sign_hold
from fulmen.store.database import open_database, sessions, writing
from fulmen.store.errors import Busy, Conflict, NotAsSeen, NotReady
from fulmen.store.last_seen import MOST_SEEN, LastSeen
from fulmen.store.stored_jobs import StoredJob
from tests.acts import signed_job, warrant, word_header
from tests.app import NOW, AppCase
from tests.jobs import AT_SURVEY, DEVICE_IN_UNIT, job


class Turns(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.told = job(DEVICE_IN_UNIT)
        self.started = operations.create_job(self.sessions, job(AT_SURVEY), NOW)
        self.number = self.store(DEVICE_IN_UNIT).id

    def changes(self) -> dict[str, Callable[[], StoredJob]]:
        """Every way to change a job that is judged, as a person would come to it."""
        number = self.number
        signed = next(one for one in self.told.readings if one.step in HOLDS)
        plain = next(one for one in reversed(self.told.readings) if one.step not in HOLDS)
        act = hold(signed.step.value, signed.subject)
        decided = self.told.decisions[0]
        call = Call(finding=decided.key, condition=decided.condition, reason=decided.reason, name="A. B.",
                    decided_at=NOW)  # fmt: skip
        form = operator_form(self.told, rule_set(self.told.rule_set), ())
        answers = desk_answers(form, NOW.date())
        _, secret = links.make_link(self.sessions, number, "R. Q.", 7, NOW)
        given = links.give_answer(self.sessions, secret, "own_land", "yes", NOW).answers[0]

        def save() -> StoredJob:
            now = operations.load_job(self.sessions, number)
            changed = now.job.model_copy(update={"reference": now.job.reference + "+"})
            return operations.save_job(self.sessions, number, now.version, changed, NOW)

        return {
            "created": lambda: operations.create_job(self.sessions, self.told, NOW),
            "saved": save,
            "reading": lambda: operations.add_reading(self.sessions, number, plain, NOW),
            "hold": lambda: sign_hold(self.sessions, number, signed, warrant(self.sessions, number, act), NOW),
            "call": lambda: settle_call(
                self.sessions, number, call, warrant(self.sessions, number, Act(ActKind.CALL, decided.key)), NOW
            ),
            "letter": lambda: operations.add_letters(self.sessions, number, self.told.letters[:1], NOW),
            "handed in": lambda: desk.open_case(self.sessions, number, {}, sent_letter(form, NOW.date()), answers, NOW),
            "days passed": lambda: desk.pass_days(self.sessions, number, 30, NOW),
            "answer taken": lambda: links.accept_answer(self.sessions, number, given.id, self.version(), NOW),
        }

    def version(self) -> int:
        return operations.load_job(self.sessions, self.number).version

    def test_nothing_is_judged_while_the_lock_is_held(self) -> None:
        """Seen from outside: while it is judged, another connection gets SQLite's lock at once."""
        judged: list[bool] = []
        evaluate = turns.evaluate

        def watched(*given: Any) -> Any:
            with closing(sqlite3.connect(self.settings.database, timeout=0, isolation_level=None)) as other:
                try:
                    other.execute("BEGIN IMMEDIATE")
                    other.execute("ROLLBACK")
                    judged.append(True)
                except sqlite3.OperationalError:
                    judged.append(False)
            return evaluate(*given)

        # Asked for where something was open when it was judged last, so that asking judges it too.
        unready = {"unready": lambda: papers.ask_for_certificate(
            self.sessions, self.started.id, papers.Seen(1), (), warrant(self.sessions, self.started.id), NOW
        )}  # fmt: skip
        with patch.object(turns, "evaluate", watched):
            for what, change in {**self.changes(), **unready}.items():
                judged.clear()
                try:
                    change()
                except NotReady:
                    self.assertEqual(what, "unready")
                with self.subTest(what):
                    self.assertTrue(judged)
                    self.assertTrue(all(judged))
            judged.clear()
            self.issue(1, self.store(DEVICE_IN_UNIT).id)
            self.assertTrue(judged)
            self.assertTrue(all(judged))

    def test_what_is_answered_is_what_is_stored(self) -> None:
        for what, change in self.changes().items():
            answered = change()
            with self.subTest(what):
                self.assertEqual(answered, operations.load_job(self.sessions, answered.id))

    def test_a_job_that_moves_on_meanwhile_is_judged_anew(self) -> None:
        """Somebody else appends a reading under each judgement, once or at every try: nothing is lost, all end."""
        other = next(one for one in self.told.readings if one.step not in HOLDS)
        evaluate = turns.evaluate
        for times in (1, turns.TRIES, turns.TRIES + 3):
            for what, change in self.changes().items():
                left = [0 if what == "created" else times]

                def meddling(*given: Any, left: list[int] = left) -> Any:
                    # At the last try the lock is held, and nobody else can write.
                    if left[0] and not self.sessions().info[store_database.TURN].locked():
                        left[0] -= 1
                        with patch.object(turns, "evaluate", evaluate):
                            operations.add_reading(self.sessions, self.number, other, NOW)
                    return evaluate(*given)

                before = len(operations.load_job(self.sessions, self.number).job.readings)
                with patch.object(turns, "evaluate", meddling):
                    answered = change()
                meddled = 0 if what == "created" else times - left[0]
                added = meddled + (what in ("reading", "hold"))
                after = operations.load_job(self.sessions, self.number)
                with self.subTest(what, times=times):
                    self.assertEqual(answered, operations.load_job(self.sessions, answered.id))
                    self.assertEqual(len(after.job.readings), before + added)
                    self.assertGreaterEqual(meddled, 0 if what == "created" else min(times, turns.TRIES))

    def test_an_edit_under_an_edit_is_still_a_conflict(self) -> None:
        evaluate, stands = turns.evaluate, operations.load_job(self.sessions, self.number)

        def mine(title: str) -> StoredJob:
            changed = stands.job.model_copy(update={"title": title})
            return operations.save_job(self.sessions, self.number, stands.version, changed, NOW)

        def meddling(*given: Any) -> Any:
            with patch.object(turns, "evaluate", evaluate):
                mine("Theirs")
            return evaluate(*given)

        with patch.object(turns, "evaluate", meddling), self.assertRaises(Conflict) as caught:
            mine("Mine")
        self.assertEqual([one.theirs for one in caught.exception.differences], ["Theirs"])
        self.assertEqual(operations.load_job(self.sessions, self.number).job.title, "Theirs")

    def test_who_can_not_write_for_long_is_told_that_it_is_us(self) -> None:
        held, let_go = threading.Event(), threading.Event()

        def hold_it() -> None:
            with writing(self.sessions):
                held.set()
                let_go.wait(30)

        holder = threading.Thread(target=hold_it)
        holder.start()
        held.wait(30)
        with patch.object(store_database, "LOCK_S", 0.05), self.assertRaises(Busy):
            operations.create_job(self.sessions, self.told, NOW)
        with patch.object(store_database, "LOCK_S", 0.05):
            answer = self.client.post("/api/v1/jobs/blank", json={"title": "House"})
        let_go.set()
        holder.join()
        self.assertEqual((answer.status_code, answer.get_json()["title"]), (503, "Busy"))
        self.assertIn("Fulmen is busy writing what others sent: try again", answer.get_json()["detail"])
        self.assertEqual(self.client.post("/api/v1/jobs/blank", json={"title": "House"}).status_code, 201)


class Recalled(AppCase):
    """A change may be judged by what this process saw last, never by what another one changed since."""

    def ask(self, number: int, version: int) -> str:
        signed = job(DEVICE_IN_UNIT).certificate.signatures
        shown = operations.load_job(self.sessions, number).job
        papers.ask_for_certificate(
            self.sessions, number, papers.Seen(version, job=shown), signed, warrant(self.sessions, number), NOW
        )
        made = papers.issue_next(self.sessions, lambda issue: issue.data.encode(), lambda: NOW)
        assert made is not None
        return made.state

    def test_what_another_process_changed_is_read_anew(self) -> None:
        number = self.store(DEVICE_IN_UNIT).id
        others = sessions(open_database(self.settings))
        self.addCleanup(others.kw["bind"].dispose)
        before = operations.load_job(self.sessions, number)
        operations.save_job(others, number, 1, before.job.model_copy(update={"reference": "Theirs"}), NOW)
        signed = job(DEVICE_IN_UNIT).certificate.signatures
        by = warrant(self.sessions, number)
        with self.assertRaises(Conflict):
            papers.ask_for_certificate(self.sessions, number, papers.Seen(1, job=before.job), signed, by, NOW)
        with self.assertRaises(NotAsSeen):
            papers.ask_for_certificate(self.sessions, number, papers.Seen(2, job=before.job), signed, by, NOW)
        self.assertEqual(self.ask(number, 2), "issued")

    def test_an_edit_of_what_another_process_changed_is_a_conflict_and_a_reading_goes_after_theirs(self) -> None:
        number = self.store(DEVICE_IN_UNIT).id
        others = sessions(open_database(self.settings))
        self.addCleanup(others.kw["bind"].dispose)
        before = operations.load_job(self.sessions, number)
        reading = next(one for one in before.job.readings if one.step not in HOLDS)
        operations.save_job(others, number, before.version, before.job.model_copy(update={"reference": "Theirs"}), NOW)
        operations.add_reading(others, number, reading, NOW)
        with self.assertRaises(Conflict):
            operations.save_job(self.sessions, number, before.version, before.job, NOW)
        after = operations.add_reading(self.sessions, number, reading, NOW)
        self.assertEqual(len(after.job.readings), len(before.job.readings) + 2)
        self.assertEqual(after, operations.load_job(others, number))

    def test_a_row_rewritten_under_it_is_found_when_its_turn_comes(self) -> None:
        number = self.store(DEVICE_IN_UNIT).id
        operations.load_job(self.sessions, number)
        with closing(sqlite3.connect(self.settings.database)) as database, database:
            database.execute("UPDATE job SET document = json_set(document, '$.site.householder', '')")
        with patch("fulmen.store.turns.standing", wraps=turns.standing) as asked:
            signed = job(DEVICE_IN_UNIT).certificate.signatures
            papers.ask_for_certificate(
                self.sessions, number, papers.Seen(1), signed, warrant(self.sessions, number), NOW
            )
        self.assertTrue(asked.call_args.kwargs["recall"])
        made = papers.issue_next(self.sessions, lambda issue: b"%PDF", lambda: NOW)
        assert made is not None
        self.assertEqual(made.state, "refused")

    def test_it_keeps_so_many_and_no_more(self) -> None:
        seen: LastSeen[str] = LastSeen()
        for number in range(MOST_SEEN + 1):
            seen.put(number, str(number))
        seen.put(1, "again")
        seen.put(MOST_SEEN + 1, "newest")
        self.assertEqual([seen.get(one) for one in (0, 1, 2, MOST_SEEN + 1)], [None, "again", None, "newest"])


class OneAtATime(AppCase):
    def test_wishes_are_taken_one_after_another_and_everything_else_beside_them(self) -> None:
        """Of ten at the same moment one is at work at a time, and a refused one lets the next one in."""
        made = [signed_job(self.sessions, job(DEVICE_IN_UNIT, {"title": f"House {n}"})) for n in range(10)]
        at_work, most, guard = [0], [0], threading.Lock()
        ask = papers.ask_for_certificate

        def slowly(*given: Any) -> Any:
            with guard:
                at_work[0] += 1
                most[0] = max(most[0], at_work[0])
            time.sleep(0.02)
            try:
                return ask(*given)
            finally:
                with guard:
                    at_work[0] -= 1

        answers: list[int] = []
        clients = [self.app.test_client() for _ in made]
        words = [word_header(client, one.id) for client, one in zip(clients, made, strict=True)]

        def post(number: int) -> None:
            # One of three signatures: refused, and its turn ends all the same.
            signed = [job().certificate.signatures[0].model_dump(mode="json")]
            body = {"job": made[number].job.model_dump(mode="json"), "signatures": signed}
            path, head = f"/api/v1/jobs/{made[number].id}/papers", {"If-Match": "1", **words[number]}
            answers.append(clients[number].post(path, json=body, headers=head).status_code)

        with patch.object(papers, "ask_for_certificate", slowly):
            threads = [threading.Thread(target=post, args=(n,)) for n in range(10)]
            for thread in threads:
                thread.start()
            for thread in threads:
                thread.join()
        self.assertEqual((answers, most[0]), ([409] * 10, 1))
