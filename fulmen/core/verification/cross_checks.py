"""Do the readings agree? Each against what the other figures of the same copper say it should be."""

from __future__ import annotations

from collections.abc import Callable

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.verification.charge_point_readings import charge_point_reading_findings
from fulmen.core.verification.conductor_readings import conductor_findings
from fulmen.core.verification.earth_readings import earth_findings
from fulmen.core.verification.origin_readings import origin_findings
from fulmen.core.verification.rcd_readings import rcd_findings

CHECKS: tuple[Callable[[Case], list[Finding]], ...] = (
    origin_findings,
    conductor_findings,
    earth_findings,
    rcd_findings,
    charge_point_reading_findings,
)


def agreement_findings(cases: list[Case]) -> list[Finding]:
    """Whether the readings of each run agree, each question once."""
    taken = [case for case in cases if case.job.readings and case.run.chain]
    found = [one for case in taken for check in CHECKS for one in check(case)]
    return list({finding.key: finding for finding in found}.values())
