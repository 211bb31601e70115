"""Boards on the way: those further on ask where they are entered; what is there already is neither bought nor varied."""

import unittest
from typing import Any

from fulmen.core.alternatives.search.search import search
from fulmen.core.editing.changes import apply_changes
from fulmen.core.editing.layouts import layouts
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Stage, Verdict
from fulmen.core.installation.installation import installation_of
from fulmen.core.materials.materials import materials
from fulmen.core.materials.prices import invented_prices
from fulmen.core.reference.cable_catalogue import cable_of
from tests.core.test_tree_editing import beside
from tests.jobs import DEVICE_IN_UNIT, GARAGE, PROOF, RULES, THREE_PHASE, evaluation, job, mark

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
FOUND = {"boards.1.fitted_with_this_job": False, "circuits.0.fitted_with_this_job": False}
BLANK = {
    "boards.1.make_up": "not_seen", "boards.1.spare_ways": None, "boards.1.looked_inside": "not_seen",
    "boards.1.enclosure": "not_seen", "boards.1.front_rcd_seen": "not_seen",
}  # fmt: skip
FURTHER_ON: list[tuple[str, dict[str, Any], Verdict]] = [
    ("board_make_up", {"make_up": "not_seen"}, NEEDS),
    ("board_make_up", {"make_up": "rewirable"}, SHORT),
    ("spare_way", {"spare_ways": None}, NEEDS),
    ("spare_way", {"spare_ways": 0}, SHORT),
    ("spare_way", {"spare_ways": 1}, MEETS),
    ("looked_inside", {"looked_inside": "not_seen"}, NEEDS),
    ("board_labels", {"labels_complete": "no"}, CALL),
    ("board_case", {"enclosure": "not_seen"}, NEEDS),
    ("board_case", {"enclosure": "plastic"}, CALL),
    ("front_rcd", {"front_rcd_seen": "yes"}, NEEDS),
]


class FurtherOn(unittest.TestCase):
    def test_a_garage_board_that_was_there_asks_at_the_design(self) -> None:
        for rule, changes, verdict in FURTHER_ON:
            with self.subTest(rule, **changes):
                told = evaluation(GARAGE, FOUND | {f"boards.1.{name}": value for name, value in changes.items()})
                found = next(one for one in told.findings if one.key == f"{rule}/garage")
                self.assertEqual((found.verdict, found.stage), (verdict, Stage.DESIGN))

    def test_the_walk_does_not_show_what_it_cannot_ask(self) -> None:
        told = evaluation(GARAGE, FOUND | BLANK)
        at_stops = {key for stop in told.stops for key in stop.findings}
        self.assertIn("board_case/board", at_stops)
        self.assertFalse([key for key in at_stops if key.endswith("/garage")])

    def test_at_the_origin_the_survey_asks(self) -> None:
        for rule, change in (("looked_inside", {"boards.0.looked_inside": "not_seen"}),
                             ("front_rcd", {"boards.0.front_rcd_seen": "not_seen"})):  # fmt: skip
            found = next(one for one in evaluation(GARAGE, change).findings if one.key == f"{rule}/board")
            self.assertEqual((found.verdict, found.stage), (NEEDS, Stage.SURVEY))

    def test_the_board_of_the_second_run_is_asked_for_too(self) -> None:
        own = {"boards.1.fitted_with_this_job": False, "boards.1.looked_inside": "not_seen"}
        charge_points = job(THREE_PHASE).charge_points
        swapped = {"charge_points": [one.model_dump(mode="json") for one in reversed(charge_points)]}
        for changes in (own, own | swapped):
            keys = [one.key for one in evaluation(THREE_PHASE, changes).findings if one.verdict is NEEDS]
            self.assertIn("looked_inside/yard", keys)


class WaysWanted(unittest.TestCase):
    def test_every_new_circuit_wants_a_way(self) -> None:
        two = beside(job(), "charge-point")
        for spare, verdict in ((1, SHORT), (2, MEETS), (3, MEETS)):
            whole = two.model_copy(update={"boards": (two.boards[0].model_copy(update={"spare_ways": spare}),)})
            with self.subTest(spare=spare):
                found = next(one for one in evaluate(whole, RULES).findings if one.rule == "spare_way")
                self.assertEqual((found.verdict, found.limit), (verdict, 2.0))

    def test_a_sub_main_that_is_there_wants_none(self) -> None:
        full = {"boards.0.spare_ways": 0, "boards.0.make_up": "not_seen"}
        rules = {one.key: one.verdict for one in evaluation(GARAGE, full | FOUND).findings}
        self.assertEqual(rules["spare_way/board"], MEETS)
        self.assertNotIn("board_make_up/board", rules)
        self.assertEqual(rules["spare_way/garage"], MEETS)
        new = {one.key: one.verdict for one in evaluation(GARAGE, full).findings}
        self.assertEqual((new["spare_way/board"], new["board_make_up/board"]), (SHORT, NEEDS))


class ThereAlready(unittest.TestCase):
    def test_it_is_judged_like_any_other(self) -> None:
        keys = {one.key for one in evaluation(GARAGE).findings if one.subject == "sub-main"}
        self.assertGreater(len(keys), 5)
        seen = FOUND | {"circuits.0.looked_at": "yes"}
        found = {one.key for one in evaluation(GARAGE, seen).findings if one.subject == "sub-main"}
        self.assertEqual(found - {"existing_circuit/sub-main", "stays_connected/sub-main"}, keys)

    def test_nothing_of_it_meets_before_somebody_looked(self) -> None:
        for looked in ("not_seen", "no"):
            found = evaluation(GARAGE, FOUND | {"circuits.0.looked_at": looked}).findings
            own = {one.key: one.verdict for one in found if one.subject.startswith("sub-main")}
            self.assertIs(own["existing_circuit/sub-main"], NEEDS)
            self.assertNotIn(MEETS, own.values())
        # What falls short stays: a device that is too small is too small, whoever looked.
        small = FOUND | {"circuits.0.device.rating_a": 20}
        verdicts = {one.rule: one.verdict for one in evaluation(GARAGE, small).findings if one.subject == "sub-main"}
        self.assertIs(verdicts["load_on_device"], SHORT)

    def test_it_is_not_bought(self) -> None:
        need = {one.key: one.quantity for one in materials(job(GARAGE, FOUND))}
        for key in ("fused-switch", "board.small", "trench", "cable.swa-3-core.10"):
            self.assertNotIn(key, need)
        self.assertEqual(need["rcbo.a"], 1)

    def test_it_is_not_varied(self) -> None:
        new, found = job(GARAGE), job(GARAGE, FOUND)
        self.assertIn("direct from Consumer unit", layout_words(job(GARAGE, {"boards.1.other_loads": []})))
        self.assertTrue(all(one.startswith("through Garage board") for one in layout_words(found)))
        tried = search(found, "charge-point", RULES, invented_prices())
        self.assertLess(tried.tried, search(new, "charge-point", RULES, invented_prices()).tried)
        self.assertGreater(tried.held, 0)
        for way in tried.few:
            taken = apply_changes(found, way.changes)
            self.assertEqual(taken.circuits[0], found.circuits[0])
        self.assertEqual(cable_of(found.circuits[0], found.circuits[0].route[0]).csa_mm2, 10)

    def test_a_final_circuit_that_is_there_keeps_its_layout(self) -> None:
        there = job(DEVICE_IN_UNIT, {"circuits.0.fitted_with_this_job": False})
        self.assertEqual(layout_words(there), ["from Consumer unit"])
        twin = beside(there, "charge-point")
        self.assertTrue(twin.circuits[1].fitted_with_this_job)


def layout_words(whole: Any) -> list[str]:
    return [one.words for one in layouts(installation_of(whole), "charge-point")]


class Clamps(unittest.TestCase):
    def test_every_unit_behind_a_limit_must_follow_its_clamp(self) -> None:
        own = {
            "charge_points.1.current_clamp": "no",
            "charge_points.0.clamp_proof": PROOF | {"known_load_a": 46.0, "shown_with_a": 50.0, "offered_with_a": 10.0},
        }
        for limit in ("supply.load_limit_a", "circuits.0.load_limit_a"):
            found = {one.key: one.verdict for one in evaluation(THREE_PHASE, own | {limit: 60.0}).findings}
            circuits = [circuit.id for circuit in job(THREE_PHASE).circuits[1:]]
            with self.subTest(limit):
                self.assertEqual([found[f"load_clamp/{one}"] for one in circuits], [MEETS, SHORT])
        self.assertNotIn("load_clamp", {one.rule for one in evaluation(THREE_PHASE, own).findings})


class Whose(unittest.TestCase):
    def test_where_there_are_several_a_finding_names_whose_it_is(self) -> None:
        found = {one.key: one.whose for one in evaluation(GARAGE).findings}
        self.assertEqual(found["board_case/garage"], "Garage board")
        self.assertEqual(found["board_case/board"], "Consumer unit")
        self.assertEqual(found["depth/sub-main-4"], "Sub-main to the garage")
        self.assertEqual(found["exported_earth/garage"], "", "its title names it")
        self.assertEqual({one.whose for one in evaluation(DEVICE_IN_UNIT).findings}, {""})


class RcdOfASubMain(unittest.TestCase):
    def test_it_stands_before_the_car_like_any_other(self) -> None:
        for kind, verdict in (("AC", SHORT), ("A", MEETS)):
            found = {one.key: one for one in evaluation(GARAGE, {"circuits.0.device.rcd": mark(kind)}).findings}
            self.assertEqual(found["rcd_blinding/ev"].verdict, verdict)

    def test_on_tt_the_electrode_serves_the_least_sensitive_one_on_the_way(self) -> None:
        touch = {}
        for milliamps in (30, 100, 500):
            changes = {"supply.earthing": "tt", "circuits.0.device.rcd": mark("A", milliamps)}
            found = {
                one.rule: one for one in evaluation(GARAGE, changes | {"supply.electrode_design_ohm": 120.0}).findings
            }
            touch[milliamps] = (found["electrode_touch"].value, found["electrode_touch"].verdict)
        self.assertEqual(touch, {30: (120 * 0.03, MEETS), 100: (120 * 0.1, MEETS), 500: (120 * 0.5, SHORT)})


class SeveralRuns(unittest.TestCase):
    def test_of_what_two_runs_say_of_one_thing_the_worst_counts(self) -> None:
        # Both runs stand on the TT electrode of 120 Ω; one has a 500 mA RCD beside its own, whichever comes first.
        tt = {"supply.earthing": "tt", "supply.electrode_design_ohm": 120.0}
        for place in (0, 1):
            wide = {f"charge_points.{place}.rcd_inside": mark("A", 500)}
            found = {one.key: one.verdict for one in evaluation(THREE_PHASE, tt | wide).findings}
            with self.subTest(place):
                self.assertEqual(found["electrode_touch/origin"], SHORT)
        narrow = {one.key: one.verdict for one in evaluation(THREE_PHASE, tt).findings}
        self.assertEqual(narrow["electrode_touch/origin"], MEETS)
