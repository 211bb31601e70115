"""Where two jobs differ is told field by field, by the names that people know them by."""

import json
import unittest
from typing import Any

from fulmen.core.editing.differences import differences
from fulmen.core.editing.job_file import parse_job
from fulmen.core.errors import JobFileError
from tests.core.test_unsaid import leaves, put
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, GARAGE, job
from tests.sampling import some


class Differences(unittest.TestCase):
    def test_a_job_differs_in_nothing_from_itself_read_again(self) -> None:
        for path in some(sorted(EXAMPLES.glob("*.json")), 5, "itself"):
            whole = job(path.stem)
            with self.subTest(path.stem):
                self.assertEqual(differences(whole, parse_job(json.loads(whole.model_dump_json()))), ())

    def test_every_field_taken_back_is_the_one_that_differs(self) -> None:
        for name in (DEVICE_IN_UNIT, GARAGE):
            whole, tried = job(name), 0
            data = whole.model_dump(mode="json")
            for path, value in some(leaves(data), 120, name):
                try:
                    other = parse_job(put(data, path, "not_seen" if value in ("yes", "no") else None))
                except JobFileError:
                    continue
                if other == whole:
                    continue
                tried += 1
                found = differences(whole, other)
                with self.subTest(name, path=path):
                    self.assertEqual([one.field for one in found], [".".join(map(str, path))])
                    self.assertEqual(
                        (found[0].mine, found[0].theirs), (value, _at(other.model_dump(mode="json"), path))
                    )
                    self.assertTrue(found[0].name)
            self.assertGreater(tried, 5)

    def test_a_list_of_other_things_differs_as_a_whole(self) -> None:
        more = job(changes={"circuits.0.route.1.length_m": 3.0, "boards.0.name": "Other"})
        self.assertEqual(
            [(one.where, one.name) for one in differences(job(), more)],
            [("Board 1", "name"), ("Circuit 1, section 2", "length")],
        )
        shorter = job(changes={"readings": []})
        self.assertEqual([one.field for one in differences(job(), shorter)], ["readings"])
        other_way_round = job(GARAGE).model_dump(mode="json")
        other_way_round["circuits"] = other_way_round["circuits"][::-1]
        self.assertEqual([one.field for one in differences(job(GARAGE), parse_job(other_way_round))], ["circuits"])


def _at(part: Any, path: tuple[str | int, ...]) -> Any:
    for key in path:
        part = part[key]
    return part


if __name__ == "__main__":
    unittest.main()
