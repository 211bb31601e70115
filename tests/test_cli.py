"""The command line: design, certify, schema; exit codes; bad files."""

import contextlib
import io
import json
import tempfile
import unittest
from pathlib import Path

from fulmen import cli
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, FALLS_SHORT, HALFWAY, ROOT


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

    def test_json(self) -> None:
        _, out, _ = run("design", path(HALFWAY), "--json")
        self.assertEqual(json.loads(out)["totals"]["falls_short"], 0)


class Certify(unittest.TestCase):
    def test_writes_a_pdf(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            target = Path(folder) / "out.pdf"
            code, out, _ = run("certify", path(DEVICE_IN_UNIT), "-o", str(target))
            self.assertEqual((code, target.read_bytes()[:5]), (0, b"%PDF-"))
            self.assertIn("SHA-256", out)

    def test_refuses_and_says_which(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            target = Path(folder) / "out.pdf"
            code, _, err = run("certify", path(FALLS_SHORT), "-o", str(target))
            self.assertEqual((code, target.exists()), (1, False))
            self.assertIn("Volt drop to the car: falls short (8.89 %, at most 5.00)", err)
            self.assertIn("Not signed: Design", err)


class BadFiles(unittest.TestCase):
    def test_each_gets_one_clear_line_and_exit_2(self) -> None:
        whole = Path(path(HALFWAY)).read_bytes()
        cases = {
            "truncated": (whole[:400], "breaks off"),
            "two megabytes": (b" " * 2_000_000, "at most 1 MB"),
            "not text": (b"\xff\xfe\x00", "utf-8"),
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
