"""The runner tells the truth: what fails, what dies, what prints after its end, what never comes up; each counts."""

import contextlib
import io
import json
import os
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from textwrap import dedent

from tests.jobs import ROOT
from tests.run import run
from tests.running.parts import PARTS, modules
from tests.running.pool import worked_below_s
from tests.running.report import essence

BUSY = "import time\nwhile time.process_time() < 0.3: pass"
PASSES = "def test_holds(self): pass"
# Name → the body of a class of tests, and how many of them pass and fail.
BODIES = {
    "fails": ("def test_fails(self): self.fail('planted')\n    def test_holds(self): pass", 1, 1),
    "sub_tests": (
        "def test_two(self):\n        for one in (1, 2):\n            with self.subTest(one): self.fail('planted')", 0, 1
    ),
    "class_not_set_up": (
        "@classmethod\n    def setUpClass(cls): raise OSError('planted')\n    def test_a(self): pass\n    def test_b(self): pass", 0, 2
    ),
    "expected_to_fail": ("@unittest.expectedFailure\n    def test_holds(self): pass", 0, 1),
    "dies": (
        "def test_a(self): pass\n    def test_b(self): __import__('os')._exit(0)\n    def test_c(self): pass", 1, 2
    ),
    "prints": (
        "def test_a(self):\n        import os, threading, time\n        os.write(1, b'{\"test\": \"x\"}\\n9 passed, 0 failed\\n')\n"
        "        threading.Thread(target=lambda: (time.sleep(0.2), print('1 passed, 7 failed'))).start()", 1, 0,
    ),
    "holds": (PASSES, 1, 0),
}  # fmt: skip
WHOLE = {"no_module": ("import nothing_of_the_kind", 0, 1), "dies_at_import": ("import os; os._exit(3)\ndef test_a(): pass", 0, 1), "empty": ("", 0, 1)}  # fmt: skip


class Truth(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.root = Path(folder.name)
        (self.root / "tests").mkdir()
        (self.root / "tests" / "__init__.py").touch()
        (self.root / "tests" / "running").symlink_to(ROOT / "tests" / "running")
        self.planted: dict[str, tuple[int, int]] = {}
        for name, (body, passed, failed) in BODIES.items():
            self.plant(name, f"import unittest\nclass T(unittest.TestCase):\n    {body}\n", passed, failed)
        for name, (text, passed, failed) in WHOLE.items():
            self.plant(name, text, passed, failed)

    def plant(self, name: str, text: str, passed: int, failed: int) -> None:
        (self.root / "tests" / f"test_{name}.py").write_text(dedent(text), encoding="utf-8")
        self.planted[f"tests.test_{name}"] = passed, failed

    def told(self, found: dict[str, list[str]]) -> tuple[list[str], int]:
        with contextlib.redirect_stdout(io.StringIO()) as out:
            _, status = run(found, self.root)
        return out.getvalue().splitlines(), status

    def test_each_counts_by_itself(self) -> None:
        for name, (passed, failed) in self.planted.items():
            with self.subTest(name):
                lines, status = self.told({"planted": [name]})
                self.assertEqual((lines[-1], status), (f"{passed} passed, {failed} failed", bool(failed)))

    def test_all_parts_add_up_whatever_dies_among_them(self) -> None:
        """In each part a failure, a death and what holds; the last line counts them all."""
        names = list(self.planted)
        parts = {
            part: [f"tests.{part.replace(' ', '_')}.{name.rpartition('.')[2]}" for name in names] for part in PARTS
        }
        for part, those in parts.items():
            folder = self.root / "tests" / part.replace(" ", "_")
            folder.mkdir()
            (folder / "__init__.py").touch()
            for name in those:
                path = Path(*name.split(".")[1:]).with_suffix(".py")
                (self.root / "tests" / path).write_bytes((self.root / "tests" / path.name).read_bytes())
        lines, status = self.told(parts)
        passed, failed = (sum(counts) * len(PARTS) for counts in zip(*self.planted.values(), strict=True))
        self.assertEqual((lines[-1], status), (f"{passed} passed, {failed} failed", 1))
        for part in PARTS:
            self.assertTrue(any(line.startswith(part) and f"{failed // len(PARTS)} failed" in line for line in lines))

    def test_a_quiet_run_is_short_and_its_times_are_kept(self) -> None:
        lines, status = self.told({"core": ["tests.test_holds"], "browser": ["tests.test_prints"]})
        self.assertEqual(status, 0)
        self.assertLess(len(lines), 12)
        kept = json.loads((self.root / "build" / "tests.json").read_text(encoding="utf-8"))
        self.assertEqual(list(kept["parts"]["core"]["slowest"]), ["tests.test_holds.T.test_holds"])
        self.assertGreater(kept["took_s"], 0)

    def test_a_failure_tells_what_was_waited_for_and_not_the_page(self) -> None:
        page = "\n".join(f"  - button number {number}" for number in range(200))
        why = (
            "test_a (tests.browser.test_b.C.test_a)\nTraceback (most recent call last):\n"
            '  File "tests/browser/test_b.py", line 7, in test_a\n    expect(said).to_be_visible()\n    ^^^^^^^\n'
            '  File "lib/site-packages/playwright/x.py", line 3, in y\n    raise error\n'
            f"AssertionError: Locator expected to be visible\nCall log:\n  - waiting for it\n\nAria snapshot:\n- main:\n{page}\n"
            "another (tests.browser.test_b.C.test_a)\nValueError: of the cleanup\n"
        )
        self.assertEqual(
            essence(why),
            [
                "test_a (tests.browser.test_b.C.test_a)",
                "Traceback (most recent call last):",
                '  File "tests/browser/test_b.py", line 7, in test_a',
                "    expect(said).to_be_visible()",
                "AssertionError: Locator expected to be visible",
                "Call log:",
                "  - waiting for it",
                "another (tests.browser.test_b.C.test_a)",
                "ValueError: of the cleanup",
            ],
        )

    def test_what_a_child_works_counts(self) -> None:
        """A worker's browser and tools are most of its work; the clock alone says nothing on a busy machine."""
        before_s = worked_below_s(os.getpid())
        subprocess.run([sys.executable, "-c", BUSY], check=True)
        waited_for_s = worked_below_s(os.getpid())
        self.assertGreater(waited_for_s, before_s + 0.25)
        with subprocess.Popen(
            [sys.executable, "-c", f"{BUSY}\nimport sys\nsys.stdin.read()"], stdin=subprocess.PIPE
        ) as child:
            while worked_below_s(child.pid) < 0.25:
                self.assertIsNone(child.poll())
            self.assertGreater(worked_below_s(os.getpid()), waited_for_s + 0.2)

    def test_every_module_has_its_part(self) -> None:
        found = [name for names in modules(ROOT).values() for name in names]
        written = list((ROOT / "tests").rglob("test_*.py"))
        self.assertEqual(len(found), len(written))


if __name__ == "__main__":
    unittest.main()
