"""Testing: the register of instruments, readings from the test set and from files, what a set shows as it hangs."""

from __future__ import annotations

from base64 import b64decode

from flask import Response, abort, current_app
from pydantic import ValidationError

from fulmen.core.editing.job_file import check_structure
from fulmen.core.errors import InputError
from fulmen.core.file_text import text_of
from fulmen.core.model.readings import HOLDS, Reading
from fulmen.core.practice.exercise import Exercise
from fulmen.core.practice.scene import scene
from fulmen.core.simulations.as_built.flow import flow
from fulmen.core.simulations.as_built.set_up import Setup
from fulmen.core.verification.readings.brought.shape import ReadingShape
from fulmen.core.verification.readings.brought.table import columns_of
from fulmen.core.verification.readings.imported_readings import Taking, imported_lines
from fulmen.core.verification.readings.in_use import in_use
from fulmen.core.verification.readings.reading_fit import misfit
from fulmen.core.verification.steps.steps import definition_of
from fulmen.simulators.test_set_client import FromSet, TestSetError, ask
from fulmen.store.errors import TooMany
from fulmen.store.instruments_in_use import readings_by_job
from fulmen.store.kept import keep, kept
from fulmen.store.operations import add_readings, load_job
from fulmen.store.revisions import revision_of
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.limits import OneEach
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.jobs.replies import job_reply, judged
from fulmen.web.jobs.schemas import JobPath, JobState
from fulmen.web.jobs.signing import who_asks
from fulmen.web.testing.beside import Beside, Opened
from fulmen.web.testing.schemas import (
    Asked,
    FromTestSet,
    HereNow,
    InstrumentRegister,
    InstrumentsInUse,
    JobNow,
    ManyReadings,
    OtherHere,
    ReadingLines,
    ReadingsFile,
    ReadingShapes,
    StepAsked,
    StepDrawing,
)

KEY = "instruments"

testing = api_blueprint("testing")


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


@testing.get("/instruments/in-use", responses={200: InstrumentsInUse})
@allows(Role.ELECTRICIAN)
def read_in_use() -> Response:
    """Read what each instrument of the register has read since its last check, and beside which others."""
    register = kept(store(), KEY, InstrumentRegister).instruments
    return reply(InstrumentsInUse(instruments=in_use(register, readings_by_job(store()))))


@testing.post("/jobs/<int:job_id>/now", responses={200: JobNow, 404: Problem})
@allows(Role.ELECTRICIAN)
def ask_now(path: JobPath, body: HereNow) -> Response:
    """Ask how far a job has come and who else is at it, and say what is open here; nothing is stored."""
    beside: Beside = current_app.extensions["beside"]
    revision = revision_of(store(), path.job_id)
    others = beside.heard(path.job_id, body.device, Opened(body.name, body.step or "", body.subject or ""))
    told = tuple(OtherHere(name=one.name, step=one.step, subject=one.subject) for one in others)
    return reply(JobNow(revision=revision, others=told))


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


SHAPES_KEY = "reading_shapes"


@testing.post("/jobs/<int:job_id>/readings/file", responses={200: ReadingLines, 404: Problem})
@allows(Role.ELECTRICIAN)
def read_readings_file(path: JobPath, body: ReadingsFile) -> Response:
    """Show the fate of each line of a file of readings; nothing is kept."""
    job = load_job(store(), path.job_id).job
    shape = body.shape or kept(store(), SHAPES_KEY, ReadingShapes).by_instrument.get(body.instrument, ReadingShape())
    steps = judged(job).steps
    taking = Taking(body.taken_by, body.taken_at, body.instrument, body.again_because)
    text = text_of(_bytes_of(body.data), "data")
    try:
        found = imported_lines(text, shape, job, steps, taking)
    except InputError as error:
        if error.field != "shape":
            raise
        columns = columns_of(text)
        return reply(ReadingLines(columns=columns, unused=columns, shape=shape, lines=(), told=error.message))
    return reply(ReadingLines(columns=found.columns, unused=found.unused, shape=found.shape, lines=found.lines))


def _bytes_of(data: str) -> bytes:
    try:
        return b64decode(data, validate=True)
    except ValueError:
        raise InputError("data", "must be a file's bytes in base64") from None


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


@testing.post("/tests/drawing", responses={200: StepDrawing})
@allows(Role.ELECTRICIAN)
def draw_step(body: StepAsked) -> Response:
    """Draw the way that a step measures along; nothing is stored."""
    check_structure(body.job)
    whole = Exercise(body.job, body.charge_point, (), 0)
    step = whole.steps.get((body.step.value, body.subject))
    if step is None:
        raise InputError("step", f"{body.step} of {body.subject} is no step on the way to {body.charge_point}")
    setup, drawn = Setup.of(step), scene(whole)
    return reply(
        StepDrawing(
            scene=drawn,
            circuit=step.subject if step.subject in drawn.terminals else step.circuit,
            leads=setup.leads,
            linked=setup.linked,
            flow=flow(whole.sound, step, setup),
        )
    )
