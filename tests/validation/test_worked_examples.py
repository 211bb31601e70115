"""Whole circuits in the style of the guidance books, worked by hand here with plain numbers.

Invented examples; each sum uses only figures that BS 7671 Appendix 4 and BS EN 60228 print (from memory), never a
function of the core. The core must agree to the last digit shown.
"""

import unittest
from typing import Any

from fulmen.core.findings.finding import Finding
from tests.jobs import HALFWAY, PLACE_OF, THREE_PHASE, evaluation


def section(length_m: float, method: str = "C", **more: Any) -> dict[str, Any]:
    return {"surroundings": PLACE_OF[method], "method": method, "length_m": length_m, **more}


def circuit(
    record: str, csa_mm2: float, rating_a: int, route: list[dict[str, Any]], curve: str = "B"
) -> dict[str, Any]:
    return {
        "readings": [],
        "supply.ze_enquiry_ohm": 0.20,
        "supply.tails.0.csa_mm2": None,
        "circuits.0.cable.record": record,
        "circuits.0.cable.csa_mm2": csa_mm2,
        "circuits.0.device.rating_a": rating_a,
        "circuits.0.device.curve": curve,
        "circuits.0.route": route,
        "circuits.0.slack_m": 0.0,
    }


class WorkedExamples(unittest.TestCase):
    def finding(self, rule: str, changes: dict[str, Any]) -> Finding:
        return next(one for one in evaluation(HALFWAY, changes).findings if one.rule == rule)

    def check(self, changes: dict[str, Any], iz_a: float, drop_percent: float, zs_ohm: float) -> None:
        self.assertAlmostEqual(self.finding("weakest_section", changes).value or 0, iz_a, places=6)
        self.assertAlmostEqual(self.finding("volt_drop", changes).value or 0, drop_percent, places=6)
        self.assertAlmostEqual(self.finding("disconnection", changes).value or 0, zs_ohm, places=6)

    def test_one_clipped_flat_cable(self) -> None:
        # 12 m of 6/2.5 mm² flat cable, clipped, alone, 30 °C: 4D5 C 47 A; 3.08 and 7.41 mΩ/m; 70 °C; the table's
        # 7.3 mV/A/m is rounded below 2·3.08·1.20
        ct = (230 + 70 - (1 - (32 / 47) ** 2) * 40) / 300
        drop_v = 2 * 3.08 * 1.2 * 32 * 12 / 1000 * ct
        zs_ohm = 0.20 + 12 * (3.08 + 7.41) / 1000 * 1.20
        self.check(circuit("twin-and-earth", 6.0, 32, [section(12)]), 47, drop_v / 230 * 100, zs_ohm)

    def test_armoured_through_a_warm_group_and_the_ground(self) -> None:
        # 6 mm² armoured: 8 m in a group of 3 at 40 °C, then 22 m in the ground at 15 °C, 0.5 m deep, 2 K·m/W
        air, ground = 62 * 0.91 * 0.70, 53 * 1.04 * 1.12 * 1.03 * 0.90
        ct_air = (320 - ((0.91 * 0.70) ** 2 - (32 / 62) ** 2) * 60) / 320
        ct_ground = (320 - (1 - (32 / 53) ** 2) * 70) / 320  # its factors together pass 1 and are not credited
        drop_v = 7.9 * 32 * (8 * ct_air + 22 * ct_ground) / 1000
        zs_ohm = 0.20 + 30 * 2 * 3.08 / 1000 * 1.28
        route = [
            section(8, grouped_circuits=3, temperature_c=40.0),
            section(22, "D", temperature_c=15.0, depth_m=0.5, soil_km_per_w=2.0),
        ]
        self.check(circuit("swa-3-core", 6.0, 32, route), min(air, ground), drop_v / 230 * 100, zs_ohm)

    def test_loft_insulation_decides(self) -> None:
        # 10/4 mm² flat cable: 3 m clipped, 7 m above a ceiling under thick insulation (method 101: 36 A), 1 m wrapped
        # for 200 mm in a wall (0.63 × 64 A)
        weakest = min(64, 36, 64 * 0.63)
        drops = [(3, 64, 1.0), (7, 36, 1.0), (1, 64, 0.63)]
        drop_v = sum(4.4 * 32 * m / 1000 * (300 - (c**2 - (32 / it) ** 2) * 40) / 300 for m, it, c in drops)
        zs_ohm = 0.20 + 11 * (1.83 + 4.61) / 1000 * 1.20
        route = [section(3), section(7, "101"), section(1, insulation_mm=200.0)]
        self.check(circuit("twin-and-earth", 10.0, 32, route), weakest, drop_v / 230 * 100, zs_ohm)

    def test_tray_with_others_side_by_side(self) -> None:
        # 10 mm² EV cable, 45 m on tray with three others in a single layer at 35 °C: 4E2A E 86 A · 0.96 · 0.75
        iz_a = 86 * 0.96 * 0.75
        ct = (320 - ((0.96 * 0.75) ** 2 - (32 / 86) ** 2) * 60) / 320
        # Fine strands, BS EN 60228 class 5: 1.91 mΩ/m, and twice that hot is more than the 4.7 mV of Table 4E2B.
        millivolts, zs_ohm = 2 * 1.91 * 1.28, 0.20 + 45 * 2 * 1.91 / 1000 * 1.28
        route = [section(45, "E", grouped_circuits=4, single_layer=True, temperature_c=35.0)]
        self.check(
            circuit("ev-power-data", 10.0, 40, route, "C"), iz_a, millivolts * 32 * 45 / 1000 * ct / 230 * 100, zs_ohm
        )

    def test_tails_count_towards_volt_drop_and_loop(self) -> None:
        # 2 m of 16 mm² tails at the house's 70 A: 2.8 mV/A/m; 1.15 mΩ/m out, 1.15 mΩ/m back, at 70 °C
        changes = circuit("nyy-j", 6.0, 32, [section(10)])
        changes |= {"supply.tails.0.csa_mm2": 16.0, "supply.tails.0.length_m": 2.0, "supply.maximum_demand_a": 70.0}
        ct = (300 - (1 - (32 / 46) ** 2) * 40) / 300
        drop_v = 2.8 * 70 * 2 / 1000 + 2 * 3.08 * 1.2 * 32 * 10 / 1000 * ct
        zs_ohm = 0.20 + 2 * 2 * 1.15 / 1000 * 1.20 + 10 * 2 * 3.08 / 1000 * 1.20
        self.check(changes, 46, drop_v / 230 * 100, zs_ohm)

    def test_slack_is_cable(self) -> None:
        # 50 m of 6 mm² NYY-J with 8 m in a loop at the unit: 58 m in volts and in the loop
        ct = (300 - (1 - (32 / 46) ** 2) * 40) / 300
        changes = circuit("nyy-j", 6.0, 32, [section(50)]) | {"circuits.0.slack_m": 8.0}
        drop_v = 2 * 3.08 * 1.2 * 32 * 58 / 1000 * ct
        self.check(changes, 46, drop_v / 230 * 100, 0.20 + 58 * 2 * 3.08 / 1000 * 1.20)
        self.assertGreater(drop_v / 230, 0.05)

    def test_a_rounded_table_never_flatters(self) -> None:
        # 4 mm² of 90 °C insulation on three phases: √3·4.61·1.28 = 10.22 mV/A/m, the table rounds to 10
        route = {"circuits.1.route": [section(20)], "circuits.1.slack_m": 0.0, "circuits.1.cable.csa_mm2": 4.0}
        found = [one for one in evaluation(THREE_PHASE, route).findings if one.rule == "volt_drop"]
        self.assertTrue(any("10.22" in line.figures or "5.90" in line.figures for one in found for line in one.working))

    def test_let_through_by_hand(self) -> None:
        # C 40 A at a declared 4.5 kA: class 3 lets 66000 A²s through at 6 kA; √66000/143 = 1.80 mm²
        changes = circuit("ev-power-data", 6.0, 40, [section(10)], "C") | {"supply.pscc_enquiry_ka": 4.5}
        found = self.finding("survives_fault", changes)
        self.assertAlmostEqual(found.limit or 0, 66000**0.5 / 143)
        self.assertEqual(found.value, 6)
