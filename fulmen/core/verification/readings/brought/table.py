"""A file taken apart: its headings recognised, its rows as claims, a reading each, whichever way the file lies."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Any

from fulmen.core.errors import InputError
from fulmen.core.file_rows import MOST_COLUMNS, headed_rows, named
from fulmen.core.model.readings import StepKey
from fulmen.core.reference.tables import read_toml
from fulmen.core.verification.readings.brought.cells import NOTHING, UNITS
from fulmen.core.verification.readings.brought.shape import ReadingShape

MOST_LINES = 500
# No step, unit or figure is longer; what a line holds is told no further.
LONGEST = 200
CELLS = ("step", "circuit", "value", "unit", "outcome", "voltage", "instrument", "time", "day", "line")
LINES = re.compile(r"(?<![a-z0-9])l([123])$")
IN_BRACKETS = re.compile(r"[(\[]([^)\]]*)[)\]]")
SIGNS = str.maketrans("", "", " _-/.,:*'’°×?#")
KNOWN_UNITS = {unit.lower() for units in UNITS.values() for unit in units}


@dataclass(frozen=True)
class Claim:
    """What a file says of one step: its cells in words, under the number of its row.

    `heading` is the column it stands in, where the file has a column a step.
    """

    number: int
    cells: dict[str, str]
    heading: str = ""

    @property
    def words(self) -> str:
        """The claim in words."""
        shown = (self.cells[name] for name in ("step", "circuit", "line", "value", "unit"))
        return ", ".join(filter(None, shown))[:LONGEST]


@dataclass(frozen=True)
class Table:
    """A file's headings and rows, and how it lies: what was said of it, filled in by what its headings say."""

    headings: tuple[str, ...]
    rows: tuple[dict[str, Any], ...]
    shape: ReadingShape


@cache
def _known() -> tuple[dict[str, str], dict[str, StepKey]]:
    told = read_toml(__package__, "column_words")
    columns = {word: field for field, words in told["columns"].items() for word in words}
    steps = {word: StepKey(step) for step, words in told["steps"].items() for word in words}
    return columns, steps | {key.value.replace("_", ""): key for key in StepKey}


def plainly(heading: str) -> str:
    """A heading without its unit, spaces and signs, in small letters.

    >>> plainly("Zs (Ω)"), plainly("R1 + R2 Ω"), plainly("Test Voltage [V]")
    ('zs', 'r1+r2', 'testvoltage')
    """
    words = IN_BRACKETS.sub(" ", heading.lower()).split()
    while len(words) > 1 and words[-1] in KNOWN_UNITS:
        words.pop()
    return "".join(words).translate(SIGNS)


def unit_in(heading: str) -> str:
    """The unit that a heading says: in brackets, or last."""
    found = IN_BRACKETS.search(heading)
    words = found[1] if found else heading.split()[-1] if len(heading.split()) > 1 else ""
    return words.strip() if words.strip().lower() in KNOWN_UNITS else ""


def line_in(heading: str) -> tuple[str, str]:
    """A heading without the line that it is of, and that line.

    >>> line_in("Zs L2"), line_in("IR L-L")
    (('Zs', 'L2'), ('IR L-L', ''))
    """
    bare = IN_BRACKETS.sub(" ", heading).strip()
    found = LINES.search(bare.lower())
    return (
        (heading.replace(bare[found.start() :], "").strip(), f"L{found[1]}")
        if found and found.start()
        else (heading, "")
    )


def step_of(words: str, shape: ReadingShape) -> StepKey | None:
    """Which step a word or a heading is: as it was mapped, else as the trade abbreviates."""
    if words in shape.steps:
        return shape.steps[words]
    return _known()[1].get(plainly(line_in(words)[0]))


def table_of(text: str, shape: ReadingShape) -> Table:
    """A file taken apart.

    Args:
        text: CSV with a line of headings, which lines of a title may precede, or JSON: a list of objects.
        shape: what is known of how it lies.

    Raises:
        InputError: it is neither, has no row, too many, or lacks a column that the shape names.
    """
    headings, rows = _rows(text, shape)
    if not rows:
        raise InputError("text", "The file holds no reading.")
    if len(rows) > MOST_LINES:
        raise InputError("text", f"The file holds {len(rows)} rows; at most {MOST_LINES} can be taken at once.")
    found = recognised(headings, shape)
    for field in COLUMN_FIELDS:
        column = getattr(found, field)
        if column and column not in headings:
            raise InputError("shape", f"The file has no column “{column}”; it has {named(headings)}.")
    if not found.wide and not (found.step_column and found.value_column):
        raise InputError("shape", f"Say which column holds the step, and which the figure: it has {named(headings)}.")
    return Table(headings[:MOST_COLUMNS], tuple(rows), found)


COLUMN_FIELDS = tuple(name for name in ReadingShape.model_fields if name.endswith("_column"))
# So many headings that are steps, and a file has a column for each.
STEPS_OF_A_WIDE = 2


def recognised(headings: Sequence[str], shape: ReadingShape) -> ReadingShape:
    """How a file lies, with what its headings say where nobody said it."""
    columns, _ = _known()
    filled: dict[str, Any] = {}
    for heading in headings:
        field = columns.get(plainly(heading))
        if field and not getattr(shape, field) and field not in filled:
            filled[field] = heading
    taken = {*filled.values(), *(getattr(shape, field) for field in COLUMN_FIELDS)}
    wide = shape.wide
    if wide is None:
        steps = [one for one in headings if one not in taken - {filled.get("outcome_column")} and step_of(one, shape)]
        has_long = bool(shape.step_column or filled.get("step_column")) and bool(
            shape.value_column or filled.get("value_column")
        )
        wide = not has_long and len(steps) >= STEPS_OF_A_WIDE
    return shape.model_copy(update={**filled, "wide": wide})


def columns_of(text: str) -> tuple[str, ...]:
    """The headings of a file, to map them."""
    return _rows(text, ReadingShape())[0][:MOST_COLUMNS]


def _rows(text: str, shape: ReadingShape) -> tuple[tuple[str, ...], list[dict[str, Any]]]:
    """The headings of a file, and its rows by them."""
    tidy = text.lstrip("\ufeff").strip()
    if tidy.startswith(("[", "{")):
        rows = _json_rows(tidy)
        return (tuple(map(str, rows[0])) if rows else ()), rows
    (headings, *others) = [row for _, row in headed_rows(tidy, MOST_LINES, "text", _heads(shape))] or [{}]
    ruled = [row for row in others if not all(set(cell) <= set("-=:+ ") for cell in row.values())]
    return tuple(headings), ruled


def _heads(shape: ReadingShape) -> Any:
    """Whether some cells are headings: two of them are known, or were said."""
    columns, _ = _known()
    said = {getattr(shape, field) for field in COLUMN_FIELDS} | set(shape.steps)

    def heads(cells: list[str]) -> bool:
        known = [one for one in cells if one and (one in said or plainly(one) in columns or step_of(one, shape))]
        return len(known) >= 2

    return heads


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


def claims_of(table: Table) -> Iterator[Claim]:
    """What a file says, claim by claim: of a wide one each cell that says something is one.

    Raises:
        InputError: it says more than can be taken at once.
    """
    for count, claim in enumerate(_claims(table), 1):
        if count > MOST_LINES:
            raise InputError("text", f"The file holds more than {MOST_LINES} readings; take it in parts.")
        yield claim


def _claims(table: Table) -> Iterator[Claim]:
    shape = table.shape
    for number, row in enumerate(table.rows, 1):
        cells = {name: _cell(row.get(getattr(shape, f"{name}_column"))) for name in CELLS}
        if not shape.wide:
            yield Claim(number, cells)
            continue
        for heading in table.headings:
            value = _cell(row.get(heading))
            is_step = heading not in _facts(shape) and (heading in shape.steps or step_of(heading, shape) is not None)
            if not is_step or value.lower() in NOTHING or shape.steps.get(heading, 0) is None:
                continue
            line = line_in(heading)[1] or cells["line"]
            of_cell = {"step": heading, "value": value, "unit": unit_in(heading), "outcome": "", "line": line}
            yield Claim(number, cells | of_cell, heading)


def unused_of(table: Table) -> tuple[str, ...]:
    """The columns that hold neither a fact nor a step, and that nobody said to leave out."""
    facts, shape = _facts(table.shape), table.shape
    read = [one for one in table.headings if one in facts or one in shape.steps or (shape.wide and step_of(one, shape))]
    return tuple(one for one in table.headings if one not in read)


def _facts(shape: ReadingShape) -> set[str]:
    """The columns that hold no reading; one that could be both is a step where it was mapped."""
    return {getattr(shape, field) for field in COLUMN_FIELDS if field != "outcome_column"} - set(shape.steps)


def _cell(value: object) -> str:
    """A cell in words: nothing is nothing, nought is a figure."""
    return "" if value is None else str(value).strip()[:LONGEST]
