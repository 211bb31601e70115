"""What opens, how fast, on which earthing: the loop, the fault current, TN-S by either school, TT."""

import unittest

from fulmen.core.findings.finding import Verdict
from tests.core.test_checks import NO_RCD
from tests.jobs import DEVICE_IN_UNIT, HALFWAY, TREATED_AS_PME, TT, finding, in_front, mark

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL


class Disconnection(unittest.TestCase):
    def test_tn_by_the_device(self) -> None:
        for ze_ohm, verdict in ((0.90, MEETS), (0.95, MEETS), (0.97, CALL), (1.5, CALL)):
            with self.subTest(ze_ohm):
                found = finding("disconnection", HALFWAY, {"readings": [], "supply.ze_enquiry_ohm": ze_ohm})
                self.assertEqual(found.verdict, verdict, found.figures())

    def test_without_an_rcd_a_high_loop_falls_short(self) -> None:
        changes = {"readings": [], "supply.ze_enquiry_ohm": 1.5, "circuits.0.device.rcd": None}
        self.assertEqual(finding("disconnection", HALFWAY, changes).verdict, SHORT)

    def test_a_c_curve_halves_the_limit(self) -> None:
        b = finding("disconnection", HALFWAY)
        c = finding("disconnection", HALFWAY, {"circuits.0.device.curve": "C"})
        self.assertAlmostEqual((b.limit or 0) / 2, c.limit or 0)

    def test_tt_by_the_rcd(self) -> None:
        at_100_ma = {"readings": [], "circuits.0.device.rcd.residual_ma": 100}
        for ze_ohm, verdict in ((100.0, MEETS), (499.0, MEETS), (500.0, SHORT)):
            with self.subTest(ze_ohm):
                changes = {**at_100_ma, "supply.ze_enquiry_ohm": ze_ohm}
                self.assertEqual(finding("disconnection", TT, changes).verdict, verdict)
        self.assertEqual(finding("disconnection", TT, NO_RCD).verdict, SHORT)

    def test_value_and_working_are_one(self) -> None:
        found = finding("disconnection")
        self.assertEqual(found.value, found.working[0].value)
        self.assertEqual(found.limit, found.working[1].value)


class FaultCurrent(unittest.TestCase):
    def test_breaking_capacity_by_declared_enquired_and_measured(self) -> None:
        bare = {"boards.0.conditional_rating_ka": None, "readings": []}
        found = finding("breaking_capacity", DEVICE_IN_UNIT, bare)
        self.assertEqual((found.verdict, found.value, found.waits_for), (NEEDS, 16, "reading"))
        for enquiry_ka, verdict in ((5.9, MEETS), (6.0, MEETS), (6.1, NEEDS)):
            with self.subTest(enquiry_ka):
                changes = {**bare, "supply.pscc_enquiry_ka": enquiry_ka}
                self.assertEqual(finding("breaking_capacity", DEVICE_IN_UNIT, changes).verdict, verdict)

    def test_a_measured_current_above_it_falls_short(self) -> None:
        reading = {"step": "fault_current", "subject": "origin", "outcome": "measured", "value": 6.2,
                   "taken_by": "A. Tester", "taken_at": "2026-11-18T13:00:00Z"}  # fmt: skip
        changes = {"boards.0.conditional_rating_ka": None, "readings": [reading]}
        self.assertEqual(finding("breaking_capacity", DEVICE_IN_UNIT, changes).verdict, SHORT)

    def test_declared_fault_current_is_past_the_let_through_table(self) -> None:
        found = finding("survives_fault", DEVICE_IN_UNIT, {"readings": []})
        self.assertEqual((found.verdict, found.waits_for), (NEEDS, "reading"))

    def test_reduced_protective_conductor(self) -> None:
        flat = {"circuits.0.cable.record": "twin-and-earth", "circuits.0.cable.csa_mm2": 4.0, "readings": []}
        for enquiry_ka, verdict in ((3.0, MEETS), (3.1, SHORT)):
            with self.subTest(enquiry_ka):
                changes = {**flat, "supply.pscc_enquiry_ka": enquiry_ka}
                self.assertEqual(finding("survives_fault", DEVICE_IN_UNIT, changes).verdict, verdict)


class TnsSchools(unittest.TestCase):
    def test_the_cautious_school_is_the_default(self) -> None:
        self.assertEqual(finding("tns_school", TREATED_AS_PME).verdict, MEETS)
        no_measure = {"charge_points.0.arrangement.open_pen": "none"}
        self.assertEqual(finding("open_pen", TREATED_AS_PME, no_measure).verdict, SHORT)

    def test_as_found_needs_the_written_word_and_a_reason(self) -> None:
        as_found = {"supply.tns_school": "as_found", "charge_points.0.arrangement.open_pen": "none"}
        self.assertEqual(finding("tns_school", TREATED_AS_PME, as_found).verdict, NEEDS)
        self.assertEqual(finding("open_pen", TREATED_AS_PME, as_found).verdict, SHORT)
        confirmed = {**as_found, "supply.tns_confirmed_in_writing": True}
        self.assertEqual(finding("tns_school", TREATED_AS_PME, confirmed).verdict, NEEDS, "the word is not attached")
        self.assertEqual(finding("open_pen", TREATED_AS_PME, confirmed).verdict, SHORT)
        confirmed["supply.tns_confirmation"] = "ab" * 32
        self.assertEqual(finding("tns_school", TREATED_AS_PME, confirmed).verdict, CALL)
        self.assertEqual(finding("open_pen", TREATED_AS_PME, confirmed).verdict, MEETS)

    def test_an_earth_not_seen_is_worked_as_pme(self) -> None:
        unknown = {"supply.earthing": "not_seen", "charge_points.0.arrangement.open_pen": "none"}
        self.assertEqual(finding("earthing_known", DEVICE_IN_UNIT, unknown).verdict, NEEDS)
        self.assertEqual(finding("open_pen", DEVICE_IN_UNIT, unknown).verdict, SHORT)


class OnTt(unittest.TestCase):
    def test_origin_wants_a_time_delayed_rcd(self) -> None:
        self.assertEqual(finding("tt_origin_rcd", TT).verdict, MEETS)
        at_once = {"boards.0.incomer": in_front(mark("A"))}
        self.assertEqual(finding("tt_origin_rcd", TT, at_once).verdict, CALL, "everything goes off together")
        bare = {"boards.0.incomer": in_front(None), "boards.0.make_up": "split_load"}
        self.assertEqual(finding("tt_origin_rcd", TT, bare).verdict, SHORT)

    def test_the_least_sensitive_rcd_decides_the_touch_voltage(self) -> None:
        found = finding("electrode_touch", TT)
        self.assertAlmostEqual(found.value or 0, 48 * 0.1)

    def test_bonding_may_be_smaller_than_on_pme(self) -> None:
        self.assertEqual(finding("main_bonding", TT, {"supply.main_bonding_csa_mm2": 6.0}).verdict, MEETS)
