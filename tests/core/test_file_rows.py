"""Files as other programs write them: within bounds, whatever they hold; told by line; never a word of a library."""

import time
import unittest
from collections.abc import Callable

from fulmen.core.demand.half_hours import read_half_hours
from fulmen.core.demand.meter_columns import MeterShape
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.file_rows import MOST_CELL, MOST_COLUMNS, MOST_LINE, cells_of, headed_rows, lines_of, named
from fulmen.core.materials.prices import MOST_LINES, invented_prices, prices_csv, read_prices_csv
from fulmen.core.verification.readings.brought.table import columns_of

MB = 1_000_000
# A megabyte of each, as somebody might send it to see what happens.
FLOODS = {
    "commas": "," * MB,
    "semicolons": ";" * MB,
    "lines of commas": ("," * (MOST_COLUMNS - 1) + "\n") * (MB // MOST_COLUMNS),
    "line ends": "\n" * MB,
    "returns": "\r" * MB,
    "short lines": ",\n" * (MB // 2),
    "quotes": '"' * MB,
    "one quote that never ends": '"' + "a,\n" * (MB // 3),
    "a quote within cells": ('x,"y' + "\n") * (MB // 5),
    "digits": "9" * MB,
    "brackets": "[" * MB,
    "objects": "[" + "{}," * (MB // 3) + "{}]",
    "long cells": ("1" * MOST_CELL + ",") * (MB // (MOST_CELL + 1)),
    "times": "2026-01-14 17:30," * (MB // 17),
    "line separators": "\u2028" * (MB // 3),
    "bytes of no text": "\x00" * MB,
    "half characters": "\udc80," * (MB // 2),
}
READERS: dict[str, Callable[[str], object]] = {
    "half hours": read_half_hours,
    "days": lambda text: read_half_hours(text, MeterShape(layout="day")),
    "readings": columns_of,
    "prices": read_prices_csv,
}
# A year of half hours, as many as a megabyte holds.
SOUND = "start,kWh\n" + "".join(
    f"{year}-{month:02d}-{day:02d} {hour:02d}:{minute:02d},0.{hour:02d}\n"
    for year in (2023, 2024)
    for month in range(1, 13)
    for day in range(1, 29)
    for hour in range(24)
    for minute in (0, 30)
    if (month, hour) not in ((3, 1), (10, 1))
)


class Floods(unittest.TestCase):
    def test_none_keeps_anybody_waiting(self) -> None:
        """Against what a sound file of the size takes on this machine, just now."""
        started = time.perf_counter()
        read_half_hours(SOUND)
        sound_s = (time.perf_counter() - started) * MB / len(SOUND)
        for what, text in FLOODS.items():
            for reader, read in READERS.items():
                started = time.perf_counter()
                try:
                    read(text)
                except (InputError, JobFileError) as error:
                    told = str(error)
                    self.assertLess(len(told), 1000)
                    self.assertNotRegex(told, "field limit|_csv|delimiter|codec|Exceeds|Expecting")
                took_s = time.perf_counter() - started
                with self.subTest(what, reader=reader):
                    self.assertLess(took_s, 2 * sound_s)


class Bounds(unittest.TestCase):
    def test_at_below_and_above_each(self) -> None:
        for line, fits in (
            ("x" * MOST_LINE, False),  # a cell of that length is too long
            (",".join("x" * 190 for _ in range(100)), True),
            ("," * (MOST_COLUMNS - 1), True),
            ("," * MOST_COLUMNS, False),
            ("a," + "x" * MOST_CELL, True),
            ("a," + "x" * (MOST_CELL + 1), False),
            (",".join(["x" * 1999] * 10), True),
            (",".join(["x" * 1999] * 11), False),
            ("a\u202eb,1", False),
            ("a\x00b,1", False),
        ):
            with self.subTest(line[:20], length=len(line)):
                if fits:
                    self.assertTrue(cells_of(line, ","))
                else:
                    with self.assertRaisesRegex(ValueError, "at most|can't be shown"):
                        cells_of(line, ",")

    def test_lines_end_as_any_machine_ends_them(self) -> None:
        for text in ("a\nb\n", "a\r\nb\r\n", "a\rb", "\ufeffa\nb"):
            with self.subTest(repr(text)):
                self.assertEqual(list(lines_of(text, 2, "file")), [(1, "a"), (2, "b")])
        with self.assertRaises(InputError) as caught:
            list(lines_of("a\nb\nc", 2, "file"))
        self.assertEqual((caught.exception.field, caught.exception.message[:9]), ("file", "The file "))

    def test_rows_by_their_headings_and_the_line_that_is_at_fault(self) -> None:
        text = '\n\nstep;value\n\nzs;"0;3\nmore";beyond\nze\n'
        self.assertEqual(
            list(headed_rows(text, 2, "text")),
            [
                (3, {"step": "step", "value": "value"}),
                (6, {"step": "zs", "value": "0;3\nmore"}),
                (7, {"step": "ze", "value": ""}),
            ],
        )
        for bad, told in (
            ("a,b\n1,2\n1," + "x" * 5000, "Line 3 can't be taken: column 2 is 5000 characters long"),
            ("a,b\n1,2\n" + "," * 200, "Line 3 can't be taken: it has 201 columns"),
            ("a,b\n1,2\n3,\u202e4", "Line 3 can't be taken: column 2 holds U+202E"),
            ("a,b,a\n1,2,3", "Line 1 can't be taken: the heading “a” stands there twice"),
            ("a,b\n1,2\n3,4\n5,6", "more than 2 rows"),
            ("\n" * 50 + "a,b", "more than 8 lines"),
        ):
            with self.subTest(told), self.assertRaises(InputError) as caught:
                list(headed_rows(bad, 2, "text"))
            self.assertIn(told, caught.exception.message)
            self.assertEqual(caught.exception.field, "text")

    def test_headings_in_words_have_an_end(self) -> None:
        self.assertEqual(named(["a", "b"]), "a, b")
        self.assertLess(len(named([f"{'x' * 300}{place}" for place in range(500)])), 600)


class Times(unittest.TestCase):
    def test_times_at_the_calendars_ends_are_told_and_no_more(self) -> None:
        for when in (
            "0001-01-01T00:00:00+00:00",
            "0001-01-01 00:00",
            "9999-12-31T23:30:00-23:59",
            "9999-12-31 23:30",
            "1989-12-31 23:30",
            "2101-01-01 00:00",
            "31/12/9999 23:30",
            "2026-02-30 10:00",
            "٢٠٢٦-٠١-١٤ ١٧:٣٠",
        ):
            for shape in (MeterShape(), MeterShape(layout="day", energy_column=1)):
                text = f"{when}," + ",".join(["0.1"] * (48 if shape.layout == "day" else 1))
                with self.subTest(when, layout=shape.layout), self.assertRaises(JobFileError) as caught:
                    read_half_hours(text, shape)
                self.assertIn("Line 1", caught.exception.problems[0].message)
        for when in ("1990-01-01 00:00", "2100-12-31 23:30", "2100-12-31T23:30:00+14:00"):
            self.assertEqual(read_half_hours(f"{when},0.1", MeterShape())[0].entries, 1)

    def test_figures_of_other_scripts_and_without_end_are_none(self) -> None:
        for figure in ("١.٢", "inf", "nan", "1e999", "9" * 400, "1_0", "0x1"):
            with self.subTest(figure[:6]):
                with self.assertRaises(JobFileError):
                    read_half_hours(f"2026-01-14 17:30,{figure}", MeterShape())
                with self.assertRaises(InputError) as caught:
                    read_prices_csv(f"key,name,unit,price,work_min\ngland,Gland,each,{figure},1\n")
                self.assertEqual(caught.exception.field, "prices")


class Prices(unittest.TestCase):
    def test_a_list_with_a_byte_order_mark_and_semicolons_is_read_as_it_was_written(self) -> None:
        written = prices_csv(invented_prices())
        self.assertEqual(read_prices_csv("\ufeff" + written), read_prices_csv(written))
        other = "key;name;unit;price;work_min\ngland;Gland, 20 mm;each;1,5;4\n"
        self.assertEqual(read_prices_csv(other).lines[0].price, 1.5)

    def test_as_many_as_can_be_and_one_more(self) -> None:
        head = "key,name,unit,price,work_min\n"
        self.assertEqual(
            len(read_prices_csv(head + "".join(f"k{n},N,m,1,1\n" for n in range(MOST_LINES))).lines), MOST_LINES
        )
        with self.assertRaisesRegex(InputError, "more than 1000 rows"):
            read_prices_csv(head + "".join(f"k{n},N,m,1,1\n" for n in range(MOST_LINES + 1)))
