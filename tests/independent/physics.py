"""Copper, steel and contacts as they are, from physics and published limits; nothing here is the product's.

Resistances: BS EN 60228 gives the most per metre at 20 °C (class 2 and class 5, from memory); what is drawn has a few
per cent less. Copper rises by 0.393 %/K, steel by 0.45 %/K. Armour: one layer of round steel wires of 0.138 Ω·mm²/m, its
area by size as in the tables of BS 5467 (from memory, rounded). Poles of breakers: IEC 60898-1, watts at rated current.
"""

from __future__ import annotations

from collections.abc import Iterable
from math import inf

import numpy

SOLID = {1.0: 18.1, 1.5: 12.1, 2.5: 7.41, 4.0: 4.61, 6.0: 3.08, 10.0: 1.83, 16.0: 1.15, 25.0: 0.727, 35.0: 0.524}
FINE = {1.5: 13.3, 2.5: 7.98, 4.0: 4.95, 6.0: 3.30, 10.0: 1.91, 16.0: 1.21}
# The earth inside flat twin-and-earth is a size smaller.
FLAT_EARTH = {1.0: 1.0, 1.5: 1.0, 2.5: 1.5, 4.0: 1.5, 6.0: 2.5, 10.0: 4.0, 16.0: 6.0}
ARMOUR_MM2 = {
    3: {1.5: 16, 2.5: 19, 4.0: 20, 6.0: 23, 10.0: 39, 16.0: 44, 25.0: 62},
    4: {1.5: 17, 2.5: 20, 4.0: 22, 6.0: 36, 10.0: 42, 16.0: 49, 25.0: 70},
    5: {1.5: 19, 2.5: 22, 4.0: 34, 6.0: 40, 10.0: 46, 16.0: 72, 25.0: 79},
}
STEEL = 0.138
POLE_W = ((10, 3.0), (16, 3.5), (25, 4.5), (32, 6.0), (40, 7.5), (50, 9.0), (63, 13.0), (100, 15.0), (125, 20.0))

Edge = tuple[str, str, float]


def copper(mohm_per_m: float, length_m: float, at_c: float) -> float:
    """A copper conductor at a temperature [Ω]."""
    return mohm_per_m * length_m / 1000 * (1 + 0.00393 * (at_c - 20))


def steel(area_mm2: float, length_m: float, at_c: float) -> float:
    """The wires of an armour at a temperature, laid up [Ω]."""
    return STEEL * 1.03 * length_m / area_mm2 * (1 + 0.0045 * (at_c - 20))


def pole_ohm(rating_a: float) -> float:
    """The most that a breaker's pole can have."""
    return next(watts for up_to, watts in POLE_W if rating_a <= up_to) / rating_a**2


def between(edges: Iterable[Edge], a: str, b: str) -> float:
    """What an ohmmeter reads from a to b: nodal analysis by numpy."""
    edges = [one for one in edges if one[0] != one[1]]
    reached, grown = {a}, True
    while grown:
        grown = False
        for one, other, _ in edges:
            if (one in reached) != (other in reached):
                reached |= {one, other}
                grown = True
    if b not in reached:
        return inf
    if a == b:
        return 0.0
    nodes = sorted(reached - {b})
    at = {node: place for place, node in enumerate(nodes)}
    siemens = numpy.zeros((len(nodes), len(nodes)))
    for one, other, ohm in edges:
        if one not in reached:
            continue
        for node, across in ((one, other), (other, one)):
            if node in at:
                siemens[at[node], at[node]] += 1 / ohm
                if across in at:
                    siemens[at[node], at[across]] -= 1 / ohm
    amps = numpy.zeros(len(nodes))
    amps[at[a]] = 1.0
    return float(numpy.linalg.solve(siemens, amps)[at[a]])
