"""A paper from outside, read in a bounded process: genuine, saved again, altered and where, superseded, later, unknown.

The attacks are made by two PDF libraries other than the one that wrote the papers (pypdf) and the one that reads them.
"""

import contextlib
import io
import sqlite3
import unittest
from contextlib import closing
from typing import Any
from unittest.mock import patch

from fulmen import cli
from fulmen.documents.paper_reader import UnreadablePaper, read_paper
from fulmen.store import operations, papers
from fulmen.store.chain import ChainHead
from fulmen.store.doctor import first_fault
from fulmen.store.errors import Unusable
from fulmen.store.upkeep import back_up, head_file, restore
from fulmen.store.verifying import ALTERED, GENUINE, LATER, SAVED_AGAIN, STORE_ALTERED, SUPERSEDED, UNKNOWN, verify
from tests.acts import warrant
from tests.app import NOW, AppCase
from tests.forging import (
    covered,
    other_job_inside,
    pages_swapped,
    rendered,
    saved_again,
    scaled,
    sealed_anew,
    unguarded,
    with_page,
    without_attachment,
    without_last_page,
)
from tests.jobs import DEVICE_IN_UNIT, job


class Papers(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.store(DEVICE_IN_UNIT)
        self.paper = self.issue(render=rendered)
        self.pdf = papers.load_paper(self.sessions, self.paper.id).pdf

    def said(self, pdf: bytes) -> tuple[str, str]:
        found = verify(self.sessions, pdf, read_paper)
        return found.verdict, found.words

    def database(self, script: str, *values: Any) -> None:
        with closing(sqlite3.connect(self.settings.database)) as database, database:
            database.execute(script, values)

    def test_what_it_is(self) -> None:
        self.assertEqual(self.said(self.pdf)[0], GENUINE)
        for name, forged, verdict, words in (
            ("saved again", saved_again(self.pdf), SAVED_AGAIN, "in force"),
            (
                "saved without what is inside",
                without_attachment(self.pdf),
                SAVED_AGAIN,
                "The job file that was inside is gone",
            ),
            ("a digit covered on the first page", covered(self.pdf, 0), ALTERED, "Page 1"),
            ("a digit covered on the third page", covered(self.pdf, 2), ALTERED, "Page 3"),
            ("printed anew, genuine", scaled(self.pdf), UNKNOWN, "printed or scaled anew"),
            ("printed anew, forged", scaled(covered(self.pdf, 2)), UNKNOWN, "printed or scaled anew"),
            ("another page in its place", pages_swapped(self.pdf), ALTERED, "Page "),
            ("a page added", with_page(self.pdf), ALTERED, "Page "),
            ("a page taken away", without_last_page(self.pdf), ALTERED, "Page "),
            ("another job inside", other_job_inside(self.pdf), ALTERED, "The job inside"),
            ("no PDF", b"%PDF-1.7 of somebody else", UNKNOWN, "no PDF that can be read"),
            ("broken off", self.pdf[: len(self.pdf) // 3], UNKNOWN, ""),
        ):
            with self.subTest(name):
                found = self.said(forged)
                self.assertEqual(found[0], verdict, found)
                self.assertIn(words, found[1])

    def test_superseded_and_of_a_later_state(self) -> None:
        backup = self.settings.database.with_name("backup.sqlite")
        back_up(self.settings, backup)
        now = operations.load_job(self.sessions, 1)
        operations.save_job(self.sessions, 1, now.version, now.job.model_copy(update={"reference": "F-2"}), NOW)
        later = papers.load_paper(self.sessions, self.issue(now.version + 1, render=rendered).id)
        self.assertEqual(self.said(self.pdf)[0], SUPERSEDED)
        self.assertEqual(self.said(saved_again(self.pdf))[0], SUPERSEDED)
        self.assertEqual(self.said(later.pdf)[0], GENUINE)
        # The store as it was: it holds no such paper, and does not call it forged.
        older = type(self.settings)(database=self.settings.database.with_name("older") / "fulmen.sqlite")
        restore(older, backup, NOW)
        from fulmen.store.database import open_database, sessions

        engine = open_database(older)
        self.assertEqual(verify(sessions(engine), later.pdf, read_paper).verdict, LATER)
        self.assertEqual(verify(sessions(engine), self.pdf, read_paper).verdict, GENUINE)
        engine.dispose()

    def test_after_the_chain_was_made_anew_a_genuine_paper_is_never_called_altered(self) -> None:
        read = read_paper(self.pdf)
        outside = (ChainHead(read.entry, read.head),)
        self.assertEqual(first_fault(self.settings.database, outside=outside), "")
        unguarded(
            self.settings.database, "UPDATE reading SET document = replace(document, '0.19', '0.09') WHERE step = 'ze'"
        )
        sealed_anew(self.sessions, self.settings.database)
        self.assertEqual(first_fault(self.settings.database), "", "the forger's chain holds in itself")
        self.assertEqual(self.said(self.pdf)[0], STORE_ALTERED)
        self.assertIn("made anew since", first_fault(self.settings.database, outside=outside))

    def test_a_head_beside_a_backup_is_read_at_restore(self) -> None:
        backup = self.settings.database.with_name("backup.sqlite")
        back_up(self.settings, backup)
        head = head_file(backup)
        told = head.read_text(encoding="utf-8")
        target = type(self.settings)(database=backup.with_name("there") / "fulmen.sqlite")
        for bad, words in (
            (told.replace(told.strip()[-1], "0" if told.strip()[-1] != "0" else "1"), "not what was kept outside"),
            (f"entry 99999, {'a' * 64}\n", "a later state"),
        ):
            head.write_text(bad, encoding="utf-8")
            with self.subTest(bad[:12]), self.assertRaises(Unusable) as caught:
                restore(target, backup, NOW)
            self.assertIn(words, str(caught.exception))
            self.assertFalse(target.database.exists())
        head.write_text(told, encoding="utf-8")
        restore(target, backup, NOW)

    def test_by_command(self) -> None:
        """Whether it is genuine, and the chain held against a paper and against what lies beside a backup."""
        paper, backup = (self.settings.database.with_name(name) for name in ("paper.pdf", "kept.sqlite"))
        paper.write_bytes(self.pdf)
        back_up(self.settings, backup)

        def said(*arguments: str) -> tuple[int, str]:
            out, err = io.StringIO(), io.StringIO()
            with (
                patch.dict("os.environ", FULMEN_DATABASE=str(self.settings.database)),
                contextlib.redirect_stdout(out),
                contextlib.redirect_stderr(err),
            ):
                code = cli.main(list(arguments))
            return code, out.getvalue() + err.getvalue()

        code, words = said("verify", str(paper))
        self.assertEqual((code, words.split(",")[0]), (0, f"Genuine: {self.paper.number}"))
        for file in (paper, head_file(backup)):
            self.assertEqual(said("doctor", "--head", str(file))[0], 0)
        other = paper.with_name("other.head")
        other.write_text(f"entry 3, {'b' * 64}\n", encoding="utf-8")
        code, words = said("doctor", "--head", str(paper), "--head", str(other))
        self.assertEqual((code, "Entry 3 of the chain is not what was kept outside" in words), (1, True))
        other.write_text("nothing", encoding="utf-8")
        self.assertEqual(said("doctor", "--head", str(other))[0], 2)
        paper.write_bytes(covered(self.pdf, 0))
        self.assertEqual(said("verify", str(paper))[0], 1)

    def test_over_http_and_nothing_of_it_is_kept(self) -> None:
        before = first_rows(self.settings.database)
        for kind in ("application/pdf", "application/octet-stream"):
            answer = self.client.post("/api/v1/papers/verify", data=self.pdf, content_type=kind)
            self.assertEqual((answer.status_code, answer.get_json()["verdict"]), (200, GENUINE), answer.text)
        self.app.extensions["reading_paper"].acquire()
        busy = self.client.post("/api/v1/papers/verify", data=self.pdf, content_type="application/pdf")
        self.assertEqual((busy.status_code, "try again" in busy.get_json()["detail"]), (409, True))
        self.app.extensions["reading_paper"].release()
        for kind, data, status in (("image/png", self.pdf, 415), ("application/pdf", b"x" * 10_000_001, 413)):
            answer = self.client.post("/api/v1/papers/verify", data=data, content_type=kind)
            self.assertEqual(answer.status_code, status)
        self.assertEqual(first_rows(self.settings.database), before)


class BeforeAPaperIsMade(AppCase):
    """What a job holds in rows of its own is held against the chain before anything is issued of it."""

    def setUp(self) -> None:
        super().setUp()
        self.store(DEVICE_IN_UNIT)

    def test_a_row_rewritten_slipped_in_or_cut_out(self) -> None:
        dropped = "".join(f"DROP TRIGGER reading_no_{verb};" for verb in ("update", "delete"))
        backup = self.settings.database.with_name("sound.sqlite")
        back_up(self.settings, backup)
        for script, words in (
            (
                "UPDATE reading SET document = replace(document, '0.19', '0.09') WHERE step = 'ze'",
                "is not what was kept",
            ),
            (
                "INSERT INTO reading (job_id, step, document) SELECT job_id, step, document FROM reading LIMIT 1",
                "not what was",
            ),
            ("DELETE FROM reading WHERE step = 'ze'", "taken out"),
        ):
            with closing(sqlite3.connect(self.settings.database)) as database, database:
                database.executescript(f"SAVEPOINT whole; {dropped} {script};")
            by, signed = warrant(self.sessions, 1), job().certificate.signatures
            papers.ask_for_certificate(self.sessions, 1, papers.Seen(1), signed, by, NOW)
            ended = papers.issue_next(self.sessions, lambda issue: b"%PDF-", lambda: NOW)
            assert ended is not None
            with self.subTest(script[:6]):
                self.assertEqual(ended.state, "refused")
                self.assertIn(words, ended.refused)
            self.assertEqual(papers.list_papers(self.sessions, 1), [])
            self.sessions.kw["bind"].dispose()  # type: ignore[attr-defined]
            for left in self.settings.database.parent.glob("test.sqlite*"):
                left.unlink()
            back_up(type(self.settings)(database=backup), self.settings.database)
        self.issue(render=lambda issue: b"%PDF-")

    def test_a_photo_erased_past_its_log_is_told_from_one_that_a_person_erased(self) -> None:
        from fulmen.core.model.stops import Stop
        from fulmen.photos import make_photo
        from fulmen.store.photos import Place, add_photo, remove_photo
        from tests.photos import picture

        photo = add_photo(self.sessions, 1, make_photo(picture()), Place(Stop.CUT_OUT), NOW)
        remove_photo(self.sessions, 1, photo.id, NOW)
        # The next one has a number of its own, though the first one's is free.
        second = add_photo(self.sessions, 1, make_photo(picture()), Place(Stop.METER), NOW)
        self.assertEqual((photo.id, second.id), (1, 2))
        self.assertEqual(first_fault(self.settings.database), "")
        # A tombstone in the chain, by the store's own code, but no act of a person in the log.
        with self.sessions() as session, session.begin():
            session.delete(session.get_one(type(second), second.id))
        self.assertIn("nobody is told to have done it", first_fault(self.settings.database))

    def test_a_guard_with_a_condition_in_it_is_no_guard(self) -> None:
        for table in ("reading", "act", "chain"):
            with closing(sqlite3.connect(self.settings.database)) as database, database:
                name = f"{table}_no_update"
                (sql,) = database.execute("SELECT sql FROM sqlite_master WHERE name = ?", (name,)).fetchone()
                database.execute(f"DROP TRIGGER {name}")
                database.execute(sql.replace(f"ON {table} BEGIN", f"ON {table} WHEN old.id <> 7 BEGIN"))
            with self.subTest(table):
                self.assertIn(f"The guard that keeps {table} entries", first_fault(self.settings.database))
            with closing(sqlite3.connect(self.settings.database)) as database, database:
                database.execute(f"DROP TRIGGER {name}")
                database.execute(sql)
        self.assertEqual(first_fault(self.settings.database), "")


class Bounds(unittest.TestCase):
    def test_a_file_made_to_hurt_is_not_read(self) -> None:
        for name, pdf in (
            ("nothing", b""),
            ("noise", bytes(range(256)) * 2000),
            ("a page of a mile", b"%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Count 1/Kids[3 0 R]"
             b">>endobj\n3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 9e9 9e9]>>endobj\ntrailer<</Root 1 0 R>>"),
        ):  # fmt: skip
            with self.subTest(name):
                try:
                    found = read_paper(pdf, pdf)
                except UnreadablePaper:
                    continue
                self.assertEqual(found.number, "")


def first_rows(path: Any) -> list[Any]:
    with closing(sqlite3.connect(path)) as database:
        return [database.execute(f"SELECT count(*) FROM {table}").fetchone() for table in ("audit", "chain", "paper")]
