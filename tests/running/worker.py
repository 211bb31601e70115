"""One process that runs test modules as they are named to it, and tells how each test ended over a pipe of its own.

Nothing that a test, a thread or a child prints can be taken for a result: results never travel by standard output.
"""

from __future__ import annotations

import json
import os
import sys
import time
import traceback
import unittest
from collections.abc import Iterator
from typing import IO, Any

Fault = tuple[type[BaseException], BaseException, Any] | tuple[None, None, None]


class Telling(unittest.TestResult):
    """A result that tells each test's end at once."""

    def __init__(self, pipe: IO[str]) -> None:
        super().__init__()
        self._pipe, self._why, self._skipped = pipe, "", False
        self._started = self._worked = 0.0

    def tell(self, **what: Any) -> None:
        """One line of JSON."""
        self._pipe.write(json.dumps(what) + "\n")
        self._pipe.flush()

    def startTest(self, test: unittest.TestCase) -> None:
        super().startTest(test)
        self._why, self._skipped = "", False
        self._started, self._worked = time.perf_counter(), time.process_time()
        self.tell(begun=test.id())

    def stopTest(self, test: unittest.TestCase) -> None:
        super().stopTest(test)
        ended = "failed" if self._why else "skipped" if self._skipped else "passed"
        took_s, worked_s = time.perf_counter() - self._started, time.process_time() - self._worked
        self.tell(test=test.id(), ended=ended, took_s=took_s, worked_s=worked_s, why=self._why)

    def addError(self, test: unittest.TestCase, err: Fault) -> None:
        super().addError(test, err)
        self._because(test, err)

    def addFailure(self, test: unittest.TestCase, err: Fault) -> None:
        super().addFailure(test, err)
        self._because(test, err)

    def addSubTest(self, test: unittest.TestCase, subtest: unittest.TestCase, err: Fault | None) -> None:
        super().addSubTest(test, subtest, err)
        if err is not None:
            self._because(subtest, err)

    def addSkip(self, test: unittest.TestCase, reason: str) -> None:
        super().addSkip(test, reason)
        self._skipped = True

    def addUnexpectedSuccess(self, test: unittest.TestCase) -> None:
        super().addUnexpectedSuccess(test)
        self._why += f"{test}: was expected to fail, and passed\n"

    def _because(self, test: unittest.TestCase, err: Fault) -> None:
        told = "".join(traceback.format_exception(*err))
        self._why += f"{test}\n{told}\n"
        # What fails outside any test (a class that can't be set up) has no end of its own.
        if not isinstance(test, unittest.TestCase):
            self.tell(outside=str(test), why=told)


def tests_of(suite: unittest.TestSuite | unittest.TestCase) -> Iterator[unittest.TestCase]:
    """Every test of a suite."""
    if isinstance(suite, unittest.TestSuite):
        for one in suite:
            yield from tests_of(one)
    else:
        yield suite


def work(pipe: IO[str], asked: IO[str], seed: int) -> None:
    """Run each module that is asked for, until nothing more is."""
    result = Telling(pipe)
    for line in asked:
        module = line.strip()
        suite = unittest.defaultTestLoader.loadTestsFromName(module)
        # Every property of a run draws from the seed that the run prints.
        if "hypothesis" in sys.modules:
            sys.modules["hypothesis.core"].global_force_seed = seed  # type: ignore[attr-defined]
        result.tell(module=module, tests=[test.id() for test in tests_of(suite)])
        suite.run(result)
        result.tell(done=module)


if __name__ == "__main__":
    with os.fdopen(int(sys.argv[1]), "w", encoding="utf-8") as told:
        work(told, sys.stdin, int(os.environ["FULMEN_TEST_SEED"]))
