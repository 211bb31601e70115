"""Resistance and currents between two points of a network of resistances, by node admittances."""

from __future__ import annotations

from collections.abc import Iterable
from math import inf

Edge = tuple[str, str, float]
# A touch of copper on copper: so that two points that are joined are two points still.
JOINED_OHM = 1e-6


def resistance_between(edges: Iterable[Edge], a: str, b: str) -> float:
    """The resistance that an ohmmeter reads between two points: Y·V = I with one ampere in at a and out at b.

    Args:
        edges: pairs of points with the resistance between them [Ω], each above 0.
        a, b: the two points.

    Returns:
        The resistance [Ω]; infinite where nothing leads from one to the other, 0 from a point to itself.

    >>> round(resistance_between([("a", "b", 3.0), ("a", "c", 1.0), ("c", "b", 5.0)], "a", "b"), 9)
    2.0
    """
    if a == b:
        return 0.0
    return _volts(tuple(edges), a, b).get(a, inf)


def currents_between(edges: Iterable[Edge], a: str, b: str) -> list[float]:
    """What part of one ampere that goes in at a and out at b flows in each edge, in the order given [A].

    Above nought it flows from the edge's first point to its second. Nothing flows where nothing leads from a to b.

    >>> [round(one, 3) for one in currents_between([("a", "b", 3.0), ("a", "c", 1.0), ("b", "c", 5.0)], "a", "b")]
    [0.667, 0.333, -0.333]
    """
    edges = tuple(edges)
    volts = _volts(edges, a, b) if a != b else {}
    return [(volts.get(one, 0.0) - volts.get(other, 0.0)) / ohm for one, other, ohm in edges]


def _volts(edges: tuple[Edge, ...], a: str, b: str) -> dict[str, float]:
    """The volts of every point above b with one ampere in at a; none where nothing leads from one to the other."""
    reached = reached_from(edges := tuple(one for one in edges if one[2] < inf), a)
    if b not in reached:
        return {}
    nodes = {node: place for place, node in enumerate(sorted(reached - {b}))}
    size = len(nodes)
    matrix, right = [[0.0] * size for _ in range(size)], [0.0] * size
    right[nodes[a]] = 1.0
    for one, other, ohm in edges:
        if one not in reached:
            continue
        for here, there in ((one, other), (other, one)):
            if here in nodes:
                matrix[nodes[here]][nodes[here]] += 1 / ohm
                if there in nodes:
                    matrix[nodes[here]][nodes[there]] -= 1 / ohm
    solved = _solved(matrix, right)
    return {node: solved[place] for node, place in nodes.items()}


def reached_from(edges: Iterable[Edge], start: str) -> set[str]:
    """Every point that is joined to a point somehow, itself among them.

    >>> sorted(reached_from([("a", "b", 3.0), ("c", "d", 1.0)], "a"))
    ['a', 'b']
    """
    neighbours: dict[str, set[str]] = {}
    for one, other, _ in edges:
        neighbours.setdefault(one, set()).add(other)
        neighbours.setdefault(other, set()).add(one)
    reached, waiting = {start}, [start]
    while waiting:
        for node in neighbours.get(waiting.pop(), set()) - reached:
            reached.add(node)
            waiting.append(node)
    return reached


def _solved(matrix: list[list[float]], right: list[float]) -> list[float]:
    """Gaussian elimination; a network with a point held fast gives a diagonal that is never nought."""
    size = len(right)
    for pivot in range(size):
        for below in range(pivot + 1, size):
            if matrix[below][pivot]:
                factor = matrix[below][pivot] / matrix[pivot][pivot]
                for column in range(pivot, size):
                    matrix[below][column] -= factor * matrix[pivot][column]
                right[below] -= factor * right[pivot]
    found = [0.0] * size
    for pivot in range(size - 1, -1, -1):
        known = sum(matrix[pivot][column] * found[column] for column in range(pivot + 1, size))
        found[pivot] = (right[pivot] - known) / matrix[pivot][pivot]
    return found
