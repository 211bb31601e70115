"""Changing how a charge point is fed: another layout, a second charge point on the same board, one less."""

from __future__ import annotations

from fulmen.core.editing.changes import Change, changes_between
from fulmen.core.editing.job_file import check_structure
from fulmen.core.editing.layouts import free_id, layouts
from fulmen.core.errors import InputError
from fulmen.core.model.base import Part
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit, Phase
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
        LayoutChoice(words=one.words, standing=one.as_it_stands, changes=changes_between(job, one.job))
        for one in layouts(job, charge_point)
        if not (one.boxed and fits)
    )


def second_charge_point(job: Job, charge_point: str) -> tuple[Change, ...]:
    """The changes that put a second charge point beside one: like it, on its own circuit from the same board.

    On a three-phase board the new circuit takes the next line conductor. What is true of one unit only (serial
    number) starts empty.

    Raises:
        InputError: no circuit feeds such a charge point, or ten stand there already.
    """
    check_structure(job)
    point, circuit = _fed(job, charge_point)
    if len(job.charge_points) >= 10:
        raise InputError("charge_point", "A job holds at most ten charge points.")
    other = point.model_copy(
        update={"id": free_id(job, "charge-point"), "name": f"{point.name} 2"[:200], "serial_number": ""}
    )
    phases = list(Phase)
    following = phases[(phases.index(circuit.phase) + 1) % len(phases)]
    twin = circuit.model_copy(
        update={
            "id": free_id(job, "ev"), "name": f"{circuit.name} 2"[:200], "way": "", "feeds": other.id,
            "fitted_with_this_job": True,
            "phase": following if job.supply.phase_count == 3 else circuit.phase,
        }
    )  # fmt: skip
    return _changes(job, (*job.circuits, twin), (*job.charge_points, other))


def without_charge_point(job: Job, charge_point: str) -> tuple[Change, ...]:
    """The changes that take a charge point and its circuit out; readings taken of it stay with the job.

    Raises:
        InputError: there is no such charge point, or it is the only one.
    """
    check_structure(job)
    if charge_point not in {one.id for one in job.charge_points}:
        raise InputError("charge_point", f"There is no charge point “{charge_point}”.")
    if len(job.charge_points) == 1:
        raise InputError("charge_point", "It is the only charge point of this job.")
    circuits = tuple(one for one in job.circuits if one.feeds != charge_point)
    return _changes(job, circuits, tuple(one for one in job.charge_points if one.id != charge_point))


def _fed(job: Job, charge_point: str) -> tuple[ChargePoint, Circuit]:
    point = next((one for one in job.charge_points if one.id == charge_point), None)
    circuit = next((one for one in job.circuits if one.feeds == charge_point), None)
    if point is None or circuit is None:
        raise InputError("charge_point", f"No circuit feeds a charge point “{charge_point}”.")
    return point, circuit


def _changes(job: Job, circuits: tuple[Circuit, ...], points: tuple[ChargePoint, ...]) -> tuple[Change, ...]:
    changed = job.model_copy(update={"circuits": circuits, "charge_points": points})
    return changes_between(job, changed)
