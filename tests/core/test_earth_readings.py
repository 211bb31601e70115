"""Earths joined, electrodes with something in parallel, the order of the tests, and days that can't be."""

import unittest
from datetime import date, timedelta
from typing import Any

from fulmen.core.findings.finding import Verdict
from fulmen.core.model.readings import Reading
from fulmen.core.verification.reading_order import date_gaps
from tests.jobs import DEVICE_IN_UNIT, TESTER, TT, evaluation, finding, job

MEETS, CALL, SHORT, NEEDS = Verdict.MEETS, Verdict.YOUR_CALL, Verdict.FALLS_SHORT, Verdict.NEEDS
ISLAND: dict[str, Any] = {
    "charge_points.0.arrangement.car_earth": "own_electrode",
    "charge_points.0.arrangement.electrode_conductor_csa_mm2": 16.0,
    "charge_points.0.arrangement.electrode_conductor_protection": "guarded",
}
DEAD = ("r1_r2", "ir_live_earth", "ir_line_neutral", "polarity_dead")


def read(step: str, value: float | None, subject: str = "ev", minute: int = 0) -> dict[str, Any]:
    outcome = "right" if value is None else "measured"
    return {"step": step, "subject": subject, "outcome": outcome, "value": value, "taken_by": "R. Quillfeather", "instrument": "Tester 4",
            "taken_at": f"2026-11-20T10:{minute:02d}:00+00:00"}  # fmt: skip


def tested(live_minute: int, *, without: str = "") -> list[dict[str, Any]]:
    """Dead tests from minute 10 on, and Zs at a minute."""
    found = [
        read(step, None if step == "polarity_dead" else 1.0, minute=10 + place)
        for place, step in enumerate(DEAD)
        if step != without
    ]
    return [read("r1_rn", 1.0, minute=10), *found, read("zs", 0.29, minute=live_minute)]


def asked(rule: str, name: str, **changes: Any) -> bool:
    found = evaluation(name, {key.replace("__", "."): value for key, value in changes.items()})
    return any(one.rule == rule for one in found.findings)


class Joined(unittest.TestCase):
    def test_a_loop_below_the_electrode_means_another_way_back(self) -> None:
        """RA 32 Ω and Zs 0.22 Ω: the earths are joined. Both instruments together are 1.3·√(2.1² + 1.47²) = 3.3 Ω off."""
        for zs_ohm, wanted in (
            (0.22, SHORT),
            (12.0, SHORT),
            (28.6, SHORT),
            (28.7, CALL),
            (28.8, MEETS),
            (32.0, MEETS),
            (33.1, MEETS),
        ):
            readings = [read("electrode", 32.0), read("zs", zs_ohm)]
            found = finding("earths_apart", DEVICE_IN_UNIT, {**ISLAND, "readings": readings})
            with self.subTest(zs_ohm):
                self.assertEqual(found.verdict, wanted)
                self.assertTrue(found.protects)

    def test_no_sheet_lets_joined_earths_meet(self) -> None:
        """Whatever is said of the instruments: nothing below nine tenths of the electrode meets."""
        coarse = [{**one, "share_percent": 30.0, "digits": 99} for one in TESTER["accuracies"]]
        for accuracies, zs_ohm, wanted in (
            (coarse, 0.22, SHORT), (coarse, 15.9, SHORT), (coarse, 16.0, CALL), (coarse, 28.7, CALL), (coarse, 28.8, MEETS),
            ([], 28.7, NEEDS), ([], 12.0, SHORT), ([], 28.8, MEETS),
        ):  # fmt: skip
            register = {"testing.instruments": [{**TESTER, "accuracies": accuracies}]}
            changes = {**ISLAND, **register, "readings": [read("electrode", 32.0), read("zs", zs_ohm)]}
            with self.subTest(zs_ohm, said=len(accuracies)):
                self.assertEqual(finding("earths_apart", DEVICE_IN_UNIT, changes).verdict, wanted)

    def test_it_waits_for_the_electrode_and_is_not_asked_elsewhere(self) -> None:
        alone = finding("earths_apart", DEVICE_IN_UNIT, {**ISLAND, "readings": [read("zs", 0.22)]})
        self.assertEqual(alone.verdict, NEEDS)
        for name in (DEVICE_IN_UNIT, TT):
            self.assertFalse(asked("earths_apart", name))


class Alone(unittest.TestCase):
    def test_less_than_rods_come_to_has_something_in_parallel(self) -> None:
        for value, wanted in ((0.5, CALL), (0.99, CALL), (1.0, MEETS), (48.0, MEETS)):
            for step in ("electrode", "ze"):
                found = finding("electrode_alone", TT, {"readings": [read(step, value, "origin")]})
                with self.subTest(step, value=value):
                    self.assertEqual(found.verdict, wanted)
        island = finding("electrode_alone", DEVICE_IN_UNIT, {**ISLAND, "readings": [read("electrode", 0.4)]})
        self.assertEqual(island.verdict, CALL)


class Order(unittest.TestCase):
    def test_dead_before_live(self) -> None:
        for minute, wanted in ((14, MEETS), (13, MEETS), (12, CALL), (5, CALL)):
            found = finding("reading_order", DEVICE_IN_UNIT, {"readings": tested(minute)})
            with self.subTest(minute):
                self.assertEqual(found.verdict, wanted)

    def test_live_without_dead(self) -> None:
        for step in DEAD:
            found = finding("reading_order", DEVICE_IN_UNIT, {"readings": tested(30, without=step)})
            with self.subTest(step):
                self.assertEqual(found.verdict, NEEDS)

    def test_a_dead_test_taken_again_after_the_live_ones_takes_nothing_back(self) -> None:
        again = [*tested(20), read("r1_r2", 1.0, minute=40)]
        self.assertEqual(finding("reading_order", DEVICE_IN_UNIT, {"readings": again}).verdict, MEETS)

    def test_nothing_is_asked_before_a_live_test(self) -> None:
        self.assertFalse(asked("reading_order", DEVICE_IN_UNIT, readings=tested(20)[:-1]))


class Days(unittest.TestCase):
    def test_signed_before_tested_and_dates_to_come(self) -> None:
        whole = job()
        last = max(one.taken_at.date() for one in whole.readings)
        signed = max(one.signed_on for one in whole.certificate.signatures)
        self.assertEqual(date_gaps(whole, max(last, signed)), ())
        for today, words in (
            (last - timedelta(days=1), "A reading is dated"),
            (signed - timedelta(days=1), "yet to come"),
        ):
            self.assertTrue(any(words in one.text for one in date_gaps(whole, today)), today)
        late = Reading.model_validate(read("zs", 0.29) | {"taken_at": "2026-12-24T10:00:00+00:00"})
        changed = whole.model_copy(update={"readings": (*whole.readings, late)})
        found = date_gaps(changed, date(2026, 12, 31))
        self.assertEqual(len(found), 1)
        self.assertIn("before the last test on 24 December 2026", found[0].text)


if __name__ == "__main__":
    unittest.main()
