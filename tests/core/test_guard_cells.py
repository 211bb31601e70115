"""A job at, below and above every cell of the table of guards: what each fact does to each rule that leans on it.

Written from `rules.md` §§4, 5, 10, 11 and 12, not from the checks. Where a fact is not known its rule asks.
"""

import copy
import unittest
from typing import Any, NamedTuple

from fulmen.core.findings.finding import Finding, RuleKey, Verdict
from fulmen.core.findings.rules.guard_facts import LEANS_ON, GuardFact, Worse
from tests.jobs import (
    BOX_AT_GARAGE,
    DETECTOR_BOX,
    DEVICE_IN_UNIT,
    GARAGE,
    OPEN_PEN,
    SWITCH,
    THREE_PHASE,
    TT,
    TWO_BEHIND_ONE,
    WIRED_ANEW,
    evaluation,
    in_front,
    mark,
)

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
MA, DELAY, TYPE, POLES, RATING, VOLTS, SHARED = GuardFact
WAY, RCD, INSIDE = "circuits.0.device", "circuits.0.device.rcd", "charge_points.0.rcd_inside"
UNIT: dict[str, Any] = {RCD: None, INSIDE: mark("A"), "charge_points.0.rcd_inside_seen": "yes"}
WITH_INSIDE: dict[str, Any] = {INSIDE: mark("A"), "charge_points.0.rcd_inside_seen": "yes"}
NO_DC: dict[str, Any] = {"charge_points.0.arrangement.rdc_dd": "none"}
# A car on a rod of 190 Ω, and everything before its own RCD in no special insulation.
ISLAND: dict[str, Any] = UNIT | {
    "charge_points.0.arrangement.car_earth": "own_electrode", "charge_points.0.arrangement.electrode_design_ohm": 190.0,
    "charge_points.0.arrangement.insulated_to_rcd": "no", "readings": [],
    "boards.0.incomer": in_front(mark("A", 100)),
}  # fmt: skip
HIDDEN: dict[str, Any] = {
    "circuits.0.cable.record": "nyy-j", "circuits.0.route.0.surroundings": "in_wall",
    "circuits.0.route.0.concealed_under_50_mm": True, "circuits.0.route.0.in_zone": "yes",
}  # fmt: skip
FRONT: dict[str, Any] = {"boards.0.incomer": in_front(mark("A")), "boards.0.others": "freezer"}
PEN_BEFORE: dict[str, Any] = {
    "charge_points.0.arrangement.open_pen": "separate_device",
    "boards.0.incomer": [
        SWITCH,
        {"id": "pen", "kind": "open_pen_device", "rating_a": 100.0, "poles": 2, "open_pen": OPEN_PEN},
    ],
}
IN_A_WALL: dict[str, Any] = {
    "supply.tails.0.csa_mm2": 16.0, "supply.tails.0.runs": "insulated_wall", "supply.maximum_demand_a": None,
}  # fmt: skip
FLEX: dict[str, Any] = {
    "charge_points.0.flex_tail": True, "charge_points.0.flex_csa_mm2": 6.0, "charge_points.0.flex_length_m": 2.0,
    "charge_points.0.max_current_a": 32.0, "charge_points.0.device_max_a": 40.0,
}  # fmt: skip
GROUP = "boards.1.groups.0"
TWO_GROUPS = [
    {"id": "garage-rcd", "name": "RCD side", "feeds_others": "yes",
     "guards": [{"id": "garage-rccb", "kind": "rccb", "rating_a": 40.0, "poles": 2, "rcd": mark("A")}]},
    {"id": "other-side", "name": "Other side", "guards": []},
]  # fmt: skip


class Cell(NamedTuple):
    """One cell: the rule, the fact, a job, where the fact stands, and what the rule then says (None: nothing)."""

    rule: str
    fact: GuardFact
    on: str
    base: dict[str, Any]
    field: str
    told: dict[Any, Verdict | None]


CELLS = (
    Cell("own_rcd", MA, DEVICE_IN_UNIT, {}, f"{RCD}.residual_ma", {10: MEETS, 30: MEETS, 100: SHORT}),
    Cell("own_rcd", DELAY, DEVICE_IN_UNIT, {}, f"{RCD}.time_delayed", {False: MEETS, True: SHORT}),
    Cell("own_rcd", POLES, DEVICE_IN_UNIT, {}, f"{RCD}.switches_neutral", {True: MEETS, False: SHORT}),
    Cell("own_rcd", POLES, DEVICE_IN_UNIT, {}, f"{WAY}.poles", {1: SHORT, 2: MEETS, None: MEETS}),
    # A two-pole RCBO on three phases leaves lines and neutral closed; four open all that passes.
    Cell("own_rcd", POLES, THREE_PHASE, {}, "circuits.1.device.poles", {2: SHORT, 3: SHORT, 4: MEETS, None: NEEDS}),
    Cell("own_rcd", SHARED, DEVICE_IN_UNIT, FRONT | {RCD: None}, "boards.0.feeds_others",
         {"no": MEETS, "yes": CALL, "not_seen": NEEDS}),
    # Two charge points behind one RCD, and none of their own: that falls short.
    Cell("own_rcd", SHARED, TWO_BEHIND_ONE,
         {"boards.1.incomer.0": {"id": "both", "kind": "rccb", "rcd": mark("A"), "poles": 4, "rating_a": 63.0,
                                 "voltage_v": 400},
          "charge_points.0.rcd_inside": None, "charge_points.0.rcd_inside_seen": "no",
          "charge_points.1.rcd_inside": None, "charge_points.1.rcd_inside_seen": "no"},
         "boards.1.feeds_others", {"no": SHORT, "yes": SHORT}),
    Cell("rcd_at_board", MA, DEVICE_IN_UNIT, WITH_INSIDE, f"{RCD}.residual_ma", {30: MEETS, 100: CALL}),
    Cell("rcd_at_board", DELAY, DEVICE_IN_UNIT, WITH_INSIDE, f"{RCD}.time_delayed",
         {False: MEETS, True: CALL}),
    Cell("rcd_neutral", POLES, DEVICE_IN_UNIT, {}, f"{WAY}.poles", {1: SHORT, 2: MEETS}),
    Cell("rcd_neutral", POLES, THREE_PHASE, {}, "circuits.1.device.poles", {3: SHORT, 4: MEETS, None: NEEDS}),
    Cell("dc_protection", TYPE, DEVICE_IN_UNIT, NO_DC, f"{RCD}.type", {"A": SHORT, "F": SHORT, "B": MEETS}),
    Cell("dc_protection", MA, DEVICE_IN_UNIT, NO_DC | {RCD: mark("B")}, f"{RCD}.residual_ma",
         {10: MEETS, 30: MEETS, 100: SHORT}),
    Cell("dc_protection", DELAY, DEVICE_IN_UNIT, NO_DC | {RCD: mark("B")}, f"{RCD}.time_delayed",
         {False: MEETS, True: SHORT}),
    Cell("dc_protection", SHARED, DEVICE_IN_UNIT, NO_DC | {RCD: None, "boards.0.incomer": in_front(mark("B"))},
         "boards.0.feeds_others", {"no": MEETS, "yes": SHORT}),
    Cell("rcd_blinding", TYPE, DEVICE_IN_UNIT, {}, f"{RCD}.type", {"AC": SHORT, "A": MEETS, "B": MEETS}),
    # The same fact pulls the other way: a Type B alone lets pass what blinds the Type A before it.
    Cell("rcd_blinding", TYPE, DEVICE_IN_UNIT, FRONT | NO_DC, f"{RCD}.type", {"A": MEETS, "B": SHORT}),
    Cell("dc_sum", TYPE, TWO_BEHIND_ONE,
         {"boards.1.incomer.0": {"id": "both", "kind": "rccb", "rcd": mark("A"), "poles": 4, "rating_a": 63.0}},
         "boards.1.incomer.0.rcd.type", {"AC": SHORT, "A": SHORT, "F": SHORT, "B": None}),
    Cell("goes_off", SHARED, DEVICE_IN_UNIT, FRONT, "boards.0.feeds_others",
         {"no": None, "yes": MEETS, "not_seen": NEEDS}),
    # S, and at least three times the residual current behind it: then nobody goes off with it (536.4.1.4).
    Cell("goes_off", DELAY, DEVICE_IN_UNIT, {"boards.0.incomer": in_front(mark("A", 100)),
                                             "boards.0.others": "freezer"},
         "boards.0.incomer.1.rcd.time_delayed", {False: MEETS, True: None}),
    Cell("goes_off", MA, DEVICE_IN_UNIT, {"boards.0.incomer": in_front(mark("A", delayed=True)),
                                          "boards.0.others": "freezer"},
         "boards.0.incomer.1.rcd.residual_ma", {30: MEETS, 100: None}),
    Cell("rcd_mark", MA, TT, {}, "boards.0.incomer.1.rcd.residual_ma", {30: NEEDS, 100: None}),
    Cell("rcd_mark", DELAY, DEVICE_IN_UNIT, {}, f"{RCD}.time_delayed", {False: None, True: NEEDS}),
    # 0.3 A through 167 Ω are 50.1 V.
    Cell("electrode_touch", MA, TT, {"supply.electrode_design_ohm": 167.0, "readings": [], "decisions": []},
         "boards.0.incomer.1.rcd.residual_ma", {100: CALL, 300: SHORT}),
    Cell("electrode_touch", SHARED, DEVICE_IN_UNIT,
         ISLAND | {INSIDE: None, "boards.0.incomer": in_front(mark("A", 300))},
         "boards.0.feeds_others", {"no": SHORT, "yes": NEEDS}),
    Cell("disconnection", MA, TT, {"supply.electrode_design_ohm": 150.0, "readings": [], "boards.0.incomer": [SWITCH]},
         f"{RCD}.residual_ma", {30: MEETS, 100: MEETS, 300: SHORT}),
    Cell("disconnection", DELAY, TT, {"boards.0.incomer": [SWITCH]}, f"{RCD}.time_delayed", {False: MEETS, True: SHORT}),
    Cell("disconnection", RATING, DEVICE_IN_UNIT,
         {RCD: None, "supply.ze_enquiry_ohm": 0.90, "readings": [], f"{WAY}.curve": "B"},
         f"{WAY}.rating_a", {32: MEETS, 63: SHORT}),
    # 190 Ω: 19 V at 100 mA, 57 V at 300 mA, 95 V at 500 mA; a delayed one is too slow for a final circuit.
    Cell("island_rcd", MA, DEVICE_IN_UNIT, ISLAND, "boards.0.incomer.1.rcd.residual_ma",
         {30: MEETS, 100: MEETS, 300: SHORT, 500: SHORT}),
    Cell("island_rcd", DELAY, DEVICE_IN_UNIT, ISLAND, "boards.0.incomer.1.rcd.time_delayed", {False: MEETS, True: SHORT}),
    Cell("tt_origin_rcd", DELAY, TT, {}, "boards.0.incomer.1.rcd.time_delayed", {True: MEETS, False: CALL}),
    Cell("tt_origin_rcd", POLES, TT, {}, "boards.0.incomer.1.poles", {1: SHORT, 2: MEETS, None: MEETS}),
    Cell("tt_origin_rcd", POLES, TT, {"supply.phases": 3}, "boards.0.incomer.1.poles",
         {2: SHORT, 3: SHORT, 4: MEETS, None: NEEDS}),
    Cell("maker_rcd", TYPE, DEVICE_IN_UNIT, {"charge_points.0.upstream_rcd": "F"}, f"{RCD}.type",
         {"A": SHORT, "F": MEETS, "B": MEETS}),
    Cell("maker_rcd", MA, DEVICE_IN_UNIT, {"charge_points.0.upstream_rcd": "A"}, f"{RCD}.residual_ma",
         {30: MEETS, 100: SHORT}),
    Cell("maker_rcd", DELAY, DEVICE_IN_UNIT, {"charge_points.0.upstream_rcd": "A"}, f"{RCD}.time_delayed",
         {False: MEETS, True: SHORT}),
    Cell("maker_rcd", SHARED, DEVICE_IN_UNIT, FRONT | {RCD: None, "charge_points.0.upstream_rcd": "A"},
         "boards.0.feeds_others", {"no": MEETS, "yes": CALL, "not_seen": NEEDS}),
    Cell("new_board_rcd", MA, GARAGE, {}, f"{GROUP}.guards.0.rcd.residual_ma", {30: MEETS, 100: SHORT}),
    Cell("new_board_rcd", DELAY, GARAGE, {}, f"{GROUP}.guards.0.rcd.time_delayed", {False: MEETS, True: SHORT}),
    Cell("new_board_rcd", SHARED, GARAGE, {}, f"{GROUP}.feeds_others", {"yes": MEETS, "no": SHORT, "not_seen": NEEDS}),
    # One group with an RCD does not let every group of a new board meet.
    Cell("new_board_rcd", SHARED, GARAGE, {"boards.1.groups": TWO_GROUPS},
         "boards.1.groups.1.feeds_others", {"no": MEETS, "yes": SHORT, "not_seen": NEEDS}),
    Cell("loads_rcd", MA, WIRED_ANEW, {}, "circuits.2.device.rcd.residual_ma", {30: MEETS, 100: SHORT}),
    Cell("loads_rcd", DELAY, WIRED_ANEW, {}, "circuits.2.device.rcd.time_delayed", {False: MEETS, True: SHORT}),
    Cell("concealed_cable", MA, DEVICE_IN_UNIT, HIDDEN, f"{RCD}.residual_ma", {30: MEETS, 100: SHORT}),
    Cell("concealed_cable", DELAY, DEVICE_IN_UNIT, HIDDEN, f"{RCD}.time_delayed", {False: MEETS, True: SHORT}),
    Cell("open_pen", POLES, DEVICE_IN_UNIT, PEN_BEFORE, "boards.0.incomer.1.poles", {1: SHORT, 2: MEETS, None: NEEDS}),
    Cell("open_pen", POLES, TWO_BEHIND_ONE, {}, "boards.1.incomer.0.poles", {2: SHORT, 3: SHORT, 4: MEETS, None: NEEDS}),
    Cell("open_pen", POLES, DEVICE_IN_UNIT, {}, "charge_points.0.open_pen_opens_live",
         {"yes": MEETS, "no": SHORT, "not_seen": NEEDS}),
    Cell("survives_fault", RATING, DEVICE_IN_UNIT, 
         {"circuits.0.cable.record": "twin-and-earth", "circuits.0.cable.csa_mm2": 2.5, f"{WAY}.curve": "C"},
         f"{WAY}.rating_a", {32: MEETS, 100: SHORT}),
    Cell("least_fault", RATING, DEVICE_IN_UNIT, {"supply.ze_enquiry_ohm": 0.60, "readings": []}, f"{WAY}.rating_a",
         {40: MEETS, 80: CALL}),
    # A 32 A open-PEN device behind B40, and before two cars of 32 A each.
    Cell("guard_rating", RATING, DEVICE_IN_UNIT,
         {"circuits.0.boxes": [{"id": "box", "name": "Box", "guards": [{"id": "pen", "kind": "open_pen_device"}]}],
          f"{WAY}.rating_a": 40},
         "circuits.0.boxes.0.guards.0.rating_a", {32.0: SHORT, 40.0: MEETS, 63.0: MEETS, None: NEEDS}),
    Cell("guard_rating", RATING, TWO_BEHIND_ONE, {}, "boards.1.incomer.0.rating_a", {32.0: SHORT, 63.0: MEETS}),
    Cell("guard_rating", RATING, DEVICE_IN_UNIT, {"circuits.0.boxes": [DETECTOR_BOX], f"{WAY}.rating_a": 40},
         "circuits.0.boxes.0.guards.0.rating_a", {32.0: SHORT, 40.0: MEETS}),
    Cell("guard_rating", SHARED, DEVICE_IN_UNIT, {"boards.0.incomer.0.rating_a": 63.0}, "boards.0.feeds_others",
         {"no": MEETS, "yes": SHORT}),
    Cell("guard_poles", POLES, BOX_AT_GARAGE, {}, "boards.1.incomer.0.poles", {1: SHORT, 2: MEETS, None: NEEDS}),
    Cell("guard_poles", POLES, DEVICE_IN_UNIT, {"circuits.0.boxes": [DETECTOR_BOX]},
         "circuits.0.boxes.0.guards.0.poles", {1: SHORT, 2: MEETS, None: NEEDS}),
    Cell("guard_poles", POLES, THREE_PHASE, {}, "circuits.1.device.poles", {1: SHORT, 2: SHORT, 3: MEETS, None: NEEDS}),
    Cell("guard_voltage", VOLTS, THREE_PHASE, {}, "boards.0.incomer.0.voltage_v", {230: SHORT, 400: MEETS, None: NEEDS}),
    Cell("guard_voltage", VOLTS, THREE_PHASE, {}, "circuits.1.device.voltage_v", {230: SHORT, 400: MEETS, None: NEEDS}),
    Cell("guard_voltage", VOLTS, DEVICE_IN_UNIT, {}, "boards.0.incomer.0.voltage_v", {230: None, 400: None, None: None}),
    Cell("contradiction", POLES, DEVICE_IN_UNIT, {}, f"{WAY}.poles", {1: NEEDS, 2: None}),
    Cell("main_switch_poles", POLES, DEVICE_IN_UNIT, {}, "boards.0.incomer.0.poles", {1: SHORT, 2: MEETS, None: NEEDS}),
    Cell("demand_main_switch", RATING, DEVICE_IN_UNIT, {"supply.maximum_demand_a": 74.0}, "boards.0.incomer.0.rating_a",
         {63.0: SHORT, 80.0: MEETS}),
    Cell("selectivity", RATING, GARAGE, {}, "circuits.0.device.rating_a", {32: CALL, 63: MEETS}),
    Cell("load_on_device", RATING, DEVICE_IN_UNIT, {}, f"{WAY}.rating_a", {25: SHORT, 32: MEETS, 40: MEETS}),
    Cell("weakest_section", RATING, DEVICE_IN_UNIT, {"circuits.0.cable.csa_mm2": 4.0}, f"{WAY}.rating_a",
         {32: MEETS, 63: SHORT}),
    Cell("ring_final", RATING, WIRED_ANEW, {"circuits.2.ring": True}, "circuits.2.device.rating_a",
         {20: MEETS, 32: MEETS, 40: SHORT}),
    # No table holds a fuse above 100 A: its maker is asked.
    Cell("device_kind", RATING, THREE_PHASE, {}, "circuits.0.device.rating_a", {80: None, 100: None, 125: NEEDS}),
    # 16 mm² in an insulated wall, 61 A: what the devices behind it let flow.
    Cell("tails_capacity", RATING, DEVICE_IN_UNIT, IN_A_WALL | {"boards.0.feeds_others": "no"}, f"{WAY}.rating_a",
         {50: MEETS, 63: SHORT}),
    Cell("tails_capacity", SHARED, DEVICE_IN_UNIT, IN_A_WALL, "boards.0.feeds_others",
         {"no": MEETS, "yes": SHORT, "not_seen": SHORT}),
    Cell("smooth_dc", TYPE, DEVICE_IN_UNIT, FRONT | {"boards.0.smooth_dc": "yes"}, "boards.0.incomer.1.rcd.type",
         {"A": SHORT, "B": None}),
    Cell("smooth_dc", DELAY, DEVICE_IN_UNIT, FRONT | {"boards.0.smooth_dc": "yes"}, "boards.0.incomer.1.rcd.time_delayed",
         {False: SHORT, True: None}),
    Cell("smooth_dc", SHARED, DEVICE_IN_UNIT, FRONT | {"boards.0.smooth_dc": "yes"}, "boards.0.feeds_others",
         {"yes": SHORT, "no": None}),
    Cell("leakage", MA, DEVICE_IN_UNIT, FRONT | {"boards.0.leakage_ma": 9.1}, "boards.0.incomer.1.rcd.residual_ma",
         {30: SHORT, 100: MEETS}),
    Cell("leakage", DELAY, DEVICE_IN_UNIT, FRONT | {"boards.0.leakage_ma": 9.1}, "boards.0.incomer.1.rcd.time_delayed",
         {False: SHORT, True: None}),
    Cell("leakage", SHARED, DEVICE_IN_UNIT, FRONT | {"boards.0.leakage_ma": 9.1}, "boards.0.feeds_others",
         {"yes": SHORT, "no": None}),
    Cell("board_diversity", RATING, THREE_PHASE, {"boards.1.diversity_factor": 0.8}, "circuits.2.device.rating_a",
         {32: SHORT, 40: MEETS, 63: MEETS}),
    Cell("flex_rating", RATING, DEVICE_IN_UNIT, FLEX, f"{WAY}.rating_a", {32: MEETS, 40: MEETS, 50: SHORT}),
    Cell("flex_survives", RATING, DEVICE_IN_UNIT,
         FLEX | {"charge_points.0.flex_csa_mm2": 2.5, f"{WAY}.kind": "fuse"}, f"{WAY}.rating_a",
         {32: MEETS, 63: SHORT}),
    Cell("maker_device", RATING, DEVICE_IN_UNIT, {}, f"{WAY}.rating_a", {25: SHORT, 32: MEETS, 40: CALL, 50: SHORT}),
)  # fmt: skip
# Where a fact moves a figure and no limit of it is near: shown by the figure.
MOVES = {("volt_drop", SHARED), ("volt_drop_lighting", SHARED)}
WORST = (MEETS, CALL, NEEDS, SHORT)


def at_it(cell: Cell, value: object) -> list[Finding]:
    changes = {"decisions": [], **copy.deepcopy(cell.base), cell.field: value}
    return [one for one in evaluation(cell.on, changes).findings if one.rule == cell.rule]


class Cells(unittest.TestCase):
    def test_each_verdict_follows_from_the_fact(self) -> None:
        for cell in CELLS:
            for value, verdict in cell.told.items():
                with self.subTest(cell.rule, fact=cell.fact.value, on=cell.on, field=cell.field, value=value):
                    found = at_it(cell, value)
                    worst = max((one.verdict for one in found), key=WORST.index, default=None)
                    self.assertEqual(worst, verdict, "; ".join(f"{one.key}: {one.detail}" for one in found))

    def test_every_cell_of_the_table_has_a_job_on_both_sides(self) -> None:
        told = {(RuleKey(cell.rule), cell.fact) for cell in CELLS if len(set(cell.told.values())) > 1}
        leaned = {
            (rule, fact) for rule, row in LEANS_ON.items() for fact, cell in row.items() if isinstance(cell, Worse)
        }
        self.assertEqual(leaned - told - MOVES, set())


if __name__ == "__main__":
    unittest.main()
