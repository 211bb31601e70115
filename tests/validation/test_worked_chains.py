"""Whole chains in the style of the guidance books, worked by hand here with plain numbers.

Invented examples; each sum uses only figures that BS 7671 Appendix 4, BS EN 60228, BS 88-2 and BS 5467 print (from
memory), never a function of the core. Together with test_worked_examples.py they are more than ten.
"""

import unittest
from math import sqrt
from typing import Any

from fulmen.core.findings.finding import Finding
from tests.jobs import GARAGE, HALFWAY, PLACE_OF, THREE_PHASE, evaluation


def section(length_m: float, method: str = "C", **more: Any) -> dict[str, Any]:
    return {"surroundings": PLACE_OF[method], "method": method, "length_m": length_m, **more}


def cold(xlpe_ib: float, iz: float, it: float) -> float:
    """Ct of 90 °C cable in air with C = Iz/It, by the published formula."""
    return (320 - ((iz / it) ** 2 - (xlpe_ib / it) ** 2) * 60) / 320


NO_TAILS: dict[str, Any] = {
    "supply.tails.0.csa_mm2": None,
    "supply.ze_enquiry_ohm": 0.20,
    "circuits.0.slack_m": 0.0,
    "circuits.1.slack_m": 0.0,
}


class Hand(unittest.TestCase):
    name = GARAGE

    def value(self, key: str, changes: dict[str, Any]) -> float:
        return self.found(key, changes).value or 0.0

    def found(self, key: str, changes: dict[str, Any]) -> Finding:
        return next(one for one in evaluation(self.name, changes).findings if one.key == key)


class GarageByHand(Hand):
    """A 63 A fuse, a 10 mm² armoured sub-main, a garage board with 32 A for the car and other loads."""

    def plain(self, **more: Any) -> dict[str, Any]:
        route = {"circuits.0.route": [section(20)], "circuits.1.route": [section(5)]}
        cable = {"circuits.1.cable": {"record": "nyy-j", "csa_mm2": 6.0}}
        return {**NO_TAILS, **route, **cable, **more}

    def test_load_of_the_sub_main(self) -> None:
        # 32 A of car in full; lights 2 A at 66 %; the one socket circuit, 16 A, in full
        self.assertAlmostEqual(self.value("load_on_device/sub-main", {}), 32 + 0.66 * 2 + 16)

    def test_two_socket_circuits_share(self) -> None:
        loads = [{"kind": "sockets", "rating_a": 16.0}, {"kind": "sockets", "rating_a": 10.0}]
        self.assertAlmostEqual(self.value("load_on_device/sub-main", {"boards.1.other_loads": loads}), 32 + 16 + 4)

    def test_volt_drop_along_both_circuits(self) -> None:
        # 10 mm² XLPE 4.7 mV/A/m, 85 A clipped; 6 mm² PVC 2·3.08·1.2 mV/A/m, 46 A clipped
        sub_a = 32 + 0.66 * 2 + 16
        sub_v = 4.7 * sub_a * 20 / 1000 * cold(sub_a, 85, 85)
        final_v = 2 * 3.08 * 1.2 * 32 * 5 / 1000 * (300 - (1 - (32 / 46) ** 2) * 40) / 300
        self.assertAlmostEqual(self.value("volt_drop/ev", self.plain()), (sub_v + final_v) / 230 * 100, places=6)

    def test_loop_at_the_garage_and_at_the_car(self) -> None:
        # 1.83 and 3.08 mΩ/m at 20 °C; 90 °C: 1.28, 70 °C: 1.20
        at_garage = 0.20 + 20 * 2 * 1.83 / 1000 * 1.28
        at_car = at_garage + 5 * 2 * 3.08 / 1000 * 1.20
        self.assertAlmostEqual(self.value("disconnection/sub-main", self.plain()), at_garage, places=6)
        self.assertAlmostEqual(self.value("disconnection/ev", self.plain()), at_car, places=6)

    def test_fault_level_at_the_garage(self) -> None:
        # 1.4 kA at the origin; L-N through 2·1.83, L-E through 1.83 and core and armour side by side (4.0 mΩ/m)
        beside = 1.83 * 4.0 / (1.83 + 4.0)
        source_ohm = 253 / 1400
        loop_ohm = source_ohm + 20 * min(2 * 1.83, 1.83 + beside) / 1000
        self.assertAlmostEqual(self.value("breaking_capacity/ev", self.plain()), 253 / loop_ohm / 1000, places=6)

    def test_fuse_energy_at_the_far_end(self) -> None:
        # 63 A: 0.78 Ω opens it in 5 s, so 280 A; at 5 s that is the most energy between there and the fast region
        opens_a = 230 * 0.95 / 0.78
        expected = sqrt(opens_a**2 * 5) / 143
        self.assertAlmostEqual(self.found("survives_fault/sub-main", self.plain()).limit or 0, expected, places=6)

    def test_a_clamp_holds_the_sub_main(self) -> None:
        held = {"circuits.0.load_limit_a": 45.0}
        self.assertAlmostEqual(self.value("load_on_device/sub-main", held), 45.0)

    def test_two_core_cable_with_its_armour_alone(self) -> None:
        # 6 mm² two-core: armour 7.0 mΩ/m at 20 °C, steel 0.0045 per K, 80 °C in 90 °C cable
        cable = {"circuits.0.cable": {"record": "swa-2-core", "csa_mm2": 6.0}}
        expected = 0.20 + 20 * (3.08 * 1.28 + 7.0 * (1 + 0.0045 * 60)) / 1000
        changes = self.plain(**cable)
        self.assertAlmostEqual(self.value("disconnection/sub-main", changes), expected, places=6)
        self.assertAlmostEqual(self.found("armour_alone/sub-main", changes).limit or 0, 6 * 143 / 46, places=6)

    def test_core_and_armour_together(self) -> None:
        cable = {"circuits.0.cable": {"record": "swa-3-core", "csa_mm2": 10.0, "protective": "core_and_armour"}}
        core, armour = 1.83 * 1.28, 4.0 * 1.27
        expected = 0.20 + 20 * (1.83 * 1.28 + core * armour / (core + armour)) / 1000
        self.assertAlmostEqual(self.value("disconnection/sub-main", self.plain(**cable)), expected, places=6)

    def test_two_cables_joined_on_the_way(self) -> None:
        # 3 m of 6/2.5 flat cable, then 4 m of 6/6 NYY-J: 3.08 + 7.41 and 3.08 + 3.08 mΩ/m, both at 1.20
        flat = section(3, cable={"record": "twin-and-earth", "csa_mm2": 6.0})
        changes = self.plain(**{"circuits.1.route": [flat, section(4)]})
        at_garage = 0.20 + 20 * 2 * 1.83 / 1000 * 1.28
        expected = at_garage + (3 * (3.08 + 7.41) + 4 * 2 * 3.08) / 1000 * 1.20
        self.assertAlmostEqual(self.value("disconnection/ev", changes), expected, places=6)


class ThreePhaseByHand(Hand):
    name = THREE_PHASE

    def test_volt_drop_of_a_balanced_charge_point_beside_a_single_phase_one(self) -> None:
        # 16 mm² sub-main: 16 A balanced at √3·1.15·1.28 = 2.55 over √3 mV, 32 A of the other car and 66 % of 3 A at 2·1.15·1.28 = 2.94 mV; 6 mm² final
        # circuit: 16 A at √3·3.08·1.28 = 6.83 mV over √3. Three loaded: 94 A clipped, 53 A clipped.
        route = {
            "circuits.0.route": [section(30)],
            "circuits.1.route": [section(10)],
            "supply.tails.0.csa_mm2": None,
            "circuits.0.slack_m": 0.0,
            "circuits.1.slack_m": 0.0,
        }
        single_a, sub_ib = 32 + 0.66 * 3, 16 + 32 + 0.66 * 3
        sub_v = (1.15 * 1.28 * 16 + 2 * 1.15 * 1.28 * single_a) * 30 / 1000 * cold(sub_ib, 94, 94)
        final_v = 3.08 * 1.28 * 16 * 10 / 1000 * cold(16, 53, 53)
        self.assertAlmostEqual(self.value("volt_drop/ev-left", route), (sub_v + final_v) / 230 * 100, places=6)

    def test_22_kw(self) -> None:
        # 32 A on three phases: Un·√3·I = 22.2 kW; device and cable for three loaded conductors
        changes: dict[str, Any] = {"charge_points.0.max_current_a": 32.0, "circuits.1.route": [section(10)]}
        self.assertAlmostEqual(400 * sqrt(3) * 32 / 1000, 22.2, places=1)
        self.assertEqual(self.value("load_on_device/ev-left", changes), 32)
        self.assertEqual(self.value("weakest_section/ev-left", changes), 53)


class OneCircuitByHand(Hand):
    name = HALFWAY

    def test_the_70_degree_table_for_70_degree_terminals(self) -> None:
        # 6 mm² armoured XLPE rated from 4D4A: C 49 A, at 40 °C PVC 0.87
        changes = {"readings": [], "circuits.0.route": [section(10, temperature_c=40.0)], "circuits.0.terminals": "rate_at_70",
                   "circuits.0.cable": {"record": "swa-3-core", "csa_mm2": 6.0}}  # fmt: skip
        self.assertAlmostEqual(self.value("weakest_section/ev", changes), 49 * 0.87, places=6)
        expected = 30 + 10 + (70 - 40) * (32 / (49 * 0.87)) ** 2
        self.assertAlmostEqual(self.value("terminal_temperature/ev", changes), expected, places=6)

    def test_a_makers_own_rating(self) -> None:
        own = {"id": "own-ev", "name": "Own cable", "source": "maker's sheet", "insulation": "xlpe_90",
               "ratings": [{"method": "D", "csa_mm2": 6.0, "rating_a": 48.0}]}  # fmt: skip
        # In the ground at 25 °C: 0.96; 0.5 m deep in 2.5 K·m/W: 1.03 and 1.00; buried 0.90
        changes = {"readings": [], "maker_cables": [own], "circuits.0.cable": {"record": "own-ev", "csa_mm2": 6.0},
                   "circuits.0.route": [section(10, "D", temperature_c=25.0, depth_m=0.5)]}  # fmt: skip
        self.assertAlmostEqual(self.value("weakest_section/ev", changes), 48 * 0.96 * 1.03 * 0.90, places=6)
