"""The command line: design, certify, schema; exit codes; bad files."""

import contextlib
import io
import json
import subprocess
import sys
import tempfile
import unittest
from datetime import UTC, datetime
from pathlib import Path
from unittest.mock import patch

from pypdf import PdfReader

from fulmen import cli
from fulmen.core.editing.blank_job import blank_job
from fulmen.documents.certificate import certificate_html
from fulmen.documents.paper_reader import MOST_BYTES
from fulmen.settings import Settings
from fulmen.store.issues import draft_issue
from fulmen.store.upkeep import migrate
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, FALLS_SHORT, HALFWAY, ROOT, example


def run(*arguments: str) -> tuple[int, str, str]:
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        code = cli.main([str(one) for one in arguments])
    return code, out.getvalue(), err.getvalue()


def path(name: str) -> str:
    return str(EXAMPLES / f"{name}.json")


class Design(unittest.TestCase):
    def test_prints_the_run_and_every_check_with_its_working(self) -> None:
        code, out, _ = run("design", path(DEVICE_IN_UNIT))
        self.assertEqual(code, 0)
        for words in (
            "Run: cut-out, under floor 4.2 m",
            "Guard the cable with B 40 A",
            "Zs max = U0·Cmin/Ia",
            "[BS 7671 Table 41.3]",
            "prove dead",
        ):
            with self.subTest(words):
                self.assertIn(words, out)

    def test_exits_1_where_something_falls_short(self) -> None:
        code, out, _ = run("design", path(FALLS_SHORT))
        self.assertEqual((code, out.count("Falls short  ")), (1, 3))
        self.assertIn("What can happen: The street's neutral breaks", out)

    def test_what_a_file_says_was_signed_is_history(self) -> None:
        _, out, _ = run("design", path(DEVICE_IN_UNIT))
        self.assertIn("Signed elsewhere, counts for nothing here:\n    isolated, R. Quillfeather", out)
        self.assertNotIn("Decided:", out)

    def test_json(self) -> None:
        _, out, _ = run("design", path(HALFWAY), "--json")
        self.assertEqual(json.loads(out)["totals"]["falls_short"], 0)


class Certify(unittest.TestCase):
    """A file is certified by nobody: what is written is a draft on every page, whatever the file says was signed."""

    def draft(self, name: str) -> tuple[int, str, list[str]]:
        with tempfile.TemporaryDirectory() as folder:
            target = Path(folder) / "out.pdf"
            code, out, _ = run("certify", path(name), "-o", str(target))
            pages = [page.extract_text().replace("\x00", "") for page in PdfReader(target).pages]
        return code, out, pages

    def test_a_job_that_a_file_says_was_signed(self) -> None:
        code, out, pages = self.draft(DEVICE_IN_UNIT)
        self.assertEqual(code, 0)
        for page in pages:
            self.assertIn("Draft, not a certificate", page)
            self.assertIn("Draft: nobody has signed this", page)
            self.assertNotIn("FC-", page)
        self.assertIn("Signed elsewhere, brought by a job file; it counts for nothing here", " ".join(pages[0].split()))
        self.assertIn("Not signed: Design", out)
        self.assertIn("Reading missing: Isolated, proved dead, locked off", out)

    def test_one_that_falls_short(self) -> None:
        code, out, pages = self.draft(FALLS_SHORT)
        self.assertEqual(code, 1)
        self.assertIn("Volt drop to the car: falls short (8.89 %, at most 5.00)", out)
        self.assertTrue(all("Draft, not a certificate" in page for page in pages))

    def test_every_example_and_a_blank_job_can_be_drafted(self) -> None:
        """A draft is of whatever is there: no gap stops it."""
        told = [example_of.stem for example_of in EXAMPLES.glob("*.json")]
        for job in (*map(example, told), blank_job("Blank", "")):
            with self.subTest(job.title):
                html = certificate_html(draft_issue(job, datetime(2026, 11, 30, tzinfo=UTC)))
                self.assertIn("Draft: nobody has signed this", html)


class BadFiles(unittest.TestCase):
    def test_each_gets_one_clear_line_and_exit_2(self) -> None:
        whole = Path(path(HALFWAY)).read_bytes()
        cases = {
            "truncated": (whole[:400], "breaks off"),
            "two megabytes": (b" " * 2_000_000, "at most 1 MB"),
            "not text": (b"\xff\xfe\x00", "no text in UTF-8"),
            "bad length": (whole.replace(b'"length_m": 8.6', b'"length_m": "abc"'), "circuits.0.route.1.length_m"),
        }
        for name, (data, words) in cases.items():
            with self.subTest(name), tempfile.NamedTemporaryFile(suffix=".json") as file:
                file.write(data)
                file.flush()
                code, out, err = run("design", file.name)
                self.assertEqual((code, out), (2, ""))
                self.assertIn(words, err)

    def test_no_such_file(self) -> None:
        code, _, err = run("design", "nowhere.json")
        self.assertEqual(code, 2)
        self.assertIn("nowhere.json", err)


class Commands(unittest.TestCase):
    def test_every_command_is_documented(self) -> None:
        documented = (ROOT / "docs" / "commands.md").read_text(encoding="utf-8")
        commands = cli._parser()._subparsers._group_actions[0].choices  # type: ignore[union-attr]
        for command in commands:  # type: ignore[union-attr]
            self.assertIn(f"fulmen {command}", documented)


class Sentences(unittest.TestCase):
    """Whatever goes wrong is one line in our own words: no number of an error, no trace, no word of a library."""

    def told(self, *arguments: str, **environment: str) -> str:
        with patch.dict("os.environ", environment):
            code, _, err = run(*arguments)
        self.assertEqual(code, 2, err)
        self.assertEqual(len(err.strip().splitlines()), 1, err)
        self.assertNotRegex(err, r"Errno|Traceback|codec|sqlite3|invalid literal|Background on this error|getsockaddr")
        return err

    def test_files_and_folders_that_can_not_be_used(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            there = Path(folder)
            (there / "file").write_text("x", encoding="utf-8")
            (there / "broken.sqlite").write_bytes(b"no database at all" * 100)
            (there / "circle").symlink_to(there / "circle")
            store = str(there / "store.sqlite")
            job_file = path(HALFWAY)
            for arguments, database, words in (
                (("design", folder), store, "it is a folder"),
                (("design", str(there / "none.json")), store, "there is no such file"),
                (("design", str(there / "file" / "x.json")), store, "one part of its path is a file"),
                (("design", "x" * 5000), store, "its name is too long"),
                (("design", str(there / "circle")), store, "go round in a circle"),
                (("certify", job_file, "-o", str(there / "no" / "out.pdf")), store, "there is no such file or folder"),
                (("instruments", job_file, "--csv", folder), store, "it is a folder"),
                (("verify", folder), store, "no database"),
                (("doctor",), str(there / "broken.sqlite"), "database"),
                (("doctor",), store, "no database"),
                (("backup", str(there / "b.sqlite")), store, "no database"),
                (("restore", str(there / "none.sqlite")), store, "There is no backup"),
                (("restore", str(there / "file")), store, "database"),
                (
                    ("restore", str(there / "broken.sqlite")),
                    str(there / "file" / "s.sqlite"),
                    "something of that name already",
                ),
            ):
                with self.subTest(arguments[0], words=words):
                    self.assertIn(words, self.told(*arguments, FULMEN_DATABASE=database))

    def test_figures_and_ports_that_are_none(self) -> None:
        for fault in ("no_earth=inf", "no_earth=nan", "no_earth=-1", "no_earth=1e999", "no_earth=much"):
            with self.subTest(fault):
                self.assertIn("must be a number from 0", self.told("instruments", path(HALFWAY), "--fault", fault))
        for port in ("99999", "-1", "²", "1e3", "٣"):
            with self.subTest(port), contextlib.redirect_stderr(io.StringIO()) as err, self.assertRaises(SystemExit):
                cli.main(["instruments", path(HALFWAY), f"--port={port}"])
            self.assertIn("must be a number from 0 to 65535", err.getvalue())
            if port != "-1":
                self.assertIn("FULMEN_PORT must be a number", self.told("doctor", FULMEN_PORT=port))
        for url in ("ftp://x", "http://[", "http://"):
            self.assertIn("FULMEN_HOUSEHOLDER_URL must begin", self.told("doctor", FULMEN_HOUSEHOLDER_URL=url))

    def test_a_paper_longer_than_any(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            store, flood = Path(folder) / "store.sqlite", Path(folder) / "flood.pdf"
            migrate(Settings(database=store))
            flood.write_bytes(b"%PDF" + b"x" * MOST_BYTES)
            for command in (("verify", str(flood)), ("doctor", "--head", str(flood))):
                with self.subTest(command[0]):
                    self.assertIn("longer than any certificate", self.told(*command, FULMEN_DATABASE=str(store)))

    def test_many_faults_of_one_file_have_an_end(self) -> None:
        with tempfile.NamedTemporaryFile("w", suffix=".json", encoding="utf-8") as file:
            data = json.loads(Path(path(HALFWAY)).read_text(encoding="utf-8"))
            data["defects"] = [{"what": "x", "outcome": "y"}] * 60
            json.dump(data, file)
            file.flush()
            code, _, err = run("design", file.name)
        lines = err.strip().splitlines()
        self.assertEqual((code, len(lines)), (2, cli.MOST_TOLD + 1))
        self.assertRegex(lines[-1], r"^and \d+ more$")

    def test_a_reader_that_goes_and_a_key_that_stops_it(self) -> None:
        command = [sys.executable, "-m", "fulmen.cli", "schema"]
        with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, cwd=ROOT) as shown:
            assert shown.stdout is not None and shown.stderr is not None
            shown.stdout.read(10)
            shown.stdout.close()
            self.assertEqual(shown.stderr.read(), b"")
        with patch.object(cli, "rule_set", side_effect=KeyboardInterrupt):
            self.assertEqual(run("rules")[2], "fulmen: stopped\n")
