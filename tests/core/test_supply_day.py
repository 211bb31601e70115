"""A day on the supply: what must hold for every house, car and limit; and how long it takes."""

import unittest
from time import process_time
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.demand.diversity import appliance_a
from fulmen.core.model.day import ChargingDay, Season
from fulmen.core.model.load import Appliance, LoadKind
from fulmen.core.simulations.benches.charging_time import charging_hours, charging_power_kw
from fulmen.core.simulations.benches.house_day import MINUTES, house_minutes
from fulmen.core.simulations.benches.supply_day import SupplyDay, supply_day
from tests.figures import figures
from tests.jobs import RULES, THREE_PHASE, job
from tests.sampling import tries

KINDS = [kind.value for kind in LoadKind]
DAYS = st.fixed_dictionaries({
    "day.seed": st.integers(0, 9999), "day.weekend": st.booleans(), "day.season": st.sampled_from(["winter", "summer"]),
    "day.plug_in_min": st.integers(0, 1439), "day.battery_kwh": figures(1, 250), "day.onboard_kw": figures(1.3, 22.1),
    "day.from_percent": figures(0, 100), "day.to_percent": figures(0, 100), "day.off_peak": st.booleans(),
    "day.off_peak_from_min": st.integers(0, 1439), "day.off_peak_to_min": st.integers(0, 1439), "day.random_delay": st.booleans(),
    "supply.load_limit_a": st.none() | figures(20, 100),
    "load.appliances": st.lists(st.fixed_dictionaries({"kind": st.sampled_from(KINDS), "rating_a": figures(0.1, 60)}), max_size=8),
})  # fmt: skip


def day(**changes: Any) -> SupplyDay:
    return supply_day(job(changes={key.replace("__", "."): value for key, value in changes.items()}), RULES)


class Invariants(unittest.TestCase):
    @tries(120)
    @given(DAYS)
    def test_of_any_day(self, changes: dict[str, Any]) -> None:
        found = supply_day(job(changes=changes), RULES)
        limit_a = found.limit_a
        self.assertEqual(len(found.total_a), MINUTES)
        for house, car, total in zip(found.house_a, found.car_a, found.total_a, strict=True):
            self.assertAlmostEqual(total, house + car, delta=0.02)
            # Once the car has followed, nothing stands above the limit but what the house alone draws.
            if limit_a is not None:
                self.assertLessEqual(total, max(limit_a, house) + 0.02)
            self.assertTrue(car == 0 or 5.64 <= car <= 32.01, car)
            if limit_a is not None and 0 < car < found.power_kw / 0.23 - 0.01:
                self.assertGreaterEqual(car, 5.99)
        if limit_a is not None:
            # Before it has followed, for one control step, no more than the car itself can stand above.
            self.assertLessEqual(found.over_a, max(found.car_a) + 0.06)
        self.assertAlmostEqual(found.battery_kwh, found.drawn_kwh * RULES.value("charging_efficiency"), places=6)
        self.assertLessEqual(found.battery_kwh, found.wanted_kwh + 1e-6)
        self.assertLessEqual(found.drawn_kwh, sum(found.car_a) * 0.23 / 60 + 0.25)
        if found.full_min is not None:
            self.assertAlmostEqual(found.battery_kwh, found.wanted_kwh, places=6)
        self.assertLessEqual(found.throttled_min, found.charging_min)

    @tries(60)
    @given(st.integers(0, 9999), st.booleans(), st.sampled_from(Season))
    def test_no_appliance_draws_more_than_its_rating(self, seed: int, weekend: bool, season: Season) -> None:
        for kind in LoadKind:
            one = Appliance(kind=kind, rating_a=10)
            amps = house_minutes((one,), ChargingDay(seed=seed, weekend=weekend, season=season), 230)
            self.assertLessEqual(max(amps), appliance_a(one, 230) + 1e-9)
            self.assertGreaterEqual(min(amps), 0)

    def test_the_same_seed_gives_the_same_day_and_another_seed_another(self) -> None:
        self.assertEqual(day(day__seed=7), day(day__seed=7))
        self.assertNotEqual(day(day__seed=7).house_a, day(day__seed=8).house_a)

    def test_one_day_costs_less_than_fifty_milliseconds(self) -> None:
        found = []
        for seed in range(5):
            started = process_time()
            day(day__seed=seed)
            found.append(process_time() - started)
        self.assertLess(min(found), 0.05)


class Control(unittest.TestCase):
    def test_off_peak_is_kept(self) -> None:
        found = day(day__off_peak=True, day__off_peak_from_min=30, day__off_peak_to_min=330)
        drawing = [(minute + 720) % MINUTES for minute, amps in enumerate(found.car_a) if amps]
        self.assertGreaterEqual(min(drawing), 30)
        self.assertLess(max(drawing), 330)

    def test_the_random_delay_is_ten_minutes_at_most(self) -> None:
        starts = {day(day__off_peak=False, day__plug_in_min=1200, day__seed=seed).start_min for seed in range(20)}
        self.assertTrue(all(start is not None and 1200 <= start <= 1210 for start in starts), starts)
        self.assertGreater(len(starts), 3)
        self.assertEqual(day(day__off_peak=False, day__plug_in_min=1200, day__random_delay=False).start_min, 1200)

    def test_a_tight_limit_throttles_and_takes_longer(self) -> None:
        heavy: dict[str, Any] = {"load__appliances": [{"kind": "heat_pump", "rating_a": 30.0}, {"kind": "storage_heating", "rating_a": 20.0}],
                                 "day__season": "winter", "day__off_peak": False}  # fmt: skip
        free, held = day(**heavy, supply__load_limit_a=None), day(**heavy, supply__load_limit_a=50.0)
        self.assertEqual((free.throttled_min, free.paused_min), (0, 0))
        self.assertGreater(held.throttled_min + held.paused_min, 60)
        self.assertGreater(held.charging_min + held.paused_min, free.charging_min)

    def test_without_a_clamp_the_fuse_is_passed(self) -> None:
        heavy: dict[str, Any] = {
            "load__appliances": [{"kind": "storage_heating", "rating_a": 70.0}],
            "day__plug_in_min": 1380,
        }
        self.assertGreater(day(**heavy, supply__load_limit_a=None).over_fuse_min, 60)
        self.assertEqual(day(**heavy, supply__load_limit_a=80.0).over_fuse_min, 0)

    def test_what_is_not_known_is_said_to_be_assumed(self) -> None:
        self.assertEqual(len(day(day__battery_kwh=None, day__onboard_kw=None, load__appliances=[]).assumed), 3)
        known = day(
            day__battery_kwh=50.0, day__onboard_kw=7.4, load__appliances=[{"kind": "sockets", "rating_a": 32.0}]
        )
        self.assertEqual(known.assumed, ())

    def test_the_answer_in_plain_words(self) -> None:
        quiet: dict[str, Any] = {
            "day__off_peak": False,
            "day__plug_in_min": 1320,
            "day__onboard_kw": 7.4,
            "supply__load_limit_a": None,
        }
        self.assertRegex(
            day(**quiet, day__battery_kwh=60.0).answer, r"^About 5¼ hours: from 22:\d\d, ready by 03:\d\d\.$"
        )
        self.assertIn("Nothing to charge", day(**quiet, day__from_percent=80.0, day__to_percent=80.0).answer)
        self.assertIn(
            "Not full by noon",
            day(**quiet, day__battery_kwh=200.0, day__from_percent=0.0, day__to_percent=100.0).answer,
        )


class HowLong(unittest.TestCase):
    """Common practice, no source: what householders are told."""

    def test_three_phase_cars_charge_on_three_phases(self) -> None:
        # 16 A on three phases 11.04 kW, 32 A 22.08 kW; 40 kWh at 92 %
        for amps, onboard_kw, power_kw in ((16.0, 11.0, 11.0), (16.0, 22.0, 11.04), (32.0, 22.0, 22.0)):
            changes = {"charge_points.0.max_current_a": amps, "day.onboard_kw": onboard_kw, "day.battery_kwh": 80.0,
                       "day.from_percent": 20.0, "day.to_percent": 70.0}  # fmt: skip
            found = supply_day(job(THREE_PHASE, changes), RULES)
            with self.subTest(amps=amps, onboard_kw=onboard_kw):
                self.assertAlmostEqual(found.power_kw, power_kw, places=2)
                self.assertAlmostEqual(found.alone_hours, 40 / (power_kw * 0.92), places=2)
                self.assertAlmostEqual(max(found.car_a), power_kw * 1000 / (3 * 230), places=1)

    def test_what_the_trade_says(self) -> None:
        for battery_kwh, charge_point_a, onboard_kw, low, high in [
            (40, 32, 7.4, 5.5, 6.2), (75, 32, 7.4, 10.5, 11.5), (13, 32, 3.6, 3.5, 4.4), (75, 32, 7.0, 11, 12),
        ]:  # fmt: skip
            with self.subTest(battery_kwh):
                hours = charging_hours(battery_kwh, charging_power_kw(charge_point_a, onboard_kw, 230), 0.92)
                self.assertTrue(low <= hours <= high, hours)

    def test_powers(self) -> None:
        self.assertAlmostEqual(charging_power_kw(13, 7.4, 230), 2.99)
        self.assertEqual(charging_power_kw(96, 7.0, 230), 7.0)
