"""The example job files that ship: what the demo loads and the houses of the practice sets."""

from __future__ import annotations

from functools import cache

from fulmen.core.editing.job_file import read_job
from fulmen.core.model.job import Job
from fulmen.settings import ROOT

EXAMPLES = ROOT / "examples"


@cache
def example(name: str) -> Job:
    """One of the examples, by its file's name without the ending."""
    return read_job((EXAMPLES / f"{name}.json").read_text(encoding="utf-8"))
