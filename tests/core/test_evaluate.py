"""The whole evaluation: profile, sentence, order, and properties that hold whatever the job."""

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.editing.blank_job import blank_job
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.job import Job
from tests.figures import figures
from tests.jobs import (
    DEVICE_IN_UNIT,
    FALLS_SHORT,
    GARAGE,
    HALFWAY,
    RULES,
    TREATED_AS_PME,
    TT,
    evaluation,
    in_front,
    mark,
)
from tests.sampling import tries


class Examples(unittest.TestCase):
    def test_complete_examples_may_be_certified(self) -> None:
        for name in (DEVICE_IN_UNIT, TREATED_AS_PME, TT):
            with self.subTest(name):
                self.assertEqual(evaluation(name).gaps, ())

    def test_one_falls_short_in_three_ways(self) -> None:
        rules = {finding.rule for finding in evaluation(FALLS_SHORT).falls_short()}
        self.assertEqual(rules, {"volt_drop", "disconnection", "open_pen"})

    def test_a_blank_sheet_asks_for_facts_and_breaks_nothing(self) -> None:
        found = evaluate(blank_job("Drive"), RULES)
        self.assertEqual(found.profiles, ())
        self.assertFalse(found.falls_short())
        self.assertGreater(found.totals[Verdict.NEEDS], 10)

    def test_a_job_without_a_charge_point_asks_for_one(self) -> None:
        found = evaluate(Job(title="Nothing"), RULES)
        self.assertEqual([one.rule for one in found.findings], ["charge_point"])
        self.assertTrue(found.gaps)

    def test_what_needs_attention_comes_first(self) -> None:
        open_first = [one.is_open for one in evaluation(HALFWAY).findings]
        self.assertEqual(open_first, sorted(open_first, reverse=True))

    def test_a_run_through_a_second_board_is_judged_circuit_by_circuit(self) -> None:
        found = evaluation(GARAGE)
        judged = {(one.rule, one.subject) for one in found.findings}
        for rule in ("load_on_device", "weakest_section", "disconnection", "survives_fault", "breaking_capacity"):
            self.assertTrue({(rule, "sub-main"), (rule, "ev")} <= judged, rule)
        self.assertIn(("volt_drop", "ev"), judged)
        self.assertNotIn(("volt_drop", "sub-main"), judged)


class Profile(unittest.TestCase):
    def test_it_ends_where_the_checks_say(self) -> None:
        for name in (DEVICE_IN_UNIT, HALFWAY, TT, FALLS_SHORT):
            with self.subTest(name):
                found = evaluation(name)
                profile = found.profiles[0]
                drop = next(one for one in found.findings if one.rule == "volt_drop")
                self.assertAlmostEqual(profile.sections[-1].volts_lost_v, profile.volts_lost_v)
                self.assertAlmostEqual(profile.volts_lost_percent, drop.value or 0)
                self.assertAlmostEqual(profile.sections[-1].loop_ohm, profile.zs_ohm)
                self.assertAlmostEqual(profile.sections[-1].to_m, profile.length_m)

    def test_readings_are_marks(self) -> None:
        marks = {(mark.at, mark.value, mark.expected) for mark in evaluation(DEVICE_IN_UNIT).profiles[0].marks}
        self.assertEqual(marks, {("cut_out", 0.19, False), ("charge_point", 0.29, False)})
        self.assertTrue(evaluation(HALFWAY).profiles[0].marks[1].expected)

    def test_tt_has_no_loop_limit_for_the_device(self) -> None:
        self.assertIsNone(evaluation(TT).profiles[0].zs_limit_ohm)


class Sentence(unittest.TestCase):
    def test_it_reads_as_english(self) -> None:
        text = "".join(part.text for part in evaluation(DEVICE_IN_UNIT).sentences[0].parts)
        self.assertEqual(
            text,
            "Earth the car through the house earth, with broken-PEN protection by the device inside the unit. "
            "Protect people with a Type A 30 mA RCBO at the board and 6 mA DC detection in the unit; "
            "surge protection is fitted at the board. "
            "Guard the cable with B 40 A, and run 6 mm² three-core steel wire armoured along 5 sections, 16.9 m.",
        )


class NeverBetter(unittest.TestCase):
    """Adding length, heat, company or insulation never improves a margin."""

    def margins(self, **changes: object) -> dict[str, float]:
        found = evaluation(HALFWAY, {"readings": [], **changes})
        return {one.rule: one.margin for one in found.findings if one.margin is not None}

    def assert_no_better(self, before: dict[str, float], after: dict[str, float]) -> None:
        for rule in ("volt_drop", "disconnection", "weakest_section", "terminal_temperature"):
            if rule in before and rule in after:
                self.assertLessEqual(after[rule], before[rule] + 1e-9, rule)

    @tries(40)
    @given(st.integers(0, 3), figures(0.1, 200), figures(0, 200))
    def test_length(self, index: int, length_m: float, more_m: float) -> None:
        field = f"circuits.0.route.{index}.length_m"
        self.assert_no_better(self.margins(**{field: length_m}), self.margins(**{field: length_m + more_m}))

    @tries(40)
    @given(st.integers(0, 3), figures(-20, 60), figures(-20, 60))
    def test_heat(self, index: int, one_c: float, other_c: float) -> None:
        field = f"circuits.0.route.{index}.temperature_c"
        cool, hot = sorted((one_c, other_c))
        before, after = self.margins(**{field: cool}), self.margins(**{field: hot})
        self.assertLessEqual(after["weakest_section"], before["weakest_section"])
        self.assertLessEqual(after["volt_drop"], before["volt_drop"] + 1e-9)

    @tries(30)
    @given(st.integers(0, 3), st.integers(1, 8), figures(0, 600), figures(0, 600))
    def test_company_and_insulation(self, index: int, group: int, one_mm: float, other_mm: float) -> None:
        grouped = f"circuits.0.route.{index}.grouped_circuits"
        self.assert_no_better(self.margins(**{grouped: group}), self.margins(**{grouped: group + 1}))
        wrapped = f"circuits.0.route.{index}.insulation_mm"
        less, more = sorted((one_mm, other_mm))
        self.assert_no_better(self.margins(**{wrapped: less}), self.margins(**{wrapped: more}))


class NeverAllowed(unittest.TestCase):
    """Whatever else is chosen: no Type AC, no PME outdoors without a measure, no RA·IΔn above 50 V."""

    @tries(60)
    @given(st.sampled_from([DEVICE_IN_UNIT, TREATED_AS_PME, HALFWAY]), st.sampled_from(["in_unit", "before_unit", "none"]),
           st.sampled_from([None, mark("B"), mark("A")]), st.booleans())  # fmt: skip
    def test_type_ac(self, name: str, place: str, inside: object, at_board: bool) -> None:
        numb: dict[str, Any] = mark("AC")
        where = {"circuits.0.device.rcd": numb} if at_board else {"boards.0.incomer": in_front(numb)}
        found = evaluation(
            name,
            {**where, "charge_points.0.arrangement.rdc_dd": place, "charge_points.0.rcd_inside": inside},
        )
        self.assertIn("rcd_blinding", [one.rule for one in found.falls_short()])

    @tries(40)
    @given(st.sampled_from(["tn_c_s", "tn_s", "not_seen"]), st.sampled_from(["outdoors", "not_seen"]), figures(1, 80))
    def test_pme_outdoors_without_a_measure(self, earthing: str, place: str, demand_a: float) -> None:
        changes = {"supply.earthing": earthing, "site.car_place": place, "charge_points.0.arrangement.open_pen": "none",
                   "supply.maximum_demand_a": demand_a}  # fmt: skip
        self.assertIn("open_pen", [one.rule for one in evaluation(DEVICE_IN_UNIT, changes).falls_short()])

    @tries(40)
    @given(figures(1667, 2000))
    def test_electrode_too_high(self, electrode_ohm: float) -> None:
        changes = {
            "charge_points.0.arrangement.car_earth": "own_electrode",
            "charge_points.0.arrangement.electrode_design_ohm": electrode_ohm,
        }
        self.assertIn("electrode_touch", [one.rule for one in evaluation(DEVICE_IN_UNIT, changes).falls_short()])
