"""Decisions: settled on the same facts only, with a condition of the rule where it has some, and asked again else."""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from tests.jobs import DEVICE_IN_UNIT, TT, finding, in_front, mark

CALL = Verdict.YOUR_CALL
UNREAD: dict[str, Any] = {"readings": []}


class Decisions(unittest.TestCase):
    def test_only_conditions_that_the_route_bears_out_are_offered(self) -> None:
        alone: dict[str, Any] = {"circuits.0.device.rcd": None, "charge_points.0.rcd_inside": mark("A"), **UNREAD}
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

    def test_what_the_facts_contradict_is_not_offered(self) -> None:
        """Each rule with facts of its own against its conditions: what can't be so here can't be ticked here."""
        high: dict[str, Any] = {"supply.ze_enquiry_ohm": 0.79, "circuits.0.device.curve": "C", **UNREAD}
        winter: dict[str, Any] = {"supply.electrode_design_ohm": 90.0, **UNREAD}
        read = {"step": "electrode", "subject": "origin", "outcome": "measured", "value": 90.0,
                "taken_by": "R. Quillfeather"}  # fmt: skip
        july, january = (
            {"readings": [{**read, "taken_at": f"2026-{month}-15T10:00:00+00:00"}]} for month in ("07", "01")
        )
        insulated = {"supply.insulated_to_rcds": "yes"}
        for rule, name, changes, wanted in (
            ("disconnection", DEVICE_IN_UNIT, high, {"own_rcd"}),
            ("electrode_stable", TT, winter, {"deep_rod", "frozen_figure"}),
            ("electrode_stable", TT, winter | july, {"deep_rod", "frozen_figure"}),
            ("electrode_stable", TT, winter | january, {"deep_rod", "frozen_figure", "measured_in_winter"}),
            (
                "electrode_stable",
                TT,
                winter | {"boards.0.incomer": in_front(mark("A", 300))},
                {"deep_rod"},
            ),
            ("tt_origin_rcd", TT, {"boards.0.incomer": in_front(mark("A"))}, {"told"}),
            (
                "tt_origin_rcd",
                TT,
                {"boards.0.incomer": in_front(mark("A"))} | insulated,
                {"told", "seen_insulated"},
            ),
        ):
            found = finding(rule, name, changes)
            with self.subTest(rule, changes=changes):
                self.assertEqual(found.verdict, CALL, found)
                self.assertEqual({one.key for one in found.conditions}, wanted)

    def test_what_protects_people_asks_which_condition_makes_it_sound(self) -> None:
        """“Usual here” alone settles nothing where a rule has conditions; one of another rule doesn't either."""
        alone: dict[str, Any] = {"circuits.0.device.rcd": None, "charge_points.0.rcd_inside": mark("A"), **UNREAD}
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
