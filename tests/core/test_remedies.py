"""What would mend a finding: computed, smallest first, and nothing else broken by it."""

import unittest
from typing import Any

from fulmen.core.alternatives.remedies import Remedy, remedies
from fulmen.core.editing.changes import apply_changes
from fulmen.core.errors import InputError
from fulmen.core.evaluate import evaluate
from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, RULES, TT, in_front, job, mark
from tests.sampling import some

SHORT: list[tuple[str, str, dict[str, Any], str]] = [
    (FALLS_SHORT, "volt_drop/ev", {}, "10 mm² cable"),
    (FALLS_SHORT, "disconnection/ev", {}, "a B curve"),
    (FALLS_SHORT, "open_pen/ev", {}, "broken-PEN protection by a separate device before the unit"),
    (DEVICE_IN_UNIT, "weakest_section/ev", {"circuits.0.cable.csa_mm2": 2.5}, "4 mm² cable"),
    (DEVICE_IN_UNIT, "rcd_blinding/ev", {"circuits.0.device.rcd.type": "AC"}, "a double-pole Type A RCBO of 30 mA"),
    (DEVICE_IN_UNIT, "rcd_blinding/ev", {"boards.0.incomer": in_front(mark("AC"))}, "a Type A RCD in front, at Consumer unit"),
    (GARAGE, "rcd_blinding/ev", {"circuits.0.device.rcd": mark("AC")}, "Sub-main to the garage: a Type A RCD"),
    (DEVICE_IN_UNIT, "warning_tape/ev-4", {"circuits.0.route.3.warning_tape": False}, "section 4: warning tape above it"),
    (DEVICE_IN_UNIT, "fixings/ev-3", {"circuits.0.route.2.fixings": "plastic", "circuits.0.route.2.outdoors": False}, "section 3: metal clips"),
    (DEVICE_IN_UNIT, "fire_stopped/ev-2", {"circuits.0.route.1.fire_stopped": False}, "section 2: fire-stopped and sealed"),
    (DEVICE_IN_UNIT, "phases/ev", {"charge_points.0.phases": 3}, "Charge point set to single-phase"),
    (GARAGE, "load_on_device/sub-main", {"circuits.0.device.rating_a": 40}, "Sub-main to the garage: a 50 A device"),
    (GARAGE, "disconnection/sub-main", {"supply.ze_enquiry_ohm": 0.7}, "Sub-main to the garage: a 50 A device"),
    (DEVICE_IN_UNIT, "spare_way/board", {"boards.0.spare_ways": 0}, "from an own board off split tails"),
    (DEVICE_IN_UNIT, "board_make_up/board", {"boards.0.make_up": "rewirable"}, "from an own board off split tails"),
    (DEVICE_IN_UNIT, "volt_drop/ev", {"circuits.0.route.3.length_m": 70.0, "charge_points.0.terminal_max_mm2": 6.0},
     "10 mm² to a box before the unit, 6 mm² on"),
    (DEVICE_IN_UNIT, "terminals/ev", {"circuits.0.cable.csa_mm2": 16.0}, "16 mm² to a box before the unit, 10 mm² on"),
    (TT, "tt_origin_rcd/ev", {"boards.0.incomer": in_front(None), "boards.0.make_up": "split_load"}, "an S-type RCD of 100 mA at Consumer unit"),
]  # fmt: skip


class Mends(unittest.TestCase):
    def found(self, name: str, key: str, changes: dict[str, Any]) -> tuple[Remedy, ...]:
        return remedies(job(name, changes), key, RULES)

    def test_the_smallest_change_comes_first(self) -> None:
        for name, key, changes, words in some(SHORT, 6, "words"):
            with self.subTest(key=key, changes=changes):
                self.assertEqual(self.found(name, key, changes)[0].words, words)

    def test_what_is_applied_holds_and_breaks_nothing_that_held(self) -> None:
        for name, key, changes, _ in some(SHORT, 6, "mends"):
            before = job(name, changes)
            short = {one.key for one in evaluate(before, RULES).falls_short()}
            for remedy in remedies(before, key, RULES):
                with self.subTest(key=key, remedy=remedy.words):
                    after = {one.key for one in evaluate(apply_changes(before, remedy.changes), RULES).falls_short()}
                    self.assertNotIn(key, after)
                    self.assertFalse(after - short)

    def test_two_changes_where_none_alone_serves(self) -> None:
        # Only the circuit's device and the cable together bring 25 m of 2.5 mm² in a hot group right at 32 A.
        changes = {"circuits.0.cable.csa_mm2": 4.0, "circuits.0.route.2.grouped_circuits": 9, "circuits.0.route.2.temperature_c": 60.0,
                   "charge_points.0.terminal_max_mm2": 6.0, "charge_points.0.device_min_a": 40.0}  # fmt: skip
        found = self.found(DEVICE_IN_UNIT, "weakest_section/ev", changes)
        self.assertTrue(found)
        self.assertIn(" and ", found[0].words)

    def test_where_nothing_small_serves_nothing_is_offered(self) -> None:
        self.assertEqual(self.found(DEVICE_IN_UNIT, "looped/origin", {"supply.looped": "yes", "letters": []}), ())

    def test_only_a_finding_that_falls_short_can_be_mended(self) -> None:
        for key in ("volt_drop/ev", "nothing/ev"):
            with self.subTest(key), self.assertRaises(InputError) as caught:
                self.found(DEVICE_IN_UNIT, key, {})
            self.assertEqual(caught.exception.field, "finding")
