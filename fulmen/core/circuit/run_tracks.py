"""The three tracks under the run's chain: what is drawn on screen and on paper, told once.

Both drawings take titles, words, points, limits and the height of each track from here; they only place them.
"""

from __future__ import annotations

from typing import Literal

from fulmen.core.circuit.run_figures import RunFigures
from fulmen.core.model.base import Part

# Room above the highest figure, as a share of it.
HEADROOM = 1.08


class TrackPoint(Part):
    """A figure at a distance from the origin's board; before that board the drawing is not to scale."""

    at_m: float | None
    value: float


class TrackLimit(Part):
    """The limit of one circuit, from where it begins to where it ends."""

    from_m: float | None
    to_m: float
    value: float


class RunTrack(Part):
    """One figure along the run under its limits; `most` is the top of its scale."""

    key: Literal["volts", "loop"]
    title: str
    points: tuple[TrackPoint, ...]
    limits: tuple[TrackLimit, ...]
    most: float
    over: bool
    value_words: str
    limit_words: str


class AmpsTrack(Part):
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
        points=(TrackPoint(at_m=None, value=0.0), *_points(figures, [one.volts_lost_along() for one in figures.chain])),
        limits=(TrackLimit(from_m=None, to_m=end_m, value=limit_v),),
        most=max(limit_v, lost_v) * HEADROOM,
        over=lost_v > limit_v,
        value_words=f"{lost_v:.1f} V, {lost_v / u0_v * 100:.1f} %",
        limit_words=f"limit {limit_v:.1f} V",
    )


def loop_track(figures: RunFigures, limits_ohm: tuple[float | None, ...], marks_ohm: tuple[float, ...]) -> RunTrack:
    """The hot loop along the run, under the limit of each circuit's device where the loop opens it."""
    limits, at_m = [], 0.0
    for number, (chained, limit) in enumerate(zip(figures.chain, limits_ohm, strict=True)):
        end_m = at_m + chained.laid.length_m
        if limit is not None:
            limits.append(TrackLimit(from_m=at_m if number else None, to_m=end_m, value=limit))
        at_m = end_m
    zs_ohm, last = figures.final.end.loop_ohm, limits_ohm[-1]
    origin = TrackPoint(at_m=None, value=figures.ze.value)
    return RunTrack(
        key="loop",
        title="Loop, hot",
        points=(origin, *_points(figures, [one.loop_along() for one in figures.chain])),
        limits=tuple(limits),
        most=max([zs_ohm, *(one.value for one in limits), *marks_ohm]) * HEADROOM,
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
        value_words="no rating" if unrated else f"{'holds' if holds else '▲ under'} {devices} A",
        load_words=f"load {figures.final.ib_a:.0f} A",
    )


def _points(figures: RunFigures, along: list[list[float]]) -> list[TrackPoint]:
    """The figure at the origin's board, then at the end of every section."""
    points, at_m = [TrackPoint(at_m=0.0, value=along[0][0])], 0.0
    for chained, values in zip(figures.chain, along, strict=True):
        for section, value in zip(chained.sections, values[1:], strict=True):
            at_m += section.section.length_m
            points.append(TrackPoint(at_m=at_m, value=value))
    return points
