"""Readings against each other, at, below and above each band; a parallel path is solved for."""

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.electrical.parallel_path import parallel_path_ohm
from fulmen.core.findings.finding import Finding, Verdict
from tests.core.test_earth_readings import ISLAND, read
from tests.jobs import DEVICE_IN_UNIT, GARAGE, TREATED_AS_PME, TT, WITH_TESTER, finding

MEETS, CALL, SHORT = Verdict.MEETS, Verdict.YOUR_CALL, Verdict.FALLS_SHORT


def agreeing(rule: str, *readings: dict[str, Any], name: str = DEVICE_IN_UNIT, **changes: Any) -> Finding:
    return finding(rule, name, {"readings": list(readings), **WITH_TESTER, **changes})


def at_origin(step: str, value: float) -> dict[str, Any]:
    return read(step, value, "origin")


class ParallelPath(unittest.TestCase):
    @given(st.floats(0.001, 100), st.floats(0.001, 100))
    def test_it_undoes_two_conductors_side_by_side(self, alone_ohm: float, path_ohm: float) -> None:
        together = alone_ohm * path_ohm / (alone_ohm + path_ohm)
        found = parallel_path_ohm(alone_ohm, together)
        if found is not None and alone_ohm - together > 1e-6 * alone_ohm:
            self.assertAlmostEqual(found, path_ohm, delta=path_ohm * 1e-3)

    def test_no_path_explains_a_figure_that_is_not_lower(self) -> None:
        for together in (0.10, 0.11, 0.0, -0.01):
            self.assertIsNone(parallel_path_ohm(0.10, together))

    def test_zs_below_the_sum_says_what_lies_beside_and_what_is_left_without_it(self) -> None:
        """By hand: Ze 0.20, tails of 25 mm² 0.003, R1+R2 0.40, half of it R2, lead 0.033: Zs alone 0.636. Read 0.50: X =
        0.50 − 0.436 = 0.064, so Rp = 0.2·0.064/(0.2 − 0.064) = 0.094 Ω."""
        found = agreeing("agree_zs", at_origin("ze", 0.20), read("r1_r2", 0.40), read("zs", 0.50))
        self.assertEqual(found.verdict, CALL)
        self.assertIn("0.09 Ω beside it", found.detail)
        self.assertIn("Zs is about 0.64 Ω", found.detail)
        self.assertEqual([line.symbol for line in found.working][-3:], ["expected", "X", "Rp"])


class Conductors(unittest.TestCase):
    def test_r1_rn_with_r1_r2_of_one_size(self) -> None:
        """6 mm² with a 6 mm² core and armour beside it: 2·3.08/6.16 = 1 to 2·3.08/(3.08 + 2.11) = 1.19 of R1+R2.
        Instruments 1.3·√(0.027² + 0.0274²) = 0.050, metal 0.003, link 0.007: 0.0404 to 0.178."""
        for value, verdict in ((0.04, CALL), (0.05, MEETS), (0.10, MEETS), (0.17, MEETS), (0.18, CALL)):
            with self.subTest(value):
                found = agreeing("agree_rn_r2", read("r1_r2", 0.10), read("r1_rn", value))
                self.assertEqual(found.verdict, verdict, found.detail)

    def test_a_small_earth_makes_r1_rn_the_smaller(self) -> None:
        """GARAGE's final circuit begins with 6/2.5 mm²: R1+Rn lies below R1+R2, and as much as it is wrong."""
        for value, verdict in ((0.045, MEETS), (0.10, MEETS), (0.11, CALL)):
            found = agreeing("agree_rn_r2", read("r1_r2", 0.064), read("r1_rn", value), name=GARAGE)
            self.assertEqual(found.verdict, verdict, found.detail)

    def test_nought_is_no_cable(self) -> None:
        for step in ("r1_r2", "r1_rn", "r2"):
            self.assertEqual(agreeing(f"agree_{step}", read(step, 0.0)).verdict, CALL)

    def test_a_loop_further_on_is_not_less(self) -> None:
        for here, verdict in ((0.39, CALL), (0.40, MEETS), (0.60, MEETS)):
            found = agreeing("agree_zs_chain", read("zs", 0.50, "sub-main"), read("zs", here), name=GARAGE)
            self.assertEqual(found.verdict, verdict)

    def test_the_cables_own_loop_must_open_the_breaker_whatever_lies_beside_it(self) -> None:
        readings = [at_origin("ze", 0.30), read("r1_r2", 0.70), read("zs_cable", 0.40)]
        found = agreeing("agree_zs_cable", *readings, **ISLAND)
        self.assertEqual(found.verdict, SHORT)


class Origin(unittest.TestCase):
    def test_ze_that_would_let_more_flow_than_is_declared(self) -> None:
        for value, verdict in ((0.014, CALL), (0.015, MEETS), (0.35, MEETS)):
            self.assertEqual(agreeing("agree_ze_kind", at_origin("ze", value)).verdict, verdict)

    def test_line_to_earth_both_ways_from_u0_over_ze(self) -> None:
        """230/0.23 is 1.00 kA; both instruments off together 0.0855 Ω, −6 to +10 % of the volts, half above by what lies
        beside, and a hundredth for the display: 0.675 to 2.637."""
        for value, verdict in ((0.67, CALL), (0.68, MEETS), (2.63, MEETS), (2.64, CALL)):
            with self.subTest(value):
                found = agreeing("agree_fault_earth", at_origin("ze", 0.23), at_origin("fault_current_earth", value))
                self.assertEqual(found.verdict, verdict)

    def test_line_to_neutral_is_never_the_poorer_way(self) -> None:
        for name in (DEVICE_IN_UNIT, TREATED_AS_PME, TT):
            for neutral, verdict in ((0.67, CALL), (0.68, MEETS), (1.0, MEETS)):
                with self.subTest(name, neutral=neutral):
                    pair = (at_origin("fault_current_neutral", neutral), at_origin("fault_current_earth", 1.0))
                    self.assertEqual(agreeing("agree_fault_pair", *pair, name=name).verdict, verdict)

    def test_a_poor_neutral_shows_where_the_earth_is_no_better(self) -> None:
        """On TT line to earth says nothing about the neutral; 230 V through the 0.8 Ω that operators declare is 0.29 kA."""
        for neutral, verdict in ((0.28, CALL), (0.29, MEETS), (0.66, MEETS)):
            with self.subTest(neutral):
                pair = (at_origin("fault_current_neutral", neutral), at_origin("fault_current_earth", 0.01))
                self.assertEqual(agreeing("agree_fault_pair", *pair, name=TT).verdict, verdict)

    def test_far_more_to_neutral_is_odd_on_tn_c_s_alone(self) -> None:
        for name, verdict in ((DEVICE_IN_UNIT, CALL), (TREATED_AS_PME, MEETS), (TT, MEETS)):
            pair = (at_origin("fault_current_neutral", 2.0), at_origin("fault_current_earth", 1.0))
            self.assertEqual(agreeing("agree_fault_pair", *pair, name=name).verdict, verdict)

    def test_ze_lies_between_the_electrode_and_it_with_the_operators(self) -> None:
        for ze_ohm, verdict in ((43.2, CALL), (43.3, MEETS), (60.0, MEETS), (75.2, MEETS), (75.3, CALL), (0.3, CALL)):
            with self.subTest(ze_ohm):
                found = agreeing("agree_electrode_ze", at_origin("electrode", 48.0), at_origin("ze", ze_ohm), name=TT)
                self.assertEqual(found.verdict, verdict)

    def test_an_electrode_within_twice_and_half_of_the_forecast(self) -> None:
        for value, verdict in ((24.9, CALL), (25.0, MEETS), (100.0, MEETS), (100.1, CALL)):
            changes = {"supply.electrode_design_ohm": 50.0}
            found = agreeing("agree_electrode_forecast", at_origin("electrode", value), name=TT, **changes)
            self.assertEqual(found.verdict, verdict)

    def test_no_current_worth_showing_is_no_figure_to_reckon_with(self) -> None:
        """On TT line to earth shows 0.00 kA: nothing is divided by it, and the other figure counts."""
        both = (at_origin("fault_current_earth", 0.0), at_origin("fault_current_neutral", 0.94))
        self.assertEqual(agreeing("agree_fault_pair", *both, name=TT).verdict, MEETS)
        self.assertEqual(agreeing("reading_fault_current_earth", both[0], name=TT).verdict, MEETS)


class Rcds(unittest.TestCase):
    def test_five_times_is_sooner(self) -> None:
        for five, verdict in ((20.0, MEETS), (21.0, MEETS), (26.4, MEETS), (26.5, CALL)):
            self.assertEqual(
                agreeing("agree_rcd_five", read("rcd_trip", 21.0), read("rcd_five", five)).verdict, verdict
            )

    def test_one_without_delay_is_faster_than_one_with(self) -> None:
        for value, verdict in ((129.9, MEETS), (130.0, CALL), (299.0, CALL)):
            self.assertEqual(agreeing("agree_rcd_kind", read("rcd_trip", value)).verdict, verdict)


class Bench(unittest.TestCase):
    def test_the_duty_offers_what_was_designed(self) -> None:
        """IEC 61851-1: 32 A is 53.33 %, a point of duty either way is 0.6 A."""
        for duty, verdict in ((52.3, CALL), (52.4, MEETS), (53.3, MEETS), (54.3, MEETS), (54.4, SHORT), (5.0, CALL)):
            with self.subTest(duty):
                self.assertEqual(agreeing("agree_offered", read("pilot_duty", duty)).verdict, verdict)

    def test_a_unit_turned_down_is_held_to_that(self) -> None:
        changes = {"charge_points.0.set_current_a": 16.0}
        for duty, verdict in ((26.7, MEETS), (53.3, SHORT)):
            self.assertEqual(agreeing("agree_offered", read("pilot_duty", duty), **changes).verdict, verdict)

    def test_against_a_current_that_nobody_said_nothing_meets(self) -> None:
        unknown = {"charge_points.0.max_current_a": None, "charge_points.0.set_current_a": None}
        for rule, reading in (
            ("agree_offered", read("pilot_duty", 53.3)),
            ("agree_proximity", read("proximity", 220.0)),
        ):
            self.assertEqual(agreeing(rule, reading, **unknown).verdict, Verdict.NEEDS)

    def test_the_lead_is_coded_for_what_it_carries(self) -> None:
        for resistor, verdict in ((220.0, MEETS), (100.0, CALL), (680.0, CALL), (1500.0, CALL), (0.0, CALL)):
            self.assertEqual(agreeing("agree_proximity", read("proximity", resistor)).verdict, verdict)

    def test_no_code_says_16_a_so_20_a_is_right_for_it(self) -> None:
        unit = {"charge_points.0.max_current_a": 16.0}
        for resistor, verdict in ((680.0, MEETS), (220.0, CALL), (1500.0, CALL)):
            self.assertEqual(agreeing("agree_proximity", read("proximity", resistor), **unit).verdict, verdict)

    def test_a_broken_earth_at_below_and_above_100_ms(self) -> None:
        for value, verdict in ((99.0, MEETS), (100.0, MEETS), (101.0, SHORT)):
            self.assertEqual(agreeing("reading_earth_open", read("earth_open", value)).verdict, verdict)

    def test_each_state_in_its_window(self) -> None:
        for step, value, verdict in (
            ("pilot_a", 10.9, SHORT), ("pilot_a", 11.0, MEETS), ("pilot_a", 13.0, MEETS), ("pilot_a", 13.1, SHORT),
            ("pilot_b", 7.9, SHORT), ("pilot_b", 8.0, MEETS), ("pilot_b", 10.0, MEETS), ("pilot_b", 10.1, SHORT),
            ("pilot_c", 4.9, SHORT), ("pilot_c", 5.0, MEETS), ("pilot_c", 7.0, MEETS), ("pilot_c", 7.1, SHORT),
            ("dc_detection", 6.0, MEETS), ("dc_detection", 6.1, SHORT),
        ):  # fmt: skip
            with self.subTest(step, value=value):
                self.assertEqual(agreeing(f"reading_{step}", read(step, value)).verdict, verdict)


if __name__ == "__main__":
    unittest.main()
