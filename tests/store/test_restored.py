"""Restoring never corrupts, is known to the store, and no number is given twice; one server a store by whatever name."""

import os
import shutil
import signal
import sqlite3
import subprocess
import sys
import threading
import time
from contextlib import closing
from pathlib import Path

from fulmen.settings import Settings
from fulmen.store import operations, papers
from fulmen.store.database import open_database, sessions
from fulmen.store.doctor import first_fault
from fulmen.store.errors import Unusable
from fulmen.store.issues import Issue
from fulmen.store.papers import CLAIMED_FOR, issue_next, let_go_of_claims
from fulmen.store.places import one_server, side_files
from fulmen.store.upkeep import back_up, migrate, restore
from tests.acts import signed_job, warrant
from tests.app import NOW, PATIENCE_S, AppCase
from tests.jobs import DEVICE_IN_UNIT, HALFWAY, ROOT, job

# Each has a meaning in an address, in a pattern or in a settings file.
ODD_NAMES = ("a?b", "a#b", "100%", "%20", "with space", "mode=ro&x", "ü", "[1]", "a'b")


class Restored(AppCase):
    def titles(self, settings: Settings) -> list[str]:
        engine = open_database(settings)
        rows, _ = operations.list_jobs(sessions(engine))
        engine.dispose()
        return sorted(row.title for row in rows)

    def beside(self, name: str) -> Settings:
        return Settings(database=self.settings.database.with_name(name) / "fulmen.sqlite")

    def backup(self) -> Path:
        target = self.settings.database.with_name("backup.sqlite")
        back_up(self.settings, target)
        return target

    def test_over_the_dirty_log_of_the_store_that_was_moved(self) -> None:
        """The database's file is moved away while its log holds what came since the backup: the log is another store's."""
        self.store(HALFWAY)
        backup = self.backup()
        for number in range(5):
            self.store(DEVICE_IN_UNIT, {"title": f"Since {number}"})
        target = self.beside("moved")
        target.database.parent.mkdir()
        for endings in (("-wal",), ("-wal", "-shm"), ("-journal",)):
            for ending in endings:
                source = self.settings.database.with_name(f"{self.settings.database.name}-wal")
                self.assertTrue(source.stat().st_size, "the log is clean, so this proves nothing")
                shutil.copy(source, target.database.with_name(f"{target.database.name}{ending}"))
            done = restore(target, backup, NOW)
            with self.subTest(endings):
                self.assertEqual(len(done.moved_away), len(endings))
                self.assertTrue(all(one.exists() for one in done.moved_away))
                self.assertEqual(first_fault(target.database), "")
                self.assertEqual(self.titles(target), [job(HALFWAY).title])
            target.database.unlink()
            for left in side_files(target.database):
                left.unlink()

    def test_a_new_store_beside_a_dirty_log_begins_empty(self) -> None:
        self.store(HALFWAY)
        target = self.beside("new")
        target.database.parent.mkdir()
        log = self.settings.database.with_name(f"{self.settings.database.name}-wal")
        shutil.copy(log, target.database.with_name(f"{target.database.name}-wal"))
        migrate(target)
        self.assertEqual((self.titles(target), first_fault(target.database)), ([], ""))

    def test_whatever_the_path_is_called(self) -> None:
        self.store(HALFWAY)
        for name in ODD_NAMES:
            folder = self.settings.database.with_name(f"in {name}")
            folder.mkdir()
            settings = Settings(database=folder / f"{name}.sqlite")
            with self.subTest(name):
                migrate(settings)
                engine = open_database(settings)
                operations.create_job(sessions(engine), job(HALFWAY), NOW)
                engine.dispose()
                self.assertEqual(first_fault(settings.database), "")
                copy = folder / f"{name} copy"
                back_up(settings, copy)
                again = Settings(database=folder / f"again {name}")
                restore(again, copy, NOW)
                self.assertEqual(self.titles(again), [job(HALFWAY).title])
                # Nothing stands under a name that was cut off.
                made = (f"{name}.sqlite", f"{name} copy", f"again {name}")
                self.assertEqual([one.name for one in folder.iterdir() if not one.name.startswith(made)], [])

    def test_by_a_link_the_file_itself_is_restored(self) -> None:
        self.store(HALFWAY)
        backup = self.backup()
        real = self.beside("real")
        real.database.parent.mkdir()
        link = self.settings.database.with_name("link.sqlite")
        link.symlink_to(real.database)
        restore(Settings(database=link), backup, NOW)
        self.assertTrue(link.is_symlink() and real.database.is_file())
        self.assertEqual(self.titles(real), [job(HALFWAY).title])
        with self.assertRaises(Unusable):
            restore(Settings(database=link), backup, NOW)

    def test_a_number_given_since_the_backup_is_never_given_again(self) -> None:
        """Also where one backup is restored twice, and where a restored store is backed up and restored again."""
        self.store(DEVICE_IN_UNIT)
        given = [self.issue().number]
        backup = self.backup()
        for number in range(3):
            other = self.store(DEVICE_IN_UNIT, {"title": f"House {number}"})
            given.append(self.issue(job_id=other.id).number)
        first, second, third = (self.beside(name) for name in ("first", "second", "third"))
        for target, source in ((first, backup), (second, backup), (third, None)):
            if source is None:
                source = backup.with_name("again.sqlite")
                back_up(first, source)
            restore(target, source, NOW)
            engine = open_database(target)
            made = sessions(engine)
            for number in range(3):
                whole = signed_job(made, job(DEVICE_IN_UNIT, {"title": f"After {number}"}))
                signatures = job().certificate.signatures
                papers.ask_for_certificate(
                    made, whole.id, papers.Seen(whole.version), signatures, warrant(made, whole.id), NOW
                )
                wish = issue_next(made, lambda issue: b"%PDF-", lambda: NOW)
                assert wish is not None and wish.number is not None
                given.append(wish.number)
            engine.dispose()
            self.assertEqual(first_fault(target.database), "")
        self.assertEqual(len(set(given)), len(given), given)
        self.assertRegex(given[-1], r"^FC-2026-R[B-Z]{3}-0003$")

    def test_a_copy_that_is_not_what_it_should_be_is_not_put_there(self) -> None:
        from unittest.mock import patch

        self.store(HALFWAY)
        backup, target = self.backup(), self.beside("bad")
        with patch("fulmen.store.doctor.first_fault", side_effect=["", "Reading 1 was taken out."]):
            with self.assertRaises(Unusable) as caught:
                restore(target, backup, NOW)
        self.assertIn("Nothing was restored", str(caught.exception))
        self.assertEqual([one.name for one in target.database.parent.iterdir()], ["fulmen.sqlite.lock"])


class OneServer(AppCase):
    def test_by_whatever_name(self) -> None:
        link = self.settings.database.with_name("link.sqlite")
        link.symlink_to(self.settings.database)
        folder = self.settings.database.parent.with_name(f"{self.settings.database.parent.name}-link")
        folder.symlink_to(self.settings.database.parent)
        self.addCleanup(folder.unlink)
        names = (
            self.settings.database,
            link,
            folder / self.settings.database.name,
            folder / ".." / folder.name / "link.sqlite",
        )
        for name in names:
            with one_server(self.settings.database), self.subTest(name.name):
                with self.assertRaises(Unusable) as caught, one_server(name):
                    self.fail("two serve one store")
                self.assertIn("Another Fulmen serves", str(caught.exception))
            with one_server(name):
                pass

    def test_a_file_with_two_names_is_refused(self) -> None:
        second = self.settings.database.with_name("second.sqlite")
        os.link(self.settings.database, second)
        for name in (self.settings.database, second):
            with self.subTest(name.name), self.assertRaises(Unusable) as caught, one_server(name):
                self.fail("served")
            self.assertIn("two names", str(caught.exception))

    def test_a_dead_server_holds_nothing_and_a_living_one_is_not_restored_over(self) -> None:
        backup = self.settings.database.with_name("backup.sqlite")
        back_up(self.settings, backup)
        code = (
            "import sys, time; from pathlib import Path; from fulmen.store.places import one_server\n"
            "with one_server(Path(sys.argv[1])): print('serves', flush=True); time.sleep(600)"
        )
        other = subprocess.Popen(
            [sys.executable, "-c", code, str(self.settings.database)], stdout=subprocess.PIPE, cwd=ROOT, text=True
        )
        assert other.stdout is not None
        self.assertEqual(other.stdout.readline(), "serves\n")
        with self.assertRaises(Unusable), one_server(self.settings.database):
            self.fail("two serve one store")
        self.settings.database.rename(self.settings.database.with_name("away.sqlite"))
        with self.assertRaises(Unusable):
            restore(self.settings, backup, NOW)
        other.send_signal(signal.SIGKILL)
        other.wait()
        other.stdout.close()
        restore(self.settings, backup, NOW)


class Claims(AppCase):
    def wish(self, title: str) -> None:
        whole = signed_job(self.sessions, job(DEVICE_IN_UNIT, {"title": title}))
        by = warrant(self.sessions, whole.id)
        papers.ask_for_certificate(
            self.sessions, whole.id, papers.Seen(whole.version), job().certificate.signatures, by, NOW
        )

    def test_two_at_work_never_make_one_twice(self) -> None:
        for number in range(6):
            self.wish(f"House {number}")
        rendered: list[str] = []

        def render(issue: Issue) -> bytes:
            rendered.append(issue.job.title)
            time.sleep(0.05)
            return b"%PDF-"

        def work(name: str) -> None:
            until = time.monotonic() + PATIENCE_S
            while issue_next(self.sessions, render, lambda: NOW, name) and time.monotonic() < until:
                pass

        workers = [threading.Thread(target=work, args=(f"worker {number}",)) for number in range(3)]
        for worker in workers:
            worker.start()
        for worker in workers:
            worker.join()
        self.assertEqual(sorted(rendered), [f"House {number}" for number in range(6)])
        self.assertEqual(first_fault(self.settings.database), "")

    def test_a_claim_is_taken_up_once_it_ran_out_or_its_server_is_known_to_be_gone(self) -> None:
        class Died(BaseException):
            pass

        def dies(issue: Issue) -> bytes:
            raise Died

        for let_go in (False, True):
            self.wish(f"Let go: {let_go}")
            with self.assertRaises(Died):
                issue_next(self.sessions, dies, lambda: NOW, "the one that died")
            self.assertIsNone(issue_next(self.sessions, lambda issue: b"%PDF-", lambda: NOW, "another"))
            at = NOW if let_go else NOW + CLAIMED_FOR * 2
            if let_go:
                let_go_of_claims(self.sessions)
            done = issue_next(self.sessions, lambda issue: b"%PDF-", lambda at=at: at, "another")
            assert done is not None
            self.assertEqual(done.state, "issued")

    def test_who_was_too_slow_keeps_nothing(self) -> None:
        self.wish("Slow")

        def slow(issue: Issue) -> bytes:
            later = NOW + CLAIMED_FOR * 2
            done = issue_next(self.sessions, lambda other: b"%PDF-quick", lambda: later, "another")
            assert done is not None and done.state == "issued"
            return b"%PDF-slow"

        issue_next(self.sessions, slow, lambda: NOW, "slow")
        with closing(sqlite3.connect(self.settings.database)) as database:
            self.assertEqual(database.execute("SELECT pdf FROM paper").fetchall(), [(b"%PDF-quick",)])
