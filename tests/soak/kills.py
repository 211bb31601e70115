"""Processes killed while they save, issue or migrate: what was acknowledged is there, whole, and the store opens.

A child is forked and killed outright after a random while; it tells every acknowledged write through a pipe first.
"""

from __future__ import annotations

import os
import random
import shutil
import signal
import tempfile
import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from pathlib import Path

from sqlalchemy.exc import DatabaseError

from fulmen.core.model.readings import Outcome, Reading
from fulmen.settings import Settings
from fulmen.store import operations, papers
from fulmen.store.database import Sessions, open_database, sessions
from fulmen.store.doctor import first_fault
from fulmen.store.errors import StoreError, Unusable
from fulmen.store.issues import Issue
from fulmen.store.upkeep import migrate
from tests.acts import signed_job, warrant
from tests.jobs import DEVICE_IN_UNIT, HALFWAY, job

NOW = datetime(2026, 11, 24, 9, 30, tzinfo=UTC)
Work = Callable[[Settings, Callable[[str], None]], None]


@dataclass
class Fate:
    """What became of some kills."""

    kills: int = 0
    while_at_it: int = 0
    acknowledged: int = 0
    lost: list[str] = field(default_factory=list)
    half: list[str] = field(default_factory=list)
    unopened: list[str] = field(default_factory=list)

    def faultless(self) -> bool:
        """Whether nothing was lost, half written or unopened."""
        return not (self.lost or self.half or self.unopened)

    def words(self) -> str:
        """In one line."""
        return (
            f"{self.kills} kills, {self.while_at_it} of them at work, {self.acknowledged} acknowledged, "
            f"{len(self.lost)} lost, {len(self.half)} half, {len(self.unopened)} don't open"
        )


def killed_after(work: Work, settings: Settings, after_s: float) -> tuple[list[str], bool]:
    """Run some work in a child and kill it; what it acknowledged, and whether it was still at it."""
    reads, writes = os.pipe()
    child = os.fork()
    if child == 0:
        os.close(reads)
        with suppress(BaseException):
            work(settings, lambda told: os.write(writes, f"{told}\n".encode()))
        os._exit(0)
    os.close(writes)
    time.sleep(after_s)
    with suppress(ProcessLookupError):
        os.kill(child, signal.SIGKILL)
    _, status = os.waitpid(child, 0)
    with os.fdopen(reads, "rb") as pipe:
        lines = pipe.read().decode().split("\n")
    # What breaks off was not told.
    return lines[:-1], os.WIFSIGNALED(status)


def saving(settings: Settings, told: Callable[[str], None]) -> None:
    """Save and take readings without end; each is told once it is acknowledged."""
    made = sessions(open_database(settings))
    while True:
        now = operations.load_job(made, 1)
        number = int(now.job.reference or 0) + 1
        operations.save_job(made, 1, now.version, now.job.model_copy(update={"reference": str(number)}), NOW)
        told(f"reference {number}")
        operations.add_reading(made, 1, _reading((now.job.readings and len(now.job.readings)) or 0), NOW)
        told(f"readings {len(now.job.readings) + 1}")


def issuing(settings: Settings, told: Callable[[str], None]) -> None:
    """Change and certify without end; each certificate is told once it is there."""
    made = sessions(open_database(settings))
    while (left := papers.issue_next(made, _rendered, lambda: NOW)) is not None:
        told(f"paper {left.number}")
    while True:
        now = operations.load_job(made, 1)
        changed = now.job.model_copy(update={"reference": str(now.version)})
        saved = operations.save_job(made, 1, now.version, changed, NOW)
        signatures = job(DEVICE_IN_UNIT).certificate.signatures
        wish = papers.ask_for_certificate(made, 1, papers.Seen(saved.version), signatures, warrant(made, 1), NOW).wish
        done = papers.issue_next(made, _rendered, lambda: NOW)
        assert done is not None and done.id == wish.id and done.number is not None
        told(f"paper {done.number}")


def migrating(settings: Settings, told: Callable[[str], None]) -> None:
    """Bring an older database to this version."""
    migrate(settings)
    told("migrated")


def _rendered(issue: Issue) -> bytes:
    time.sleep(0.002)
    return b"%PDF-" + issue.data.encode()


def _reading(place: int) -> Reading:
    at = NOW + timedelta(seconds=place)
    return Reading.model_validate(
        {
            "step": "zs",
            "subject": "ev",
            "outcome": Outcome.MEASURED,
            "value": 0.3,
            "taken_by": "A. Tester",
            "taken_at": at,
        }
    )


def kill_while_saving(kills: int, chance: random.Random) -> Fate:
    """Every acknowledged save and reading is there after each kill."""
    fate = Fate()
    with tempfile.TemporaryDirectory() as folder:
        settings, made = _store(Path(folder), HALFWAY)
        longest_s = max(0.3, _few_loads_s(made))
        for _ in range(kills):
            told, at_it = killed_after(saving, settings, chance.uniform(0.02, longest_s))
            _count(fate, told, at_it)
            _look(fate, settings, lambda told=told: _saved(made, told))  # type: ignore[misc]
    return fate


def _saved(made: Sessions, told: list[str]) -> list[str]:
    stored = operations.load_job(made, 1).job
    reached = {"reference": int(stored.reference or 0), "readings": len(stored.readings)}
    return [one for one in told if int(one.split()[1]) > reached[one.split()[0]]]


def kill_while_issuing(kills: int, chance: random.Random) -> Fate:
    """Every certificate that was told is there; numbers are consecutive, none twice, whoever died."""
    fate = Fate()
    with tempfile.TemporaryDirectory() as folder:
        settings, made = _store(Path(folder), DEVICE_IN_UNIT)
        longest_s = max(0.4, _few_loads_s(made))
        for _ in range(kills):
            told, at_it = killed_after(issuing, settings, chance.uniform(0.02, longest_s))
            _count(fate, told, at_it)
            if not fate.acknowledged:
                # Nothing came to its end yet: the machine is busier than when its speed was measured.
                longest_s *= 1.5
            _look(fate, settings, lambda told=told: _issued(made, told))  # type: ignore[misc]
        while papers.issue_next(made, _rendered, lambda: NOW) is not None:
            pass
        numbers = sorted(one.number for one in papers.list_papers(made, 1))
        if numbers != [f"FC-2026-{count:04d}" for count in range(1, len(numbers) + 1)]:
            fate.half.append(f"numbers {numbers}")
    return fate


def _issued(made: Sessions, told: list[str]) -> list[str]:
    there = {one.number for one in papers.list_papers(made, 1)}
    return [one for one in told if one.split()[1] not in there]


def kill_while_migrating(kills: int, chance: random.Random, old: Path) -> Fate:
    """The next start goes on, whatever moment the last one died at; nothing of the older store is missing."""
    fate = Fate()
    with tempfile.TemporaryDirectory() as folder:
        takes_s = _takes_s(Path(folder), old)
        for number in range(kills):
            settings = Settings(database=Path(folder) / str(number) / "old.sqlite")
            settings.database.parent.mkdir()
            shutil.copy(old, settings.database)
            told, at_it = killed_after(migrating, settings, chance.uniform(0.0, takes_s * 1.1))
            _count(fate, told, at_it)
            try:
                migrate(settings)
            except Unusable as error:
                fate.unopened.append(str(error))
                continue
            _look(fate, settings, list)
            shutil.rmtree(settings.database.parent)
    return fate


def _few_loads_s(made: Sessions) -> float:
    """Time for some work on this machine, however busy it is: a kill must find something under way."""
    started = time.perf_counter()
    for _ in range(20):
        operations.load_job(made, 1)
    return time.perf_counter() - started


def _takes_s(folder: Path, old: Path) -> float:
    """How long one migration takes, so that kills fall all over it."""
    settings = Settings(database=folder / "timed.sqlite")
    shutil.copy(old, settings.database)
    started = time.perf_counter()
    migrate(settings)
    return time.perf_counter() - started


def _store(folder: Path, name: str) -> tuple[Settings, Sessions]:
    settings = Settings(database=folder / "killed.sqlite")
    migrate(settings)
    made = sessions(open_database(settings))
    signed_job(made, job(name, {"reference": "0"}))
    return settings, made


def _count(fate: Fate, told: list[str], at_it: bool) -> None:
    fate.kills += 1
    fate.while_at_it += at_it
    fate.acknowledged += len(told)


def _look(fate: Fate, settings: Settings, missing: Callable[[], list[str]]) -> None:
    try:
        fate.lost += missing()
    except (DatabaseError, StoreError) as error:
        fate.unopened.append(str(error))
        return
    fault = first_fault(settings.database)
    if fault:
        fate.half.append(fault)
