"""Changing how a charge point is fed: another layout, with how each fact is known beside the part it is of."""

from __future__ import annotations

from fulmen.core.editing.changes import Change, changes_between
from fulmen.core.editing.job_file import check_structure
from fulmen.core.editing.known_how import with_known_how
from fulmen.core.editing.layouts import layouts
from fulmen.core.errors import InputError
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.base import Part
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.job import Job


class LayoutChoice(Part):
    """One way to feed a charge point, in words, and the changes that take it."""

    words: str
    standing: bool
    changes: tuple[Change, ...]


def layout_choices(job: Job, charge_point: str) -> tuple[LayoutChoice, ...]:
    """Every layout for one charge point, the standing one first; a box only where the cable is too thick for the unit.

    Raises:
        InputError: no circuit feeds such a charge point.
    """
    check_structure(job)
    point, circuit = _fed(job, charge_point)
    fits = point.terminal_max_mm2 is None or circuit.cable.csa_mm2 <= point.terminal_max_mm2
    return tuple(
        LayoutChoice(
            words=one.words, standing=one.as_it_stands, changes=changes_between(job, with_known_how(job, one.job, {}))
        )
        for one in layouts(installation_of(job), charge_point)
        if not (one.boxed and fits)
    )


def _fed(job: Job, charge_point: str) -> tuple[ChargePoint, Circuit]:
    point = next((one for one in job.charge_points if one.id == charge_point), None)
    circuit = next((one for one in job.circuits if one.feeds == charge_point), None)
    if point is None or circuit is None:
        raise InputError("charge_point", f"No circuit feeds a charge point “{charge_point}”.")
    return point, circuit
