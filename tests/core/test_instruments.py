"""The register of instruments, retests that say why, holds that are signed before going on."""

import unittest
from typing import Any

from fulmen.core.errors import JobFileError
from fulmen.core.findings.finding import Verdict
from fulmen.core.judging.known import known_for
from tests.core.test_earth_readings import read
from tests.jobs import DEVICE_IN_UNIT, RULES, TT, evaluation, finding, job

MEETS, CALL, SHORT, NEEDS = Verdict.MEETS, Verdict.YOUR_CALL, Verdict.FALLS_SHORT, Verdict.NEEDS
METER: dict[str, Any] = {
    "name": "Meter",
    "serial_number": "M-1",
    "calibration_due": "2026-11-20",
    "functions": ["loop"],
}
ZS = read("zs", 0.29) | {"instrument": "Meter"}


def judged(rule: str, reading: dict[str, Any] = ZS, **meter: Any) -> Verdict:
    changes = {"testing.instruments": [METER | meter], "readings": [reading]}
    return finding(rule, DEVICE_IN_UNIT, changes).verdict


class Register(unittest.TestCase):
    def test_the_day_it_is_due_counts_the_day_after_is_a_call(self) -> None:
        for day, verdict in (("2026-11-21", MEETS), ("2026-11-20", MEETS), ("2026-11-19", CALL), (None, NEEDS)):
            with self.subTest(day):
                self.assertEqual(judged("instrument_due", calibration_due=day), verdict)

    def test_what_nobody_wrote_is_asked_for(self) -> None:
        self.assertEqual(judged("instrument_due", serial_number=""), NEEDS)
        self.assertEqual(judged("instrument_fits", functions=[]), NEEDS)

    def test_it_must_be_able_to(self) -> None:
        self.assertEqual(judged("instrument_fits"), MEETS)
        self.assertEqual(judged("instrument_fits", functions=["continuity"]), SHORT)

    def test_a_reading_names_one_of_the_register(self) -> None:
        self.assertEqual(judged("instrument_named"), MEETS)
        self.assertEqual(judged("instrument_named", ZS | {"instrument": ""}), CALL)
        self.assertEqual(judged("instrument_known"), MEETS)
        self.assertEqual(judged("instrument_known", ZS | {"instrument": "Another"}), NEEDS)

    def test_nothing_is_asked_before_something_was_measured(self) -> None:
        looked = read("polarity_dead", None)
        rules = {one.rule for one in evaluation(DEVICE_IN_UNIT, {"readings": [looked]}).findings}
        self.assertFalse({one for one in rules if one.startswith("instrument_")})

    def test_two_of_one_name_are_refused(self) -> None:
        with self.assertRaises(JobFileError) as caught:
            job(DEVICE_IN_UNIT, {"testing.instruments": [METER, METER]})
        self.assertEqual(caught.exception.problems[0].field, "testing.instruments.1.name")


class Stray(unittest.TestCase):
    def test_a_reading_of_no_step_is_asked_about(self) -> None:
        for subject, verdict in (("ev", MEETS), ("gone", CALL), ("origin", CALL)):
            with self.subTest(subject):
                found = finding("stray_reading", DEVICE_IN_UNIT, {"readings": [read("zs", 0.29, subject)]})
                self.assertEqual(found.verdict, verdict)

    def test_another_school_hides_nothing(self) -> None:
        slow = {"readings": [read("rcd_trip", 400.0)], "testing.rcd_school": "twelve"}
        self.assertEqual(finding("stray_reading", DEVICE_IN_UNIT, slow).verdict, CALL)

    def test_an_electrode_given_up_is_told_with_its_reading(self) -> None:
        found = finding("stray_reading", DEVICE_IN_UNIT, {"readings": [read("electrode", 340.0, "ev")]})
        self.assertIs(found.verdict, CALL)
        self.assertIn("340 Ω", found.detail)


class Holds(unittest.TestCase):
    def verdict(self, isolated_at: int | None, safe_at: int | None) -> Verdict:
        readings = [read("r1_r2", 0.1, minute=10), read("zs", 0.29, minute=30)]
        for step, at in (("isolated", isolated_at), ("safe_to_energise", safe_at)):
            if at is not None:
                readings.append(read(step, None, "origin", minute=at))
        return finding("holds_signed", DEVICE_IN_UNIT, {"readings": readings}).verdict

    def test_each_before_the_first_reading_past_it(self) -> None:
        for isolated_at, safe_at, verdict in (
            (9, 29, MEETS), (10, 30, MEETS), (11, 29, CALL), (9, 31, CALL), (None, 29, NEEDS), (9, None, NEEDS),
        ):  # fmt: skip
            with self.subTest(isolated=isolated_at, safe=safe_at):
                self.assertEqual(self.verdict(isolated_at, safe_at), verdict)

    def test_one_that_failed_is_not_signed(self) -> None:
        refused = read("isolated", None, "origin", minute=5) | {"outcome": "wrong"}
        readings = [refused, read("r1_r2", 0.1, minute=10)]
        self.assertEqual(finding("holds_signed", DEVICE_IN_UNIT, {"readings": readings}).verdict, NEEDS)


class LeftOut(unittest.TestCase):
    def test_a_reason_stands_only_where_a_step_may_be_left_out(self) -> None:
        for step, outcome, verdict in (
            ("zs", "could_not_test", NEEDS), ("zs", "not_applicable", NEEDS), ("rcd_trip", "not_applicable", NEEDS),
            ("dc_detection", "could_not_test", CALL), ("pilot_d", "not_applicable", CALL), ("r1_rn", "could_not_test", NEEDS),
        ):  # fmt: skip
            given = read(step, None) | {"outcome": outcome, "reason": "no adapter"}
            with self.subTest(step, outcome=outcome):
                self.assertEqual(finding(f"reading_{step}", DEVICE_IN_UNIT, {"readings": [given]}).verdict, verdict)

    def test_the_long_lead_stands_for_it(self) -> None:
        left = read("r1_r2", None) | {"outcome": "could_not_test", "reason": "line can't be linked"}
        both = {"readings": [left, read("r2", 0.05)]}
        self.assertEqual(finding("reading_r1_r2", DEVICE_IN_UNIT, both).verdict, MEETS)
        gaps = [one.key for one in evaluation(DEVICE_IN_UNIT, both).gaps]
        self.assertNotIn("r1_r2/ev", gaps)

    def test_what_was_tested_once_is_not_left_out(self) -> None:
        wrong = read("dc_detection", None) | {"outcome": "wrong"}
        left = read("dc_detection", None, minute=5) | {"outcome": "not_applicable", "reason": "no need"}
        found = finding("reading_dc_detection", DEVICE_IN_UNIT, {"readings": [wrong, left]})
        self.assertEqual(found.verdict, NEEDS)

    def test_r2_is_held_to_what_r1_r2_may_be(self) -> None:
        """By hand: (1.0925 − 0.21 − tails)/1.28 is 0.70 for R1+R2; less R1 of 17.9 m of 6 mm², 0.055, about 0.65."""
        for value, verdict in ((0.60, MEETS), (0.70, SHORT), (5.0, SHORT)):
            with self.subTest(value):
                self.assertEqual(
                    finding("reading_r2", DEVICE_IN_UNIT, {"readings": [read("r2", value)]}).verdict, verdict
                )

    def test_a_loop_tester_stands_for_spikes_on_tt_alone(self) -> None:
        taken = {"readings": [read("electrode_loop", 61.0, "origin")]}
        self.assertNotIn("electrode/origin", [one.key for one in evaluation(TT, taken).gaps])
        self.assertEqual(finding("reading_electrode_loop", TT, taken).verdict, MEETS)
        self.assertEqual(known_for(job(TT, taken), RULES).origin.electrode.value, 61.0)
        self.assertNotIn("electrode_loop", [one.step for one in evaluation(DEVICE_IN_UNIT, taken).steps])

    def test_what_stands_for_a_dead_test_was_tested_dead(self) -> None:
        """R2 by the long lead, each pair of the insulation: ordinary ways, and the order knows them."""
        dead = [read("r1_rn", 0.1, minute=1), read("r2", 0.05, minute=1), read("ir_line_neutral", 500.0, minute=2), read("polarity_dead", None, minute=3),
                read("ir_line_earth", 500.0, minute=4), read("ir_neutral_earth", 500.0, minute=5)]  # fmt: skip
        for zs_at, verdict in ((6, MEETS), (4, CALL)):
            found = finding("reading_order", DEVICE_IN_UNIT, {"readings": [*dead, read("zs", 0.29, minute=zs_at)]})
            with self.subTest(zs_at):
                self.assertEqual(found.verdict, verdict, found.detail)

    def test_what_was_left_out_was_not_tested_dead(self) -> None:
        left = read("r1_r2", None) | {"outcome": "could_not_test", "reason": "no key"}
        found = finding("reading_order", DEVICE_IN_UNIT, {"readings": [left, read("zs", 0.29, minute=9)]})
        self.assertIn("Continuity, R1+R2", found.detail)

    def test_a_reason_is_asked_for(self) -> None:
        with self.assertRaisesRegex(JobFileError, "reason"):
            job(DEVICE_IN_UNIT, {"readings": [read("zs", None) | {"outcome": "not_applicable"}]})


if __name__ == "__main__":
    unittest.main()
