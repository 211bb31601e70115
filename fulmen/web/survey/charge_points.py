"""The catalogue of charge points: those that ship, and the user's own."""

from __future__ import annotations

from flask import Response

from fulmen.core.errors import InputError
from fulmen.core.reference.charge_point_catalogue import ChargePointRecord, charge_point_records
from fulmen.store.charge_points import keep_record, own_records, remove_record
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.survey.schemas import ChargePointList, RecordPath

charge_points = api_blueprint("charge_points")


@charge_points.get("/charge-points", responses={200: ChargePointList})
@allows(Role.ELECTRICIAN)
def list_charge_points() -> Response:
    """List the charge points to choose from."""
    return reply(ChargePointList(shipped=list(charge_point_records()), own=own_records(store())))


@charge_points.put("/charge-points/<record_id>", responses={200: ChargePointRecord, 409: Problem})
@allows(Role.ELECTRICIAN)
def keep_charge_point(path: RecordPath, body: ChargePointRecord) -> Response:
    """Add a charge point of your own, or replace it."""
    if body.id != path.record_id:
        raise InputError("id", f"The record is “{body.id}”, the address says “{path.record_id}”.")
    keep_record(store(), body, now())
    return reply(body)


@charge_points.delete("/charge-points/<record_id>", responses={204: None, 404: Problem})
@allows(Role.ELECTRICIAN)
def remove_charge_point(path: RecordPath) -> Response:
    """Remove a charge point of your own; jobs that used it keep its facts."""
    remove_record(store(), path.record_id, now())
    return Response(status=204)
