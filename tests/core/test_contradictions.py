"""What can't both be so: each pair of the table asked at both its places, and the kinder side never wins meanwhile.

The jobs were written from `rules.md` and the trade before the table: what is said, and what must not meet until it is
settled; and two that are no contradiction.
"""

import unittest
from typing import Any

from fulmen.core.checks.contradictions import PAIRS
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.stops import Stop
from tests.jobs import DEVICE_IN_UNIT, GARAGE, SHARED_FRONT, TT, evaluation, in_front, mark

MEETS = Verdict.MEETS
A, P = "charge_points.0.arrangement.", "charge_points.0."
INDOORS: dict[str, Any] = {
    "site.car_place": "indoors_only", P + "hangs_outdoors": False, P + "door_distance_m": 6.0, P + "lead_length_m": 5.0,
    A + "open_pen": "none",
}  # fmt: skip
# The pair, a job, what is said, the rules that must not meet, and the stops where it is asked (None: in the design).
SAID: tuple[tuple[str, str, dict[str, Any], tuple[str, ...], set[Stop | None]], ...] = (
    ("unit-outdoors", DEVICE_IN_UNIT, INDOORS | {P + "hangs_outdoors": True}, ("open_pen",), {Stop.CHARGE_POINT, Stop.PARKING}),
    ("lead-reaches", DEVICE_IN_UNIT, INDOORS | {P + "lead_length_m": 7.5}, ("open_pen",), {Stop.CHARGE_POINT, Stop.PARKING}),
    ("lead-reaches", DEVICE_IN_UNIT, INDOORS | {P + "lead_length_m": 6.0}, ("open_pen",), {Stop.CHARGE_POINT, Stop.PARKING}),
    ("bonded-nothing", DEVICE_IN_UNIT, {"supply.bonded_services": ["water"], "supply.incoming_metal": []}, ("main_bonding",), {Stop.EARTH}),
    ("looped", DEVICE_IN_UNIT, {"supply.looped": "no", "supply.neighbour_charge_point": "yes"}, ("looped", "operator"), {Stop.CUT_OUT}),
    ("lines", GARAGE, {"supply.phases": 1, "circuits.0.phases": 3}, ("main_switch_poles", "breaking_capacity"), {Stop.CUT_OUT, None}),
    ("rcd-inside", DEVICE_IN_UNIT, {"circuits.0.device.rcd": None, P + "rcd_inside_seen": "no", P + "rcd_inside": mark("A")},
     ("own_rcd", "dc_protection"), {Stop.CHARGE_POINT}),
    ("rcd-asked", DEVICE_IN_UNIT, {P + "upstream_rcd_asked": "no", P + "upstream_rcd": "A"}, ("maker_rcd",), {Stop.CHARGE_POINT}),
    ("rcd-in-front", SHARED_FRONT, {"boards.0.front_rcd_seen": "no"}, ("rcd_at_board", "concealed_cable"), {Stop.BOARD, None}),
    ("rcd-in-front", TT, {"boards.0.front_rcd_seen": "no"}, ("tt_origin_rcd", "disconnection"), {Stop.BOARD, None}),
    ("make-up", SHARED_FRONT, {"boards.0.make_up": "breakers_only"}, ("rcd_at_board", "own_rcd"), {Stop.BOARD, None}),
    ("one-pole", DEVICE_IN_UNIT, {"circuits.0.device.poles": 1}, ("own_rcd", "rcd_neutral"), {None}),
    ("tail", DEVICE_IN_UNIT, {P + "flex_tail": False, P + "flex_csa_mm2": 2.5}, ("volt_drop", "survives_fault"), {Stop.CHARGE_POINT}),
    ("ways", DEVICE_IN_UNIT, {"boards.0.ways": 10, "boards.0.spare_ways": 12}, ("spare_way",), {Stop.BOARD}),
    ("ground-indoors", DEVICE_IN_UNIT, {"circuits.0.route.3.outdoors": False, "circuits.0.cable.record": "twin-and-earth"}, ("indoor_cable",), {None}),
)  # fmt: skip


class Contradictions(unittest.TestCase):
    def test_each_is_asked_at_both_places_and_what_rests_on_it_waits(self) -> None:
        for key, name, changes, rests, stops in SAID:
            found = evaluation(name, changes | {"readings": [], "decisions": []}).findings
            asked = [one for one in found if one.rule == "contradiction" and f"-{key}-" in one.subject]
            with self.subTest(key, changes=changes):
                self.assertEqual(len({one.key for one in asked}), 2)
                self.assertEqual({one.place for one in asked}, stops)
                self.assertEqual({one.verdict for one in asked}, {Verdict.NEEDS})
                self.assertEqual([one.key for one in found if one.rule in rests and one.verdict is MEETS], [])

    def test_every_pair_of_the_table_has_a_job(self) -> None:
        self.assertEqual({one.key for one in PAIRS}, {key for key, *_ in SAID})

    def test_what_is_none_asks_nothing(self) -> None:
        for name, changes, meets in (
            (DEVICE_IN_UNIT, INDOORS, ("open_pen",)),
            (DEVICE_IN_UNIT, {"boards.0.incomer": in_front(mark("A")), "boards.0.front_rcd_seen": "yes", "boards.0.others": "freezer"}, ("own_rcd",)),
            (DEVICE_IN_UNIT, {}, ("main_bonding", "looped")),
        ):  # fmt: skip
            found = evaluation(name, changes | {"readings": []}).findings
            with self.subTest(name, changes=changes):
                self.assertEqual([one.key for one in found if one.rule == "contradiction"], [])
                for rule in meets:
                    self.assertEqual({one.verdict for one in found if one.rule == rule}, {MEETS}, rule)

    def test_indoors_only_is_measured_and_not_supposed(self) -> None:
        for changes, verdict in (
            ({P + "hangs_outdoors": None}, Verdict.NEEDS),
            ({P + "door_distance_m": None}, Verdict.NEEDS),
            ({P + "lead_length_m": None}, Verdict.NEEDS),
            ({P + "door_distance_m": 5.1}, MEETS),
            # Anybody's lead goes into a socket, and leads of 10 m are sold.
            ({P + "tethered": False, P + "door_distance_m": 9.9}, Verdict.YOUR_CALL),
            ({P + "tethered": False, P + "door_distance_m": 10.0, P + "lead_length_m": None}, MEETS),
        ):
            found = evaluation(DEVICE_IN_UNIT, INDOORS | changes).findings
            with self.subTest(changes):
                self.assertEqual([one.verdict for one in found if one.rule == "open_pen"], [verdict])


if __name__ == "__main__":
    unittest.main()
