"""What the survey saw and what the unit asks for: every answer and its consequence."""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from fulmen.core.model.load import LoadKind
from fulmen.core.verification.certificate_gaps import comments_on_existing
from tests.jobs import DEVICE_IN_UNIT, PROOF, evaluation, finding, job

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
POINT = "charge_points.0."
USED = {f"{POINT}provenance": "second_hand", f"{POINT}built_year": 2019, f"{POINT}seen_working": "yes"}
DANGER = {"what": "Scorched terminal in the board", "stop": "board", "outcome": "left_told_owner", "dangerous": True}

# rule, what is changed, verdict. The example is TN-C-S with everything in order.
SURVEYED: list[tuple[str, dict[str, Any], Verdict]] = [
    ("cut_out", {"supply.cut_out_condition": "sound"}, MEETS),
    ("cut_out", {"supply.cut_out_condition": "old"}, SHORT),
    ("cut_out", {"supply.cut_out_condition": "damaged"}, SHORT),
    ("cut_out", {"supply.cut_out_condition": "not_seen"}, NEEDS),
    ("isolator", {"supply.isolator": "yes"}, MEETS),
    ("isolator", {"supply.isolator": "no"}, CALL),
    ("tails_sleeved", {"supply.tails.0.sleeved": "yes"}, MEETS),
    ("tails_sleeved", {"supply.tails.0.sleeved": "no"}, CALL),
    ("earth_terminal", {"supply.earth_terminal": "yes"}, MEETS),
    ("earth_terminal", {"supply.earth_terminal": "no"}, SHORT),
    ("earth_terminal", {"supply.earth_terminal": "not_seen"}, NEEDS),
    ("bonding_place", {"supply.bonding_near_entry": "yes"}, MEETS),
    ("bonding_place", {"supply.bonding_near_entry": "no"}, CALL),
    ("bonding_place", {"supply.bonding_near_entry": "not_seen"}, NEEDS),
    ("board_make_up", {"boards.0.make_up": "split_load"}, MEETS),
    ("board_make_up", {"boards.0.make_up": "breakers_only"}, MEETS),
    ("board_make_up", {"boards.0.make_up": "rewirable"}, SHORT),
    ("board_make_up", {"boards.0.make_up": "not_seen"}, NEEDS),
    ("spare_way", {"boards.0.spare_ways": 0}, SHORT),
    ("spare_way", {"boards.0.spare_ways": 1}, MEETS),
    ("spare_way", {"boards.0.spare_ways": None}, NEEDS),
    ("spare_way", {"boards.0.spare_ways": 0, "boards.0.fitted_with_this_job": True}, MEETS),
    ("looked_inside", {"boards.0.looked_inside": "no"}, NEEDS),
    ("board_labels", {"boards.0.labels_complete": "no"}, CALL),
    ("way_clear", {"site.hazards": ["old_duct"], "site.way_proven_clear": "no"}, NEEDS),
    ("way_clear", {"site.hazards": ["full_cavity"], "site.way_proven_clear": "yes"}, MEETS),
    ("permission", {"site.ownership": "tenant"}, NEEDS),
    ("permission", {"site.ownership": "owner_lets_it", "site.permission_in_writing": "yes"}, MEETS),
    ("own_land", {"site.parking_on_own_land": "no"}, CALL),
    ("own_land", {"site.parking_on_own_land": "yes"}, MEETS),
    *(("danger_left", {"defects": [DANGER | {"stop": stop}]}, CALL) for stop in ("meter", "parking", "loads", "ownership", "data")),
    *(("danger_in_path", {"defects": [DANGER | {"stop": stop}]}, SHORT)
      for stop in ("cut_out", "tails", "earth", "board", "route", "charge_point")),
    ("load_clamp", {"supply.load_limit_a": 60.0, f"{POINT}current_clamp": "yes", f"{POINT}clamp_proof": PROOF}, MEETS),
    ("load_clamp", {"supply.load_limit_a": 60.0, f"{POINT}current_clamp": "yes"}, NEEDS),
    ("load_clamp", {"supply.load_limit_a": 60.0, f"{POINT}current_clamp": "no"}, SHORT),
    ("load_clamp", {"supply.load_limit_a": 60.0, f"{POINT}current_clamp": "not_seen"}, NEEDS),
    ("load_clamp", {"circuits.0.load_limit_a": 40.0, f"{POINT}current_clamp": "no"}, SHORT),
    ("demand_main_switch", {"boards.0.incomer.0.rating_a": 74.0}, MEETS),
    ("demand_main_switch", {"boards.0.incomer.0.rating_a": 73.9}, SHORT),
    ("demand_main_switch", {"boards.0.incomer.0.rating_a": None}, NEEDS),
    ("maker_rcd", {f"{POINT}upstream_rcd": "A"}, MEETS),
    ("maker_rcd", {f"{POINT}upstream_rcd": "B"}, SHORT),
    ("maker_rcd", {f"{POINT}upstream_rcd": "A", "circuits.0.device.rcd.type": "F"}, MEETS),
    ("maker_rcd", {f"{POINT}upstream_rcd": "A", "circuits.0.device.rcd": None}, SHORT),
    ("terminals", {f"{POINT}terminal_max_mm2": 6.0}, MEETS),
    ("terminals", {f"{POINT}terminal_max_mm2": 4.0}, SHORT),
    ("gland_entry", {f"{POINT}takes_armour": "yes"}, MEETS),
    ("gland_entry", {f"{POINT}takes_armour": "no"}, CALL),
    ("flex_tail", {f"{POINT}flex_tail": True}, NEEDS),
    ("flex_tail", {f"{POINT}flex_tail": True, f"{POINT}flex_csa_mm2": 4.0, f"{POINT}flex_length_m": 2.0}, CALL),
    ("smart", {f"{POINT}smart": "no"}, CALL),
    ("data_way", {f"{POINT}data_ways": ["wired"]}, CALL),
    ("data_way", {f"{POINT}data_ways": ["mobile", "wifi"]}, MEETS),
    ("used_unit", USED, MEETS),
    ("used_unit", {**USED, f"{POINT}seen_working": "no"}, SHORT),
    ("used_unit", {**USED, f"{POINT}built_year": None}, NEEDS),
    ("used_unit", {**USED, f"{POINT}rdc_dd_inside": "not_seen"}, NEEDS),
    ("used_unit", {f"{POINT}provenance": "customers_own"}, NEEDS),
    ("operator", {"letters": []}, NEEDS),
    ("operator", {"letters": [], "supply.maximum_demand_a": 60.0}, MEETS),
    ("operator", {"letters": [], "supply.maximum_demand_a": 60.1}, NEEDS),
]  # fmt: skip


class Surveyed(unittest.TestCase):
    def test_each_check(self) -> None:
        for rule, changes, verdict in SURVEYED:
            with self.subTest(rule=rule, changes=changes):
                found = finding(rule, DEVICE_IN_UNIT, changes)
                self.assertEqual(found.verdict, verdict, found.detail)
                self.assertTrue(found.title and found.clause)
                self.assertTrue(found.remedy or verdict is not SHORT, "what falls short says how to mend it")

    def test_what_does_not_apply_is_not_asked(self) -> None:
        for rule, changes in [
            ("bonding_place", {"supply.incoming_metal": []}), ("way_clear", {"site.hazards": ["paving"]}),
            ("permission", {}), ("danger_left", {"defects": [DANGER | {"outcome": "put_right"}]}),
            ("danger_in_path", {"defects": [DANGER | {"outcome": "put_right"}]}), ("danger_in_path", {"defects": [DANGER | {"dangerous": False}]}),
            ("danger_in_path", {"defects": [DANGER | {"stop": "meter"}]}), ("danger_left", {"defects": [DANGER]}), ("load_clamp", {}),
            ("gland_entry", {"circuits.0.cable.record": "ev-power-data", f"{POINT}takes_armour": "no"}), ("used_unit", {}),
            ("board_make_up", {"boards.0.fitted_with_this_job": True}), ("flex_tail", {}), ("maker_rcd", {f"{POINT}upstream_rcd": None, f"{POINT}upstream_rcd_asked": "no"}),
        ]:  # fmt: skip
            with self.subTest(rule):
                self.assertNotIn(rule, {one.rule for one in evaluation(changes=changes).findings})

    def test_a_service_looped_is_let_go_only_by_the_operators_own_letter(self) -> None:
        looped: dict[str, Any] = {"supply.looped": "yes"}
        about = evaluation(changes=looped).operator.about
        letter = {"kind": "accepted", "dated": "2026-11-02", "about": about}
        self.assertIs(finding("looped", changes=looped).verdict, SHORT)
        self.assertIs(finding("looped", changes=looped | {"letters": [letter]}).verdict, MEETS)
        self.assertIs(finding("looped", changes=looped | {"letters": [letter | {"stand_in": True}]}).verdict, SHORT)

    def test_every_load_kind_counts(self) -> None:
        for kind in LoadKind:
            listed = [{"kind": kind.value, "rating_a": 200.0}]
            found = finding("demand", changes={"load.method": "added_up", "load.appliances": listed})
            self.assertIs(found.verdict, SHORT, kind)

    def test_the_working_of_the_demand_is_its_value(self) -> None:
        found = finding("demand", changes={"supply.maximum_demand_a": 110.0, "supply.load_limit_a": 60.0})
        self.assertEqual((found.value, found.working[-1].value), (78, 78))


class Defects(unittest.TestCase):
    def test_defects_flow_into_the_comments(self) -> None:
        defects = [
            DANGER | {"dangerous": False},
            {"what": "Ring end not clamped", "stop": "board", "outcome": "put_right"},
        ]
        told = comments_on_existing(
            job(changes={"defects": defects, "certificate.comments_on_existing": "Nothing else."})
        )
        self.assertEqual(
            told, "Scorched terminal in the board: left, told the owner. Ring end not clamped: put right. Nothing else."
        )
        gaps = {
            gap.key for gap in evaluation(changes={"defects": defects, "certificate.comments_on_existing": ""}).gaps
        }
        self.assertNotIn("certificate.comments_on_existing", gaps)
