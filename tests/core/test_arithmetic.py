"""The arithmetic of ratings, volt drop, loop, energy and open PEN against sums done by hand here."""

import unittest
from math import sqrt

from fulmen.core.electrical.cable_rating import conductor_temperature_c, section_rating
from fulmen.core.electrical.fault_energy import device_energy_a2s, least_csa_mm2, let_through_a2s
from fulmen.core.electrical.fault_loop import conductor_ohm, prospective_fault_ka, temperature_factor, zs_limit_ohm
from fulmen.core.electrical.open_pen import electrode_limit_ohm, met_voltage_v
from fulmen.core.electrical.volt_drop import temperature_correction
from fulmen.core.errors import TableError
from fulmen.core.model.guards import Device
from fulmen.core.model.route import Section
from fulmen.core.reference.cable_catalogue import cable_record, cable_records
from tests.jobs import PLACE_OF

SWA, FLAT, NYY = (
    cable_record(cable_records(), "swa-3-core"),
    cable_record(cable_records(), "twin-and-earth"),
    cable_record(cable_records(), "nyy-j"),
)


def section(method: str = "C", **fields: object) -> Section:
    return Section.model_validate({"surroundings": PLACE_OF[method], "method": method, "length_m": 10, **fields})


class Rating(unittest.TestCase):
    def test_alone_in_thirty_degrees_is_the_printed_figure(self) -> None:
        self.assertEqual(section_rating(section(), SWA, 6).iz_a, 62)

    def test_grouped_and_warm_by_hand(self) -> None:
        # 4D2A C 6 mm² 46 A · Ca 0.87 at 40 °C · Cg 0.70 for three bunched
        rating = section_rating(section(temperature_c=40, grouped_circuits=3), NYY, 6)
        self.assertAlmostEqual(rating.iz_a or 0, 46 * 0.87 * 0.70)

    def test_side_by_side_carries_more_than_bunched(self) -> None:
        bunched = section_rating(section(grouped_circuits=4), SWA, 6).iz_a or 0
        apart = section_rating(section(grouped_circuits=4, single_layer=True), SWA, 6).iz_a or 0
        self.assertAlmostEqual(apart / bunched, 0.75 / 0.65)

    def test_insulation_by_the_next_longer_row(self) -> None:
        for length_mm, factor in ((0, 1), (50, 0.88), (51, 0.78), (200, 0.63), (399, 0.51), (401, 0.5), (9000, 0.5)):
            with self.subTest(length_mm):
                rating = section_rating(section(insulation_mm=length_mm), SWA, 6)
                self.assertAlmostEqual(rating.iz_a or 0, 62 * factor)

    def test_buried_by_hand(self) -> None:
        # 4E4A D 10 mm² 71 A · Ca 1.04 at 15 °C · Cg 0.75 two touching · Cs 1.12 at 2 · Cd 1.03 at 0.5 m · Cc 0.9
        rating = section_rating(
            section("D", temperature_c=15, grouped_circuits=2, soil_km_per_w=2, depth_m=0.5), SWA, 10
        )
        self.assertAlmostEqual(rating.iz_a or 0, 71 * 1.04 * 0.75 * 1.12 * 1.03 * 0.9)

    def test_in_a_duct_the_soil_matters_less(self) -> None:
        wet = section_rating(section("D", soil_km_per_w=1, in_duct=True), SWA, 6)
        self.assertAlmostEqual(wet.iz_a or 0, 53 * 1.18 * 0.9)

    def test_three_loaded_conductors(self) -> None:
        self.assertEqual(section_rating(section(), SWA, 6, phases=3).iz_a, 53)

    def test_what_no_table_rates_has_no_rating_and_says_so(self) -> None:
        for unrated, record in ((section("D"), FLAT), (section("D"), NYY), (section("D", depth_m=1.51), SWA),
                                (section("D", grouped_circuits=7), SWA)):  # fmt: skip
            with self.subTest(unrated):
                rating = section_rating(unrated, record, 6)
                self.assertIsNone(rating.iz_a)
                self.assertRegex(rating.why_unrated, "No rating: .*(holds no figure|is past its last row)")

    def test_the_working_ends_with_the_value_and_names_its_tables(self) -> None:
        rating = section_rating(section(temperature_c=33), SWA, 6)
        self.assertEqual(rating.working()[-1].value, rating.iz_a)
        self.assertIn("Table 4E4A, column C.2", rating.working()[0].source)
        self.assertIn("column xlpe 90, 35 °C, for 33", rating.working()[1].source)

    def test_conductor_temperature_at_full_rating_is_the_limit(self) -> None:
        self.assertEqual(conductor_temperature_c(62, 62, 30, 90), 90)
        self.assertEqual(conductor_temperature_c(0, 62, 30, 90), 30)


class VoltDrop(unittest.TestCase):
    def test_ct_at_full_load_is_one(self) -> None:
        self.assertAlmostEqual(temperature_correction(70, 30, 1.0, 47, 47), 1)

    def test_ct_by_hand(self) -> None:
        # (230 + 70 − (0.94² − (32/47)²)·40)/300
        self.assertAlmostEqual(
            temperature_correction(70, 30, 0.94, 32, 47), (300 - (0.94**2 - (32 / 47) ** 2) * 40) / 300
        )

    def test_a_cool_place_is_not_credited(self) -> None:
        self.assertEqual(temperature_correction(70, 30, 1.03, 32, 47), temperature_correction(70, 30, 1.0, 32, 47))


class Loop(unittest.TestCase):
    def test_resistance_and_heat(self) -> None:
        self.assertAlmostEqual(conductor_ohm(55, 4), 0.25355)
        self.assertAlmostEqual(temperature_factor(20), 1)

    def test_limits_by_hand(self) -> None:
        for curve, rating, limit in (
            ("B", 16, 2.73),
            ("B", 32, 1.37),
            ("B", 40, 1.09),
            ("C", 32, 0.68),
            ("C", 40, 0.55),
        ):
            with self.subTest(curve=curve, rating=rating):
                self.assertAlmostEqual(zs_limit_ohm(curve, rating, 230, 0.95), limit, places=2)

    def test_prospective_fault(self) -> None:
        self.assertAlmostEqual(prospective_fault_ka(0.2, 230, 1.1), 1.265)


class Energy(unittest.TestCase):
    def test_next_fault_current_up(self) -> None:
        for fault_ka, energy in ((0.3, 18000), (3, 18000), (3.01, 45000), (6, 45000), (10, 90000)):
            with self.subTest(fault_ka):
                self.assertEqual(let_through_a2s("B", 32, fault_ka)[0], energy)

    def test_past_the_table(self) -> None:
        for rating, fault_ka in ((32, 10.01), (50, 3)):
            with self.subTest(rating), self.assertRaises(TableError):
                let_through_a2s("B", rating, fault_ka)

    def test_below_the_first_row_half_a_period_bounds_it(self) -> None:
        """3 kA is the first row; below it I²·0.01 s, never more than the row, never less than Ia²·0.1 s."""
        for rating, fault_ka, energy in ((6, 1.0, 10000.0), (6, 1.3, 15000.0), (6, 3.0, 15000.0), (6, 3.1, 35000.0),
                                         (40, 0.4, 4000.0), (40, 0.5, 4000.0), (6, 0.01, 90.0)):  # fmt: skip
            with self.subTest(rating=rating, fault_ka=fault_ka):
                found = device_energy_a2s(Device(rating_a=rating), fault_ka, 100.0)[0]
                self.assertAlmostEqual(found, energy)

    def test_one_and_a_half_behind_b32_fails_at_six_kiloamperes(self) -> None:
        """Common practice, no source: the usual warning about flat 2.5/1.5 cable."""
        least = least_csa_mm2(let_through_a2s("B", 32, 6)[0], 115)
        self.assertAlmostEqual(least, sqrt(45000) / 115)
        self.assertTrue(1.5 < least < 2.5)


class OpenPen(unittest.TestCase):
    def test_limit_inverts_the_voltage(self) -> None:
        for load_a in (5, 32, 40, 80, 100):
            with self.subTest(load_a):
                limit = electrode_limit_ohm(load_a, 230, 1.1, 70)
                self.assertAlmostEqual(met_voltage_v(limit, load_a, 230, 1.1), 70)

    def test_a_garden_rod_never_holds_it(self) -> None:
        self.assertGreater(met_voltage_v(30, 40, 230, 1.1), 200)
