"""`make soak`: hundreds of kills; bounded to minutes. Ends with 1 where anything was lost, half written or unopened."""

from __future__ import annotations

import argparse
import random
import sys
import tempfile
import time
from pathlib import Path

from tests.soak.kills import Fate, kill_while_issuing, kill_while_migrating, kill_while_saving
from tests.soak.old_store import older_store

SEED = 20261126


def main() -> int:
    """Run every part and print one line for each."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--saving", type=int, default=300)
    parser.add_argument("--issuing", type=int, default=200)
    parser.add_argument("--migrating", type=int, default=100)
    counts = parser.parse_args()
    chance = random.Random(SEED)
    with tempfile.TemporaryDirectory() as folder:
        old = older_store(Path(folder), jobs=30)
        parts = {
            "killed while saving": lambda: kill_while_saving(counts.saving, chance),
            "killed while issuing": lambda: kill_while_issuing(counts.issuing, chance),
            "killed while migrating": lambda: kill_while_migrating(counts.migrating, chance, old),
        }
        fates = [_told(name, part()) for name, part in parts.items()]
    return 0 if all(fate.faultless() for fate in fates) else 1


def _told(name: str, fate: Fate) -> Fate:
    print(f"{name:24} {fate.words()}", flush=True)
    for fault in (*fate.lost, *fate.half, *fate.unopened)[:5]:
        print(f"    {fault}")
    return fate


if __name__ == "__main__":
    started = time.perf_counter()
    status = main()
    print(f"{time.perf_counter() - started:.0f} s")
    sys.exit(status)
