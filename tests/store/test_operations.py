"""The verbs of the store: versions, append-only readings and papers, migrations, backup."""

import sqlite3
import threading
from datetime import datetime, timedelta, timezone
from pathlib import Path
from typing import Any

from sqlalchemy import select, text
from sqlalchemy.exc import IntegrityError

from fulmen.core.editing.acts import as_history
from fulmen.core.editing.job_file import digest, parse_job, write_job
from fulmen.core.errors import JobFileError
from fulmen.core.model.readings import Outcome, Reading, StepKey
from fulmen.demo import load_demo
from fulmen.store import operations, papers
from fulmen.store.errors import AppendOnly, Conflict, NotFound, NothingChanged, NotReady, Unusable
from fulmen.store.tables import Base, JobRow, LetterRow
from fulmen.store.upkeep import back_up, migrate
from tests.app import NOW, AppCase
from tests.core.test_upgrades import frozen_files
from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, HALFWAY, TT, job


def reading(value: float) -> Reading:
    return Reading(
        step=StepKey.ZS, subject="ev", outcome=Outcome.MEASURED, value=value, taken_by="A. Tester", taken_at=NOW
    )


class KeptByAnEarlierVersion(AppCase):
    """A store that version 1 filled: its jobs are upgraded as they are read, its letters are never written anew."""

    def document(self) -> dict[str, Any]:
        """The newest file of version 1 of the example."""
        found = [one["document"] for one in frozen_files() if one["path"].endswith(f"{DEVICE_IN_UNIT}.json")]
        return next(one for one in reversed(found) if one["schema_version"] == 1)

    def as_version_1(self, job_id: int) -> None:
        old_letter = {"kind": "accepted", "dated": "2026-11-20", "about": "74 A in all, charge point 32 A", "text": ""}
        with self.sessions() as session, session.begin():
            row = session.get(JobRow, job_id)
            assert row is not None
            row.document = self.document()
            session.add(LetterRow(job_id=job_id, document=old_letter))

    def test_it_reads_saves_and_keeps_its_letters(self) -> None:
        stored = self.store(DEVICE_IN_UNIT)
        self.as_version_1(stored.id)
        read = operations.load_job(self.sessions, stored.id)
        self.assertEqual(read.job.charge_points, parse_job(self.document()).charge_points)
        assert read.job.letters[-1].about is not None
        self.assertEqual(read.job.letters[-1].about.demand_a, 74.0)
        renamed = read.job.model_copy(update={"title": "Saved again"})
        operations.save_job(self.sessions, stored.id, read.version, renamed, NOW)
        again = operations.load_job(self.sessions, stored.id)
        self.assertEqual((again.job.title, again.job.letters), ("Saved again", read.job.letters))
        with self.sessions() as session:
            kept = session.scalars(select(LetterRow).order_by(LetterRow.id)).all()[-1]
            self.assertEqual(kept.document["about"], "74 A in all, charge point 32 A")


class Jobs(AppCase):
    def test_what_is_stored_comes_back_the_same(self) -> None:
        for name in (DEVICE_IN_UNIT, TT, FALLS_SHORT):
            stored = operations.create_job(self.sessions, job(name), NOW)
            told = write_job(as_history(job(name)))
            self.assertEqual(write_job(operations.load_job(self.sessions, stored.id).job), told)

    def test_saving_counts_the_version_up(self) -> None:
        stored = self.store(HALFWAY)
        changed = stored.job.model_copy(update={"title": "Another name"})
        self.assertEqual(operations.save_job(self.sessions, stored.id, 1, changed, NOW).version, 2)
        self.assertEqual(operations.load_job(self.sessions, stored.id).job.title, "Another name")

    def test_a_stale_version_is_a_conflict_that_carries_what_is_stored(self) -> None:
        stored = self.store(HALFWAY)
        mine = stored.job.model_copy(update={"title": "Mine"})
        theirs = stored.job.model_copy(update={"title": "Theirs"})
        operations.save_job(self.sessions, stored.id, 1, theirs, NOW, "W. Otterby")
        with self.assertRaises(Conflict) as caught:
            operations.save_job(self.sessions, stored.id, 1, mine, NOW)
        met = caught.exception
        self.assertEqual((met.stored.version, met.stored.job.title), (2, "Theirs"))
        self.assertEqual((met.stored.by, met.stored.at), ("W. Otterby", NOW))
        told = [(one.field, one.name, one.mine, one.theirs) for one in met.differences]
        self.assertEqual(told, [("title", "Title", "Mine", "Theirs")])
        self.assertEqual(operations.load_job(self.sessions, stored.id).job.title, "Theirs")

    def test_of_many_at_once_one_wins(self) -> None:
        stored = self.store(HALFWAY)
        outcomes: list[str] = []

        def save(name: str) -> None:
            try:
                operations.save_job(self.sessions, stored.id, 1, stored.job.model_copy(update={"title": name}), NOW)
                outcomes.append("saved")
            except Conflict:
                outcomes.append("conflict")

        threads = [threading.Thread(target=save, args=(f"Name {number}",)) for number in range(6)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(sorted(outcomes), ["conflict"] * 5 + ["saved"])

    def test_nothing_is_half_saved(self) -> None:
        stored = self.store(HALFWAY)
        wrong = stored.job.model_copy(update={"circuits": (*stored.job.circuits, stored.job.circuits[0])})
        with self.assertRaises(JobFileError):
            operations.save_job(self.sessions, stored.id, 1, wrong, NOW)
        self.assertEqual(operations.load_job(self.sessions, stored.id), stored)

    def test_no_such_job(self) -> None:
        with self.assertRaises(NotFound):
            operations.load_job(self.sessions, 99)
        with self.assertRaises(NotFound):
            operations.save_job(self.sessions, 99, 1, job(), NOW)

    def test_list_and_search(self) -> None:
        first, second = self.store(HALFWAY), self.store(TT)
        operations.save_job(self.sessions, first.id, 1, first.job, NOW + timedelta(minutes=1))
        rows, total = operations.list_jobs(self.sessions)
        self.assertEqual(([row.id for row in rows], total), ([first.id, second.id], 2))
        for words, count in (("saddler", 1), ("WINDERMARK", 1), ("F-104", 2), ("100%", 0), ("_", 0)):
            with self.subTest(words):
                self.assertEqual(operations.list_jobs(self.sessions, words)[1], count)

    def test_demo_loads_once_and_never_over_data(self) -> None:
        self.assertEqual(load_demo(self.app, NOW), 17)
        self.assertEqual(load_demo(self.app, NOW), 0)


class Readings(AppCase):
    def test_a_reading_is_appended_without_disturbing_the_design(self) -> None:
        stored = self.store(HALFWAY)
        after = operations.add_reading(self.sessions, stored.id, reading(0.3), NOW)
        self.assertEqual(after.job.readings, (*stored.job.readings, reading(0.3)))
        self.assertEqual(
            operations.save_job(self.sessions, stored.id, 1, stored.job, NOW).job.readings, after.job.readings
        )

    def test_a_document_cannot_change_remove_or_slip_in_readings(self) -> None:
        stored = self.store(HALFWAY)
        taken = stored.job.readings
        for readings in (taken[1:], (*taken, reading(0.1)), (reading(0.1), *taken[1:])):
            with self.subTest(len(readings)), self.assertRaises(AppendOnly):
                changed = stored.job.model_copy(update={"readings": readings})
                operations.save_job(self.sessions, stored.id, 1, changed, NOW)
        self.assertEqual(operations.load_job(self.sessions, stored.id), stored)

    def test_the_database_itself_refuses_to_rewrite(self) -> None:
        self.store(DEVICE_IN_UNIT)
        self.issue()
        for table in ("reading", "paper", "audit"):
            for statement in (f"UPDATE {table} SET id = id + 1000", f"DELETE FROM {table}"):
                with self.subTest(statement), self.sessions() as session, self.assertRaises(IntegrityError):
                    session.execute(text(statement))

    def test_times_come_back_in_utc(self) -> None:
        stored = self.store(HALFWAY)
        local = NOW.astimezone(timezone(timedelta(hours=1)))
        operations.save_job(self.sessions, stored.id, 1, stored.job, local)
        with self.sessions() as session:
            self.assertEqual(session.get_one(JobRow, stored.id).changed_at, NOW)
            with self.assertRaisesRegex(Exception, "without a zone"):
                session.add(JobRow(created_at=datetime(2026, 1, 1)))
                session.flush()


class Papers(AppCase):
    signatures = job().certificate.signatures

    def test_issuing_freezes_data_hash_and_bytes(self) -> None:
        self.store(DEVICE_IN_UNIT)
        paper = self.issue()
        self.assertEqual((paper.number, paper.sha256), ("FC-2026-0001", digest(paper.data)))
        again = papers.load_paper(self.sessions, paper.id)
        self.assertEqual((again.pdf, again.issued_at), (paper.data.encode(), NOW))
        changed = operations.load_job(self.sessions, 1)
        operations.save_job(self.sessions, 1, changed.version, changed.job.model_copy(update={"title": "Later"}), NOW)
        self.assertEqual(papers.load_paper(self.sessions, paper.id).data, paper.data)

    def test_a_later_change_needs_a_superseding_certificate(self) -> None:
        self.store(DEVICE_IN_UNIT)
        first = self.issue()
        with self.assertRaises(NothingChanged):
            self.issue(2)
        current = operations.load_job(self.sessions, 1)
        operations.save_job(self.sessions, 1, 2, current.job.model_copy(update={"reference": "F-2"}), NOW)
        second = self.issue(3)
        self.assertEqual((second.supersedes_id, second.number), (first.id, "FC-2026-0002"))
        self.assertEqual([row.number for row in papers.list_papers(self.sessions, 1)], ["FC-2026-0002", "FC-2026-0001"])
        self.assertEqual(operations.certified(self.sessions, [1]), {1: "FC-2026-0002"})

    def test_it_says_what_is_missing_and_writes_nothing(self) -> None:
        self.store(HALFWAY)
        with self.assertRaises(NotReady) as caught:
            self.issue()
        self.assertTrue(any("Zs" in gap.text for gap in caught.exception.gaps))
        self.assertEqual(papers.list_papers(self.sessions, 1), [])
        self.assertEqual(operations.load_job(self.sessions, 1).version, 1)

    def test_unsigned_or_stale(self) -> None:
        self.store(DEVICE_IN_UNIT)
        with self.assertRaises(NotReady):
            self.issue(signatures=self.signatures[:2])
        with self.assertRaises(Conflict):
            self.issue(7)
        with self.assertRaises(NotFound):
            papers.load_paper(self.sessions, 9)

    def test_the_embedded_data_is_the_signed_job_file(self) -> None:
        self.store(DEVICE_IN_UNIT, {"certificate.signatures": []})
        paper = self.issue()
        import json

        self.assertEqual(parse_job(json.loads(paper.data)).certificate.signatures, self.signatures)


class Database(AppCase):
    def test_migrations_give_the_tables_the_code_expects(self) -> None:
        migrate(self.settings)
        with self.sessions() as session:
            for table in Base.metadata.sorted_tables:
                found = {row[1] for row in session.execute(text(f"PRAGMA table_info({table.name})"))}
                self.assertEqual(found, {column.name for column in table.columns})
            self.assertEqual(session.scalar(text("PRAGMA foreign_keys")), 1)
            self.assertEqual(session.scalar(text("PRAGMA journal_mode")), "wal")

    def test_backup_is_whole_and_never_overwrites(self) -> None:
        self.store(DEVICE_IN_UNIT)
        target = Path(self.settings.database.parent) / "copy.sqlite"
        back_up(self.settings, target)
        with sqlite3.connect(target) as copy:
            self.assertEqual(copy.execute("SELECT title FROM job").fetchone()[0], job().title)
        copy.close()
        with self.assertRaises(Unusable):
            back_up(self.settings, target)
