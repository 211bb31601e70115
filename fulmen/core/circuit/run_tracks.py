"""The three tracks under the run's chain: what is drawn on screen and on paper, told once.

Both drawings take titles, words, points, limits and the height of each track from here; they only place them.
"""

from __future__ import annotations

from itertools import accumulate
from typing import Literal

from fulmen.core.circuit.run_figures import RunFigures
from fulmen.core.plain import plain

# Room above the highest figure, as a share of it.
HEADROOM = 1.08


@plain
class TrackLimit:
    """The limit of one circuit, from where it begins (none: the cut-out) to where it ends."""

    from_m: float | None
    to_m: float
    value: float


@plain
class RunTrack:
    """One figure along the run under its limits; `most` is the top of its scale.

    `values` stand at the distances `at_m` from the origin's board; the first is the cut-out's, which has no distance,
    since before that board the drawing is not to scale.
    """

    key: Literal["volts", "loop"]
    title: str
    at_m: tuple[float | None, ...]
    values: tuple[float, ...]
    limits: tuple[TrackLimit, ...]
    most: float
    over: bool
    value_words: str
    limit_words: str


@plain
class AmpsTrack:
    """What each section carries against its circuit's device and load; `weak` are those that carry too little."""

    title: str
    most: float
    holds: bool
    weak: tuple[int, ...]
    value_words: str
    load_words: str


def volts_track(figures: RunFigures, limit_v: float, u0_v: float) -> RunTrack:
    """Volts lost from the cut-out to the charge point, under the limit of the whole run."""
    lost_v = figures.final.end.drop_v
    end_m = figures.length_m
    return RunTrack(
        key="volts",
        title="Volts lost",
        at_m=_distances(figures),
        values=(0.0, *_joined([one.volts_lost_along() for one in figures.chain])),
        limits=(TrackLimit(from_m=None, to_m=end_m, value=limit_v),),
        most=max(limit_v, lost_v) * HEADROOM,
        over=lost_v > limit_v,
        value_words=f"{lost_v:.1f} V, {lost_v / u0_v * 100:.1f} %",
        limit_words=f"limit {limit_v:.1f} V",
    )


def loop_track(figures: RunFigures, limits_ohm: tuple[float | None, ...]) -> RunTrack:
    """The hot loop along the run, under the limit of each circuit's device where the loop opens it."""
    limits, at_m = [], 0.0
    for number, (chained, limit) in enumerate(zip(figures.chain, limits_ohm, strict=True)):
        end_m = at_m + chained.laid.length_m
        if limit is not None:
            limits.append(TrackLimit(from_m=at_m if number else None, to_m=end_m, value=limit))
        at_m = end_m
    zs_ohm, last = figures.final.end.loop_ohm, limits_ohm[-1]
    return RunTrack(
        key="loop",
        title="Loop, hot",
        at_m=_distances(figures),
        values=(figures.ze.value, *_joined([one.loop_along() for one in figures.chain])),
        limits=tuple(limits),
        most=max([zs_ohm, *(one.value for one in limits)]) * HEADROOM,
        over=last is not None and zs_ohm > last,
        value_words=f"{zs_ohm:.2f} Ω",
        limit_words="" if last is None else f"limit {last:.2f} Ω",
    )


def amps_track(figures: RunFigures) -> AmpsTrack:
    """The cable's amps along the run."""
    sections = [(one.rating.iz_a, chained.in_a) for chained in figures.chain for one in chained.sections]
    weak = tuple(index for index, (iz_a, in_a) in enumerate(sections) if iz_a is not None and iz_a < in_a)
    unrated = any(iz_a is None for iz_a, _ in sections)
    devices = ", ".join(f"{chained.in_a:.0f}" for chained in figures.chain)
    holds = not weak and not unrated
    return AmpsTrack(
        title="Cable, amps",
        most=max(max(iz_a or 0.0, in_a) for iz_a, in_a in sections) * HEADROOM,
        holds=holds,
        weak=weak,
        value_words="no rating" if unrated else f"{'holds' if holds else '⚠ under'} {devices} A",
        load_words=f"load {figures.final.ib_a:.0f} A",
    )


def _distances(figures: RunFigures) -> tuple[float | None, ...]:
    """The cut-out, the origin's board, then the end of every section."""
    lengths = (one.section.length_m for chained in figures.chain for one in chained.sections)
    return (None, *accumulate(lengths, initial=0.0))


def _joined(along: list[list[float]]) -> list[float]:
    """The figures of every circuit as one row; where one circuit ends the next begins."""
    return [along[0][0], *(value for values in along for value in values[1:])]
