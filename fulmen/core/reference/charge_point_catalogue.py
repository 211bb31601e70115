"""The catalogue of charge points: invented, generic records that ship, and the shape of a user's own."""

from __future__ import annotations

import json
from functools import cache
from importlib.resources import files

from pydantic import ValidationError

from fulmen.core.errors import JobFileError
from fulmen.core.field_messages import input_errors
from fulmen.core.model.base import Id, Line, Part
from fulmen.core.model.charge_point import ChargePointFacts


class ChargePointRecord(Part):
    """One kind of charge point: a name in trade terms, and the facts that matter electrically."""

    id: Id
    name: Line
    invented: bool = False
    grant_eligible: bool = False
    facts: ChargePointFacts


@cache
def charge_point_records() -> tuple[ChargePointRecord, ...]:
    """Every record that ships, in the order of the data file."""
    text = files("fulmen.core.reference").joinpath("charge_points.json").read_text(encoding="utf-8")
    return tuple(ChargePointRecord.model_validate(entry) for entry in json.loads(text))


def parse_record(data: object) -> ChargePointRecord:
    """The record of already decoded JSON.

    Raises:
        JobFileError: it names each field at fault.
    """
    try:
        return ChargePointRecord.model_validate(data)
    except ValidationError as error:
        raise JobFileError(input_errors(error)) from None
