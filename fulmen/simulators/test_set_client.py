"""Asking a test set on a port of this machine for one reading; whatever goes wrong is told in one sentence."""

from __future__ import annotations

import socket
from dataclasses import dataclass

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


def ask(port: int, house: str, step: str, subject: str) -> FromSet:
    """One reading of a house.

    Raises:
        TestSetError: nobody answers, or what is answered is no reading of that step.
    """
    try:
        with socket.create_connection(("127.0.0.1", port), timeout=WAIT_S) as line:
            stream = line.makefile("rw", encoding="utf-8", newline="\n")
            greeting = _asked(stream, "HELLO")
            told = _asked(stream, f"READ {house} {step} {subject}")
    except TimeoutError:
        raise TestSetError("The test set does not answer in time. Nothing was taken.") from None
    except (OSError, UnicodeDecodeError):
        raise TestSetError(f"No test set answers at port {port} of this machine. Nothing was taken.") from None
    if not greeting.startswith("FULMEN-TEST-SET 1 "):
        raise TestSetError(f"What answers at port {port} is no test set: “{greeting:.60}”. Nothing was taken.")
    return _reading(told, step, subject, greeting.removeprefix("FULMEN-TEST-SET 1 "))


def _asked(stream, question: str) -> str:  # type: ignore[no-untyped-def]
    stream.write(f"{question}\n")
    stream.flush()
    line = stream.readline(LONGEST_ANSWER)
    if not line:
        raise ConnectionError
    return str(line).strip()


def _reading(told: str, step: str, subject: str, instrument: str) -> FromSet:
    words = told.split()
    if words[:1] == ["ERROR"]:
        raise TestSetError(f"The test set says: {' '.join(words[2:])}. Nothing was taken.")
    try:
        kind, its_step, its_subject, outcome, value, unit, volts = words
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
