"""Files as instruments and the programs beside them write them: wide and long, in every encoding, asked where in doubt.

All of them are our own invention; none is named after a maker, nor lies as one's does.
"""

import unittest
from datetime import UTC, datetime
from typing import Any, NamedTuple

from fulmen.core.errors import InputError
from fulmen.core.evaluate import evaluate
from fulmen.core.file_text import text_of
from fulmen.core.verification.readings.brought.cells import factor_of, time_in
from fulmen.core.verification.readings.brought.shape import DecimalMark, ReadingShape
from fulmen.core.verification.readings.imported_readings import Brought, Taking, imported_lines, is_worse
from tests.core.test_earth_readings import read
from tests.jobs import DEVICE_IN_UNIT, GARAGE, RULES, THREE_PHASE, job

BY = Taking("R. Quillfeather", datetime(2026, 11, 26, 18, tzinfo=UTC), "Meter")
POINT, COMMA = DecimalMark.POINT, DecimalMark.COMMA
R, Z, IR = ("r1_r2", "ev"), ("zs", "ev"), ("ir_live_earth", "ev")


class Awkward(NamedTuple):
    """A file, what is taken of it, and what is asked; `shape` is what somebody said of it."""

    data: str | bytes
    taken: dict[tuple[str, str], float | None]
    asked: tuple[str, ...] = ()
    shape: dict[str, Any] | None = None
    job: str = DEVICE_IN_UNIT


LONG = "step,circuit,value,unit\n"
FILES: dict[str, Awkward] = {
    # Long files.
    "units in the cell": Awkward("test,circuit,result\nR1+R2,ev,0.10 Ω\nZs,ev,290mΩ\nIR L/N-E,ev,>999 MΩ\n", {R: 0.1, Z: 0.29, IR: 999.0}),
    "unit in the heading": Awkward("Test;Circuit;Result;Unit\nR1+R2;ev;0,10;OHM\nZs;ev;0,29;ohm\n", {R: 0.1, Z: 0.29}),
    "decimal commas and semicolons": Awkward("Step;Circuit;Value\nR1+R2;ev;0,10\nZs;ev;,29\n", {R: 0.1, Z: 0.29}),
    "a comma in quotes": Awkward('step,circuit,value\nR1+R2,ev,"0,10"\n', {R: 0.1}),
    "at least, in signs": Awkward("step,circuit,value,unit\nIR L/N-E,ev,≥ 500,MΩ\n", {IR: 500.0}),
    "at least, in two signs": Awkward("step,circuit,value,unit\nIR L/N-E,ev,>=500,MΩ\n", {IR: 500.0}),
    "OL, before its top is known": Awkward(f"{LONG}IR L/N-E,ev,OL,MΩ\nR1+R2,ev,0.10,Ω\n", {R: 0.1}, ("which_top",)),
    "OL, once its top is known": Awkward(f"{LONG}IR L/N-E,ev,OL,MΩ\n", {IR: 999.0}, shape={"tops": {"MΩ": 999.0}}),
    "O.L of ohms is an open circuit": Awkward(f"{LONG}R1+R2,ev,O.L,Ω\n", {R: 19.99}, shape={"tops": {"Ω": 19.99}}),
    "thousands, asked": Awkward(f"{LONG}IR L/N-E,ev,\"1,000\",MΩ\n", {}, ("which_mark",)),
    "thousands, said": Awkward(f"{LONG}IR L/N-E,ev,\"1,000\",MΩ\n", {IR: 1000.0}, shape={"mark": POINT}),
    "decimals, said": Awkward(f"{LONG}IR L/N-E,ev,\"1,000\",MΩ\n", {IR: 1.0}, shape={"mark": COMMA}),
    "thousands by a space": Awkward(f"{LONG}fault_current_neutral,origin,1 260,A\n", {("fault_current_neutral", "origin"): 1.26}),
    "thousands by a fixed space and a comma": Awkward("step;circuit;value;unit\nfault_current_neutral;origin;1\u202f260,5;A\n", {("fault_current_neutral", "origin"): 1.2605}),
    "both marks": Awkward("step;circuit;value;unit\nir_live_earth;ev;1.234,5;MΩ\n", {IR: 1234.5}),
    "less than": Awkward(f"{LONG}R1+R2,ev,<0.01,Ω\n", {}, ("no_figure",)),
    "lines of a title": Awkward("Report of tests\nSite;9 Wagtail Lane\n\nPrinted 26/11/2026\nTest;Circuit;Result\nR1+R2;ev;0.10\n", {R: 0.1}),
    "a table in pipes": Awkward("| Test | Circuit | Result |\n|------|---------|--------|\n| R1+R2 | ev | 0.10 |\n", {R: 0.1}),
    "tabs": Awkward("Test\tCircuit\tResult\nR1+R2\tev\t0.10\n", {R: 0.1}),
    "UTF-16 with its mark": Awkward("Test;Circuit;Result;Unit\nR1+R2;ev;0,10;Ω\n".encode("utf-16"), {R: 0.1}),
    "UTF-16 without": Awkward("Test;Circuit;Result;Unit\nR1+R2;ev;0,10;Ω\n".encode("utf-16-le"), {R: 0.1}),
    "UTF-16, the other way round": Awkward("Test;Circuit;Result\nR1+R2;ev;0,10\n".encode("utf-16-be"), {R: 0.1}),
    "an old code page": Awkward("Test;Circuit;Result;Instrument\nR1+R2;ev;0,10;Müller’s\n".encode("cp1252"), {R: 0.1}),
    "UTF-8 with its mark": Awkward("\ufeffTest;Circuit;Result\nR1+R2;ev;0,10\n".encode(), {R: 0.1}),
    "old line ends": Awkward("Test;Circuit;Result\rR1+R2;ev;0,10\r", {R: 0.1}),
    "the circuit by its name": Awkward("Test;Circuit;Result\nR1+R2;charge point on the drive;0,10\n", {R: 0.1}),
    "a circuit of its own words": Awkward("Test;Circuit;Result\nR1+R2;DB1/14;0,10\n", {}, ("no_circuit",)),
    "once said, known": Awkward("Test;Circuit;Result\nR1+R2;DB1/14;0,10\n", {R: 0.1}, shape={"circuits": {"DB1/14": "ev"}}),
    "a step of its own words": Awkward("Test;Circuit;Result\nEnd to end, all;ev;0,10\n", {}, ("no_step",)),
    "a comma in a step that was said": Awkward("Test;Circuit;Result\nEnd to end, all;ev;0,10\n", {R: 0.1}, shape={"steps": {"End to end, all": "r1_r2"}}),
    # Wide files.
    "a row a circuit": Awkward("Circuit,R1+R2 (Ω),Zs (Ω),IR L/N-E (MΩ),Polarity,RCD ms\nev,0.10,0.29,>999,OK,21.3\n",
                               {R: 0.1, Z: 0.29, IR: 999.0, ("polarity_dead", "ev"): None, ("rcd_trip", "ev"): 21.3}),
    "cells that say nothing": Awkward("Circuit;R1+R2;R2;Zs;IR L/N-E\nev;0,10;---;0,29;\n", {R: 0.1, Z: 0.29}),
    "milliohms in a heading": Awkward("Circuit;R1+R2 mΩ;Zs [mΩ]\nev;100;290\n", {R: 0.1, Z: 0.29}),
    "a column of its own words": Awkward("Circuit;R1+R2;Zs;Their loop at plug\nev;0,10;;0,29\n", {R: 0.1, Z: 0.29}, shape={"steps": {"Their loop at plug": "zs"}, "wide": True}),
    "a column that is none": Awkward("Circuit;R1+R2;Zs\nev;0,10;0,61\n", {R: 0.1}, shape={"steps": {"Zs": None}, "wide": True}),
    "several circuits and boards": Awkward("Way;R1+R2;Zs\nsub-main;0,12;0,33\nev;0,08;0,41\n", {("r1_r2", "sub-main"): 0.12, ("zs", "sub-main"): 0.33, R: 0.08, Z: 0.41}, job=GARAGE),
    "a title over a wide one": Awkward("Schedule\n\nCircuit;R1+R2;Zs\nev;0,10;0,29\n", {R: 0.1, Z: 0.29}),
    # Three lines.
    "three lines in columns": Awkward("Circuit;Zs L1;Zs L2;Zs L3\nev-left;0,31;0,34;0,30\n", {("zs", "ev-left"): 0.34}, ("better", "better"), job=THREE_PHASE),
    "three lines in rows": Awkward("Test;Circuit;Phase;Result\nZs;ev-left;L1;0,31\nZs;ev-left;L2;0,34\nZs;ev-left;L3;0,30\n", {("zs", "ev-left"): 0.34}, ("better", "better"), job=THREE_PHASE),
    "of insulation the least": Awkward("Circuit;IR L/N-E L1;IR L/N-E L2;IR L/N-E L3\nev-left;>999;210;>999\n", {("ir_live_earth", "ev-left"): 210.0}, ("better", "better"), job=THREE_PHASE),
}  # fmt: skip


def brought(name: str) -> Brought:
    file = FILES[name]
    data = file.data if isinstance(file.data, bytes) else file.data.encode()
    whole = job(file.job, {"readings": []})
    shape = ReadingShape.model_validate(file.shape or {})
    return imported_lines(text_of(data, "data"), shape, whole, evaluate(whole, RULES).steps, BY)


class Files(unittest.TestCase):
    def test_each(self) -> None:
        self.assertGreaterEqual(len(FILES), 30)
        for name, file in FILES.items():
            with self.subTest(name):
                lines = brought(name).lines
                taken = {
                    (one.reading.step.value, one.reading.subject): one.reading.value for one in lines if one.reading
                }
                told = [(one.fate, one.told) for one in lines]
                self.assertEqual(taken, file.taken, told)
                self.assertEqual(tuple(one.fate.value for one in lines if one.reading is None), file.asked, told)
                self.assertTrue(all(one.told for one in lines if one.reading is None))

    def test_what_is_asked_names_the_files_own_word(self) -> None:
        for name, word in (
            ("a circuit of its own words", "DB1/14"),
            ("a step of its own words", "End to end, all"),
            ("OL, before its top is known", "MΩ"),
        ):
            asked = [one.asks for one in brought(name).lines if one.reading is None]
            self.assertEqual(asked, [word])

    def test_columns_that_say_nothing_are_told(self) -> None:
        whole = job(DEVICE_IN_UNIT, {"readings": []})
        text = "Circuit;R1+R2;Zs;Mood\nev;0,10;0,29;good\n"
        found = imported_lines(text, ReadingShape(), whole, evaluate(whole, RULES).steps, BY)
        self.assertEqual((found.unused, found.shape.wide), (("Mood",), True))

    def test_what_was_said_once_serves_the_next_file(self) -> None:
        """The shape that comes back is all that has to be kept: the same file by it says the same."""
        for name, file in FILES.items():
            first = brought(name)
            whole = job(file.job, {"readings": []})
            data = file.data if isinstance(file.data, bytes) else file.data.encode()
            kept = ReadingShape.model_validate(first.shape.model_dump(mode="json"))
            again = imported_lines(text_of(data, "data"), kept, whole, evaluate(whole, RULES).steps, BY)
            self.assertEqual(again.lines, first.lines, name)

    def test_more_than_can_be_taken_is_told(self) -> None:
        whole = job(DEVICE_IN_UNIT, {"readings": []})
        text = "Circuit;R1+R2;Zs\n" + "ev;0,10;0,29\n" * 251
        with self.assertRaisesRegex(InputError, "more than 500 readings"):
            imported_lines(text, ReadingShape(), whole, evaluate(whole, RULES).steps, BY)


class Words(unittest.TestCase):
    def test_days_and_times(self) -> None:
        """A time without a zone is the clock's where the house stands: an hour ahead of UTC in summer."""
        for words, first, iso in (
            ("2026-06-01T10:00:00", None, "2026-06-01T10:00:00+01:00"), ("2026-11-26 10:12", None, "2026-11-26T10:12:00+00:00"),
            ("26/11/2026 10:12", None, "2026-11-26T10:12:00+00:00"), ("11/26/2026 10:12", None, "2026-11-26T10:12:00+00:00"),
            ("03/04/2026 10:12", True, "2026-04-03T10:12:00+01:00"), ("03/04/2026 10:12", False, "2026-03-04T10:12:00+00:00"),
            ("26.11.26 10.12", None, "2026-11-26T10:12:00+00:00"), ("26 Nov 2026 10:12:30", None, "2026-11-26T10:12:30+00:00"),
            ("26/11/2026 9:05 pm", None, "2026-11-26T21:05:00+00:00"), ("26/11/2026 12:05 AM", None, "2026-11-26T00:05:00+00:00"),
            ("26-Nov-26", None, "2026-11-26T12:00:00+00:00"), ("05/05/2026", None, "2026-05-05T12:00:00+01:00"),
        ):  # fmt: skip
            with self.subTest(words):
                found = time_in(words, day_first=first)
                self.assertIsInstance(found, datetime)
                self.assertEqual(found.isoformat() if isinstance(found, datetime) else "", iso)
        for words in ("yesterday", "26/13/2026", "32/01/2026 10:00", "10:61", "2026-02-30", "26/11/2026 25:00"):
            self.assertIsNone(time_in(words, day_first=None), words)
        self.assertNotIsInstance(time_in("03/04/2026", day_first=None), datetime)

    def test_milli_is_never_mega(self) -> None:
        for unit, wanted, factor in (
            ("mΩ", "Ω", 1e-3), ("MΩ", "Ω", None), ("mohm", "Ω", 1e-3), ("Mohm", "Ω", None), ("MOHM", "MΩ", 1.0), ("mohm", "MΩ", None),
            ("\u2126", "Ω", 1.0), ("OHMS", "Ω", 1.0), ("kΩ", "MΩ", 1e-3), ("A", "kA", 1e-3), ("a", "mA", None), ("s", "ms", 1e3), ("V", "Ω", None),
        ):  # fmt: skip
            with self.subTest(unit, wanted=wanted):
                self.assertEqual(factor_of(unit, wanted), factor)

    def test_the_worst_of_several_lines(self) -> None:
        wrong, limited = (
            {**read("zs", None), "outcome": one, "reason": "no access"} for one in ("wrong", "could_not_test")
        )
        over = {**read("zs", 1999.0), "outcome": "over_range"}
        order = [read("zs", 0.30), read("zs", 0.34), over, limited, wrong]
        made = job(DEVICE_IN_UNIT, {"readings": order}).readings
        for at, one in enumerate(made):
            for other in made[:at]:
                with self.subTest(one=one.outcome, other=other.outcome):
                    self.assertTrue(is_worse(one, other))
                    self.assertFalse(is_worse(other, one))
        least, more = (
            one
            for one in job(
                DEVICE_IN_UNIT, {"readings": [read("ir_live_earth", 200.0), read("ir_live_earth", 999.0)]}
            ).readings
        )
        self.assertTrue(is_worse(least, more))

    def test_no_text_is_told(self) -> None:
        with self.assertRaisesRegex(InputError, "no text"):
            text_of(b"\x81\x8d\x8f\x90\x9d", "data")
        self.assertEqual(text_of("Ω".encode("utf-16"), "data"), "Ω")


if __name__ == "__main__":
    unittest.main()
