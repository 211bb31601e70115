"""Rows of files as other programs write them, read one after another within bounds: no file keeps anybody waiting.

Lines, columns and cells each have an end. What lies beyond is told by its line and never read: a flood of commas costs
no more than a glance.
"""

from __future__ import annotations

import csv
from collections.abc import Callable, Iterable, Iterator
from io import StringIO
from itertools import chain, dropwhile, islice

from fulmen.core.errors import InputError
from fulmen.core.model.base import UNSHOWABLE

MOST_LINE, MOST_COLUMNS, MOST_CELL = 20_000, 120, 2_000
SEPARATORS = (";", "\t", "|", ",")
# How many headings a message names.
NAMED = 12


def lines_of(text: str, most: int, field: str) -> Iterator[tuple[int, str]]:
    """The lines of a text with their numbers, counted from 1, without a byte order mark or their ends.

    Args:
        text: the file.
        most: how many it may have.
        field: the field of the file, for what is told.

    Raises:
        InputError: it has more.

    >>> list(lines_of("start,kWh\\r\\n1,2", 5, "text"))
    [(1, 'start,kWh'), (2, '1,2')]
    """
    for number, line in enumerate(StringIO(text.removeprefix("\ufeff"), newline=None), 1):
        if number > most:
            raise InputError(field, f"The file has more than {most} lines; at most {most} can be taken.")
        yield number, line.rstrip("\n")


def cells_of(line: str, separator: str) -> list[str]:
    """The cells of one line, without the space around them.

    Raises:
        ValueError: it is too long, has too many columns or too long a cell, or holds what can't be shown.

    >>> cells_of('a; "b;c" ;', ";")
    ['a', 'b;c', '']
    """
    check_line(line, separator)
    return _checked(next(csv.reader([line], delimiter=separator, skipinitialspace=True), []))


def check_line(line: str, separator: str) -> None:
    """Refuse a line before it is taken apart.

    Raises:
        ValueError: it is too long, or its separators make too many columns.
    """
    if len(line) > MOST_LINE:
        raise ValueError(f"it is {len(line)} characters long; at most {MOST_LINE} can be taken")
    if line.count(separator) >= MOST_COLUMNS:
        raise ValueError(f"it has {line.count(separator) + 1} columns; at most {MOST_COLUMNS} can be taken")


def _checked(cells: list[str]) -> list[str]:
    for place, cell in enumerate(cells, 1):
        if len(cell) > MOST_CELL:
            raise ValueError(f"column {place} is {len(cell)} characters long; at most {MOST_CELL} can be taken")
        if found := UNSHOWABLE.search(cell):
            raise ValueError(f"column {place} holds U+{ord(found[0]):04X}, which can't be shown")
    return [cell.strip() for cell in cells]


def separator_of(line: str) -> str:
    """What parts a line: the mark that it holds most of, a comma where none does.

    >>> separator_of("step;value,5;unit"), separator_of("step")
    (';', ',')
    """
    return max(reversed(SEPARATORS), key=line.count)


def headed_rows(
    text: str, most: int, field: str, heads: Callable[[list[str]], bool] | None = None
) -> Iterator[tuple[int, dict[str, str]]]:
    """The rows below a line of headings, each by its headings and with the number of its line.

    A cell in quotes may run over lines. Empty rows are left out, cells beyond the headings too; one that is not there
    is empty. The row of the headings themselves comes first, each under its own name.

    Args:
        text: the file.
        most: how many rows it may have below its headings.
        field: the field of the file, for what is told.
        heads: whether some cells are the headings; lines of a title before those are left out. The first line, where
            not given or where none of the first lines is.

    Raises:
        InputError: it has more, or a line can't be taken; it says which and why.
    """
    every = dropwhile(lambda one: not one[1].strip(), lines_of(text, most * LINES_A_ROW, field))
    lines = _past_titles(every, heads) if heads is not None else every
    first = next(lines, (1, ""))
    separator = separator_of(first[1])
    reader = csv.reader(_fit(chain([first], lines), separator, field), delimiter=separator, skipinitialspace=True)
    headings: list[str] = []
    count = 0
    try:
        for cells in reader:
            row, number = _checked(cells), first[0] + reader.line_num - 1
            if headings and any(row):
                count += 1
            if count > most:
                raise InputError(field, f"The file has more than {most} rows; at most {most} can be taken at once.")
            if any(row):
                headings = headings or _each_its_own(row)
                yield (
                    number,
                    {name: row[place] if place < len(row) else "" for place, name in enumerate(headings) if name},
                )
    except ValueError as error:
        raise InputError(field, f"Line {first[0] + reader.line_num - 1} can't be taken: {error}.") from None
    except csv.Error:
        raise InputError(field, "A quote is opened in the file and never closed.") from None


# How many lines of a title may stand before the headings.
MOST_TITLES = 30


def _past_titles(lines: Iterator[tuple[int, str]], heads: Callable[[list[str]], bool]) -> Iterator[tuple[int, str]]:
    """The lines from the headings on."""
    first = list(islice(lines, MOST_TITLES))
    for place, (_, line) in enumerate(first):
        try:
            found = heads(cells_of(line, separator_of(line)))
        except ValueError:
            # What can't be taken apart is told when its turn comes.
            continue
        if found:
            return chain(first[place:], lines)
    return chain(first, lines)


def _each_its_own(headings: list[str]) -> list[str]:
    """Headings of which none stands twice: nobody could say which of two columns is meant."""
    twice = next((name for place, name in enumerate(headings) if name and name in headings[:place]), None)
    if twice is not None:
        raise ValueError(f"the heading “{twice[:40]}” stands there twice")
    return headings


# A cell in quotes may run over lines; a file of rows that all do is none.
LINES_A_ROW = 4


def _fit(lines: Iterable[tuple[int, str]], separator: str, field: str) -> Iterator[str]:
    """The lines, each within bounds before anybody takes it apart."""
    for number, line in lines:
        try:
            check_line(line, separator)
        except ValueError as error:
            raise InputError(field, f"Line {number} can't be taken: {error}.") from None
        yield f"{line}\n"


def named(headings: Iterable[str]) -> str:
    """Some headings in words, not all of a flood."""
    all_of_them = [str(one)[:40] for one in headings]
    more = len(all_of_them) - NAMED
    return ", ".join(all_of_them[:NAMED]) + (f" and {more} more" if more > 0 else "")
