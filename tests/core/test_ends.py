"""Every number of a job at the least and the greatest that its schema lets in: it is judged, never a breakdown.

Source of the ends: the published JSON Schema of the job file.
"""

import json
import unittest
from collections.abc import Iterator
from typing import Any

from fulmen.core.editing.job_file import parse_job
from fulmen.core.errors import JobFileError
from fulmen.core.evaluate import evaluate
from fulmen.core.judging.known import known_for
from fulmen.core.network_operator.form import operator_form
from tests.jobs import ALL_ELECTRIC, AT_SURVEY, HALFWAY, ROOT, RULES, job
from tests.sampling import some

SCHEMA = json.loads((ROOT / "docs" / "job-file.schema.json").read_text(encoding="utf-8"))
Path = tuple[str | int, ...]
HEATERS = [{"kind": "heating", "name": f"Heater {number}", "rating_a": 80.0} for number in range(12)]


def resolved(schema: dict[str, Any]) -> dict[str, Any]:
    """A schema with its references followed; of a value that may be null, the other."""
    while "$ref" in schema or "anyOf" in schema:
        if "anyOf" in schema:
            schema = next(one for one in schema["anyOf"] if one.get("type") != "null")
        else:
            schema = SCHEMA["$defs"][schema["$ref"].rpartition("/")[2]]
    return schema


def ends(data: Any, schema: dict[str, Any], path: Path = ()) -> Iterator[tuple[Path, float]]:
    """Each number of a document, by its path, with each of its ends."""
    schema = resolved(schema)
    if isinstance(data, dict):
        for name, inner in schema.get("properties", {}).items():
            yield from ends(data.get(name), inner, (*path, name))
    elif isinstance(data, list):
        for place, one in enumerate(data):
            yield from ends(one, schema.get("items", {}), (*path, place))
    elif schema.get("type") in ("number", "integer"):
        kind = int if schema["type"] == "integer" else float
        yield from ((path, kind(schema[end])) for end in ("minimum", "maximum") if end in schema)


def changed(document: str, path: Path, value: float) -> Any:
    """A document with one number replaced."""
    data = json.loads(document)
    inner = data
    for step in path[:-1]:
        inner = inner[step]
    inner[path[-1]] = value
    return data


class Ends(unittest.TestCase):
    def test_every_number_at_its_ends_is_judged(self) -> None:
        for name in (HALFWAY, ALL_ELECTRIC):
            document = job(name).model_dump_json()
            tried = 0
            for path, value in some(ends(json.loads(document), SCHEMA), 150, name):
                try:
                    whole = parse_job(changed(document, path, value))
                except JobFileError:
                    continue
                tried += 1
                with self.subTest(name, path=path, value=value):
                    self.assertTrue(evaluate(whole, RULES).findings)
            self.assertGreater(tried, 20)

    def test_every_reading_at_its_ends_is_judged(self) -> None:
        """Nought and the most that a reading takes, at every step with a figure, over range too."""
        taken = {"taken_by": "A. Tester", "taken_at": "2026-11-20T10:00:00Z"}
        for name in (HALFWAY, AT_SURVEY):
            whole = job(name)
            data = whole.model_dump(mode="json")
            steps = [step for step in evaluate(whole, RULES).steps if step.kind in ("figure", "either")]
            for step in some(steps, 15, name):
                for outcome, value in (("measured", 0.0), ("measured", 10_000.0), ("over_range", 0.0)):
                    reading = {"step": step.step, "subject": step.subject, "outcome": outcome, "value": value, **taken}
                    with self.subTest(name, step=step.step, outcome=outcome, value=value):
                        after = parse_job({**data, "readings": [*data["readings"], reading]})
                        self.assertTrue(evaluate(after, RULES).findings)

    def test_a_ze_of_nought_is_told_and_not_reckoned_with(self) -> None:
        """Before, it stopped the evaluation, and where it did not it counted as a loop."""
        for name in (HALFWAY, AT_SURVEY):
            whole = job(name)
            reading = {"step": "ze", "subject": "origin", "outcome": "measured", "value": 0.0,
                       "taken_by": "A. Tester", "taken_at": "2026-11-20T10:00:00Z"}  # fmt: skip
            data = whole.model_dump(mode="json") | {"readings": [reading]}
            without, after = job(name, {"readings": []}), parse_job(data)
            self.assertEqual(known_for(after, RULES).origin.ze, known_for(without, RULES).origin.ze)
            found = {one.rule: one.verdict for one in evaluate(after, RULES).findings}
            self.assertEqual(found["reading_fits"], "needs")

    def test_a_house_far_past_any_fuse_is_told_so(self) -> None:
        """Before, more than 400 A in all stopped the evaluation."""
        changes = {"load.method": "added_up", "load.appliances": HEATERS, "supply.load_limit_a": None}
        whole = job(ALL_ELECTRIC, changes)
        found = evaluate(whole, RULES)
        self.assertGreater(found.demand.total_a or 0.0, 400.0)
        self.assertEqual(found.findings[0].verdict, "falls_short")
        self.assertTrue(operator_form(whole, RULES))


if __name__ == "__main__":
    unittest.main()
