"""Bypass and separation traps: two earths that must never meet, and metal that quietly joins them."""

from __future__ import annotations

from fulmen.core.checks.common import needs_fact
from fulmen.core.checks.earthing import earthed_by_pme
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, Stage, Verdict, judged, stated
from fulmen.core.model.arrangement import CarEarth, MetalAtUnit, OpenPenMeasure
from fulmen.core.model.site import CarPlace
from fulmen.core.model.supply import Earthing, Seen
from fulmen.core.reference.cable_catalogue import cable_record, last_cable

CLAUSE = "BS 7671 722.411.4.1"
BY_DEVICE = (OpenPenMeasure.DEVICE_IN_UNIT, OpenPenMeasure.SEPARATE_DEVICE)


def trap_findings(case: Case) -> list[Finding]:
    """Every finding about earths that meet where they must not."""
    if case.job.supply.earthing is Earthing.TT:
        return []
    if case.job.arrangement.car_earth is CarEarth.OWN_ELECTRODE:
        return [_bypass(case), _separation(case), _electrode_clear(case)]
    outdoors = case.job.site.car_place is not CarPlace.INDOORS_ONLY
    if earthed_by_pme(case) and outdoors and case.job.arrangement.open_pen in BY_DEVICE:
        return [_bypass(case)]
    return []


def _bypass(case: Case) -> Finding:
    """Armour, conduit or trunking on the house earth must end apart from what the charge point is earthed to."""
    island = case.job.arrangement.car_earth is CarEarth.OWN_ELECTRODE
    title = "House earth ends before the unit" if island else "Nothing bypasses the open-PEN device"
    metal = case.job.arrangement.metal_at_unit
    armoured = bool(case.run.chain) and arrives_armoured(case)
    if metal is MetalAtUnit.TOUCHING:
        detail = "Metal on the house earth touches the unit's earth: " + (
            "the island is none." if island else "when the device opens, the car stays joined to the broken PEN."
        )
        remedy = (
            "Use a plastic gland, or cut the armour back and sleeve it; park the house earth in an insulated terminal."
        )
        return stated("bypass", case.subject, title, Verdict.FALLS_SHORT, detail, CLAUSE, remedy=remedy)
    if metal is MetalAtUnit.NOT_SEEN or (metal is MetalAtUnit.NONE and armoured):
        what = (
            "The cable is armoured: how"
            if armoured
            else "Is there armour, conduit or trunking on the house earth, and how"
        )
        return needs_fact("bypass", case.subject, title, f"{what} does it end at the unit?", CLAUSE, Stage.DESIGN)
    ends = "Kept apart at the unit." if metal is MetalAtUnit.APART else "No metal on the house earth reaches the unit."
    return stated("bypass", case.subject, title, Verdict.MEETS, ends, CLAUSE)


def arrives_armoured(case: Case) -> bool:
    """Whether the cable that reaches the unit is armoured: the last section's."""
    return bool(cable_record(last_cable(case.run.final().circuit).record, case.job).armour)


def _separation(case: Case) -> Finding:
    title, clause = "Car's earth apart from metal on the house earth", case.rules.clause("separation_m")
    distance = case.job.arrangement.separation_m
    if distance is None:
        detail = "Measure from the car and the charge point to the nearest metal on the house earth."
        return needs_fact("separation", case.subject, title, detail, clause, Stage.DESIGN)
    return judged(
        rule="separation",
        subject=case.subject,
        title=title,
        value=distance,
        limit=case.rules.value("separation_m"),
        unit="m",
        decimals=1,
        at_least=True,
        clause=clause,
        detail="From car and charge point to the nearest metal on the house earth.",
        remedy="Move the charge point, or use an open-PEN device on the house earth.",
    )


def _electrode_clear(case: Case) -> Finding:
    title, seen = "Electrode clear of buried metal on the house earth", case.job.arrangement.electrode_clear
    clause = "BS 7671 722.411.4.1, common practice"
    if seen is Seen.YES:
        return stated(
            "electrode_clear", case.subject, title, Verdict.MEETS, "No bonded pipe or armour near it.", clause
        )
    if seen is Seen.NO:
        detail = "A bonded pipe or armour lies beside it: through the soil the two earths are one."
        remedy = "Drive the electrode elsewhere, well away from buried metal."
        return stated("electrode_clear", case.subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy)
    detail = "Find out where pipes and armoured cables lie before the electrode is driven."
    return needs_fact("electrode_clear", case.subject, title, detail, clause, Stage.DESIGN)
