"""How a meter's export lies: separator, heading, which column holds the time and which the energy; guessed, then told.

A row may be a half hour, or a day with its half hours side by side. A guess may be put right: reading takes a shape.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from datetime import date, datetime, time
from typing import Annotated, Literal

from pydantic import Field

from fulmen.core.file_rows import MOST_LINE, SEPARATORS, cells_of
from fulmen.core.model.base import FIRST_YEAR, LAST_YEAR, Part, Text, shown

SAMPLE = 60
DAY_COLUMNS = (46, 48, 50)
ENERGY_WORDS = ("kwh", "consumption", "usage", "import", "energy", "wh")
OTHER_WORDS = ("export", "cost", "price", "rate", "mpan", "temperature", "estimated")
PARTED = re.compile(r"^([0-9]{1,2})[/.\-]([0-9]{1,2})[/.\-]([0-9]{4})(?:[ T,]+([0-9]{1,2}:[0-9]{2}(?::[0-9]{2})?))?$")
CLOCK = re.compile(r"^([0-9]{1,2}):([0-9]{2})(?::([0-9]{2}))?$")
FIGURE = re.compile(r"^-?[0-9]{1,12}([.,][0-9]{1,12})?$")

Column = Annotated[int, Field(strict=True, ge=0, le=80)]


class MeterShape(Part):
    """Which columns a file is read by, counted from 0. `clock_column` is null where date and time share a column.

    In the layout `day` a row is a day, and its half hours stand from `energy_column` on.
    """

    separator: Literal[",", ";", "\t"] = ","
    heading: bool = False
    layout: Literal["row", "day"] = "row"
    time_column: Column = 0
    clock_column: Column | None = None
    energy_column: Column = 1
    day_first: bool = True
    unit: Literal["kWh", "Wh"] = "kWh"


# How much of a file's first line tells it apart, and how many shapes are remembered.
HEADING, MOST_SHAPES = 200, 100


class RememberedShape(Part):
    """The shape that was put right for files with one heading."""

    heading: Annotated[Text, Field(max_length=HEADING)]
    shape: MeterShape


class MeterShapes(Part):
    """The shapes of meter files that were put right by hand, the newest last."""

    shapes: Annotated[tuple[RememberedShape, ...], Field(max_length=MOST_SHAPES)] = ()

    def of(self, text: str) -> MeterShape | None:
        """The shape remembered for a file; None where none is."""
        return next((one.shape for one in self.shapes if one.heading == heading_of(text)), None)

    def remembering(self, text: str, shape: MeterShape) -> MeterShapes:
        """The same with one file's shape put in; the oldest is forgotten where there are too many."""
        others = tuple(one for one in self.shapes if one.heading != heading_of(text))
        new = RememberedShape(heading=heading_of(text), shape=shape)
        return MeterShapes(shapes=(*others, new)[-MOST_SHAPES:])


def heading_of(text: str) -> str:
    """What tells a meter's files apart: their first line, with a mark for what can't be shown."""
    return shown(text.removeprefix("\ufeff")[:MOST_LINE].split("\n", 1)[0].strip())[:HEADING]


def guess_shape(lines: Sequence[str]) -> MeterShape:
    """The shape that the first lines of a file speak for; where nothing tells, two columns, start and kWh."""
    sample = [line for line in lines if line.strip()][:SAMPLE]
    if not sample:
        return MeterShape()
    separator = next((mark for mark in SEPARATORS if mark in sample[-1]), ",")
    rows = [cells for line in sample if (cells := _cells(line, separator))]
    if not rows:
        return MeterShape(separator=separator)
    day_first = not any(_month_first(cell) for row in rows for cell in row)
    lettered = any(cell[:1].isalpha() for cell in rows[0])
    heading = lettered and not _holds_time(rows[0], day_first=day_first)
    names = [cell.lower() for cell in rows[0]] if heading else []
    body = (rows[1:] if heading else rows) or rows
    width = max(len(row) for row in body)
    columns = [[row[place] for row in body if place < len(row)] for place in range(width)]
    times = [place for place, cells in enumerate(columns) if _mostly(cells, lambda cell: _full(cell, day_first))]
    dates = [place for place, cells in enumerate(columns) if _mostly(cells, lambda cell: _date(cell, day_first))]
    clocks = [place for place, cells in enumerate(columns) if _mostly(cells, CLOCK.match)]
    figures = [place for place, cells in enumerate(columns) if _mostly(cells, FIGURE.match)]
    common = {"separator": separator, "heading": heading, "day_first": day_first}
    if dates and not times and len(figures) >= min(DAY_COLUMNS):
        first = next((place for place in figures if place > dates[0]), figures[0])
        unit = _unit(names[first] if first < len(names) else "", columns[first])
        return MeterShape(layout="day", time_column=dates[0], energy_column=first, unit=unit, **common)
    when = _named(times, names, ("start", "from", "begin")) or times[:1] or dates[:1] or [0]
    clock = None if times or not clocks else (_named(clocks, names, ("start", "from", "begin")) or clocks)[0]
    energy = _energy(figures, names, columns, default=1 if when[0] != 1 else 0)
    unit = _unit(names[energy] if energy < len(names) else "", columns[energy] if energy < width else [])
    return MeterShape(time_column=when[0], clock_column=clock, energy_column=energy, unit=unit, **common)


def _cells(line: str, separator: str) -> list[str]:
    """The cells of a line of the sample; none where it can't be taken, which is told when it is read."""
    try:
        return cells_of(line, separator)
    except ValueError:
        return []


def _mostly(cells: list[str], holds: object) -> bool:
    return bool(cells) and callable(holds) and sum(bool(holds(cell)) for cell in cells) > len(cells) / 2


def _named(places: list[int], names: list[str], words: tuple[str, ...]) -> list[int]:
    return [place for place in places if place < len(names) and any(word in names[place] for word in words)]


def _energy(figures: list[int], names: list[str], columns: list[list[str]], *, default: int) -> int:
    """The column of energy: by its heading, else the only one of figures, else the one whose figures change most."""
    wrong = set(_named(figures, names, OTHER_WORDS))
    fit = [place for place in figures if place not in wrong]
    named = _named(fit, names, ENERGY_WORDS)
    if named or len(fit) == 1:
        return (named or fit)[0]
    return max(fit, key=lambda place: len(set(columns[place]))) if fit else default


def _unit(name: str, cells: list[str]) -> Literal["kWh", "Wh"]:
    """Watt-hours where the heading says so, or where half of the figures could be no half hour's kilowatt-hours."""
    if "kwh" in name:
        return "kWh"
    if "wh" in name:
        return "Wh"
    values = sorted(float(cell.replace(",", ".")) for cell in cells if FIGURE.match(cell))
    return "Wh" if values and values[len(values) // 2] > 50 else "kWh"


def _holds_time(row: list[str], *, day_first: bool) -> bool:
    return any(_full(cell, day_first) or _date(cell, day_first) for cell in row)


def _month_first(cell: str) -> bool:
    parted = PARTED.match(cell)
    return parted is not None and int(parted[2]) > 12 >= int(parted[1])


def _full(cell: str, day_first: bool) -> datetime | None:  # noqa: FBT001
    found = read_time(cell, "", day_first=day_first)
    return found if found is not None and (":" in cell) else None


def _date(cell: str, day_first: bool) -> datetime | None:  # noqa: FBT001
    return read_time(cell, "00:00", day_first=day_first) if ":" not in cell and not FIGURE.match(cell) else None


def read_time(cell: str, clock: str, *, day_first: bool) -> datetime | None:
    """A time as meters write it: ISO, with an offset or none, or day/month/year; None where it is none of our time.

    Args:
        cell: date, or date and time.
        clock: the time where it stands in a column of its own, else empty.
        day_first: how 03/04/2026 is read.

    >>> read_time("14/01/2026 17:30", "", day_first=True), read_time("1/14/2026", "7:00", day_first=False)
    (datetime.datetime(2026, 1, 14, 17, 30), datetime.datetime(2026, 1, 14, 7, 0))
    """
    parted = PARTED.match(cell)
    try:
        if parted is None:
            found = datetime.fromisoformat(cell)
        else:
            day, month = (parted[1], parted[2]) if day_first else (parted[2], parted[1])
            found = datetime.combine(date(int(parted[3]), int(month), int(day)), _clock(parted[4] or ""))
        found = datetime.combine(found.date(), _clock(clock), found.tzinfo) if clock else found
        # At the calendar's ends there is no half hour before or after.
        return found if FIRST_YEAR <= found.year <= LAST_YEAR else None
    except ValueError:
        return None


def _clock(text: str) -> time:
    if not text:
        return time()
    found = CLOCK.match(text)
    if found is None:
        raise ValueError(text)
    return time(int(found[1]), int(found[2]), int(found[3] or 0))
