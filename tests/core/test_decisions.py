"""Decisions: settled on the same facts only, with a condition of the rule where it has some, and asked again else."""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from tests.jobs import DEVICE_IN_UNIT, finding

CALL = Verdict.YOUR_CALL
UNREAD: dict[str, Any] = {"readings": []}


class Decisions(unittest.TestCase):
    def test_only_conditions_that_the_route_bears_out_are_offered(self) -> None:
        alone: dict[str, Any] = {"circuits.0.device.rcd": None, "charge_points.0.rcd_inside": {"type": "A"}, **UNREAD}
        surface = {
            "circuits.0.route": [{"surroundings": "clipped", "length_m": 5.0}],
            "circuits.0.cable.record": "nyy-j",
        }
        hidden = {"circuits.0.cable.record": "nyy-j", "circuits.0.route.0.concealed_under_50_mm": True}
        for changes, keys in (({}, {"armoured", "deep"}), (surface, {"on_the_surface", "deep"}),
                              (hidden, {"armoured", "on_the_surface", "deep"})):  # fmt: skip
            found = finding("rcd_at_board", DEVICE_IN_UNIT, alone | changes)
            with self.subTest(keys):
                self.assertEqual({one.key for one in found.conditions}, keys)

    def test_what_protects_people_asks_which_condition_makes_it_sound(self) -> None:
        """“Usual here” alone settles nothing where a rule has conditions; one of another rule doesn't either."""
        alone: dict[str, Any] = {"circuits.0.device.rcd": None, "charge_points.0.rcd_inside": {"type": "A"}, **UNREAD}
        call = finding("rcd_at_board", DEVICE_IN_UNIT, alone)
        self.assertGreater(len(call.conditions), 1)
        for condition, settled in (("", False), ("usual_here", False), (call.conditions[0].key, True)):
            reason = {"key": call.key, "basis": call.basis, "reason": "Usual here.", "name": "R. Quillfeather",
                      "decided_on": "2026-11-20", "condition": condition}  # fmt: skip
            found = finding("rcd_at_board", DEVICE_IN_UNIT, alone | {"decisions": [reason]})
            with self.subTest(condition):
                self.assertEqual(not found.is_open, settled)
                self.assertEqual(found.condition_words(), call.conditions[0].words if settled else "")

    def test_a_call_stays_a_call_and_is_closed_by_its_reason(self) -> None:
        found = finding("maker_device")
        self.assertEqual(found.verdict, CALL)
        self.assertFalse(found.is_open)
        self.assertTrue(finding("maker_device", DEVICE_IN_UNIT, {"decisions": []}).is_open)

    def test_a_reason_covers_only_what_it_was_given_for(self) -> None:
        changed = finding("maker_device", DEVICE_IN_UNIT, {"charge_points.0.device_max_a": 45.0})
        self.assertEqual((changed.verdict, changed.is_open), (CALL, True))

    def test_a_reason_never_closes_what_falls_short(self) -> None:
        short = finding("open_pen", DEVICE_IN_UNIT, {"charge_points.0.open_pen_inside": "no"})
        reason = {"key": short.key, "basis": short.basis, "reason": "It will be fine.", "name": "A. Nother",
                  "decided_on": "2026-11-01"}  # fmt: skip
        changes = {"decisions": [reason], "charge_points.0.open_pen_inside": "no"}
        self.assertTrue(finding("open_pen", DEVICE_IN_UNIT, changes).is_open)


if __name__ == "__main__":
    unittest.main()
