"""What is asked once where it is seen: place, dwelling, makers of boards, what hangs behind a shared RCD.

Clauses of BS 7671:2018+A2:2022, from memory; planning, gas and accessible heights are common practice, no source.
"""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from tests.jobs import DEVICE_IN_UNIT, GARAGE, OWN_BOARD, THREE_PHASE, TT, evaluation, in_front, mark

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
UNIT, BOARD = "charge_points.0", "boards.0"
FRONT: dict[str, Any] = {f"{BOARD}.incomer": in_front(mark("A")), f"{BOARD}.others": "freezer"}
WATCHES: dict[str, Any] = {f"{UNIT}.open_pen_device.sensing": "met_voltage"}
FOUND: dict[str, Any] = {"circuits.0.fitted_with_this_job": False}

SOLAR: dict[str, Any] = {"supply.own_generation": "yes"}


def source(**more: Any) -> dict[str, Any]:
    """One source of 16 A at the house's board, that stops with the network; and what else is said of it."""
    told = {"kind": "solar", "board": "board", "feeds_a": 16.0, "runs_alone": "no", "own_earth": "not_seen"}
    return SOLAR | {"supply.sources": [told | more]}


# Rule, job, what is said, the worst verdict of that rule (None: not asked).
TRIALS: tuple[tuple[str, str, dict[str, Any], Verdict | None], ...] = (
    ("nearby", DEVICE_IN_UNIT, {f"{UNIT}.nearby": None}, NEEDS),
    ("nearby", DEVICE_IN_UNIT, {f"{UNIT}.nearby": []}, None),
    ("nearby", DEVICE_IN_UNIT, {f"{UNIT}.nearby": ["pool"]}, CALL),
    ("nearby", DEVICE_IN_UNIT, {f"{UNIT}.nearby": ["caravan"]}, CALL),
    ("nearby", DEVICE_IN_UNIT, {f"{UNIT}.nearby": ["wheels"]}, CALL),
    ("nearby", DEVICE_IN_UNIT, {f"{UNIT}.nearby": ["highway"]}, CALL),
    ("nearby", DEVICE_IN_UNIT, {f"{UNIT}.nearby": ["gas"]}, SHORT),
    ("circumstance", DEVICE_IN_UNIT, {"site.circumstances": None}, NEEDS),
    ("circumstance", DEVICE_IN_UNIT, {"site.circumstances": []}, None),
    ("circumstance", DEVICE_IN_UNIT, {"site.circumstances": ["listed"]}, CALL),
    ("circumstance", DEVICE_IN_UNIT, {"site.circumstances": ["leasehold"]}, CALL),
    ("building_control", DEVICE_IN_UNIT, {"site.nation": "not_seen"}, NEEDS),
    ("building_control", DEVICE_IN_UNIT, {"site.nation": "england_wales"}, MEETS),
    ("building_control", DEVICE_IN_UNIT, {"site.nation": "scotland"}, CALL),
    ("building_control", DEVICE_IN_UNIT, {"site.nation": "northern_ireland"}, CALL),
    ("locks_off", DEVICE_IN_UNIT, {f"{UNIT}.locks_off": "not_seen"}, NEEDS),
    ("locks_off", DEVICE_IN_UNIT, {f"{UNIT}.locks_off": "no"}, SHORT),
    ("locks_off", DEVICE_IN_UNIT, {f"{UNIT}.locks_off": "yes"}, None),
    ("old_place", DEVICE_IN_UNIT, {}, None),
    ("old_place", DEVICE_IN_UNIT, {"site.work": "moved"}, NEEDS),
    ("old_place", DEVICE_IN_UNIT, {"site.work": "moved", "site.old_place": "no"}, SHORT),
    ("old_place", DEVICE_IN_UNIT, {"site.work": "moved", "site.old_place": "yes"}, MEETS),
    # Who sits reaches 0.75 to 1.2 m; who stands 0.5 to 1.5 m.
    ("connector_height", DEVICE_IN_UNIT, {f"{UNIT}.connector_height_m": 1.3}, MEETS),
    *(
        ("connector_height", DEVICE_IN_UNIT,
         {"site.circumstances": ["wheelchair"], f"{UNIT}.connector_height_m": height_m}, verdict)
        for height_m, verdict in ((0.74, CALL), (0.75, MEETS), (1.2, MEETS), (1.21, CALL))
    ),
    ("socket", DEVICE_IN_UNIT, {f"{UNIT}.tethered": True}, None),
    ("socket", DEVICE_IN_UNIT, {f"{UNIT}.tethered": False}, NEEDS),
    ("socket", DEVICE_IN_UNIT, {f"{UNIT}.tethered": None}, NEEDS),
    ("socket", DEVICE_IN_UNIT, {f"{UNIT}.tethered": False, f"{UNIT}.socket": "type_2"}, MEETS),
    ("socket", DEVICE_IN_UNIT, {f"{UNIT}.tethered": False, f"{UNIT}.socket": "household"}, CALL),
    ("socket", DEVICE_IN_UNIT, {f"{UNIT}.tethered": False, f"{UNIT}.socket": "other"}, SHORT),
    ("board_devices", DEVICE_IN_UNIT, {f"{BOARD}.devices_allowed": "not_seen"}, NEEDS),
    ("board_devices", DEVICE_IN_UNIT, {f"{BOARD}.devices_allowed": "no"}, SHORT),
    ("board_devices", DEVICE_IN_UNIT, {f"{BOARD}.devices_allowed": "yes"}, MEETS),
    ("board_devices", DEVICE_IN_UNIT, FOUND | {f"{BOARD}.devices_allowed": "not_seen"}, None),
    ("board_diversity", DEVICE_IN_UNIT, {}, None),
    ("board_diversity", THREE_PHASE, {"boards.1.diversity_factor": None}, NEEDS),
    ("board_diversity", THREE_PHASE, {"boards.1.diversity_factor": 0.99}, SHORT),
    ("board_diversity", THREE_PHASE, {"boards.1.diversity_factor": 1.0}, MEETS),
    ("surge_as_made", DEVICE_IN_UNIT, {f"{BOARD}.surge_protection": "no"}, None),
    ("surge_as_made", TT, {f"{BOARD}.surge_protection": "yes", f"{BOARD}.surge_as_made": "not_seen"}, NEEDS),
    ("surge_as_made", TT, {f"{BOARD}.surge_protection": "yes", f"{BOARD}.surge_as_made": "no"}, SHORT),
    ("surge_as_made", TT, {f"{BOARD}.surge_protection": "yes", f"{BOARD}.surge_as_made": "yes"}, MEETS),
    ("circuit_alone", DEVICE_IN_UNIT, {}, None),
    ("circuit_alone", DEVICE_IN_UNIT, FOUND, NEEDS),
    ("circuit_alone", DEVICE_IN_UNIT, FOUND | {"circuits.0.serves_others": "yes"}, SHORT),
    ("circuit_alone", DEVICE_IN_UNIT, FOUND | {"circuits.0.serves_others": "no", "circuits.0.looked_at": "yes"}, MEETS),
    ("smooth_dc", DEVICE_IN_UNIT, {}, None),
    ("smooth_dc", DEVICE_IN_UNIT, FRONT, NEEDS),
    ("smooth_dc", DEVICE_IN_UNIT, FRONT | {f"{BOARD}.smooth_dc": "yes"}, SHORT),
    ("smooth_dc", DEVICE_IN_UNIT, FRONT | {f"{BOARD}.smooth_dc": "no"}, MEETS),
    ("leakage", DEVICE_IN_UNIT, FRONT, NEEDS),
    ("leakage", DEVICE_IN_UNIT, FRONT | {f"{BOARD}.leakage_ma": 8.9}, MEETS),
    ("leakage", DEVICE_IN_UNIT, FRONT | {f"{BOARD}.leakage_ma": 9.0}, MEETS),
    ("leakage", DEVICE_IN_UNIT, FRONT | {f"{BOARD}.leakage_ma": 9.1}, SHORT),
    ("flash_guards", DEVICE_IN_UNIT, {f"{BOARD}.make_up": "rewirable"}, NEEDS),
    ("flash_guards", DEVICE_IN_UNIT, {f"{BOARD}.make_up": "rewirable", f"{BOARD}.flash_guards": "yes"}, MEETS),
    ("flash_guards", DEVICE_IN_UNIT, {}, None),
    ("measuring_electrode", DEVICE_IN_UNIT, {}, None),
    ("measuring_electrode", DEVICE_IN_UNIT, WATCHES | {f"{UNIT}.arrangement.measuring_electrode": "yes"}, MEETS),
    ("measuring_electrode", DEVICE_IN_UNIT, WATCHES, NEEDS),
    ("measuring_electrode", DEVICE_IN_UNIT, WATCHES | {f"{UNIT}.arrangement.measuring_electrode": "no"}, SHORT),
    ("open_pen", DEVICE_IN_UNIT, {f"{UNIT}.open_pen_device.closes_by_hand": False}, SHORT),
    ("open_pen", DEVICE_IN_UNIT, {f"{UNIT}.open_pen_device.closes_by_hand": None}, NEEDS),
    ("source", DEVICE_IN_UNIT, {"supply.own_generation": "no"}, None),
    ("source", DEVICE_IN_UNIT, SOLAR | {"supply.sources": []}, NEEDS),
    ("source", DEVICE_IN_UNIT, source(board=""), NEEDS),
    ("source", DEVICE_IN_UNIT, source(feeds_a=None), NEEDS),
    ("source", DEVICE_IN_UNIT, source(), MEETS),
    ("island_earth", DEVICE_IN_UNIT, source(runs_alone="not_seen"), NEEDS),
    ("island_earth", DEVICE_IN_UNIT, source(), MEETS),
    ("island_earth", DEVICE_IN_UNIT, source(runs_alone="yes"), NEEDS),
    ("island_earth", DEVICE_IN_UNIT, source(runs_alone="yes", own_earth="no"), SHORT),
    ("island_earth", DEVICE_IN_UNIT, source(runs_alone="yes", own_earth="yes"), MEETS),
    # 80 A cut-out and 16 A of the sun: 96 A. A car that gives 32 A back: 112 A.
    ("busbar", DEVICE_IN_UNIT, {}, None),
    ("busbar", DEVICE_IN_UNIT, source(), NEEDS),
    ("busbar", DEVICE_IN_UNIT, source() | {f"{BOARD}.busbar_a": 95.0}, SHORT),
    ("busbar", DEVICE_IN_UNIT, source() | {f"{BOARD}.busbar_a": 96.0}, MEETS),
    ("busbar", DEVICE_IN_UNIT, {f"{UNIT}.feeds_back": "yes", f"{BOARD}.busbar_a": 111.0}, SHORT),
    ("busbar", DEVICE_IN_UNIT, {f"{UNIT}.feeds_back": "yes", f"{BOARD}.busbar_a": 112.0}, MEETS),
    # Behind the sub-main's 40 A it comes in at the garage, and passes the house's board too.
    ("busbar", GARAGE, source(board="garage") | {"boards.1.busbar_a": 100.0}, NEEDS),
    # The sun comes in at the house's board, the car hangs on one of its own.
    ("busbar", OWN_BOARD, source(), NEEDS),
    ("busbar", OWN_BOARD, source() | {f"{BOARD}.busbar_a": 95.0}, SHORT),
    ("busbar", OWN_BOARD, source() | {f"{BOARD}.busbar_a": 96.0}, MEETS),
    ("busbar", GARAGE, source(board="garage") | {"boards.0.busbar_a": 125.0, "boards.1.busbar_a": 100.0}, MEETS),
    # 411.3.1.2 and 544.1.1: metal at a detached building, its sub-main's core 6 mm² where PME does not apply.
    ("exported_earth", GARAGE, {"supply.earthing": "tt", "boards.1.extraneous_parts": "not_seen"}, NEEDS),
    ("exported_earth", GARAGE, {"supply.earthing": "tt", "boards.1.extraneous_parts": "no"}, MEETS),
    ("exported_earth", GARAGE,
     {"supply.earthing": "tt", "boards.1.extraneous_parts": "yes", "circuits.0.cable.csa_mm2": 6.0}, MEETS),
    ("exported_earth", GARAGE,
     {"supply.earthing": "tt", "boards.1.extraneous_parts": "yes", "circuits.0.cable.csa_mm2": 4.0}, SHORT),
)  # fmt: skip
WORST = (MEETS, CALL, NEEDS, SHORT)


class AskedOnce(unittest.TestCase):
    def test_each(self) -> None:
        for rule, on, changes, verdict in TRIALS:
            with self.subTest(rule, on=on, changes=changes):
                if changes.keys() & FOUND.keys():
                    changes = changes | {
                        "circuits.0.serves_others": changes.get("circuits.0.serves_others", "not_seen")
                    }
                found = [one for one in evaluation(on, {"readings": [], **changes}).findings if one.rule == rule]
                worst = max((one.verdict for one in found), key=WORST.index, default=None)
                self.assertEqual(worst, verdict, "; ".join(one.detail for one in found))

    def test_what_is_near_each_unit_is_a_question_of_its_own(self) -> None:
        near = {f"{UNIT}.nearby": ["pool", "gas"], "charge_points.1.nearby": ["wheels"]}
        keys = {one.key for one in evaluation(THREE_PHASE, near).findings if one.rule == "nearby"}
        self.assertEqual(len(keys), 3)
