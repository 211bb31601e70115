"""Asking a test set on a port of this machine for one reading; whatever goes wrong is told in one sentence."""

from __future__ import annotations

import socket
import time
from dataclasses import dataclass

from fulmen.core.model.base import shown
from fulmen.core.model.readings import Outcome

WAIT_S = 3.0
LONGEST_ANSWER = 500


class TestSetError(Exception):
    """The set gave no reading; the sentence says why and that nothing was kept."""

    __test__ = False


@dataclass(frozen=True)
class FromSet:
    """What the set showed."""

    outcome: Outcome
    value: float | None
    unit: str
    test_voltage_v: int | None
    instrument: str


def ask(port: int, house: str, step: str, subject: str, wait_s: float = WAIT_S) -> FromSet:
    """One reading of a house, all of it within `wait_s`: a set that drips its answer holds nobody longer.

    Raises:
        TestSetError: nobody answers, or what is answered is no reading of that step.
    """
    until = time.monotonic() + wait_s
    try:
        with socket.create_connection(("127.0.0.1", port), timeout=wait_s) as line:
            answers = _Answers(line, until)
            greeting = answers.to("HELLO")
            told = answers.to(f"READ {house} {step} {subject}")
    except TimeoutError:
        raise TestSetError("The test set does not answer in time. Nothing was taken.") from None
    except (OSError, UnicodeDecodeError):
        raise TestSetError(f"No test set answers at port {port} of this machine. Nothing was taken.") from None
    if not greeting.startswith("FULMEN-TEST-SET 1 "):
        raise TestSetError(f"What answers at port {port} is no test set: “{greeting:.60}”. Nothing was taken.")
    return _reading(told, step, subject, greeting.removeprefix("FULMEN-TEST-SET 1 "))


class _Answers:
    """The lines of a set, one to each question, none longer than it may be and none later than the deadline."""

    def __init__(self, line: socket.socket, until: float) -> None:
        self._line, self._until, self._left = line, until, b""

    def to(self, question: str) -> str:
        """The line that answers a question."""
        self._wait()
        self._line.sendall(f"{question}\n".encode())
        while b"\n" not in self._left:
            self._wait()
            came = self._line.recv(LONGEST_ANSWER)
            if not came or len(self._left) > LONGEST_ANSWER:
                raise ConnectionError
            self._left += came
        answer, _, self._left = self._left.partition(b"\n")
        return shown(answer.decode().strip())

    def _wait(self) -> None:
        left_s = self._until - time.monotonic()
        if left_s <= 0:
            raise TimeoutError
        self._line.settimeout(left_s)


def _reading(told: str, step: str, subject: str, instrument: str) -> FromSet:
    words = told.split()
    if words[:1] == ["ERROR"]:
        raise TestSetError(f"The test set says: {' '.join(words[2:])}. Nothing was taken.")
    try:
        kind, its_step, its_subject, outcome, value, unit, volts = words
        # Figures of other scripts are read by Python, and by nobody at a meter.
        if not f"{value}{volts}".isascii():
            raise ValueError
        if [kind, its_step, its_subject] != ["VALUE", step, subject]:
            raise ValueError
        return FromSet(
            Outcome(outcome),
            None if value == "-" else float(value),
            "" if unit == "-" else unit,
            None if volts == "-" else int(volts),
            instrument,
        )
    except ValueError:
        raise TestSetError(f"The test set answered “{told:.60}”, which is no reading. Nothing was taken.") from None
