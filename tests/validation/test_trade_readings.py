"""Readings that good testers get, marked: common practice, no source. Each is judged as it is when it is entered."""

import unittest
from typing import Any

from fulmen.core.electrical.open_pen import electrode_limit_ohm
from fulmen.core.findings.finding import Verdict
from tests.core.test_readings import reading
from tests.jobs import HALFWAY, TREATED_AS_PME, WITH_TESTER, finding

NO_LEAD = {"charge_points.0.tethered": False, "testing.test_lead_ohm": 0.0}
FIFTY_OF_TEN = {"circuits.0.cable.csa_mm2": 10.0, "circuits.0.route.1.length_m": 45.0}


def judged(rule: str, name: str, *readings: dict[str, Any], **changes: Any) -> Verdict:
    return finding(rule, name, {**WITH_TESTER, "readings": list(readings), **changes}).verdict


class Readings(unittest.TestCase):
    def test_fifteen_metres_of_six(self) -> None:
        """15 m of 6 mm² with a 6 mm² cpc read 0.09 Ω, both R1+R2 and R1+Rn."""
        for rule in ("r1_r2", "r1_rn"):
            self.assertEqual(judged(f"agree_{rule}", HALFWAY, reading(rule, 0.09)), Verdict.MEETS)

    def test_ten_metres_of_six_from_ze(self) -> None:
        """Ze 0.10 and Zs 0.16 on about 10 m of 6 mm²."""
        read = (reading("ze", 0.10, subject="origin"), reading("r1_r2", 0.06), reading("zs", 0.16))
        self.assertEqual(judged("agree_zs", TREATED_AS_PME, *read, **NO_LEAD), Verdict.MEETS)

    def test_a_parallel_path_is_noticed(self) -> None:
        """50 m of 10 mm² read 0.11 Ω where the cores alone would give more; Zs 0.09 Ω below it."""
        self.assertEqual(judged("agree_r1_r2", HALFWAY, reading("r1_r2", 0.11), **FIFTY_OF_TEN), Verdict.YOUR_CALL)
        read = (reading("ze", 0.05, subject="origin"), reading("r1_r2", 0.11), reading("zs", 0.09))
        self.assertEqual(judged("agree_zs", HALFWAY, *read, **FIFTY_OF_TEN, **NO_LEAD), Verdict.YOUR_CALL)

    def test_low_electrode_is_rarely_achievable(self) -> None:
        """At 40 A the electrode must be about 2.2 Ω, while 30 Ω in garden soil counts as good."""
        self.assertAlmostEqual(electrode_limit_ohm(40, 230, 1.1, 70), 2.2, delta=0.05)
