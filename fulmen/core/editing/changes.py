"""Changing fields of a job document by their paths, checked again as a whole."""

from __future__ import annotations

from typing import Any

from fulmen.core.editing.job_file import parse_job
from fulmen.core.model.base import Part
from fulmen.core.model.job import Job


class Change(Part):
    """One field of the job document and its new value."""

    field: str
    value: Any


def apply_changes(job: Job, changes: tuple[Change, ...]) -> Job:
    """The job with some fields replaced, checked again as a whole.

    Raises:
        JobFileError: a changed field cannot be taken.
    """
    data = job.model_dump(mode="json")
    for change in changes:
        target: Any = data
        *path, last = change.field.split(".")
        for part in path:
            target = target[int(part) if isinstance(target, list) else part]
        target[int(last) if isinstance(target, list) else last] = change.value
    return parse_job(data)


def changes_between(now: Job, then: Job) -> tuple[Change, ...]:
    """The parts by which one job differs from another, whole lists at a time."""
    return tuple(
        Change(field=field, value=_plain(getattr(then, field)))
        for field in ("supply", "boards", "circuits", "charge_points", "maker_cables", "known_how")
        if getattr(now, field) != getattr(then, field)
    )


def _plain(value: object) -> object:
    if isinstance(value, tuple):
        return [one.model_dump(mode="json") for one in value]
    if isinstance(value, dict):
        return {key: one.value for key, one in value.items()}
    return value.model_dump(mode="json")  # type: ignore[attr-defined]
