"""The square-root law behind the ambient factors: heat flows with the temperature difference, and is made with I².

Ca = √((tp − ta)/(tp − tref)), the law IEC 60364-5-52 gives for its own tables. BS 7671 Tables 4B1 and 4B2 are quoted
from memory. Tolerance: one unit of the second decimal, which they print. Below 30 °C BS 7671 prints less than the
law gives (1.03 against 1.06), on the safe side; that is tested as an inequality.
"""

import unittest
from math import sqrt

from fulmen.core.reference.cable_catalogue import OPERATING_C
from fulmen.core.reference.tables import table


class AmbientLaw(unittest.TestCase):
    def test_air_and_ground(self) -> None:
        for key, reference_c in (("ca_air", 30), ("ca_ground", 20)):
            for insulation, operating_c in OPERATING_C.items():
                for ambient_c in table(key).rows:
                    printed = table(key).at(insulation, ambient_c)
                    law = sqrt((operating_c - ambient_c) / (operating_c - reference_c))
                    with self.subTest(table=key, insulation=insulation, ambient_c=ambient_c):
                        if ambient_c >= reference_c or key == "ca_ground":
                            self.assertAlmostEqual(printed, law, delta=0.0101)
                        else:
                            self.assertLess(printed, law)
