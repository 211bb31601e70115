"""Entries kinder than usual: a person's call with what was seen, or the evidence is asked for.

Written from `rules.md` §§9, 10, 11 before the table.
"""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from tests.jobs import ALL_ELECTRIC, DEVICE_IN_UNIT, TT, evaluation, finding

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
DUCT, P = "circuits.0.route.3.", "charge_points.0."
USED = {P + "provenance": "second_hand", P + "seen_working": "yes"}
LOFT = {"circuits.0.cable.record": "twin-and-earth", "circuits.0.route.4.surroundings": "loft"}
MEASURED: dict[str, Any] = {"load.method": "measured", "load.measured_a": 30.0, "load.half_hours": None}
# What is said, on which job, and what the claim is then: nothing, a call, or evidence asked for.
SAID: tuple[tuple[str, str, dict[str, Any], Verdict | None], ...] = (
    ("soil", DEVICE_IN_UNIT, {DUCT + "soil_km_per_w": 1.5}, None),
    ("soil", DEVICE_IN_UNIT, {DUCT + "soil_km_per_w": 1.4}, CALL),
    ("soil", DEVICE_IN_UNIT, {DUCT + "soil_km_per_w": 2.5}, None),
    # In the open nobody asks which soil it is.
    ("soil", DEVICE_IN_UNIT, {"circuits.0.route.2.soil_km_per_w": 0.7}, None),
    ("method", DEVICE_IN_UNIT, LOFT | {"circuits.0.route.4.method": "C"}, CALL),
    ("method", DEVICE_IN_UNIT, LOFT | {"circuits.0.route.4.method": "100"}, None),
    ("method", DEVICE_IN_UNIT, LOFT | {"circuits.0.route.4.method": None}, None),
    ("electrode", TT, {"supply.electrode_design_ohm": 5.0, "readings": []}, None),
    ("electrode", TT, {"supply.electrode_design_ohm": 4.9, "readings": []}, CALL),
    ("electrode", TT, {"supply.electrode_design_ohm": 4.9}, None),
    ("measured", ALL_ELECTRIC, MEASURED | {"load.measured_how": ""}, NEEDS),
    ("measured", ALL_ELECTRIC, MEASURED | {"load.measured_how": "logger on the tails, 3 to 17 January"}, CALL),
    ("older", DEVICE_IN_UNIT, USED | {P + "built_year": 2012}, CALL),
    ("older", DEVICE_IN_UNIT, USED | {P + "built_year": 2018}, CALL),
    ("older", DEVICE_IN_UNIT, USED | {P + "built_year": 2019}, None),
    ("older", DEVICE_IN_UNIT, USED | {P + "built_year": 2012, P + "open_pen_inside": "no", P + "rdc_dd_inside": "no"}, None),
)  # fmt: skip


class Claims(unittest.TestCase):
    def test_what_is_kinder_than_usual_wants_what_was_seen(self) -> None:
        for key, name, changes, verdict in SAID:
            found = evaluation(name, {"decisions": [], **changes}).findings
            claims = [one for one in found if one.rule == "claim" and one.subject.endswith(f"-{key}")]
            with self.subTest(key, changes=changes):
                self.assertEqual([one.verdict for one in claims], [] if verdict is None else [verdict])

    def test_a_current_that_anybody_turns_up_protects_nothing(self) -> None:
        turned_down: dict[str, Any] = {
            P + "set_current_a": 16.0,
            "circuits.0.device.rating_a": 20,
            P + "device_min_a": 16.0,
        }
        for locked, asked, load, ib_a in (
            ("yes", MEETS, MEETS, 16),
            ("not_seen", NEEDS, NEEDS, 16),
            ("no", CALL, SHORT, 32),
        ):
            changes = turned_down | {P + "set_current_locked": locked}
            with self.subTest(locked):
                self.assertIs(finding("set_current", DEVICE_IN_UNIT, changes).verdict, asked)
                carried = finding("load_on_device", DEVICE_IN_UNIT, changes)
                self.assertEqual((carried.verdict, carried.value), (load, ib_a))


if __name__ == "__main__":
    unittest.main()
