"""Materials from the design, added up by hand; the price list in and out."""

import csv
import unittest
from io import StringIO
from math import ceil, pi
from typing import Any

from fulmen.core.electrical.cable_fixing import clip_spacing_mm, least_bend_mm
from fulmen.core.errors import InputError, TableError
from fulmen.core.materials.materials import gland_size, materials, materials_list, metal_kg_per_m
from fulmen.core.materials.prices import (
    PriceList,
    cable_key,
    invented_prices,
    prices_csv,
    read_prices_csv,
    shipped_items,
)
from fulmen.core.model.job import Job
from fulmen.core.reference.cable_catalogue import cable_record, cable_records
from tests.jobs import (
    ALL_ELECTRIC,
    DETECTOR_BOX,
    DEVICE_IN_UNIT,
    FALLS_SHORT,
    GARAGE,
    OPEN_PEN_BOX,
    RULES,
    THREE_PHASE,
    TT,
    job,
)


def needed(whole: Job) -> dict[str, float]:
    return {one.key: one.quantity for one in materials(whole)}


def fitted(box: dict[str, Any]) -> list[dict[str, Any]]:
    """A box whose guards are bought with this job."""
    return [{**box, "guards": [{**one, "fitted_with_this_job": True} for one in box["guards"]]}]


class Quantities(unittest.TestCase):
    def test_a_trench_a_duct_and_a_hole_are_made_once(self) -> None:
        """A second circuit in the same trench buys its cable and its duct; what is there already is not dug either."""
        route = "circuits.0.route"
        dug = {f"{route}.3.surroundings": "duct", f"{route}.3.in_duct": True, f"{route}.3.depth_m": 0.6}
        for made, bought in (("for_it", {"trench", "sand", "duct"}), ("shared", {"duct"}), ("there", set())):
            with self.subTest(made):
                need = needed(job(changes=dug | {f"{route}.{place}.way_made": made for place in range(5)}))
                self.assertEqual(need.keys() & {"trench", "sand", "duct"}, bought)
                self.assertEqual("wall-hole" in need, made == "for_it" and "wall-hole" in needed(job()))
                self.assertIn("cable.swa-3-core.6", need)

    def test_the_drive_by_hand(self) -> None:
        need = needed(job())
        # 16.9 m walked, half a metre at both ends, 1 m of slack, 5 % waste
        self.assertEqual(need["cable.swa-3-core.6"], ceil((16.9 + 2) * 1.05))
        # clips every 350 mm under the floor (4.2 m), along the wall (5.6 m) and up the post (1.2 m), one more each
        self.assertEqual(need["clip.armoured"], ceil(4200 / 350) + ceil(5600 / 350) + ceil(1200 / 350) + 3)
        self.assertEqual((need["gland.20"], need["wall-hole"], need["duct"]), (2, 1, 6))
        self.assertEqual((need["trench"], need["warning-tape"]), (6, 6))
        self.assertAlmostEqual(need["sand"], 0.25)  # 5.5·0.3·0.15 = 0.2475 m³
        self.assertEqual(need["concrete"], ceil(pi / 4 * 0.3**2 * 0.8 * 2000 / 20))
        self.assertEqual((need["rcbo.a"], need["label"]), (1, 5))
        self.assertNotIn("board.small", need)

    def test_a_sub_main_a_board_and_a_joint(self) -> None:
        need = needed(job(GARAGE))
        self.assertEqual((need["fused-switch"], need["board.small"], need["box.breakout"]), (1, 1, 1))
        self.assertEqual(need["ferrule"], 6)
        self.assertEqual(need["gland.plastic"], 4)
        self.assertEqual(need["gland.25"], 2)

    def test_three_phases_and_two_units(self) -> None:
        need = needed(job(THREE_PHASE))
        self.assertEqual((need["label"], need["rcbo.a"]), (10, 2))
        # five-core: 16 mm² is 26.5 mm across, 6 mm² 20.5 mm; three-core 6 mm² 18.0 mm
        self.assertEqual((need["gland.32"], need["gland.20"]), (2, 4))

    def test_what_an_arrangement_takes(self) -> None:
        for changes, key, quantity in (
            ({"charge_points.0.arrangement.car_earth": "own_electrode"}, "rod", 1.0),
            ({"charge_points.0.arrangement.open_pen": "low_electrode"}, "rod", 4.0),
            ({"circuits.0.boxes": fitted(OPEN_PEN_BOX)}, "pen-device", 1.0),
            ({"circuits.0.boxes": fitted(DETECTOR_BOX)}, "rdc-dd", 1.0),
            ({"circuits.0.device.rcd": None}, "breaker", 1.0),
            ({"circuits.0.device.rcd.type": "B"}, "rcbo.b", 1.0),
        ):
            with self.subTest(key=key, changes=changes):
                self.assertEqual(needed(job(DEVICE_IN_UNIT, changes))[key], quantity)
        self.assertNotIn("rod", needed(job(TT, {"charge_points.0.arrangement.car_earth": "own_electrode"})))

    def test_every_item_of_every_example_has_a_name_a_unit_and_a_price(self) -> None:
        for name in (DEVICE_IN_UNIT, GARAGE, THREE_PHASE, TT, FALLS_SHORT, ALL_ELECTRIC):
            listed = materials_list(job(name), invented_prices())
            self.assertEqual(listed.unpriced, 0, name)
            self.assertTrue(listed.invented)
            self.assertAlmostEqual(listed.price, sum(line.price or 0 for line in listed.lines))

    def test_a_makers_cable_has_no_price_until_the_user_gives_one(self) -> None:
        own = {"id": "own-ev", "name": "Own EV cable", "source": "maker's sheet", "armoured": True,
               "ratings": [{"method": "C", "csa_mm2": 6.0, "rating_a": 50.0}]}  # fmt: skip
        whole = job(DEVICE_IN_UNIT, {"maker_cables": [own], "circuits.0.cable": {"record": "own-ev", "csa_mm2": 6.0}})
        line = next(one for one in materials_list(whole, invented_prices()).lines if "own-ev" in one.material.key)
        self.assertEqual((line.material.name, line.material.unit, line.price), ("6 mm² Own EV cable", "m", None))


class Fixing(unittest.TestCase):
    def test_clips_by_diameter(self) -> None:
        self.assertEqual(clip_spacing_mm(cable_record(cable_records(), "swa-3-core"), 6), 350)  # 18.0 mm
        self.assertEqual(clip_spacing_mm(cable_record(cable_records(), "swa-3-core"), 10), 400)  # 21.2 mm
        self.assertEqual(clip_spacing_mm(cable_record(cable_records(), "nyy-j"), 1.5), 250)  # 10.5 mm
        self.assertGreater(
            clip_spacing_mm(cable_record(cable_records(), "nyy-j"), 6, vertical=True),
            clip_spacing_mm(cable_record(cable_records(), "nyy-j"), 6),
        )

    def test_bends_and_glands(self) -> None:
        self.assertAlmostEqual(least_bend_mm(cable_record(cable_records(), "swa-3-core"), 6, RULES), 8 * 18.0)
        self.assertAlmostEqual(least_bend_mm(cable_record(cable_records(), "nyy-j"), 6, RULES), 6 * 14.5)
        self.assertEqual(gland_size(cable_record(cable_records(), "swa-3-core"), 2.5), "20s")
        self.assertEqual(gland_size(cable_record(cable_records(), "swa-5-core"), 25), "32")
        with self.assertRaises(TableError):
            cable_record(cable_records(), "twin-and-earth").overall_diameter_mm(25)

    def test_metal_in_a_metre(self) -> None:
        # 3·6 mm² copper at 8.96 kg/dm³, 23 mm² of steel at 7.85
        self.assertAlmostEqual(
            metal_kg_per_m(cable_record(cable_records(), "swa-3-core"), 6, 1), (18 * 8.96 + 23 * 7.85) / 1000
        )
        self.assertAlmostEqual(
            metal_kg_per_m(cable_record(cable_records(), "twin-and-earth"), 6, 1), (12 + 2.5) * 8.96 / 1000
        )
        self.assertAlmostEqual(
            metal_kg_per_m(cable_record(cable_records(), "swa-2-core"), 6, 1), (12 * 8.96 + 22 * 7.85) / 1000
        )


class Prices(unittest.TestCase):
    def test_out_and_in_again_is_the_same_list(self) -> None:
        self.assertEqual(read_prices_csv(prices_csv(invented_prices())), invented_prices())
        self.assertTrue(all(line.invented for line in invented_prices().lines))
        self.assertIn(cable_key("swa-3-core", 6.0), shipped_items())

    def test_no_name_becomes_a_formula_and_every_name_comes_back(self) -> None:
        first = invented_prices().lines[0]
        for name in ("=1+1", "+44", "-5 °C clip", "@home", "'quoted'", "'=odd", "plain"):
            mine = PriceList(lines=(first.model_copy(update={"name": name, "unit": "=m"}),))
            text = prices_csv(mine)
            with self.subTest(name):
                self.assertEqual(read_prices_csv(text), mine)
                cells = next(iter(csv.reader(StringIO(text.splitlines()[1]))))
                self.assertFalse([one for one in cells if one.startswith(("=", "+", "-", "@"))])

    def test_columns_in_any_order_and_a_comma_as_point(self) -> None:
        text = '\ufeffprice,key,unit,name,work_min\n"2,50",label,piece,Label,1\n'
        self.assertEqual(read_prices_csv(text).lines[0].price, 2.5)
        self.assertFalse(read_prices_csv(text).lines[0].invented)

    def test_each_bad_line_is_told(self) -> None:
        head = "key,name,unit,price,work_min\n"
        for text, told in (
            ("key,name\n", "missing: unit, price, work_min"),
            (head, "it holds 0"),
            (head + "label,Label,piece,cheap,1\n", "Line 2, price: “cheap” is no number"),
            (head + "label,Label,piece,1,\n", "Line 2, work_min"),
            (head + "label,Label,piece,-1,1\n", "Line 2, price"),
            (head + "label,Label,piece,nan,1\n", "Line 2, price"),
            (head + "LABEL!,Label,piece,1,1\n", "Line 2, key"),
            (head + "label,,piece,1,1\n", "Line 2, name"),
            (head + "label,Label,piece,1,1\nlabel,Label,piece,1,1\n", "Line 3: “label” stands there twice"),
            (head + "x" * 200_001, "longer than 200000 characters"),
        ):
            with self.subTest(told), self.assertRaises(InputError) as caught:
                read_prices_csv(text)
            self.assertEqual(caught.exception.field, "prices")
            self.assertIn(told, caught.exception.message)

    def test_a_list_of_the_user_without_an_item_leaves_it_unpriced(self) -> None:
        listed = materials_list(job(), PriceList(lines=invented_prices().lines[:1]))
        self.assertGreater(listed.unpriced, 5)
