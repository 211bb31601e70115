"""The control pilot and the proximity contact against their standard.

Source: IEC 61851-1:2017, Annex A (Tables A.4, A.7 and A.8) and Annex B (Table B.2), from memory: no copy is on these
machines. Points of the curve that manuals of the trade print beside it: 16 A at 26.7 %, 32 A at 53.3 % (common practice).
"""

import unittest
from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.electrical.control_pilot import PilotState, coded_a, duty_of, offered_a, pilot_volts
from fulmen.core.reference.tables import table


class Duty(unittest.TestCase):
    def test_table_a_8_at_below_and_above_every_edge(self) -> None:
        for duty_percent, current_a in (
            (0.0, None), (2.9, None), (3.0, None), (5.0, None), (7.0, None), (7.5, None), (7.99, None),
            (8.0, 6.0), (9.0, 6.0), (10.0, 6.0), (10.1, 6.06), (16.0, 9.6), (26.7, 16.02), (53.3, 31.98),
            (84.9, 50.94), (85.0, 51.0), (85.1, 52.75), (90.0, 65.0), (95.9, 79.75), (96.0, 80.0), (96.5, 80.0),
            (97.0, 80.0), (97.1, None), (100.0, None),
        ):  # fmt: skip
            with self.subTest(duty_percent):
                offered = offered_a(duty_percent)
                if current_a is None:
                    self.assertIsNone(offered)
                else:
                    self.assertAlmostEqual(offered or 0.0, current_a, 6)

    def test_table_a_7_the_duty_that_a_unit_makes(self) -> None:
        for current_a, duty_percent in ((6, 10.0), (10, 16.67), (13, 21.67), (16, 26.67), (20, 33.33), (32, 53.33),
                                        (51, 85.0), (63, 89.2), (70, 92.0), (80, 96.0)):  # fmt: skip
            with self.subTest(current_a):
                self.assertAlmostEqual(duty_of(float(current_a)), duty_percent, 2)

    @given(st.floats(6, 51) | st.floats(52.6, 80))
    def test_a_vehicle_reads_what_was_offered(self, current_a: float) -> None:
        self.assertAlmostEqual(offered_a(duty_of(current_a)) or 0.0, current_a, 6)

    @given(st.floats(8, 97), st.floats(8, 97))
    def test_more_duty_never_offers_less(self, one: float, other: float) -> None:
        low, high = sorted((one, other))
        self.assertLessEqual(offered_a(low) or 0.0, (offered_a(high) or 0.0) + 1e-9)


class States(unittest.TestCase):
    def test_table_a_4(self) -> None:
        for state, low_v, high_v in (
            ("A", 11, 13),
            ("B", 8, 10),
            ("C", 5, 7),
            ("D", 2, 4),
            ("E", -1, 1),
            ("F", -13, -11),
        ):
            with self.subTest(state):
                self.assertEqual(pilot_volts(PilotState(state)), (low_v, high_v))

    def test_no_voltage_belongs_to_two_states(self) -> None:
        ranges = sorted(pilot_volts(state) for state in PilotState)
        for (_, high_v), (low_v, _) in pairwise(ranges):
            self.assertLess(high_v, low_v)


class Proximity(unittest.TestCase):
    def test_table_b_2(self) -> None:
        for resistor_ohm, current_a in ((1500, 13), (680, 20), (220, 32), (100, 63)):
            with self.subTest(resistor_ohm):
                self.assertEqual(coded_a(float(resistor_ohm)), current_a)

    def test_between_the_codes_nothing_is_coded(self) -> None:
        for resistor_ohm in (0.0, 89.9, 110.1, 150.0, 197.9, 242.1, 400.0, 611.0, 749.0, 1349.0, 1651.0, 5000.0):
            with self.subTest(resistor_ohm):
                self.assertIsNone(coded_a(resistor_ohm))

    def test_at_the_edges(self) -> None:
        codes = table("proximity")
        for row in codes.rows:
            for edge in ("low", "high"):
                self.assertEqual(coded_a(codes.at(edge, row)), codes.at("current_a", row))


if __name__ == "__main__":
    unittest.main()
