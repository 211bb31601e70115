"""The supply as found: looping, demand, tails, earthing conductor, main bonding."""

from __future__ import annotations

from fulmen.core.circuit.origin import ORIGIN
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.supply import (
    EARTHING_CONDUCTOR,
    EARTHING_KNOWN,
    LOOPED,
    MAIN_BONDING,
    TAILS_LENGTH,
    TAILS_SIZE,
)
from fulmen.core.model.supply import Earthing, Seen
from fulmen.core.network_operator.notification import agreed_letter


def supply_findings(case: Case) -> list[Finding]:
    """Every finding about the supply, in the order it is walked from the street inwards."""
    checks = (_earthing, _looped, _tails_size, _tails_length, _earthing_conductor, _bonding)
    return [finding for check in checks if (finding := check(case)) is not None]


def _earthing(case: Case) -> Finding | None:
    if case.job.supply.earthing is not Earthing.NOT_SEEN:
        return None
    asked = ask(EARTHING_KNOWN, case.rules, ORIGIN)
    return asked.needs_fact("Look at the cut-out, or ask the operator. Until then it is worked as PME.")


def _looped(case: Case) -> Finding:
    asked, seen = ask(LOOPED, case.rules, ORIGIN), case.job.supply.looped
    if seen is Seen.NOT_SEEN:
        return asked.needs_fact("Look for a second service cable leaving the cut-out.")
    if seen is Seen.NO:
        return asked.meets("One service cable only.")
    letter = agreed_letter(case.job, case.demand)
    if letter is not None and not letter.stand_in:
        return asked.meets(f"Looped; the operator agreed in writing on {letter.dated:%-d %B %Y}.")
    return asked.falls_short(
        "A neighbour's supply passes through this cut-out. Stop until the operator agrees in writing.",
        remedy="Apply to the network operator before any work.",
    )


def _tails_size(case: Case) -> Finding:
    supply, rules = case.job.supply, case.rules
    fuse_a = supply.cut_out_fuse_a
    if supply.tails_csa_mm2 is None or fuse_a is None:
        return ask(TAILS_SIZE, rules, ORIGIN).needs_fact("Enter the tails' size and the cut-out fuse.")
    if fuse_a > 100:
        detail = f"No usual size is known to Fulmen for a {fuse_a} A fuse; ask the operator."
        return ask(TAILS_SIZE, rules, ORIGIN).needs_fact(detail)
    name = "tails_csa_to_80_a_mm2" if fuse_a <= 80 else "tails_csa_to_100_a_mm2"
    return ask(TAILS_SIZE, rules, ORIGIN, variant=name).judged(
        value=supply.tails_csa_mm2,
        limit=rules.value(name),
        unit="mm²",
        decimals=0,
        at_least=True,
        detail=f"behind {fuse_a} A",
        remedy="Replace the tails, or ask the operator for a smaller fuse.",
    )


def _tails_length(case: Case) -> Finding:
    asked = ask(TAILS_LENGTH, case.rules, ORIGIN)
    if case.job.supply.tails_length_m is None:
        return asked.needs_fact("Enter the length of the tails.")
    return asked.judged(
        unit="m",
        decimals=1,
        value=case.job.supply.tails_length_m,
        limit=case.rules.value("tails_length_m"),
        remedy="Fit a switch-fuse near the meter.",
    )


def _earthing_conductor(case: Case) -> Finding:
    supply, rules = case.job.supply, case.rules
    buried_rod = supply.earthing is Earthing.TT
    name = "electrode_conductor_mm2" if buried_rod else "earthing_conductor_mm2"
    asked = ask(EARTHING_CONDUCTOR, rules, ORIGIN, variant=name)
    if supply.earthing_conductor_csa_mm2 is None:
        return asked.needs_fact("Enter the size of the earthing conductor.")
    limit = rules.value(name)
    detail = "where protected against corrosion and damage; 16 mm² buried without, 25 mm² bare"
    if not buried_rod:
        # Table 54.7: same size as the line up to 16 mm², 16 mm² up to 35 mm².
        limit, detail = min(supply.tails_csa_mm2 or limit, limit), "against the tails"
    return asked.judged(
        at_least=True,
        unit="mm²",
        decimals=1,
        value=supply.earthing_conductor_csa_mm2,
        limit=limit,
        detail=detail,
        remedy="Replace the earthing conductor.",
    )


def _bonding(case: Case) -> Finding:
    supply, asked = case.job.supply, ask(MAIN_BONDING, case.rules, ORIGIN)
    if supply.no_extraneous_parts:
        return asked.meets("No metal service or structure comes in.")
    if supply.main_bonding_csa_mm2 is None or not supply.bonded_services:
        return asked.needs_fact("Enter what is bonded and the conductor's size, or that no metal service comes in.")
    pme = supply.earthing is not Earthing.TT
    # Elsewhere 544.1.1 asks for half the earthing conductor, at least 6 mm²; an earthing conductor is 16 mm² at most.
    limit = case.rules.value("main_bonding_pme_mm2" if pme else "main_bonding_other_mm2")
    services = ", ".join(service.value.replace("_", " ") for service in supply.bonded_services)
    return asked.judged(
        at_least=True,
        unit="mm²",
        decimals=0,
        value=supply.main_bonding_csa_mm2,
        limit=limit,
        detail=f"bonded: {services}",
        remedy="Replace the main bonding conductors.",
    )
