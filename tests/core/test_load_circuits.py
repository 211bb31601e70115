"""Circuits for sockets and lights: judged, tested and scheduled as circuits; what is only there stays a load."""

import unittest
from typing import Any

from fulmen.core.circuit.circuit_load import circuit_load
from fulmen.core.demand.demand import demand_of
from fulmen.core.errors import JobFileError
from fulmen.core.findings.finding import Verdict
from fulmen.core.installation.installation import installation_of
from fulmen.core.materials.materials import materials
from tests.jobs import GARAGE, RULES, WIRED_ANEW, evaluation, finding, job, mark

MEETS, SHORT, NEEDS = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS
SOCKETS, LIGHTS = "garage-sockets", "garage-lights"


def verdict(rule: str, subject: str, changes: dict[str, Any]) -> Verdict | None:
    found = {one.key: one.verdict for one in evaluation(WIRED_ANEW, changes).findings}
    return found.get(f"{rule}/{subject}")


class LoadCircuits(unittest.TestCase):
    def test_an_ordinary_garage_holds(self) -> None:
        found = evaluation(WIRED_ANEW)
        self.assertEqual(found.falls_short(), [])
        rules = {one.rule for one in found.findings if one.subject == SOCKETS}
        self.assertLessEqual(
            {"load_on_device", "weakest_section", "volt_drop", "disconnection", "survives_fault", "loads_rcd"}, rules
        )

    def test_nothing_of_a_car_is_asked_of_it(self) -> None:
        rules = {one.rule for one in evaluation(WIRED_ANEW).findings if one.subject in (SOCKETS, LIGHTS)}
        self.assertFalse(rules & {"maker_device", "own_rcd", "open_pen", "dc_protection", "slack", "connector_height"})

    def test_each_check_at_its_limit(self) -> None:
        rows: list[tuple[str, str, dict[str, Any], Verdict]] = [
            ("load_on_device", SOCKETS, {"circuits.2.loads.0.rating_a": 20.0}, MEETS),
            ("load_on_device", SOCKETS, {"circuits.2.loads.0.rating_a": 20.1}, SHORT),
            ("weakest_section", SOCKETS, {"circuits.2.cable.csa_mm2": 2.5, "circuits.2.route.0.insulation_mm": 500.0}, SHORT),
            ("loads_rcd", SOCKETS, {"circuits.2.device.rcd": None}, SHORT),
            ("loads_rcd", SOCKETS, {"circuits.2.device.rcd.residual_ma": 100}, SHORT),
            ("loads_rcd", LIGHTS, {"circuits.3.device.rcd.time_delayed": True}, SHORT),
            ("loads_rcd", LIGHTS, {"circuits.3.loads": []}, NEEDS),
            ("weakest_section", LIGHTS, {"circuits.3.route.0.grouped_circuits": None}, NEEDS),
        ]  # fmt: skip
        for rule, subject, changes, expected in rows:
            with self.subTest(rule, changes=changes):
                self.assertEqual(verdict(rule, subject, changes), expected)

    def test_lights_lose_three_percent_and_sockets_five(self) -> None:
        found = {one.subject: one for one in evaluation(WIRED_ANEW).findings if one.rule == "volt_drop"}
        self.assertEqual((found[SOCKETS].limit, found[LIGHTS].limit), (5.0, 3.0))
        self.assertEqual(found[LIGHTS].title, "Volt drop to its loads")

    def test_an_rcd_in_front_serves_where_the_way_has_none(self) -> None:
        front = {
            "boards.1.incomer": [{"id": "rccb", "kind": "rccb", "rcd": mark("A")}],
            "circuits.2.device.rcd": None,
        }
        self.assertIs(verdict("loads_rcd", SOCKETS, front), MEETS)

    def test_a_circuit_of_another_load_wants_no_rcd_of_its_own(self) -> None:
        heating = {
            "circuits.2.loads": [{"kind": "heating", "name": "Heater", "rating_a": 13.0}],
            "circuits.2.device.rcd": None,
        }
        self.assertIsNone(verdict("loads_rcd", SOCKETS, heating))

    def test_the_sub_main_carries_them_with_diversity(self) -> None:
        made = job(WIRED_ANEW)
        load = circuit_load(installation_of(made), made.circuits[0], RULES)
        # 32 A for the car in full; sockets 20 A in full and 66 % of 2 A of lights: the same rule as for loads that are there.
        self.assertAlmostEqual(load.ib_a, 32 + 20 + 0.66 * 2)
        there = job(GARAGE)
        self.assertAlmostEqual(circuit_load(installation_of(there), there.circuits[0], RULES).ib_a, 32 + 16 + 0.66 * 2)

    def test_they_count_in_the_house(self) -> None:
        added = {"load.method": "added_up", "load.appliances": []}
        self.assertAlmostEqual(demand_of(installation_of(job(WIRED_ANEW, added)), RULES).house_a or 0, 20 + 0.66 * 2)

    def test_its_steps_and_its_row_in_the_schedule(self) -> None:
        whole = evaluation(WIRED_ANEW).steps
        steps = {step.step.value for step in whole if step.subject == SOCKETS and step.offered_with is None}
        self.assertEqual(
            steps,
            {
                "r1_r2",
                "r1_rn",
                "ir_live_earth",
                "ir_line_neutral",
                "polarity_dead",
                "zs",
                "rcd_trip",
                "rcd_button",
            },
        )
        gaps = {gap.key for gap in evaluation(WIRED_ANEW).gaps}
        self.assertIn(f"zs/{SOCKETS}", gaps)

    def test_what_is_only_there_is_no_circuit(self) -> None:
        self.assertFalse([one for one in evaluation(GARAGE).steps if "ockets" in one.title])

    def test_cable_and_device_are_bought(self) -> None:
        need = {one.key: one.quantity for one in materials(job(WIRED_ANEW))}
        self.assertEqual((need["rcbo.a"], need["cable.twin-and-earth.4"], need["cable.twin-and-earth.2.5"]), (3, 11, 9))

    def test_a_circuit_feeds_one_thing(self) -> None:
        with self.assertRaises(JobFileError) as caught:
            job(WIRED_ANEW, {"circuits.2.feeds": "charge-point"})
        self.assertIn("circuits.2.loads", [one.field for one in caught.exception.problems])

    def test_without_a_charge_point_it_is_still_no_job(self) -> None:
        bare = {
            "charge_points": [],
            "circuits": [
                one.model_dump(mode="json") for one in job(WIRED_ANEW).circuits if one.feeds != "charge-point"
            ],
        }
        self.assertIs(finding("charge_point", WIRED_ANEW, bare).verdict, NEEDS)
        self.assertEqual(len(installation_of(job(WIRED_ANEW, bare)).load_runs), 2)
