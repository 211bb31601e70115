"""What is told of a run: what failed and why, a line a part, the closing line; and a file with how long everything took."""

from __future__ import annotations

import json
from dataclasses import dataclass
from pathlib import Path

from tests.running.pool import Ended, Module

SLOWEST = 10
# A failure says enough to be found; the file holds all of it.
LINES_OF_A_FAILURE = 30
FAILURES_TOLD = 5
FILE = Path("build") / "tests.json"


@dataclass(frozen=True)
class Part:
    """A part of the suite and what became of its modules."""

    name: str
    modules: tuple[Module, ...]

    @property
    def tests(self) -> list[Ended]:
        """Every test of it."""
        return [test for module in self.modules for test in module.ended.values()]

    def count(self, ended: str) -> int:
        """How many of its tests ended so."""
        return sum(test.ended == ended for test in self.tests)

    def line(self) -> str:
        """It in one line."""
        took_s, worked_s = sum(one.took_s for one in self.modules), sum(one.worked_s for one in self.modules)
        skipped = f", {self.count('skipped')} skipped" if self.count("skipped") else ""
        return (
            f"{self.name:14} {self.count('passed'):5} passed, {self.count('failed')} failed{skipped}  "
            f"{took_s:6.0f} s, {worked_s:.0f} s of processor time"
        )

    def slowest(self) -> list[Ended]:
        """Its slowest tests, the slowest first."""
        return sorted(self.tests, key=lambda test: -test.took_s)[:SLOWEST]


def failures(parts: list[Part]) -> list[str]:
    """What failed, with the end of why; of many only the first few at length."""
    failed = [(module, test) for part in parts for module in part.modules for test in module.ended.values() if test.ended == "failed"]  # fmt: skip
    lines: list[str] = []
    for place, (module, test) in enumerate(failed):
        lines.append(f"FAILED {test.test}")
        if place < FAILURES_TOLD:
            lines += [f"  {line}" for line in essence(test.why)[-LINES_OF_A_FAILURE:]]
            lines += [f"  | {line}" for line in module.printed.splitlines()[-LINES_OF_A_FAILURE:]]
    return lines


def essence(why: str) -> list[str]:
    """A failure without the frames of libraries and what the page showed: both stand in the file, and would push out what
    was waited for and where.
    """
    lines: list[str] = []
    left_out = ""
    for line in why.splitlines():
        if line.startswith("Aria snapshot:"):
            left_out = "page"
        elif line.startswith("  File "):
            left_out = "frame" if "site-packages" in line else ""
        elif not line.startswith(("  ", "- ")):
            left_out = ""
        if not left_out and line.strip(" ^~"):
            lines.append(line)
    return lines


def closing_line(parts: list[Part]) -> str:
    """The last line."""
    passed, failed, skipped = (sum(part.count(how) for part in parts) for how in ("passed", "failed", "skipped"))
    return f"{passed} passed, {failed} failed" + (f", {skipped} skipped" if skipped else "")


def keep(parts: list[Part], seed: int, took_s: float, root: Path) -> Path:
    """Write duration, count and the slowest of each part, why what failed did, and what was printed."""
    told = {
        "seed": seed,
        "took_s": round(took_s, 1),
        "parts": {
            part.name: {
                "passed": part.count("passed"),
                "failed": part.count("failed"),
                "skipped": part.count("skipped"),
                "took_s": round(sum(module.took_s for module in part.modules), 1),
                "slowest": {test.test: round(test.took_s, 2) for test in part.slowest()},
                "modules": {
                    module.name: [round(module.took_s, 1), round(module.worked_s, 1)] for module in part.modules
                },
                "failures": {test.test: test.why for test in part.tests if test.ended == "failed"},
                "printed": {module.name: module.printed for module in part.modules if module.printed.strip()},
            }
            for part in parts
        },
    }
    path = root / FILE
    path.parent.mkdir(exist_ok=True)
    path.write_text(json.dumps(told, indent=1, ensure_ascii=False), encoding="utf-8")
    return path
