"""Every RCD of a job in its place, with what it is and every figure that was read of it."""

from __future__ import annotations

from fulmen.core.circuit.arrangement_schedule import mark_in_words, rcd_in_words
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.guards import RcdType
from fulmen.core.model.readings import ByStep
from fulmen.core.papers.cells import figure, results
from fulmen.core.papers.judged_job import JudgedJob
from fulmen.core.plain import plain
from fulmen.core.verification.readings.rcd_readings import rcd_figures


@plain
class RcdRow:
    """One RCD, in the words of its cells."""

    place: str
    standard: str
    rating: str
    what: str
    results: dict[str, str]
    at_rated: str
    at_five: str


@plain
class FrontRcd:
    """An RCD in front of the origin's own boards: where, what, its opening time."""

    where: str
    what: str
    opens: str


def rcd_rows(judged: JudgedJob) -> tuple[RcdRow, ...]:
    """Every RCD of the job in its place, from the origin to the units, each once."""
    subjects = {one.guard: one.subject for one in judged.evaluation.steps if one.guard}
    every = (*judged.installation.runs, *judged.installation.load_runs)
    placed = {guard.field: guard for run in every for guard in run.guards if guard in run.rcds or guard in run.unread}
    return tuple(
        _rcd_row(judged.readings, guard, subjects.get(field, guard.subject)) for field, guard in placed.items()
    )


def front_rcds(judged: JudgedJob) -> tuple[FrontRcd, ...]:
    """The RCDs in front of the origin's own boards. Others stand in the schedule."""
    tree = judged.installation.tree
    placed = {}
    for run in judged.installation.runs:
        for guard in run.rcds:
            circuit = tree.circuits.get(guard.circuit)
            at_origin = circuit is not None and circuit.from_board not in tree.feeders
            if guard.stands is Stands.INCOMER and at_origin:
                placed[guard.field] = guard
    return tuple(
        FrontRcd(f"RCD {one.where}", rcd_in_words(one.rcd), _opens(judged.readings, one)) for one in placed.values()
    )


def _opens(readings: ByStep, guard: PlacedGuard) -> str:
    """The opening time of an RCD in front of the origin's board: a time-delayed one is read under the origin's name."""
    delayed = guard.rcd is not None and guard.rcd.time_delayed
    found = rcd_figures(readings, ORIGIN if delayed else guard.subject)
    return "–" if found.at_rated_ms is None else f"{figure(found.at_rated_ms, 1)} ms at 1×"


def _rcd_row(readings: ByStep, guard: PlacedGuard, subject: str) -> RcdRow:
    rated = (
        guard.device.rating_a if guard.device is not None else guard.guard.rating_a if guard.guard is not None else None
    )
    found = rcd_figures(readings, subject)
    inside = guard.stands is Stands.UNIT
    return RcdRow(
        place=f"in {guard.where}" if inside else f"at {guard.where}" if guard.stands is Stands.WAY else guard.where,
        standard=_standard(guard),
        rating=figure(rated),
        what=mark_in_words(guard),
        results=results(readings, subject),
        at_rated=figure(found.at_rated_ms, 1),
        at_five=figure(found.at_five_ms, 1),
    )


def _standard(guard: PlacedGuard) -> str:
    """The standard that an RCD is made to, as far as it is known."""
    if guard.guard is not None and guard.guard.standard:
        return guard.guard.standard
    if guard.stands is Stands.UNIT:
        return "the unit's maker"
    base = "BS EN 61009-1" if guard.device is not None else "BS EN 61008-1"
    special = guard.rcd is not None and guard.rcd.type in (RcdType.F, RcdType.B)
    return f"{base}, BS EN 62423" if special else base
