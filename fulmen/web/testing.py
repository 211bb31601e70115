"""Testing: the firm's register of instruments, and the order of a job's steps with the fewest moves."""

from __future__ import annotations

from flask import Response
from pydantic import Field

from fulmen.core.editing.job_file import check_structure
from fulmen.core.evaluate import evaluate
from fulmen.core.model.base import Part
from fulmen.core.model.instruments import Instrument
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.verification.coach import CoachPlan, coach
from fulmen.store.kept import keep, kept
from fulmen.web.blueprint import api_blueprint
from fulmen.web.bounded import bounded
from fulmen.web.policy import Role, allows
from fulmen.web.replies import now, reply, store

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


@testing.post("/tests/order", responses={200: CoachPlan})
@allows(Role.ELECTRICIAN)
def order_tests(body: Job) -> Response:
    """The order of a job's test steps with the fewest moves, beside the book's; nothing is stored."""
    check_structure(body)
    steps = evaluate(body, rule_set(body.rule_set)).steps
    return reply(coach(steps, body.testing.moves, bounded().allows))
