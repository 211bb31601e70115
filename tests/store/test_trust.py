"""What is altered is seen: every kind of tampering with a store is named, and an altered paper is not handed out."""

import hashlib
import json
import shutil
import sqlite3
from collections.abc import Callable
from contextlib import closing
from pathlib import Path
from typing import Any

from fulmen.core.editing.job_file import read_job
from fulmen.core.evaluate import evaluate
from fulmen.core.model.stops import Stop
from fulmen.core.papers.certificate import certificate_contents
from fulmen.core.reference.rule_set import rule_set
from fulmen.photos import make_photo
from fulmen.store import operations, papers
from fulmen.store.chain import content_sha256
from fulmen.store.database import writing
from fulmen.store.doctor import first_fault
from fulmen.store.errors import Altered, Unusable
from fulmen.store.photos import Place, add_photo, remove_photo
from fulmen.store.tables import PaperRow
from fulmen.store.upkeep import back_up, head_file, migrate, restore, revision_of
from tests.app import NOW, AppCase
from tests.jobs import DEVICE_IN_UNIT, HALFWAY
from tests.photos.__init__ import picture

UNGUARDED = ";".join(
    f"DROP TRIGGER {table}_no_{verb}"
    for table in ("reading", "paper", "audit", "letter", "chain")
    for verb in ("update", "delete")
)
# What somebody with the file at hand may do to it, and how doctor names it.
TAMPERED: tuple[tuple[str, str, str], ...] = (
    ("a guard dropped", "DROP TRIGGER reading_no_update", "The guard that keeps reading entries"),
    ("a guard made harmless", "DROP TRIGGER paper_no_delete; CREATE TRIGGER paper_no_delete BEFORE DELETE ON paper "
     "BEGIN SELECT 1; END", "The guard that keeps paper entries"),
    ("a reading replaced", f"{UNGUARDED}; INSERT OR REPLACE INTO reading SELECT id, job_id, step, "
     "replace(document, '0.19', '0.09') FROM reading WHERE step = 'ze'", "is not what was kept"),
    ("a reading taken out", f"{UNGUARDED}; DELETE FROM reading WHERE id = 1", "Reading 1 was taken out"),
    ("a reading slipped in", "INSERT INTO reading (job_id, step, document) SELECT job_id, step, document FROM reading "
     "LIMIT 1", "was put in past the chain"),
    ("a log entry rewritten", f"{UNGUARDED}; UPDATE audit SET detail = 'nothing' WHERE id = 1", "Audit 1 of job 1"),
    ("a paper's bytes flipped", f"{UNGUARDED}; UPDATE paper SET pdf = x'255044462d' || substr(pdf, 6) || x'00'",
     "Paper 1 of job 1 is not what was kept"),
    ("a paper's number changed", f"{UNGUARDED}; UPDATE paper SET number = 'FC-2026-0009'", "Paper 1 of job 1"),
    ("what a paper states altered", f"{UNGUARDED}; UPDATE paper SET contents = replace(contents, '0.', '1.')",
     "Paper 1 of job 1 is not what was kept"),
    ("what a paper states taken out", f"{UNGUARDED}; UPDATE paper SET contents = NULL",
     "Paper 1 of job 1 is not what was kept"),
    ("a photo altered", "DROP TRIGGER photo_no_update; UPDATE photo SET jpeg = thumbnail", "Photo 1 of job 1"),
    ("a photo taken out past its log", "DELETE FROM photo WHERE id = 1", "Photo 1 was taken out"),
    ("an entry of the chain altered", f"{UNGUARDED}; UPDATE chain SET content_sha256 = head WHERE id = 3",
     "Entry 3 of the chain"),
    ("an entry of the chain taken out", f"{UNGUARDED}; DELETE FROM chain WHERE id = 2", "Entry 2 of the chain is missing"),
    ("the chain's end cut off", f"{UNGUARDED}; DELETE FROM audit WHERE id = (SELECT max(id) FROM audit); "
     "DELETE FROM chain WHERE id = (SELECT max(id) FROM chain)", "The chain breaks off after entry"),
)  # fmt: skip
# The guards put back, so that a tampering is found by what it did and not by what it left open.
GUARDS_AGAIN = "".join(
    f"CREATE TRIGGER IF NOT EXISTS {table}_no_{verb} BEFORE {verb.upper()} ON {table} "
    f"BEGIN SELECT RAISE(ABORT, '{table} entries are never rewritten'); END;"
    for table in ("reading", "paper", "audit", "letter", "chain", "photo")
    for verb in ("update", "delete")
    if (table, verb) != ("photo", "delete")
)


class Trust(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.store(DEVICE_IN_UNIT)
        self.photo = add_photo(self.sessions, 1, make_photo(picture()), Place(Stop.CUT_OUT), NOW)
        self.paper = self.issue(render=lambda issue: b"%PDF-" + issue.data.encode())
        self.file = self.settings.database

    def tampered(self, sql: str) -> Path:
        """A copy of the store with something done to it; its guards are put back afterwards, but where they are it."""
        copy = self.file.with_name("tampered.sqlite")
        copy.unlink(missing_ok=True)
        back_up(self.settings, copy)
        head_file(copy).unlink()
        with closing(sqlite3.connect(copy)) as database:
            database.executescript(sql)
            if UNGUARDED in sql or "photo_no_update" in sql:
                database.executescript(GUARDS_AGAIN)
        return copy

    def test_an_untouched_store_is_whole(self) -> None:
        told: list[tuple[int, int]] = []
        self.assertEqual(first_fault(self.file, lambda done, of: told.append((done, of))), "")
        self.assertEqual(told[-1][0], told[-1][1])
        self.assertEqual(first_fault(self.tampered("SELECT 1")), "")

    def test_every_kind_of_tampering_is_named(self) -> None:
        for what, sql, named in TAMPERED:
            with self.subTest(what):
                self.assertIn(named, first_fault(self.tampered(sql)))

    def test_what_a_paper_states_is_kept_with_it(self) -> None:
        """Worked out anew from the job inside it, it is the very same text."""
        with self.sessions() as session:
            kept = session.get_one(PaperRow, self.paper.id)
            job = read_job(kept.data)
            stated = certificate_contents(job, evaluate(job, rule_set(job.rule_set)))
            self.assertEqual(kept.contents, stated.model_dump_json())

    def test_a_paper_of_before_stands_as_it_was_sealed(self) -> None:
        """Such a one kept nothing of what it stated; the list that was sealed is written out here."""
        before = PaperRow(job_id=1, number="FC-2025-0001", kind="electrical_installation_certificate", issued_at=NOW,
                          data="{}", sha256="b" * 64, pdf=b"%PDF-")  # fmt: skip
        sealed = [1, before.number, before.kind, None, NOW.isoformat(), "b" * 64,
                  *(hashlib.sha256(one).hexdigest() for one in (b"{}", b"%PDF-"))]  # fmt: skip
        text = json.dumps(sealed, sort_keys=True, ensure_ascii=True, separators=(",", ":"))
        self.assertEqual(content_sha256("paper", before), hashlib.sha256(text.encode()).hexdigest())
        with writing(self.sessions) as session:
            session.add(before)
        self.assertEqual(first_fault(self.file), "")

    def test_a_flipped_byte_in_the_file_is_found(self) -> None:
        copy = self.tampered("SELECT 1")
        data = bytearray(copy.read_bytes())
        at = data.index(b"%PDF-") + 40
        data[at] ^= 1
        copy.write_bytes(data)
        self.assertIn("Paper 1 of job 1 is not what was kept", first_fault(copy))

    def test_taking_a_photo_out_is_an_act_that_leaves_its_hash(self) -> None:
        remove_photo(self.sessions, 1, self.photo.id, NOW)
        self.assertEqual(first_fault(self.file), "")
        with closing(sqlite3.connect(self.file)) as database:
            found = database.execute("SELECT content_sha256 FROM chain WHERE kind = 'photo_removed'").fetchall()
        self.assertEqual(found, [(self.photo.sha256,)])

    def test_an_altered_paper_is_not_handed_out(self) -> None:
        with self.sessions() as session:
            connection = session.connection().connection.driver_connection
            assert connection is not None
            connection.executescript(f"{UNGUARDED}; UPDATE paper SET pdf = pdf || x'00'")
        with self.assertRaises(Altered):
            papers.load_paper(self.sessions, self.paper.id)
        answer = self.client.get(f"/api/v1/papers/{self.paper.id}.pdf")
        self.assertEqual((answer.status_code, answer.get_json()["title"]), (409, "Altered"))

    def test_the_head_is_printed_and_lies_beside_a_backup(self) -> None:
        seen: list[Any] = []
        job = operations.load_job(self.sessions, 1)
        operations.save_job(self.sessions, 1, job.version, job.job.model_copy(update={"reference": "F-3"}), NOW)
        self.issue(job.version + 1, render=lambda issue: seen.append(issue.chain) or b"%PDF-3")
        self.assertRegex(seen[0], r"^entry \d+, [0-9a-f]{64}$")
        back_up(self.settings, self.file.with_name("kept.sqlite"))
        beside = head_file(self.file.with_name("kept.sqlite")).read_text(encoding="utf-8")
        with closing(sqlite3.connect(self.file)) as database:
            entry, head = database.execute("SELECT id, head FROM chain ORDER BY id DESC").fetchone()
        self.assertEqual(beside, f"entry {entry}, {head}\n")


class Copies(AppCase):
    """Backing up and putting back: never over anything, never from anything that is not whole."""

    def refused(self, act: Callable[[], object], words: str) -> None:
        with self.assertRaises(Unusable) as caught:
            act()
        self.assertIn(words, str(caught.exception))

    def test_no_backup_of_nothing_and_none_over_another(self) -> None:
        target = self.settings.database.with_name("copy.sqlite")
        nowhere = type(self.settings)(database=self.settings.database.with_name("nowhere.sqlite"))
        self.refused(lambda: back_up(nowhere, target), "There is no database")
        self.assertFalse(target.exists())
        back_up(self.settings, target)
        self.refused(lambda: back_up(self.settings, target), "never overwrites")

    def test_restored_where_nothing_stands_and_only_what_is_whole(self) -> None:
        self.store(HALFWAY)
        backup = self.settings.database.with_name("backup.sqlite")
        back_up(self.settings, backup)
        self.refused(lambda: restore(self.settings, backup, NOW), "is there already")
        empty = type(self.settings)(database=self.settings.database.with_name("new") / "fulmen.sqlite")
        restore(empty, backup, NOW)
        self.assertEqual(first_fault(empty.database), "")
        for damage, words in (("half", "damaged"), ("altered", "not as it was written"), ("other", "is no database")):
            bad = backup.with_name(f"{damage}.sqlite")
            shutil.copy(backup, bad)
            if damage == "half":
                bad.write_bytes(bad.read_bytes()[:20_000])
            elif damage == "other":
                bad.write_text("no database at all, but long enough", encoding="utf-8")
            else:
                with closing(sqlite3.connect(bad)) as database:
                    database.executescript(f"{UNGUARDED}; UPDATE audit SET verb = 'x'; {GUARDS_AGAIN}")
            target = type(self.settings)(database=backup.with_name(damage) / "fulmen.sqlite")
            with self.subTest(damage):
                self.refused(lambda bad=bad, target=target: restore(target, bad, NOW), words)  # type: ignore[misc]
                self.assertFalse(target.database.exists())

    def test_a_backup_while_writing_is_right(self) -> None:
        import threading

        stop = threading.Event()

        def write() -> None:
            while not stop.is_set():
                self.store(HALFWAY)

        writer = threading.Thread(target=write)
        writer.start()
        for number in range(5):
            target = self.settings.database.with_name(f"while-{number}.sqlite")
            back_up(self.settings, target)
            with self.subTest(number):
                self.assertEqual(first_fault(target), "")
        stop.set()
        writer.join()

    def test_only_its_owner_can_read_database_and_backups(self) -> None:
        self.store(HALFWAY)
        target = self.settings.database.with_name("copy.sqlite")
        back_up(self.settings, target)
        files = [self.settings.database, target, head_file(target)]
        files += self.settings.database.parent.glob("test.sqlite-*")
        for file in files:
            with self.subTest(file.name):
                self.assertEqual(file.stat().st_mode & 0o077, 0, oct(file.stat().st_mode))

    def test_an_older_store_is_sealed_as_it_stands_and_its_copy_is_kept(self) -> None:
        from alembic import command
        from alembic.config import Config

        from fulmen.store.upkeep import MIGRATIONS

        self.store(DEVICE_IN_UNIT)
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        config.attributes["url"] = self.settings.database_url()
        command.downgrade(config, "0004")
        copy = migrate(self.settings)
        assert copy is not None
        self.assertEqual((revision_of(copy), revision_of(self.settings.database)), ("0004", "0014"))
        self.assertEqual(first_fault(self.settings.database), "")
        self.assertIsNone(migrate(self.settings))
