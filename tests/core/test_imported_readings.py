"""Readings from files: each line's fate, units worked in or refused, duplicates, files that are none."""

import json
import unittest
from datetime import UTC, datetime
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.errors import InputError
from fulmen.core.evaluate import evaluate
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.verification.readings.brought.shape import ReadingShape
from fulmen.core.verification.readings.brought.table import MOST_LINES, columns_of
from fulmen.core.verification.readings.imported_readings import ImportedLine, LineFate, Taking, imported_lines
from fulmen.simulators.test_set import House
from fulmen.simulators.test_set_files import written_csv, written_json
from tests.jobs import DEVICE_IN_UNIT, RULES, job
from tests.sampling import tries

BY = Taking("R. Quillfeather", datetime(2026, 11, 26, 10, tzinfo=UTC), "Meter")
HEAD = "step,circuit,value,unit"
# A file of our own making, with other headings and words than ours.
OTHER = "Test;Item;Result;Units\nCPC loop;ev;0,10;Ohm\nInsul L-E;ev;>999;MOhm\nOdd one;ev;1;V\n"
MAPPED = ReadingShape(
    step_column="Test", circuit_column="Item", value_column="Result", unit_column="Units",
    steps={"CPC loop": StepKey.R1_R2, "Insul L-E": StepKey.IR_LIVE_EARTH},
)  # fmt: skip


def lines(text: str, shape: ReadingShape | None = None, whole: Job | None = None) -> tuple[ImportedLine, ...]:
    whole = whole or job(DEVICE_IN_UNIT, {"readings": []})
    return imported_lines(text, shape or ReadingShape(), whole, evaluate(whole, RULES).steps, BY).lines


def one(row: str, **shape: Any) -> ImportedLine:
    return lines(f"{HEAD}\n{row}\n", ReadingShape(**shape))[0]


class Fates(unittest.TestCase):
    def test_each(self) -> None:
        for row, fate in (
            ("r1_r2,ev,0.10,Ω", LineFate.TAKEN), ("r1_r2,ev,.10,ohm", LineFate.TAKEN), ("r1_r2,ev,0.10,", LineFate.TAKEN),
            ("r1_r2,ev,100,mΩ", LineFate.CONVERTED), ("ir_live_earth,ev,>999,MΩ", LineFate.TAKEN),
            ("ir_live_earth,ev,200,kΩ", LineFate.CONVERTED), ("fault_current_neutral,origin,1260,A", LineFate.CONVERTED),
            ("rcd_trip,ev,0.0213,s", LineFate.CONVERTED), ("polarity_dead,ev,pass,", LineFate.TAKEN), ("r1_rn,ev,LIM,", LineFate.TAKEN),
            ("r1_r2,ev,0.10,MΩ", LineFate.WRONG_UNIT), ("ir_live_earth,ev,200,mΩ", LineFate.WRONG_UNIT),
            ("r1_r2,ev,0.10,V", LineFate.WRONG_UNIT), ("rcd_trip,ev,21,kA", LineFate.WRONG_UNIT),
            ("guess,ev,1,Ω", LineFate.NO_STEP), ("r1_r2,shed,0.1,Ω", LineFate.NO_CIRCUIT), ("r1_r2,ev,many,Ω", LineFate.NO_FIGURE),
            ("r1_r2,ev,,Ω", LineFate.NO_FIGURE), ("r1_r2,ev,-1,Ω", LineFate.NO_FIGURE), ("r1_r2,ev,nan,Ω", LineFate.NO_FIGURE),
        ):  # fmt: skip
            with self.subTest(row):
                found = one(row)
                self.assertEqual(found.fate, fate, found.told)
                self.assertEqual(found.reading is None, fate not in (LineFate.TAKEN, LineFate.CONVERTED))

    def test_a_unit_of_the_same_kind_is_worked_in(self) -> None:
        for row, value in (
            ("r1_r2,ev,100,mΩ", 0.1),
            ("fault_current_neutral,origin,1260,A", 1.26),
            ("rcd_trip,ev,0.0213,s", 21.3),
        ):
            reading = one(row).reading
            assert reading is not None and reading.value is not None
            self.assertAlmostEqual(reading.value, value)

    def test_where_the_file_names_no_circuit_the_one_step_is_meant(self) -> None:
        reading = one("ze,,0.21,Ω").reading
        assert reading is not None
        self.assertEqual(reading.subject, "origin")

    def test_duplicates_are_seen_within_the_file_and_with_what_is_there(self) -> None:
        twice = lines(f"{HEAD}\nr1_r2,ev,0.10,Ω\nr1_r2,ev,0.10,Ω\n")
        self.assertEqual([found.fate for found in twice], [LineFate.TAKEN, LineFate.DUPLICATE])
        kept = twice[0].reading
        assert kept is not None
        after = job(DEVICE_IN_UNIT, {"readings": [kept.model_dump(mode="json")]})
        self.assertEqual(lines(f"{HEAD}\nr1_r2,ev,0.10,Ω\n", whole=after)[0].fate, LineFate.DUPLICATE)

    def test_a_line_without_a_time_is_itself_whenever_it_is_brought_in(self) -> None:
        """The same file an hour later: what it says of no time of its own is there already; a time of its own tells apart."""
        kept = lines(f"{HEAD}\nr1_r2,ev,0.10,Ω\n")[0].reading
        assert kept is not None
        earlier = kept.model_copy(update={"taken_at": kept.taken_at.replace(hour=1)})
        after = job(DEVICE_IN_UNIT, {"readings": [earlier.model_dump(mode="json")]})
        timed = "step,circuit,value,unit,taken_at"
        for text, fate in (
            (f"{HEAD}\nr1_r2,ev,0.10,Ω\n", LineFate.DUPLICATE),
            (f"{HEAD}\nr1_r2,ev,0.11,Ω\n", LineFate.AGAIN),
            (f"{timed}\nr1_r2,ev,0.10,Ω,{earlier.taken_at.isoformat()}\n", LineFate.DUPLICATE),
            (f"{timed}\nr1_r2,ev,0.10,Ω,2026-11-25T10:00:00+00:00\n", LineFate.AGAIN),
        ):
            with self.subTest(text):
                self.assertEqual(lines(text, whole=after)[0].fate, fate)

    def test_other_headings_and_words_by_a_shape(self) -> None:
        self.assertEqual(columns_of(OTHER), ("Test", "Item", "Result", "Units"))
        found = lines(OTHER, MAPPED)
        self.assertEqual([line.fate for line in found], [LineFate.TAKEN, LineFate.TAKEN, LineFate.NO_STEP])
        readings = [line.reading for line in found[:2] if line.reading is not None]
        self.assertEqual([(each.step, each.value, each.outcome) for each in readings],
                         [("r1_r2", 0.1, Outcome.MEASURED), ("ir_live_earth", 999.0, Outcome.OVER_RANGE)])  # fmt: skip
        self.assertTrue(all(each.instrument == "Meter" for each in readings))


class Files(unittest.TestCase):
    def test_what_the_simulated_set_writes_reads_back(self) -> None:
        house = House(job(DEVICE_IN_UNIT, {"readings": []}), seed=5)
        for text in (written_csv(house), written_json(house)):
            found = lines(text)
            self.assertEqual({line.fate for line in found}, {LineFate.TAKEN})
            self.assertGreater(len(found), 20)
            self.assertTrue(all(line.reading and line.reading.instrument == "Simulated test set" for line in found))

    def test_nought_is_a_figure(self) -> None:
        for value in (0, 0.0, "0", "0.00"):
            (line,) = lines(
                json.dumps([{"step": "earthing_conductor", "circuit": "origin", "value": value, "unit": "Ω"}])
            )
            with self.subTest(value):
                self.assertEqual((line.fate, line.reading and line.reading.value), (LineFate.TAKEN, 0.0))

    def test_what_is_no_file_of_readings_is_told(self) -> None:
        for text, told in (
            ("", "no reading"), (HEAD, "no reading"), ("[]", "no reading"), ("[1]", "list of readings"), ("{}", "list of readings"),
            ("[{", "breaks off"), ("a,b\n1,2\n", "which column holds the step"), ("<html>\n<p>", "which column"),
            (f"{HEAD}\n" + "r1_r2,ev,0.1,Ω\n" * (MOST_LINES + 1), "at most"),
        ):  # fmt: skip
            with self.subTest(text[:20]), self.assertRaisesRegex(InputError, told):
                lines(text)

    @tries(150)
    @given(st.text(max_size=200) | st.lists(st.lists(st.text(max_size=8), max_size=6), max_size=6).map(
        lambda rows: HEAD + "\n" + "\n".join(",".join(row) for row in rows)) | st.recursive(
        st.none() | st.booleans() | st.floats() | st.text(max_size=6), lambda inner: st.lists(inner, max_size=3) | st.dictionaries(
            st.sampled_from(["step", "circuit", "value", "unit", "taken_at", "readings"]), inner, max_size=4), max_leaves=8).map(json.dumps))  # fmt: skip
    def test_whatever_comes_is_taken_or_told(self, text: str) -> None:
        try:
            found = lines(text)
        except InputError:
            return
        self.assertTrue(all(line.reading is not None or line.told for line in found))


if __name__ == "__main__":
    unittest.main()
