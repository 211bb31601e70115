"""Two units of one make and model: the facts of their kind are entered once, and one reason serves both."""

import unittest
from typing import Any

from fulmen.core.editing.job_file import read_job, write_job
from fulmen.core.editing.tree_editing import TreeAct, TreeActKind, acted
from fulmen.core.errors import JobFileError
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.charge_point import ChargePoint, ChargePointFacts
from fulmen.core.reference.charge_point_catalogue import charge_point_records
from tests.jobs import THREE_PHASE, TWO_BEHIND_ONE, evaluation, example, job

# A unit of whose kind nothing is known.
BARE = {name: ChargePointFacts().model_dump(mode="json")[name] for name in ChargePointFacts.model_fields}
ALIKE: dict[str, Any] = {
    "charge_points.1.like": "left",
    **{f"charge_points.1.{name}": value for name, value in BARE.items()},
}


class LikeUnits(unittest.TestCase):
    def test_what_one_says_the_other_has(self) -> None:
        spelled = job(TWO_BEHIND_ONE)
        made = job(TWO_BEHIND_ONE, ALIKE)
        self.assertEqual(made.charge_points[1], spelled.charge_points[1].model_copy(update={"like": "left"}))
        found, whole = evaluation(TWO_BEHIND_ONE, ALIKE), evaluation(TWO_BEHIND_ONE)
        self.assertEqual(
            [(one.key, one.verdict) for one in found.findings], [(one.key, one.verdict) for one in whole.findings]
        )

    def test_each_fact_of_the_kind_and_no_other(self) -> None:
        """A fact of the first moves the second; what is true of one unit alone stays with it."""
        for name in ("phases", "max_current_a", "device_max_a", "rdc_dd_inside", "ip_code"):
            with self.subTest(name):
                gone = job(TWO_BEHIND_ONE, {**ALIKE, f"charge_points.0.{name}": BARE[name]})
                self.assertEqual(getattr(gone.charge_points[1], name), getattr(ChargePointFacts(), name))
        own = {
            **ALIKE,
            "charge_points.0.serial_number": "A-1",
            "charge_points.0.hangs_outdoors": False,
            "charge_points.0.set_current_a": 10.0,
        }
        second = job(TWO_BEHIND_ONE, own).charge_points[1]
        first = job(TWO_BEHIND_ONE).charge_points[1]
        for name in set(ChargePoint.model_fields) - set(ChargePointFacts.model_fields) - {"like"}:
            self.assertEqual(getattr(second, name), getattr(first, name), name)

    def test_it_is_asked_once(self) -> None:
        unknown = {"charge_points.0.rdc_dd_inside": "not_seen", "charge_points.0.phases": None}
        asked = [one.field for one in evaluation(TWO_BEHIND_ONE, ALIKE | unknown).questions]
        self.assertEqual([one for one in asked if one.endswith(("rdc_dd_inside", "phases")) and "points" in one],
                         ["charge_points.0.phases", "charge_points.0.rdc_dd_inside"])  # fmt: skip
        alone = {"charge_points.1.serial_number": ""}
        self.assertIn(
            "charge_points.1.serial_number", [one.field for one in evaluation(TWO_BEHIND_ONE, ALIKE | alone).questions]
        )

    def test_only_one_that_has_its_own(self) -> None:
        for changes in ({"charge_points.1.like": "nobody"}, {"charge_points.1.like": "right"},
                        {"charge_points.0.like": "right", "charge_points.1.like": "left"}):  # fmt: skip
            with self.subTest(changes=changes), self.assertRaises(JobFileError) as caught:
                job(TWO_BEHIND_ONE, changes)
            self.assertTrue(all(one.field.endswith(".like") for one in caught.exception.problems))

    def test_written_and_read(self) -> None:
        made = job(TWO_BEHIND_ONE, ALIKE)
        self.assertEqual(read_job(write_job(made)), made)

    def test_a_copy_is_like_and_one_left_alone_keeps_its_facts(self) -> None:
        left = example(TWO_BEHIND_ONE).circuits[1].id
        twice = acted(example(TWO_BEHIND_ONE), left, TreeAct(kind=TreeActKind.DUPLICATE, to=""))
        self.assertEqual([one.like for one in twice.charge_points], ["", "", "left"])
        gone = acted(job(TWO_BEHIND_ONE, ALIKE), left, TreeAct(kind=TreeActKind.TAKE_OUT, to=""))
        (right,) = gone.charge_points
        self.assertEqual(
            (right.like, right.max_current_a), ("", example(TWO_BEHIND_ONE).charge_points[1].max_current_a)
        )


class Catalogue(unittest.TestCase):
    def test_a_kind_says_whether_it_has_a_lead(self) -> None:
        """Its name does; nothing is supposed where a record leaves it out."""
        for one in charge_point_records():
            self.assertIs(one.facts.tethered, not one.name.startswith("Socket"), one.name)


class OneReason(unittest.TestCase):
    def test_calls_on_the_same_facts_name_each_other(self) -> None:
        bigger = {"circuits.1.device.rating_a": 40, "circuits.2.device.rating_a": 40, "charge_points.0.device_max_a": 40.0,
                  "charge_points.1.device_max_a": 40.0, "decisions": [], "readings": []}  # fmt: skip
        found = {one.key: one for one in evaluation(TWO_BEHIND_ONE, bigger).findings}
        ids = [one.id for one in job(TWO_BEHIND_ONE).circuits[1:3]]
        calls = [f"maker_device/{name}" for name in ids]
        self.assertEqual([found[key].verdict for key in calls], [Verdict.YOUR_CALL] * 2)
        self.assertEqual([found[key].alike for key in calls], [(calls[1],), (calls[0],)])

    def test_other_facts_are_another_call(self) -> None:
        """At three phases one unit has 16 A behind 32 A, the other none too many."""
        found = {one.key: one for one in evaluation(THREE_PHASE, {"decisions": []}).findings}
        self.assertEqual(found["maker_device/ev-left"].alike, ())
