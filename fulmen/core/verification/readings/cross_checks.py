"""Do the readings agree? Each against what the other figures of the same copper say it should be."""

from __future__ import annotations

from collections.abc import Callable

from fulmen.core.findings.finding import Finding
from fulmen.core.verification.readings.charge_point_readings import charge_point_reading_findings
from fulmen.core.verification.readings.conductor_readings import conductor_findings
from fulmen.core.verification.readings.earth_readings import earth_findings
from fulmen.core.verification.readings.impossible import impossible_findings
from fulmen.core.verification.readings.origin_readings import origin_findings
from fulmen.core.verification.readings.rcd_readings import rcd_findings
from fulmen.core.verification.steps.run_test import RunTest

CHECKS: tuple[Callable[[RunTest], list[Finding]], ...] = (
    origin_findings,
    conductor_findings,
    earth_findings,
    rcd_findings,
    charge_point_reading_findings,
    impossible_findings,
)


def agreement_findings(tests: list[RunTest]) -> list[Finding]:
    """Whether the readings of each run agree, each question once."""
    taken = [test for test in tests if test.readings.taken and test.case.run.chain]
    found = [one for test in taken for check in CHECKS for one in check(test)]
    return list({finding.key: finding for finding in found}.values())
