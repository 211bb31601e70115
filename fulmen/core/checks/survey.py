"""What the survey saw and what it means: cut-out, isolator, sleeving, terminal, board, route, ownership."""

from __future__ import annotations

from fulmen.core.checks.common import needs_fact
from fulmen.core.circuit.origin import ORIGIN
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, Stage, Verdict, stated
from fulmen.core.model.defects import DefectOutcome
from fulmen.core.model.site import Hazard, Ownership
from fulmen.core.model.supply import BondedService, CutOutCondition, Seen

PRACTICE = "common practice, no source"
ISOLATION = "BS 7671 462.1.201"
METAL_SERVICES = {BondedService.WATER, BondedService.GAS, BondedService.OIL}


def survey_findings(case: Case) -> list[Finding]:
    """Every finding about what was seen, in the order of the walk."""
    findings = [
        _cut_out(case), _isolator(case), _sleeving(case), _earth_terminal(case), _bonding_place(case),
        _duct(case), _permission(case), _own_land(case), _dangerous(case),
    ]  # fmt: skip
    return [finding for finding in findings if finding is not None]


def _said(
    rule: str, title: str, verdict: Verdict, detail: str, clause: str, remedy: str = "", subject: str = ORIGIN
) -> Finding:
    return stated(rule, subject, title, verdict, detail, clause, stage=Stage.SURVEY, remedy=remedy)


def _cut_out(case: Case) -> Finding:
    title, condition = "Cut-out sound", case.job.supply.cut_out_condition
    if condition is CutOutCondition.NOT_SEEN:
        return needs_fact(
            "cut_out", ORIGIN, title, "Look at it without opening it: cast iron, pitch, scorch marks?", PRACTICE
        )
    if condition is CutOutCondition.SOUND:
        return _said("cut_out", title, Verdict.MEETS, "Sound, as seen from outside.", PRACTICE)
    what = "Old, cast iron or pitch-filled" if condition is CutOutCondition.OLD else "Damaged, scorched or leaking"
    detail = f"{what}: don't touch it, don't pull the fuse. The operator has to replace it before your work."
    remedy = "Report it to the network operator; apply before any work."
    return _said("cut_out", title, Verdict.FALLS_SHORT, detail, PRACTICE, remedy)


def _isolator(case: Case) -> Finding | None:
    title = "Tails can be made dead"
    if case.job.supply.isolator is Seen.NO:
        detail = "No isolator between meter and board: say how the tails will be made dead, and by whom."
        return _said("isolator", title, Verdict.YOUR_CALL, detail, ISOLATION, "Ask for an isolator to be fitted.")
    if case.job.supply.isolator is Seen.YES:
        return _said("isolator", title, Verdict.MEETS, "An isolator stands between meter and board.", ISOLATION)
    return None


def _sleeving(case: Case) -> Finding | None:
    title, clause = "Tails marked brown and blue", "BS 7671 514.3"
    if case.job.supply.tails_sleeved is Seen.NO:
        detail = "Marking is missing: prove which is which before anything is connected, then sleeve them."
        return _said(
            "tails_sleeved", title, Verdict.YOUR_CALL, detail, clause, "Sleeve them and record it as put right."
        )
    if case.job.supply.tails_sleeved is Seen.YES:
        return _said("tails_sleeved", title, Verdict.MEETS, "Marked.", clause)
    return None


def _earth_terminal(case: Case) -> Finding:
    title, clause, seen = "Main earthing terminal present", "BS 7671 542.4", case.job.supply.earth_terminal
    if seen is Seen.NOT_SEEN:
        return needs_fact(
            "earth_terminal", ORIGIN, title, "Find where earthing and bonding conductors come together.", clause
        )
    if seen is Seen.YES:
        return _said("earth_terminal", title, Verdict.MEETS, "Found.", clause)
    remedy = "Fit one, and bring earthing and bonding conductors to it."
    return _said("earth_terminal", title, Verdict.FALLS_SHORT, "There is none.", clause, remedy)


def _bonding_place(case: Case) -> Finding | None:
    """Within 600 mm of the meter or of where the service comes in, before any branch."""
    supply, title = case.job.supply, "Main bonding where the service comes in"
    clause = "BS 7671 544.1.2"
    if supply.no_extraneous_parts or not METAL_SERVICES & set(supply.bonded_services):
        return None
    if supply.bonding_near_entry is Seen.YES:
        detail = "Within 600 mm of the meter or entry, before any branch."
        return _said("bonding_place", title, Verdict.MEETS, detail, clause)
    if supply.bonding_near_entry is Seen.NO:
        remedy = "Move the clamp to within 600 mm of the meter or entry."
        return _said(
            "bonding_place", title, Verdict.FALLS_SHORT, "Further than 600 mm, or after a branch.", clause, remedy
        )
    detail = "Is each clamp within 600 mm of the meter, stop valve or entry, before any branch?"
    return needs_fact("bonding_place", ORIGIN, title, detail, clause)


def _duct(case: Case) -> Finding | None:
    """What is there already must be proven: until then price and plan for the worse case."""
    assumed = {Hazard.OLD_DUCT: "an existing duct", Hazard.FULL_CAVITY: "a cavity full of cables"}
    found = [words for hazard, words in assumed.items() if hazard in case.job.site.hazards]
    if not found:
        return None
    title = "Way proven clear"
    if case.job.site.way_proven_clear is Seen.YES:
        return _said("way_clear", title, Verdict.MEETS, "A draw line went through.", PRACTICE)
    detail = f"The route counts on {' and '.join(found)}: blocked until a draw line has gone through."
    return needs_fact("way_clear", ORIGIN, title, detail, PRACTICE)


def _permission(case: Case) -> Finding | None:
    site, title = case.job.site, "Owner agrees in writing"
    if site.ownership in (Ownership.OWNER_LIVES_THERE, Ownership.NOT_SEEN):
        return None
    if site.permission_in_writing is Seen.YES:
        return _said("permission", title, Verdict.MEETS, "The owner's word is kept with the job.", PRACTICE)
    detail = "Whoever asks does not own the dwelling, or lives elsewhere: no work without the owner's word."
    return needs_fact("permission", ORIGIN, title, detail, PRACTICE)


def _own_land(case: Case) -> Finding | None:
    title, seen = "Car stands on the dwelling's own land", case.job.site.parking_on_own_land
    if seen is Seen.YES:
        return _said("own_land", title, Verdict.MEETS, "On its own land.", PRACTICE)
    if seen is Seen.NO:
        detail = "A lead must not lie across a pavement or shared way: say where the car will stand, and who allows it."
        return _said("own_land", title, Verdict.YOUR_CALL, detail, PRACTICE)
    return None


def _dangerous(case: Case) -> Finding | None:
    left = [
        defect for defect in case.job.defects if defect.dangerous and defect.outcome is DefectOutcome.LEFT_TOLD_OWNER
    ]
    if not left:
        return None
    detail = f"Left as found: {left[0].what}. Say in writing why you did not make it harmless, and who was told."
    return _said("danger_left", "Nothing dangerous left behind", Verdict.YOUR_CALL, detail, "BS 7671 132.16")
