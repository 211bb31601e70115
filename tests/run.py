"""Runs every test and ends with one line: N passed, N failed."""

from __future__ import annotations

import sys
import time
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))


class Timed(unittest.TextTestResult):
    """A result that remembers which tests were slow."""

    slow: tuple[tuple[float, str], ...] = ()

    def startTest(self, test: unittest.TestCase) -> None:
        self.started = time.perf_counter()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:
        super().stopTest(test)
        self.slow = (*self.slow, (time.perf_counter() - self.started, str(test)))


def main() -> int:
    names = sys.argv[1:]
    loader = unittest.TestLoader()
    suite = loader.loadTestsFromNames(names) if names else loader.discover(str(ROOT / "tests"), top_level_dir=str(ROOT))
    result = unittest.TextTestRunner(resultclass=Timed, verbosity=1).run(suite)
    for seconds, name in sorted(result.slow, reverse=True)[:5]:
        print(f"{seconds:6.1f} s  {name}")
    # A test with several failing sub-tests is one failed test.
    faulty = [test for test, _ in (*result.failures, *result.errors)] + result.unexpectedSuccesses
    failed = len({getattr(test, "test_case", test).id() for test in faulty})
    passed = max(0, result.testsRun - failed) - len(result.skipped)
    skipped = f", {len(result.skipped)} skipped" if result.skipped else ""
    if result.testsRun == 0:
        failed = 1
    print(f"{passed} passed, {failed} failed{skipped}")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
