"""A step that was taken again says whose reading it follows, and why; nothing counts silently over another's."""

import itertools
import unittest
from typing import Any

from fulmen.core.errors import InputError
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.model.readings import Reading
from fulmen.core.verification.readings.taken_again import check_told
from tests.core.test_earth_readings import read
from tests.jobs import DEVICE_IN_UNIT, evaluation, finding, job

MEETS, CALL = Verdict.MEETS, Verdict.YOUR_CALL
WHY = "a loose terminal, made good"


def taken(
    value: float | None, minute: int, by: str = "R. Quillfeather", step: str = "zs", **more: Any
) -> dict[str, Any]:
    return read(step, value, minute=minute) | {"taken_by": by, **more}


def after(reading: dict[str, Any]) -> dict[str, Any]:
    return {"taken_by": reading["taken_by"], "taken_at": reading["taken_at"]}


def judged(*readings: dict[str, Any], decisions: Any = ()) -> Finding:
    return finding("taken_again", DEVICE_IN_UNIT, {"readings": list(readings), "decisions": list(decisions)})


class Told(unittest.TestCase):
    def test_the_first_figure_stays_and_the_second_says_why(self) -> None:
        first = taken(0.9, 0)
        for more, verdict in (
            ({}, CALL),
            ({"again_because": "no"}, CALL),
            ({"follows": after(first)}, CALL),
            ({"again_because": WHY, "follows": after(first)}, MEETS),
            # As older versions kept it, at a screen that showed the one before.
            ({"again_because": WHY}, MEETS),
        ):
            readings = [first, taken(0.29, 20, **more)]
            with self.subTest(more):
                self.assertEqual(judged(*readings).verdict, verdict)
        step = next(one for one in evaluation(DEVICE_IN_UNIT, {"readings": readings}).steps if one.step == "zs")
        self.assertEqual([one.value for one in step.earlier], [0.9])
        self.assertEqual(step.reading.value if step.reading else None, 0.29)

    def test_whose_it_follows_must_be_the_one_before(self) -> None:
        first, between = taken(0.9, 0), taken(0.41, 5, "B. Otreal")
        for follows in (first, between, taken(0.41, 6, "B. Otreal")):
            last = taken(0.29, 20, again_because=WHY, follows=after(follows))
            found = judged(first, between | {"again_because": WHY, "follows": after(first)}, last)
            with self.subTest(follows["taken_at"]):
                self.assertEqual(found.verdict, MEETS if follows is between else CALL)
        unknown = judged(first, between, taken(0.29, 20, again_because=WHY, follows=after(first)))
        self.assertIn("0.41 Ω by B. Otreal", unknown.detail)
        self.assertIn("0.29 Ω by R. Quillfeather", unknown.detail)
        self.assertIn("of which R. Quillfeather did not know", unknown.detail)

    def test_two_people_who_did_not_know_of_each_other_whatever_they_read(self) -> None:
        """Every pair of two people's outcomes: only where both found right what is right does neither count over the other."""
        said: tuple[dict[str, Any], ...] = (
            {"value": 0.29, "outcome": "measured"},
            {"value": 0.41, "outcome": "measured"},
            {"value": None, "outcome": "could_not_test", "reason": "no way in"},
            {"value": 0.5, "outcome": "wrong"},
        )
        for one, other in itertools.product(said, repeat=2):
            with self.subTest(one=one, other=other):
                found = judged(taken(None, 0) | one, taken(None, 5, "B. Otreal") | other)
                self.assertEqual(found.verdict, CALL)
        for outcomes, verdict in (
            (("right", "right"), None),
            (("right", "wrong"), CALL),
            (("wrong", "right"), CALL),
            (("wrong", "wrong"), CALL),
        ):
            pair = [
                taken(None, minute, by, "polarity_dead", outcome=outcome)
                for minute, by, outcome in ((0, "R. Quillfeather", outcomes[0]), (5, "B. Otreal", outcomes[1]))
            ]
            with self.subTest(outcomes):
                self.assertEqual(judged(*pair).verdict, verdict or MEETS)

    def test_two_people_may_both_sign_a_hold(self) -> None:
        pair = [
            taken(None, 0, step="isolated", outcome="right"),
            taken(None, 5, "B. Otreal", "isolated", outcome="right"),
        ]
        origin = [one | {"subject": "origin"} for one in pair]
        self.assertEqual(judged(*origin).verdict, MEETS)

    def test_a_call_settles_these_readings_and_no_later_one(self) -> None:
        pair = (taken(0.9, 0), taken(0.29, 5, "B. Otreal"))
        asked = judged(*pair)
        said = {
            "key": asked.key, "basis": dict(asked.basis), "reason": "B. Otreal had the long lead.",
            "name": "R. Quillfeather", "decided_on": "2026-11-24",
        }  # fmt: skip
        self.assertIsNotNone(judged(*pair, decisions=[said]).decision)
        self.assertIsNone(judged(*pair, taken(0.3, 9, "B. Otreal"), decisions=[said]).decision)


class AtTheDoor(unittest.TestCase):
    def test_whose_and_why_go_together(self) -> None:
        first = taken(0.9, 0)
        for more, field in (
            ({}, ""),
            ({"again_because": WHY, "follows": after(first)}, ""),
            ({"again_because": WHY}, "follows"),
            ({"follows": after(first)}, "again_because"),
            ({"again_because": "no", "follows": after(first)}, "again_because"),
        ):
            reading = Reading.model_validate(taken(0.29, 20, **more))
            with self.subTest(more):
                if not field:
                    check_told((reading,))
                    continue
                with self.assertRaises(InputError) as caught:
                    check_told((Reading.model_validate(first), reading))
                self.assertEqual(caught.exception.field, field)

    def test_the_examples_tell(self) -> None:
        check_told(job(DEVICE_IN_UNIT).readings)
