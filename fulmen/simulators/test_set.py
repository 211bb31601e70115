"""A simulated test set on a local port: it answers what a house as built would show; see docs/test-set.md.

Lines of UTF-8, one question and one answer each. A question is `READ house step subject`; the house is a job's number,
or `0` where one job is served. Nothing is kept and nothing is written.
"""

from __future__ import annotations

import socketserver
from collections.abc import Callable
from dataclasses import dataclass
from threading import Thread

from fulmen.core.circuit.run_figures import Case, cases_of
from fulmen.core.judging.known import known_for
from fulmen.core.model.job import Job
from fulmen.core.model.readings import LEFT_OUT
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.simulations.as_built.as_installed import as_installed
from fulmen.core.simulations.as_built.set_up import Shown
from fulmen.core.simulations.as_built.simulated_set import INSTRUMENT, TestSet
from fulmen.core.verification.faults.faults import Fault
from fulmen.core.verification.instruments.dials import dial
from fulmen.core.verification.steps.sequence import Step, sequence

GREETING = f"FULMEN-TEST-SET 1 {INSTRUMENT}"
LONGEST_LINE = 200
IDLE_S = 60.0


@dataclass(frozen=True)
class House:
    """A job as it is simulated: what is wrong with it, and the seed of the instruments."""

    job: Job
    faults: tuple[Fault, ...] = ()
    seed: int = 0

    def steps(self) -> list[Step]:
        """Every step of its sequence."""
        return sequence(self._cases(), self.job.readings)

    def shown(self, wanted: Step) -> Shown | None:
        """What the set shows at a step; None where the job has no run with figures that it belongs to."""
        for case in self._cases():
            circuits = {chained.circuit.id for chained in case.run.chain} | {"origin"}
            if case.figures is not None and wanted.circuit in circuits and not case.to_loads:
                # The same step of the same house reads the same, however often it is asked.
                return TestSet(as_installed(case, self.faults), self.seed + sum(map(ord, wanted.step))).read(wanted)
        return None

    def _cases(self) -> list[Case]:
        return cases_of(known_for(self.job, rule_set(self.job.rule_set)))


Houses = Callable[[str], House | None]


def answer(question: str, houses: Houses) -> str:
    """The line that answers a question."""
    words = question.split()
    if words == ["HELLO"]:
        return GREETING
    if len(words) != 4 or words[0] != "READ":
        return "ERROR question READ house step subject, or HELLO"
    house = houses(words[1])
    if house is None:
        return f"ERROR house there is no house {words[1]}"
    step = next((one for one in house.steps() if [one.step.value, one.subject] == words[2:]), None)
    if step is None:
        return f"ERROR step {words[2]} {words[3]} is no step of this house"
    shown = house.shown(step)
    if shown is None:
        return f"ERROR route {words[3]} has no route yet, so nothing can be read of it"
    if shown.outcome in LEFT_OUT:
        return f"ERROR nothing {shown.words}"
    value = "-" if shown.value is None else f"{shown.value:g}"
    tested_at_v = dial(step.dial).test_voltage_v
    volts = "-" if shown.value is None or tested_at_v is None else str(tested_at_v)
    return f"VALUE {words[2]} {words[3]} {shown.outcome.value} {value} {step.unit or '-'} {volts}"


class _Line(socketserver.StreamRequestHandler):
    timeout = IDLE_S

    def handle(self) -> None:
        """Answer line by line until the other side goes, or is silent for a minute."""
        server = self.server
        assert isinstance(server, TestSetServer)
        try:
            while line := self.rfile.readline(LONGEST_LINE + 1):
                if len(line) > LONGEST_LINE:
                    self.wfile.write(b"ERROR question too long\n")
                    return
                told = answer(line.decode("utf-8", "replace").strip(), server.houses)
                self.wfile.write(f"{told}\n".encode())
        except (TimeoutError, ConnectionError):
            return


class TestSetServer(socketserver.ThreadingTCPServer):
    """The set on a port of this machine; 0 takes a free one."""

    __test__ = False
    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, houses: Houses, port: int = 0) -> None:
        self.houses = houses
        super().__init__(("127.0.0.1", port), _Line)

    @property
    def port(self) -> int:
        """Where it listens."""
        return int(self.server_address[1])

    def start(self) -> Thread:
        """Serve in a thread of its own."""
        thread = Thread(target=self.serve_forever, name="test set", daemon=True)
        thread.start()
        return thread
