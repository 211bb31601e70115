"""Devices in series: what melts, what trips, how much energy passes, at, below and above each limit."""

import unittest
from math import sqrt

from fulmen.core.electrical.fault_energy import device_energy_a2s, fuse_opens_a
from fulmen.core.electrical.fault_loop import device_zs_limit_ohm
from fulmen.core.electrical.selectivity import (
    Opener,
    cut_out_opener,
    opens_between_s,
    pre_arcing_a2s,
    selective_up_to_a,
)
from fulmen.core.errors import TableError
from fulmen.core.model.guards import Curve, Device, DeviceKind, Rcd, RcdType
from fulmen.core.reference.tables import table
from tests.jobs import DEVICE_IN_UNIT, GARAGE, evaluation, in_front, mark


def breaker(rating_a: float, curve: str = "B", rcd: Rcd | None = None) -> Opener:
    return Opener(f"{curve}{rating_a:g}", DeviceKind.BREAKER, curve, rating_a, rcd)


def fuse(rating_a: float) -> Opener:
    return Opener(f"{rating_a:g} A fuse", DeviceKind.FUSE, "", rating_a)


class FuseTable(unittest.TestCase):
    def test_loops_fall_and_energies_rise_with_the_rating(self) -> None:
        fuses = table("gg_fuse")
        for column, falls in (
            ("zs_5_s_ohm", True),
            ("zs_0.4_s_ohm", True),
            ("pre_arcing_a2s", False),
            ("total_a2s", False),
        ):
            figures = [fuses.at(column, row) for row in fuses.rows if fuses.has(column, row)]
            self.assertEqual(figures, sorted(figures, reverse=falls), column)
        self.assertLess(fuses.at("zs_0.4_s_ohm", 32.0), fuses.at("zs_5_s_ohm", 32.0))
        for row in fuses.rows[3:]:
            self.assertLess(fuses.at("pre_arcing_a2s", row), fuses.at("total_a2s", row))

    def test_loop_limit_of_a_device(self) -> None:
        for device, final, expected in (
            (Device(kind=DeviceKind.FUSE, rating_a=63), False, 0.78),
            (Device(kind=DeviceKind.FUSE, rating_a=32), True, 0.99),
            (Device(kind=DeviceKind.FUSE, rating_a=32), False, 1.75),
            (Device(kind=DeviceKind.FUSE, rating_a=63), True, None),
            (Device(kind=DeviceKind.FUSE, rating_a=16), False, 4.0),
            (Device(kind=DeviceKind.FUSE, rating_a=20), False, 2.8),
            (Device(kind=DeviceKind.FUSE, rating_a=25), False, 2.2),
            (Device(kind=DeviceKind.FUSE, rating_a=25), True, 1.37),
            (Device(kind=DeviceKind.FUSE, rating_a=100), False, 0.40),
            (Device(kind=DeviceKind.REWIRABLE, rating_a=32), True, None),
            (Device(curve=Curve.D, rating_a=32), True, 230 * 0.95 / 640),
        ):
            with self.subTest(device=device, final=final):
                self.assertEqual(device_zs_limit_ohm(device, 0.4 if final else 5.0, u0_v=230, cmin=0.95), expected)


class Energy(unittest.TestCase):
    def test_a_fuse_by_the_least_fault(self) -> None:
        device = Device(kind=DeviceKind.FUSE, rating_a=63)
        fast_a, opens_a = sqrt(27000 / 0.01), fuse_opens_a(63, "zs_5_s_ohm")
        self.assertEqual(device_energy_a2s(device, 2.0, fast_a)[0], 27000)
        self.assertAlmostEqual(device_energy_a2s(device, 2.0, fast_a - 1)[0], opens_a**2 * 5)
        self.assertAlmostEqual(device_energy_a2s(device, 2.0, opens_a)[0], opens_a**2 * 5)
        with self.assertRaises(TableError):
            device_energy_a2s(device, 2.0, opens_a - 0.1)

    def test_a_breaker_by_the_highest_fault(self) -> None:
        self.assertEqual(device_energy_a2s(Device(rating_a=40), 3.0, 500)[0], 21600)
        self.assertEqual(device_energy_a2s(Device(rating_a=40), 3.1, 500)[0], 54000)
        # Past the table's bands the longest instantaneous trip is taken.
        self.assertAlmostEqual(device_energy_a2s(Device(rating_a=50), 1.5, 500)[0], max(1500**2 * 0.01, 250**2 * 0.1))
        self.assertAlmostEqual(
            device_energy_a2s(Device(rating_a=32, curve=Curve.D), 1.5, 700)[0], max(1500**2 * 0.01, 640**2 * 0.1)
        )
        for device in (Device(rating_a=40), Device(rating_a=50)):
            with self.assertRaises(TableError):
                device_energy_a2s(device, 10.1, 500)


class Selective(unittest.TestCase):
    def test_a_breaker_behind_a_fuse(self) -> None:
        # B32 lets 18 000 A²s through at 3 kA, 45 000 at 6 kA; 100 A melts at 27 000
        self.assertEqual(selective_up_to_a(fuse(100), breaker(32)), 3000)
        # 63 A melts at 9 000: not even the first row holds, so half a cycle: √(9000/0.01)
        self.assertAlmostEqual(selective_up_to_a(fuse(63), breaker(32)) or 0, sqrt(9000 / 0.01))

    def test_fuse_behind_fuse(self) -> None:
        self.assertIsNone(selective_up_to_a(fuse(100), fuse(50)))  # 16 000 total, 27 000 melts
        self.assertAlmostEqual(selective_up_to_a(fuse(80), fuse(63)) or 0, sqrt(16000 / 0.01))

    def test_breaker_behind_breaker_and_the_wrong_way_round(self) -> None:
        self.assertEqual(selective_up_to_a(breaker(63), breaker(32)), 3 * 63)
        self.assertEqual(selective_up_to_a(breaker(63, "C"), breaker(32)), 5 * 63)
        self.assertEqual(selective_up_to_a(breaker(32), breaker(32)), 0)
        self.assertEqual(selective_up_to_a(fuse(32), breaker(40)), 0)

    def test_a_cut_out_of_60_a_melts_like_the_next_rating_down(self) -> None:
        self.assertEqual(pre_arcing_a2s(60), pre_arcing_a2s(50))
        self.assertIsNone(pre_arcing_a2s(25))
        self.assertEqual(cut_out_opener(60, "bs_88_3").kind, DeviceKind.FUSE)


class Times(unittest.TestCase):
    def test_a_breaker_between_its_two_multiples(self) -> None:
        self.assertEqual(opens_between_s(breaker(32), 160, to_earth=False), (0.0, 0.1))
        self.assertEqual(opens_between_s(breaker(32), 159, to_earth=False), (0.0, float("inf")))
        self.assertEqual(opens_between_s(breaker(32), 95, to_earth=False), (5.0, float("inf")))

    def test_residual_devices_count_for_faults_to_earth_only(self) -> None:
        guard = breaker(32, rcd=Rcd(type=RcdType.A))
        self.assertEqual(opens_between_s(guard, 10, to_earth=True), (0.0, 0.04))
        self.assertEqual(opens_between_s(guard, 10, to_earth=False)[1], float("inf"))
        delayed = breaker(32, rcd=Rcd(type=RcdType.A, residual_ma=100, time_delayed=True))
        self.assertEqual(opens_between_s(delayed, 10, to_earth=True), (0.05, 0.15))
        self.assertEqual(opens_between_s(delayed, 0.2, to_earth=True), (0.13, 0.5))
        self.assertEqual(opens_between_s(delayed, 0.05, to_earth=True)[1], float("inf"))

    def test_a_fuse_opens_between_its_pre_arcing_energy_and_its_table(self) -> None:
        least, most = opens_between_s(fuse(63), fuse_opens_a(63, "zs_5_s_ohm"), to_earth=False)
        self.assertEqual(most, 5.0)
        self.assertAlmostEqual(least, 9000 / fuse_opens_a(63, "zs_5_s_ohm") ** 2)
        self.assertEqual(opens_between_s(fuse(63), 2000, to_earth=False)[1], 0.01)


class WhatGoesOff(unittest.TestCase):
    def test_the_garage(self) -> None:
        faults = {(one.at, one.to_earth): one for one in evaluation(GARAGE).faults[0].faults}
        self.assertEqual(len(faults), 4)
        self.assertIn("63 A fuse", faults["Garage board", True].first)
        self.assertIn("B32", faults["Charge point", True].first)
        self.assertEqual(faults["Charge point", True].within_s, 0.04)
        self.assertEqual(faults["Charge point", False].within_s, 0.1)
        self.assertEqual(faults["Charge point", False].may_open_too, ())

    def test_an_rcd_in_front_goes_with_it_for_faults_to_earth_only(self) -> None:
        front = {"boards.0.incomer": in_front(mark("A"))}
        to_earth, to_neutral = evaluation(DEVICE_IN_UNIT, front).faults[0].faults
        self.assertTrue(any("in front" in name for name in (to_earth.first, *to_earth.may_open_too)))
        self.assertFalse(any("in front" in name for name in (to_neutral.first, *to_neutral.may_open_too)))

    def test_the_least_fault_to_neutral_is_not_taken_from_the_highest_fault_level(self) -> None:
        bare = {"supply.pscc_enquiry_ka": None, "supply.ze_enquiry_ohm": None, "supply.tails.0.csa_mm2": None}
        # Declared: Ze 0.35 Ω, where 16 kA would mean 0.014 Ω. 28.2 m of 10 mm² and back, hot.
        faults = {(one.at, one.to_earth): one.fault_a for one in evaluation(GARAGE, bare).faults[0].faults}
        expected = 230 * 0.95 / (0.35 + 29.2 * 2 * 1.83 / 1000 * 1.28)
        self.assertAlmostEqual(faults["Garage board", False], expected)
        self.assertAlmostEqual(faults["Garage board", True], expected)

    def test_on_tt_the_loop_to_neutral_is_the_fuses_and_not_the_electrodes(self) -> None:
        tt = {
            "supply.earthing": "tt",
            "supply.ze_enquiry_ohm": None,
            "supply.electrode_design_ohm": 60.0,
            "supply.tails.0.csa_mm2": None,
        }
        faults = {(one.at, one.to_earth): one.fault_a for one in evaluation(GARAGE, tt).faults[0].faults}
        self.assertAlmostEqual(faults["Garage board", False], 230 * 0.95 / (230 / 1400 + 29.2 * 2 * 1.83 / 1000 * 1.28))
        self.assertLess(faults["Garage board", True], 5)
        survives = next(one for one in evaluation(GARAGE, tt).findings if one.key == "survives_fault/sub-main")
        self.assertEqual((survives.verdict.value, "size and length of the tails" in survives.detail), ("needs", True))

    def test_a_high_loop_opens_nothing_in_time(self) -> None:
        weak = {
            "supply.ze_enquiry_ohm": 4.0,
            "readings": [],
            "circuits.0.device.rcd": None,
            "circuits.0.device.curve": "C",
        }
        faults = evaluation(DEVICE_IN_UNIT, weak).faults[0].faults
        self.assertEqual((faults[0].within_s, faults[0].first), (None, ""))
