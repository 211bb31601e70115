"""Testing: the firm's register of instruments, and the order of a job's steps with the fewest moves."""

from __future__ import annotations

from flask import Response, abort, current_app
from pydantic import Field

from fulmen.core.editing.job_file import check_structure
from fulmen.core.evaluate import evaluate
from fulmen.core.model.base import Id, Part
from fulmen.core.model.instruments import Instrument
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.verification.coach import CoachPlan, coach
from fulmen.core.verification.steps import definition_of
from fulmen.simulators.test_set_client import TestSetError, ask
from fulmen.store.kept import keep, kept
from fulmen.store.operations import load_job
from fulmen.web.blueprint import api_blueprint
from fulmen.web.bounded import bounded
from fulmen.web.policy import Role, allows
from fulmen.web.problems import Problem
from fulmen.web.replies import now, reply, store
from fulmen.web.schemas import JobPath

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


@testing.post("/jobs/<int:job_id>/test-set", responses={200: FromTestSet, 404: Problem, 503: Problem})
@allows(Role.ELECTRICIAN)
def take_from_test_set(path: JobPath, body: Asked) -> Response:
    """Ask the test set for one step of a job."""
    load_job(store(), path.job_id)
    port = int(current_app.config["TEST_SET_PORT"])
    if not port:
        abort(503, "There is no test set: FULMEN_TEST_SET_PORT says where one answers. Nothing was taken.")
    try:
        shown = ask(port, str(path.job_id), body.step.value, body.subject)
    except TestSetError as error:
        abort(503, str(error))
    unit = definition_of(body.step).unit
    if shown.value is not None and shown.unit != unit:
        abort(503, f"The test set shows {shown.unit or 'no unit'} where {unit} is read. Nothing was taken.")
    return reply(
        FromTestSet(
            outcome=shown.outcome,
            value=shown.value,
            test_voltage_v=shown.test_voltage_v,
            instrument=shown.instrument,
        )
    )


@testing.post("/tests/order", responses={200: CoachPlan})
@allows(Role.ELECTRICIAN)
def order_tests(body: Job) -> Response:
    """The order of a job's test steps with the fewest moves, beside the book's; nothing is stored."""
    check_structure(body)
    steps = evaluate(body, rule_set(body.rule_set)).steps
    return reply(coach(steps, body.testing.moves, bounded().allows))
