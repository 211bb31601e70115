"""The load of a house and a day on its supply: computed from what is sent, nothing stored."""

from __future__ import annotations

from contextlib import suppress

from flask import Response

from fulmen.core.demand.half_hours import first_lines, read_half_hours
from fulmen.core.demand.meter_columns import MeterShape, MeterShapes, heading_of
from fulmen.core.editing.job_file import check_structure
from fulmen.core.errors import JobFileError
from fulmen.core.file_rows import cells_of
from fulmen.core.model.job import Job
from fulmen.core.model.load import HalfHours
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.simulations.benches.supply_day import SupplyDay, supply_day
from fulmen.store.kept import keep, kept
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.guard import HALF_HOURS_BYTES, takes
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.survey.schemas import HalfHourAnswer, HalfHourFile

SHOWN_LINES = 3
SHAPES = "meter_shapes"

supply = api_blueprint("supply")


@supply.post("/half-hours", responses={200: HalfHourAnswer, 413: Problem})
@allows(Role.ELECTRICIAN)
@takes(HALF_HOURS_BYTES)
def summarise_half_hours(body: HalfHourFile) -> Response:
    """Read a file of half-hourly energy: its peak and when it was; every bad line is told.

    How it lies is told, remembered for its heading, or guessed; what was told and can be read is remembered.
    """
    shapes = kept(store(), SHAPES, MeterShapes)
    record, shape = _read(body, shapes)
    if body.shape is not None and shapes.of(body.text) != body.shape:
        keep(store(), SHAPES, shapes.remembering(body.text, body.shape), now(), heading_of(body.text))
    lines = [cells_of(line, shape.separator) for line in first_lines(body.text, SHOWN_LINES)]
    return reply(HalfHourAnswer(record=record, shape=shape, first_lines=lines))


def _read(body: HalfHourFile, shapes: MeterShapes) -> tuple[HalfHours, MeterShape]:
    """A file by the shape that was told; else by the one remembered, and by a guess where that no longer fits."""
    remembered = shapes.of(body.text)
    if body.shape is None and remembered is not None:
        with suppress(JobFileError):
            return read_half_hours(body.text, remembered)
    return read_half_hours(body.text, body.shape)


@supply.post("/supply-day", responses={200: SupplyDay})
@allows(Role.ELECTRICIAN)
def simulate_day(body: Job) -> Response:
    """Simulate the day that the job describes."""
    check_structure(body)
    return reply(supply_day(body, rule_set(body.rule_set)))
