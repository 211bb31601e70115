"""The load of a house and a day on its supply: computed from what is sent, nothing stored."""

from __future__ import annotations

from flask import Response

from fulmen.core.demand.half_hours import read_half_hours
from fulmen.core.demand.meter_columns import cells_of
from fulmen.core.editing.job_file import check_structure
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.simulations.supply_day import SupplyDay, supply_day
from fulmen.web.blueprint import api_blueprint
from fulmen.web.guard import takes
from fulmen.web.policy import Role, allows
from fulmen.web.problems import Problem
from fulmen.web.replies import reply
from fulmen.web.survey_schemas import HalfHourAnswer, HalfHourFile

MOST_FILE_BYTES = 4_000_000
SHOWN_LINES = 3

supply = api_blueprint("supply")


@supply.post("/half-hours", responses={200: HalfHourAnswer, 413: Problem})
@allows(Role.ELECTRICIAN)
@takes(MOST_FILE_BYTES)
def summarise_half_hours(body: HalfHourFile) -> Response:
    """Read a file of half-hourly energy: its peak and when it was; how it lies is guessed; every bad line is told."""
    record, shape = read_half_hours(body.text, body.shape)
    lines = [line for line in body.text.removeprefix("\ufeff").splitlines()[:SHOWN_LINES] if line.strip()]
    return reply(
        HalfHourAnswer(record=record, shape=shape, first_lines=[cells_of(line, shape.separator) for line in lines])
    )


@supply.post("/supply-day", responses={200: SupplyDay})
@allows(Role.ELECTRICIAN)
def simulate_day(body: Job) -> Response:
    """Simulate the day that the job describes."""
    check_structure(body)
    return reply(supply_day(body, rule_set(body.rule_set)))
