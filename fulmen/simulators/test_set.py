"""A simulated test set on a local port: it answers what a house as built would show; see docs/test-set.md.

Lines of UTF-8, one question and one answer each. A question is `READ house step subject`, and how the set stands where
that is not as the step asks; the house is a job's number, or `0` where one job is served. Nothing is kept or written.
"""

from __future__ import annotations

import socketserver
from collections.abc import Callable
from dataclasses import dataclass, replace
from threading import Thread

from fulmen.core.circuit.run_figures import Case, cases_of
from fulmen.core.errors import InputError
from fulmen.core.judging.known import known_for
from fulmen.core.model.job import Job
from fulmen.core.model.readings import LEFT_OUT
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.simulations.as_built.as_installed import as_installed
from fulmen.core.simulations.as_built.set_up import Setup, Shown
from fulmen.core.simulations.as_built.simulated_set import INSTRUMENT, TestSet
from fulmen.core.verification.faults.faults import Fault
from fulmen.core.verification.instruments.dials import Link, Point, dial, dials
from fulmen.core.verification.steps.sequence import Step, sequence

GREETING = f"FULMEN-TEST-SET 1 {INSTRUMENT}"
ASK = "READ house step subject [dial=…] [linked=…] [adapter=…] [jack=point[+point]…]"
LONGEST_LINE, MOST_POINTS = 200, 2
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

    def shown(self, wanted: Step, setup: Setup | None = None) -> Shown | None:
        """What the set shows at a step, as it stands, else as the step asks; None where no run with figures has it."""
        for case in self._cases():
            circuits = {chained.circuit.id for chained in case.run.chain} | {"origin"}
            if case.figures is not None and wanted.circuit in circuits and not case.to_loads:
                # The same step of the same house reads the same, however often it is asked.
                tester = TestSet(as_installed(case, self.faults), self.seed + sum(map(ord, wanted.step)))
                return tester.show(wanted, setup or Setup.of(wanted))
        return None

    def _cases(self) -> list[Case]:
        return cases_of(known_for(self.job, rule_set(self.job.rule_set)))


Houses = Callable[[str], House | None]


def answer(question: str, houses: Houses) -> str:
    """The line that answers a question."""
    words = question.split()
    if words == ["HELLO"]:
        return GREETING
    if len(words) < 4 or words[0] != "READ":
        return f"ERROR question {ASK}, or HELLO"
    house = houses(words[1])
    if house is None:
        return f"ERROR house there is no house {words[1]}"
    step = next((one for one in house.steps() if [one.step.value, one.subject] == words[2:4]), None)
    if step is None:
        return f"ERROR step {words[2]} {words[3]} is no step of this house"
    try:
        setup = stands(step, words[4:])
    except InputError as error:
        return f"ERROR {error.field} {error.message}"
    shown = house.shown(step, setup)
    if shown is None:
        return f"ERROR route {words[3]} has no route yet, so nothing can be read of it"
    if shown.outcome in LEFT_OUT:
        return f"ERROR nothing {shown.words}"
    value = "-" if shown.value is None else f"{shown.value:g}"
    asked = dial(setup.dial)
    volts = "-" if shown.value is None or asked.test_voltage_v is None else str(asked.test_voltage_v)
    unit = (asked.unit if step.leads else step.unit) if shown.value is not None else step.unit
    return f"VALUE {words[2]} {words[3]} {shown.outcome.value} {value} {unit or '-'} {volts}"


def stands(step: Step, words: list[str]) -> Setup:
    """How the set stands: `dial=`, `linked=`, `adapter=`, and each lead by its jack, `1=far.L+far.E`, `1=-` on nothing;
    what is not said is as the step asks for it.

    Raises:
        InputError: there is no such setting, link, jack or point; the field says which.
    """
    asked = Setup.of(step)
    said = {name: told for name, _, told in (word.partition("=") for word in words)}
    if len(said) < len(words):
        raise InputError("question", "says one thing twice")
    found = replace(
        asked,
        dial=_one_of(tuple(dials()), "dial", said.pop("dial", asked.dial)),
        linked=Link(_one_of(tuple(Link), "linked", said.pop("linked", asked.linked))),
        adapter=said.pop("adapter", asked.adapter).removeprefix("-"),
    )
    strange = next((jack for jack in said if jack not in asked.leads), None)
    if strange is not None:
        raise InputError("jack", f"there is no {strange} at this step; it has {', '.join(asked.leads) or 'none'}")
    return replace(found, leads={jack: _points(said[jack]) if jack in said else at for jack, at in asked.leads.items()})


def _points(text: str) -> tuple[Point, ...]:
    at = text.split("+") if text not in ("", "-") else []
    if len(at) > MOST_POINTS:
        raise InputError("point", f"a lead holds at most {MOST_POINTS} points together")
    return tuple(Point(_one_of(tuple(Point), "point", one)) for one in at)


def _one_of(choices: tuple[str, ...], field: str, told: str) -> str:
    if told not in choices:
        raise InputError(field, f"there is no {told or 'nothing'}; choose one of {', '.join(choices)}")
    return told


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
