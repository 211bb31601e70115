"""Runs every test and ends with one line: N passed, N failed.

Without names, two processes with the browser's tests run beside one with the core's, one with the static ones and one with
all others: a browser's test mostly waits, a static one waits for the tools that it starts.
"""

from __future__ import annotations

import re
import subprocess
import sys
import time
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
LAST_LINE = re.compile(r"(\d+) passed, (\d+) failed(?:, (\d+) skipped)?\s*$")


class Timed(unittest.TextTestResult):
    """A result that remembers which tests were slow."""

    slow: tuple[tuple[float, str], ...] = ()

    def startTest(self, test: unittest.TestCase) -> None:
        self.started = time.perf_counter()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:
        super().stopTest(test)
        self.slow = (*self.slow, (time.perf_counter() - self.started, str(test)))


def run(names: list[str]) -> int:
    """Run the named tests in this process."""
    suite = unittest.defaultTestLoader.loadTestsFromNames(names)
    result = unittest.TextTestRunner(resultclass=Timed, verbosity=1).run(suite)
    for seconds, name in sorted(result.slow, reverse=True)[:5]:
        print(f"{seconds:6.1f} s  {name}")
    # A test with several failing sub-tests is one failed test.
    faulty = [test for test, _ in (*result.failures, *result.errors)] + result.unexpectedSuccesses
    failed = len({getattr(test, "test_case", test).id() for test in faulty})
    passed = max(0, result.testsRun - failed) - len(result.skipped)
    return told(passed, 1 if result.testsRun == 0 else failed, len(result.skipped))


def told(passed: int, failed: int, skipped: int) -> int:
    """Print the last line; the exit status."""
    print(f"{passed} passed, {failed} failed" + (f", {skipped} skipped" if skipped else ""), flush=True)
    return 1 if failed else 0


def run_all() -> int:
    """Run the parts side by side; a part that ends without its last line counts as one failure."""
    modules = sorted(
        ".".join(path.relative_to(ROOT).with_suffix("").parts) for path in (ROOT / "tests").rglob("test_*.py")
    )
    browser = [name for name in modules if name.startswith("tests.browser.")]
    core = [name for name in modules if name.startswith("tests.core.")]
    static = [name for name in modules if name.startswith("tests.static.")]
    rest = [name for name in modules if name not in {*browser, *core, *static}]
    parts = [browser[0::2], browser[1::2], core, static, rest]
    started = [
        subprocess.Popen(
            [sys.executable, __file__, *names], stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True
        )
        for names in parts
    ]
    outputs = [process.communicate()[0] for process in started]
    counts = [0, 0, 0]
    for process, output in zip(started, outputs, strict=True):
        print(output, end="", flush=True)
        found = LAST_LINE.search(output)
        part = [int(count or 0) for count in found.groups()] if found else [0, 1, 0]
        if process.returncode and not part[1]:
            part[1] = 1
        counts = [sum(pair) for pair in zip(counts, part, strict=True)]
    return told(*counts)


if __name__ == "__main__":
    sys.exit(run(sys.argv[1:]) if sys.argv[1:] else run_all())
