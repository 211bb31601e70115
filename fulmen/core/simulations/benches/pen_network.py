"""A street's low-voltage network with its PEN whole or broken, solved by node admittances (nodal analysis, Millman).

Star point, main and services are resistances; every load is a resistance R = U0/I between its line and the house's
main earthing terminal, every electrode a resistance to true earth. Line conductors are stiff: their drop is small
beside what a broken PEN does, and leaving it out raises the figures. Inductance is left out for the same reason.
"""

from __future__ import annotations

from cmath import exp, pi
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from fulmen.core.model.base import ElectrodeOhm, LoadA, Part, number

Break = Literal["nowhere", "service", "main"]
LoadsA = tuple[LoadA, LoadA, LoadA]
MOST_HOUSES = 13
# A star point without any path to true earth has no voltage to it; so little conductance decides nothing else.
LEAST_SIEMENS = 1e-9


class House(Part):
    """One house: what it draws on each phase, and an electrode on its main earthing terminal, if it has one."""

    loads_a: LoadsA
    electrode_ohm: ElectrodeOhm | None = None


class Street(Part):
    """Houses in order from the transformer; `here` is this house, `broken_before` the first one past a broken main."""

    houses: Annotated[tuple[House, ...], Field(min_length=1, max_length=MOST_HOUSES)]
    here: Annotated[int, Field(strict=True, ge=0, le=MOST_HOUSES - 1)] = 0
    broken: Break = "nowhere"
    broken_before: Annotated[int, Field(strict=True, ge=0, le=MOST_HOUSES - 1)] = 0
    star_electrode_ohm: ElectrodeOhm = 1.0
    span_ohm: Annotated[float, number(0.0001, 1)] = 0.01
    service_ohm: Annotated[float, number(0.0001, 1)] = 0.02

    @model_validator(mode="after")
    def houses_are_there(self) -> Self:
        """Both places must be houses of the street."""
        if max(self.here, self.broken_before) >= len(self.houses):
            raise PydanticCustomError("no_house", "names a house that is not in the street")
        return self


class HouseVolts(Part):
    """What a house gets: earth terminal to true earth, line to neutral by phase, current into its electrode."""

    met_v: float
    line_neutral_v: tuple[float, float, float]
    electrode_a: float


def street_volts(street: Street, source_v: float, u0_v: float, body_ohm: float | None = None) -> tuple[HouseVolts, ...]:
    """Voltages of every house, Y·V = I solved for the star point, the main's taps and the earth terminals.

    Args:
        street: houses, break, resistances.
        source_v: line to earth as it stands at the transformer [V]; C·U0 for the worst of the clauses.
        u0_v: nominal voltage to earth [V]: a load of I amperes is a resistance of U0/I, whatever the source.
        body_ohm: a person between this house's earth terminal and true earth [Ω], or None.

    Returns:
        one entry for each house, in the order of the street.
    """
    count = len(street.houses)
    star, taps, terminals = 0, range(1, count + 1), range(count + 1, 2 * count + 1)
    lines = [source_v * exp(-2j * pi * phase / 3) for phase in range(3)]
    admittance = [[0j] * (2 * count + 1) for _ in range(2 * count + 1)]
    current = [0j] * (2 * count + 1)

    def join(a: int, b: int, siemens: float, source_v: complex = 0) -> None:
        """A conductance between two nodes, behind a source that lifts the first one's end."""
        for node, other, sign in ((a, b, -1), (b, a, 1)):
            admittance[node][node] += siemens
            admittance[node][other] -= siemens
            current[node] += sign * siemens * source_v

    admittance[star][star] += 1 / street.star_electrode_ohm
    for place, house in enumerate(street.houses):
        if not (street.broken == "main" and street.broken_before == place):
            join(star if place == 0 else taps[place - 1], taps[place], 1 / street.span_ohm)
        if not (street.broken == "service" and street.here == place):
            join(taps[place], terminals[place], 1 / street.service_ohm)
        for line_v, load_a in zip(lines, house.loads_a, strict=True):
            join(star, terminals[place], load_a / u0_v, line_v)
        admittance[terminals[place]][terminals[place]] += LEAST_SIEMENS + _to_earth(street, place, body_ohm)
    volts = _solved(admittance, current)
    return tuple(
        HouseVolts(
            met_v=abs(volts[terminals[place]]),
            line_neutral_v=_three([abs(volts[star] + line_v - volts[terminals[place]]) for line_v in lines]),
            electrode_a=abs(volts[terminals[place]]) / house.electrode_ohm if house.electrode_ohm else 0.0,
        )
        for place, house in enumerate(street.houses)
    )


def _to_earth(street: Street, place: int, body_ohm: float | None) -> float:
    electrode_ohm = street.houses[place].electrode_ohm
    siemens = 1 / electrode_ohm if electrode_ohm else 0.0
    return siemens + (1 / body_ohm if body_ohm and place == street.here else 0.0)


def _three(values: list[float]) -> tuple[float, float, float]:
    return values[0], values[1], values[2]


def _solved(matrix: list[list[complex]], right: list[complex]) -> list[complex]:
    """Gaussian elimination; the matrix is diagonally dominant, so the order of the nodes serves as it is."""
    size = len(right)
    for pivot in range(size):
        row, value = matrix[pivot], right[pivot]
        for below in range(pivot + 1, size):
            other = matrix[below]
            if other[pivot]:
                factor = other[pivot] / row[pivot]
                matrix[below] = [entry - factor * upper for entry, upper in zip(other, row, strict=True)]
                right[below] -= factor * value
    volts = [0j] * size
    for pivot in range(size - 1, -1, -1):
        row = matrix[pivot]
        known = sum(row[node] * volts[node] for node in range(pivot + 1, size))
        volts[pivot] = (right[pivot] - known) / row[pivot]
    return volts
