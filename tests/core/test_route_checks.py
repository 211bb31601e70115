"""Checks of how the run is laid and chained, at, below and above their limits."""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from tests.jobs import DEVICE_IN_UNIT, GARAGE, THREE_PHASE, evaluation, finding, in_front, mark

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
ROUTE = "circuits.0.route"
BURIED: dict[str, Any] = {f"{ROUTE}.3.surroundings": "buried", f"{ROUTE}.3.in_duct": False}
NYY: dict[str, Any] = {"circuits.0.cable.record": "nyy-j"}
BARE_BREAKER: dict[str, Any] = {"circuits.0.device.rcd": None}
FRAMED: dict[str, Any] = {
    f"{ROUTE}.0.surroundings": "in_wall",
    f"{ROUTE}.0.concealed_under_50_mm": False,
    "circuits.0.cable.record": "nyy-j",
}
FLAT: dict[str, Any] = {
    f"{ROUTE}.3.surroundings": "loft",
    f"{ROUTE}.4.surroundings": "loft",
    "circuits.0.cable.record": "twin-and-earth",
}
HIDDEN: dict[str, Any] = {f"{ROUTE}.0.concealed_under_50_mm": True, **NYY}

# 6 mm² three-core armoured: 18.0 mm across, so clips at 350 mm and bends of 8·18 = 144 mm.
ON_THE_ROUTE: list[tuple[str, dict[str, Any], Verdict]] = [
    ("depth", {f"{ROUTE}.3.depth_m": 0.46}, MEETS),
    ("depth", {f"{ROUTE}.3.depth_m": 0.45}, MEETS),
    ("depth", {f"{ROUTE}.3.depth_m": 0.44}, CALL),
    ("depth", {f"{ROUTE}.3.depth_m": 0.60, f"{ROUTE}.3.under_drive": True}, MEETS),
    ("depth", {f"{ROUTE}.3.depth_m": 0.59, f"{ROUTE}.3.under_drive": True}, CALL),
    ("warning_tape", {}, MEETS),
    ("warning_tape", {f"{ROUTE}.3.warning_tape": False}, SHORT),
    ("buried_cover", BURIED, MEETS),
    ("buried_cover", {**BURIED, **NYY}, SHORT),
    ("buried_cover", {**BURIED, **NYY, f"{ROUTE}.3.in_duct": True}, MEETS),
    ("fixings", {f"{ROUTE}.2.fixings": "plastic", f"{ROUTE}.2.outdoors": False}, SHORT),
    ("fixings", {f"{ROUTE}.2.fixings": "plastic", f"{ROUTE}.2.outdoors": True}, CALL),
    ("fixings", {f"{ROUTE}.2.fixings": "plastic"}, NEEDS),
    ("indoor_cable", {f"{ROUTE}.2.outdoors": False, **FLAT}, MEETS),
    ("indoor_cable", {f"{ROUTE}.2.outdoors": True, **FLAT}, SHORT),
    ("indoor_cable", FLAT, NEEDS),
    ("clip_spacing", {f"{ROUTE}.2.clip_spacing_mm": 349.0}, MEETS),
    ("clip_spacing", {f"{ROUTE}.2.clip_spacing_mm": 350.0}, MEETS),
    ("clip_spacing", {f"{ROUTE}.2.clip_spacing_mm": 351.0}, CALL),
    ("bend_radius", {f"{ROUTE}.1.bend_radius_mm": 145.0}, MEETS),
    ("bend_radius", {f"{ROUTE}.1.bend_radius_mm": 144.0}, MEETS),
    ("bend_radius", {f"{ROUTE}.1.bend_radius_mm": 143.0}, SHORT),
    ("clearance", {f"{ROUTE}.0.hazards": ["data_cables"]}, NEEDS),
    ("clearance", {f"{ROUTE}.0.hazards": ["data_cables"], f"{ROUTE}.0.clearance_mm": 50.0}, MEETS),
    ("clearance", {f"{ROUTE}.0.hazards": ["data_cables"], f"{ROUTE}.0.clearance_mm": 49.0}, SHORT),
    ("clearance", {f"{ROUTE}.0.hazards": ["pipes"], f"{ROUTE}.0.clearance_mm": 25.0}, MEETS),
    ("clearance", {f"{ROUTE}.0.hazards": ["pipes"], f"{ROUTE}.0.clearance_mm": 24.0}, SHORT),
    ("clearance", {f"{ROUTE}.0.hazards": ["pipes", "data_cables"], f"{ROUTE}.0.clearance_mm": 30.0}, SHORT),
    ("fire_stopped", {}, MEETS),
    ("fire_stopped", {f"{ROUTE}.1.fire_stopped": False}, SHORT),
    # 522.6.203: among metal parts of a wall at any depth; the RCBO at the board guards it, without it nothing does.
    ("concealed_cable", {**FRAMED, f"{ROUTE}.0.metal_frame": True}, MEETS),
    ("concealed_cable", {**FRAMED, f"{ROUTE}.0.metal_frame": True, **BARE_BREAKER}, SHORT),
    ("concealed_cable", {**FRAMED, f"{ROUTE}.0.metal_frame": False, **BARE_BREAKER}, MEETS),
    ("concealed_cable", {**FRAMED, **BARE_BREAKER}, NEEDS),
    (
        "concealed_cable",
        {**FRAMED, f"{ROUTE}.0.metal_frame": True, "circuits.0.cable.record": "swa-3-core", **BARE_BREAKER},
        MEETS,
    ),
    ("concealed_zone", HIDDEN, NEEDS),
    ("concealed_zone", {**HIDDEN, f"{ROUTE}.0.in_zone": "yes"}, MEETS),
    ("concealed_zone", {**HIDDEN, f"{ROUTE}.0.in_zone": "no"}, SHORT),
    ("full_cavity", {f"{ROUTE}.0.hazards": ["full_cavity"]}, NEEDS),
    ("full_cavity", {f"{ROUTE}.0.hazards": ["full_cavity"], f"{ROUTE}.0.grouped_circuits": 4}, MEETS),
    ("section_hazard", {f"{ROUTE}.3.hazards": ["drains", "paving"]}, CALL),
    ("paced", {f"{ROUTE}.2.length_by": "steps"}, NEEDS),
    ("slack", {}, MEETS),
    ("slack", {"circuits.0.slack_m": 0.0}, CALL),
    ("selectivity", {"supply.cut_out_fuse_a": 80}, MEETS),
    ("selectivity", {"supply.cut_out_fuse_a": 40}, CALL),
    ("device_kind", {"circuits.0.device.kind": "rewirable"}, SHORT),
    ("cable_cores", {"charge_points.0.phases": 3}, SHORT),
    ("armour_alone", {"circuits.0.cable": {"record": "swa-2-core", "csa_mm2": 6.0}}, MEETS),
    ("armour_alone", {"circuits.0.cable": {"record": "swa-2-core", "csa_mm2": 10.0}}, CALL),
    ("armour_alone", {"circuits.0.cable.protective": "armour"}, MEETS),
    ("joint", {f"{ROUTE}.4.cable": {"record": "ev-power-data", "csa_mm2": 6.0}}, NEEDS),
    ("joint", {f"{ROUTE}.4.cable": {"record": "nyy-j"}, f"{ROUTE}.4.joint_accessible": "yes"}, MEETS),
    ("joint", {f"{ROUTE}.4.cable": {"record": "nyy-j"}, f"{ROUTE}.4.joint_accessible": "no"}, SHORT),
]

# On the garage's sub-main: cars 32 A and 17.3 A of other loads come to 49.3 A.
ON_THE_SUB_MAIN: list[tuple[str, dict[str, Any], Verdict]] = [
    ("new_board_rcd", {"boards.1.groups": []}, SHORT),
    ("new_board_rcd", {"boards.1.groups.0.guards.0.rcd.time_delayed": True}, SHORT),
    ("new_board_rcd", {"boards.1.groups.0.feeds_others": "no"}, SHORT),
    (
        "new_board_rcd",
        {"boards.1.groups": [], "boards.1.incomer": in_front(mark("A"))[1:]},
        MEETS,
    ),
    (
        "new_board_rcd",
        {"boards.1.groups": [], "boards.1.incomer": in_front(mark("A", 100))[1:]},
        SHORT,
    ),
    ("new_board_rcd", {"boards.1.groups.0.guards.0.rcd.residual_ma": 30}, MEETS),
    ("board_ip", {"boards.1.indoors": False, "boards.1.ip_code": "IP44"}, MEETS),
    ("board_ip", {"boards.1.indoors": False, "boards.1.ip_code": "IP43"}, SHORT),
    ("board_ip", {"boards.1.indoors": False, "boards.1.ip_code": None}, NEEDS),
    ("load_on_device", {}, MEETS),
    ("load_on_device", {"circuits.0.device.rating_a": 50}, MEETS),
    ("load_on_device", {"circuits.0.device.rating_a": 40}, SHORT),
    ("load_on_device", {"circuits.0.device.rating_a": 40, "circuits.0.load_limit_a": 40.0}, MEETS),
    ("load_on_device", {"circuits.0.device.rating_a": 40, "circuits.0.load_limit_a": 40.1}, SHORT),
    ("weakest_section", {"circuits.0.cable.csa_mm2": 6.0}, SHORT),
    ("disconnection", {"supply.ze_enquiry_ohm": 0.63}, MEETS),
    ("disconnection", {"supply.ze_enquiry_ohm": 0.65}, SHORT),
    ("disconnection", {"circuits.0.device": {"kind": "fuse", "rating_a": 20}}, MEETS),
    ("survives_fault", {"circuits.0.cable.csa_mm2": 4.0}, SHORT),
    ("breaking_capacity", {"circuits.0.device": {"kind": "breaker", "rating_a": 63}}, MEETS),
    ("selectivity", {"supply.cut_out_fuse_a": 60}, CALL),
    ("exported_earth", {}, MEETS),
    ("volt_drop_lighting", {}, MEETS),
    ("volt_drop_lighting", {"circuits.0.route.3.length_m": 21.0}, MEETS),
    ("volt_drop_lighting", {"circuits.0.route.3.length_m": 23.0}, SHORT),
    ("volt_drop_lighting", {"circuits.0.cable.csa_mm2": 6.0}, SHORT),
]


class OnTheRoute(unittest.TestCase):
    def test_each_check(self) -> None:
        for rule, changes, verdict in ON_THE_ROUTE:
            with self.subTest(rule=rule, changes=changes):
                self.assertEqual(finding(rule, DEVICE_IN_UNIT, changes).verdict, verdict)

    def test_a_section_that_raises_no_question_gives_no_finding(self) -> None:
        subjects = {one.subject for one in evaluation().findings}
        self.assertNotIn("ev-1", subjects)

    def test_a_short_verdict_says_what_mends_it(self) -> None:
        for rule, changes, verdict in ON_THE_ROUTE:
            if verdict is SHORT:
                with self.subTest(rule=rule, changes=changes):
                    self.assertTrue(finding(rule, DEVICE_IN_UNIT, changes).remedy)


class SharedWay(unittest.TestCase):
    """A way shared with another circuit: that one makes it, and they lie together."""

    def test_each(self) -> None:
        trench = {"surroundings": "buried", "depth_m": 0.6, "under_drive": False}
        own = {f"circuits.1.route.0.{name}": value for name, value in trench.items()}
        beside = {f"circuits.0.route.3.{name}": value for name, value in trench.items()}
        for changes, verdict in (
            ({"way_made": "for_it", "grouped_circuits": 1}, None),
            ({"way_made": "there", "grouped_circuits": 1}, None),
            ({"way_made": "shared", "grouped_circuits": 1}, NEEDS),
            ({"way_made": "shared", "grouped_circuits": None}, NEEDS),
            ({"way_made": "shared", "grouped_circuits": 2}, MEETS),
        ):
            said = {f"circuits.1.route.0.{name}": value for name, value in changes.items()}
            found = [one for one in evaluation(GARAGE, own | beside | said).findings if one.rule == "shared_way"]
            with self.subTest(changes):
                self.assertEqual([one.verdict for one in found], [] if verdict is None else [verdict])

    def test_somebody_makes_it(self) -> None:
        shared = {"circuits.0.route.2.way_made": "shared", "circuits.0.route.2.grouped_circuits": 2}
        self.assertIs(finding("shared_way", DEVICE_IN_UNIT, shared).verdict, NEEDS)

    def test_a_duct_that_is_there_is_proven_clear(self) -> None:
        duct = {"circuits.0.route.3.surroundings": "duct", "circuits.0.route.3.way_made": "there"}
        for proven, verdict in (("not_seen", NEEDS), ("yes", MEETS)):
            found = finding("way_clear", DEVICE_IN_UNIT, duct | {"site.way_proven_clear": proven})
            self.assertIs(found.verdict, verdict)


class OnTheSubMain(unittest.TestCase):
    def judged(self, rule: str, changes: dict[str, Any]) -> Verdict:
        subjects = ("sub-main", "garage")
        found = [one for one in evaluation(GARAGE, changes).findings if one.rule == rule and one.subject in subjects]
        self.assertEqual(len(found), 1, rule)
        return found[0].verdict

    def test_each_check(self) -> None:
        for rule, changes, verdict in ON_THE_SUB_MAIN:
            with self.subTest(rule=rule, changes=changes):
                self.assertEqual(self.judged(rule, changes), verdict)

    def test_pme_in_a_garage_with_pipes_wants_ten_square_millimetres(self) -> None:
        pipes: dict[str, Any] = {"boards.1.extraneous_parts": "yes"}
        self.assertEqual(self.judged("exported_earth", pipes), MEETS)
        self.assertEqual(self.judged("exported_earth", {**pipes, "circuits.0.cable.csa_mm2": 6.0}), SHORT)
        for steel in (
            {"record": "swa-2-core", "csa_mm2": 16.0},
            {"record": "swa-3-core", "csa_mm2": 16.0, "protective": "armour"},
        ):
            self.assertEqual(
                self.judged("exported_earth", {**pipes, "circuits.0.cable": steel}), SHORT, "steel is no copper"
            )
        self.assertEqual(self.judged("exported_earth", {"boards.1.extraneous_parts": "not_seen"}), NEEDS)
        # 544.1.1: where PME does not apply 6 mm² do.
        on_tt = {**pipes, "supply.earthing": "tt", "circuits.0.cable.csa_mm2": 6.0}
        self.assertEqual(self.judged("exported_earth", on_tt), MEETS)

    def test_tt_takes_the_s_type_for_the_sub_main_and_not_for_the_final_circuit(self) -> None:
        tt: dict[str, Any] = {
            "supply.earthing": "tt", "supply.ze_enquiry_ohm": None, "supply.electrode_design_ohm": 60.0,
            "boards.0.incomer": in_front(mark("A", 100, delayed=True)),
        }  # fmt: skip
        self.assertEqual(self.judged("disconnection", tt), MEETS)
        bare = {**tt, "circuits.1.device.rcd": None}
        final = next(
            one for one in evaluation(GARAGE, bare).findings if (one.rule, one.subject) == ("disconnection", "ev")
        )
        self.assertEqual(final.verdict, SHORT)


class ThreePhases(unittest.TestCase):
    def test_a_three_phase_unit_needs_three_phases_all_the_way(self) -> None:
        by_subject = {one.subject: one for one in evaluation(THREE_PHASE).findings if one.rule == "phases"}
        self.assertEqual({key: one.verdict for key, one in by_subject.items()}, {"ev-left": MEETS, "ev-right": MEETS})
        self.assertIn("on L2", by_subject["ev-right"].detail)
        short = evaluation(THREE_PHASE, {"circuits.0.phases": 1}).findings
        self.assertEqual(next(one for one in short if one.key == "phases/ev-left").verdict, SHORT)

    def test_the_sub_main_is_worked_on_its_most_loaded_line(self) -> None:
        # 16 A on each line by the left car; the right car's 32 A on L2; 3 A of lights at 66 % on whichever line.
        load = next(one for one in evaluation(THREE_PHASE).findings if one.key == "load_on_device/sub-main")
        self.assertAlmostEqual(load.value or 0, 16 + 32 + 0.66 * 3)

    def test_two_cars_share_the_sub_main_and_its_tests_stand_once(self) -> None:
        found = evaluation(THREE_PHASE)
        self.assertEqual(len(found.profiles), 2)
        steps = [(one.step.value, one.subject) for one in found.steps]
        self.assertEqual(len(steps), len(set(steps)))
        self.assertIn(("zs", "sub-main"), steps)
        self.assertEqual([subject for step, subject in steps if step == "phase_sequence"], ["ev-left"])

    def test_three_phase_faults_are_higher_than_line_to_neutral(self) -> None:
        board = next(one for one in evaluation(THREE_PHASE).findings if one.key == "breaking_capacity/sub-main")
        self.assertAlmostEqual(board.value or 0, 2.4)
