"""How a job was tested: the tests of each unit, with which instruments, by whom, to which school, and the clamps."""

from __future__ import annotations

from fulmen.core.electrical.control_pilot import offered_a
from fulmen.core.evaluate import Evaluation
from fulmen.core.findings.words import word
from fulmen.core.model.instruments import Function
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Reading, StepKey, counting
from fulmen.core.papers.cells import figure, reading_text
from fulmen.core.papers.judged_job import JudgedJob
from fulmen.core.plain import plain
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.steps import definition_of

# Functional tests and those of the charge point; the button of an RCD stands with the RCD.
UNIT_RANK = 11
BESIDES = frozenset({StepKey.CHARGE_NOW, StepKey.CONNECTOR_EARTH})


@plain
class UnitTest:
    """One charge-point test: what was done, what was read, and what it means."""

    title: str
    read: str
    meaning: str


@plain
class UnitTests:
    """The charge-point tests at one unit."""

    name: str
    tests: tuple[UnitTest, ...]


@plain
class InstrumentRow:
    """One instrument with what was measured with it."""

    name: str
    functions: str
    serial_number: str
    calibration_due: str


@plain
class ClampTest:
    """The test of one clamp that a load limit rests on."""

    name: str
    told: str


def unit_tests(judged: JudgedJob) -> tuple[UnitTests, ...]:
    """The charge-point tests, unit by unit."""
    return tuple(
        UnitTests(run.charge_point.name, _tests_at(judged.evaluation, run.subject))
        for run in judged.installation.runs
        if run.chain
    )


def _tests_at(evaluation: Evaluation, subject: str) -> tuple[UnitTest, ...]:
    own = [
        one
        for one in evaluation.steps
        if one.subject == subject and one.reading is not None and one.step is not StepKey.RCD_BUTTON
        if one.rank >= UNIT_RANK or one.step in BESIDES
    ]
    return tuple(
        UnitTest(one.title, f"{reading_text(one.reading, one.decimals)} {_unit(one)}".strip(), _meaning(one))
        for one in own
    )


def _unit(step: Step) -> str:
    measured = step.reading is not None and step.reading.value is not None
    return step.unit if measured else ""


def _meaning(step: Step) -> str:
    if step.step is StepKey.PILOT_DUTY and step.reading is not None and step.reading.value is not None:
        current_a = offered_a(step.reading.value)
        return "offers no current" if current_a is None else f"offers {current_a:.1f} A"
    return step.range


def instrument_rows(job: Job) -> tuple[InstrumentRow, ...]:
    """Every instrument that a reading names, by what it measured."""
    used: dict[str, dict[Function, None]] = {}
    for reading in counting(job.readings):
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
    return tuple(rows)


def tested_words(job: Job) -> str:
    """By whom and on which days the job was tested."""
    readings = counting(job.readings)
    days = list(dict.fromkeys(one.taken_at.date() for one in readings))
    names = ", ".join(dict.fromkeys(map(_by, readings)))
    return f"{names}, {', '.join(f'{day:%-d %B %Y}' for day in sorted(days))}"


def _by(reading: Reading) -> str:
    """Who took a reading, and who wrote it down for them."""
    return f"{reading.taken_by} (entered by {reading.entered_by})" if reading.entered_by else reading.taken_by


def schools_words(job: Job) -> str:
    """Which of two schools the figures were judged and taken by."""
    testing = job.testing
    warm = f"; conductors at {testing.conductors_c:g} °C" if testing.conductors_c is not None else ""
    return f"A loop read cold is held against {word(testing.loop_school)}{warm}. Each RCD: {word(testing.rcd_school)}."


def clamp_tests(job: Job) -> tuple[ClampTest, ...]:
    """The test of each clamp that a load limit rests on."""
    rows = []
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
        rows.append(ClampTest(f"Load limit, clamp of {point.name}", told))
    return tuple(rows)
