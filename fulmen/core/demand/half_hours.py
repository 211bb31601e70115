"""Half-hourly energy from a meter: reading a CSV file line by line, and its peak.

Two columns, separated by a comma, a semicolon or a tab: the start of the half hour (`2026-01-14 17:30`, an ISO time)
and the energy in kilowatt-hours. A first line without figures is a heading. Every line that can't be taken is told
by its number.
"""

from __future__ import annotations

import csv
import re
from datetime import datetime, timedelta

from fulmen.core.errors import InputError, JobFileError
from fulmen.core.model.load import HalfHours

MAX_LINES = 60_000
MAX_TOLD = 20
MOST_KWH = 50.0
HALF_HOUR = timedelta(minutes=30)

Entry = tuple[datetime, float]


def read_half_hours(text: str) -> HalfHours:
    """The peak of a file of half-hourly energy, its date, and how many half hours are missing in between.

    Args:
        text: the file; at most 60 000 lines, one half hour of up to 50 kWh each.

    Raises:
        JobFileError: a problem for each line that can't be taken, field ``line N``; past twenty they are counted.
    """
    lines = text.removeprefix("\ufeff").splitlines()
    if len(lines) > MAX_LINES:
        raise JobFileError([InputError("file", f"The file has {len(lines)} lines; at most {MAX_LINES} can be taken.")])
    entries: list[Entry] = []
    problems: list[InputError] = []
    taken: dict[datetime, int] = {}
    for number, line in enumerate(lines, 1):
        if not line.strip() or (number == 1 and not re.search(r"\d", line)):
            continue
        try:
            start, kwh = _entry(line)
            if start in taken:
                raise ValueError(f"the half hour {start:%Y-%m-%d %H:%M} is in line {taken[start]} already")
        except ValueError as error:
            problems.append(InputError(f"line {number}", f"Line {number}: {error}."))
            continue
        taken[start] = number
        entries.append((start, kwh))
    if problems:
        more = len(problems) - MAX_TOLD
        rest = [InputError("file", f"{more} more lines can't be taken.")] if more > 0 else []
        raise JobFileError(problems[:MAX_TOLD] + rest)
    if not entries:
        raise JobFileError([InputError("file", "The file holds no half hour.")])
    return _summary(entries)


def _entry(line: str) -> Entry:
    separator = next((mark for mark in ";\t" if mark in line), ",")
    cells = [cell.strip() for cell in next(csv.reader([line], delimiter=separator))]
    if len(cells) != 2:
        raise ValueError(f"must hold two columns, start and kWh; it holds {len(cells)}")
    try:
        start = datetime.fromisoformat(cells[0]).replace(tzinfo=None)
    except ValueError:
        raise ValueError(f"{cells[0][:30]!r} is no time such as 2026-01-14 17:30") from None
    if start.minute not in (0, 30) or start.second or start.microsecond:
        raise ValueError(f"{cells[0][:30]!r} is no start of a half hour")
    return start, _kwh(cells[1])


def _kwh(cell: str) -> float:
    if not re.fullmatch(r"-?\d+([.,]\d+)?", cell):
        raise ValueError(f"{cell[:30]!r} is no energy in kWh")
    kwh = float(cell.replace(",", "."))
    if not 0 <= kwh <= MOST_KWH:
        raise ValueError(f"energy must be from 0 to {MOST_KWH:g} kWh; it is {kwh:g}")
    return kwh


def _summary(entries: list[Entry]) -> HalfHours:
    entries.sort()
    first, last = entries[0][0], entries[-1][0]
    peak_at, peak_kwh = max(entries, key=lambda entry: entry[1])
    expected = (last - first) // HALF_HOUR + 1
    return HalfHours(
        peak_kwh=peak_kwh,
        peak_at=peak_at,
        first_at=first,
        last_at=last,
        entries=len(entries),
        missing=expected - len(entries),
    )


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
