"""Readings that good testers get, marked: common practice, no source."""

import unittest

from fulmen.core.electrical.fault_loop import conductor_ohm
from fulmen.core.electrical.open_pen import electrode_limit_ohm
from fulmen.core.verification.steps.expected_bands import band_around, zs_band
from tests.jobs import RULES


class Readings(unittest.TestCase):
    def test_fifteen_metres_of_six(self) -> None:
        """15 m of 6 mm² with a 6 mm² cpc read 0.09 Ω, both R1+R2 and R1+Rn."""
        expected = 2 * conductor_ohm(15, 6)
        self.assertAlmostEqual(expected, 0.09, delta=0.005)
        self.assertTrue(band_around(expected, RULES, "").holds(0.09))

    def test_ten_metres_of_six_from_ze(self) -> None:
        """Ze 0.10 and Zs 0.16 on about 10 m of 6 mm²."""
        self.assertTrue(zs_band(0.10, 2 * conductor_ohm(10, 6), RULES, "").holds(0.16))

    def test_a_parallel_path_is_noticed(self) -> None:
        """50 m of 10 mm² read 0.11 Ω where the cores alone would give more; Zs 0.09 Ω below it."""
        cores = 2 * conductor_ohm(50, 10)
        self.assertFalse(band_around(cores, RULES, "").holds(0.11))
        self.assertFalse(zs_band(0.05, 0.11, RULES, "").holds(0.09))

    def test_low_electrode_is_rarely_achievable(self) -> None:
        """At 40 A the electrode must be about 2.2 Ω, while 30 Ω in garden soil counts as good."""
        self.assertAlmostEqual(electrode_limit_ohm(40, 230, 1.1, 70), 2.2, delta=0.05)
