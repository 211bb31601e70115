"""The price list: what an item of material costs and how long it takes to work, one line for each item.

The lines that ship are invented and marked so; they are the user's own to change. Out and in as CSV.
"""

from __future__ import annotations

import csv
import re
from functools import cache
from io import StringIO
from typing import Annotated

from pydantic import Field, ValidationError

from fulmen.core.errors import InputError
from fulmen.core.file_rows import headed_rows
from fulmen.core.materials.cells import cell, text_of
from fulmen.core.model.base import Part, Text, number
from fulmen.core.reference.cable_catalogue import cable_records
from fulmen.core.reference.tables import read_toml

COLUMNS = ("key", "name", "unit", "price", "work_min", "invented")
MOST_LINES, MOST_LENGTH = 1000, 200_000
FIGURE = re.compile(r"-?[0-9]{1,12}([.,][0-9]{1,12})?")


class PriceLine(Part):
    """One item: its price and its working time for one unit of it. The currency is the user's own."""

    key: Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9.-]{0,59}$")]
    name: Annotated[Text, Field(min_length=1, max_length=120)]
    unit: Annotated[Text, Field(min_length=1, max_length=12)]
    price: Annotated[float, number(0, 100_000)]
    work_min: Annotated[float, number(0, 10_000)]
    invented: bool = False


class PriceList(Part):
    """Every price line, in the order of the list."""

    lines: tuple[PriceLine, ...] = Field(max_length=MOST_LINES)


@cache
def invented_prices() -> PriceList:
    """The list that ships: every cable by record and size, then the other items; all invented."""
    raw = read_toml(__package__, "prices")
    lines = [
        PriceLine(
            key=cable_key(record.id, size), name=f"{size:g} mm² {record.name}", unit="m",
            price=round(price.first + price.per_mm2 * size, 2), work_min=float(price.work_min), invented=True,
        )
        for record in cable_records().values()
        if (price := record.invented_price) is not None
        for size in record.sizes_mm2
    ]  # fmt: skip
    lines += [PriceLine(key=key, invented=True, **entry) for key, entry in raw["item"].items()]
    return PriceList(lines=tuple(lines))


@cache
def shipped_items() -> dict[str, tuple[str, str]]:
    """Name and unit of every item that ships, by its key."""
    return {line.key: (line.name, line.unit) for line in invented_prices().lines}


def cable_key(record: str, csa_mm2: float) -> str:
    """The price list's key of a cable.

    >>> cable_key("swa-3-core", 6.0)
    'cable.swa-3-core.6'
    """
    return f"cable.{record}.{csa_mm2:g}"


def prices_csv(prices: PriceList) -> str:
    """The list as CSV, one line an item, under the names of its columns."""
    out = StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for line in prices.lines:
        writer.writerow([line.key, cell(line.name), cell(line.unit), f"{line.price:g}", f"{line.work_min:g}",
                         "yes" if line.invented else "no"])  # fmt: skip
    return out.getvalue()


def read_prices_csv(text: str) -> PriceList:
    """The list that a CSV holds; its columns may stand in any order.

    Raises:
        InputError: the text is too long, lacks a column, or a line can't be taken; it says which and why.
    """
    if len(text) > MOST_LENGTH:
        raise InputError("prices", f"The list is longer than {MOST_LENGTH} characters.")
    rows = headed_rows(text, MOST_LINES, "prices")
    _, headings = next(rows, (1, {}))
    missing = [name for name in COLUMNS[:5] if name not in headings]
    if missing:
        raise InputError("prices", f"The first line must name the columns; missing: {', '.join(missing)}.")
    lines, seen = [], set()
    for number_, row in rows:
        line = _line(row, number_)
        if line.key in seen:
            raise InputError("prices", f"Line {number_}: “{line.key}” stands there twice.")
        seen.add(line.key)
        lines.append(line)
    if not lines or len(lines) > MOST_LINES:
        raise InputError("prices", f"The list must hold 1 to {MOST_LINES} items; it holds {len(lines)}.")
    return PriceList(lines=tuple(lines))


def _line(row: dict[str, str], number_: int) -> PriceLine:
    figures = {name: _figure(row[name], name, number_) for name in ("price", "work_min")}
    invented = row.get("invented", "").lower() in ("yes", "true", "1")
    try:
        words = {name: text_of(row[name]) for name in ("key", "name", "unit")}
        return PriceLine(**words, **figures, invented=invented)
    except ValidationError as error:
        first = error.errors()[0]
        raise InputError("prices", f"Line {number_}, {first['loc'][0]}: {first['msg']}.") from None


def _figure(text: str, name: str, number_: int) -> float:
    if not FIGURE.fullmatch(text):
        raise InputError("prices", f"Line {number_}, {name}: “{text[:20]}” is no number.")
    return float(text.replace(",", "."))
