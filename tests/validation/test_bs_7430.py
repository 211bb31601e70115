"""BS 7430, rods: the formula of one rod against the potential of a line charge, λ of rods in line against the sum of
mutual resistances of equal hemispherical sources. Neither uses a figure of the standard.
"""

import unittest
from math import pi

from scipy.integrate import dblquad

from fulmen.core.electrical.electrode import rod_ohm, rods_in_line_ohm
from fulmen.core.reference.tables import table


class OneRod(unittest.TestCase):
    def test_mean_potential_of_a_line_charge_with_its_image(self) -> None:
        """R = ρ/(4πL²)·∬(1/√(a² + (x−y)²) + 1/√(a² + (x+y)²)) dx dy, which the closed formula stands for."""
        for rod_m, rod_mm in ((1.2, 16), (2.4, 16), (3.6, 14)):
            a = rod_mm / 2000

            def kernel(x: float, y: float, a: float = a) -> float:
                return (a**2 + (x - y) ** 2) ** -0.5 + (a**2 + (x + y) ** 2) ** -0.5

            # Half of the square, by symmetry, so that the sharp ridge lies on the edge.
            integral, _ = dblquad(kernel, 0, rod_m, 0, lambda y: y, epsabs=1e-4)
            with self.subTest(rod_m=rod_m):
                self.assertAlmostEqual(
                    rod_ohm(100, rod_m, rod_mm),
                    100 * 2 * integral / (4 * pi * rod_m**2),
                    delta=0.02 * rod_ohm(100, rod_m, rod_mm),
                )


class RodsInLine(unittest.TestCase):
    def test_the_factor(self) -> None:
        """λ = 2/n·Σ(n−k)/k: each pair k spacings apart adds ρ/(2π·k·s)."""
        for rods in range(2, 7):
            expected = 2 / rods * sum((rods - k) / k for k in range(1, rods))
            self.assertAlmostEqual(table("rods_in_line").at("lambda", rods), expected, delta=0.015 * expected)

    def test_the_whole_row(self) -> None:
        for rods, spacing_m in ((2, 2.4), (3, 3.0), (6, 5.0)):
            one = rod_ohm(80, 2.4, 16)
            pairs = sum((rods - k) * 2 * 80 / (2 * pi * k * spacing_m) for k in range(1, rods))
            expected = (rods * one + pairs) / rods**2
            self.assertAlmostEqual(rods_in_line_ohm(one, rods, spacing_m, 80), expected, delta=0.01 * expected)
