"""The supply as found: looping, demand, tails, earthing conductor, main bonding."""

from __future__ import annotations

from fulmen.core.checks.electrodes import electrode_conductor_limit
from fulmen.core.checks.tails import tails_findings
from fulmen.core.circuit.origin import declared_ze_ohm
from fulmen.core.circuit.people import earthed_by_pme
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.fault_energy import cut_out_energy_a2s, least_csa_mm2
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import Finding, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.supply import (
    EARTHING_CONDUCTOR,
    EARTHING_KNOWN,
    LOOPED,
    MAIN_BONDING,
    ZE_ENQUIRY,
)
from fulmen.core.findings.words import word
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing, FuseStandard
from fulmen.core.network_operator.notification import agreed_letter
from fulmen.core.reference.cable_catalogue import K_SEPARATE_COPPER


def supply_findings(case: Case) -> list[Finding]:
    """Every finding about the supply, in the order it is walked from the street inwards."""
    before, after = (_earthing, _enquiry, _looped), (_earthing_conductor, _bonding)
    found = [*(check(case) for check in before), *tails_findings(case), *(check(case) for check in after)]
    return [finding for finding in found if finding is not None]


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


def _earthing_conductor(case: Case) -> Finding:
    supply, rules = case.job.supply, case.rules
    buried_rod = supply.earthing is Earthing.TT
    by_protection = electrode_conductor_limit(supply.earthing_conductor_protection)
    name = (by_protection or "electrode_conductor_mm2") if buried_rod else "earthing_conductor_mm2"
    asked = ask(EARTHING_CONDUCTOR, rules, ORIGIN, variant=name)
    size_mm2 = supply.earthing_conductor_csa_mm2
    if size_mm2 is None:
        return asked.needs_fact("Enter the size of the earthing conductor.")
    if buried_rod and by_protection is None:
        return asked.needs_fact("How is the conductor to the electrode guarded in the ground?")
    limit = rules.value(name)
    detail = word(supply.earthing_conductor_protection)
    if not buried_rod:
        # Table 54.7: same size as the line up to 16 mm², 16 mm² up to 35 mm².
        sizes_mm2 = [one.csa_mm2 for one in case.installation.main_tails if one.csa_mm2]
        limit, detail = min(max(sizes_mm2, default=limit), limit), "against the tails"
        # 542.3.1, 544.1.1: where PME applies it is a main bonding conductor too, whatever a calculation gives.
        least_mm2 = rules.value("main_bonding_pme_mm2") if earthed_by_pme(case) else 0.0
        if least_mm2 > limit:
            limit, detail = least_mm2, "the main bonding size, as PME applies"
        if least_mm2 <= size_mm2 < limit:
            standard = supply.cut_out_fuse_standard
            if (calculated := _by_calculation(case, size_mm2, standard)) is not None:
                return calculated
            faster = _by_calculation(case, size_mm2, FuseStandard.BS_88_3)
            if standard is FuseStandard.NOT_SEEN and faster is not None:
                return asked.needs_fact("Read the cut-out fuse's standard: behind a BS 88-3 fuse this size may do.")
    return asked.judged(
        at_least=True,
        unit="mm²",
        decimals=1,
        value=size_mm2,
        limit=limit,
        detail=detail,
        remedy="Replace the earthing conductor.",
    )


def _by_calculation(case: Case, size_mm2: float, standard: FuseStandard) -> Finding | None:
    """A smaller earthing conductor by S ≥ √(I²t)/k with the cut-out fuse; None where that does not hold."""
    fuse_a = case.job.supply.cut_out_fuse_a
    if fuse_a is None or case.job.supply.earthing is Earthing.NOT_SEEN:
        return None
    rules = case.rules
    fault_a = rules.value("u0_v") * rules.value("voltage_factor_min") / case.origin.ze.value
    try:
        energy, source = cut_out_energy_a2s(float(fuse_a), standard, fault_a)
    except TableError:
        return None
    least_mm2 = least_csa_mm2(energy, K_SEPARATE_COPPER)
    if size_mm2 < least_mm2:
        return None
    lines = (
        WorkingLine(symbol="I²t", value=energy, decimals=0, unit="A²s", source=source),
        WorkingLine(
            symbol="S", formula="√(I²t)/k", figures=f"√{energy:.0f}/{K_SEPARATE_COPPER:g}", value=least_mm2, unit="mm²",
            source="BS 7671 543.1.3, k 143",
        ),
    )  # fmt: skip
    return ask(EARTHING_CONDUCTOR, rules, ORIGIN, variant="calculated").your_call(
        f"{size_mm2:g} mm² is less than the table asks for, and enough by calculation: {least_mm2:.1f} mm² behind the "
        f"{fuse_a} A cut-out fuse at {fault_a:.0f} A. Say why you keep it.",
        basis={"csa_mm2": size_mm2, "fuse_a": fuse_a},
        working=lines,
        remedy="Replace the earthing conductor.",
    )


def ze_above_declared(case: Case) -> tuple[str, ...]:
    """The field that is asked where Ze, by enquiry or read, is above what operators declare: whether they were told."""
    ze_ohm = case.measured.ze_ohm if case.measured.ze_ohm is not None else case.job.supply.ze_enquiry_ohm
    if ze_ohm is None or case.job.supply.earthing is Earthing.TT:
        return ()
    return ("supply.operator_told_of_ze",) if ze_ohm > declared_ze_ohm(case.job.supply, case.rules) else ()


def _enquiry(case: Case) -> Finding | None:
    """Ze and fault current by enquiry: on TT a low Ze is no TT figure; a current below U0/Ze contradicts it."""
    supply, rules, asked = case.job.supply, case.rules, ask(ZE_ENQUIRY, case.rules, ORIGIN)
    ze_ohm, ka = supply.ze_enquiry_ohm, supply.pscc_enquiry_ka
    if ze_ohm is None or case.measured.ze_ohm is not None:
        return None
    if supply.earthing is Earthing.TT:
        electrode = case.origin.electrode
        if ze_ohm < electrode.value:
            return asked.needs_fact(
                f"{ze_ohm:g} Ω can't be the loop of a TT supply with an electrode of {electrode.value:g} Ω "
                f"({electrode.source}): ask again or measure it. The electrode's figure is taken until then."
            )
        return None
    declared_ohm = declared_ze_ohm(case.job.supply, rules)
    if ze_ohm > declared_ohm and supply.operator_told_of_ze is not Seen.YES:
        return asked.falls_short(
            f"{ze_ohm:g} Ω is more than the {declared_ohm:g} Ω that operators declare.",
            remedy="Tell the network operator, and say so here; the design may then go on with this figure.",
        )
    if ka is None:
        return None
    least_ka = rules.value("u0_v") / ze_ohm / 1000
    if ka < least_ka - 0.005:
        return asked.needs_fact(
            f"{ka:g} kA is less than {ze_ohm:g} Ω gives by itself ({least_ka:.2f} kA): one is wrong. Ask again."
        )
    return asked.meets(f"{ze_ohm:g} Ω and {ka:g} kA go together.")


def _bonding(case: Case) -> Finding:
    supply, asked = case.job.supply, ask(MAIN_BONDING, case.rules, ORIGIN)
    if supply.incoming_metal and supply.no_extraneous_parts:
        return asked.needs_fact("Metal comes in, and none does: which of the two is right?")
    if supply.incoming_metal is None and not supply.no_extraneous_parts:
        return asked.needs_fact("Which metal services and structures come in: water, gas, oil, steel, or none?")
    if not supply.incoming_metal:
        return asked.meets("No metal service or structure comes in.")
    missed = [one for one in supply.incoming_metal if one not in supply.bonded_services]
    if missed and (supply.bonded_services or supply.main_bonding_csa_mm2 is not None):
        names = " and ".join(word(one) for one in missed)
        return asked.falls_short(f"Comes in and is not bonded: {names}.", remedy="Bond it where it comes in.")
    if supply.main_bonding_csa_mm2 is None or not supply.bonded_services:
        return asked.needs_fact("Enter what is bonded and the conductor's size, or that no metal service comes in.")
    pme = supply.earthing is not Earthing.TT
    # Elsewhere 544.1.1 asks for half the earthing conductor, at least 6 mm²; an earthing conductor is 16 mm² at most.
    limit = case.rules.value("main_bonding_pme_mm2" if pme else "main_bonding_other_mm2")
    services = ", ".join(word(service) for service in supply.bonded_services)
    return asked.judged(
        at_least=True,
        unit="mm²",
        decimals=0,
        value=supply.main_bonding_csa_mm2,
        limit=limit,
        detail=f"bonded: {services}",
        remedy="Replace the main bonding conductors.",
    )
