"""`make soak`: kills, floods, calls by thousands and every property at length. Ends with 1 where anything was lost."""

from __future__ import annotations

import argparse
import os
import random
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from fulmen.settings import Settings
from fulmen.store.upkeep import migrate
from fulmen.web.app import create_app
from tests.independent.instruments import ORDINARY, POOR
from tests.independent.run import shares
from tests.jobs import ROOT
from tests.running.pool import run_modules
from tests.running.report import Part, closing_line, failures
from tests.soak.calls import ROUTES, SLOW_S, call_all
from tests.soak.filled import fill
from tests.soak.floods import certificates_and_saves, slow_connections
from tests.soak.kills import Fate, kill_while_issuing, kill_while_migrating, kill_while_saving
from tests.soak.old_store import older_store
from tests.soak.speed import how_much_slower

SEED = 20261126


def main() -> int:
    """Run the parts and print one line for each."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument(
        "--kills", type=int, nargs=3, default=(300, 200, 100), metavar=("SAVING", "ISSUING", "MIGRATING")
    )
    parser.add_argument("--papers", type=int, default=50)
    parser.add_argument("--slow", type=int, default=500)
    parser.add_argument("--calls", type=int, default=20_000)
    parser.add_argument("--readings", type=int, default=1000)
    parser.add_argument("--properties", type=int, default=1, help="0 leaves them out")
    counts = parser.parse_args()
    parts: dict[str, Callable[[], tuple[str, bool]]] = {
        "killed while saving": lambda: _kills(lambda: kill_while_saving(counts.kills[0], _chance())),
        "killed while issuing": lambda: _kills(lambda: kill_while_issuing(counts.kills[1], _chance())),
        "killed while migrating": lambda: _kills(lambda: _migrating(counts.kills[2])),
        "certificates at once": lambda: _papers(counts.papers),
        "slow connections": lambda: _slow(counts.slow),
        "calls by the document": lambda: _calls(counts.calls),
        "readings from physics": lambda: _independent(counts.readings),
        **({"properties at length": _properties} if counts.properties else {}),
    }
    fine = True
    for name, part in parts.items():
        started = time.perf_counter()
        words, holds = part()
        fine = fine and holds
        print(f"{name:24} {'' if holds else 'FAULT  '}{words}  ({time.perf_counter() - started:.0f} s)", flush=True)
    return 0 if fine else 1


def _independent(count: int) -> tuple[str, bool]:
    """Sound and planted sets from the second simulator, with a seed drawn now: the figures that the README tells."""
    seed, words, holds = str(random.SystemRandom().randrange(10**6)), [], True
    for name, sheet, most, least in (("ordinary", ORDINARY, 0.02, 0.97), ("poor", POOR, 0.05, 0.85)):
        false, caught = shares(seed, count, sheet)
        holds = holds and false <= most and caught >= least
        words.append(f"{name} {100 * false:.1f} % false, {100 * caught:.1f} % named")
    return f"seed {seed}, {count} of each: {'; '.join(words)}", holds


def _properties() -> tuple[str, bool]:
    """Every module that draws a sample, with all there is to draw, or twenty times as many."""
    draws = [path for path in (ROOT / "tests").rglob("test_*.py") if "tests.sampling" in path.read_text("utf-8")]
    names = [".".join(path.relative_to(ROOT).with_suffix("").parts) for path in sorted(draws)]
    os.environ["FULMEN_SOAK"] = "1"
    part = Part("properties", tuple(run_modules(names, 2, ROOT, SEED)))
    told = "".join(f"\n    {line}" for line in failures([part])[:20])
    return f"{len(names)} modules, {closing_line([part])}{told}", part.count("failed") == 0


def _chance() -> random.Random:
    return random.Random(SEED)


def _kills(kill: Callable[[], Fate]) -> tuple[str, bool]:
    fate = kill()
    faults = "".join(f"\n    {fault}" for fault in (*fate.lost, *fate.half, *fate.unopened)[:5])
    return fate.words() + faults, fate.faultless()


def _migrating(kills: int) -> Fate:
    with tempfile.TemporaryDirectory() as folder:
        return kill_while_migrating(kills, _chance(), older_store(Path(folder), jobs=30))


def _papers(papers: int) -> tuple[str, bool]:
    found, slower = certificates_and_saves(papers), how_much_slower()
    words = (
        f"{found.issued} of {papers} with numbers in a row in {found.took_s:.0f} s; each accepted in p95 "
        f"{found.accepted_p95_ms:.0f} ms, the slowest save meanwhile {found.slowest_save_ms:.0f} ms, "
        f"until the last is made p95 {found.save_p95_ms:.0f} ms (a machine {slower:.1f} times slower than a quiet one)"
    )
    quick = found.accepted_p95_ms <= 1000 * slower and found.save_p95_ms <= 100 * slower
    return words, found.issued == papers and quick


def _slow(count: int) -> tuple[str, bool]:
    p95_ms, let_in = slow_connections(count, 200)
    return f"{count} asked for, {let_in} let in; the electrician is answered in p95 {p95_ms:.0f} ms", p95_ms <= 100


def _calls(calls: int) -> tuple[str, bool]:
    with tempfile.TemporaryDirectory() as folder:
        settings = Settings(database=Path(folder) / "calls.sqlite")
        migrate(settings)
        app = create_app(settings, render=lambda issue: b"%PDF-")
        found = call_all(app.test_client(), calls, _chance(), fill(app), SLOW_S * how_much_slower())
        app.extensions["sessions"].kw["bind"].dispose()
    told = [*found.failures, *found.slow, *(f"{one} × {times}" for one, times in found.undocumented.items())]
    words = found.words() + "".join(f"\n    {one}" for one in told[:8])
    reached = len(found.asked) == len(ROUTES)
    return words, not told and reached and found.grown_mb <= 50


if __name__ == "__main__":
    sys.exit(main())
