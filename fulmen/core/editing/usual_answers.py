"""What a firm takes as usual of a route where nobody has said: kept in the store's settings, printed so where taken."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fulmen.core.editing.changes import Change
from fulmen.core.model.base import Part, number
from fulmen.core.model.job import Job
from fulmen.core.model.known_how import KnownHow


class UsualAnswers(Part):
    """The answers of this firm; null is none, the question is asked on every job."""

    grouped_circuits: Annotated[int, Field(strict=True, ge=1, le=9)] | None = None
    insulation_mm: Annotated[float, number(0, 100_000)] | None = None
    under_drive: bool | None = None
    concealed_under_50_mm: bool | None = None
    metal_frame: bool | None = None


def usual_changes(job: Job, usual: UsualAnswers) -> tuple[Change, ...]:
    """The changes that answer what nobody has said of the routes by what is usual, and say that they do.

    How a fact of a route is known is kept for the route, not for a section: sections are cut, joined and moved.
    """
    answers = {name: value for name, value in usual.model_dump().items() if value is not None}
    changes, known_how = [], dict(job.known_how)
    for index, circuit in enumerate(job.circuits):
        for place, section in enumerate(circuit.route):
            for name in section.unknown():
                if name in answers:
                    field = f"circuits.{index}.route.{place}.{name}"
                    changes.append(Change(field=field, value=answers[name]))
                    known_how[f"circuits.{index}.route.{name}"] = KnownHow.TAKEN_AS_USUAL
    if not changes:
        return ()
    return (*changes, Change(field="known_how", value={field: how.value for field, how in known_how.items()}))
