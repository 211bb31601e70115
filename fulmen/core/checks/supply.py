"""The supply as found: looping, demand, tails, earthing conductor, main bonding."""

from __future__ import annotations

from fulmen.core.checks.electrodes import electrode_conductor_limit
from fulmen.core.circuit.origin import declared_ze_ohm
from fulmen.core.circuit.people import earthed_by_pme
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.fault_energy import cut_out_energy_a2s, least_csa_mm2
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import Finding, Verdict, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.supply import (
    EARTHING_CONDUCTOR,
    EARTHING_KNOWN,
    LOOPED,
    MAIN_BONDING,
    TAILS_LENGTH,
    TAILS_SIZE,
    ZE_ENQUIRY,
)
from fulmen.core.findings.words import word
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.boards import Board
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.model.tails import TailsStretch
from fulmen.core.network_operator.notification import agreed_letter
from fulmen.core.reference.cable_catalogue import K_SEPARATE_COPPER


def supply_findings(case: Case) -> list[Finding]:
    """Every finding about the supply, in the order it is walked from the street inwards."""
    before, after = (_earthing, _enquiry, _looped), (_earthing_conductor, _bonding)
    found = [*(check(case) for check in before), *_tails(case), *(check(case) for check in after)]
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


def _tails(case: Case) -> list[Finding]:
    """Size and length of the tails to every board that they feed; the smallest stretch on the way decides."""
    found, installation = [], case.installation
    for board in case.job.boards:
        if board.id not in installation.tree.feeders:
            path = installation.tails_to[board.id]
            found += [_tails_size(case, board, path), _tails_length(case, board, path)]
    return found


def _subject(case: Case, board: Board) -> str:
    """The tails to the first board are the origin's; those to another one are named after it."""
    return ORIGIN if board is case.installation.tree.origin else board.id


def _tails_size(case: Case, board: Board, path: tuple[TailsStretch, ...]) -> Finding:
    rules, fuse_a, subject = case.rules, case.job.supply.cut_out_fuse_a, _subject(case, board)
    sizes = [(one.csa_mm2, one) for one in path if one.csa_mm2 is not None]
    if not sizes or len(sizes) < len(path) or fuse_a is None:
        return ask(TAILS_SIZE, rules, subject).needs_fact("Enter the tails' size and the cut-out fuse.")
    if fuse_a > 100:
        detail = f"No usual size is known to Fulmen for a {fuse_a} A fuse; ask the operator."
        return ask(TAILS_SIZE, rules, subject).needs_fact(detail)
    name = "tails_csa_to_80_a_mm2" if fuse_a <= 80 else "tails_csa_to_100_a_mm2"
    least = rules.value(name)
    small = [one for csa_mm2, one in sizes if csa_mm2 < least]
    accepted = bool(small) and all(one.accepted_in_writing is Seen.YES for one in small)
    smallest = min(csa_mm2 for csa_mm2, _ in sizes)
    return ask(TAILS_SIZE, rules, subject, variant=name).judged(
        value=smallest,
        limit=least,
        unit="mm²",
        decimals=0,
        at_least=True,
        detail=f"behind {fuse_a} A{'; smaller than usual, accepted by the operator in writing' if accepted else ''}",
        remedy="Replace the tails, have the operator accept them in writing, or ask for a smaller fuse.",
        otherwise=Verdict.YOUR_CALL if accepted else Verdict.FALLS_SHORT,
        basis={"csa_mm2": smallest, "fuse_a": fuse_a, "accepted": True} if accepted else {},
    )


def _tails_length(case: Case, board: Board, path: tuple[TailsStretch, ...]) -> Finding:
    asked = ask(TAILS_LENGTH, case.rules, _subject(case, board))
    known_m = [one.length_m for one in path if one.length_m is not None]
    if not path or len(known_m) < len(path):
        return asked.needs_fact("Enter the length of the tails.")
    return asked.judged(
        unit="m",
        decimals=1,
        value=sum(known_m),
        limit=case.rules.value("tails_length_m"),
        detail="" if len(path) == 1 else f"{len(path)} stretches from the cut-out to {board.name}",
        remedy="Fit a switch-fuse near the meter.",
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
        if least_mm2 <= size_mm2 < limit and (calculated := _by_calculation(case, size_mm2)) is not None:
            return calculated
    return asked.judged(
        at_least=True,
        unit="mm²",
        decimals=1,
        value=size_mm2,
        limit=limit,
        detail=detail,
        remedy="Replace the earthing conductor.",
    )


def _by_calculation(case: Case, size_mm2: float) -> Finding | None:
    """A smaller earthing conductor by S ≥ √(I²t)/k with the cut-out fuse; None where that does not hold."""
    fuse_a = case.job.supply.cut_out_fuse_a
    if fuse_a is None or case.job.supply.earthing is Earthing.NOT_SEEN:
        return None
    rules = case.rules
    fault_a = rules.value("u0_v") * rules.value("voltage_factor_min") / case.origin.ze.value
    try:
        energy, source = cut_out_energy_a2s(float(fuse_a), fault_a)
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
