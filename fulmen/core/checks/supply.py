"""The supply as found: looping, demand, tails, earthing conductor, main bonding."""

from __future__ import annotations

from fulmen.core.checks.common import needs_fact
from fulmen.core.circuit.origin import ORIGIN
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, Stage, Verdict, judged, stated
from fulmen.core.model.supply import Earthing, Seen
from fulmen.core.network_operator.notification import agreed_letter

SUPPLY_CLAUSE = "common practice, no source"


def supply_findings(case: Case) -> list[Finding]:
    """Every finding about the supply, in the order it is walked from the street inwards."""
    checks = (_earthing, _looped, _tails_size, _tails_length, _earthing_conductor, _bonding)
    return [finding for check in checks if (finding := check(case)) is not None]


def _earthing(case: Case) -> Finding | None:
    if case.job.supply.earthing is Earthing.NOT_SEEN:
        detail = "Look at the cut-out, or ask the operator. Until then it is worked as PME."
        return needs_fact("earthing_known", ORIGIN, "Earthing arrangement of the supply", detail, "BS 7671 312.2")
    return None


def _looped(case: Case) -> Finding:
    title, seen = "Service not looped to a neighbour", case.job.supply.looped
    if seen is Seen.NOT_SEEN:
        detail = "Look for a second service cable leaving the cut-out."
        return needs_fact("looped", ORIGIN, title, detail, SUPPLY_CLAUSE)
    if seen is Seen.YES:
        letter = agreed_letter(case.job, case.demand)
        if letter is not None and not letter.stand_in:
            detail = f"Looped; the operator agreed in writing on {letter.dated:%-d %B %Y}."
            return stated("looped", ORIGIN, title, Verdict.MEETS, detail, SUPPLY_CLAUSE, stage=Stage.SURVEY)
        detail = "A neighbour's supply passes through this cut-out. Stop until the operator agrees in writing."
        remedy = "Apply to the network operator before any work."
        return stated(
            "looped", ORIGIN, title, Verdict.FALLS_SHORT, detail, SUPPLY_CLAUSE, stage=Stage.SURVEY, remedy=remedy
        )
    return stated("looped", ORIGIN, title, Verdict.MEETS, "One service cable only.", SUPPLY_CLAUSE, stage=Stage.SURVEY)


def _tails_size(case: Case) -> Finding:
    supply, title = case.job.supply, "Tails big enough for the cut-out fuse"
    if supply.tails_csa_mm2 is None or supply.cut_out_fuse_a is None:
        return needs_fact("tails_size", ORIGIN, title, "Enter the tails' size and the cut-out fuse.", SUPPLY_CLAUSE)
    if supply.cut_out_fuse_a > 100:
        detail = f"No usual size is known to Fulmen for a {supply.cut_out_fuse_a} A fuse; ask the operator."
        return needs_fact("tails_size", ORIGIN, title, detail, SUPPLY_CLAUSE)
    name = "tails_csa_to_80_a_mm2" if supply.cut_out_fuse_a <= 80 else "tails_csa_to_100_a_mm2"
    return judged(
        rule="tails_size",
        subject=ORIGIN,
        title=title,
        stage=Stage.SURVEY,
        value=supply.tails_csa_mm2,
        limit=case.rules.value(name),
        unit="mm²",
        decimals=0,
        at_least=True,
        clause=case.rules.clause(name),
        detail=f"behind {supply.cut_out_fuse_a} A",
        remedy="Replace the tails, or ask the operator for a smaller fuse.",
    )


def _tails_length(case: Case) -> Finding:
    title, clause = "Tails short enough without their own device", case.rules.clause("tails_length_m")
    if case.job.supply.tails_length_m is None:
        return needs_fact("tails_length", ORIGIN, title, "Enter the length of the tails.", clause)
    return judged(
        rule="tails_length",
        subject=ORIGIN,
        title=title,
        stage=Stage.SURVEY,
        unit="m",
        decimals=1,
        value=case.job.supply.tails_length_m,
        limit=case.rules.value("tails_length_m"),
        clause=clause,
        remedy="Fit a switch-fuse near the meter.",
    )


def _earthing_conductor(case: Case) -> Finding:
    supply, title = case.job.supply, "Earthing conductor big enough"
    buried_rod = supply.earthing is Earthing.TT
    name = "electrode_conductor_mm2" if buried_rod else "earthing_conductor_mm2"
    clause = case.rules.clause(name)
    if supply.earthing_conductor_csa_mm2 is None:
        return needs_fact("earthing_conductor", ORIGIN, title, "Enter the size of the earthing conductor.", clause)
    limit, detail = (
        case.rules.value(name),
        "where protected against corrosion and damage; 16 mm² buried without, 25 mm² bare",
    )
    if not buried_rod:
        # Table 54.7: same size as the line up to 16 mm², 16 mm² up to 35 mm².
        limit, detail = min(supply.tails_csa_mm2 or limit, limit), "against the tails"
    return judged(
        rule="earthing_conductor",
        subject=ORIGIN,
        title=title,
        stage=Stage.SURVEY,
        at_least=True,
        unit="mm²",
        decimals=1,
        value=supply.earthing_conductor_csa_mm2,
        limit=limit,
        clause=clause,
        detail=detail,
        remedy="Replace the earthing conductor.",
    )


def _bonding(case: Case) -> Finding:
    supply, title = case.job.supply, "Main bonding in place and big enough"
    clause = case.rules.clause("main_bonding_pme_mm2")
    if supply.no_extraneous_parts:
        detail = "No metal service or structure comes in."
        return stated("main_bonding", ORIGIN, title, Verdict.MEETS, detail, clause, stage=Stage.SURVEY)
    if supply.main_bonding_csa_mm2 is None or not supply.bonded_services:
        detail = "Enter what is bonded and the conductor's size, or that no metal service comes in."
        return needs_fact("main_bonding", ORIGIN, title, detail, clause)
    pme = supply.earthing is not Earthing.TT
    # Elsewhere 544.1.1 asks for half the earthing conductor, at least 6 mm²; an earthing conductor is 16 mm² at most.
    limit = case.rules.value("main_bonding_pme_mm2" if pme else "main_bonding_other_mm2")
    services = ", ".join(service.value.replace("_", " ") for service in supply.bonded_services)
    return judged(
        rule="main_bonding",
        subject=ORIGIN,
        title=title,
        stage=Stage.SURVEY,
        at_least=True,
        unit="mm²",
        decimals=0,
        value=supply.main_bonding_csa_mm2,
        limit=limit,
        clause=clause,
        detail=f"bonded: {services}",
        remedy="Replace the main bonding conductors.",
    )
