"""Conductors beside the ordinary: a protective one run beside a cable, four cores, a unit's flex, a cable in a duct."""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from fulmen.core.materials.materials import materials
from tests.core.test_guards import sentence
from tests.jobs import DEVICE_IN_UNIT, HALFWAY, TWO_BEHIND_ONE, evaluation, finding, job

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
TWO_CORE = {"circuits.0.cable.record": "swa-2-core", "circuits.0.cable.protective": "separate"}


def figures(name: str, changes: dict[str, Any]) -> tuple[float, float]:
    profile = evaluation(name, changes).profiles[0]
    return profile.zs_ohm, profile.volts_lost_v


class SeparateProtectiveConductor(unittest.TestCase):
    def test_its_ohms_count_and_not_the_armours(self) -> None:
        """6 mm² is 3.08 mΩ/m, 10 mm² 1.83 mΩ/m (BS EN 60228, from memory), 1.28 times as much at 90 °C."""
        bare = {"readings": [], "decisions": []}
        ten, _ = figures(DEVICE_IN_UNIT, bare | TWO_CORE | {"circuits.0.cable.separate_csa_mm2": 10.0})
        six, _ = figures(DEVICE_IN_UNIT, bare | TWO_CORE | {"circuits.0.cable.separate_csa_mm2": 6.0})
        self.assertAlmostEqual(six - ten, (3.08 - 1.83) / 1000 * (16.9 + 1) * 1.28, places=3)
        core, _ = figures(DEVICE_IN_UNIT, bare)
        self.assertAlmostEqual(six, core, places=6, msg="a 6 mm² conductor beside is as good as a 6 mm² core")

    def test_its_size_is_asked_for_and_no_table_of_armour_is(self) -> None:
        self.assertIs(finding("cable_size", DEVICE_IN_UNIT, TWO_CORE).verdict, NEEDS)
        sized = TWO_CORE | {"circuits.0.cable.separate_csa_mm2": 10.0}
        rules = {one.rule for one in evaluation(DEVICE_IN_UNIT, sized).findings}
        self.assertFalse(rules & {"armour_alone", "cable_size"})

    def test_it_must_survive_the_fault(self) -> None:
        """√45 000/143 = 1.48 mm²: k 143 for a conductor beside, as in 70 °C insulation (rules of the trade, from memory)."""
        measured = {"circuits.0.device.rating_a": 32, "readings": [], "supply.pscc_enquiry_ka": 4.1, **TWO_CORE}
        for csa_mm2, verdict in ((1.0, SHORT), (1.5, MEETS)):
            changes = measured | {"circuits.0.cable.separate_csa_mm2": csa_mm2}
            found = finding("survives_fault", HALFWAY, changes)
            with self.subTest(csa_mm2):
                self.assertIs(found.verdict, verdict, found.figures())

    def test_it_is_bought_and_stands_on_the_paper(self) -> None:
        need = {one.key: one for one in materials(job(TWO_BEHIND_ONE))}
        self.assertGreater(need["separate-cpc"].quantity, 30)
        self.assertIn("four-core steel wire armoured", sentence(evaluation(TWO_BEHIND_ONE)))


FLEX = {"charge_points.0.flex_tail": True, "charge_points.0.flex_csa_mm2": 4.0, "charge_points.0.flex_length_m": 3.0}


class PreWiredUnit(unittest.TestCase):
    def test_its_flex_counts_in_volts_and_loop_and_not_in_r1_r2(self) -> None:
        """4 mm²: 11 mV/A/m (Table 4D2B) and 4.95 mΩ/m (BS EN 60228, class 5), both from memory; 1.2 times at 70 °C."""
        without, with_it = figures(HALFWAY, {"readings": []}), figures(HALFWAY, {"readings": [], **FLEX})
        self.assertAlmostEqual(with_it[1] - without[1], 2 * 4.95 * 1.2 * 32 * 3 / 1000, places=3)
        self.assertAlmostEqual(with_it[0] - without[0], 2 * 4.95 / 1000 * 3 * 1.2, places=4)
        steps = [
            {one.step.value: one.expected_high for one in evaluation(HALFWAY, {"readings": [], **more}).steps}
            for more in ({}, FLEX)
        ]
        self.assertEqual(steps[0]["r1_r2"], steps[1]["r1_r2"])
        self.assertGreater(steps[1]["zs"] or 0, steps[0]["zs"] or 0)

    def test_its_size_is_asked_for_and_its_joint_is_bought(self) -> None:
        unknown = FLEX | {"charge_points.0.flex_csa_mm2": None}
        self.assertIs(finding("flex_tail", DEVICE_IN_UNIT, unknown).verdict, NEEDS)
        self.assertIs(finding("flex_tail", DEVICE_IN_UNIT, FLEX).verdict, CALL)
        self.assertEqual({one.key: one.quantity for one in materials(job(changes=FLEX))}["box.flex"], 1)


class InAGroundDuct(unittest.TestCase):
    def test_a_cable_without_a_column_is_rated_by_its_insulations_and_asks_the_maker(self) -> None:
        """6 mm² of 70 °C insulation: 46 A in the D column of 4D4A; of 90 °C 53 A in 4E4A; 0.9 for a buried cable."""
        duct = {"surroundings": "duct", "method": "D", "length_m": 5.0, "in_duct": True, "grouped_circuits": 1, "depth_m": 0.7,
                "under_drive": False, "warning_tape": True}  # fmt: skip
        for record in ("ev-power-data", "nyy-j"):
            changes = {"circuits.0.cable.record": record, "circuits.0.route": [duct], "circuits.0.device.rating_a": 32}
            found = finding("weakest_section", DEVICE_IN_UNIT, changes)
            with self.subTest(record):
                self.assertIs(found.verdict, CALL)
                self.assertIn("ask the maker", found.detail)
                self.assertTrue(any("ask the maker" in line.source for line in found.working))
                tabulated = next(line.value for line in found.working if line.symbol == "It")
                self.assertIn(tabulated, (46, 53))
            bare = changes | {"circuits.0.route": [duct | {"surroundings": "buried", "in_duct": False}]}
            self.assertIs(finding("weakest_section", DEVICE_IN_UNIT, bare).verdict, NEEDS)
