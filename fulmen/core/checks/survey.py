"""What the survey saw and what it means: cut-out, isolator, sleeving, terminal, route, ownership, defects."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.findings.rules.supply import (
    BONDING_PLACE,
    CUT_OUT,
    DANGER_IN_PATH,
    DANGER_LEFT,
    EARTH_TERMINAL,
    ISOLATOR,
    OWN_LAND,
    PERMISSION,
    TAILS_SLEEVED,
    WAY_CLEAR,
)
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.defects import Defect, DefectOutcome
from fulmen.core.model.job import Job
from fulmen.core.model.route import WayMade
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import Hazard, Ownership
from fulmen.core.model.stops import Stop
from fulmen.core.model.supply import BondedService, CutOutCondition
from fulmen.core.network_operator.notification import agreed_letter

METAL_SERVICES = {BondedService.WATER, BondedService.GAS, BondedService.OIL}


def survey_findings(case: Case) -> list[Finding]:
    """Every finding about what was seen, in the order of the walk."""
    findings = [
        _cut_out(case), _isolator(case), _sleeving(case), _earth_terminal(case), _bonding_place(case),
        _duct(case), _permission(case), _own_land(case), _dangerous_in_path(case), _dangerous(case),
    ]  # fmt: skip
    return [finding for finding in findings if finding is not None]


def _at_origin(rule: Rule, case: Case) -> Question:
    return ask(rule, case.rules, ORIGIN)


def _cut_out(case: Case) -> Finding:
    asked, condition = _at_origin(CUT_OUT, case), case.job.supply.cut_out_condition
    if condition is CutOutCondition.NOT_SEEN:
        return asked.needs_fact("Look at it without opening it: cast iron, pitch, scorch marks?")
    if condition is CutOutCondition.SOUND:
        return asked.meets("Sound, as seen from outside.")
    letter = agreed_letter(case.job, case.demand)
    if condition is CutOutCondition.OLD and letter is not None and not letter.stand_in:
        return asked.meets(f"Old; the operator knows it and agreed in writing on {letter.dated:%-d %B %Y}.")
    what = "Old, cast iron or pitch-filled" if condition is CutOutCondition.OLD else "Damaged, scorched or leaking"
    return asked.falls_short(
        f"{what}: don't touch it, don't pull the fuse. The operator has to replace it before your work.",
        remedy="Report it to the network operator; apply before any work.",
    )


def _isolator(case: Case) -> Finding | None:
    asked, seen = _at_origin(ISOLATOR, case), case.job.supply.isolator
    if seen is Seen.NO:
        detail = "No isolator between meter and board: say how the tails will be made dead, and by whom."
        return asked.your_call(detail, basis={"isolator": seen}, remedy="Ask for an isolator to be fitted.")
    return asked.meets("An isolator stands between meter and board.") if seen is Seen.YES else None


def _sleeving(case: Case) -> Finding | None:
    asked, marked = _at_origin(TAILS_SLEEVED, case), [one.sleeved for one in case.job.supply.tails]
    if Seen.NO in marked:
        detail = "Marking is missing: prove which is which before anything is connected, then sleeve them."
        return asked.your_call(detail, basis={"sleeved": Seen.NO}, remedy="Sleeve them and record it as put right.")
    return asked.meets("Marked.") if marked and all(seen is Seen.YES for seen in marked) else None


def _earth_terminal(case: Case) -> Finding:
    asked, seen = _at_origin(EARTH_TERMINAL, case), case.job.supply.earth_terminal
    if seen is Seen.NOT_SEEN:
        return asked.needs_fact("Find where earthing and bonding conductors come together.")
    if seen is Seen.YES:
        return asked.meets("Found.")
    return asked.falls_short("There is none.", remedy="Fit one, and bring earthing and bonding conductors to it.")


def _bonding_place(case: Case) -> Finding | None:
    """Near the meter or where the service comes in, before any branch."""
    supply, asked = case.job.supply, _at_origin(BONDING_PLACE, case)
    if supply.no_metal_comes_in or not METAL_SERVICES & set(supply.bonded_services):
        return None
    most = f"{case.rules.value('bonding_near_entry_mm'):g} mm"
    if supply.bonding_near_entry is Seen.YES:
        return asked.meets(f"Within {most} of the meter or entry, before any branch.")
    if supply.bonding_near_entry is Seen.NO:
        remedy = f"Move the clamp to within {most} of the meter or entry."
        detail = f"Further than {most}, or after a branch. Say why an existing clamp stays where it is."
        return asked.your_call(detail, basis={"near_entry": Seen.NO}, remedy=remedy)
    return asked.needs_fact(f"Is each clamp within {most} of the meter, stop valve or entry, before any branch?")


def _duct(case: Case) -> Finding | None:
    """What is there already must be proven: until then price and plan for the worse case."""
    assumed = {Hazard.OLD_DUCT: "an existing duct", Hazard.FULL_CAVITY: "a cavity full of cables"}
    found = [words for hazard, words in assumed.items() if hazard in case.job.site.hazards]
    routes = [one for chained in case.new_circuits for one in chained.circuit.route]
    if not found and any(one.ducted() and one.way_made is WayMade.THERE for one in routes):
        found = [assumed[Hazard.OLD_DUCT]]
    if not found:
        return None
    asked = _at_origin(WAY_CLEAR, case)
    if case.job.site.way_proven_clear is Seen.YES:
        return asked.meets("A draw line went through.")
    return asked.needs_fact(f"The route counts on {' and '.join(found)}: blocked until a draw line has gone through.")


def _permission(case: Case) -> Finding | None:
    site, asked = case.job.site, _at_origin(PERMISSION, case)
    if site.ownership in (Ownership.OWNER_LIVES_THERE, Ownership.NOT_SEEN):
        return None
    if site.permission_in_writing is Seen.YES:
        return asked.meets("The owner's word is kept with the job.")
    return asked.needs_fact(
        "Whoever asks does not own the dwelling, or lives elsewhere: no work without the owner's word."
    )


def _own_land(case: Case) -> Finding | None:
    asked, seen = _at_origin(OWN_LAND, case), case.job.site.parking_on_own_land
    if seen is Seen.YES:
        return asked.meets("On its own land.")
    if seen is Seen.NOT_SEEN:
        return None
    detail = "A lead must not lie across a pavement or shared way: say where the car will stand, and who allows it."
    return asked.your_call(detail, basis={"own_land": seen})


# Where the new circuit's current flows, and where its installer may put things right. What is wrong with the cut-out
# itself is asked by name, see `_cut_out`.
IN_THE_PATH = (Stop.CUT_OUT, Stop.TAILS, Stop.EARTH, Stop.BOARD, Stop.ROUTE, Stop.CHARGE_POINT)


def dangers_left(job: Job) -> list[Defect]:
    """The dangers that were found and left as they were."""
    return [one for one in job.defects if one.dangerous and one.outcome is DefectOutcome.LEFT_TOLD_OWNER]


def _dangerous_in_path(case: Case) -> Finding | None:
    """A danger on the way of the current is put right before more current flows there."""
    left = [one for one in dangers_left(case.job) if one.stop in IN_THE_PATH]
    if not left:
        return None
    operators = all(one.stop is Stop.CUT_OUT for one in left)
    names = "; ".join(one.what for one in left)
    return _at_origin(DANGER_IN_PATH, case).falls_short(
        f"Left as found: {names}. The new circuit loads it for hours on end.",
        remedy="Have the operator make it safe first." if operators else "Put it right first.",
    )


def _dangerous(case: Case) -> Finding | None:
    left = [one for one in dangers_left(case.job) if one.stop not in IN_THE_PATH]
    return danger_finding(_at_origin(DANGER_LEFT, case), left) if left else None


def danger_finding(asked: Question, left: list[Defect]) -> Finding:
    """Dangers that are left beside the work: whoever leaves them says why, and who was told."""
    detail = f"Left as found: {left[0].what}. Say in writing why you did not make it harmless, and who was told."
    # What the person wrote down is the fact: another defect left behind is another question.
    return asked.your_call(detail, basis={"left": tuple(one.what[:100] for one in left)})
