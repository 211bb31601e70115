"""What a job says that it fits: every part of it that is new with this job, wherever it stands."""

from __future__ import annotations

from collections.abc import Iterator

from pydantic import BaseModel

from fulmen.core.findings.words import word
from fulmen.core.model.job import Job
from fulmen.core.model.tails import TailsStretch

FITTED = "fitted_with_this_job"


def put_in(job: Job) -> dict[str, str]:
    """The field that says so of each part that is new with this job, with the part's name."""
    return dict(_parts(job, ""))


def _parts(part: object, path: str) -> Iterator[tuple[str, str]]:
    if isinstance(part, tuple):
        for place, one in enumerate(part):
            yield from _parts(one, f"{path}{place}.")
    elif isinstance(part, BaseModel):
        if getattr(part, FITTED, False):
            yield f"{path}{FITTED}", _name(part)
        for field in type(part).model_fields:
            yield from _parts(getattr(part, field), f"{path}{field}.")


def _name(part: object) -> str:
    """What it is called; what has no name of its own by its kind."""
    if isinstance(part, TailsStretch):
        return "tails"
    return getattr(part, "name", "") or word(part.kind)  # type: ignore[attr-defined]
