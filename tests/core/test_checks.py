"""Every check at, below and above its limit, and for every fact or choice that decides it."""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from tests.core.test_around import TRIALS as AROUND
from tests.core.test_guard_cells import CELLS
from tests.core.test_ring_final import TRIALS as RINGS
from tests.core.test_route_checks import ON_THE_ROUTE, ON_THE_SUB_MAIN
from tests.core.test_survey_checks import SURVEYED
from tests.jobs import (
    AT_SURVEY,
    DETECTOR_BOX,
    DEVICE_IN_UNIT,
    GARAGE,
    OPEN_PEN_BOX,
    THREE_PHASE,
    TREATED_AS_PME,
    TT,
    evaluation,
    finding,
    in_front,
    mark,
)

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
A30 = mark("A")
INSIDE: dict[str, Any] = {"charge_points.0.rcd_inside": A30, "charge_points.0.rcd_inside_seen": "yes"}
NO_RCD: dict[str, Any] = {"circuits.0.device.rcd": None, **INSIDE}

INDOORS: dict[str, Any] = {
    "site.car_place": "indoors_only",
    "charge_points.0.hangs_outdoors": False,
    "charge_points.0.door_distance_m": 12.0,
    "charge_points.0.lead_length_m": 5.0,
}
NO_PME: dict[str, Any] = {
    "supply.earthing": "tn_s",
    "supply.tns_school": "as_found",
    "supply.tns_confirmed_in_writing": True,
    "supply.tns_confirmation": "0" * 64,
}
# rule, what is changed, verdict. The example is TN-C-S with everything in order.
UNREAD: dict[str, Any] = {"readings": []}
BEHIND_100_A = {"supply.earthing_conductor_csa_mm2": 10.0, "supply.cut_out_fuse_a": 100, "supply.ze_enquiry_ohm": 0.35, **UNREAD}  # fmt: skip


def tails(csa_mm2: float, runs: str = "not_seen", *, fuse_a: int = 80, demand_a: float = 70.0,
          letter: str = "not_seen", letter_a: float | None = None) -> dict[str, Any]:  # fmt: skip
    """The tails of one stretch behind a fuse, with what the operator's letter says of them."""
    said = {"csa_mm2": csa_mm2, "runs": runs, "accepted_in_writing": "yes" if letter_a else letter, "accepted_to_a": letter_a}  # fmt: skip
    return {f"supply.tails.0.{name}": one for name, one in said.items()} | {
        "supply.cut_out_fuse_a": fuse_a, "supply.maximum_demand_a": demand_a, "load.appliances": [], **UNREAD,
    }  # fmt: skip


ON_TN_C_S: list[tuple[str, dict[str, Any], Verdict]] = [
    ("looped", {"supply.looped": "no"}, MEETS),
    ("looped", {"supply.looped": "yes"}, SHORT),
    ("looped", {"supply.looped": "not_seen"}, NEEDS),
    ("demand", {"supply.maximum_demand_a": 79.9}, MEETS),
    ("demand", {"supply.maximum_demand_a": 80.0}, MEETS),
    ("demand", {"supply.maximum_demand_a": 80.1}, SHORT),
    ("demand", {"supply.maximum_demand_a": 110.0, "supply.load_limit_a": 60.0}, MEETS),
    ("demand", {"supply.maximum_demand_a": 113.0, "supply.load_limit_a": 60.0}, SHORT),
    ("demand", {"supply.maximum_demand_a": None}, NEEDS),
    ("demand", {"supply.cut_out_fuse_a": None}, NEEDS),
    ("tails_size", {"supply.tails.0.csa_mm2": 10.0}, SHORT),
    ("tails_size", {"supply.tails.0.csa_mm2": 16.0}, MEETS),
    ("tails_size", {"supply.tails.0.csa_mm2": 16.0, "supply.cut_out_fuse_a": 100}, SHORT),
    ("tails_size", {"supply.tails.0.csa_mm2": 25.0, "supply.cut_out_fuse_a": 100}, MEETS),
    ("tails_size", {"supply.cut_out_fuse_a": 125}, NEEDS),
    # A letter settles the usual size up to the current that it names, and no further.
    ("tails_size", tails(16.0, fuse_a=100, letter_a=100.0), MEETS),
    ("tails_size", tails(16.0, fuse_a=100, letter_a=99.0), SHORT),
    ("tails_size", tails(16.0, fuse_a=100, letter="yes"), NEEDS),
    ("tails_size", tails(70.0, fuse_a=160, letter_a=160.0), MEETS),
    ("tails_size", tails(70.0, fuse_a=160), NEEDS),
    # Table 4D1A, 16 mm²: 87 A clipped, 76 A in conduit, 61 A in an insulated wall; 80 A can flow.
    ("tails_capacity", tails(25.0), MEETS),
    ("tails_capacity", tails(16.0, demand_a=76.0), MEETS),
    ("tails_capacity", tails(16.0, demand_a=76.5), NEEDS),
    ("tails_capacity", tails(16.0, "clipped", demand_a=79.0), MEETS),
    ("tails_capacity", tails(16.0, "enclosed", demand_a=76.0), CALL),
    ("tails_capacity", tails(16.0, "enclosed", demand_a=76.5), SHORT),
    ("tails_capacity", tails(16.0, "insulated_wall", demand_a=61.0), CALL),
    ("tails_capacity", tails(16.0, "insulated_wall", demand_a=61.5), SHORT),
    ("tails_capacity", tails(16.0, "clipped", fuse_a=100, letter_a=100.0, demand_a=87.5), SHORT),
    ("tails_capacity", tails(16.0, "clipped", fuse_a=100, letter_a=100.0, demand_a=87.0), CALL),
    ("tails_capacity", tails(16.0, "clipped", fuse_a=100, demand_a=95.0) | {"supply.load_limit_a": 80.0}, MEETS),
    ("tails_capacity", tails(70.0, fuse_a=160, demand_a=150.0), MEETS),
    ("tails_capacity", tails(50.0, "enclosed", fuse_a=160, demand_a=152.0), SHORT),
    # 100 A to BS 1361: 643 A for 5 s, √(643²·5)/115 = 12.5 mm²; to BS 88-3 575 A, 11.2 mm².
    (
        "tails_capacity",
        tails(10.0, "clipped", fuse_a=100, demand_a=50.0) | {"supply.cut_out_fuse_standard": "bs_1361"},
        SHORT,
    ),
    ("tails_length", {"supply.tails.0.length_m": 2.9}, MEETS),
    ("tails_length", {"supply.tails.0.length_m": 3.0}, MEETS),
    ("tails_length", {"supply.tails.0.length_m": 3.1}, SHORT),
    ("tails_length", {"supply.tails.0.length_m": None}, NEEDS),
    # Behind 80 A: 0.51 Ω opens it in 5 s, so 428 A; √(428²·5)/143 = 6.7 mm².
    ("earthing_conductor", {"supply.earthing_conductor_csa_mm2": 10.0}, CALL),
    ("earthing_conductor", {"supply.earthing_conductor_csa_mm2": 6.0}, SHORT),
    (
        "earthing_conductor",
        {
            "supply.earthing_conductor_csa_mm2": 10.0,
            "supply.cut_out_fuse_a": 100,
            "supply.ze_enquiry_ohm": 0.5,
            **UNREAD,
        },
        SHORT,
    ),
    # 0.35 Ω behind 100 A: 624 A open a BS 88-3 fuse (0.38 Ω) in 5 s, not a BS 1361 one (0.34 Ω).
    ("earthing_conductor", {**BEHIND_100_A, "supply.cut_out_fuse_standard": "bs_88_3"}, CALL),
    ("earthing_conductor", {**BEHIND_100_A, "supply.cut_out_fuse_standard": "bs_1361"}, SHORT),
    ("earthing_conductor", {**BEHIND_100_A, "supply.cut_out_fuse_standard": "other"}, SHORT),
    ("earthing_conductor", {**BEHIND_100_A, "supply.cut_out_fuse_standard": "not_seen"}, NEEDS),
    ("earthing_conductor", {"supply.earthing_conductor_csa_mm2": 10.0, "supply.tails.0.csa_mm2": 10.0}, MEETS),
    # Where PME applies it is never below the main bonding size, however thin the tails.
    ("earthing_conductor", {"supply.earthing_conductor_csa_mm2": 6.0, "supply.tails.0.csa_mm2": 6.0}, SHORT),
    ("earthing_conductor", {"supply.earthing_conductor_csa_mm2": 6.0, "supply.tails.0.csa_mm2": 6.0, **NO_PME}, MEETS),
    (
        "earthing_conductor",
        {"supply.earthing_conductor_csa_mm2": 6.0, "supply.tails.0.csa_mm2": 6.0, "supply.earthing": "tn_s"},
        SHORT,
    ),
    ("earthing_conductor", {"supply.earthing_conductor_csa_mm2": None}, NEEDS),
    ("main_bonding", {"supply.main_bonding_csa_mm2": 6.0}, SHORT),
    ("main_bonding", {"supply.main_bonding_csa_mm2": 10.0}, MEETS),
    ("main_bonding", {"supply.bonded_services": [], "supply.main_bonding_csa_mm2": None}, NEEDS),
    ("main_bonding", {"supply.bonded_services": ["water"], "supply.incoming_metal": ["water", "gas"]}, SHORT),
    ("main_bonding", {"supply.bonded_services": ["water", "gas"], "supply.incoming_metal": ["gas"]}, MEETS),
    ("main_bonding", {"supply.incoming_metal": None}, NEEDS),
    ("main_bonding", {"supply.incoming_metal": [], "supply.bonded_services": []}, MEETS),
    (
        "main_bonding",
        {"supply.incoming_metal": None, "supply.no_extraneous_parts": True, "supply.bonded_services": []},
        MEETS,
    ),
    ("main_bonding", {"supply.no_extraneous_parts": True}, NEEDS),
    ("guard_rating", {"boards.0.incomer.0.rating_a": 80.0}, MEETS),
    ("guard_rating", {"boards.0.incomer.0.rating_a": 63.0}, SHORT),
    ("guard_rating", {"boards.0.incomer.0.rating_a": 63.0, "boards.0.incomer.0.carries_by_maker": "yes"}, MEETS),
    ("guard_rating", {"boards.0.incomer.0.rating_a": 63.0, "boards.0.feeds_others": "no"}, MEETS),
    ("guard_rating", {"boards.0.incomer.0.rating_a": 39.0, "boards.0.feeds_others": "no"}, SHORT),
    ("guard_rating", {"boards.0.incomer.0.rating_a": None}, NEEDS),
    ("guard_rating", {"boards.0.incomer.0.rating_a": 63.0, "supply.cut_out_fuse_a": None}, NEEDS),
    ("main_switch_poles", {"boards.0.incomer.0.poles": 2}, MEETS),
    ("main_switch_poles", {"boards.0.incomer.0.poles": 1}, SHORT),
    ("main_switch_poles", {"boards.0.incomer.0.poles": None}, NEEDS),
    ("main_switch_poles", {"boards.0.incomer.0.poles": 4, "supply.phases": 3}, MEETS),
    ("main_switch_poles", {"boards.0.incomer.0.poles": 3, "supply.phases": 3}, CALL),
    ("main_switch_poles", {"boards.0.incomer.0.poles": 2, "supply.phases": 3}, SHORT),
    # 5·40 A at 230·0.95: 1.0925 Ω line to neutral; the loop is Ze, tails and cable, hot.
    ("least_fault", {"supply.ze_enquiry_ohm": 0.90, **UNREAD}, MEETS),
    ("least_fault", {"supply.ze_enquiry_ohm": 1.10, **UNREAD}, CALL),
    ("least_fault", {"supply.ze_enquiry_ohm": 5.0, **UNREAD}, SHORT),
    ("demand_entered", {"supply.maximum_demand_a": 42.0}, MEETS),
    ("demand_entered", {"supply.maximum_demand_a": 41.0}, CALL),
    ("demand_entered", {"supply.maximum_demand_a": 31.0}, NEEDS),
    ("demand_entered", {"load.appliances": [{"kind": "shower", "rating_a": 42.0}]}, MEETS),
    ("demand_entered", {"load.appliances": [{"kind": "shower", "rating_a": 43.0}]}, NEEDS),
    ("set_current", {"charge_points.0.set_current_a": 32.0}, MEETS),
    ("set_current", {"charge_points.0.set_current_a": 33.0}, SHORT),
    ("goes_off", {"boards.0.incomer": in_front(mark("A")), "boards.0.others": ""}, NEEDS),
    ("goes_off", {"boards.0.incomer": in_front(mark("A")), "boards.0.others": "freezer and lights"}, MEETS),
    ("feeds_back", {"charge_points.0.feeds_back": "not_seen"}, NEEDS),
    ("both_ways", {"charge_points.0.feeds_back": "yes"}, NEEDS),
    ("both_ways", {"charge_points.0.feeds_back": "yes", "circuits.0.device.both_ways": "yes"}, MEETS),
    ("both_ways", {"charge_points.0.feeds_back": "yes", "circuits.0.device.both_ways": "no"}, SHORT),
    ("ze_enquiry", {"supply.ze_enquiry_ohm": 0.35, "supply.pscc_enquiry_ka": 0.66, **UNREAD}, MEETS),
    ("ze_enquiry", {"supply.ze_enquiry_ohm": 0.35, "supply.pscc_enquiry_ka": 0.65, **UNREAD}, NEEDS),
    ("ze_enquiry", {"supply.ze_enquiry_ohm": 0.36, **UNREAD}, SHORT),
    (
        "ze_enquiry",
        {"supply.ze_enquiry_ohm": 0.36, "supply.operator_told_of_ze": "yes", "supply.pscc_enquiry_ka": 1.0, **UNREAD},
        MEETS,
    ),
    ("open_pen", {"charge_points.0.open_pen_inside": "no"}, SHORT),
    ("open_pen", {"charge_points.0.open_pen_inside": "not_seen"}, NEEDS),
    ("open_pen", {"charge_points.0.open_pen_device.opens_within_s": 4.9}, MEETS),
    ("open_pen", {"charge_points.0.open_pen_device.opens_within_s": 5.1}, SHORT),
    ("open_pen", {"charge_points.0.open_pen_device.opens_protective_conductor": False}, SHORT),
    ("open_pen", {"supply.phases": 3}, SHORT),
    ("open_pen", {"supply.phases": 3, "charge_points.0.open_pen_device.sensing": "met_voltage"}, MEETS),
    ("open_pen", {"charge_points.0.arrangement.open_pen": "none"}, SHORT),
    ("open_pen", {"charge_points.0.arrangement.open_pen": "none", **INDOORS}, MEETS),
    ("open_pen", {"charge_points.0.arrangement.open_pen": "none", "site.car_place": "not_seen"}, SHORT),
    (
        "open_pen",
        {"charge_points.0.arrangement.open_pen": "none", "charge_points.0.arrangement.car_earth": "own_electrode"},
        MEETS,
    ),
    ("open_pen", {"charge_points.0.arrangement.open_pen": "separate_device"}, SHORT),
    (
        "open_pen",
        {"charge_points.0.arrangement.open_pen": "separate_device", "circuits.0.boxes": [OPEN_PEN_BOX]},
        MEETS,
    ),
    (
        "open_pen",
        {
            "charge_points.0.arrangement.open_pen": "low_electrode",
            "supply.maximum_demand_a": 40.0,
            "supply.electrode_design_ohm": 2.1,
        },
        CALL,  # 6.4 Ω in frozen ground
    ),
    (
        "open_pen",
        {
            "charge_points.0.arrangement.open_pen": "low_electrode",
            "supply.maximum_demand_a": 40.0,
            "supply.electrode_design_ohm": 2.3,
        },
        SHORT,
    ),
    ("open_pen", {"charge_points.0.arrangement.open_pen": "low_electrode", "supply.maximum_demand_a": None}, NEEDS),
    ("separation", {"charge_points.0.arrangement.car_earth": "own_electrode"}, NEEDS),
    (
        "separation",
        {"charge_points.0.arrangement.car_earth": "own_electrode", "charge_points.0.arrangement.separation_m": 2.4},
        SHORT,
    ),
    (
        "separation",
        {"charge_points.0.arrangement.car_earth": "own_electrode", "charge_points.0.arrangement.separation_m": 2.5},
        MEETS,
    ),
    (
        "electrode_stable",
        {
            "charge_points.0.arrangement.car_earth": "own_electrode",
            "charge_points.0.arrangement.electrode_design_ohm": 65.0,
        },
        MEETS,
    ),
    (
        "electrode_stable",
        {
            "charge_points.0.arrangement.car_earth": "own_electrode",
            "charge_points.0.arrangement.electrode_design_ohm": 200.0,
        },
        CALL,  # 606 Ω in frozen ground
    ),
    (
        "electrode_stable",
        {
            "charge_points.0.arrangement.car_earth": "own_electrode",
            "charge_points.0.arrangement.electrode_design_ohm": 201.0,
        },
        SHORT,
    ),
    (
        "electrode_touch",
        {
            "charge_points.0.arrangement.car_earth": "own_electrode",
            "charge_points.0.arrangement.electrode_design_ohm": 1666.0,
        },
        CALL,  # 151 V in frozen ground
    ),
    (
        "electrode_touch",
        {
            "charge_points.0.arrangement.car_earth": "own_electrode",
            "charge_points.0.arrangement.electrode_design_ohm": 1667.0,
        },
        SHORT,
    ),
    ("own_rcd", {"circuits.0.device.rcd": None}, SHORT),
    ("own_rcd", {"circuits.0.device.rcd.residual_ma": 100}, SHORT),
    ("own_rcd", {"circuits.0.device.rcd.residual_ma": 10}, MEETS),
    ("own_rcd", {"circuits.0.device.rcd.time_delayed": True}, SHORT),
    ("own_rcd", {"circuits.0.device.rcd.switches_neutral": False}, SHORT),
    ("own_rcd", {"circuits.0.device.rcd.switches_neutral": False, **INSIDE}, MEETS),
    ("rcd_at_board", NO_RCD, CALL),
    ("dc_protection", {"charge_points.0.rdc_dd_inside": "no"}, SHORT),
    ("dc_protection", {"charge_points.0.rdc_dd_inside": "not_seen"}, NEEDS),
    ("dc_protection", {"charge_points.0.arrangement.rdc_dd": "none"}, SHORT),
    (
        "dc_protection",
        {
            "charge_points.0.arrangement.rdc_dd": "before_unit",
            "charge_points.0.rdc_dd_inside": "no",
            "circuits.0.boxes": [DETECTOR_BOX],
        },
        MEETS,
    ),
    ("dc_protection", {"charge_points.0.arrangement.rdc_dd": "before_unit"}, SHORT),
    ("dc_protection", {"charge_points.0.arrangement.rdc_dd": "none", "circuits.0.device.rcd.type": "B"}, MEETS),
    ("rcd_blinding", {"circuits.0.device.rcd.type": "AC"}, SHORT),
    ("rcd_blinding", {"boards.0.incomer": in_front(mark("AC"))}, SHORT),
    ("rcd_blinding", {"charge_points.0.rcd_inside": mark("AC")}, SHORT),
    ("rcd_blinding", {"boards.0.incomer": in_front(mark("A"))}, MEETS),
    (
        "rcd_blinding",
        {
            "charge_points.0.arrangement.rdc_dd": "none",
            "circuits.0.device.rcd.type": "B",
            "boards.0.incomer": in_front(mark("A")),
        },
        SHORT,
    ),
    (
        "rcd_blinding",
        {
            "charge_points.0.arrangement.rdc_dd": "none",
            "circuits.0.device.rcd.type": "B",
            "boards.0.incomer": in_front(mark("B")),
        },
        MEETS,
    ),
    (
        "rcd_blinding",
        {"charge_points.0.arrangement.rdc_dd": "none", "charge_points.0.rcd_inside": mark("B")},
        SHORT,
    ),
    ("front_rcd", {"boards.0.front_rcd_seen": "not_seen"}, NEEDS),
    ("front_rcd", {"boards.0.front_rcd_seen": "yes"}, NEEDS),
    ("surge", {"boards.0.surge_protection": "no"}, CALL),
    ("surge", {"boards.0.surge_protection": "not_seen"}, NEEDS),
    ("concealed_cable", {"circuits.0.route.0.concealed_under_50_mm": True, **NO_RCD}, MEETS),
    (
        "concealed_cable",
        {"circuits.0.route.0.concealed_under_50_mm": True, "circuits.0.cable.record": "nyy-j", **NO_RCD},
        SHORT,
    ),
    ("concealed_cable", {"circuits.0.route.0.concealed_under_50_mm": True, "circuits.0.cable.record": "nyy-j"}, MEETS),
    ("load_on_device", {"circuits.0.device.rating_a": 32}, MEETS),
    ("load_on_device", {"circuits.0.device.rating_a": 25}, SHORT),
    (
        "load_on_device",
        {
            "circuits.0.device.rating_a": 25,
            "charge_points.0.set_current_a": 25.0,
            "charge_points.0.set_current_locked": "yes",
        },
        MEETS,
    ),
    ("maker_device", {"circuits.0.device.rating_a": 32}, MEETS),
    ("maker_device", {"circuits.0.device.rating_a": 25}, SHORT),
    ("maker_device", {"charge_points.0.device_min_a": 40.0}, MEETS),
    ("maker_device", {"charge_points.0.device_max_a": 32.0}, SHORT),
    ("maker_device", {"charge_points.0.device_max_a": None}, NEEDS),
    ("weakest_section", {"circuits.0.cable.csa_mm2": 4.0}, MEETS),
    ("weakest_section", {"circuits.0.cable.csa_mm2": 2.5}, SHORT),
    ("weakest_section", {"circuits.0.route.2.surroundings": "in_wall"}, SHORT),
    ("cable_size", {"circuits.0.cable.record": "ev-power-data", "circuits.0.cable.csa_mm2": 16.0}, SHORT),
    ("terminal_temperature", {"circuits.0.cable.csa_mm2": 2.5}, SHORT),
    ("breaking_capacity", {"boards.0.conditional_rating_ka": None}, MEETS),
    ("volt_drop", {"circuits.0.route.3.length_m": 37.0}, MEETS),
    ("volt_drop", {"circuits.0.route.3.length_m": 40.0}, SHORT),
    ("connector_height", {"charge_points.0.connector_height_m": 0.49}, CALL),
    ("connector_height", {"charge_points.0.connector_height_m": 0.5}, MEETS),
    ("connector_height", {"charge_points.0.connector_height_m": 1.5}, MEETS),
    ("connector_height", {"charge_points.0.connector_height_m": 1.51}, CALL),
    ("connector_height", {"charge_points.0.connector_height_m": None}, NEEDS),
    ("ip_code", {"charge_points.0.ip_code": "IP44"}, MEETS),
    ("ip_code", {"charge_points.0.ip_code": "IP43"}, SHORT),
    ("ip_code", {"charge_points.0.ip_code": "IP34"}, SHORT),
    ("ip_code", {"charge_points.0.ip_code": None}, NEEDS),
    ("board_case", {"boards.0.enclosure": "plastic"}, CALL),
    ("board_case", {"boards.0.enclosure": "not_seen"}, NEEDS),
    ("phases", {"supply.phases": 3}, MEETS),
    ("phases", {"charge_points.0.phases": 3}, SHORT),
    ("phases", {"charge_points.0.phases": 3, "supply.phases": 3}, MEETS),
]


class OnTnCS(unittest.TestCase):
    def test_each_check(self) -> None:
        for rule, changes, verdict in ON_TN_C_S:
            with self.subTest(rule=rule, changes=changes):
                found = finding(rule, DEVICE_IN_UNIT, changes)
                self.assertEqual(found.verdict, verdict, found.detail)
                self.assertTrue(found.title and found.clause)
                self.assertTrue(found.remedy or verdict is not SHORT, "what falls short says how to mend it")

    def test_every_rule_of_the_design_is_tested_here(self) -> None:
        tested = (
            {rule for rule, _, _ in (*ON_TN_C_S, *SURVEYED, *ON_THE_ROUTE, *ON_THE_SUB_MAIN)}
            | {
                "disconnection",
                "survives_fault",
                "tns_school",
                "tt_origin_rcd",
                "meter_record",
                "rcd_neutral",
                "bypass",  # both with every other trap in test_arrangements.py
                "electrode_alone",
                "reading_order",  # both in test_earth_readings.py
                "holds_signed",
                "taken_again",
                "stray_reading",
                "instrument_named",
                "instrument_known",
                "instrument_due",
                "instrument_exact",
                "instrument_fits",  # all in test_instruments.py
            }
            | {cell.rule for cell in CELLS}
            | {trial[0] for trial in (*AROUND, *RINGS)}
        )
        for name in (DEVICE_IN_UNIT, TREATED_AS_PME, TT, AT_SURVEY, GARAGE, THREE_PHASE):
            rules = {one.rule for one in evaluation(name).findings}
            self.assertFalse({rule for rule in rules if not rule.startswith(("reading_", "agree_"))} - tested)
