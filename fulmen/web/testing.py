"""Testing: the register of instruments, readings from the test set and from files, what a set shows as it hangs."""

from __future__ import annotations

from typing import Annotated

from flask import Response, abort, current_app
from pydantic import Field, ValidationError

from fulmen.core.editing.job_file import check_structure
from fulmen.core.errors import InputError
from fulmen.core.model.base import Id, Line, Name, Part, Zoned
from fulmen.core.model.instruments import Instrument
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS, Outcome, Reading, StepKey
from fulmen.core.practice.exercise import Exercise
from fulmen.core.practice.scene import Scene, scene
from fulmen.core.simulations.as_built.flow import Flow, flow
from fulmen.core.simulations.as_built.set_up import Setup
from fulmen.core.verification.instruments.dials import Link, Point
from fulmen.core.verification.readings.imported_readings import (
    MOST_LINES,
    ImportedLine,
    ReadingShape,
    Taking,
    columns_of,
    imported_lines,
)
from fulmen.core.verification.readings.reading_fit import misfit
from fulmen.core.verification.steps.steps import definition_of
from fulmen.simulators.test_set_client import FromSet, TestSetError, ask
from fulmen.store.errors import TooMany
from fulmen.store.kept import keep, kept
from fulmen.store.operations import add_readings, load_job
from fulmen.web.blueprint import api_blueprint
from fulmen.web.limits import OneEach
from fulmen.web.policy import Role, allows
from fulmen.web.problems import Problem
from fulmen.web.replies import job_reply, judged, now, reply, store
from fulmen.web.schemas import JobPath, JobState
from fulmen.web.signing import who_asks

KEY = "instruments"

testing = api_blueprint("testing")


class InstrumentRegister(Part):
    """What the firm measures with: offered to every job."""

    instruments: tuple[Instrument, ...] = Field(default=(), max_length=20)


@testing.get("/instruments", responses={200: InstrumentRegister})
@allows(Role.ELECTRICIAN)
def read_instruments() -> Response:
    """Read the firm's register of instruments."""
    return reply(kept(store(), KEY, InstrumentRegister))


@testing.put("/instruments", responses={200: InstrumentRegister})
@allows(Role.ELECTRICIAN)
def replace_instruments(body: InstrumentRegister) -> Response:
    """Replace the firm's register; what stands in a job stays there."""
    keep(store(), KEY, body, now(), ", ".join(one.name for one in body.instruments))
    return reply(body)


class Asked(Part):
    """One step that the test set is asked to read."""

    step: StepKey
    subject: Id


class FromTestSet(Part):
    """What the test set showed of a step; nothing is kept."""

    outcome: Outcome
    value: float | None
    test_voltage_v: int | None
    instrument: str


@testing.post("/jobs/<int:job_id>/test-set", responses={200: FromTestSet, 404: Problem, 409: Problem, 503: Problem})
@allows(Role.ELECTRICIAN)
def take_from_test_set(path: JobPath, body: Asked) -> Response:
    """Ask the test set for one step of a job."""
    load_job(store(), path.job_id)
    if body.step in HOLDS:
        raise InputError("step", "A hold is signed by a person; no instrument shows one.")
    port = int(current_app.config["TEST_SET_PORT"])
    if not port:
        abort(404, "There is no test set: FULMEN_TEST_SET_PORT says where one answers. Nothing was taken.")
    at_test_set: OneEach = current_app.extensions["at_test_set"]
    with at_test_set.turn(who_asks()) as free:
        if not free:
            raise TooMany("The test set is still at your last reading: wait for it, then ask again. Nothing was taken.")
        try:
            shown = ask(port, str(path.job_id), body.step.value, body.subject)
        except TestSetError as error:
            abort(503, str(error))
    unit = definition_of(body.step).unit
    if shown.value is not None and shown.unit != unit:
        abort(503, f"The test set shows {shown.unit or 'no unit'} where {unit} is read. Nothing was taken.")
    found = misfit(_as_reading(body, shown))
    if found is not None:
        abort(503, f"{found.message} Nothing was taken.")
    return reply(
        FromTestSet(
            outcome=shown.outcome,
            value=shown.value,
            test_voltage_v=shown.test_voltage_v,
            instrument=shown.instrument,
        )
    )


def _as_reading(asked: Asked, shown: FromSet) -> Reading:
    """What the set showed, as the reading that it would be."""
    try:
        return Reading(
            step=asked.step,
            subject=asked.subject,
            outcome=shown.outcome,
            value=shown.value,
            reason="as the set showed it",
            taken_by="test set",
            taken_at=now(),
        )
    except ValidationError:
        abort(503, "What the test set shows is no figure that can be read. Nothing was taken.")


class ReadingsFile(Part):
    """A file of readings, who brings it in, and its columns; without them those kept for the instrument."""

    text: Annotated[str, Field(max_length=400_000)]
    shape: ReadingShape | None = None
    taken_by: Name
    taken_at: Zoned
    instrument: Line = ""
    again_because: Line = ""


class ReadingLines(Part):
    """The fate of each line of a file, and how it was read; nothing is kept."""

    columns: tuple[str, ...]
    shape: ReadingShape
    lines: tuple[ImportedLine, ...]


class ManyReadings(Part):
    """Readings to keep together, and the columns that the next file of their instrument is read by."""

    readings: Annotated[tuple[Reading, ...], Field(min_length=1, max_length=MOST_LINES)]
    shape: ReadingShape | None = None
    instrument: Line = ""


class ReadingShapes(Part):
    """The columns of each instrument's files."""

    by_instrument: dict[Line, ReadingShape] = Field(default_factory=dict, max_length=50)


SHAPES_KEY = "reading_shapes"


@testing.post("/jobs/<int:job_id>/readings/file", responses={200: ReadingLines, 404: Problem})
@allows(Role.ELECTRICIAN)
def read_readings_file(path: JobPath, body: ReadingsFile) -> Response:
    """Show the fate of each line of a file of readings; nothing is kept."""
    job = load_job(store(), path.job_id).job
    shape = body.shape or kept(store(), SHAPES_KEY, ReadingShapes).by_instrument.get(body.instrument, ReadingShape())
    steps = judged(job).steps
    taking = Taking(body.taken_by, body.taken_at, body.instrument, body.again_because)
    lines = imported_lines(body.text, shape, job, steps, taking)
    return reply(ReadingLines(columns=columns_of(body.text), shape=shape, lines=lines))


@testing.post("/jobs/<int:job_id>/readings/many", responses={201: JobState, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def take_readings(path: JobPath, body: ManyReadings) -> Response:
    """Append several readings, all or none."""
    after = add_readings(store(), path.job_id, body.readings, now())
    if body.shape is not None:
        # Where nobody says what it was, the next file that nobody names is read alike.
        shapes = kept(store(), SHAPES_KEY, ReadingShapes).by_instrument | {body.instrument: body.shape}
        keep(store(), SHAPES_KEY, ReadingShapes(by_instrument=shapes), now(), body.instrument or "no instrument named")
    return job_reply(after, 201)


class StepAsked(Part):
    """A step of a job, on the way to one charge point."""

    job: Job
    charge_point: Id
    step: StepKey
    subject: Id


class StepDrawing(Part):
    """Where a step's leads go in the house as designed, and what flows where."""

    scene: Scene
    circuit: str
    leads: dict[str, tuple[Point, ...]]
    linked: Link
    flow: tuple[Flow, ...]


@testing.post("/tests/drawing", responses={200: StepDrawing})
@allows(Role.ELECTRICIAN)
def draw_step(body: StepAsked) -> Response:
    """Draw the way that a step measures along; nothing is stored."""
    check_structure(body.job)
    whole = Exercise(body.job, body.charge_point, (), 0)
    step = whole.steps.get((body.step.value, body.subject))
    if step is None:
        raise InputError("step", f"{body.step} of {body.subject} is no step on the way to {body.charge_point}")
    setup = Setup.of(step)
    return reply(
        StepDrawing(
            scene=scene(whole),
            circuit=step.circuit,
            leads=setup.leads,
            linked=setup.linked,
            flow=flow(whole.sound, step, setup),
        )
    )
