"""Diversity line by line, the demand by each method, the load limit, and the ways out with their figures."""

import unittest
from typing import Any

from fulmen.core.demand.demand import Demand, demand_of, held_demand_a, least_carried_a, tails_carry_a
from fulmen.core.demand.ways_out import WayOut, ways_out
from fulmen.core.findings.finding import Verdict
from fulmen.core.installation.installation import installation_of
from tests.jobs import RULES, evaluation, finding, job


def appliances(*entries: tuple[str, float]) -> dict[str, Any]:
    """Changes for an added-up load of amps."""
    listed = [{"kind": kind, "rating_a": amps} for kind, amps in entries]
    return {"load.method": "added_up", "load.appliances": listed}


def demand(changes: dict[str, Any]) -> Demand:
    return demand_of(installation_of(job(changes=changes)), RULES)


def counted(*entries: tuple[str, float]) -> float:
    """What of one kind counts."""
    (line,) = demand(appliances(*entries)).lines
    return line.counted_a


class Diversity(unittest.TestCase):
    def test_each_rule_at_and_around_its_threshold(self) -> None:
        for expected, entries in [
            (6.6, [("lighting", 10.0)]),
            (10.0, [("heating", 10.0)]), (9.0, [("heating", 9.0)]), (10.5, [("heating", 11.0)]),
            (15.0, [("heating", 12.0), ("heating", 8.0)]),
            (10.0, [("cooker", 10.0)]), (9.0, [("cooker", 9.0)]), (10.3, [("cooker", 11.0)]),
            (40.0, [("shower", 40.0)]), (80.0, [("shower", 40.0), ("shower", 40.0)]),
            (90.0, [("shower", 40.0), ("shower", 40.0), ("shower", 40.0)]),
            (32.0, [("sockets", 32.0)]), (44.8, [("sockets", 32.0), ("sockets", 32.0)]), (40.0, [("sockets", 20.0), ("sockets", 32.0)]),
            (13.0, [("water_heater", 13.0)]), (30.0, [("storage_heating", 15.0), ("storage_heating", 15.0)]),
            (7.0, [("floor_heating", 7.0)]), (22.0, [("heat_pump", 22.0)]), (32.0, [("car", 32.0)]), (5.0, [("other", 5.0)]),
        ]:  # fmt: skip
            with self.subTest(entries):
                self.assertAlmostEqual(counted(*entries), expected)

    def test_a_socket_in_the_cooker_unit_adds_five_amps(self) -> None:
        listed = [{"kind": "cooker", "rating_a": 20.0, "socket_in_unit": True}]
        (line,) = demand({"load.method": "added_up", "load.appliances": listed}).lines
        self.assertAlmostEqual(line.counted_a, 10 + 3 + 5)
        self.assertIn("5 A for a socket", line.rule)

    def test_every_line_shows_the_working_that_it_counts(self) -> None:
        for line in demand(
            appliances(("lighting", 12.0), ("sockets", 32.0), ("sockets", 20.0), ("heating", 14.0))
        ).lines:
            with self.subTest(line.kind):
                self.assertEqual(line.working.value, line.counted_a)
                self.assertAlmostEqual(eval(line.working.figures.replace("·", "*")), line.counted_a, places=1)
                self.assertLessEqual(line.counted_a, line.connected_a)


class Total(unittest.TestCase):
    def test_the_car_is_added_in_full(self) -> None:
        found = demand(appliances(("sockets", 32.0)))
        self.assertEqual((found.house_a, found.car_a, found.total_a), (32, 32, 64))

    def test_the_entered_total_holds_the_car_already(self) -> None:
        found = demand({"supply.maximum_demand_a": 74.0})
        self.assertEqual((found.house_a, found.total_a), (42, 74))
        self.assertEqual(demand({"supply.maximum_demand_a": 20.0}).total_a, 32, "never less than the car alone")

    def test_measured(self) -> None:
        found = demand({"load.method": "measured", "load.measured_a": 41.0})
        self.assertEqual((found.house_a, found.total_a), (41, 73))
        half = {
            "peak_kwh": 5.75,
            "peak_at": "2026-01-18T17:30:00",
            "first_at": "2026-01-01T00:00:00",
            "last_at": "2026-01-31T23:30:00",
            "entries": 1488,
        }
        found = demand({"load.method": "measured", "load.half_hours": half})
        self.assertAlmostEqual(found.house_a or 0, 50.0)
        self.assertIn("18 Jan 2026, 17:30", found.source)

    def test_nothing_known_is_said(self) -> None:
        for changes in ({"supply.maximum_demand_a": None}, {"load.method": "added_up"}, {"load.method": "measured"}):
            with self.subTest(changes):
                self.assertIsNone(demand(changes).total_a)
                self.assertIs(finding("demand", changes=changes).verdict, Verdict.NEEDS)

    def test_a_load_limit_can_not_hold_the_house(self) -> None:
        self.assertEqual([held_demand_a(house, 32, 60.0) for house in (20, 28, 40, 60, 61)], [52, 60, 60, 60, 61])

    def test_tails_carry_what_conduit_lets_them(self) -> None:
        for csa_mm2, carried in ((10.0, 57.0), (16.0, 76.0), (25.0, 101.0), (35.0, 125.0), (None, None), (4.0, None)):
            with self.subTest(csa_mm2):
                self.assertEqual(
                    tails_carry_a(installation_of(job(changes={"supply.tails.0.csa_mm2": csa_mm2}))), carried
                )
        self.assertEqual(least_carried_a(installation_of(job(changes={"boards.0.incomer.0.rating_a": 63.0}))), 63)


class WaysOut(unittest.TestCase):
    def ways(self, *entries: tuple[str, float], **changes: Any) -> dict[str, WayOut]:
        house = job(changes=appliances(*entries) | {key.replace("__", "."): value for key, value in changes.items()})
        return {
            way.key: way for way in ways_out(installation_of(house), RULES, demand_of(installation_of(house), RULES))
        }

    def test_each_way_has_its_figure(self) -> None:
        ways = self.ways(("sockets", 32.0), ("heat_pump", 20.0))  # 52 + 32 = 84 A behind 80 A
        self.assertEqual({key: way.result_a for key, way in ways.items()} | {"three_phase": 0},
                         {"load_limit": 60, "turned_down": 77, "bigger_fuse": 84, "three_phase": 0})  # fmt: skip
        self.assertAlmostEqual(ways["three_phase"].result_a, 52 / 3 + 32)
        self.assertTrue(all(way.verdict is Verdict.MEETS for way in ways.values()))
        self.assertIn("8 A", ways["load_limit"].detail)
        self.assertEqual(ways["turned_down"].changes[0].value, 25)

    def test_a_house_over_the_fuse_is_helped_by_no_clamp(self) -> None:
        ways = self.ways(("heat_pump", 90.0))
        self.assertIs(ways["load_limit"].verdict, Verdict.FALLS_SHORT)
        self.assertIs(ways["turned_down"].verdict, Verdict.FALLS_SHORT)
        self.assertIs(ways["bigger_fuse"].verdict, Verdict.FALLS_SHORT)

    def test_no_fuse_is_bigger_than_the_biggest(self) -> None:
        self.assertNotIn("bigger_fuse", self.ways(("sockets", 32.0), supply__cut_out_fuse_a=100))

    def test_a_way_taken_makes_it_hold(self) -> None:
        base = appliances(("sockets", 32.0), ("heat_pump", 20.0))
        self.assertIs(finding("demand", changes=base).verdict, Verdict.FALLS_SHORT)
        for way in evaluation(changes=base).ways_out:
            with self.subTest(way.key):
                taken = base | {change.field: change.value for change in way.changes}
                # One turned down holds once somebody has seen that it can't be turned up again.
                if "charge_points.0.set_current_a" in taken:
                    self.assertIs(finding("demand", changes=taken).verdict, Verdict.NEEDS)
                    taken |= {"charge_points.0.set_current_locked": "yes"}
                self.assertEqual(finding("demand", changes=taken).verdict is Verdict.MEETS, bool(way.changes))
