"""Which fault of conductors and contacts explains the ohms that were read, each weighed against all the others."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import product
from math import hypot, log

from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.readings import StepKey
from fulmen.core.verification.faults.faults import fault_infos
from fulmen.core.verification.faults.pieces import Piece, Row, Sum
from fulmen.core.verification.faults.weighing import Matrix, Vector, Weighing

# A figure that was written down wrongly may be any, over this many times the natural logarithm's base; one in so many
# is. What is changed over or carried to another row fits to the digit. Our own, no source.
ANY_FIGURE, ONE_IN, DIGIT_OHM = 8.0, 20.0, 0.01
# A cable of another kind than was drawn is seen by whoever lays it. Our own, no source.
ANOTHER_CABLE_IN = 4.0
SWAPPED = ((StepKey.R1_R2, StepKey.ZS), (StepKey.R1_R2, StepKey.ZS_CABLE))
# What is wrong on paper alone; how near a reading must come to what it should be, in its own errors.
WRITTEN, NEAR = frozenset({"misread", "copied", "swapped"}), 3.0
COPIED = ((StepKey.ZS, StepKey.ZE), (StepKey.ZS_CABLE, StepKey.ZE))


@dataclass(frozen=True, slots=True)
class Supposed:
    """One supposed fault: its kind, where it is, how well it explains, its size, what it adds to each reading [Ω]; of a
    figure that was written down wrongly the step.
    """

    fault: str
    subject: str
    log_evidence: float
    size: float = 0.0
    adds: tuple[tuple[tuple[StepKey, str], float], ...] = ()
    step: StepKey | None = None

    def is_of(self, step: StepKey, subject: str) -> bool:
        """Whether it is a reading written down wrongly, and this one."""
        return self.fault in WRITTEN and (self.step, self.subject) == (step, subject)

    def added(self, row: Row) -> float:
        """What it adds to a reading."""
        return dict(self.adds).get((row.step, row.subject), 0.0)


class OhmsRead:
    """The readings of ohms of a job, weighed."""

    def __init__(self, whole: Sum) -> None:
        self.whole = whole
        self.rows = tuple(_at_nought(one) for one in whole.rows if one.value is not None and not _says_nothing(one))
        residuals = [one.value - one.about for one in self.rows if one.value is not None]
        self.weighing = Weighing(residuals, _covariance(self.rows, whole.off))

    def sound(self) -> float:
        """How well nothing at all explains."""
        return self.weighing.sound()

    def supposed(self) -> Iterator[Supposed]:
        """Everything that may be wrong, and how well each explains."""
        for kind, info in fault_infos().items():
            for piece in self.whole.off if info.adds is not None else ():
                assert info.adds is not None
                if piece[0] == info.adds.piece:
                    found = self.weighing.along(self._direction(piece), info.adds.least, info.adds.most)
                    yield Supposed(kind, piece[1], found.log_evidence, found.size, self._adds(piece, found.size))
        for piece, ohm in self.whole.smaller.items():
            evidence = self.weighing.at(self._direction(piece), ohm) - log(ANOTHER_CABLE_IN)
            yield Supposed("small_earth", piece[1], evidence, ohm, self._adds(piece, ohm))
        yield from self._written_wrongly()

    def explains(self, one: Supposed, step: StepKey, subject: str) -> bool:
        """Whether a reading is as it should be once a fault is taken off it, or is the one written down wrongly."""
        if one.is_of(step, subject):
            return True
        row = next((row for row in self.rows if (row.step, row.subject) == (step, subject)), None)
        if row is None or row.value is None:
            return False
        return abs(row.value - row.about - one.added(row)) <= NEAR * row.spread(self.whole.off, every=True)

    def without(self, one: Supposed) -> OhmsRead:
        """The same readings with a fault taken off them, and without what was written down wrongly."""
        left = (row for row in self.whole.rows if not one.is_of(row.step, row.subject))
        rows = tuple(replace(row, about=row.about + one.added(row)) for row in left)
        return OhmsRead(replace(self.whole, rows=rows))

    def _direction(self, piece: Piece) -> Vector:
        return [one.holds.get(piece, 0.0) for one in self.rows]

    def _adds(self, piece: Piece, size: float) -> tuple[tuple[tuple[StepKey, str], float], ...]:
        return tuple(
            ((one.step, one.subject), size * one.holds[piece]) for one in self.whole.rows if piece in one.holds
        )

    def _written_wrongly(self) -> Iterator[Supposed]:
        for place, row in enumerate(self.rows):
            value = max(row.value or 0.0, DIGIT_OHM)
            evidence = self.weighing.without(place) - log(value * ANY_FIGURE * ONE_IN)
            yield Supposed("misread", row.subject, evidence, step=row.step)
        at = {(one.step, one.subject): place for place, one in enumerate(self.rows)}
        for (one, other), (step, subject) in product(SWAPPED, at):
            if step is one and (other, subject) in at:
                changed = self._changed_over(at[one, subject], at[other, subject])
                yield Supposed("swapped", subject, changed - log(ONE_IN), step=one)
        for (one, other), (step, subject) in product(COPIED, at):
            if step is one and (other, ORIGIN) in at and self.rows[at[step, subject]].value == self.rows[at[other, ORIGIN]].value:  # fmt: skip  # noqa: E501
                evidence = self.weighing.without(at[step, subject]) - log(DIGIT_OHM * ONE_IN)
                yield Supposed("copied", subject, evidence, step=one)

    def _changed_over(self, one: int, other: int) -> float:
        residuals = list(self.weighing.residuals)
        a, b = self.rows[one], self.rows[other]
        assert a.value is not None and b.value is not None
        residuals[one], residuals[other] = b.value - a.about, a.value - b.about
        return self.weighing.sound(residuals)


def _says_nothing(row: Row) -> bool:
    """A display at nought where next to nothing is expected: less than nothing would show so too."""
    return row.value == 0 and row.about < 3 * row.own_off


def _at_nought(row: Row) -> Row:
    """At nought it may be less by as much again: the display ends there."""
    return row if row.value else replace(row, own_off=hypot(row.own_off, row.about / 2))


def _covariance(rows: tuple[Row, ...], off: dict[Piece, float]) -> Matrix:
    """How the errors of readings go together: by the pieces that they share, and each by its own."""
    return [
        [
            sum(share * other.holds.get(piece, 0.0) * off[piece] ** 2 for piece, share in one.holds.items())
            + (one.own_off**2 if one is other else 0.0)
            for other in rows
        ]
        for one in rows
    ]
