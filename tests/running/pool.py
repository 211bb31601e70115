"""Workers side by side, each given the next module once it is done with one; what became of every test is counted here.

A worker that dies or says nothing for long takes its module's unfinished tests with it: they count as failed, and
another worker goes on with what is left.
"""

from __future__ import annotations

import ast
import json
import os
import select
import subprocess
import sys
import tempfile
import threading
import time
from collections import deque
from collections.abc import Callable, Mapping
from contextlib import suppress
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

# Nothing a test does is silent for so long, on the slowest machine.
SILENT_S = 900
OUTPUT_KEPT = 20_000


@dataclass(frozen=True)
class Ended:
    """How one test ended: passed, failed or skipped; its seconds by the clock and of this processor."""

    test: str
    ended: str
    took_s: float = 0.0
    worked_s: float = 0.0
    why: str = ""


@dataclass
class Module:
    """A module under way: which tests it has, and which of them ended."""

    name: str
    expected: tuple[str, ...] = ()
    ended: dict[str, Ended] = field(default_factory=dict)
    outside: str = ""
    begun: str = ""
    printed: str = ""
    took_s: float = 0.0
    worked_s: float = 0.0

    def heard(self, told: Mapping[str, Any]) -> None:
        """Take in what a worker tells."""
        if "tests" in told:
            self.expected = tuple(told["tests"])
        elif "begun" in told:
            self.begun = told["begun"]
        elif "outside" in told:
            self.outside += f"{told['outside']}\n{told['why']}"
        elif "test" in told:
            self.ended[told["test"]] = Ended(**told)

    def settle(self, died: str, root: Path) -> None:
        """Count what never ended as failed: with the worker, or with a class that could not be set up."""
        expected = self.expected or (tests_written(self.name, root) if died else ())
        for test in expected:
            if test not in self.ended:
                self.ended[test] = Ended(test, "failed", why=died or self.outside or "It never ran.")
        if not self.ended:
            self.ended[self.name] = Ended(self.name, "failed", why="It holds no test.")


def worked_below_s(pid: int) -> float:
    """Processor seconds of a process, its children and theirs, the ended ones that were waited for included."""
    stats: dict[int, tuple[int, int]] = {}
    for path in Path("/proc").glob("[0-9]*/stat"):
        with suppress(OSError):
            # The name before the last bracket may hold anything.
            rest = path.read_text(errors="replace").rsplit(")", 1)[1].split()
            stats[int(path.parent.name)] = int(rest[1]), sum(map(int, rest[11:15]))
    children: dict[int, list[int]] = {}
    for one, (parent, _) in stats.items():
        children.setdefault(parent, []).append(one)
    ticks, left = 0, [pid]
    while left:
        one = left.pop()
        ticks += stats.get(one, (0, 0))[1]
        left += children.get(one, [])
    return ticks / os.sysconf("SC_CLK_TCK")


def tests_written(module: str, root: Path) -> tuple[str, ...]:
    """The tests that stand in a module's file, for one that dies before it can tell them."""
    path = root.joinpath(*module.split(".")).with_suffix(".py")
    tree = ast.parse(path.read_text(encoding="utf-8"))
    functions = [node for node in ast.walk(tree) if isinstance(node, ast.FunctionDef)]
    return tuple(f"{module}.{one.name}" for one in functions if one.name.startswith("test")) or (module,)


class Worker:
    """One process, its pipe and what it prints."""

    def __init__(self, root: Path, seed: int) -> None:
        self._reads, writes = os.pipe()
        self._printed = tempfile.TemporaryFile()  # noqa: SIM115 — closed with the worker
        self._rest = b""
        self._process = subprocess.Popen(
            [sys.executable, "-m", "tests.running.worker", str(writes)],
            cwd=root,
            env={**os.environ, "PYTHONPATH": str(root), "FULMEN_TEST_SEED": str(seed)},
            pass_fds=(writes,),
            stdin=subprocess.PIPE,
            stdout=self._printed,
            stderr=subprocess.STDOUT,
        )
        os.close(writes)

    def run(self, module: Module) -> str:
        """Run one module; empty, or why it did not come to its end."""
        started, from_byte = time.perf_counter(), self._printed.seek(0, os.SEEK_END)
        before_s = worked_below_s(self._process.pid)
        died = self._run(module)
        module.worked_s = worked_below_s(self._process.pid) - before_s
        self._printed.seek(from_byte)
        module.printed = self._printed.read(OUTPUT_KEPT).decode(errors="replace")
        module.took_s = time.perf_counter() - started
        return died

    def _run(self, module: Module) -> str:
        assert self._process.stdin is not None
        try:
            self._process.stdin.write(f"{module.name}\n".encode())
            self._process.stdin.flush()
        except BrokenPipeError:
            return self._end("was gone before it began")
        while True:
            line = self._line()
            if line is None:
                return self._end(f"said nothing for {SILENT_S} s, at {module.begun}")
            if not line:
                return self._end(f"died at {module.begun or 'its start'}")
            told = json.loads(line)
            if told.get("done") == module.name:
                return ""
            module.heard(told)

    def _line(self) -> bytes | None:
        """The next line that it tells; empty once it is gone, None where it is silent for too long."""
        while b"\n" not in self._rest:
            if not select.select([self._reads], [], [], SILENT_S)[0]:
                return None
            more = os.read(self._reads, 1 << 16)
            if not more:
                return b""
            self._rest += more
        line, self._rest = self._rest.split(b"\n", 1)
        return line

    def _end(self, how: str) -> str:
        self._process.kill()
        return f"The worker {how} (exit code {self._process.wait()})."

    def close(self) -> None:
        """Let it go."""
        assert self._process.stdin is not None
        with suppress(BrokenPipeError):
            self._process.stdin.close()
        self._process.wait()
        os.close(self._reads)
        self._printed.close()


def run_modules(
    names: list[str], workers: int, root: Path, seed: int, told: Callable[[Module], None] = lambda module: None
) -> list[Module]:
    """Run every module, so many side by side; each with what became of every test of it. `told` hears of each."""
    waiting, done = deque(names), list[Module]()

    def go_on() -> None:
        worker = Worker(root, seed)
        while True:
            try:
                module = Module(waiting.popleft())
            except IndexError:
                return worker.close()
            died = worker.run(module)
            module.settle(died, root)
            done.append(module)
            told(module)
            if died:
                worker.close()
                worker = Worker(root, seed)

    threads = [threading.Thread(target=go_on) for _ in range(workers)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return done
