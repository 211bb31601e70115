"""The options search: every pair counted once, its quick verdict the same as the whole evaluation's."""

import json
import random
import unittest
from functools import cache
from typing import Any

from fulmen.core.alternatives.search.candidates import CableBench, Family, Kinds, families, kinds_to_try
from fulmen.core.alternatives.search.protections import ProtectionBench, protections_to_try
from fulmen.core.alternatives.search.search import SearchResult, search
from fulmen.core.alternatives.search.weighing import AIMS, taken, unbeaten
from fulmen.core.alternatives.search.wiring import wired_ways
from fulmen.core.circuit.circuit_load import circuit_load
from fulmen.core.editing.changes import apply_changes
from fulmen.core.editing.layouts import layouts
from fulmen.core.errors import InputError
from fulmen.core.evaluate import evaluate
from fulmen.core.installation.installation import installation_of
from fulmen.core.judging.known import known_for
from fulmen.core.materials.prices import invented_prices
from fulmen.core.model.job import Job
from fulmen.core.model.route import MAY_BE_OUTDOORS, OUT_OF_DOORS
from fulmen.core.reference.cable_catalogue import cable_of, cable_record, cable_records, cables_for
from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, HALFWAY, RULES, THREE_PHASE, TT, evaluation, job

PRICES = invented_prices()
# What neither cable, device nor arrangement decides is left out of the comparison.
DECIDED_ELSEWHERE = {"spare_way", "board_make_up", "demand", "operator", "looped", "demand_main_switch"}


def result(name: str, changes: dict[str, Any] | None = None, point: str = "charge-point") -> SearchResult:
    return _result(name, json.dumps(changes or {}), point)


@cache
def _result(name: str, changes: str, point: str) -> SearchResult:
    """Each search once: it is the same for the same job."""
    return search(job(name, json.loads(changes)), point, RULES, PRICES)


def short_rules(whole: Job, point: str = "charge-point") -> set[str]:
    """What falls short; the arrangement serves every charge point, but each is judged in its own search."""
    others = {one.id for one in whole.circuits if one.feeds in {each.id for each in whole.charge_points} - {point}}
    found = evaluate(whole, RULES).falls_short()
    return {one.rule for one in found if one.subject not in others} - DECIDED_ELSEWHERE


class QuickVerdict(unittest.TestCase):
    """A sample of pairs, each made a whole job and evaluated: it falls short there exactly where the search says so."""

    def compare(self, name: str, point: str, wanted: int) -> None:
        whole = job(name)
        chance = random.Random(5)
        for layout in layouts(installation_of(whole), point):
            known = known_for(layout.job, RULES)
            bench = ProtectionBench(layout, protections_to_try(layout.job, layout.run), known)
            ways = [one for one in wired_ways(layout, known) if len(one.chain) == len(layout.run.chain)]
            for wired in chance.sample(ways, min(wanted, len(ways))):
                judged = chance.choice(bench.judged(layout.run.final().circuit, wired.kinds[-1]))
                no_rcd = wired.wants_rcd and judged.protection.rcd is None
                holds = wired.short is None and judged.short is None and not no_rcd
                with self.subTest(name, layout=layout.words, wired=wired.short, judged=judged.short):
                    self.assertEqual(not short_rules(taken(wired, judged), point), holds)

    def test_straight_from_the_board_and_through_a_sub_main(self) -> None:
        self.compare(DEVICE_IN_UNIT, "charge-point", 40)

    def test_a_garage(self) -> None:
        self.compare(GARAGE, "charge-point", 60)

    def test_tt(self) -> None:
        self.compare(TT, "charge-point", 40)

    def test_three_phases(self) -> None:
        self.compare(THREE_PHASE, "right", 60)


class Result(unittest.TestCase):
    def test_more_than_ten_thousand_ways_each_counted_once(self) -> None:
        found = result(DEVICE_IN_UNIT)
        self.assertGreaterEqual(found.tried, 10_000)
        self.assertEqual(sum(one.tried for one in found.sizes), found.tried)
        self.assertEqual(sum(one.held for one in found.sizes), found.held)
        self.assertLessEqual(sum(one.times for one in found.reasons), found.tried - found.held)
        times = [one.times for one in found.reasons]
        self.assertEqual(times, sorted(times, reverse=True))

    def test_only_what_a_good_designer_would_accept_is_proposed(self) -> None:
        """No 25 mm² before one unit's device, no board just before the car, one joint, nothing outdoors that may not be."""
        for name in (DEVICE_IN_UNIT, GARAGE, TT, HALFWAY):
            now = job(name)
            for way in result(name).few:
                then = apply_changes(now, way.changes)
                final = next(one for one in then.circuits if one.feeds == "charge-point")
                with self.subTest(name=name, way=way.cable, layout=way.layout):
                    if final.device.rating_a <= 40:
                        self.assertLessEqual(max(cable_of(final, one).csa_mm2 for one in final.route), 16)
                    self.assertLessEqual(
                        way.joints, max(1, next(each.joints for each in result(name).few if each.standing))
                    )
                    if len(then.boards) > len(now.boards) and "sub-main" in way.layout:
                        self.assertGreaterEqual(sum(one.length_m for one in final.route), 3)
                    for section in final.route:
                        record = cable_record(cable_records(), cable_of(final, section).record)
                        outside = section.outdoors or section.surroundings in OUT_OF_DOORS
                        self.assertTrue(record.outdoors or not outside)
                        if section.surroundings in MAY_BE_OUTDOORS:
                            self.assertTrue(record.outdoors or section.outdoors is False)
                    ratings = [one.circuit.device.rating_a for one in installation_of(then).runs[0].chain]
                    self.assertEqual(ratings, sorted(ratings, reverse=True))

    def test_the_few_hold_as_whole_jobs_and_their_changes_take_them(self) -> None:
        from fulmen.core.editing.changes import apply_changes

        found = result(DEVICE_IN_UNIT)
        self.assertTrue(2 <= len(found.few) <= 8)
        for way in found.few:
            with self.subTest(way.cable):
                changed = apply_changes(job(), way.changes)
                self.assertFalse(short_rules(changed))
        self.assertEqual(sum(way.standing for way in found.few), 1)
        self.assertTrue(all(any(words in way.best_at for way in found.few) for words, _ in AIMS))

    def test_a_design_that_falls_short_is_not_among_the_few_and_others_are(self) -> None:
        found = result(FALLS_SHORT)
        self.assertFalse(any(way.standing for way in found.few))
        self.assertTrue(found.few)

    def test_why_not_a_smaller_size_names_the_first_check_with_its_figure(self) -> None:
        small = next(one for one in result(DEVICE_IN_UNIT).sizes if one.csa_mm2 == 2.5)
        self.assertEqual(small.held, 0)
        self.assertRegex(small.why_not, r"weakest section [\d.]+ A, at least \d+")

    def test_what_falls_short_whichever_way_is_told_apart(self) -> None:
        found = result(DEVICE_IN_UNIT, {"supply.looped": "yes", "letters": []})
        self.assertTrue(any("looped" in one for one in found.elsewhere))
        self.assertTrue(found.few)

    def test_thick_cable_goes_to_a_box_where_the_units_terminals_are_too_small(self) -> None:
        """16 mm² to a box, 6 mm² on: 70 m drop too much in what the terminals take, and less than that in the box."""
        far = {"circuits.0.route.3.length_m": 70.0, "charge_points.0.terminal_max_mm2": 6.0}
        found = result(DEVICE_IN_UNIT, far)
        self.assertTrue(found.few)
        for way in found.few:
            with self.subTest(way.cable):
                self.assertIn("to a box before the unit", way.layout)
                then = apply_changes(job(DEVICE_IN_UNIT, far), way.changes)
                self.assertFalse(short_rules(then))
                self.assertEqual(cable_of(then.circuits[0], then.circuits[0].route[-1]).csa_mm2, 6)
                self.assertEqual(way.joints, 1)
                box = f"joint/ev-{len(then.circuits[0].route)}"
                self.assertTrue(next(one for one in evaluate(then, RULES).findings if one.key == box).is_open)

    def test_no_box_where_the_terminals_were_not_looked_up_or_it_would_be_hidden(self) -> None:
        for changes in (
            {"charge_points.0.terminal_max_mm2": None},
            {"circuits.0.route.4.surroundings": "in_wall"},
        ):
            with self.subTest(changes):
                words = [one.words for one in layouts(installation_of(job(DEVICE_IN_UNIT, changes)), "charge-point")]
                self.assertFalse([one for one in words if "box" in one])

    def test_an_own_board_where_there_is_no_way_or_no_rcbo_fits(self) -> None:
        for changes in ({"boards.0.spare_ways": 0}, {"boards.0.make_up": "rewirable"}):
            found = result(DEVICE_IN_UNIT, changes)
            with self.subTest(changes):
                self.assertTrue(found.few)
                self.assertEqual(found.elsewhere, ())
                for way in found.few:
                    self.assertEqual(way.layout, "from an own board off split tails")
                    whole = evaluate(apply_changes(job(DEVICE_IN_UNIT, changes), way.changes), RULES)
                    self.assertEqual(whole.falls_short(), [])
        nowhere = result(DEVICE_IN_UNIT, {"boards.0.spare_ways": 0, "supply.room_to_split_tails": "no"})
        self.assertTrue(any("spare" in one for one in nowhere.elsewhere), nowhere.elsewhere)

    def test_where_nothing_holds_the_nearest_way_and_its_reasons(self) -> None:
        """300 m: not the thousands of thin cables that fail first, but how near the best of them comes."""
        found = result(DEVICE_IN_UNIT, {"circuits.0.route.3.length_m": 300.0})
        self.assertEqual((found.held, found.few), (0, ()))
        assert found.nearest is not None
        self.assertIn("16 mm²", found.nearest.cable)
        self.assertLessEqual(len(found.nearest.reasons), 3)
        self.assertRegex(found.nearest.reasons[0], r"^Volt drop to the car: \d+\.\d\d %, at most 5\.00$")
        self.assertIsNone(result(DEVICE_IN_UNIT).nearest)

    def test_nothing_to_search_without_a_route(self) -> None:
        for point, changes in (("nowhere", {}), ("charge-point", {"circuits.0.route": []})):
            with self.subTest(point), self.assertRaises(InputError) as caught:
                result(DEVICE_IN_UNIT, changes, point)
            self.assertEqual(caught.exception.field, "charge_point")

    def test_the_users_prices_decide_what_is_cheapest(self) -> None:
        dear = [
            line.model_copy(update={"price": 900.0}) if line.key.startswith("cable.swa") else line
            for line in PRICES.lines
        ]
        found = search(job(), "charge-point", RULES, PRICES.model_copy(update={"lines": tuple(dear)}))
        cheapest = next(way for way in found.few if "lowest price" in way.best_at)
        self.assertGreater(
            cheapest.price, next(w for w in result(DEVICE_IN_UNIT).few if "lowest price" in w.best_at).price
        )


class Choices(unittest.TestCase):
    def test_a_hole_in_the_wall_goes_with_what_follows(self) -> None:
        route = job().circuits[0].route
        self.assertEqual([one.surroundings.value for one in route][:2], ["under_floor", "through_wall"])
        self.assertEqual(families(route)[:3], [Family.BUILDING, Family.OPEN, Family.OPEN])

    def test_flat_cable_is_tried_inside_only_and_never_for_three_phases(self) -> None:
        circuit = job().circuits[0]
        for kinds in kinds_to_try(cables_for(job()), circuit, 1, sub_main=False):
            for family, record in zip(families(circuit.route), kinds.records, strict=True):
                self.assertFalse(record == "twin-and-earth" and family is not Family.BUILDING)
        three = kinds_to_try(cables_for(job()), circuit, 3, sub_main=False)[1:]
        self.assertFalse(any("twin-and-earth" in kinds.records or "swa-3-core" in kinds.records for kinds in three))

    def test_a_makers_own_cable_is_tried(self) -> None:
        own = {"id": "own-ev", "name": "Own EV cable", "source": "maker's sheet of 2025", "insulation": "xlpe_90",
               "ratings": [{"method": method, "csa_mm2": 6.0, "rating_a": 60.0} for method in "CDE"]}  # fmt: skip
        whole = job(DEVICE_IN_UNIT, {"maker_cables": [own]})
        tried = {
            record
            for kinds in kinds_to_try(cables_for(whole), whole.circuits[0], 1, sub_main=False)
            for record in kinds.records
        }
        self.assertIn("own-ev", tried)

    def test_a_hot_stretch_alone_is_tried_bigger_where_the_cable_changes_anyway(self) -> None:
        route = [
            {"surroundings": "loft_under", "length_m": 6.0},
            {"surroundings": "clipped", "length_m": 14.0},
        ]
        whole = job(
            DEVICE_IN_UNIT,
            {"circuits.0.route": route, "circuits.0.device.rating_a": 32, "charge_points.0.device_min_a": 32.0},
        )
        circuit = whole.circuits[0]
        bench = CableBench(installation_of(whole), circuit, 1, circuit_load(installation_of(whole), circuit, RULES))
        # 101 rates 10 mm² at 36 A, 6 mm² at 27 A; clipped 4 mm² of the EV cable carries 32 A.
        mixed, plain = Kinds(("twin-and-earth", "ev-power-data")), Kinds(("swa-3-core", "swa-3-core"))
        tried = [tuple(one.cable.csa_mm2 for one in laid.sections) for _, laid in bench.every_laid(mixed, 32.0)]
        self.assertIn((6.0, 4.0), tried)
        self.assertIn((10.0, 4.0), tried)
        self.assertNotIn((16.0, 10.0), tried, "10 mm² carries it all the way")
        self.assertTrue(all(len(set(sizes)) == 1 for sizes in ([one.cable.csa_mm2 for one in laid.sections]
                                                               for _, laid in bench.every_laid(plain, 32.0))))  # fmt: skip
        found = search(whole, "charge-point", RULES, PRICES)
        lightest = next(way for way in found.few if "least copper and steel" in way.best_at)
        self.assertIn("10 mm² flat twin-and-earth, then 4 mm² ", lightest.cable)
        taken = apply_changes(whole, lightest.changes)
        self.assertFalse(short_rules(taken) - short_rules(whole))
        self.assertTrue(search(taken, "charge-point", RULES, PRICES).few)

    def test_layouts(self) -> None:
        words = [one.words for one in layouts(installation_of(job()), "charge-point")]
        self.assertEqual(len(words), 4)
        garage = [one.words for one in layouts(installation_of(job(GARAGE)), "charge-point")]
        self.assertFalse([one for one in garage if "direct" in one], "the garage board feeds more than the car")
        alone = job(GARAGE, {"boards.1.other_loads": []})
        self.assertIn(
            "direct from Consumer unit", [one.words for one in layouts(installation_of(alone), "charge-point")]
        )
        for layout in layouts(installation_of(job()), "charge-point"):
            self.assertEqual(len(installation_of(layout.job).runs), 1)

    def test_unbeaten_means_no_other_is_as_good_in_everything(self) -> None:
        class Way:
            def __init__(self, *scores: float) -> None:
                self.metal_kg, self.work_min, self.price, self.spare_a, self.drop_percent, self.margin = scores

        good, worse, other = (
            Way(1, 1, 1, 5, 1, 0.5),
            Way(1, 1, 2, 5, 1, 0.5),
            Way(0.5, 9, 9, 1, 4, 0.1),
        )
        self.assertEqual(unbeaten([worse, good, other]), [other, good])  # type: ignore[list-item]


class Standing(unittest.TestCase):
    def test_the_standing_design_is_judged_like_its_evaluation(self) -> None:
        self.assertTrue(any(way.standing for way in result(GARAGE).few))
        self.assertFalse(evaluation(GARAGE).falls_short())
