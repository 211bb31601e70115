"""A figure is a figure: what a step may end with, its range, nought and over range; what does not fit counts for nothing."""

import json
import unittest
from typing import Any

from fulmen.core.editing.job_file import parse_job, read_job
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.evaluate import evaluate
from fulmen.core.model.job import SCHEMA_VERSION
from fulmen.core.model.readings import LEFT_OUT, Reading, StepKey
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.verification.readings.brought.cells import figure_in
from fulmen.core.verification.readings.reading_fit import check_readings, kinds_of, misfit, misfits, range_of
from fulmen.core.verification.steps.steps import definition_of
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, example_text, job

# Which steps are read off a display, by how the trade tests (common practice, no source), written apart from the steps' file.
FIGURES = {
    "earthing_conductor", "main_bonding", "ring_r1", "ring_rn", "ring_r2", "r1_r2", "r2", "r1_rn", "ir_line_neutral", "ir_line_line", "ir_live_earth",
    "ir_line_earth", "ir_neutral_earth", "ir_earths", "electrode", "ze", "electrode_loop", "fault_current_neutral",
    "fault_current_earth", "fault_current", "zs_cable", "zs", "rcd_trip", "rcd_five", "rcd_origin_trip", "pilot_duty",
    "rcd_ac_0", "rcd_ac_180", "rcd_five_ac_0", "rcd_five_ac_180", "rcd_pulse_0", "rcd_pulse_180", "rcd_five_pulse_0",
    "rcd_five_pulse_180", "rcd_smooth_plus", "rcd_smooth_minus",
}  # fmt: skip
SIGNED = {"isolated", "box_made_up", "safe_to_energise"}
EITHER = {"dc_detection", "connector_earth", "proximity", "pilot_a", "pilot_b", "pilot_c", "earth_open"}


def reading(step: str, outcome: str, value: float | None = None) -> Reading:
    more: dict[str, Any] = {"reason": "because"} if outcome in LEFT_OUT else {}
    return Reading.model_validate(
        {"step": step, "subject": "ev", "outcome": outcome, "value": value, "instrument": "Tester 4",
         "taken_by": "R. Quillfeather", "taken_at": "2026-06-01T10:12:00+01:00", **more}
    )  # fmt: skip


class Fits(unittest.TestCase):
    def test_every_step_with_every_end(self) -> None:
        for key in StepKey:
            step = key.value
            takes = {
                "measured": step in FIGURES | EITHER,
                "over_range": step in FIGURES | EITHER and step not in ("pilot_a", "pilot_b", "pilot_c", "pilot_duty")
                and "fault_current" not in step,
                "right": step not in FIGURES,
                "wrong": step not in FIGURES | SIGNED,
                "could_not_test": True,
                "not_applicable": True,
            }  # fmt: skip
            for outcome, fits in takes.items():
                with self.subTest(step, outcome=outcome):
                    value = 1.0 if outcome in ("measured", "over_range") else None
                    self.assertEqual(misfit(reading(step, outcome, value)) is None, fits)

    def test_wrong_with_a_figure_keeps_both(self) -> None:
        for step in sorted(FIGURES):
            with self.subTest(step):
                self.assertIsNone(misfit(reading(step, "wrong", 1.0)))
                self.assertEqual(misfit(reading(step, "wrong")).field, "value")  # type: ignore[union-attr]
        found = evaluate(
            job(DEVICE_IN_UNIT, {"readings": [json.loads(reading("zs", "wrong", 0.45).model_dump_json())]}), rule_set()
        )
        told = next(one for one in found.findings if one.step is StepKey.ZS and "reading" in one.topics)
        self.assertEqual(told.verdict.value, "falls_short")
        self.assertIn("Read 0.45 Ω", told.detail)

    def test_a_figure_at_the_ends_of_its_range(self) -> None:
        for key in StepKey:
            figures = range_of(key)
            if figures is None or ("confirm" in kinds_of(key) and len(kinds_of(key)) == 1):
                continue
            with self.subTest(key):
                self.assertIsNone(misfit(reading(key, "measured", figures.most)))
                beyond = misfit(reading(key, "measured", min(figures.most * 1.001, 10_000)))
                if figures.most < 10_000:
                    assert beyond is not None
                    self.assertEqual(beyond.field, "value")
                    self.assertIn(f"at most {figures.most:g} {definition_of(key).unit}", beyond.message)
                nought = misfit(reading(key, "measured", 0.0))
                self.assertEqual(nought is None, figures.zero == "read")

    def test_what_is_no_figure_is_none(self) -> None:
        """Negative, not a number, endless: the model refuses them by the field's name, whatever the step."""
        for value in (-0.01, float("nan"), float("inf"), 10_000.1, "0.3", True):
            with self.subTest(value), self.assertRaises(JobFileError) as caught:
                data = json.loads(example_text(DEVICE_IN_UNIT))
                data["readings"][2]["value"] = value
                parse_job(data)
            self.assertEqual(caught.exception.problems[0].field, "readings.2.value")

    def test_a_figure_as_it_is_written(self) -> None:
        for words, figure in (
            ("0.29", 0.29), ("0,29", 0.29), (".09", 0.09), ("999", 999.0), ("1,25", 1.25), ("0,125", 0.125),
            ("1,000", None), ("12,500", None), ("1.000,5", 1000.5), ("1,000.5", 1000.5), ("-0.2", None), ("+1", None),
            ("1e3", None), ("nan", None), ("inf", None), ("1_000", None), ("٠.٢٩", None), ("０.２９", None), ("", None),
            ("0x1f", None), (".", None), ("0.2.9", None), ("½", None),
        ):  # fmt: skip
            with self.subTest(words):
                self.assertEqual(figure_in(words), figure)


class OlderFiles(unittest.TestCase):
    """A tick where a figure should stand: told, and it counts for nothing; a file of today that holds one is refused."""

    def ticked(self, version: int) -> str:
        data = json.loads(example_text(DEVICE_IN_UNIT))
        for one in data["readings"]:
            if one["step"] in FIGURES:
                one |= {"outcome": "right", "value": None}
        return json.dumps(data | {"schema_version": version})

    def test_a_file_of_today_is_refused_field_by_field(self) -> None:
        with self.assertRaises(JobFileError) as caught:
            read_job(self.ticked(SCHEMA_VERSION), misfits)
        self.assertGreater(len(caught.exception.problems), 10)
        for problem in caught.exception.problems:
            self.assertRegex(problem.field, r"^readings\.\d+\.outcome$")
            self.assertIn("asks for a figure; you gave “right”", problem.message)

    def test_an_older_one_is_read_and_its_ticks_count_for_nothing(self) -> None:
        old = evaluate(read_job(self.ticked(SCHEMA_VERSION - 1), misfits), rule_set())
        taken = {one.step.value for one in old.steps if one.reading is not None}
        self.assertEqual(taken & FIGURES, set())
        told = next(one for one in old.findings if one.rule == "reading_fits")
        self.assertEqual(told.verdict.value, "needs")
        self.assertIn("Loop at the car, Zs asks for a figure", told.detail)
        self.assertTrue(old.gaps)

    def test_once_it_is_taken_again_it_is_told_no_longer(self) -> None:
        whole = job(DEVICE_IN_UNIT)
        tick = reading("zs", "right").model_copy(update={"subject": "ev"})
        figure = next(one for one in whole.readings if one.step is StepKey.ZS)
        for readings, told in (((tick, figure), False), ((figure, tick), True)):
            found = evaluate(whole.model_copy(update={"readings": readings}), rule_set()).findings
            self.assertEqual(any(one.rule == "reading_fits" for one in found), told)

    def test_nothing_that_an_example_holds_is_misfit(self) -> None:
        for path in EXAMPLES.glob("*.json"):
            with self.subTest(path.stem):
                check_readings(job(path.stem).readings)

    def test_the_error_names_its_field(self) -> None:
        with self.assertRaises(InputError) as caught:
            check_readings((reading("zs", "measured", 0.3), reading("zs", "right")))
        self.assertEqual(caught.exception.field, "outcome")
