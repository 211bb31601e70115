"""What is told of a reading before it is taken: a band for the supply, insulation, electrodes and RCDs; leads by name."""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from fulmen.core.model.readings import StepKey
from fulmen.core.verification.steps.sequence import Step
from tests.core.test_earth_readings import read as read_at
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, TT, TYPE_B_BOX, evaluation, finding

MEETS, CALL = Verdict.MEETS, Verdict.YOUR_CALL
TOLD = {StepKey.ZE, StepKey.FAULT_CURRENT_EARTH, StepKey.FAULT_CURRENT_NEUTRAL, StepKey.IR_LIVE_EARTH, StepKey.IR_LINE_NEUTRAL,
        StepKey.RCD_TRIP, StepKey.ELECTRODE}  # fmt: skip


def steps(name: str, *readings: dict[str, object], **changes: object) -> dict[StepKey, Step]:
    return {one.step: one for one in evaluation(name, {"readings": list(readings), **changes}).steps}


def read(step: str, value: float) -> dict[str, Any]:
    return {**read_at(step, value), "subject": "ev" if step.startswith("ir_") else "origin"}


class Told(unittest.TestCase):
    def test_each_has_a_band_or_says_from_what_it_will_follow(self) -> None:
        before = [read("ze", 0.21), read("fault_current_earth", 1.10)]
        for name in (DEVICE_IN_UNIT, TT):
            found = steps(
                name,
                *(
                    before
                    if name == DEVICE_IN_UNIT
                    else [read("electrode", 60.0), read("ze", 65.0), read("fault_current_earth", 0.01)]
                ),
            )
            for key in TOLD & set(found):
                with self.subTest(name, key=key):
                    self.assertIsNotNone(found[key].expected_low)
                    self.assertTrue(found[key].expected_from)

    def test_what_is_told_before_is_what_is_judged_after(self) -> None:
        """At either end and a hundredth past it, for each band that a check holds readings against."""
        before = {"ze": [], "fault_current_earth": [read("ze", 0.21)]}
        for key, rule in (("ze", "agree_ze"), ("fault_current_earth", "agree_fault_earth")):
            told = steps(DEVICE_IN_UNIT, *before[key])[StepKey(key)]
            assert told.expected_low is not None and told.expected_high is not None
            for value, verdict in (
                (told.expected_low, MEETS), (told.expected_high, MEETS), (told.expected_low - 0.01, CALL), (told.expected_high + 0.01, CALL),
            ):  # fmt: skip
                with self.subTest(key, value=value):
                    changes = {"readings": [*before[key], read(key, round(value, 2))]}
                    self.assertIs(finding(rule, DEVICE_IN_UNIT, changes).verdict, verdict)

    def test_insulation_has_no_upper_end_and_a_call_below_its_lower_one(self) -> None:
        told = steps(DEVICE_IN_UNIT)[StepKey.IR_LIVE_EARTH]
        self.assertEqual((told.expected_low, told.expected_high), (100.0, None))
        for value, verdict in ((99.0, CALL), (100.0, None)):
            found = [
                one
                for one in evaluation(
                    DEVICE_IN_UNIT, {"readings": [{**read("ir_live_earth", value), "test_voltage_v": 500}]}
                ).findings
                if one.rule == "agree_insulation"
            ]
            self.assertEqual(found[0].verdict if found else None, verdict)

    def test_a_delayed_rcd_is_told_no_usual_time(self) -> None:
        for one in evaluation(TT, {"readings": []}).steps:
            if one.step is StepKey.RCD_ORIGIN_TRIP:
                self.assertIsNone(one.expected_low)
        self.assertEqual(steps(TYPE_B_BOX)[StepKey.RCD_TRIP].expected_high, 100.0)

    def test_no_two_leads_of_a_step_bear_one_name_but_those_that_are_joined(self) -> None:
        for path in EXAMPLES.glob("*.json"):
            for one in evaluation(path.stem).steps:
                names = [lead.terminal for lead in one.leads]
                if one.step is not StepKey.LEADS_NULLED:
                    self.assertEqual(len(names), len(set(names)), (path.stem, one.step, names))


if __name__ == "__main__":
    unittest.main()
