"""Half-hourly energy: the peak and its date, and one sentence for each line that can't be taken."""

import unittest
from datetime import datetime, timedelta

from fulmen.core.demand.half_hours import MAX_LINES, read_half_hours
from fulmen.core.errors import JobFileError
from fulmen.core.findings.finding import Verdict
from tests.jobs import ALL_ELECTRIC, EXAMPLES, finding, job

GOOD = "start,kwh\n2026-01-14 17:00,1.2\n2026-01-14 17:30,4.6\n2026-01-14 18:30,0\n"


def refused(text: str) -> dict[str, str]:
    """What is said of a file that can't be taken, by field."""
    try:
        read_half_hours(text)
    except JobFileError as error:
        return {problem.field: problem.message for problem in error.problems}
    raise AssertionError("was taken")


class Reading(unittest.TestCase):
    def test_peak_span_and_what_is_missing(self) -> None:
        found = read_half_hours(GOOD)
        self.assertEqual((found.peak_kwh, found.peak_at), (4.6, datetime(2026, 1, 14, 17, 30)))
        self.assertEqual((found.entries, found.missing), (3, 1))

    def test_separators_marks_and_order_do_not_matter(self) -> None:
        for text in (GOOD.replace(",", ";"), GOOD.replace(",", "\t"), "\ufeff" + GOOD, GOOD.replace("\n", "\r\n"),
                     GOOD.replace(" 17", "T17"), "2026-01-14 18:30;0\n2026-01-14 17:30;4,6\n\n2026-01-14 17:00;1,2"):  # fmt: skip
            with self.subTest(text[:30]):
                self.assertEqual(read_half_hours(text), read_half_hours(GOOD))

    def test_a_year_is_read(self) -> None:
        start = datetime(2025, 1, 1)
        lines = [f"{start + timedelta(minutes=30 * place)},{0.2 + (place == 777) * 3}" for place in range(17_520)]
        found = read_half_hours("\n".join(lines))
        self.assertEqual((found.entries, found.peak_kwh, found.missing), (17_520, 3.2, 0))

    def test_each_bad_line_is_told_by_its_number(self) -> None:
        for line, why in [
            ("2026-01-14 19:00", "two columns"), ("2026-01-14 19:00,1,2", "holds 3"), ("yesterday,1", "no time such as"),
            ("2026-01-14 19:10,1", "no start of a half hour"), ("2026-01-14 19:00,lots", "no energy"), ("2026-01-14 19:00,nan", "no energy"),
            ("2026-01-14 19:00,-0.1", "from 0 to 50"), ("2026-01-14 19:00,50.1", "from 0 to 50"),
            ("2026-01-14 19:00,1e3", "no energy"), ("2026-01-14 17:30,1", "in line 3 already"), ("2026-02-30 10:00,1", "no time"),
        ]:  # fmt: skip
            with self.subTest(line):
                told = refused(GOOD + line)
                self.assertEqual(list(told), ["line 5"])
                self.assertIn(why, told["line 5"])
                self.assertTrue(told["line 5"].startswith("Line 5: "))

    def test_limits_of_energy_are_taken(self) -> None:
        self.assertEqual(read_half_hours("2026-01-14 19:00,50\n2026-01-14 19:30,0").peak_kwh, 50)

    def test_many_bad_lines_are_counted(self) -> None:
        told = refused("\n".join(["0,0"] * 25))
        self.assertEqual((len(told), told["file"]), (21, "5 more lines can't be taken."))

    def test_empty_and_endless_files(self) -> None:
        for text, why in (
            ("", "no half hour"),
            ("start,kwh\n", "no half hour"),
            ("x\n" * (MAX_LINES + 1), "at most 60000"),
        ):
            with self.subTest(text[:12]):
                self.assertIn(why, refused(text)["file"])


class Trust(unittest.TestCase):
    def record(self, first: str, days: int) -> Verdict:
        start = datetime.fromisoformat(first)
        half = {"peak_kwh": 4.0, "peak_at": first, "first_at": first, "last_at": (start + timedelta(days=days, minutes=-30)).isoformat(),
                "entries": days * 48}  # fmt: skip
        return finding("meter_record", changes={"load.method": "measured", "load.half_hours": half}).verdict

    def test_long_enough_and_with_a_winter_in_it(self) -> None:
        self.assertIs(self.record("2026-01-02T00:00:00", 28), Verdict.MEETS)
        self.assertIs(self.record("2026-01-02T00:00:00", 27), Verdict.YOUR_CALL)
        self.assertIs(self.record("2026-05-02T00:00:00", 60), Verdict.YOUR_CALL)
        self.assertIs(self.record("2025-05-02T00:00:00", 365), Verdict.MEETS)
        self.assertIs(self.record("2026-10-05T00:00:00", 28), Verdict.MEETS)

    def test_the_demo_file_is_the_demo_jobs_record(self) -> None:
        text = (EXAMPLES / "half-hours.csv").read_text(encoding="utf-8")
        self.assertEqual(read_half_hours(text), job(ALL_ELECTRIC).load.half_hours)
