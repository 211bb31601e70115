"""Readings that can't be: each kind noticed by its name, and what is ordinary left alone.

Written from `rules.md` §11 ("Readings that cannot be") before the checks.
"""

import unittest
from datetime import UTC, datetime, timedelta
from typing import Any

from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.readings import StepKey
from tests.jobs import DEVICE_IN_UNIT, GARAGE, RULES, TREATED_AS_PME, TT, evaluation, job
from tests.trials.test_planted import planted

CALL, MEETS = Verdict.YOUR_CALL, Verdict.MEETS
START = datetime(2026, 11, 20, 10, 0, tzinfo=UTC)


def read(step: str, value: float | None, subject: str = "ev", at: int = 0, **more: Any) -> dict[str, Any]:
    """One reading, some minutes after the start."""
    outcome = "right" if value is None else "measured"
    return {"step": step, "subject": subject, "outcome": outcome, "value": value, "taken_by": "R. Quillfeather",
            "instrument": "Tester 4",
            "taken_at": (START + timedelta(minutes=at)).isoformat(), **more}  # fmt: skip


def odd(name: str, readings: list[dict[str, Any]], kind: str, **changes: Any) -> list[str]:
    """The keys of what can't be, of one kind."""
    found = evaluation(name, {"readings": readings, "decisions": [], **changes}).findings
    return [one.key for one in found if one.rule == "cant_be" and one.subject.endswith(f"-{kind}")]


class Kinds(unittest.TestCase):
    def test_a_supply_that_gives_no_current(self) -> None:
        for name, step, value, seen in (
            (DEVICE_IN_UNIT, "fault_current_neutral", 0.0, True), (DEVICE_IN_UNIT, "fault_current_earth", 0.0, True),
            (DEVICE_IN_UNIT, "fault_current_neutral", 0.3, False), (TT, "fault_current_neutral", 0.0, True),
            # Through an electrode a few amperes flow: a meter of kiloamperes shows nothing.
            (TT, "fault_current_earth", 0.0, False),
        ):  # fmt: skip
            with self.subTest(name, step=step, value=value):
                self.assertEqual(bool(odd(name, [read(step, value, "origin")], "no-current")), seen)

    def test_insulation_of_a_pair_above_its_parts(self) -> None:
        parts = [read("ir_line_earth", 200.0), read("ir_neutral_earth", 150.0)]
        for together, seen in ((85.0, False), (150.0, False), (165.0, False), (166.0, True), (999.0, True)):
            with self.subTest(together):
                self.assertEqual(bool(odd(DEVICE_IN_UNIT, [*parts, read("ir_live_earth", together)], "parts")), seen)
        over = read("ir_live_earth", 999.0) | {"outcome": "over_range"}
        self.assertTrue(odd(DEVICE_IN_UNIT, [*parts, over], "parts"))
        self.assertFalse(odd(DEVICE_IN_UNIT, [over], "parts"), "its parts were not read")

    def test_every_figure_in_the_same_second(self) -> None:
        steps = [("r1_r2", 0.08), ("r1_rn", 0.08), ("ir_live_earth", 500.0), ("zs", 0.3)]
        for taken, seen in ((0, True), (1, False)):
            with self.subTest(taken):
                made = [read(step, value, at=place * taken) for place, (step, value) in enumerate(steps)]
                self.assertEqual(bool(odd(DEVICE_IN_UNIT, made, "at-once")), seen)
        self.assertFalse(odd(DEVICE_IN_UNIT, [read(step, value) for step, value in steps[:3]], "at-once"))

    def test_a_row_carried_from_another_circuit(self) -> None:
        figures = [("r1_r2", 0.12), ("r1_rn", 0.12), ("ir_live_earth", 500.0)]
        one = [read(step, value, "sub-main", at) for at, (step, value) in enumerate(figures)]
        same = [read(step, value, "ev", at + 9) for at, (step, value) in enumerate(figures)]
        self.assertTrue(odd(GARAGE, [*one, *same], "copied"))
        other = [*same[:2], read("ir_live_earth", 480.0, "ev", 20)]
        self.assertFalse(odd(GARAGE, [*one, *other], "copied"))
        self.assertFalse(odd(GARAGE, [*one, *same[:2]], "copied"), "two alike may happen")

    def test_leads_nulled_after_continuity(self) -> None:
        for at, seen in ((0, False), (5, False), (6, True)):
            made = [read("leads_nulled", None, "origin", at), read("r1_r2", 0.08, at=5)]
            with self.subTest(at):
                self.assertEqual(bool(odd(DEVICE_IN_UNIT, made, "nulled")), seen)
        again = [
            read("leads_nulled", None, "origin", 0),
            read("r1_r2", 0.08, at=5),
            read("leads_nulled", None, "origin", 9),
        ]
        self.assertFalse(odd(DEVICE_IN_UNIT, again, "nulled"), "nulled again as the meter warmed up")

    def test_a_conductor_temperature_that_no_weather_gives(self) -> None:
        for degrees, seen in ((-11.0, True), (-10.0, False), (18.0, False), (40.0, False), (41.0, True)):
            with self.subTest(degrees):
                made = [read("r1_r2", 0.08, temperature_c=degrees)]
                self.assertEqual(bool(odd(DEVICE_IN_UNIT, made, "weather")), seen)

    def test_a_detector_below_three_milliamperes(self) -> None:
        for milliamps, seen in ((2.9, True), (3.0, False), (5.0, False)):
            with self.subTest(milliamps):
                self.assertEqual(bool(odd(DEVICE_IN_UNIT, [read("dc_detection", milliamps)], "detector")), seen)

    def test_an_islands_loop_many_times_its_electrode(self) -> None:
        # Twice the electrode and the operator's 21 Ω: 32·2 + 21 = 85 Ω.
        for zs_ohm, seen in ((40.0, False), (85.0, False), (86.0, True), (300.0, True)):
            start = planted({"on": DEVICE_IN_UNIT, "island": True})
            readings = tuple(
                one.model_copy(update={"value": zs_ohm}) if one.step is StepKey.ZS else one for one in start.readings
            )
            whole = start.model_copy(update={"readings": readings})
            keys = [one.key for one in evaluate(whole, RULES).findings if one.rule == "cant_be"]
            with self.subTest(zs_ohm):
                self.assertEqual("cant_be/ev-island" in keys, seen)

    def test_more_to_the_neutral_than_such_a_supply_gives(self) -> None:
        for name, neutral_ka, earth_ka, verdict in (
            # A comma in the wrong place: five times the earth's current is the most that a sheath leaves possible.
            (TREATED_AS_PME, 5.0, 1.0, MEETS), (TREATED_AS_PME, 5.1, 1.0, CALL), (TREATED_AS_PME, 12.0, 1.05, CALL),
            (TT, 6.0, 0.0, MEETS), (TT, 6.1, 0.0, CALL),
        ):  # fmt: skip
            made = [
                read("fault_current_neutral", neutral_ka, "origin"),
                read("fault_current_earth", earth_ka, "origin", 1),
            ]
            found = evaluation(name, {"readings": made, "decisions": []}).findings
            with self.subTest(name, neutral_ka=neutral_ka):
                self.assertEqual([one.verdict for one in found if one.rule == "agree_fault_pair"], [verdict])

    def test_five_times_is_held_against_its_own_half_wave(self) -> None:
        twelve = {"testing.rcd_school": "twelve"}
        for five_180, verdict in ((19.0, MEETS), (24.0, MEETS), (26.0, CALL)):
            made = [read("rcd_ac_0", 30.0), read("rcd_ac_180", 20.0, at=1), read("rcd_five_ac_0", 10.0, at=2),
                    read("rcd_five_ac_180", five_180, at=3)]  # fmt: skip
            found = evaluation(DEVICE_IN_UNIT, {"readings": made, "decisions": [], **twelve}).findings
            with self.subTest(five_180):
                self.assertEqual([one.verdict for one in found if one.rule == "agree_rcd_five"], [verdict])


class Required(unittest.TestCase):
    def test_the_neutral_is_read_wherever_one_is_run(self) -> None:
        for name in (DEVICE_IN_UNIT, GARAGE):
            steps = [one for one in evaluation(name, {"readings": []}).steps if one.step is StepKey.R1_RN]
            self.assertTrue(steps and all(one.required for one in steps))

    def test_one_tick_stands_for_nothing_else(self) -> None:
        left = [
            one.model_dump(mode="json")
            for one in job(DEVICE_IN_UNIT).readings
            if not one.step.value.startswith("pilot_")
        ]
        tick = read("charge_point_states", None, at=50)
        found = evaluation(DEVICE_IN_UNIT, {"readings": [*left, tick]})
        missing = {gap.key for gap in found.gaps if gap.kind == "reading"}
        self.assertLessEqual({"pilot_a/ev", "pilot_b/ev", "pilot_c/ev", "pilot_shorted/ev"}, missing)


if __name__ == "__main__":
    unittest.main()
