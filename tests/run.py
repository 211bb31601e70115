"""Runs every test and ends with one line: N passed, N failed.

`tests/run.py` runs everything, `tests/run.py NAME …` the modules that are named. A seed makes the samples that properties
draw: `FULMEN_TEST_SEED=7 make test` draws the same again.
"""

from __future__ import annotations

import os
import random
import sys
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from tests.running.parts import modules  # noqa: E402
from tests.running.pool import Module, run_modules  # noqa: E402
from tests.running.report import Part, closing_line, failures, keep  # noqa: E402

# A browser's test mostly waits for the browser, a static one for the tools it starts.
WORKERS = 3


def told(module: Module) -> None:
    """One line as a module ends, so that a run that is cut short shows how far it came."""
    failed = sum(test.ended == "failed" for test in module.ended.values())
    print(f"{module.took_s:6.1f} s  {module.name}" + (f"  {failed} FAILED" if failed else ""), flush=True)


def run(found: dict[str, list[str]], root: Path = ROOT) -> tuple[list[Part], int]:
    """Run the modules of each part; the parts as they ended, and the exit status."""
    seed = int(os.environ.get("FULMEN_TEST_SEED") or random.SystemRandom().randrange(1_000_000))
    started = time.perf_counter()
    names = [name for part in found.values() for name in part]
    ended = run_modules(names, min(WORKERS, len(names)), root, seed, told)
    parts = [Part(name, tuple(one for one in ended if one.name in those)) for name, those in found.items() if those]
    took_s = time.perf_counter() - started
    print("\n".join(failures(parts)))
    file = keep(parts, seed, took_s, root)
    for part in parts:
        print(part.line())
    print(
        f"{took_s:.0f} s on {os.cpu_count()} cores with seed {seed}; the slowest of each part: {file.relative_to(root)}"
    )
    print(closing_line(parts), flush=True)
    return parts, 1 if any(part.count("failed") for part in parts) else 0


if __name__ == "__main__":
    sys.exit(run({"named": sys.argv[1:]} if sys.argv[1:] else modules(ROOT))[1])
