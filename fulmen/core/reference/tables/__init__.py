"""Published tables: TOML files beside this module, each with its provenance.

No table loads without title, publication, number, unit, the "from memory" mark and how it was checked.
Rows are looked up exactly, or at the next row on the safe side, which the caller states in its working.
Nothing is ever extrapolated: past the last row `TableError` is raised.
"""

from __future__ import annotations

import tomllib
from bisect import bisect_left
from dataclasses import dataclass, field
from functools import cache
from importlib.resources import files
from typing import Any

from fulmen.core.errors import TableError
from fulmen.core.units import unit_of

PROVENANCE = ("title", "publication", "number", "unit", "from_memory", "how_checked", "row_name")


@dataclass(frozen=True)
class Table:
    """One published table: named columns over a shared, rising list of rows."""

    key: str
    title: str
    publication: str
    number: str
    unit: str
    from_memory: bool
    how_checked: str
    row_name: str
    rows: tuple[float, ...]
    columns: dict[str, tuple[float | None, ...]]
    _cells: dict[tuple[str, float], float | None] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        cells = {
            (name, row): cell
            for name, column in self.columns.items()
            for row, cell in zip(self.rows, column, strict=True)
        }
        object.__setattr__(self, "_cells", cells)

    def has(self, column: str, row: float) -> bool:
        """Whether the table prints a figure for exactly this column and row."""
        return self._cell(column, row) is not None

    def at(self, column: str, row: float) -> float:
        """The printed figure at exactly this row.

        Raises:
            TableError: the table has no such column or row.

        >>> table("conductor_resistance").at("mohm_per_m", 6.0)
        3.08
        """
        value = self._cell(column, row)
        if value is None:
            raise TableError(f"{self.source(column, row)}, holds no figure")
        return value

    def at_or_above(self, column: str, row: float) -> tuple[float, float]:
        """The figure of the first row that is not below `row`, and that row.

        Used where the larger row is the safe side (a hotter place, a bigger group); below the first
        row the first row serves.

        >>> table("ca_air").at_or_above("pvc_70", 33)
        (0.94, 35.0)
        """
        index = bisect_left(self.rows, row)
        if index == len(self.rows):
            raise TableError(f"{self.name()}: {self._row(row)} is past its last row, {self._row(self.rows[-1])}")
        return self.at(column, self.rows[index]), self.rows[index]

    def name(self) -> str:
        """Publication and number, as a working cites them."""
        return f"{self.publication} {self.number}"

    def source(self, column: str, row: float) -> str:
        """Table, column and row, as a working cites them."""
        return f"{self.name()}, column {column.replace('_', ' ')}, {self._row(row)}"

    def _row(self, row: float) -> str:
        return f"{row:g} {unit_of(self.row_name) or self.row_name.replace('_', ' ')}"

    def _cell(self, column: str, row: float) -> float | None:
        return self._cells.get((column, row))


def read_toml(package: str, key: str) -> dict[str, Any]:
    """A TOML data file that ships inside the core."""
    with files(package).joinpath(f"{key}.toml").open("rb") as source:
        return tomllib.load(source)


def table_keys() -> list[str]:
    """The keys of every table that ships with Fulmen, sorted."""
    names = (entry.name for entry in files(__package__).iterdir())
    return sorted(name.removesuffix(".toml") for name in names if name.endswith(".toml"))


@cache
def table(key: str) -> Table:
    """The table of this key, checked for provenance and shape.

    Raises:
        TableError: a provenance field is missing, rows do not rise, or a column's length differs.
    """
    raw = read_toml(__package__, key)
    missing = [name for name in PROVENANCE if name not in raw]
    if missing:
        raise TableError(f"table {key} lacks {', '.join(missing)}")
    rows = tuple(float(row) for row in raw["rows"])
    if list(rows) != sorted(set(rows)):
        raise TableError(f"table {key}: its rows do not rise")
    columns = {name: tuple(_cell(value) for value in cells) for name, cells in raw["columns"].items()}
    for name, cells in columns.items():
        if len(cells) != len(rows):
            raise TableError(f"table {key}, column {name}: {len(cells)} figures for {len(rows)} rows")
    return Table(key=key, rows=rows, columns=columns, **{name: raw[name] for name in PROVENANCE})


def _cell(value: Any) -> float | None:
    """A dash marks a cell that the publication leaves empty."""
    return None if value == "-" else float(value)
