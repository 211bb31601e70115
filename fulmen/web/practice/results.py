"""Exercises as CSV: who, which, when, in what time, the total, and what each mark was got for."""

from __future__ import annotations

from csv import writer
from io import StringIO

from fulmen.core.materials.cells import cell
from fulmen.store.practice import MarkedResult

COLUMNS = ("learner", "exercise", "set", "begun", "minutes", "total", "ended by")


def results_csv(found: list[MarkedResult]) -> str:
    """A row an exercise; a column for each mark there was."""
    out = StringIO()
    table = writer(out)
    titles = list(dict.fromkeys(one.title for result in found for one in result.marks))
    table.writerow([*COLUMNS, *map(cell, titles)])
    for one in found:
        got = {mark.title: f"{mark.got} of {mark.of}" for mark in one.marks}
        told = one.result
        row = (
            one.learner,
            told.title,
            told.set_key,
            f"{told.begun_at:%Y-%m-%d %H:%M}",
            "" if one.minutes is None else f"{one.minutes:.0f}",
            "" if told.total is None else str(told.total),
            one.ended_by,
            *(got.get(title, "") for title in titles),
        )
        table.writerow([cell(text) for text in row])
    return out.getvalue()
