"""Half-hourly energy from a meter: reading a CSV file line by line, its peak, and how long it stays near it.

How the file lies is guessed (`meter_columns`) or told. Every line that can't be taken is told by its number. On the day
when clocks go back two half hours have the same local time, on the day when they go forward two are not there.
"""

from __future__ import annotations

from calendar import SUNDAY, monthrange
from collections.abc import Iterator
from datetime import UTC, date, datetime, timedelta
from itertools import islice
from typing import NamedTuple

from fulmen.core.demand.meter_columns import FIGURE, SAMPLE, MeterShape, guess_shape, read_time
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.file_rows import MOST_LINE, cells_of, lines_of
from fulmen.core.model.load import HalfHours

MAX_LINES = 60_000
MAX_TOLD = 20
MOST_KWH = 50.0
HALF_HOUR = timedelta(minutes=30)
# From this share of the peak on the supply carries nearly as much: common practice, no source.
NEAR_PEAK_SHARE = 0.8
MARCH, OCTOBER = 3, 10
CHANGING_HOUR = 1


class Entry(NamedTuple):
    """One half hour: when it stands in the order of time, as its clock says, and its energy [kWh]."""

    order: datetime
    start: datetime
    kwh: float


def read_half_hours(text: str, shape: MeterShape | None = None) -> tuple[HalfHours, MeterShape]:
    """The peak of a file of half-hourly energy, how long it stays near it, and how many half hours are missing.

    Args:
        text: the file; at most 60 000 lines, half hours of up to 50 kWh each.
        shape: how it lies; guessed where it is not told.

    Returns:
        what it comes to, and the shape that it was read by.

    Raises:
        JobFileError: a problem for each line that can't be taken, field ``line N``; past twenty they are counted.
    """
    taken_by = shape or guess_shape(first_lines(text, SAMPLE))
    entries: list[Entry] = []
    problems: list[InputError] = []
    taken: dict[datetime, int] = {}
    heading, unfit = taken_by.heading, 0
    try:
        for number, line in lines_of(text, MAX_LINES, "file"):
            if not line.strip():
                continue
            try:
                if heading:
                    # It is shown, so that columns can be chosen by it.
                    cells_of(line, taken_by.separator)
                    heading = False
                    continue
                for start, kwh in _line(line, taken_by):
                    entries.append(_entry(start, kwh, taken))
                    taken[entries[-1].order] = number
            except ValueError as error:
                unfit += 1
                if unfit <= MAX_TOLD:
                    problems.append(InputError(f"line {number}", f"Line {number}: {error}."))
    except InputError as error:
        raise JobFileError([error]) from None
    if problems:
        more = unfit - MAX_TOLD
        rest = [InputError("file", f"{more} more lines can't be taken.")] if more > 0 else []
        raise JobFileError(problems + rest)
    if not entries:
        raise JobFileError([InputError("file", "The file holds no half hour.")])
    return _summary(entries), taken_by


def first_lines(text: str, most: int) -> list[str]:
    """The first lines of a file that hold something; a longer one of them is cut short where it can't be taken."""
    found = (line[: MOST_LINE + 1] for _, line in lines_of(text, MAX_LINES, "file") if line.strip())
    return list(islice(found, most))


def _entry(start: datetime, kwh: float, taken: dict[datetime, int]) -> Entry:
    """A half hour in its place; one that is there already is refused, but where clocks went back and it comes twice."""
    shown = start.replace(tzinfo=None)
    order = start.astimezone(UTC).replace(tzinfo=None) if start.tzinfo is not None else start
    if order in taken and start.tzinfo is None and _comes_twice(start) and _again(order) not in taken:
        order = _again(order)
    if order in taken:
        raise ValueError(f"the half hour {shown:%Y-%m-%d %H:%M} is in line {taken[order]} already")
    return Entry(order, shown, kwh)


def _again(order: datetime) -> datetime:
    """Where the second of two equal local times stands: between the half hours around it."""
    return order + timedelta(microseconds=1)


def _comes_twice(start: datetime) -> bool:
    return start.date() == last_sunday(start.year, OCTOBER) and start.hour == CHANGING_HOUR


def last_sunday(year: int, month: int) -> date:
    """The day on which clocks change.

    >>> last_sunday(2026, 10), last_sunday(2026, 3)
    (datetime.date(2026, 10, 25), datetime.date(2026, 3, 29))
    """
    last = date(year, month, monthrange(year, month)[1])
    return last - timedelta(days=(last.weekday() - SUNDAY) % 7)


def _line(line: str, shape: MeterShape) -> Iterator[tuple[datetime, float]]:
    """The half hours of one line: one, or those of a day."""
    cells = cells_of(line, shape.separator)
    if shape.layout == "day":
        yield from _day(cells, shape)
        return
    wanted = max(shape.time_column, shape.energy_column, shape.clock_column or 0)
    if len(cells) <= wanted:
        raise ValueError(f"must hold {wanted + 1} columns, with start and energy; it holds {len(cells)}")
    clock = "" if shape.clock_column is None else cells[shape.clock_column]
    start = read_time(cells[shape.time_column], clock, day_first=shape.day_first)
    shown = f"{cells[shape.time_column]} {clock}".strip()[:30]
    if start is None or FIGURE.match(cells[shape.time_column]):
        raise ValueError(f"{shown!r} is no time such as 2026-01-14 17:30")
    if start.minute not in (0, 30) or start.second or start.microsecond:
        raise ValueError(f"{shown!r} is no start of a half hour")
    yield start, _kwh(cells[shape.energy_column], shape)


def _day(cells: list[str], shape: MeterShape) -> Iterator[tuple[datetime, float]]:
    """A day's half hours side by side: 48, or 46 and 50 on the days when clocks change."""
    if len(cells) <= shape.time_column:
        raise ValueError(f"must hold the day in column {shape.time_column + 1}; it holds {len(cells)} columns")
    day = read_time(cells[shape.time_column], "00:00", day_first=shape.day_first)
    if day is None:
        raise ValueError(f"{cells[shape.time_column][:30]!r} is no day such as 14/01/2026")
    figures = [cell for cell in cells[shape.energy_column :] if cell]
    starts = list(_half_hours_of(day.replace(tzinfo=None)))
    # Many meters print forty-eight columns on every day.
    if len(figures) != len(starts):
        starts = [day.replace(tzinfo=None) + HALF_HOUR * place for place in range(48)]
    if len(figures) != len(starts):
        raise ValueError(f"a day holds 48 half hours, 46 or 50 when clocks change; it holds {len(figures)}")
    for start, cell in zip(starts, figures, strict=True):
        yield start, _kwh(cell, shape)


def _half_hours_of(day: datetime) -> Iterator[datetime]:
    for place in range(48):
        start = day + HALF_HOUR * place
        forward = day.date() == last_sunday(day.year, MARCH) and start.hour == CHANGING_HOUR
        if not forward:
            yield start
        if _comes_twice(start) and start.minute == 30:
            yield from (start - HALF_HOUR, start)


def _kwh(cell: str, shape: MeterShape) -> float:
    if not FIGURE.match(cell):
        raise ValueError(f"{cell[:30]!r} is no energy in {shape.unit}")
    kwh = float(cell.replace(",", ".")) / (1000 if shape.unit == "Wh" else 1)
    if not 0 <= kwh <= MOST_KWH:
        raise ValueError(f"energy must be from 0 to {MOST_KWH:g} kWh; it is {kwh:g}")
    return kwh


def _summary(entries: list[Entry]) -> HalfHours:
    entries.sort()
    first, last = entries[0], entries[-1]
    peak = max(entries, key=lambda entry: entry.kwh)
    expected = (last.order - first.order) // HALF_HOUR + 1
    starts = {entry.order for entry in entries}
    twice = sum(_again(entry.start) == entry.order for entry in entries)
    return HalfHours(
        peak_kwh=round(peak.kwh, 6),
        peak_at=peak.start,
        first_at=first.start,
        last_at=last.start,
        entries=len(entries),
        missing=max(0, expected + twice - _skipped(first.order, last.order, starts) - len(entries)),
        near_peak_hours=_near(entries, peak.kwh) / 2,
    )


def _skipped(first: datetime, last: datetime, starts: set[datetime]) -> int:
    """Half hours that no clock showed between two times: those of the days when clocks went forward."""
    found = 0
    for year in range(first.year, last.year + 1):
        day = last_sunday(year, MARCH)
        gone = [datetime(day.year, day.month, day.day, CHANGING_HOUR, minute) for minute in (0, 30)]
        found += sum(first < one < last and one not in starts for one in gone)
    return found


def _near(entries: list[Entry], peak_kwh: float) -> int:
    """The most half hours in a row that reach most of the peak."""
    longest = run = 0
    before: Entry | None = None
    for entry in entries:
        in_a_row = before is not None and entry.order - before.order <= HALF_HOUR
        near = entry.kwh >= NEAR_PEAK_SHARE * peak_kwh
        run = (run + 1 if in_a_row else 1) if near else 0
        longest, before = max(longest, run), entry
    return longest


def half_hour_a(kwh: float, u0_v: float) -> float:
    """Mean current over a half hour, I = W/(0.5 h·U0), at unity power factor.

    Args:
        kwh: energy of the half hour [kWh], 0 to 50.
        u0_v: nominal voltage [V].

    Returns:
        current [A]; a short peak inside the half hour is higher.

    >>> round(half_hour_a(5.75, 230), 1)
    50.0
    """
    return kwh * 1000 / 0.5 / u0_v
