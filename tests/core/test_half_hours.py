"""Half-hourly energy: the peak and its date, and one sentence for each line that can't be taken."""

import unittest
from datetime import datetime, timedelta

from fulmen.core.demand.half_hours import MAX_LINES, read_half_hours
from fulmen.core.demand.meter_columns import MeterShape, guess_shape
from fulmen.core.errors import JobFileError
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.load import HalfHours
from tests.jobs import ALL_ELECTRIC, EXAMPLES, finding, job

GOOD = "start,kwh\n2026-01-14 17:00,1.2\n2026-01-14 17:30,4.6\n2026-01-14 18:30,0\n"


def read(text: str, shape: MeterShape | None = None) -> HalfHours:
    return read_half_hours(text, shape)[0]


def refused(text: str) -> dict[str, str]:
    """What is said of a file that can't be taken, by field."""
    try:
        read_half_hours(text)
    except JobFileError as error:
        return {problem.field: problem.message for problem in error.problems}
    raise AssertionError("was taken")


class Reading(unittest.TestCase):
    def test_peak_span_and_what_is_missing(self) -> None:
        found = read(GOOD)
        self.assertEqual((found.peak_kwh, found.peak_at), (4.6, datetime(2026, 1, 14, 17, 30)))
        self.assertEqual((found.entries, found.missing), (3, 1))

    def test_separators_marks_and_order_do_not_matter(self) -> None:
        for text in (GOOD.replace(",", ";"), GOOD.replace(",", "\t"), "\ufeff" + GOOD, GOOD.replace("\n", "\r\n"),
                     GOOD.replace(" 17", "T17"), "2026-01-14 18:30;0\n2026-01-14 17:30;4,6\n\n2026-01-14 17:00;1,2"):  # fmt: skip
            with self.subTest(text[:30]):
                self.assertEqual(read(text), read(GOOD))

    def test_a_year_is_read(self) -> None:
        start = datetime(2025, 1, 1)
        lines = [f"{start + timedelta(minutes=30 * place)},{0.2 + (place == 777) * 3}" for place in range(17_520)]
        found = read("\n".join(lines))
        self.assertEqual((found.entries, found.peak_kwh, found.missing), (17_520, 3.2, 0))

    def test_each_bad_line_is_told_by_its_number(self) -> None:
        for line, why in [
            ("2026-01-14 19:00", "must hold 2 columns"), ("yesterday,1", "no time such as"),
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
        self.assertEqual(read("2026-01-14 19:00,50\n2026-01-14 19:30,0").peak_kwh, 50)

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


# Exports as meters and suppliers write them, all of our own making; each holds 1.2 kWh at 17:00 and 4.6 at 17:30.
SHAPES: dict[str, str] = {
    "columns the other way round": "kWh,Start\n1.2,2026-01-14 17:00\n4.6,2026-01-14 17:30\n",
    "extra columns": "Meter,Start,End,Import kWh,Export kWh,Cost\n"
    "77,2026-01-14 17:00,2026-01-14 17:30,1.2,0.0,0.31\n77,2026-01-14 17:30,2026-01-14 18:00,4.6,0.0,1.20\n",
    "day, month, year": "Date,Usage (kWh)\n14/01/2026 17:00,1.2\n14/01/2026 17:30,4.6\n",
    "date and time apart": "Date;Start time;Consumption (kWh)\n14.01.2026;17:00;1,2\n14.01.2026;17:30;4,6\n",
    "with an offset": "Interval start,kWh\n2026-01-14T17:00:00+00:00,1.2\n2026-01-14T17:30:00Z,4.6\n",
    "watt-hours": "start\tenergy Wh\n2026-01-14 17:00\t1200\n2026-01-14 17:30\t4600\n",
    "seconds written": "when,kwh\n14-01-2026 17:00:00,1.2\n14-01-2026 17:30:00,4.6\n",
}


def day_line(day: str, count: int, peak_at: int) -> str:
    return ",".join([day, *("4.6" if place == peak_at else "0.5" for place in range(count))])


class Exports(unittest.TestCase):
    def test_the_shapes_that_exports_have_are_guessed(self) -> None:
        for name, text in SHAPES.items():
            with self.subTest(name):
                found = read(text)
                self.assertEqual((found.peak_kwh, found.peak_at), (4.6, datetime(2026, 1, 14, 17, 30)))
                self.assertEqual((found.entries, found.missing), (2, 0))

    def test_a_day_a_line(self) -> None:
        heading = "Date," + ",".join(f"{place // 2:02d}:{place % 2 * 30:02d}" for place in range(48))
        found = read("\n".join([heading, day_line("14/01/2026", 48, 35), day_line("15/01/2026", 48, 0)]))
        self.assertEqual((found.entries, found.missing), (96, 0))
        self.assertEqual((found.peak_at, found.near_peak_hours), (datetime(2026, 1, 14, 17, 30), 0.5))

    def test_the_two_days_when_clocks_change(self) -> None:
        # 25 October 2026: 50 half hours, 01:00 and 01:30 twice; 29 March: 46, the same two not at all.
        for day, count in (("25/10/2026", 50), ("29/03/2026", 46)):
            with self.subTest(day):
                found = read("\n".join([day_line(day, count, 3), day_line(day.replace("2", "2", 1), count, 3)][:1]))
                self.assertEqual((found.entries, found.missing), (count, 0))
        local = [f"2026-10-25 {clock},1" for clock in ("00:30", "01:00", "01:30", "01:00", "01:30", "02:00")]
        offset = [f"2026-10-25T{clock},1" for clock in ("01:00+01:00", "01:30+01:00", "01:00+00:00", "01:30+00:00")]
        spring = ["2026-03-29 00:30,1", "2026-03-29 02:00,1"]
        for lines in (local, offset, spring):
            with self.subTest(lines[0]):
                self.assertEqual((read("\n".join(lines)).entries, read("\n".join(lines)).missing), (len(lines), 0))

    def test_a_double_on_any_other_day_is_refused(self) -> None:
        self.assertIn("in line 1 already", refused("2026-10-24 01:00,1\n2026-10-24 01:00,1")["line 2"])
        thrice = "\n".join(["2026-10-25 01:00,1"] * 3)
        self.assertIn("already", refused(thrice)["line 3"])

    def test_a_guess_may_be_put_right(self) -> None:
        text = "when,first,second\n2026-01-14 17:00,1.2,0.3\n2026-01-14 17:30,4.6,0.4\n"
        shape = guess_shape(text.splitlines()).model_copy(update={"energy_column": 2})
        self.assertEqual(read(text, shape).peak_kwh, 0.4)
        american = MeterShape(day_first=False)
        self.assertEqual(read("04/05/2026 17:00,1", american).peak_at, datetime(2026, 4, 5, 17))
        self.assertEqual(read("04/05/2026 17:00,1").peak_at, datetime(2026, 5, 4, 17))
        self.assertEqual(read("04/05/2026 17:00,1\n04/25/2026 17:00,2").peak_at, datetime(2026, 4, 25, 17))

    def test_the_longest_stretch_near_the_peak(self) -> None:
        # Four fifths of 5 kWh is 4: three in a row, then a lower one, then two; a gap ends a stretch.
        values = [1, 4.0, 5, 4.1, 3.9, 4.5, 4.5]
        lines = [f"2026-01-14 {17 + place // 2}:{place % 2 * 30:02d},{value}" for place, value in enumerate(values)]
        self.assertEqual(read("\n".join(lines)).near_peak_hours, 1.5)
        self.assertEqual(read("\n".join([lines[1], lines[2], lines[5], lines[6]])).near_peak_hours, 1.0)

    def test_a_shape_whose_column_is_not_there_is_told(self) -> None:
        for layout in ("day", "row"):
            shape = MeterShape(layout=layout, time_column=5, energy_column=6)
            with self.subTest(layout), self.assertRaises(JobFileError) as caught:
                read_half_hours("14/01/2026,1.0,2.0", shape)
            self.assertIn("it holds 3", str(caught.exception))

    def test_a_bad_day_is_told(self) -> None:
        self.assertIn(
            "it holds 47", refused(day_line("14/01/2026", 48, 1) + "\n" + day_line("15/01/2026", 47, 1))["line 2"]
        )


class Trust(unittest.TestCase):
    def record(self, first: str, days: int, peak_kwh: float = 4.0, **more: float) -> Verdict:
        start = datetime.fromisoformat(first)
        half = {**more, "peak_kwh": peak_kwh, "peak_at": first, "first_at": first, "last_at": (start + timedelta(days=days, minutes=-30)).isoformat(),
                "entries": days * 48}  # fmt: skip
        return finding("meter_record", changes={"load.method": "measured", "load.half_hours": half}).verdict

    def test_long_enough_and_with_a_winter_in_it(self) -> None:
        self.assertIs(self.record("2026-01-02T00:00:00", 28), Verdict.MEETS)
        self.assertIs(self.record("2026-01-02T00:00:00", 27), Verdict.YOUR_CALL)
        self.assertIs(self.record("2026-05-02T00:00:00", 60), Verdict.YOUR_CALL)
        self.assertIs(self.record("2025-05-02T00:00:00", 365), Verdict.MEETS)
        self.assertIs(self.record("2026-10-05T00:00:00", 28), Verdict.MEETS)

    def test_a_long_stretch_near_the_peak_counts_where_little_of_the_fuse_is_left(self) -> None:
        """80 A fuse, 32 A car: 72 A is a tenth left, so 40 A of house, 4.6 kWh in half an hour, is where it begins."""
        for peak_kwh, hours, wanted in (
            (4.59, 5.0, Verdict.MEETS), (4.62, 5.0, Verdict.YOUR_CALL), (5.5, 1.5, Verdict.MEETS),
            (5.5, 2.0, Verdict.YOUR_CALL),
        ):  # fmt: skip
            with self.subTest(peak_kwh=peak_kwh, hours=hours):
                self.assertIs(self.record("2026-01-02T00:00:00", 28, peak_kwh, near_peak_hours=hours), wanted)

    def test_the_demo_file_is_the_demo_jobs_record(self) -> None:
        text = (EXAMPLES / "half-hours.csv").read_text(encoding="utf-8")
        self.assertEqual(read(text), job(ALL_ELECTRIC).load.half_hours)
