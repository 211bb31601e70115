"""What instruments have read since their last check, and how they stand beside one another."""

import unittest
from datetime import date
from typing import Any

from fulmen.core.model.instruments import Instrument
from fulmen.core.verification.readings.in_use import InUse, JobReadings, in_use
from tests.core.test_earth_readings import read
from tests.jobs import DEVICE_IN_UNIT, job

EXACT = ({"measures": "loop_no_trip", "share_percent": 5.0, "digits": 3},)


def found(*readings: dict[str, Any], checked: str | None = None) -> dict[str, InUse]:
    made = job(DEVICE_IN_UNIT, {"readings": list(readings)})
    register = [
        Instrument.model_validate({"name": name, "accuracies": EXACT, "checked_on": checked})
        for name in ("Old one", "New one")
    ]
    return {one.name: one for one in in_use(register, [JobReadings(7, "Sallow End", made.readings)])}


def by(name: str, value: float | None, step: str = "zs", at: str = "2026-11-20T10:00:00Z") -> dict[str, Any]:
    return {**read(step, value), "instrument": name, "taken_at": at}


class InUseOf(unittest.TestCase):
    def test_only_figures_since_the_last_check_count_that_day_too(self) -> None:
        taken = [by("Old one", 0.30, at=f"2026-11-{day}T10:00:00Z") for day in (18, 19, 20)]
        for checked, count in ((None, 3), ("2026-11-18", 3), ("2026-11-19", 2), ("2026-11-20", 1), ("2026-11-21", 0)):
            one = found(*taken, checked=checked)["Old one"]
            with self.subTest(checked=checked):
                self.assertEqual((one.count, len(one.jobs)), (count, min(count, 1)))
        one = found(*taken, by("Old one", None, "polarity_dead"), by("Another", 0.3))["Old one"]
        self.assertEqual((one.count, one.jobs[0].first, one.jobs[0].last), (3, date(2026, 11, 18), date(2026, 11, 20)))

    def test_two_that_read_one_thing_are_held_against_each_other(self) -> None:
        """Each may be off 5 % of 0.30 and 3.5 hundredths: 0.05 Ω, together 1.3·0.05·√2 = 0.092 (by hand)."""
        for other, within in ((0.30, True), (0.39, True), (0.40, False), (0.20, False)):
            told = found(by("Old one", 0.30), by("New one", other))
            with self.subTest(other):
                (pair,), (back,) = told["Old one"].against, told["New one"].against
                self.assertEqual((pair.value, pair.other_value, pair.within), (0.30, other, within))
                self.assertEqual((back.value, back.other_value, back.within), (other, 0.30, within))
        self.assertEqual(found(by("Old one", 0.30), by("New one", 0.30, "zs_cable"))["Old one"].against, ())

    def test_a_register_of_none_has_read_nothing(self) -> None:
        self.assertEqual(in_use([], [JobReadings(7, "Sallow End", job(DEVICE_IN_UNIT).readings)]), ())


if __name__ == "__main__":
    unittest.main()
