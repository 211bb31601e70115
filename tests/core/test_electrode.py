"""The electrode planner: what follows from soil, rods, winter and RCD; the fall-of-potential plan and its record."""

import unittest
from itertools import pairwise
from typing import Any

from fulmen.core.circuit.arrangement_schedule import arrangement_facts
from fulmen.core.circuit.run_figures import cases_of
from fulmen.core.electrical.electrode import (
    ElectrodeOutlook,
    ElectrodePlan,
    agreed_ohm,
    electrode_outlook,
    fall_of_potential,
    rod_ohm,
)
from fulmen.core.errors import InputError
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.judging.known import known_for
from fulmen.core.reference.soil import resistivity_at, soils
from tests.core.test_arrangements import BASE, way
from tests.jobs import DEVICE_IN_UNIT, RULES, finding, job


def outlook(**changes: Any) -> ElectrodeOutlook:
    return electrode_outlook(ElectrodePlan(**changes), RULES)


class Outlook(unittest.TestCase):
    def test_by_hand(self) -> None:
        """ρ 100, L 2.4, d 16 mm: 100/(15.08)·(ln 1200 − 1) = 6.631·6.090 = 40.4 Ω; frozen at 0 °C: ·300/99 = 122 Ω."""
        found = outlook(resistivity_ohm_m=100)
        self.assertAlmostEqual(found.now_ohm, 40.38, delta=0.05)
        self.assertAlmostEqual(found.winter_ohm, 122.4, delta=0.2)
        self.assertAlmostEqual(found.touch_v, 3.67, delta=0.01)
        self.assertEqual((found.low_ohm, found.high_ohm), (found.now_ohm, found.now_ohm))

    def test_through_depths_and_seasons(self) -> None:
        """The drawn curve goes through the plan; deeper is lower, winter above the day above late summer."""
        found = outlook(resistivity_ohm_m=100)
        planned = next(one for one in found.depths if one.rod_m == 2.4)
        self.assertEqual((planned.now_ohm, planned.winter_ohm), (found.now_ohm, found.winter_ohm))
        for one, deeper in pairwise(found.depths):
            self.assertGreater(one.winter_ohm, deeper.winter_ohm)
            self.assertTrue(one.winter_ohm > one.now_ohm > one.warm_ohm)
        # IEEE Std 142: 99 Ω·m at 10 °C, 72 at 20 °C.
        self.assertAlmostEqual(planned.warm_ohm, found.now_ohm * 72 / 99, delta=0.01)
        self.assertEqual(len(outlook(rods=6, spacing_m=2.4).depths), len(found.depths))

    def test_common_practice_thirty_ohms_in_garden_soil(self) -> None:
        """Common practice, no source: about 30 Ω in garden soil is good."""
        found = outlook()
        self.assertTrue(found.low_ohm < 30 < found.high_ohm)
        self.assertAlmostEqual(found.now_ohm, 30, delta=4)

    def test_two_hundred_ohms_and_fifty_volts_are_the_limits(self) -> None:
        warm = {"ground_now_c": 10, "ground_winter_c": 10}
        per_ohm = 1 / rod_ohm(1, 2.4, 16)
        for ohm, stable in ((199.9, True), (200.1, False)):
            self.assertEqual(outlook(resistivity_ohm_m=ohm * per_ohm, **warm).stable_verdict is Verdict.MEETS, stable)
        for ohm, trips in ((166.6, True), (166.8, False)):
            self.assertEqual(
                outlook(resistivity_ohm_m=ohm * per_ohm, residual_ma=300, **warm).touch_verdict is Verdict.MEETS, trips
            )

    def test_winter_never_lowers_it(self) -> None:
        self.assertEqual(
            outlook(ground_now_c=-5, ground_winter_c=10).winter_ohm,
            outlook(ground_now_c=-5, ground_winter_c=10).now_ohm,
        )
        figures = [resistivity_at(ground_c) for ground_c in (20, 12, 10, 3, 0.5, 0, -4, -5, -14, -15)]
        self.assertEqual(figures, sorted(figures))

    def test_ways_come_lower_and_say_what_they_take(self) -> None:
        found = outlook(wanted_ohm=50)
        self.assertTrue(all(one.now_ohm < found.now_ohm for one in found.ways))
        deep, double = found.ways[0], found.ways[3]
        self.assertEqual((deep.title, deep.rods, deep.driven_m, deep.trench_m), ("One rod 3.6 m deep", 3, 3.6, 0))
        self.assertEqual((double.rods, double.driven_m, double.trench_m), (4, 4.8, 2.4))
        self.assertEqual(
            [one.verdict is Verdict.MEETS for one in found.ways], [one.winter_ohm <= 50 for one in found.ways]
        )

    def test_what_cannot_be_is_refused(self) -> None:
        for changes, field in (({"soil": "cheese"}, "soil"), ({"rods": 3, "spacing_m": 2.0}, "spacing_m")):
            with self.subTest(field), self.assertRaises(InputError) as caught:
                outlook(**changes)
            self.assertEqual(caught.exception.field, field)

    def test_every_soil_has_a_range_around_its_figure(self) -> None:
        for soil in soils():
            self.assertTrue(soil.least_ohm_m < soil.typical_ohm_m < soil.most_ohm_m, soil.name)
            # The figure to plan with is the geometric mean, rounded up.
            mean = (soil.least_ohm_m * soil.most_ohm_m) ** 0.5
            self.assertTrue(mean <= soil.typical_ohm_m <= 1.35 * mean, soil.name)


RECORD: dict[str, Any] = {
    "current_spike_m": 24.0,
    "ground_c": 8.0,
    "taken_by": "R. Quillfeather",
    "taken_on": "2026-11-24",
}


class FallOfPotential(unittest.TestCase):
    def verdict(self, *readings: float) -> Verdict:
        record = {"charge_points.0.arrangement.fall_of_potential": RECORD | {"readings_ohm": readings}}
        return finding("fall_of_potential", changes=BASE | way(own=32.0) | record).verdict

    def test_where_the_spikes_go(self) -> None:
        plan = fall_of_potential(1.2, RULES)
        self.assertEqual((plan.current_spike_m, plan.potential_spike_m[1]), (12.0, 7.4))

    def test_three_readings_within_five_per_cent(self) -> None:
        self.assertIs(self.verdict(30.4, 32.0, 33.6), Verdict.MEETS)
        self.assertIs(self.verdict(30.3, 32.0, 33.7), Verdict.FALLS_SHORT)
        self.assertAlmostEqual(agreed_ohm((30.4, 32.0, 33.6), RULES)[1], 0.05)

    def test_a_winter_estimate_stands_by_every_electrode(self) -> None:
        record = {"charge_points.0.arrangement.fall_of_potential": RECORD | {"readings_ohm": (32.0, 32.0, 32.0)}}
        # 8 °C is read at the printed row below it, 138 Ω·m; frozen at 0 °C 300: 32·300/138 = 70 Ω.
        self.assertIn("about 70 Ω", finding("electrode_stable", changes=BASE | way(own=32.0) | record).detail)
        self.assertIn("about 97 Ω", finding("electrode_stable", changes=BASE | way(own=32.0)).detail)


class Island(unittest.TestCase):
    """The electrode that was measured is the one that is judged and printed: its step stands under the car's circuit."""

    def test_what_was_read_counts_and_not_what_was_designed(self) -> None:
        read = {"step": "electrode", "subject": "ev", "outcome": "measured", "value": 210.0, "taken_by": "A. Tester",
                "taken_at": "2026-11-18T10:00:00Z"}  # fmt: skip
        island = {"charge_points.0.arrangement.car_earth": "own_electrode",
                  "charge_points.0.arrangement.electrode_design_ohm": 30.0}  # fmt: skip
        made = job(DEVICE_IN_UNIT, island | {"readings": [read]})
        self.assertEqual([one.subject for one in evaluate(made, RULES).steps if one.step == "electrode"], ["ev"])
        stable = finding("electrode_stable", DEVICE_IN_UNIT, island | {"readings": [read]})
        self.assertEqual((stable.value, stable.verdict), (210.0, Verdict.FALLS_SHORT))
        self.assertIn(
            "210 Ω measured", dict(arrangement_facts(cases_of(known_for(made, RULES))[0]))["Car's own electrode"]
        )
