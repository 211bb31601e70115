"""Routes from shorthand, split and joined; what can't be read is told by name."""

import unittest

from fulmen.core.editing.changes import apply_changes
from fulmen.core.editing.route_editing import (
    join_sections,
    rated_again,
    record_changes,
    route_from_shorthand,
    split_section,
    with_cable,
)
from fulmen.core.errors import InputError
from fulmen.core.evaluate import evaluate
from fulmen.core.model.cables import Cable
from fulmen.core.model.route import LengthBy, Section, Surroundings
from fulmen.core.reference.cable_catalogue import cable_record, cable_records
from fulmen.core.reference.places import follows_from, places
from tests.jobs import DEVICE_IN_UNIT, RULES, job

JOB = job()
CIRCUIT = JOB.circuits[0]


class Shorthand(unittest.TestCase):
    def test_a_whole_route_in_few_keys(self) -> None:
        text = "u4.2 t.4 C5,6 d5.5"
        route = route_from_shorthand(text, JOB, CIRCUIT)
        self.assertLess(len(text) + 1, 40)
        self.assertEqual([one.length_m for one in route], [4.2, 0.4, 5.6, 5.5])
        self.assertTrue(all(one.method is None for one in route), "it follows from the place")
        self.assertTrue(route[3].in_duct and not route[2].in_duct)

    def test_steps_by_the_users_own_stride(self) -> None:
        (walked,) = route_from_shorthand("c12s", job(DEVICE_IN_UNIT, {"site.stride_m": 0.8}), CIRCUIT)
        self.assertEqual((walked.length_m, walked.length_by), (9.6, LengthBy.STEPS))

    def test_every_letter_is_its_own(self) -> None:
        letters = [usual.letter for usual in places().values()]
        self.assertEqual(len(letters), len(set(letters)))
        self.assertEqual(set(places()), set(Surroundings))
        self.assertNotIn("s", letters)

    def test_what_cannot_be_read_is_told(self) -> None:
        for text, told in (("", "at least one"), ("x5", "“x5” can't be read"), ("c", "can't be read"), ("c5m", "can't be read"),
                           ("c0.05", "0.1 to 500"), ("c500.1", "0.1 to 500"), ("c1 " * 201, "at most 200")):  # fmt: skip
            with self.subTest(text[:9]), self.assertRaises(InputError) as caught:
                route_from_shorthand(text, JOB, CIRCUIT)
            self.assertEqual(caught.exception.field, "text")
            self.assertIn(told, caught.exception.message)
        self.assertEqual(len(route_from_shorthand("c0.1 c500", JOB, CIRCUIT)), 2)


class Methods(unittest.TestCase):
    def test_by_the_cable(self) -> None:
        for record, surroundings, method in (
            ("twin-and-earth", "loft", "100"), ("twin-and-earth", "loft_under", "101"), ("swa-3-core", "loft", "C"),
            ("swa-3-core", "in_wall", "C"), ("nyy-j", "in_wall", "A"), ("twin-and-earth", "in_wall", "103"),
            ("twin-and-earth", "in_masonry", "C"), ("twin-and-earth", "tray", "C"), ("nyy-j", "tray", "E"),
            ("twin-and-earth", "conduit_or_trunking", "B"), ("swa-3-core", "post", "B"), ("nyy-j", "under_floor", "B"),
            ("twin-and-earth", "under_floor", "100"), ("nyy-j", "buried", "D"),
        ):  # fmt: skip
            with self.subTest(record=record, surroundings=surroundings):
                section = Section(surroundings=Surroundings(surroundings), length_m=3)
                self.assertEqual(follows_from(section, cable_record(cable_records(), record)).method.value, method)

    def test_another_cable_in_one_section_makes_a_joint(self) -> None:
        route = with_cable(CIRCUIT.route, CIRCUIT, 4, Cable(record="ev-power-data", csa_mm2=6), JOB)
        self.assertEqual(route[4].cable, Cable(record="ev-power-data", csa_mm2=6))
        self.assertIsNone(with_cable(route, CIRCUIT, 4, CIRCUIT.cable, JOB)[4].cable)

    def test_a_chosen_method_that_a_new_cable_may_not_have_follows_from_the_place_again(self) -> None:
        on_tray = job(DEVICE_IN_UNIT, {"circuits.0.route.2.surroundings": "tray", "circuits.0.route.2.method": "E"})
        kept, let_go = (rated_again(on_tray.circuits[0].model_copy(update={"cable": Cable(record=record)}), on_tray)
                        for record in ("nyy-j", "twin-and-earth"))  # fmt: skip
        self.assertEqual([kept[2].method, let_go[2].method], ["E", None])

    def test_another_kind_of_cable_takes_what_it_may(self) -> None:
        on_tray = job(DEVICE_IN_UNIT, {"circuits.0.route.2.surroundings": "tray", "circuits.0.route.2.method": "E"})
        flat = apply_changes(on_tray, record_changes(on_tray, 0, "twin-and-earth"))
        self.assertIsNone(flat.circuits[0].route[2].method)
        self.assertEqual([one.field for one in record_changes(JOB, 0, "swa-2-core")], ["circuits.0.cable.record"])
        with self.assertRaises(InputError):
            record_changes(JOB, 0, "string")


class SplitAndJoin(unittest.TestCase):
    def test_split_then_join_is_the_same_route(self) -> None:
        cut = split_section(CIRCUIT.route, 2, 2.0)
        self.assertEqual([one.length_m for one in cut[2:4]], [2.0, 3.6])
        self.assertEqual(join_sections(cut, 2), CIRCUIT.route)

    def test_where_it_can_be_cut(self) -> None:
        self.assertEqual(split_section(CIRCUIT.route, 2, 0.1)[2].length_m, 0.1)
        for index, at_m, field in ((2, 0.09, "at_m"), (2, 5.55, "at_m"), (5, 1.0, "index"), (-1, 1.0, "index")):
            with self.subTest(index=index, at_m=at_m), self.assertRaises(InputError) as caught:
                split_section(CIRCUIT.route, index, at_m)
            self.assertEqual(caught.exception.field, field)

    def test_joined_keeps_the_harsher_facts_so_no_margin_improves(self) -> None:
        changes = {"temperature_c": 45.0, "grouped_circuits": 1, "fixings": "plastic", "clip_spacing_mm": 600.0,
                   "bend_radius_mm": 40.0, "clearance_mm": 20.0, "in_zone": "no", "hazards": ["pipes"]}  # fmt: skip
        whole = job(DEVICE_IN_UNIT, {
            "circuits.0.route.1.surroundings": "clipped", "circuits.0.route.2.surroundings": "clipped",
            "circuits.0.route.1.grouped_circuits": 4, "circuits.0.route.1.clip_spacing_mm": 300.0,
            "circuits.0.route.1.bend_radius_mm": 90.0, "circuits.0.route.1.in_zone": "yes",
            **{f"circuits.0.route.2.{name}": value for name, value in changes.items()},
        })  # fmt: skip
        route = join_sections(whole.circuits[0].route, 1)
        one = route[1].model_dump(mode="json")
        self.assertEqual({name: one[name] for name in changes}, changes | {"grouped_circuits": 4})
        joined = whole.model_copy(update={"circuits": (whole.circuits[0].model_copy(update={"route": route}),)})

        def margin(one: object) -> float:
            found = evaluate(one, RULES).findings  # type: ignore[arg-type]
            return next(each.margin or 0.0 for each in found if each.rule == "weakest_section")

        self.assertLessEqual(margin(joined), margin(whole))

    def test_what_cannot_be_one_section(self) -> None:
        joined = with_cable(CIRCUIT.route, CIRCUIT, 2, Cable(record="nyy-j"), JOB)
        long = (CIRCUIT.route[2].model_copy(update={"length_m": 300.0}),) * 2
        alike = (CIRCUIT.route[3], CIRCUIT.route[3].model_copy(update={"in_duct": False}))
        deep = (CIRCUIT.route[3], CIRCUIT.route[3].model_copy(update={"depth_m": 0.5}))
        for route, index, told in ((joined, 1, "differ in cable"), (deep, 0, "differ in depth"), (alike, 0, "differ in duct"),
                                   (CIRCUIT.route, 2, "in surroundings"),
                                   (CIRCUIT.route, 4, "no section 6"), (long, 0, "at most 500")):  # fmt: skip
            with self.subTest(told), self.assertRaises(InputError) as caught:
                join_sections(route, index)
            self.assertIn(told, caught.exception.message)
