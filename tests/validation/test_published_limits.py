"""Limits that the trade reads from tables, recomputed or quoted. All quoted figures are from memory.

- BS 7671:2018+A2:2022 Table 41.3: largest Zs for BS EN 60898 devices, which print U0·Cmin/Ia to two decimals.
- BS 7671 Table 41.5 and 411.5.3: RA·IΔn ≤ 50 V, 1667 Ω at 30 mA.
- BS 7671 Table 54.3: k for copper from the adiabatic law of IEC 60949 (β = 234.5 K, Qc = 3.45 J/K·cm³,
  ρ20 = 1.7241e-5 Ω·mm), within half a unit.
"""

import unittest
from math import log, sqrt

from fulmen.core.electrical.fault_loop import zs_limit_ohm
from fulmen.core.reference.cable_catalogue import K_COPPER, OPERATING_C
from tests.jobs import RULES

TABLE_41_3_OHM = {
    ("B", 16): 2.73, ("B", 20): 2.19, ("B", 25): 1.75, ("B", 32): 1.37, ("B", 40): 1.09,
    ("C", 16): 1.37, ("C", 20): 1.09, ("C", 25): 0.87, ("C", 32): 0.68, ("C", 40): 0.55,
}  # fmt: skip
FINAL_C = {"pvc_70": 160.0, "xlpe_90": 250.0}


class Zs(unittest.TestCase):
    def test_table_41_3(self) -> None:
        u0_v, cmin = RULES.value("u0_v"), RULES.value("voltage_factor_min")
        for (curve, rating_a), printed in TABLE_41_3_OHM.items():
            with self.subTest(curve=curve, rating_a=rating_a):
                self.assertAlmostEqual(zs_limit_ohm(curve, rating_a, u0_v, cmin), printed, delta=0.0051)

    def test_electrode_at_thirty_milliamperes(self) -> None:
        self.assertAlmostEqual(RULES.value("touch_voltage_v") / 0.030, 1667, delta=0.5)


class AdiabaticConstant(unittest.TestCase):
    def test_k_of_copper(self) -> None:
        for insulation, k in K_COPPER.items():
            start_c, final_c = OPERATING_C[insulation], FINAL_C[insulation]
            law = sqrt(3.45e-3 * (234.5 + 20) / 1.7241e-5 * log((234.5 + final_c) / (234.5 + start_c)))
            with self.subTest(insulation):
                self.assertAlmostEqual(k, law, delta=0.6)
