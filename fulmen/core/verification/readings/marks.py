"""Readings as marks on the loop's track: read, or still to be taken; the track's scale grows to hold them."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.circuit.run_profile import ProfileMark, RunProfile
from fulmen.core.circuit.run_tracks import HEADROOM
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.readings import ByStep, StepKey
from fulmen.core.plain import changed


def marked(profile: RunProfile, case: Case, readings: ByStep) -> RunProfile:
    """The profile of a run with what was read of its loop."""
    marks = _marks(case, readings)
    if not marks:
        return profile
    highest = max(mark.value for mark in marks) * HEADROOM
    tracks = tuple(changed(one, most=max(one.most, highest)) if one.key == "loop" else one for one in profile.tracks)
    return changed(profile, marks=marks, tracks=tracks)


def _marks(case: Case, readings: ByStep) -> tuple[ProfileMark, ...]:
    """Ze, each board's Zs, and the charge point's, read or expected."""
    figures = case.figures
    assert figures is not None
    ze = readings.figure(StepKey.ZE, ORIGIN)
    marks = [] if ze is None else [ProfileMark(at="cut_out", at_m=0.0, value=ze, expected=False)]
    at_m, cold = 0.0, figures.ze.value + figures.tails.r1_ohm + figures.tails.r2_ohm
    for chained in figures.chain:
        at_m, cold = at_m + chained.laid.length_m, cold + chained.laid.r1_ohm + chained.laid.r2_ohm
        at, zs = "charge_point" if chained.final else "board", readings.figure(StepKey.ZS, chained.circuit.id)
        if zs is not None:
            marks.append(ProfileMark(at=at, at_m=at_m, value=zs, expected=False))
        elif ze is not None:
            marks.append(ProfileMark(at=at, at_m=at_m, value=cold, expected=True))
    return tuple(marks)
