"""Where the equipment stands: height and IP code of the charge point, case of every board on the way."""

from __future__ import annotations

from fulmen.core.checks.common import needs_fact
from fulmen.core.figures import Case
from fulmen.core.findings import Finding, Verdict, stated
from fulmen.core.model.boards import Board, Enclosure
from fulmen.core.model.site import CarPlace


def place_findings(case: Case) -> list[Finding]:
    """Every finding about where the charge point and the board stand."""
    findings = [_height(case), _ip_code(case), *_board_cases(case)]
    return [finding for finding in findings if finding is not None]


def _height(case: Case) -> Finding:
    height, title = case.run.charge_point.connector_height_m, "Socket or connector at a good height"
    low, high = case.rules.limit("connector_height_min_m"), case.rules.limit("connector_height_max_m")
    clause = case.rules.clause("connector_height_min_m")
    if height is None:
        return needs_fact("connector_height", case.subject, title, "Enter its height above the ground.", clause)
    detail = f"{height:.2f} m above ground; {low.value:g} to {high.value:g} m is wanted."
    if low.value <= height <= high.value:
        return stated("connector_height", case.subject, title, Verdict.MEETS, detail, clause)
    mend = "Move it, or the householder overrules the height: say so."
    return stated("connector_height", case.subject, title, Verdict.YOUR_CALL, detail, clause, mend=mend)


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
        "ip_code", case.subject, title, verdict, detail, clause, mend="" if holds else "Use a unit of IP44 or better."
    )


def _board_cases(case: Case) -> list[Finding]:
    return [_board_case(link.board) for link in case.run.links if link.board.indoors]


def _board_case(board: Board) -> Finding:
    title, clause = "Board's case won't feed a fire", "BS 7671 421.1.201"
    if board.enclosure is Enclosure.NOT_SEEN:
        return needs_fact("board_case", board.id, title, f"Is {board.name} of metal or plastic?", clause)
    if board.enclosure is Enclosure.METAL:
        return stated("board_case", board.id, title, Verdict.MEETS, "Metal.", clause)
    detail = "Plastic. Replace it, or leave an existing board as found, tell the owner and comment on it."
    return stated("board_case", board.id, title, Verdict.YOUR_CALL, detail, clause)
