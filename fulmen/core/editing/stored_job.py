"""Reading what older versions stored: what can't be shown or meant any more is cleaned, and told field by field."""

from __future__ import annotations

from collections.abc import Callable
from copy import deepcopy
from typing import Any

from fulmen.core.editing.job_file import parse_job
from fulmen.core.errors import JobFileError
from fulmen.core.model.base import FIRST_YEAR, LAST_YEAR, shown
from fulmen.core.model.job import Job


def parse_stored_job(data: dict[str, Any]) -> tuple[Job, tuple[str, ...]]:
    """The job of a stored document, and the fields that had to be cleaned; none for whatever this version stored.

    Raises:
        JobFileError: something else is wrong with it.
    """
    fields: list[str] = []
    for _ in range(MOST_PASSES):
        try:
            return parse_job(data), tuple(dict.fromkeys(fields))
        except JobFileError as error:
            if error.invalid is None:
                raise
            data, mended = _mended(error.invalid)
            if not mended:
                raise
            fields.extend(mended)
    return parse_job(data), tuple(dict.fromkeys(fields))


# A text may hold two things that can't stay, of which the first alone is told.
MOST_PASSES = 3


def clean_value(value: Any) -> Any:
    """A stored answer: a text, or a list of them, cleaned."""
    if isinstance(value, list):
        return [clean_value(one) for one in value]
    return shown(value) if isinstance(value, str) else value


def _in_one_line(text: str) -> str:
    return " ".join(shown(text).split())


def _near_year(day: str) -> str:
    year, rest = int(day[:4]), day[4:]
    return f"{min(max(year, FIRST_YEAR), LAST_YEAR):04d}{rest}"


# Our own refusals by their kind, and what mends each.
MENDS: dict[str, Callable[[Any], Any]] = {
    "unshowable": shown,
    "string_unicode": shown,
    "one_line": _in_one_line,
    "tiny": lambda figure: 0.0,
    "year": _near_year,
}


def _mended(invalid: tuple[Any, dict[str, Any]]) -> tuple[dict[str, Any], tuple[str, ...]]:
    """The document with each of our own refusals mended where it stands."""
    error, given = invalid
    document, fields = deepcopy(given), []
    for entry in error.errors(include_url=False):
        mend = MENDS.get(entry["type"])
        if mend is None:
            continue
        *path, last = entry["loc"]
        target: Any = document
        for step in path:
            target = target[step]
        target[last] = mend(target[last])
        fields.append(".".join(str(step) for step in entry["loc"]))
    return document, tuple(fields)
