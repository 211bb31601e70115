"""Readings against their limits, and against each other."""

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.findings.finding import Verdict
from fulmen.core.model.readings import StepKey
from fulmen.core.verification.steps.band import Band
from tests.figures import figures
from tests.jobs import DEVICE_IN_UNIT, GARAGE, HALFWAY, TT, WITH_TESTER, evaluation, finding, job

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL


def reading(
    step: str, value: float | None = None, outcome: str = "measured", subject: str = "ev", **more: Any
) -> dict[str, Any]:
    volts = {"test_voltage_v": 500} if step.startswith("ir_") else {}
    return {"step": step, "subject": subject, "outcome": outcome, "value": value, "taken_by": "A. Tester", **volts,
            "instrument": "Tester 4",
            "taken_at": "2026-11-18T10:00:00Z", **more}  # fmt: skip


def judged(step: str, value: float, subject: str = "ev", name: str = DEVICE_IN_UNIT) -> Verdict:
    readings = [one.model_dump(mode="json") for one in job(name).readings] + [reading(step, value, subject=subject)]
    return finding(f"reading_{step}", name, {"readings": readings}).verdict


def agreeing(rule: str, *readings: dict[str, Any], name: str = HALFWAY, **changes: Any) -> Any:
    return finding(rule, name, {"readings": list(readings), **WITH_TESTER, **changes})


class Limits(unittest.TestCase):
    def test_at_below_and_above(self) -> None:
        cases = [
            ("ir_live_earth", 0.99, SHORT), ("ir_live_earth", 1.0, MEETS), ("ir_live_earth", 250.0, MEETS),
            ("rcd_trip", 299.9, MEETS), ("rcd_trip", 300.0, MEETS), ("rcd_trip", 300.1, SHORT),
            # 80 % of 230·0.95/(5·40)
            ("zs", 0.873, MEETS), ("zs", 0.875, SHORT),
            ("r1_r2", 0.69, MEETS), ("r1_r2", 0.72, SHORT),
        ]  # fmt: skip
        for step, value, verdict in cases:
            with self.subTest(step=step, value=value):
                self.assertEqual(judged(step, value), verdict)

    def test_at_the_origin(self) -> None:
        cases = [
            ("ze", 0.35, MEETS),
            ("ze", 0.36, SHORT),
            ("fault_current", 16.0, MEETS),
            ("fault_current", 16.1, SHORT),
        ]
        for step, value, verdict in cases:
            with self.subTest(step=step, value=value):
                self.assertEqual(judged(step, value, "origin"), verdict)

    def test_on_tt(self) -> None:
        cases = [("rcd_origin_trip", 129.0, SHORT), ("rcd_origin_trip", 130.0, MEETS), ("rcd_origin_trip", 500.0, MEETS),
                 ("rcd_origin_trip", 501.0, SHORT), ("electrode", 200.0, MEETS), ("electrode", 201.0, SHORT)]  # fmt: skip
        for step, value, verdict in cases:
            with self.subTest(step=step, value=value):
                self.assertEqual(judged(step, value, "origin", TT), verdict)

    def test_over_range_is_good_for_insulation_only(self) -> None:
        good = finding("reading_ir_live_earth", HALFWAY, {"readings": [reading("ir_live_earth", 999.0, "over_range")]})
        self.assertEqual(good.verdict, MEETS)
        open_circuit = finding("reading_r1_r2", HALFWAY, {"readings": [reading("r1_r2", 20.0, "over_range")]})
        self.assertEqual(open_circuit.verdict, SHORT)

    def test_wrong_and_not_tested(self) -> None:
        for outcome, reason, verdict in (
            ("right", "", MEETS),
            ("wrong", "", SHORT),
            ("could_not_test", "no key", NEEDS),
        ):
            with self.subTest(outcome):
                taken = reading("polarity_dead", None, outcome, reason=reason)
                self.assertEqual(finding("reading_polarity_dead", HALFWAY, {"readings": [taken]}).verdict, verdict)

    def test_the_latest_reading_counts(self) -> None:
        readings = [reading("rcd_trip", 400.0), reading("rcd_trip", 20.0)]
        self.assertEqual(finding("reading_rcd_trip", HALFWAY, {"readings": readings}).verdict, MEETS)
        self.assertEqual(finding("reading_rcd_trip", HALFWAY, {"readings": readings[::-1]}).verdict, SHORT)


class Agreement(unittest.TestCase):
    @given(figures(0, 5), figures(0.02, 1), st.integers(0, 700))
    def test_what_is_told_as_expected_is_what_is_judged(self, low: float, width: float, hundredths: int) -> None:
        """No reading of a display is called odd while the sentence names it as expected, nor the other way round."""
        band, value = Band(low, low + width, ""), hundredths / 100
        told = band.shown[0] <= value <= band.shown[1]
        self.assertEqual(told, band.holds(value))

    def test_r1_r2_with_the_route(self) -> None:
        """By hand: 14.9 m of fine 6 mm² at 9 °C, 14.9·6.60 mΩ·0.956 = 0.0940; length ±0.0028, metal −0.0047, warmth
        ±0.0015, link +0.006, instrument and its rounding ±0.0269: 0.0581 to 0.1312."""
        for value, verdict in ((0.05, CALL), (0.06, MEETS), (0.13, MEETS), (0.14, CALL)):
            with self.subTest(value):
                self.assertEqual(agreeing("agree_r1_r2", reading("r1_r2", value)).verdict, verdict)

    def test_a_warm_cable_reads_higher(self) -> None:
        cold = agreeing("agree_r1_r2", reading("r1_r2", 0.13, temperature_c=0.0))
        warm = agreeing("agree_r1_r2", reading("r1_r2", 0.13, temperature_c=35.0))
        self.assertEqual((cold.verdict, warm.verdict), (CALL, MEETS))

    def test_armour_beside_the_core_widens_the_band_downwards(self) -> None:
        armoured = agreeing("agree_r1_r2", reading("r1_r2", 0.08), name=DEVICE_IN_UNIT)
        self.assertEqual(armoured.verdict, MEETS)
        self.assertIn("armour beside the core", armoured.detail)

    def test_the_sizes_are_told_as_met_on_the_way_and_the_neutral_without_the_cpc(self) -> None:
        # GARAGE: 4 m of 6/2.5 mm² flat cable, then 3.5 m of 6/6, slack included; 4·10.49 + 3.5·6.16 = 64 mΩ; 7.5·6.16 = 46 mΩ
        for step, value, sizes in (("r1_r2", 0.06, "7.5 m of 6/2.5 and 6 mm²"), ("r1_rn", 0.04, "7.5 m of 6 mm²")):
            with self.subTest(step):
                found = agreeing(f"agree_{step}", reading(step, value), name=GARAGE)
                self.assertEqual(found.verdict, MEETS)
                self.assertIn(sizes, found.detail)

    def test_zs_with_ze_and_r1_r2(self) -> None:
        before = (reading("ze", 0.21, subject="origin"), reading("r1_r2", 0.09))
        # 0.303 and the lead 0.033; the instruments together 1.3·√(0.0455² + 0.0268² + 0.0518²) = ±0.096.
        for value, verdict in ((0.24, CALL), (0.25, MEETS), (0.44, MEETS), (0.45, CALL)):
            with self.subTest(value):
                self.assertEqual(agreeing("agree_zs", *before, reading("zs", value)).verdict, verdict)

    def test_below_r1_r2_says_why_out_loud(self) -> None:
        """Common practice, no source: 0.09 Ω read where the cores alone give more means a parallel path."""
        before = (reading("ze", 0.02, subject="origin"), reading("r1_r2", 0.15))
        found = agreeing("agree_zs", *before, reading("zs", 0.09))
        self.assertEqual(found.verdict, CALL)
        self.assertIn("parallel path", found.detail)

    def test_ze_with_the_enquiry(self) -> None:
        for value, verdict in ((0.23, MEETS), (0.33, MEETS), (0.34, CALL), (0.13, MEETS), (0.12, CALL)):
            with self.subTest(value):
                self.assertEqual(agreeing("agree_ze", reading("ze", value, subject="origin")).verdict, verdict)

    def test_fault_current_with_ze(self) -> None:
        ze = reading("ze", 0.23, subject="origin")  # alone gives 1.00 kA
        # Both off together 1.3·√2·0.0465 = 0.0855 Ω: 0.729 to 1.592 kA at 230 V, −6 to +10 %, half more by what lies beside.
        for value, verdict in ((0.68, CALL), (0.69, MEETS), (1.4, MEETS), (2.62, MEETS), (2.63, CALL)):
            with self.subTest(value):
                found = agreeing("agree_fault_current", ze, reading("fault_current", value, subject="origin"))
                self.assertEqual(found.verdict, verdict)

    def test_new_cable_below_a_hundred_megohms_is_asked_about(self) -> None:
        found = agreeing("agree_insulation", reading("ir_live_earth", 99.0))
        self.assertEqual(found.verdict, CALL)
        rules = {one.rule for one in evaluation(HALFWAY, {"readings": [reading("ir_live_earth", 100.0)]}).findings}
        self.assertNotIn("agree_insulation", rules)


class Sequence(unittest.TestCase):
    def steps(self, name: str, **changes: Any) -> list[str]:
        return [step.step.value for step in evaluation(name, changes).steps]

    def test_dead_comes_before_live_in_the_order_of_part_six(self) -> None:
        order = [key.value for key in StepKey]
        for name in (DEVICE_IN_UNIT, TT):
            keys = self.steps(name)
            self.assertEqual(keys, sorted(keys, key=order.index))

    def test_steps_follow_the_design(self) -> None:
        self.assertNotIn("electrode", self.steps(DEVICE_IN_UNIT))
        self.assertIn("electrode", self.steps(TT))
        self.assertIn("rcd_origin_trip", self.steps(TT))
        self.assertIn(
            "electrode", self.steps(DEVICE_IN_UNIT, **{"charge_points.0.arrangement.car_earth": "own_electrode"})
        )
        self.assertNotIn("rcd_trip", self.steps(DEVICE_IN_UNIT, **{"circuits.0.device.rcd": None}))
        self.assertNotIn("dc_detection", self.steps(DEVICE_IN_UNIT, **{"charge_points.0.arrangement.rdc_dd": "none"}))

    def test_expected_zs_uses_what_was_read(self) -> None:
        step = next(one for one in evaluation(HALFWAY).steps if one.step is StepKey.ZS)
        # Ze 0.21, tails of 25 mm² 0.003, R1+R2 0.09, lead 0.033: as above
        self.assertEqual((round(step.expected_low or 0, 2), round(step.expected_high or 0, 2)), (0.25, 0.44))
        self.assertIn("tails 0.003", step.expected_from)

    def test_where_the_rcd_serves_zs_is_limited_by_the_touch_voltage(self) -> None:
        step = next(one for one in evaluation(TT).steps if one.step is StepKey.ZS)
        self.assertAlmostEqual(step.limit or 0, 50 / 0.03)


class Gaps(unittest.TestCase):
    def test_complete_jobs_have_none(self) -> None:
        for name in (DEVICE_IN_UNIT, TT):
            self.assertEqual(evaluation(name).gaps, ())

    def test_each_missing_thing_is_named(self) -> None:
        readings = [one.model_dump(mode="json") for one in job().readings if one.step is not StepKey.ZS]
        inspections = [one.model_dump(mode="json") for one in job().inspections]
        cases: list[tuple[str, dict[str, Any], str]] = [
            ("check", {"supply.looped": "yes"}, "not looped"),
            ("reading", {"readings": readings}, "Loop at the car"),
            (
                "reading",
                {"readings": [*readings, reading("zs", None, "could_not_test", reason="no adapter")]},
                "Loop at the car",
            ),
            ("inspection", {"inspections": inspections[1:]}, "Intake"),
            ("inspection", {"inspections": [{**inspections[0], "outcome": "wrong"}, *inspections[1:]]}, "Found wrong"),
            ("inspection", {"inspections": [{**inspections[0], "outcome": "limited"}, *inspections[1:]]}, "limited"),
            ("particular", {"certificate.comments_on_existing": "", "defects": []}, "comments"),
            ("particular", {"site.householder": ""}, "householder"),
            ("signature", {"certificate.signatures": []}, "Design"),
        ]
        for kind, changes, words in cases:
            with self.subTest(words):
                gaps = [gap for gap in evaluation(DEVICE_IN_UNIT, changes).gaps if gap.kind == kind]
                self.assertTrue(any(words in gap.text for gap in gaps), gaps)
