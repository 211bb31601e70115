"""Where the charge point stands: its height and IP code."""

from __future__ import annotations

from fulmen.core.checks.common import needs_fact
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, Verdict, stated
from fulmen.core.model.site import CarPlace


def place_findings(case: Case) -> list[Finding]:
    """Every finding about where the charge point stands."""
    return [finding for finding in (_height(case), _ip_code(case)) if finding is not None]


def _height(case: Case) -> Finding:
    height, title = case.run.charge_point.connector_height_m, "Socket or connector at a good height"
    low, high = case.rules.limit("connector_height_min_m"), case.rules.limit("connector_height_max_m")
    clause = case.rules.clause("connector_height_min_m")
    if height is None:
        return needs_fact("connector_height", case.subject, title, "Enter its height above the ground.", clause)
    detail = f"{height:.2f} m above ground; {low.value:g} to {high.value:g} m is wanted."
    if low.value <= height <= high.value:
        return stated("connector_height", case.subject, title, Verdict.MEETS, detail, clause)
    remedy = "Move it, or the householder overrules the height: say so."
    return stated("connector_height", case.subject, title, Verdict.YOUR_CALL, detail, clause, remedy=remedy)


def _ip_code(case: Case) -> Finding | None:
    if case.job.site.car_place is CarPlace.INDOORS_ONLY:
        return None
    code, title = case.run.charge_point.ip_code, "Weatherproof enough outdoors"
    clause = case.rules.clause("ip_outdoors_water")
    if code is None:
        return needs_fact("ip_code", case.subject, title, "Enter the IP code of the unit.", clause)
    least = int(case.rules.value("ip_outdoors_solids")), int(case.rules.value("ip_outdoors_water"))
    holds = int(code[2]) >= least[0] and int(code[3]) >= least[1]
    detail = f"{code}; IP44 or better outdoors."
    verdict = Verdict.MEETS if holds else Verdict.FALLS_SHORT
    return stated(
        "ip_code", case.subject, title, verdict, detail, clause, remedy="" if holds else "Use a unit of IP44 or better."
    )
