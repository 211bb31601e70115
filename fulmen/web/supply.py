"""The load of a house and a day on its supply: computed from what is sent, nothing stored."""

from __future__ import annotations

from flask import Response

from fulmen.core.demand.half_hours import read_half_hours
from fulmen.core.editing.job_file import check_structure
from fulmen.core.model.job import Job
from fulmen.core.model.load import HalfHours
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.simulations.supply_day import SupplyDay, supply_day
from fulmen.web.blueprint import api_blueprint
from fulmen.web.guard import takes
from fulmen.web.policy import Role, allows
from fulmen.web.problems import Problem
from fulmen.web.replies import reply
from fulmen.web.survey_schemas import HalfHourFile

MOST_FILE_BYTES = 4_000_000

supply = api_blueprint("supply")


@supply.post("/half-hours", responses={200: HalfHours, 413: Problem})
@allows(Role.ELECTRICIAN)
@takes(MOST_FILE_BYTES)
def summarise_half_hours(body: HalfHourFile) -> Response:
    """Read a file of half-hourly energy: its peak and when it was; every bad line is told."""
    return reply(read_half_hours(body.text))


@supply.post("/supply-day", responses={200: SupplyDay})
@allows(Role.ELECTRICIAN)
def simulate_day(body: Job) -> Response:
    """Simulate the day that the job describes."""
    check_structure(body)
    return reply(supply_day(body, rule_set(body.rule_set)))
