"""Readings from a file: our own JSON, or any CSV by mapped columns; the fate of each line before anything is kept.

A line is taken, or told why not: no such step or circuit, no figure, a unit of another kind, the same reading already
there, a step that somebody took before and nobody said why again. A unit of the same kind is worked into the step's own
and said so.
"""

from __future__ import annotations

import json
import re
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from typing import Any

from pydantic import Field, ValidationError

from fulmen.core.errors import InputError
from fulmen.core.field_messages import input_errors
from fulmen.core.file_rows import MOST_COLUMNS, headed_rows, named
from fulmen.core.model.base import Line, Name, Part
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS, Outcome, Reading, StepKey, by_step
from fulmen.core.verification.readings.reading_fit import misfit
from fulmen.core.verification.readings.taken_again import LEAST_WHY, after, is_told
from fulmen.core.verification.steps.sequence import Step

MOST_LINES = 500
AHEAD = timedelta(days=1)
# What one of a unit is in each step's own unit: instruments write them in many ways.
UNITS: dict[str, dict[str, float]] = {
    "Ω": {"Ω": 1.0, "ohm": 1.0, "Ohm": 1.0, "ohms": 1.0, "R": 1.0, "mΩ": 1e-3, "mohm": 1e-3, "kΩ": 1e3, "kohm": 1e3},
    "MΩ": {"MΩ": 1.0, "Mohm": 1.0, "MOhm": 1.0, "megohm": 1.0, "kΩ": 1e-3, "kohm": 1e-3, "GΩ": 1e3, "Gohm": 1e3},
    "ms": {"ms": 1.0, "s": 1e3},
    "kA": {"kA": 1.0, "A": 1e-3},
    "mA": {"mA": 1.0, "A": 1e3},
    "V": {"V": 1.0, "mV": 1e-3},
    "%": {"%": 1.0},
}
# The ohm sign has a place of its own in Unicode besides the Greek letter.
OHM_SIGN = "\u2126"
LEFT = {"lim": Outcome.COULD_NOT_TEST, "n/a": Outcome.NOT_APPLICABLE, "na": Outcome.NOT_APPLICABLE}
SAID = {"right": Outcome.RIGHT, "pass": Outcome.RIGHT, "ok": Outcome.RIGHT, "yes": Outcome.RIGHT,
        "wrong": Outcome.WRONG, "fail": Outcome.WRONG, "no": Outcome.WRONG}  # fmt: skip


class LineFate(StrEnum):
    """What becomes of a line."""

    TAKEN = "taken"
    CONVERTED = "converted"
    DUPLICATE = "duplicate"
    NO_STEP = "no_step"
    NO_CIRCUIT = "no_circuit"
    NO_FIGURE = "no_figure"
    WRONG_UNIT = "wrong_unit"
    REFUSED = "refused"
    AGAIN = "again"


class ReadingShape(Part):
    """Which column of a file holds what; empty where it has none. `steps` says which step each of its words is."""

    step_column: Line = "step"
    circuit_column: Line = "circuit"
    value_column: Line = "value"
    unit_column: Line = "unit"
    outcome_column: Line = "outcome"
    voltage_column: Line = "test_voltage_v"
    instrument_column: Line = "instrument"
    time_column: Line = "taken_at"
    steps: dict[Line, StepKey] = Field(default_factory=dict, max_length=200)


class ImportedLine(Part):
    """One line of the file: what it says, its fate, and the reading that it would be."""

    number: int
    words: str
    fate: LineFate
    told: str = ""
    reading: Reading | None = None


@dataclass(frozen=True)
class Taking:
    """Who brings a file in: whose name stands under its readings, when, and with what if a line does not say.

    `again_because` is why steps are taken again, where the file holds some that were.
    """

    taken_by: Name
    taken_at: datetime
    instrument: Line = ""
    again_because: Line = ""


def imported_lines(
    text: str, shape: ReadingShape, job: Job, steps: tuple[Step, ...], by: Taking
) -> tuple[ImportedLine, ...]:
    """The fate of every line of a file.

    Args:
        text: CSV with a line of headings, or JSON: a list of objects with the same names.
        shape: its columns.
        job: the job that the readings are of.
        steps: its sequence.
        by: who brings it in.

    Raises:
        InputError: it is neither, has no line, too many, or lacks a column that the shape names.
    """
    headings, rows = _rows(text)
    if not rows:
        raise InputError("text", "The file holds no reading.")
    if len(rows) > MOST_LINES:
        raise InputError("text", f"The file holds {len(rows)} rows; at most {MOST_LINES} can be taken at once.")
    for column in (shape.step_column, shape.value_column):
        if column not in headings:
            raise InputError("shape", f"The file has no column “{column}”; it has {named(headings)}.")
    known = {(one.step, one.subject): one for one in steps}
    seen = {key for one in job.readings for key in (_same(one), _same(one, timed=False))}
    newest = {key: taken[-1] for key, taken in by_step(job.readings).taken.items()}
    found = []
    for number, row in enumerate(rows, 1):
        line = _line(number, row, shape, known, by)
        reading = line.reading
        # A line that says when it was taken is itself by that; one that does not, by its figure alone.
        timed = row.get(shape.time_column) not in (None, "")
        if reading is not None and _same(reading, timed=timed) in seen:
            line = line.model_copy(update={"fate": LineFate.DUPLICATE, "told": "It is there already.", "reading": None})
        elif reading is not None:
            line = _taken_again(line, reading, newest.get((reading.step, reading.subject)), by)
        if line.reading is not None:
            newest[line.reading.step, line.reading.subject] = line.reading
            seen |= {_same(line.reading), _same(line.reading, timed=False)}
        found.append(line)
    return tuple(found)


def _taken_again(line: ImportedLine, reading: Reading, before: Reading | None, by: Taking) -> ImportedLine:
    """The line of a step that was read before: it says whose it follows, and why, or is asked."""
    if before is None or is_told(before, reading):
        return line
    if len(by.again_because) < LEAST_WHY:
        told = f"{before.taken_by} took it on {before.taken_at:%-d %B, %H:%M}: say why it is taken again."
        return line.model_copy(update={"fate": LineFate.AGAIN, "told": told, "reading": None})
    why = {"follows": after(before), "again_because": by.again_because}
    return line.model_copy(update={"reading": reading.model_copy(update=why)})


def columns_of(text: str) -> tuple[str, ...]:
    """The headings of a file, to map them."""
    headings, _ = _rows(text)
    return headings[:MOST_COLUMNS]


def _rows(text: str) -> tuple[tuple[str, ...], list[dict[str, Any]]]:
    """The headings of a file, and its rows by them."""
    tidy = text.lstrip("\ufeff").strip()
    if tidy.startswith(("[", "{")):
        rows = _json_rows(tidy)
        return (tuple(map(str, rows[0])) if rows else ()), rows
    (headings, *others) = [row for _, row in headed_rows(tidy, MOST_LINES, "text")] or [{}]
    return tuple(headings), list(others)


def _json_rows(text: str) -> list[dict[str, Any]]:
    try:
        data = json.loads(text)
    except (ValueError, RecursionError):
        # A number of thousands of digits is no JSON error to the reader, but a value it can't take.
        raise InputError("text", "The file breaks off or is no JSON.") from None
    listed = data.get("readings") if isinstance(data, dict) else data
    if not isinstance(listed, list) or not all(isinstance(one, dict) for one in listed):
        raise InputError("text", "The file must hold a list of readings.")
    return listed


def _line(
    number: int, row: dict[str, Any], shape: ReadingShape, known: dict[tuple[StepKey, str], Step], by: Taking
) -> ImportedLine:
    """One line's fate, before it is compared with what is there."""
    given = {name: row.get(getattr(shape, f"{name}_column")) for name in CELLS}
    # Nothing is nothing; nought is a figure.
    cell = {name: "" if value is None else str(value).strip()[:LONGEST] for name, value in given.items()}
    words = ", ".join(filter(None, (cell["step"], cell["circuit"], cell["value"], cell["unit"])))

    def fate(kind: LineFate, told: str, reading: Reading | None = None) -> ImportedLine:
        return ImportedLine(number=number, words=words[:200], fate=kind, told=told, reading=reading)

    key = _step_of(cell["step"], shape)
    if key is None:
        return fate(LineFate.NO_STEP, f"“{cell['step']}” is no step that is known: say which it is.")
    if key in HOLDS:
        return fate(LineFate.REFUSED, "A hold is signed by a person on its own screen; no file brings one.")
    step = known.get((key, cell["circuit"])) or _only(key, known, cell["circuit"])
    if step is None:
        return fate(LineFate.NO_CIRCUIT, f"This job asks for no such step of “{cell['circuit'] or 'no circuit'}”.")
    outcome, value = _said(cell)
    if outcome is None:
        return fate(LineFate.NO_FIGURE, _no_figure(cell["value"] or cell["outcome"]))
    factor = 1.0
    if value is not None and cell["unit"]:
        converted = UNITS.get(step.unit, {}).get(cell["unit"].replace(OHM_SIGN, "Ω"))
        if converted is None:
            return fate(LineFate.WRONG_UNIT, f"{cell['unit']} where {step.unit or 'no unit'} is read.")
        factor = converted
    try:
        reading = Reading(
            step=step.step,
            subject=step.subject,
            outcome=outcome,
            value=None if value is None else round(value * factor, 6),
            reason="as the file says" if outcome in LEFT.values() else "",
            instrument=cell["instrument"] or by.instrument,
            test_voltage_v=int(float(cell["voltage"])) if cell["voltage"] else None,
            taken_by=by.taken_by,
            taken_at=datetime.fromisoformat(cell["time"]) if cell["time"] else by.taken_at,
        )
    except ValidationError as error:
        return fate(LineFate.REFUSED, input_errors(error)[0].message)
    except (ValueError, OverflowError):
        return fate(LineFate.REFUSED, f"“{cell['voltage']}” or “{cell['time']}” is no voltage, or no time.")
    # Whoever brings a file in does so after it was measured.
    if reading.taken_at > by.taken_at + AHEAD:
        return fate(LineFate.REFUSED, f"{reading.taken_at:%-d %B %Y} is yet to come: set the instrument's clock.")
    unfit = misfit(reading)
    if unfit is not None:
        return fate(LineFate.REFUSED, unfit.message)
    if factor != 1.0:
        return fate(LineFate.CONVERTED, f"{value:g} {cell['unit']} is {reading.value:g} {step.unit}.", reading)
    return fate(LineFate.TAKEN, "", reading)


# No step, unit or figure is longer; what a line holds is told no further.
LONGEST = 200
CELLS = ("step", "circuit", "value", "unit", "outcome", "voltage", "instrument", "time")


def _step_of(words: str, shape: ReadingShape) -> StepKey | None:
    """Which step a file's word is: by its own key, or as it was mapped."""
    if words in shape.steps:
        return shape.steps[words]
    return StepKey(words) if words in tuple(StepKey) else None


def _no_figure(words: str) -> str:
    if may_be_a_thousand(words.lstrip("> ")):
        whole = words.replace(",", "")
        return f"“{words}”: {whole}, or {words.replace(',', '.')}? Write it without the comma."
    return f"“{words}” is neither a figure nor an outcome."


def _only(key: StepKey, known: dict[tuple[StepKey, str], Step], circuit: str) -> Step | None:
    """The one step of a key where the file names no circuit."""
    found = [step for (one, _), step in known.items() if one is key]
    return found[0] if not circuit and len(found) == 1 else None


def _said(cell: dict[str, str]) -> tuple[Outcome | None, float | None]:
    """What a line says: a figure, one over range, right, wrong, or left out."""
    told, figure = cell["outcome"].lower(), cell["value"].lower()
    over, value = figure.startswith(">") or told == Outcome.OVER_RANGE, figure_in(figure.lstrip("> "))
    for words in (figure, told):
        if words in LEFT:
            return LEFT[words], None
        if words in SAID:
            # What is wrong may have been measured all the same.
            return SAID[words], value if SAID[words] is Outcome.WRONG else None
    if value is None:
        return None, None
    return (Outcome.OVER_RANGE if over else Outcome.MEASURED), value


def figure_in(words: str) -> float | None:
    """The figure that a text is: plain digits with one point or comma; None where it is none, or could be two.

    >>> figure_in("0,10"), figure_in(".09"), figure_in("1,000"), figure_in("-0.2"), figure_in("١٢")
    (0.1, 0.09, None, None, None)
    """
    found = PLAIN_FIGURE.fullmatch(words)
    return None if found is None or may_be_a_thousand(words) else float(words.replace(",", "."))


def may_be_a_thousand(words: str) -> bool:
    """Whether a comma stands where thousands are parted, and could as well part decimals.

    >>> may_be_a_thousand("1,000"), may_be_a_thousand("0,125"), may_be_a_thousand("1,25")
    (True, False, False)
    """
    return A_THOUSAND.fullmatch(words) is not None


# Digits as instruments write them: other scripts' digits, signs and exponents are none.
PLAIN_FIGURE = re.compile(r"[0-9]{1,9}([.,][0-9]{0,9})?|[.,][0-9]{1,9}")
A_THOUSAND = re.compile(r"[1-9][0-9]{0,2},[0-9]{3}")


def _same(reading: Reading, *, timed: bool = True) -> tuple[object, ...]:
    """What makes two readings one and the same."""
    what = (reading.step, reading.subject, reading.outcome, reading.value, reading.instrument)
    return (*what, reading.taken_at) if timed else what
