"""The broken-PEN bench: what devices see at their limits, what the person gets, presets, cost."""

import unittest
from time import process_time
from typing import Any

from pydantic import ValidationError

from fulmen.core.electrical.open_pen import met_voltage_v
from fulmen.core.model.guards import OpenPenSensing
from fulmen.core.simulations.benches.pen_bench import Bench, BenchResult, presets, run_bench
from fulmen.core.simulations.benches.pen_network import House, Street
from tests.jobs import RULES


def bench(*loads: tuple[float, float, float], electrode_ohm: float | None = None, **more: Any) -> Bench:
    """A street whose first house is this one."""
    houses = [
        House(loads_a=each, electrode_ohm=electrode_ohm if place == 0 else None) for place, each in enumerate(loads)
    ]
    street = {key: more.pop(key) for key in ("broken", "broken_before", "here") if key in more}
    return Bench(
        street=Street.model_validate({"houses": [one.model_dump() for one in houses], "broken": "service", **street}),
        **more,
    )


def sees(found: BenchResult) -> dict[OpenPenSensing, bool]:
    return {device.sensing: device.sees for device in found.devices}


class Devices(unittest.TestCase):
    def test_the_bench_and_the_clause_agree_at_any_voltage_of_the_street(self) -> None:
        house = House(loads_a=(4.0, 0.0, 0.0), electrode_ohm=22.0)
        street = Street(houses=(house,), broken="service", star_electrode_ohm=0.1)
        for supply_v in (207.0, 230.0, 253.0):
            # The person, 10 kΩ beside the electrode, takes next to nothing.
            found = run_bench(Bench(street=street, supply_v=supply_v, body_ohm=10000.0), RULES)
            with self.subTest(supply_v):
                self.assertAlmostEqual(found.before.volts_v, met_voltage_v(22, 4, 230, supply_v / 230), delta=0.3)

    def test_seventy_volts_exactly_is_not_above(self) -> None:
        """A rod that holds 70 V less a trifle is not seen, one that lets a trifle more through is."""
        # V = 230·R/(R + 1 + 230/I): the star point's 1 Ω lies in series. 40 A: 70 V at R = 70·6.75/160 = 2.953 Ω.
        for electrode_ohm, expected in ((2.94, False), (2.97, True)):
            found = run_bench(bench((40.0, 0.0, 0.0), electrode_ohm=electrode_ohm), RULES)
            self.assertEqual(sees(found)[OpenPenSensing.MET_VOLTAGE], expected, found.devices[0].told)

    def test_the_window_at_its_edges(self) -> None:
        whole = {"broken": "nowhere"}
        for supply_v, expected in ((206.0, True), (207.5, False), (252.5, False), (254.0, True)):
            found = run_bench(bench((0.5, 0.0, 0.0), supply_v=supply_v, **whole), RULES)
            self.assertEqual(sees(found)[OpenPenSensing.LINE_NEUTRAL_WINDOW], expected, found.devices[1].told)

    def test_it_opens_in_the_devices_own_time_and_frees_the_person(self) -> None:
        found = run_bench(bench((20.0, 0.0, 0.0), opens_within_s=2.5), RULES)
        self.assertEqual({device.opens_s for device in found.devices}, {2.5})
        self.assertGreater(found.before.volts_v, 200)
        self.assertEqual((found.after.volts_v, found.after.felt), (0.0, "nothing"))

    def test_where_no_device_sees_it_the_person_stays_on_it(self) -> None:
        found = run_bench(bench((40.0, 0.0, 0.0), electrode_ohm=2.0), RULES)
        self.assertFalse(sees(found)[OpenPenSensing.MET_VOLTAGE])
        self.assertGreater(found.before.volts_v, 40)
        self.assertTrue(found.told.endswith("on wet skin it is dangerous all the same."))
        slight = run_bench(bench((2.0, 0.0, 0.0), electrode_ohm=1.0), RULES)
        self.assertEqual(slight.before, slight.after)
        self.assertTrue(slight.told.endswith("the standard accepts it."))

    def test_a_car_on_its_own_electrode_stays_at_earth(self) -> None:
        found = run_bench(bench((20.0, 0.0, 0.0), car_on_own_electrode=True), RULES)
        self.assertEqual((found.before.volts_v, found.houses[0].car_v), (0.0, 0.0))


class Person(unittest.TestCase):
    def test_the_body_lowers_what_it_touches_and_the_bands_follow(self) -> None:
        """One house, 1 A, no electrode: 230·1000/(1000 + 1 + 230) = 186.8 V, 187 mA."""
        found = run_bench(bench((1.0, 0.0, 0.0)), RULES)
        self.assertAlmostEqual(found.before.volts_v, 186.8, delta=0.1)
        self.assertAlmostEqual(found.before.body_ma, 186.8, delta=0.1)
        self.assertIn("danger to life", found.before.felt)
        felt = [
            run_bench(bench((load, 0.0, 0.0), electrode_ohm=1.0), RULES).before.felt
            for load in (0.4, 2.0, 8.0, 20.0, 60.0)
        ]
        self.assertEqual(len(set(felt)), 5, felt)


class Presets(unittest.TestCase):
    def result(self, key: str) -> BenchResult:
        return run_bench(next(one.bench for one in presets() if one.key == key), RULES)

    def test_each_teaches_what_it_says(self) -> None:
        self.assertGreater(self.result("night").before.volts_v, 150)
        self.assertGreater(self.result("rod_32").houses[0].car_v, 180)
        self.assertLess(self.result("rod_2").houses[0].car_v, 70)
        fooled = self.result("fooled")
        self.assertEqual(sees(fooled), {OpenPenSensing.MET_VOLTAGE: True, OpenPenSensing.LINE_NEUTRAL_WINDOW: False})
        row = self.result("row")
        self.assertTrue(all(one.car_v < 2 for one in row.houses[:3]) and all(one.car_v > 70 for one in row.houses[3:]))
        self.assertLess(max(one.car_v for one in self.result("whole").houses), 5)

    def test_all_differ(self) -> None:
        self.assertEqual(len({one.title for one in presets()} | {one.lesson for one in presets()}), 2 * len(presets()))


class Limits(unittest.TestCase):
    def test_bad_streets_are_refused(self) -> None:
        house = {"loads_a": (1.0, 0.0, 0.0)}
        for wrong in ({"houses": []}, {"houses": [house] * 14}, {"houses": [house], "here": 1}, {"houses": [house], "broken_before": 1},
                      {"houses": [{"loads_a": (-1.0, 0.0, 0.0)}]}, {"houses": [house], "span_ohm": 0}):  # fmt: skip
            with self.subTest(wrong), self.assertRaises(ValidationError):
                Street.model_validate(wrong)

    def test_no_load_and_no_earth_anywhere_still_has_an_answer(self) -> None:
        found = run_bench(bench((0.0, 0.0, 0.0), (0.0, 0.0, 0.0), broken="main"), RULES)
        self.assertTrue(all(0 <= one.car_v < 1 for one in found.houses))

    def test_thirteen_houses_cost_some_milliseconds(self) -> None:
        # `make bench` holds nine houses against 5 ms; a machine at a quarter of the speed must not fail here.
        big = bench(*[(10.0, 0.0, 0.0), (0.0, 12.0, 0.0), (0.0, 0.0, 7.0)] * 4, (9.0, 0.0, 0.0), broken="main")
        took = []
        for _ in range(20):
            start = process_time()
            run_bench(big, RULES)
            took.append(process_time() - start)
        self.assertLess(min(took), 0.02)
