"""Two earths that must never meet, and metal that quietly joins them: bypass, separation, the electrode's place."""

from __future__ import annotations

from fulmen.core.circuit.people import earthed_by_pme
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.protection import BYPASS, ELECTRODE_CLEAR, SEPARATION
from fulmen.core.model.arrangement import CarEarth, MetalAtUnit, OpenPenMeasure
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import CarPlace
from fulmen.core.model.supply import Earthing

BY_DEVICE = (OpenPenMeasure.DEVICE_IN_UNIT, OpenPenMeasure.SEPARATE_DEVICE)


def earth_separation_findings(case: Case) -> list[Finding]:
    """Every finding about earths that meet where they must not."""
    if case.job.supply.earthing is Earthing.TT:
        return []
    if case.arrangement.car_earth is CarEarth.OWN_ELECTRODE:
        return [_bypass(case), _separation(case), _electrode_clear(case)]
    outdoors = case.job.site.car_place is not CarPlace.INDOORS_ONLY
    if earthed_by_pme(case) and outdoors and case.arrangement.open_pen in BY_DEVICE:
        return [_bypass(case)]
    return []


def _bypass(case: Case) -> Finding:
    """Armour, conduit or trunking on the house earth must end apart from what the charge point is earthed to."""
    island = case.arrangement.car_earth is CarEarth.OWN_ELECTRODE
    asked, metal = ask(BYPASS, case.rules, case.subject), case.arrangement.metal_at_unit
    armoured = bool(case.run.chain) and arrives_armoured(case)
    if metal is MetalAtUnit.TOUCHING:
        what = "the island is none." if island else "when the device opens, the car stays joined to the broken PEN."
        return asked.falls_short(
            f"Metal on the house earth touches the unit's earth: {what}",
            remedy="Use a plastic gland, or cut the armour back and sleeve it; park the house earth in an insulated "
            "terminal.",
        )
    if metal is MetalAtUnit.NOT_SEEN or (metal is MetalAtUnit.NONE and armoured):
        if armoured:
            return asked.needs_fact("The cable is armoured: how does it end at the unit?")
        return asked.needs_fact(
            "Is there armour, conduit or trunking on the house earth, and how does it end at the unit?"
        )
    apart = metal is MetalAtUnit.APART
    return asked.meets("Kept apart at the unit." if apart else "No metal on the house earth reaches the unit.")


def arrives_armoured(case: Case) -> bool:
    """Whether the cable that reaches the unit is armoured: the last section's."""
    return bool(case.installation.last_record(case.run.final().circuit).armour)


def _separation(case: Case) -> Finding:
    asked, distance_m = ask(SEPARATION, case.rules, case.subject), case.arrangement.separation_m
    if distance_m is None:
        return asked.needs_fact("Measure from the car and the charge point to the nearest metal on the house earth.")
    return asked.judged(
        value=distance_m,
        limit=case.rules.value("separation_m"),
        unit="m",
        decimals=1,
        at_least=True,
        detail="From car and charge point to the nearest metal on the house earth.",
        remedy="Move the charge point, or use an open-PEN device on the house earth.",
    )


def _electrode_clear(case: Case) -> Finding:
    asked, seen = ask(ELECTRODE_CLEAR, case.rules, case.subject), case.arrangement.electrode_clear
    if seen is Seen.YES:
        return asked.meets("No bonded pipe or armour near it.")
    if seen is Seen.NO:
        return asked.falls_short(
            "A bonded pipe or armour lies beside it: through the soil the two earths are one.",
            remedy="Drive the electrode elsewhere, well away from buried metal.",
        )
    return asked.needs_fact("Find out where pipes and armoured cables lie before the electrode is driven.")
