"""The schedule of circuit details and test results: every reading in its cell, from the same steps as the screen."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from fulmen.core.circuit.arrangement_schedule import rcd_in_words
from fulmen.core.electrical.control_pilot import offered_a
from fulmen.core.evaluate import Evaluation
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.model.guards import RcdType
from fulmen.core.model.instruments import Function
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Outcome, Reading, StepKey
from fulmen.core.verification.rcd_readings import rcd_figures
from fulmen.core.verification.sequence import Step
from fulmen.core.verification.steps import definition_of
from fulmen.documents.contents import Contents
from fulmen.documents.rendering import figure

LEFT_OUT = {Outcome.COULD_NOT_TEST: "LIM", Outcome.NOT_APPLICABLE: "N/A", Outcome.WRONG: "✗"}
# Past this a loop's limit is the RCD's touch voltage: hundredths of an ohm mean nothing there.
WHOLE_OHMS_FROM = 100.0


def reading_text(reading: Reading | None, decimals: int | None = None) -> str:
    """A reading as it stands in a form's cell, to the decimals of its step."""
    if reading is None:
        return "–"
    if reading.outcome is Outcome.RIGHT:
        return "✓"
    if reading.outcome in LEFT_OUT:
        read = "" if reading.value is None else f" {figure(reading.value, decimals)}"
        return LEFT_OUT[reading.outcome] + read
    return f">{reading.value:g}" if reading.outcome is Outcome.OVER_RANGE else figure(reading.value, decimals)


def results(contents: Contents, subject: str) -> dict[str, str]:
    """The reading that counts of every step at one subject, by the step's key."""
    latest = contents.readings.latest
    return {key.value: reading_text(latest(key, subject), definition_of(key).decimals) for key in StepKey}


def zs_limit_text(evaluation: Evaluation, circuit: str) -> str:
    """The most that a circuit's loop may read, to figures that mean something."""
    limits = [one.limit for one in evaluation.steps if one.step is StepKey.ZS and one.subject == circuit]
    if not limits or limits[0] is None:
        return "–"
    return figure(limits[0], 0 if limits[0] >= WHOLE_OHMS_FROM else 2)


def remarks_of(evaluation: Evaluation, circuit: str, written: str) -> str:
    """What is to be said of a circuit: what was written, what was left out and why, what was taken again and why."""
    own = [one for one in evaluation.steps if one.subject == circuit]
    return " ".join(filter(None, [written, *left_out(own), *taken_again(own)]))


def left_out(steps: list[Step]) -> list[str]:
    """Each limitation with its reason."""
    read = [(step, step.reading) for step in steps if step.reading is not None]
    return [
        f"{step.title}: {LEFT_OUT[one.outcome]}, {one.reason}."
        for step, one in read
        if one.outcome in LEFT_OUT and one.reason
    ]


def taken_again(steps: list[Step]) -> list[str]:
    """Each retest with what was read first, and why."""
    told = []
    for step in steps:
        if step.earlier and step.reading is not None:
            first = ", then ".join(f"{reading_text(one, step.decimals)} by {one.taken_by}" for one in step.earlier)
            told.append(f"{step.title}: {first} before; {step.reading.again_because or 'not said why'}.")
    return told


@dataclass(frozen=True)
class RcdRow:
    """One RCD with what it is and every figure that was read of it."""

    place: str
    standard: str
    rating: str
    what: str
    results: dict[str, str]
    at_rated: str
    at_five: str


def rcd_rows(contents: Contents) -> list[RcdRow]:
    """Every RCD of the job in its place, from the origin to the units, each once."""
    subjects = {one.guard: one.subject for one in contents.evaluation.steps if one.guard}
    every = (*contents.installation.runs, *contents.installation.load_runs)
    placed = {guard.field: guard for run in every for guard in run.rcds}
    return [_rcd_row(contents, guard, subjects.get(field, guard.subject)) for field, guard in placed.items()]


def _rcd_row(contents: Contents, guard: PlacedGuard, subject: str) -> RcdRow:
    assert guard.rcd is not None
    rated = (
        guard.device.rating_a if guard.device is not None else guard.guard.rating_a if guard.guard is not None else None
    )
    found = rcd_figures(contents.readings, subject)
    inside = guard.stands is Stands.UNIT
    return RcdRow(
        place=f"in {guard.where}" if inside else f"at {guard.where}" if guard.stands is Stands.WAY else guard.where,
        standard=_standard(guard),
        rating=figure(rated) if rated is not None else "–",
        what=rcd_in_words(guard.rcd),
        results=results(contents, subject),
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


@dataclass(frozen=True)
class InstrumentRow:
    """One instrument with what was measured with it."""

    name: str
    functions: str
    serial_number: str
    calibration_due: str


def instrument_rows(job: Job) -> list[InstrumentRow]:
    """Every instrument that a reading names, by what it measured."""
    used: dict[str, dict[Function, None]] = {}
    for reading in job.readings:
        if reading.instrument:
            used.setdefault(reading.instrument, {})[definition_of(reading.step).function] = None
    rows = []
    for name, functions in used.items():
        entry = job.instrument(name)
        due = entry.calibration_due if entry is not None else None
        words = ", ".join(word(one) for one in functions)
        rows.append(
            InstrumentRow(name, words, entry.serial_number if entry else "–", f"{due:%-d %b %Y}" if due else "–")
        )
    return rows


def tested_words(job: Job) -> str:
    """By whom and on which days the job was tested."""
    days = list(dict.fromkeys(one.taken_at.date() for one in job.readings))
    names = ", ".join(dict.fromkeys(one.taken_by for one in job.readings))
    return f"{names}, {', '.join(f'{day:%-d %B %Y}' for day in sorted(days))}"


def bench_rows(evaluation: Evaluation, circuit: str) -> list[tuple[str, str, str]]:
    """The charge-point tests at one unit: what was done, what was read, and what it means."""
    own = [
        one
        for one in evaluation.steps
        if one.subject == circuit and one.reading is not None and one.step is not StepKey.RCD_BUTTON
        if one.rank >= BENCH_RANK or one.step is StepKey.CHARGE_NOW
    ]
    return [
        (one.title, f"{reading_text(one.reading, one.decimals)} {_unit(one)}".strip(), _meaning(one)) for one in own
    ]


# Functional tests and those of the charge point; the button of an RCD stands with the RCD.
BENCH_RANK = 11


def _unit(step: Step) -> str:
    measured = step.reading is not None and step.reading.value is not None
    return step.unit if measured else ""


def _meaning(step: Step) -> str:
    if step.step is StepKey.PILOT_DUTY and step.reading is not None and step.reading.value is not None:
        current_a = offered_a(step.reading.value)
        return "offers no current" if current_a is None else f"offers {current_a:.1f} A"
    return step.range


def schools_words(job: Job) -> str:
    """Which of two schools the figures were judged and taken by."""
    testing = job.testing
    warm = f"; conductors at {testing.conductors_c:g} °C" if testing.conductors_c is not None else ""
    return f"A loop read cold is held against {word(testing.loop_school)}{warm}. Each RCD: {word(testing.rcd_school)}."


def clamp_rows(job: Job) -> list[tuple[str, str]]:
    """The test of each clamp that a load limit rests on."""
    rows: list[tuple[str, Any]] = []
    for point in job.charge_points:
        proof = point.clamp_proof
        if proof is None or proof.tested_at is None:
            continue
        shown = f"{figure(proof.shown_without_a)} then {figure(proof.shown_with_a)} A"
        told = (
            f"set to {figure(proof.limit_set_a)} A; {proof.wire_pair}; with {figure(proof.known_load_a)} A switched on "
            f"the house shows {shown}, the car is offered {figure(proof.offered_with_a)} A after "
            f"{figure(proof.follows_s)} s; {proof.tested_by}, {proof.tested_at:%-d %b %Y}"
        )
        rows.append((f"Load limit, clamp of {point.name}", told))
    return rows
