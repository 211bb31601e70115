"""Attacks drawn by the run's seed: a few of each here, many while soaking; see docs/security.md."""

import io
import shutil
import socketserver
import sqlite3
import threading
import time
import unittest
from contextlib import closing
from random import Random
from unittest.mock import patch

from pypdf import PdfReader

from fulmen.core.demand.half_hours import read_half_hours
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.materials.prices import read_prices_csv
from fulmen.core.verification.readings.brought.table import columns_of
from fulmen.documents.paper_reader import read_paper
from fulmen.settings import Settings
from fulmen.simulators.test_set_client import TestSetError, ask
from fulmen.store import database as store_database
from fulmen.store import operations, papers
from fulmen.store.chain import ChainHead
from fulmen.store.database import open_database, sessions
from fulmen.store.doctor import first_fault
from fulmen.store.errors import Unusable
from fulmen.store.places import one_server, side_files
from fulmen.store.upkeep import back_up, restore
from fulmen.store.verifying import ALTERED, GENUINE, STORE_ALTERED, verify
from fulmen.web.app import create_app
from tests.app import NOW, AppCase
from tests.core.test_file_rows import SOUND
from tests.forging import drawn_over, rendered, sealed_anew, unguarded
from tests.jobs import DEVICE_IN_UNIT, HALFWAY, job
from tests.sampling import SEED, some


def draws(most: int, of: int, name: str) -> list[tuple[int, Random]]:
    """Some of many attacks, each with a chance of its own that is the same again by the run's seed."""
    return [(number, Random(f"{SEED}/{name}/{number}")) for number in some(range(of), most, name)]


class Restore(AppCase):
    def test_over_whatever_log_another_store_left_there(self) -> None:
        for number, chance in draws(2, 12, "dirty log"):
            before, since = chance.randint(1, 3), chance.randint(1, 4)
            for place in range(before):
                operations.create_job(self.sessions, job(HALFWAY, {"title": f"Before {number}/{place}"}), NOW)
            wanted = operations.list_jobs(self.sessions)[1]
            backup = self.settings.database.with_name(f"backup {number}.sqlite")
            back_up(self.settings, backup)
            for place in range(since):
                operations.create_job(self.sessions, job(HALFWAY, {"title": f"Since {number}/{place}"}), NOW)
            target = Settings(database=self.settings.database.with_name(f"to {number}") / "fulmen.sqlite")
            target.database.parent.mkdir()
            log = self.settings.database.with_name(f"{self.settings.database.name}-wal")
            for ending in chance.sample(("-wal", "-shm", "-journal"), chance.randint(1, 3)):
                shutil.copy(log, target.database.with_name(f"{target.database.name}{ending}"))
            restore(target, backup, NOW)
            engine = open_database(target)
            with self.subTest(number):
                self.assertEqual(operations.list_jobs(sessions(engine))[1], wanted)
                self.assertEqual(first_fault(target.database), "")
            engine.dispose()

    def test_one_server_by_whatever_name(self) -> None:
        for number, chance in draws(3, 40, "names"):
            name = self.settings.database
            for step in range(chance.randint(1, 4)):
                link = name.with_name(f"{number} {step} {chance.choice('?#%& ')}")
                if chance.random() < 0.5:
                    link.symlink_to(name)
                    name = link
                else:
                    folder = name.parent.with_name(f"{name.parent.name}-{number}-{step}")
                    folder.symlink_to(name.parent)
                    self.addCleanup(folder.unlink)
                    name = folder / ".." / folder.name / name.name
            first, second = chance.sample((self.settings.database, name), 2)
            with self.subTest(str(name)), one_server(first):
                with self.assertRaises(Unusable), one_server(second):
                    self.fail("two serve one store")


class Forged(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.store(DEVICE_IN_UNIT)
        paper = self.issue(render=rendered)
        self.pdf = papers.load_paper(self.sessions, paper.id).pdf

    def test_ink_anywhere_on_a_page_is_found_on_that_page(self) -> None:
        """A mark of a digit's size, half black and half white, since what is drawn black on black shows nothing. By pypdf,
        which is neither the writer nor the reader.
        """
        boxes = [page.mediabox for page in PdfReader(io.BytesIO(self.pdf)).pages]
        sizes = [(box.width, box.height) for box in boxes]
        for _, chance in draws(2, 40, "ink"):
            # Some pages lie on their side.
            page = chance.randrange(len(sizes))
            left, low = (chance.randint(40, round(float(side)) - 40) for side in sizes[page])
            ink = b"\nq 0 g %d %d 4 8 re f 1 g %d %d 4 8 re f Q\n" % (left, low, left + 4, low)
            found = verify(self.sessions, drawn_over(self.pdf, page, ink), read_paper)
            with self.subTest(page=page + 1, left=left, low=low):
                self.assertEqual(found.verdict, ALTERED)
                self.assertIn(f"Page {page + 1}", found.words)

    def test_a_row_rewritten_and_the_chain_sealed_anew(self) -> None:
        """Never is the genuine paper called altered; the head on it tells on whatever came before it was made."""
        read = read_paper(self.pdf)
        sound = self.settings.database.with_name("sound.sqlite")
        back_up(self.settings, sound)
        with closing(sqlite3.connect(sound)) as database:
            rows = database.execute(
                "SELECT id, kind, row_id FROM chain WHERE kind IN ('reading', 'act', 'audit')"
            ).fetchall()
        columns = {"reading": "step", "act": "name", "audit": "detail"}
        for entry, kind, row_id in some(rows, 2, "sealed anew"):
            engine = self.sessions.kw["bind"]  # type: ignore[attr-defined]
            engine.dispose()
            for left in (self.settings.database, *side_files(self.settings.database)):
                left.unlink(missing_ok=True)
            back_up(Settings(database=sound), self.settings.database)
            unguarded(self.settings.database, f"UPDATE {kind} SET {columns[kind]} = 'forged' WHERE id = {row_id}")
            sealed_anew(self.sessions, self.settings.database)
            wanted = STORE_ALTERED if entry <= read.entry else GENUINE
            with self.subTest(kind, entry=entry):
                self.assertEqual(verify(self.sessions, self.pdf, read_paper).verdict, wanted)
                outside = first_fault(self.settings.database, outside=(ChainHead(read.entry, read.head),))
                self.assertEqual(bool(outside), entry <= read.entry, outside)


class FailingLock(AppCase):
    def test_whoever_holds_it_what_was_acknowledged_is_there_and_nobody_is_blamed(self) -> None:
        quick = tuple("busy_timeout=40" if one.startswith("busy_timeout") else one for one in store_database.PRAGMAS)
        # Read as each connection is made.
        shorter = patch.object(store_database, "PRAGMAS", quick)
        shorter.start()
        self.addCleanup(shorter.stop)
        app = create_app(self.settings)
        self.addCleanup(self.let_go, app)
        client = app.test_client()
        made = set()
        for number, chance in draws(3, 60, "lock"):
            with closing(sqlite3.connect(self.settings.database, isolation_level=None)) as other:
                other.execute(chance.choice(("BEGIN IMMEDIATE", "BEGIN EXCLUSIVE")))
                answers = [client.post("/api/v1/jobs/blank", json={"title": f"{number}/{n}"}) for n in range(3)]
                other.execute(chance.choice(("COMMIT", "ROLLBACK")))
            answers += [client.post("/api/v1/jobs/blank", json={"title": f"{number}/after"})]
            for answer in answers:
                with self.subTest(number):
                    self.assertIn(answer.status_code, (201, 503), answer.text[:200])
                    if answer.status_code == 201:
                        made.add(answer.get_json()["job"]["title"])
                    else:
                        self.assertRegex(answer.get_json()["detail"], "held for too long.*Nothing was saved")
                        self.assertNotIn("program", answer.get_json()["detail"])
            self.assertEqual(answers[-1].status_code, 201)
        rows, _ = operations.list_jobs(self.sessions, limit=1000)
        self.assertEqual({row.title for row in rows}, made)
        self.assertEqual(first_fault(self.settings.database), "")


class SlowSet(unittest.TestCase):
    def test_no_set_holds_anybody_past_its_deadline(self) -> None:
        """Sets that say some of what a set says, then drip, stop, flood or go."""
        sound = "FULMEN-TEST-SET 1 Set\nVALUE zs ev measured 0.3 Ω -\n".encode()
        for number, chance in draws(3, 40, "slow set"):
            said, then = sound[: chance.randint(0, len(sound) - 1)], chance.choice(("drip", "stop", "flood", "go"))

            class Set(socketserver.StreamRequestHandler):
                def handle(self, said: bytes = said, then: str = then) -> None:
                    try:
                        self.wfile.write(said)
                        while then != "go":
                            self.wfile.write({"drip": b"x", "stop": b"", "flood": b"x" * 10_000}[then])
                            time.sleep(0.02)
                    except OSError:
                        return

            with socketserver.ThreadingTCPServer(("127.0.0.1", 0), Set) as server:
                server.daemon_threads = True
                threading.Thread(target=server.serve_forever, daemon=True).start()
                started = time.monotonic()
                with self.subTest(number, then=then, said=said), self.assertRaises(TestSetError) as caught:
                    ask(int(server.server_address[1]), "1", "zs", "ev", wait_s=0.3)
                self.assertIn("Nothing was taken", str(caught.exception))
                self.assertLess(time.monotonic() - started, 3)
                server.shutdown()
                server.block_on_close = False


class Floods(unittest.TestCase):
    def test_no_file_of_a_megabyte_takes_longer_than_sound_ones_do(self) -> None:
        started = time.perf_counter()
        read_half_hours(SOUND)
        sound_s = (time.perf_counter() - started) * 1_000_000 / len(SOUND)
        pieces = (
            ",",
            ";",
            "\t",
            '"',
            "'",
            "\n",
            "\r\n",
            "0.1",
            "9",
            "2026-01-14 17:30",
            "step",
            "x",
            "{",
            "[",
            "\x00",
            "Ω",
            "\u202e",
        )
        for number, chance in draws(3, 60, "floods"):
            runs = (chance.choice(pieces) * chance.choice((1, 2, 50, 5000, 300_000)) for _ in range(4000))
            text = ""
            for run in runs:
                text += run
                if len(text) > 1_000_000:
                    break
            text = (text or ",") * (1 + 1_000_000 // max(1, len(text)))
            for read in (read_half_hours, columns_of, read_prices_csv):
                started = time.perf_counter()
                try:
                    read(text[:1_000_000])
                except (InputError, JobFileError) as error:
                    self.assertLess(len(str(error)), 2000)
                with self.subTest(number, read=read.__name__):
                    self.assertLess(time.perf_counter() - started, 3 * sound_s)
