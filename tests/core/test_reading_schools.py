"""Both schools: 80 % or temperature for a loop, one RCD test or twelve; S-type windows; which figure goes on the schedule."""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from fulmen.core.model.readings import by_step
from fulmen.core.verification.readings.rcd_readings import rcd_figures
from fulmen.core.verification.steps.sequence import Step
from tests.core.test_earth_readings import read
from tests.jobs import DEVICE_IN_UNIT, GARAGE, THREE_RCDS, TT, TYPE_B_BOX, evaluation, finding, job

MEETS, CALL, SHORT = Verdict.MEETS, Verdict.YOUR_CALL, Verdict.FALLS_SHORT
TWELVE = {"testing.rcd_school": "twelve"}
WARM = {"testing.loop_school": "by_temperature"}


def steps(name: str, **changes: Any) -> list[Step]:
    return list(evaluation(name, {key.replace("__", "."): value for key, value in changes.items()}).steps)


def keys(name: str, changes: dict[str, Any], subject: str) -> list[str]:
    return [
        one.step.value for one in evaluation(name, changes).steps if one.subject == subject and one.function == "rcd"
    ]


class Loop(unittest.TestCase):
    def limit(self, **changes: Any) -> float:
        step = next(one for one in evaluation(DEVICE_IN_UNIT, changes).steps if one.step == "zs")
        return step.limit or 0.0

    def test_by_share(self) -> None:
        self.assertAlmostEqual(self.limit(readings=[]), 0.8 * 230 * 0.95 / 200)

    def test_by_temperature_keeps_free_what_the_conductors_rise_by(self) -> None:
        """By hand: 1.0925 Ω less R1+R2 0.10 read at 10 °C times 1.28/0.96 − 1 (90 °C cable, 1 + 0.004·Δθ)."""
        readings = [read("r1_r2", 0.10)]
        found = self.limit(readings=readings, **WARM, **{"testing.conductors_c": 10.0})
        self.assertAlmostEqual(found, 1.0925 - 0.10 * (1.28 / 0.96 - 1), 3)

    def test_the_colder_the_day_the_less_may_be_read(self) -> None:
        cold, mild, hot = (self.limit(readings=[], **WARM, **{"testing.conductors_c": c}) for c in (-5.0, 20.0, 60.0))
        self.assertTrue(cold < mild < hot < 1.0925)

    def test_without_the_days_temperature_the_share_counts(self) -> None:
        step = next(one for one in evaluation(DEVICE_IN_UNIT, {"readings": [], **WARM, "testing.conductors_c": None}).steps if one.step == "zs")  # fmt: skip
        self.assertAlmostEqual(step.limit or 0, 0.874)
        self.assertIn("say how warm", step.limit_from)

    def test_a_sub_mains_rise_counts_too(self) -> None:
        found = {
            one.subject: one.limit or 0 for one in steps(GARAGE, **WARM, testing__conductors_c=10.0) if one.step == "zs"
        }
        by_share = {one.subject: one.limit or 0 for one in steps(GARAGE) if one.step == "zs"}
        self.assertEqual(set(found), {"sub-main", "ev"})
        self.assertNotEqual(found["ev"], by_share["ev"])


class Twelve(unittest.TestCase):
    def test_a_type_a_gets_twelve_and_a_type_b_two_more(self) -> None:
        self.assertEqual(len(keys(DEVICE_IN_UNIT, TWELVE, "ev")), 12)
        self.assertEqual(keys(DEVICE_IN_UNIT, {}, "ev"), ["rcd_trip", "rcd_five"])
        box = next(one.subject for one in evaluation(TYPE_B_BOX).steps if one.step == "rcd_trip")
        self.assertEqual(len(keys(TYPE_B_BOX, TWELVE, box)), 14)
        self.assertEqual(keys(TYPE_B_BOX, TWELVE, box)[-2:], ["rcd_smooth_plus", "rcd_smooth_minus"])

    def test_each_rcd_of_the_chain_is_tested(self) -> None:
        tested = {one.subject for one in evaluation(THREE_RCDS).steps if one.step == "rcd_trip"}
        self.assertEqual(tested, {"house-rcd", "box-rccb", "charge-point"})

    def test_behind_another_of_no_more_current_it_may_be_left_with_a_reason(self) -> None:
        waivable = {one.subject: one.waivable for one in evaluation(THREE_RCDS).steps if one.step == "rcd_trip"}
        self.assertTrue(waivable["charge-point"])
        alone = next(one for one in evaluation(DEVICE_IN_UNIT).steps if one.step == "rcd_trip")
        self.assertFalse(alone.waivable)

    def test_a_time_delayed_one_has_windows_at_1x_and_5x(self) -> None:
        for step, value, verdict in (
            ("rcd_origin_trip", 129.0, SHORT), ("rcd_origin_trip", 130.0, MEETS), ("rcd_origin_trip", 500.0, MEETS),
            ("rcd_origin_trip", 501.0, SHORT), ("rcd_five", 49.0, SHORT), ("rcd_five", 50.0, MEETS),
            ("rcd_five", 150.0, MEETS), ("rcd_five", 151.0, SHORT),
        ):  # fmt: skip
            with self.subTest(step, value=value):
                found = finding(f"reading_{step}", TT, {"readings": [read(step, value, "origin")]})
                self.assertEqual(found.verdict, verdict)

    def test_at_five_times_at_below_and_above(self) -> None:
        for value, verdict in ((39.9, MEETS), (40.0, MEETS), (40.1, SHORT), (2.3, CALL), (2.4, MEETS), (5.0, MEETS)):
            with self.subTest(value):
                found = finding("reading_rcd_five", DEVICE_IN_UNIT, {"readings": [read("rcd_five", value)]})
                self.assertEqual(found.verdict, verdict)

    def test_on_tt_a_slow_one_is_settled_by_its_5x_figure(self) -> None:
        for five_ms, verdict in ((None, CALL), (40.0, MEETS), (41.0, CALL)):
            more = [read("rcd_five", five_ms)] if five_ms is not None else []
            with self.subTest(five_ms):
                found = finding("reading_rcd_trip", TT, {"readings": [read("rcd_trip", 240.0), *more]})
                self.assertEqual(found.verdict, verdict)

    def test_the_longest_goes_on_the_schedule(self) -> None:
        times = {"rcd_ac_0": 24.6, "rcd_ac_180": 15.3, "rcd_pulse_0": 31.0, "rcd_five_ac_0": 5.9, "rcd_five_ac_180": 11.9,
                 "rcd_five_pulse_0": 12.1}  # fmt: skip
        found = rcd_figures(
            by_step(job(DEVICE_IN_UNIT, {"readings": [read(step, ms) for step, ms in times.items()]}).readings), "ev"
        )
        self.assertEqual((found.at_rated_ms, found.at_five_ms), (24.6, 12.1))

    def test_what_opens_on_half_falls_short(self) -> None:
        opened = read("rcd_half_ac_0", None) | {"outcome": "wrong"}
        self.assertEqual(
            finding("reading_rcd_half_ac_0", DEVICE_IN_UNIT, {**TWELVE, "readings": [opened]}).verdict, SHORT
        )


if __name__ == "__main__":
    unittest.main()
