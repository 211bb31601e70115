"""A fact taken back never makes a check meet: every field of three jobs, put to not known one at a time."""

import copy
import unittest
from collections.abc import Iterator
from typing import Any

from fulmen.core.editing.job_file import parse_job
from fulmen.core.errors import JobFileError
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from tests.jobs import DEVICE_IN_UNIT, GARAGE, PEN_BOARD, RULES, job
from tests.sampling import some

NO_FACTS = {"readings", "decisions"}
Path = tuple[str | int, ...]


def leaves(part: Any, path: Path = ()) -> Iterator[tuple[Path, Any]]:
    if isinstance(part, dict | list):
        for key, value in part.items() if isinstance(part, dict) else enumerate(part):
            yield from leaves(value, (*path, key))
    elif part is not None and path[0] not in NO_FACTS:
        yield path, part


def without(data: dict[str, Any], path: Path, value: Any) -> dict[str, Any]:
    changed = copy.deepcopy(data)
    part: Any = changed
    for key in path[:-1]:
        part = part[key]
    part[path[-1]] = "not_seen" if value in ("yes", "no") else None
    return changed


class Unsaid(unittest.TestCase):
    def test_a_fact_taken_back_makes_nothing_meet(self) -> None:
        taken = 0
        for name in (DEVICE_IN_UNIT, GARAGE, PEN_BOARD):
            data = job(name).model_dump(mode="json")
            before = {one.key: one.verdict for one in evaluate(parse_job(data), RULES).findings}
            for path, value in some(leaves(data), 80, name):
                try:
                    found = evaluate(parse_job(without(data, path, value)), RULES).findings
                except JobFileError:
                    continue  # a field that can't be left open
                taken += 1
                risen = [
                    one.key for one in found if one.verdict is Verdict.MEETS is not before.get(one.key, one.verdict)
                ]
                with self.subTest(name, path=path):
                    self.assertEqual(risen, [])
        self.assertGreater(taken, 25)
