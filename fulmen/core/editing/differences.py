"""Where two job documents differ: field by field, each by the name that a person knows it by."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from fulmen.core.field_messages import capital, place_and_name
from fulmen.core.model.base import Part
from fulmen.core.model.job import Job

Path = tuple[int | str, ...]


class Difference(Part):
    """One field that two documents hold differently; a list that is longer in one of them differs as a whole.

    `where` is which of several things it belongs to, such as "Circuit 1, section 2".
    """

    field: str
    where: str
    name: str
    mine: Any
    theirs: Any


def differences(mine: Job, theirs: Job) -> tuple[Difference, ...]:
    """Every field at which two jobs differ, in the order of the job file.

    >>> from fulmen.core.editing.blank_job import blank_job
    >>> [one.name for one in differences(blank_job("Drive"), blank_job("Yard"))]
    ['Title']
    """
    if mine == theirs:
        return ()
    found = _between(mine.model_dump(mode="json"), theirs.model_dump(mode="json"), ())
    return tuple(_difference(path, one, other) for path, one, other in found)


def _difference(path: Path, mine: Any, theirs: Any) -> Difference:
    where, name = place_and_name(path)
    # Whichever comes first begins a sentence.
    if not where:
        name = capital(name)
    return Difference(field=".".join(map(str, path)), where=capital(where), name=name, mine=mine, theirs=theirs)


def _between(mine: Any, theirs: Any, path: Path) -> Iterator[tuple[Path, Any, Any]]:
    if mine == theirs:
        return
    if isinstance(mine, dict) and isinstance(theirs, dict):
        for key in [*mine, *(key for key in theirs if key not in mine)]:
            yield from _between(mine.get(key), theirs.get(key), (*path, key))
    elif (
        isinstance(mine, list) and isinstance(theirs, list) and len(mine) == len(theirs) and _same_things(mine, theirs)
    ):
        for index, (one, other) in enumerate(zip(mine, theirs, strict=True)):
            yield from _between(one, other, (*path, index))
    else:
        yield path, mine, theirs


def _same_things(mine: list[Any], theirs: list[Any]) -> bool:
    """Whether entries stand for each other place by place: by their ids, where they have any."""
    return [_id(one) for one in mine] == [_id(one) for one in theirs]


def _id(entry: Any) -> Any:
    return entry.get("id") if isinstance(entry, dict) else None
