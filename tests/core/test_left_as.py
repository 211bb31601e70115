"""A circuit that is handed over before its unit hangs on it, and a cable that is used again."""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from fulmen.core.model.readings import StepKey
from fulmen.core.papers.judged_job import judged_job
from fulmen.core.papers.to_come import units_to_come
from fulmen.core.verification.steps.sequence import Step
from tests.core.test_earth_readings import ISLAND, read
from tests.jobs import (
    BOX_AT_GARAGE,
    DEVICE_IN_UNIT,
    EXAMPLES,
    RULES,
    THREE_PHASE,
    TREATED_AS_PME,
    TT,
    evaluation,
    finding,
    job,
)

MEETS, CALL, SHORT, NEEDS = Verdict.MEETS, Verdict.YOUR_CALL, Verdict.FALLS_SHORT, Verdict.NEEDS
POINT = "charge_points.0"
LATER = {f"{POINT}.fitted": "later", "readings": []}
CLOSED = {f"{POINT}.end_closed": "yes", f"{POINT}.left_locked": "yes", f"{POINT}.left_labelled": "yes"}


def later(name: str) -> dict[str, Any]:
    """Every unit of a job to come."""
    return {f"charge_points.{at}.fitted": "later" for at in range(len(job(name).charge_points))} | {"readings": []}


def steps(name: str, changes: dict[str, Any]) -> list[Step]:
    return [one for one in evaluation(name, changes).steps if one.required]


class ToCome(unittest.TestCase):
    def test_nothing_is_asked_at_a_unit_that_is_not_there(self) -> None:
        """By physics alone: no lead on a connector or a unit's bar, no adapter, no state of a pilot."""
        for path in sorted(EXAMPLES.glob("*.json")):
            for one in evaluation(path.stem, later(path.stem)).steps:
                points = [at.value for lead in one.leads for at in lead.at]
                with self.subTest(path.stem, step=one.step):
                    self.assertFalse([at for at in points if at.startswith(("plug", "unit"))])
                    self.assertEqual(one.adapter, "")
                    self.assertNotIn(one.function, ("vehicle", "direct_residual"))

    def test_its_cable_is_tested_as_any_other(self) -> None:
        """Dead tests are what they were, the loop is the one in the box, and every RCD outside the unit is timed."""
        for path in sorted(EXAMPLES.glob("*.json")):
            with_it, without = (steps(path.stem, changes) for changes in ({"readings": []}, later(path.stem)))
            at_unit = {StepKey.CONNECTOR_EARTH, StepKey.IR_EARTHS}
            dead = [{(one.step, one.subject) for one in some if one.stage == "dead"} - {(key, one.subject) for key in at_unit for one in some} for some in (with_it, without)]  # fmt: skip
            with self.subTest(path.stem):
                self.assertEqual(*dead)
                loops = {one.subject for one in without if one.step is StepKey.ZS_CABLE}
                at_car = {one.subject for one in with_it if one.step is StepKey.PILOT_C}
                self.assertEqual(loops, at_car)
                self.assertFalse({one.subject for one in without if one.step is StepKey.ZS} & at_car)
                outside = {one.guard for one in with_it if one.guard and not one.guard.startswith("charge_points")}
                self.assertEqual({one.guard for one in without if one.guard}, outside)

    def test_the_loop_in_the_box_has_the_limit_of_what_opens_on_it(self) -> None:
        for name, changes, limit in (
            (DEVICE_IN_UNIT, {}, 0.8 * 1.0925), (TT, {}, 50 / 0.030), (DEVICE_IN_UNIT, ISLAND, 0.8 * 1.0925),
        ):  # fmt: skip
            found = next(one for one in steps(name, LATER | changes) if one.step is StepKey.ZS_CABLE)
            with self.subTest(name):
                self.assertAlmostEqual(found.limit or 0.0, limit, delta=0.01 * limit)

    def test_three_lines_are_told_apart_without_a_connector(self) -> None:
        turned = next(one for one in steps(THREE_PHASE, later(THREE_PHASE)) if one.step is StepKey.PHASE_SEQUENCE)
        self.assertEqual([lead.at[0].value for lead in turned.leads], ["far.L", "far.L2", "far.L3"])

    def test_a_device_in_a_box_is_still_tested_there(self) -> None:
        self.assertIn(StepKey.OPEN_PEN_TEST, {one.step for one in steps(TREATED_AS_PME, LATER)})
        self.assertNotIn(StepKey.OPEN_PEN_TEST, {one.step for one in steps(DEVICE_IN_UNIT, LATER)})

    def test_how_it_is_left(self) -> None:
        self.assertFalse(
            [one for one in evaluation(DEVICE_IN_UNIT, {"readings": []}).findings if one.rule == "to_come"]
        )
        for said, verdict in (
            ({}, NEEDS), (CLOSED, MEETS), ({**CLOSED, f"{POINT}.end_closed": "no"}, SHORT), ({f"{POINT}.end_closed": "no"}, SHORT),
            ({**CLOSED, f"{POINT}.left_labelled": "no"}, SHORT), ({**CLOSED, f"{POINT}.left_locked": "no"}, CALL),
            *(({**CLOSED, f"{POINT}.{one}": "not_seen"}, NEEDS) for one in ("end_closed", "left_locked", "left_labelled")),
        ):  # fmt: skip
            with self.subTest(said=said):
                self.assertIs(finding("to_come", DEVICE_IN_UNIT, LATER | said).verdict, verdict)

    def test_a_clamp_is_proven_when_the_unit_comes(self) -> None:
        limited = {"supply.load_limit_a": 60.0, f"{POINT}.current_clamp": "yes", f"{POINT}.clamp_proof": None}
        for changes, said in (
            (limited, True),
            (limited | LATER, False),
            (limited | LATER | {f"{POINT}.current_clamp": "no"}, True),
        ):
            rules = {one.rule for one in evaluation(DEVICE_IN_UNIT, changes).findings}
            self.assertEqual("load_clamp" in rules, said)

    def test_once_the_unit_is_there_all_of_its_tests_are_asked_and_the_first_loop_stays(self) -> None:
        loop = read("zs_cable", 0.30)
        first, then = (
            evaluation(DEVICE_IN_UNIT, {**LATER, f"{POINT}.fitted": when, "readings": [loop]})
            for when in ("later", "now")
        )
        missing = {one.step for one in then.steps if one.required and not one.met}
        self.assertLessEqual({StepKey.ZS, StepKey.PILOT_C, StepKey.CONNECTOR_EARTH, StepKey.RCD_TRIP}, missing)
        for one in (first, then):
            self.assertFalse(
                [each for each in one.findings if each.rule == "stray_reading" and each.verdict is not MEETS]
            )

    def test_the_certificate_says_so(self) -> None:
        for changes, said in (({"readings": []}, 0), (LATER | CLOSED, 1)):
            made = job(DEVICE_IN_UNIT, changes | {"readings": [read("zs_cable", 0.30)]})
            told = units_to_come(
                judged_job(made, evaluation(DEVICE_IN_UNIT, changes | {"readings": [read("zs_cable", 0.30)]}), RULES)
            )
            self.assertEqual(len(told), said)
            for line in told:
                for words in ("not fitted yet", "closed box", "0.30 Ω", "off and locked", "Nothing may be charged"):
                    self.assertIn(words, line)


FOUND = {
    "circuits.0.fitted_with_this_job": False,
    "circuits.0.looked_at": "yes",
    "circuits.0.serves_others": "no",
    "readings": [],
}
PAIRS = {StepKey.IR_LINE_NEUTRAL, StepKey.IR_LINE_EARTH, StepKey.IR_NEUTRAL_EARTH}


class UsedAgain(unittest.TestCase):
    def test_what_stays_is_asked_of_what_was_there_and_of_nothing_else(self) -> None:
        self.assertFalse([one for one in evaluation(DEVICE_IN_UNIT).findings if one.rule == "stays_connected"])
        for said, verdict in (
            (None, NEEDS),
            ([], MEETS),
            (["electronics"], MEETS),
            (["surge_protection", "unit"], MEETS),
        ):
            changes = FOUND | {"circuits.0.stays_connected": said}
            self.assertIs(finding("stays_connected", DEVICE_IN_UNIT, changes).verdict, verdict)
        # What is new is tested by itself, whatever a file says of it.
        asked = {one.step for one in evaluation(DEVICE_IN_UNIT, {"circuits.0.stays_connected": ["unit"]}).steps}
        self.assertLessEqual(PAIRS, asked)

    def test_with_something_on_no_pair_sees_the_test_and_the_voltage_is_half(self) -> None:
        for said in (["surge_protection"], ["electronics"], ["unit"], ["unit", "electronics"]):
            told = [
                one
                for one in evaluation(DEVICE_IN_UNIT, FOUND | {"circuits.0.stays_connected": said}).steps
                if one.function == "insulation"
            ]
            self.assertEqual([(one.step, one.dial) for one in told], [(StepKey.IR_LIVE_EARTH, "insulation_250")])
        told = [
            one
            for one in evaluation(DEVICE_IN_UNIT, FOUND | {"circuits.0.stays_connected": []}).steps
            if one.function == "insulation"
        ]
        self.assertEqual({one.dial for one in told}, {"insulation_500"})

    def test_the_voltage_against_what_stays(self) -> None:
        for said, volts, mohm, verdict in (
            ([], 500, 200.0, MEETS), ([], 499, 200.0, CALL), ([], 250, 200.0, CALL), ([], 249, 200.0, SHORT),
            (["unit"], 250, 200.0, MEETS), (["unit"], 499, 200.0, MEETS), (["unit"], 500, 200.0, CALL), (["unit"], 249, 200.0, SHORT),
            (["unit"], 250, 0.99, SHORT), (["unit"], 500, 0.99, SHORT), (None, 250, 200.0, CALL),
        ):  # fmt: skip
            reading = {**read("ir_live_earth", mohm), "test_voltage_v": volts}
            changes = FOUND | {"circuits.0.stays_connected": said, "readings": [reading]}
            with self.subTest(said=said, volts=volts, mohm=mohm):
                self.assertIs(finding("reading_ir_live_earth", DEVICE_IN_UNIT, changes).verdict, verdict)

    def test_a_sub_main_that_was_there_is_asked_too(self) -> None:
        at = next(at for at, one in enumerate(job(BOX_AT_GARAGE).circuits) if not one.fitted_with_this_job)
        changes = {f"circuits.{at}.stays_connected": None}
        self.assertIs(finding("stays_connected", BOX_AT_GARAGE, changes).verdict, NEEDS)


if __name__ == "__main__":
    unittest.main()
