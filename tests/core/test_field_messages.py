"""Whatever is put into whichever field, the refusal is a sentence of ours that names the field, and its range or kind."""

import copy
import json
import re
import unittest
from pathlib import Path
from typing import Annotated, Any

from pydantic import Field, TypeAdapter, ValidationError

from fulmen.core.editing.job_file import parse_job
from fulmen.core.errors import JobFileError
from fulmen.core.field_messages import LETTERS, LIST_WORDS, NAME, input_errors, place
from fulmen.core.model.job import Job
from tests.core.test_unsaid import leaves
from tests.jobs import EXAMPLES, example_text
from tests.sampling import some

BAD: tuple[Any, ...] = (
    "70630-06-30", "2026-13-40", "2026-06-01T10:00", "x", "x" * 5000, "", -1e9, 1e12, 3.7, True, None, {}, [],
)  # fmt: skip
# Words of the library that reads, which nobody at a charge point says.
NOT_OURS = ("nput should", "valid string", "valid boolean", "pattern", "datetime", "dictionary", "tuple", "^")


class Messages(unittest.TestCase):
    def test_every_refusal_is_ours_and_names_its_field(self) -> None:
        for path in some(sorted(EXAMPLES.glob("*.json")), 3, "examples"):
            data = json.loads(example_text(path.stem))
            for where, _ in some(leaves(data), 40, path.stem):
                for bad in BAD:
                    with self.subTest(path.stem, field=where, bad=str(bad)[:20]):
                        self.refused(data, where, bad)

    def refused(self, data: dict[str, Any], where: tuple[str | int, ...], bad: Any) -> None:
        changed = copy.deepcopy(data)
        part: Any = changed
        for key in where[:-1]:
            part = part[key]
        part[where[-1]] = bad
        try:
            parse_job(changed)
        except JobFileError as error:
            for problem in error.problems:
                self.assertNotRegex(problem.message, "|".join(map(_plain, NOT_OURS)))
                self.assertLessEqual(len(problem.message), 400)

    def test_a_year_that_was_typed_wrong_is_told_with_the_years_that_can_be(self) -> None:
        data = json.loads(example_text("tn-c-s-device-in-unit"))
        data["testing"]["instruments"][0]["calibration_due"] = "70630-06-30"
        with self.assertRaises(JobFileError) as caught:
            parse_job(data)
        self.assertEqual(
            [(one.field, one.message) for one in caught.exception.problems],
            [("testing.instruments.0.calibration_due",
              "Instrument 1: calibration due must be a day such as 2026-06-30, between the years 1990 and 2100; "
              "you gave '70630-06-30'.")],
        )  # fmt: skip

    def test_no_form_is_told_of_that_the_text_has(self) -> None:
        """Every form that a field of the API asks for: what is told of it is not true of what it refuses."""
        text = (Path(__file__).resolve().parents[2] / "docs" / "openapi.json").read_text(encoding="utf-8")
        forms = {str(one) for one in re.findall(r'"pattern": ("(?:[^"\\\\]|\\\\.)*")', text)}
        patterns = {json.loads(one) for one in forms}
        self.assertGreater(len(patterns), 10)
        told = {}
        for pattern in patterns:
            adapter = TypeAdapter(Annotated[str, Field(pattern=pattern)])
            for given in ("a_name_of_32_letters_and_digits_1", "abcdefgh12345678", "a_b", "a-b", "A b", "é"):
                try:
                    adapter.validate_python(given)
                except ValidationError as error:
                    told[pattern, given] = input_errors(error)[0].message
        for words, has in ((NAME, "[a-z0-9_]+"), (LETTERS, "[a-z_]+")):
            self.assertEqual([one for one in told if words in told[one] and re.fullmatch(has, one[1])], [])
            self.assertTrue(any(words in one for one in told.values()))

    def test_every_list_of_the_job_has_a_word_for_one_of_it(self) -> None:
        schema = Job.model_json_schema()
        lists = {
            name
            for part in (schema, *schema["$defs"].values())
            for name, field in part.get("properties", {}).items()
            if field.get("type") == "array"
        }
        self.assertGreater(len(lists), 15)
        self.assertEqual([name for name in sorted(lists) if name not in LIST_WORDS], [])
        self.assertEqual([name for name in sorted(lists) if "ntry" in place((name, 0))], [])


def _plain(words: str) -> str:
    return "\\" + words if words == "^" else words
