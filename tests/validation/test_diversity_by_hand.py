"""Diversity and demand of whole dwellings, summed by hand with plain numbers beside each.

The shares (66 %, 10 A + 50 %, 10 A + 30 % + 5 A, two largest + 25 %, largest + 40 %) are the usual ones of guidance for one
dwelling under BS 7671 311.1: from memory. The dwellings are made up; the sums in the comments were done by hand.
"""

import unittest
from typing import Any

from fulmen.core.demand.demand import demand_of
from fulmen.core.installation.installation import installation_of
from tests.jobs import RULES, job

A, KW = "rating_a", "rating_kw"


def total(*entries: tuple[str, str, float], socket: bool = False, **changes: Any) -> tuple[float, float]:
    """House and whole demand of a list of appliances."""
    listed = [
        {"kind": kind, unit: figure, "socket_in_unit": socket and kind == "cooker"} for kind, unit, figure in entries
    ]
    found = demand_of(
        installation_of(job(changes={"load.method": "added_up", "load.appliances": listed} | changes)), RULES
    )
    assert found.house_a is not None and found.held_a is not None
    return round(found.house_a, 2), round(found.held_a, 2)


class Dwellings(unittest.TestCase):
    def test_small_flat(self) -> None:
        # lighting 0.66·6 = 3.96; ring 32; hob 7.2 kW = 31.304 A: 10 + 0.3·21.304 = 16.391 → 52.35; with 32 A 84.35
        self.assertEqual(total(("lighting", A, 6), ("sockets", A, 32), ("cooker", KW, 7.2)), (52.35, 84.35))

    def test_semi_with_shower(self) -> None:
        # 0.66·12 = 7.92; 32 + 0.4·32 = 44.8; 10 kW = 43.478: 10 + 0.3·33.478 + 5 = 25.043; 9.5 kW = 41.304 → 119.07; 151.07
        found = total(("lighting", A, 6), ("lighting", A, 6), ("sockets", A, 32), ("sockets", A, 32), ("cooker", KW, 10),
                      ("shower", KW, 9.5), socket=True)  # fmt: skip
        self.assertEqual(found, (119.07, 151.07))

    def test_all_electric_with_storage_heating(self) -> None:
        # storage 3·2.5 kW = 32.609; immersion 3 kW = 13.043; lighting 3.96; ring 32 → 81.61; + 32 = 113.61
        found = total(("storage_heating", KW, 2.5), ("storage_heating", KW, 2.5), ("storage_heating", KW, 2.5), ("water_heater", KW, 3),
                      ("lighting", A, 6), ("sockets", A, 32))  # fmt: skip
        self.assertEqual(found, (81.61, 113.61))

    def test_panel_heaters_and_two_showers(self) -> None:
        # heaters 4·2 kW = 34.783: 10 + 0.5·24.783 = 22.391; showers 8.5 kW each 36.957, three: 2·36.957 + 0.25·36.957 = 83.152
        # lighting 0.66·18 = 11.88 → 117.42; + 32 = 149.42
        found = total(*[("heating", KW, 2.0)] * 4, *[("shower", KW, 8.5)] * 3, *[("lighting", A, 6.0)] * 3)
        self.assertEqual(found, (117.42, 149.42))

    def test_heat_pump_and_a_second_charge_point(self) -> None:
        # heat pump 5 kW = 21.739; charge point 32; 32 + 0.4·(20 + 16) = 46.4; lighting 7.92 → 108.06; + 32 = 140.06
        found = total(
            ("heat_pump", KW, 5),
            ("car", A, 32),
            ("sockets", A, 20),
            ("sockets", A, 32),
            ("sockets", A, 16),
            ("lighting", A, 12),
        )
        self.assertEqual(found, (108.06, 140.06))

    def test_with_a_load_limit_and_turned_down(self) -> None:
        # 0.66·6 + 32 + 0.4·20 = 43.96; limit 60 holds 43.96 + 32 to 60; turned down to 16: 59.96
        house = (("lighting", A, 6.0), ("sockets", A, 32.0), ("sockets", A, 20.0))
        self.assertEqual(total(*house, **{"supply.load_limit_a": 60.0}), (43.96, 60.0))
        self.assertEqual(total(*house, **{"charge_points.0.set_current_a": 16.0}), (43.96, 59.96))
