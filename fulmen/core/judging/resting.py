"""What figures are reckoned with until somebody says it, and which rules rest on it: while it is open they don't meet.

A figure is worked out with the usual value, so that a design can be seen growing; what it falls short by is told at
once. A test takes every fact of every example back and holds this table against what other answers do.
"""

from __future__ import annotations

from enum import StrEnum

from fulmen.core.demand.demand import Demand
from fulmen.core.findings.finding import Finding, RuleKey, Verdict
from fulmen.core.findings.rules import around, protection, run, supply
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.installation.installation import Installation
from fulmen.core.model.seen import Seen
from fulmen.core.plain import changed


class Reckoned(StrEnum):
    """A fact that is open, and reckoned with all the same."""

    UNIT_CURRENT = "unit_current"
    SET_CURRENT = "set_current"
    UNIT_PHASES = "unit_phases"
    SUPPLY_PHASES = "supply_phases"
    TAILS = "tails"
    DEMAND = "demand"
    LOOPED = "looped"
    FEEDS_BACK = "feeds_back"
    EARTHING_CONDUCTOR = "earthing_conductor"


ASKED = {
    Reckoned.UNIT_CURRENT: "what the unit takes (32 A is reckoned)",
    Reckoned.SET_CURRENT: "whether the unit can be turned up by anybody (the current it is set to is reckoned)",
    Reckoned.UNIT_PHASES: "how many phases the unit has (one is reckoned)",
    Reckoned.SUPPLY_PHASES: "how many phases the supply has (one is reckoned)",
    Reckoned.TAILS: "size and length of the tails (they are left out)",
    Reckoned.DEMAND: "the maximum demand (the car alone is reckoned)",
    Reckoned.LOOPED: "whether the service is looped",
    Reckoned.EARTHING_CONDUCTOR: "the size of the earthing conductor (it is left out)",
    Reckoned.FEEDS_BACK: "whether a unit can feed the car's battery back (that none can is reckoned)",
}
LOADS = (Reckoned.UNIT_CURRENT, Reckoned.SET_CURRENT, Reckoned.UNIT_PHASES)
PHASES = (Reckoned.UNIT_PHASES, Reckoned.SUPPLY_PHASES)
RESTS_ON: dict[Rule, tuple[Reckoned, ...]] = {
    supply.DEMAND: LOADS,
    supply.DEMAND_ENTERED: LOADS,
    supply.DEMAND_MAIN_SWITCH: LOADS,
    around.BOARD_DIVERSITY: LOADS,
    run.FLEX_RATING: (Reckoned.UNIT_PHASES,),
    run.FLEX_SURVIVES: (Reckoned.UNIT_PHASES,),
    supply.TAILS_CAPACITY: (*LOADS, Reckoned.SUPPLY_PHASES),
    supply.OPERATOR: (*LOADS, Reckoned.LOOPED, Reckoned.FEEDS_BACK),
    supply.MAIN_SWITCH_POLES: (Reckoned.SUPPLY_PHASES,),
    run.LOAD_ON_DEVICE: LOADS,
    run.MAKER_DEVICE: (Reckoned.UNIT_CURRENT,),
    run.TERMINAL_TEMPERATURE: LOADS,
    run.WEAKEST_SECTION: (Reckoned.UNIT_PHASES,),
    run.VOLT_DROP: (*LOADS, Reckoned.TAILS, Reckoned.DEMAND),
    run.VOLT_DROP_LIGHTING: (*LOADS, Reckoned.TAILS, Reckoned.DEMAND),
    run.BREAKING_CAPACITY: (Reckoned.SUPPLY_PHASES,),
    run.GUARD_POLES: PHASES,
    protection.DISCONNECTION: (Reckoned.TAILS, Reckoned.EARTHING_CONDUCTOR),
    protection.SURVIVES_FAULT: (Reckoned.TAILS, Reckoned.EARTHING_CONDUCTOR),
    protection.LEAST_FAULT: (Reckoned.TAILS,),
    protection.OPEN_PEN: PHASES,
    protection.OWN_RCD: PHASES,
    protection.RCD_NEUTRAL: PHASES,
    protection.TT_ORIGIN_RCD: PHASES,
}
BY_RULE: dict[RuleKey, tuple[Reckoned, ...]] = {rule.key: facts for rule, facts in RESTS_ON.items()}


def reckoned_with(installation: Installation, demand: Demand) -> frozenset[Reckoned]:
    """What a job's figures are reckoned with though nobody has said it."""
    job, points = installation.job, installation.job.charge_points
    open_ones = {
        Reckoned.UNIT_CURRENT: any(not one.current_known for one in points),
        Reckoned.SET_CURRENT: any(one.may_be_turned_up for one in points),
        Reckoned.UNIT_PHASES: any(one.phases is None for one in points),
        Reckoned.SUPPLY_PHASES: job.supply.phases is None,
        Reckoned.TAILS: any(one.csa_mm2 is None or one.length_m is None for one in job.supply.tails),
        Reckoned.DEMAND: demand.total_a is None,
        Reckoned.LOOPED: job.supply.looped is Seen.NOT_SEEN,
        Reckoned.EARTHING_CONDUCTOR: job.supply.earthing_conductor_csa_mm2 is None,
        Reckoned.FEEDS_BACK: any(one.feeds_back is Seen.NOT_SEEN for one in points),
    }
    return frozenset(fact for fact, is_open in open_ones.items() if is_open)


def waiting(finding: Finding, reckoned: frozenset[Reckoned], doubted: frozenset[RuleKey]) -> Finding:
    """A finding that would meet, as one that waits for what it is only reckoned with, or for which of two is right."""
    if finding.verdict is not Verdict.MEETS:
        return finding
    asked = [ASKED[one] for one in BY_RULE.get(finding.rule, ()) if one in reckoned]
    if finding.rule in doubted:
        asked.append("which is right of two things that can't both be so")
    if not asked:
        return finding
    detail = f"Say {'; '.join(asked)}. {finding.detail}".rstrip()
    return changed(finding, verdict=Verdict.NEEDS, is_open=True, detail=detail, waits_for="fact", proven_by=())
