"""Changing fields of a job document by their paths, checked again as a whole."""

from __future__ import annotations

from typing import Any

from fulmen.core.job_file import parse_job
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
