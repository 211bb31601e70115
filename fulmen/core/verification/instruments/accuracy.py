"""How far a reading may be off by its instrument: what its sheet says, or an ordinary one's until somebody looked."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cache
from math import sqrt

from fulmen.core.model.instruments import Function, Instrument, Measures
from fulmen.core.plain import plain
from fulmen.core.reference.tables import read_toml
from fulmen.core.verification.instruments.dials import Dial

ASKED = "Say what the sheet of {name} gives for it: ± % and digits."


@plain
class UsualAccuracy:
    """What an ordinary instrument keeps to: `accuracy.toml` says what each field means."""

    measures: Measures
    words: str
    share_percent: float
    digits: int
    digit: float
    unit: str
    function: Function


@dataclass(frozen=True, slots=True)
class InstrumentError:
    """How far a reading may be off: a share of it and something besides; `asks` is what is to be said first."""

    share: float
    besides: float
    asks: str = ""

    def of(self, value: float) -> float:
        """How far a reading of this value may be off, either way.

        >>> round(InstrumentError(0.02, 0.02).of(0.5), 3)
        0.03
        """
        return self.share * abs(value) + self.besides


# A display rounds what it reads.
ROUNDED = 0.5
# Readings err each for itself. Where share and digits of each lie anywhere within its sheet, this many times the root
# of their squares holds all but three in a thousand; all at their worst, and the same way, hardly ever happens.
TOGETHER = 1.3


def off_together(errors: Iterable[tuple[InstrumentError, float]]) -> float:
    """How far a sum of readings may be off, each with its value: 1.3·√Σe², and never more than Σe.

    >>> loop = InstrumentError(0.05, 0.03)
    >>> round(off_together([(loop, 0.2)]), 3), round(off_together([(loop, 0.2), (loop, 0.3)]), 3)
    (0.04, 0.078)
    """
    each = [error.of(value) for error, value in errors]
    return min(sum(each), TOGETHER * sqrt(sum(one * one for one in each)))


Errors = Sequence[tuple[InstrumentError, float]]


def said_only(errors: Errors) -> Errors:
    """The same, an error that nobody has said counted as none: what holds by these holds whatever is said."""
    return [(error if not error.asks else InstrumentError(0.0, 0.0), value) for error, value in errors]


def asks_of(errors: Errors) -> str:
    """What is to be said first of some errors; empty where all is."""
    return next((error.asks for error, _ in errors if error.asks), "")


@cache
def usual_accuracies() -> dict[Measures, UsualAccuracy]:
    """What an ordinary instrument keeps to, by what it measures."""
    return {
        Measures(key): UsualAccuracy(
            measures=Measures(key), **{**entry, "function": Function(entry["function"])},
        )
        for key, entry in read_toml(__package__, "accuracy").items()
    }  # fmt: skip


def measures_with(dial: Dial) -> Measures | None:
    """What a setting measures; None where no sheet gives an error for it.

    >>> from fulmen.core.verification.instruments.dials import dial
    >>> measures_with(dial("loop_no_trip"))
    <Measures.LOOP_NO_TRIP: 'loop_no_trip'>
    """
    if dial.function is Function.LOOP:
        return Measures.LOOP if dial.trips else Measures.LOOP_NO_TRIP
    return next((one for one in Measures if one.value == dial.function.value), None)


def error_of(instrument: Instrument | None, measures: Measures) -> InstrumentError:
    """How far an instrument may be off; an ordinary one where its sheet was not looked at, which is asked."""
    usual = usual_accuracies()[measures]
    told = instrument.accuracy(measures) if instrument is not None else None
    if told is not None:
        return InstrumentError(told.share_percent / 100, (told.digits + ROUNDED) * usual.digit)
    asks = ASKED.format(name=instrument.name if instrument is not None else "the instrument")
    return InstrumentError(usual.share_percent / 100, (usual.digits + ROUNDED) * usual.digit, asks)
