"""How a fact is known follows the part that it is a fact of, wherever an act puts that part.

`Job.known_how` names a fact by its path, with places in lists. An act that takes parts out, moves or copies them
changes places: what was taken as usual must not come to look as if somebody had seen it, nor the other way about.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from fulmen.core.model.job import Job

# A part of a path: a field, a place in a list, or the name of what stands at that place.
Anchor = tuple[str, ...]


def with_known_how(before: Job, after: Job, copies: Mapping[str, str]) -> Job:
    """The job after an act, with how each fact is known beside the part it is of.

    Args:
        before: the job that the act was done to; its `known_how` is the one that holds.
        after: what the act made of it.
        copies: the name of each copy by the name of what it is a copy of; a copy's facts are known as the first's.
    """
    found = {}
    for path, how in before.known_how.items():
        anchor = _anchor(before, path)
        for one in dict.fromkeys((anchor, tuple(copies.get(part, part) for part in anchor))):
            place = _path(after, one)
            if place is not None:
                found[place] = how
    return after if found == before.known_how else after.model_copy(update={"known_how": found})


def _anchor(job: Job, path: str) -> Anchor:
    """A path with names in the place of places, where what stands there has one."""
    here: Any = job
    anchor = []
    for part in path.split("."):
        if isinstance(here, tuple):
            here = here[int(part)] if part.isdigit() and int(part) < len(here) else None
            anchor.append(getattr(here, "id", part))
        else:
            here = getattr(here, part, None)
            anchor.append(part)
    return tuple(anchor)


def _path(job: Job, anchor: Anchor) -> str | None:
    """The path that a fact has now; None where its part is gone."""
    here: Any = job
    parts = []
    for part in anchor:
        if isinstance(here, tuple):
            named = [place for place, one in enumerate(here) if getattr(one, "id", str(place)) == part]
            if not named:
                return None
            parts.append(str(named[0]))
            here = here[named[0]]
        else:
            parts.append(part)
            here = getattr(here, part, None)
    return ".".join(parts)
