"""How far a design holds: at its end nothing is worse, one step past it something is; worked by hand where it can be."""

import unittest

from fulmen.core.alternatives.reach import Reach, ReachKey, how_far
from fulmen.core.errors import InputError
from fulmen.core.model.job import Job
from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, HALFWAY, RULES, THREE_PHASE, TT, finding, job


def reaches(name: str, **changes: object) -> dict[ReachKey, Reach]:
    made: Job = job(name, {field.replace("__", "."): value for field, value in changes.items()})
    return {one.key: one for one in how_far(made, made.charge_points[0].id, RULES)}


class HowFar(unittest.TestCase):
    def test_the_route_ends_where_volts_do(self) -> None:
        # DEVICE_IN_UNIT: the longest section is the clipped one, 5.6 m; past 5 % at the car.
        found = reaches(DEVICE_IN_UNIT)[ReachKey.ROUTE]
        self.assertEqual(found.upset_key, "volt_drop/ev")
        for more_m, short in ((found.holds_to, False), (found.holds_to + 0.5, True)):
            drop = finding(
                "volt_drop", DEVICE_IN_UNIT, {"circuits.0.route.2.length_m": round(5.6 + more_m, 2), "readings": []}
            )
            with self.subTest(more_m):
                self.assertEqual((drop.value or 0) > 5, short)

    def test_the_loop_ends_at_the_devices_limit(self) -> None:
        found = reaches(HALFWAY)[ReachKey.LOOP]
        self.assertEqual(found.upset_key, "disconnection/ev")
        for ze_ohm, open_now in ((found.holds_to, False), (found.holds_to + 0.01, True)):
            told = {"supply.ze_enquiry_ohm": round(ze_ohm, 2), "supply.operator_told_of_ze": "yes", "readings": []}
            with self.subTest(ze_ohm):
                self.assertEqual(finding("disconnection", HALFWAY, told).is_open, open_now)

    def test_the_house_may_grow_to_the_fuse(self) -> None:
        found = reaches(GARAGE)[ReachKey.HOUSE_LOAD]
        self.assertEqual((found.holds_to, found.upset_key), (100.0, "demand/origin"))

    def test_on_tt_the_electrode_counts_with_its_winter(self) -> None:
        # 66 Ω is 200 Ω in frozen ground
        found = reaches(TT)
        self.assertNotIn(ReachKey.LOOP, found)
        self.assertEqual(found[ReachKey.ELECTRODE].holds_to, 66.0)
        self.assertEqual(found[ReachKey.ELECTRODE].upset_key, "electrode_stable/origin")

    def test_where_it_holds_all_the_way_nothing_ends_it(self) -> None:
        found = reaches(DEVICE_IN_UNIT, circuits__0__cable__csa_mm2=25.0, charge_points__0__terminal_max_mm2=25.0)
        self.assertEqual((found[ReachKey.HEAT].holds_to, found[ReachKey.HEAT].upset), (60.0, ""))

    def test_more_never_reaches_further_than_less(self) -> None:
        short, long = (reaches(HALFWAY, circuits__0__route__1__length_m=metres) for metres in (8.6, 20.6))
        self.assertAlmostEqual(short[ReachKey.ROUTE].holds_to, long[ReachKey.ROUTE].holds_to + 12, delta=0.51)
        self.assertGreaterEqual(short[ReachKey.LOOP].holds_to, long[ReachKey.LOOP].holds_to)

    def test_a_design_that_falls_short_reaches_nowhere(self) -> None:
        self.assertEqual(reaches(FALLS_SHORT), {})

    def test_every_kind_of_house_is_answered(self) -> None:
        for name in (DEVICE_IN_UNIT, TT, GARAGE, THREE_PHASE):
            for key, one in reaches(name).items():
                with self.subTest(name=name, key=key):
                    self.assertTrue(one.upset or one.holds_to == one.most)

    def test_no_route_is_told(self) -> None:
        with self.assertRaises(InputError) as caught:
            how_far(job(DEVICE_IN_UNIT, {"circuits.0.route": []}), "charge-point", RULES)
        self.assertEqual(caught.exception.field, "charge_point")


if __name__ == "__main__":
    unittest.main()
