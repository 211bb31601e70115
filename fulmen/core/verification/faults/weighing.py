"""How well a supposed fault explains readings: least squares with errors that are partly shared, and Bayes' rule.

With r the residuals, C their covariance (each piece's spread in every reading that holds it, each reading's own error),
a fault that adds x along d leaves r − x·d. Its evidence is the likelihood averaged over the sizes that it may have, as
many from 0.1 to 1 as from 1 to 10: ∫ exp(−½(r − x·d)ᵀC⁻¹(r − x·d)) dx / (x̂·ln(most/least)), with the 1/x of that taken
at the size x̂ that explains best. So a fault that could explain anything is believed less than one that had to read just
so. All logarithms here leave out what every supposition shares.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import erf, inf, log, pi, sqrt

Vector = list[float]
Matrix = list[Vector]
# Below this a probability is none.
NOTHING = 1e-300


@dataclass(frozen=True, slots=True)
class Weighed:
    """How well something explains: the logarithm of its evidence, and the size that explains best."""

    log_evidence: float
    size: float


class Weighing:
    """Residuals with their covariance, against which supposed faults are weighed."""

    def __init__(self, residuals: Vector, covariance: Matrix) -> None:
        self.residuals, self.inverse = residuals, inverse(covariance)

    def sound(self, residuals: Vector | None = None) -> float:
        """Nothing wrong: −½·rᵀC⁻¹r, of these residuals or of others in their place."""
        here = self.residuals if residuals is None else residuals
        return -0.5 * dot(here, times(self.inverse, here))

    def along(self, direction: Vector, least: float, most: float) -> Weighed:
        """A fault that adds x·d, x anywhere from `least` to `most`, both on one side of nought."""
        through = times(self.inverse, direction)
        a, b = dot(direction, through), dot(self.residuals, through)
        if a <= 0:
            return Weighed(-inf, 0.0)
        best = b / a
        low, high = ((end - best) * sqrt(a) for end in (least, most))
        share = max(_below(high) - _below(low), 0.0)
        if share <= NOTHING:
            # Far outside its sizes: the nearer end alone.
            near = low if low > 0 else high
            return Weighed(self.sound() + b * b / a / 2 - near * near / 2, min(max(best, least), most))
        size = min(max(best, least), most)
        spread = sqrt(2 * pi / a) * share / (abs(size) * abs(log(most / least)))
        return Weighed(self.sound() + b * b / a / 2 + log(spread), size)

    def at(self, direction: Vector, size: float) -> float:
        """A fault of just this size."""
        return self.sound([one - size * along for one, along in zip(self.residuals, direction, strict=True)])

    def without(self, place: int) -> float:
        """One reading left out: what the rest says, which no longer has to explain it. Its own density goes too."""
        variance = 1 / self.inverse[place][place]
        off = dot(self.inverse[place], self.residuals) * variance
        return self.sound() + 0.5 * off * off / variance + 0.5 * log(2 * pi * variance)


def _below(z: float) -> float:
    return 0.5 * (1 + erf(z / sqrt(2)))


def dot(one: Sequence[float], other: Sequence[float]) -> float:
    """The sum of products."""
    return sum(a * b for a, b in zip(one, other, strict=True))


def times(matrix: Matrix, vector: Vector) -> Vector:
    """A matrix by a vector."""
    return [dot(row, vector) for row in matrix]


def inverse(matrix: Matrix) -> Matrix:
    """The inverse of a symmetric positive matrix, by Gauss and Jordan.

    >>> inverse([[2.0, 0.0], [0.0, 4.0]])
    [[0.5, 0.0], [0.0, 0.25]]
    """
    size = len(matrix)
    work = [[*row, *(float(one == place) for one in range(size))] for place, row in enumerate(matrix)]
    for place in range(size):
        pivot = work[place][place]
        work[place] = [one / pivot for one in work[place]]
        for other in range(size):
            share = work[other][place]
            if other != place and share:
                work[other] = [one - share * here for one, here in zip(work[other], work[place], strict=True)]
    return [row[size:] for row in work]
