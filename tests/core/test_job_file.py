"""The job file: exact round trips, and one clear sentence naming the field for everything that can't be taken."""

import json
import unittest
from typing import Any

import jsonschema
from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.editing.blank_job import blank_job
from fulmen.core.editing.job_file import MAX_BYTES, parse_job, read_job, write_job
from fulmen.core.errors import JobFileError
from fulmen.core.evaluate import evaluate
from fulmen.core.reference.rule_set import rule_set
from tests.figures import figures, lines
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, ROOT, example_text
from tests.sampling import some, tries

SCHEMA = json.loads((ROOT / "docs" / "job-file.schema.json").read_text(encoding="utf-8"))


def broken(path: str, value: Any) -> dict[str, Any]:
    """An example's data with one field replaced, unchecked."""
    data: Any = json.loads(example_text(DEVICE_IN_UNIT))
    target = data
    *parts, last = path.split(".")
    for part in parts:
        target = target[int(part) if isinstance(target, list) else part]
    target[int(last) if isinstance(target, list) else last] = value
    return data


class RoundTrip(unittest.TestCase):
    def test_every_example_writes_back_to_its_own_bytes(self) -> None:
        names = sorted(EXAMPLES.glob("*.json"))
        self.assertGreaterEqual(len(names), 4)
        for path in names:
            with self.subTest(path.name):
                text = path.read_text(encoding="utf-8")
                self.assertEqual(write_job(read_job(text)), text)

    def test_examples_fit_the_published_schema(self) -> None:
        fits = jsonschema.Draft202012Validator(SCHEMA)
        for path in some(sorted(EXAMPLES.glob("*.json")), 6, "schema"):
            with self.subTest(path.name):
                fits.validate(json.loads(path.read_text(encoding="utf-8")))

    def test_a_blank_job_reads_back(self) -> None:
        job = blank_job("Drive", "1")
        self.assertEqual(read_job(write_job(job)), job)

    @tries(60)
    @given(lines(100), figures(0.1, 500), st.sampled_from(["tn_c_s", "tn_s", "tt", "not_seen"]))
    def test_any_text_and_length_survives(self, name: str, length_m: float, earthing: str) -> None:
        data = broken("site.householder", name)
        data["circuits"][0]["route"][0]["length_m"] = length_m
        data["supply"]["earthing"] = earthing
        job = parse_job(data)
        self.assertEqual(read_job(write_job(job)), job)
        evaluate(job, rule_set())


class BadInput(unittest.TestCase):
    def refused(self, data: Any) -> JobFileError:
        with self.assertRaises(JobFileError) as caught:
            parse_job(data)
        return caught.exception

    def test_each_bad_field_is_named_with_its_range_and_unit(self) -> None:
        length = "circuits.0.route.1.length_m"
        cases: list[tuple[str, Any, str]] = [
            (length, "abc", "Circuit 1, section 2: length must be a number in m; you gave 'abc'."),
            (length, -3, "Circuit 1, section 2: length must be at least 0.1 m; you gave -3."),
            (length, 10_000, "Circuit 1, section 2: length must be at most 500 m; you gave 10000."),
            (length, float("nan"), "number in m"),
            (length, float("inf"), "number in m"),
            (length, True, "number in m"),
            (length, None, "number in m"),
            ("circuits.0.cable.record", "rope", "There is no cable “rope”"),
            ("circuits.0.cable.csa_mm2", 5.0, "is not a size that is made"),
            (
                "circuits.0.device.rating_a",
                33,
                "must be 6, 10, 16, 20, 25, 32, 40, 50, 63, 80, 100, 125, 160, 200 or 250; you gave 33",
            ),
            ("circuits.0.route.0.method", "Z", "must be"),
            ("circuits.0.from_board", "attic", "There is no board “attic”"),
            ("circuits.0.feeds", "nowhere", "There is no board or charge point “nowhere”"),
            ("charge_points.0.ip_code", "IPXX", "must be a code such as IP54"),
            ("supply.colour", "red", "is not a field of a job file"),
            ("supply.tails.0.length_m", 0.09, "at least 0.1 m"),
            ("supply.tails.0.length_m", 50.1, "at most 50 m"),
            ("title", "", "at least 1 characters"),
            ("title", "x" * 121, "too long"),
            ("rule_set", "of_next_year", "no edition"),
            ("schema_version", 9, "Schema version must be 1 to 8"),
            ("circuits.0.id", "board", "used twice"),
            ("readings.2.value", None, "a measured step needs its figure"),
            ("readings.0.taken_at", "2026-11-18T10:00:00", "offset from UTC"),
        ]
        for path, value, words in cases:
            with self.subTest(path=path, value=value):
                problem = self.refused(broken(path, value)).problems[0]
                self.assertTrue(path.startswith(problem.field), problem.field)
                self.assertTrue(problem.field, "the field is named")
                self.assertIn(words, problem.message)

    def test_every_limit_of_a_length_holds_at_its_end(self) -> None:
        for length_m in (0.1, 500):
            parse_job(broken("circuits.0.route.1.length_m", length_m))

    def test_all_faults_are_told_at_once(self) -> None:
        data = broken("circuits.0.route.1.length_m", "abc")
        data["supply"]["ze_enquiry_ohm"] = -1
        self.assertEqual(len(self.refused(data).problems), 2)

    def test_a_circuit_loop(self) -> None:
        data = broken("title", "Loop")
        board = {**data["boards"][0], "id": "garage", "name": "Garage", "incomer": []}
        there = {**data["circuits"][0], "id": "out", "feeds": "garage"}
        back = {**data["circuits"][0], "id": "back", "from_board": "garage", "feeds": "board"}
        data["boards"].append(board)
        data["circuits"] += [there, back]
        error = self.refused(data)
        self.assertIn("closes a loop", error.problems[0].message)
        self.assertIn("feeds", error.problems[0].field)

    def test_a_charge_point_fed_twice(self) -> None:
        data = broken("title", "Twice")
        data["circuits"].append({**data["circuits"][0], "id": "second"})
        self.assertIn("fed twice", self.refused(data).problems[0].message)

    def test_what_is_no_job_file(self) -> None:
        cases = [
            ("", "breaks off"),
            (example_text(DEVICE_IN_UNIT)[:500], "breaks off or is no JSON at line"),
            ('{"title": NaN}', "holds NaN"),
            ("[1, 2]", "one JSON object"),
            ("[" * 100_000, "nested too deeply"),
            (" " * (MAX_BYTES + 1), "1.0 MB; at most 1 MB"),
            (json.dumps({"title": "x" * 2_000_000}), "2.0 MB; at most 1 MB"),
        ]
        for text, words in cases:
            with self.subTest(words), self.assertRaises(JobFileError) as caught:
                read_job(text)
            self.assertIn(words, str(caught.exception))

    def test_at_and_below_the_largest_file(self) -> None:
        text = write_job(blank_job("Drive"))
        self.assertEqual(read_job(text + " " * (MAX_BYTES - len(text.encode()))).title, "Drive")

    @tries(150)
    @given(st.recursive(st.none() | st.booleans() | st.floats() | st.text(max_size=8),
                        lambda inner: st.lists(inner, max_size=3) | st.dictionaries(
                            st.sampled_from(["title", "supply", "circuits", "route", "id", "x"]), inner, max_size=4)))  # fmt: skip
    def test_whatever_comes_is_taken_or_refused_by_name(self, data: Any) -> None:
        try:
            parse_job(data)
        except JobFileError as error:
            self.assertTrue(error.problems[0].message.endswith("."))
