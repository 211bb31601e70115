"""What the charge point asks for: RCD before it, terminals, entry, joints; and what a used one must first show."""

from __future__ import annotations

from fulmen.core.checks.common import needs_fact
from fulmen.core.checks.earth_separation import arrives_armoured
from fulmen.core.checks.residual_current import board_rcd
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, Stage, Verdict, judged, stated
from fulmen.core.findings.words import word
from fulmen.core.model.boards import RcdType
from fulmen.core.model.charge_point import Provenance
from fulmen.core.model.supply import Seen
from fulmen.core.reference.cable_catalogue import last_cable

MAKER = "maker's instructions, BS 7671 134.1.1"
PRACTICE = "common practice, no source"
# Each type sees everything that the types before it see.
SEES = (RcdType.AC, RcdType.A, RcdType.F, RcdType.B)


def charge_point_findings(case: Case) -> list[Finding]:
    """Every finding about what the unit is and what it demands."""
    findings = [
        maker_rcd_finding(case),
        _terminals(case),
        _entry(case),
        _flex_tail(case),
        _used(case),
        _smart(case),
        _data(case),
        _follows_clamp(case),
    ]
    return [finding for finding in findings if finding is not None]


def maker_rcd_finding(case: Case) -> Finding | None:
    """The RCD that the unit's maker asks for before it, where one is asked for."""
    wanted, title = case.run.charge_point.upstream_rcd, "RCD before the unit as its maker asks"
    if wanted is None or not case.run.chain:
        return None
    rcd = board_rcd(case)
    if rcd is not None and SEES.index(rcd.type) >= SEES.index(wanted):
        detail = f"Type {rcd.type.value} stands at the board; the maker asks for Type {wanted.value}."
        return stated("maker_rcd", case.subject, title, Verdict.MEETS, detail, MAKER)
    there = f"only Type {rcd.type.value}" if rcd is not None else "none"
    detail = f"The maker asks for Type {wanted.value} before the unit; at the board stands {there}."
    remedy = f"Use a Type {wanted.value} RCBO at the board."
    return stated("maker_rcd", case.subject, title, Verdict.FALLS_SHORT, detail, MAKER, remedy=remedy)


def _terminals(case: Case) -> Finding | None:
    largest_mm2 = case.run.charge_point.terminal_max_mm2
    if largest_mm2 is None or not case.run.chain:
        return None
    return judged(
        rule="terminals",
        subject=case.subject,
        title="Conductors fit the unit's terminals",
        value=last_cable(case.run.final().circuit).csa_mm2,
        limit=largest_mm2,
        unit="mm²",
        decimals=0,
        clause=MAKER,
        detail="largest conductor its terminals take",
        remedy="End the cable in a box beside the unit and go on with a smaller flexible cable.",
    )


def _entry(case: Case) -> Finding | None:
    """Many units can't take an armoured cable's gland: the armour stops in a box and a tougher sheath goes on."""
    if not case.run.chain or not arrives_armoured(case):
        return None
    takes, title = case.run.charge_point.takes_armour, "Armoured cable can enter the unit"
    if takes is Seen.NO:
        detail = "The unit has no entry for an armoured cable's gland: say where the armour stops and what goes on."
        remedy = "End the armour in a gland box below the unit and go on with flexible or tough-sheathed cable."
        return stated("gland_entry", case.subject, title, Verdict.YOUR_CALL, detail, MAKER, remedy=remedy)
    if takes is Seen.YES:
        return stated("gland_entry", case.subject, title, Verdict.MEETS, "Its entry takes the gland.", MAKER)
    return None


def _flex_tail(case: Case) -> Finding | None:
    if not case.run.charge_point.flex_tail:
        return None
    detail = "It comes with a flexible tail: a junction box outside, one more joint. Some refuse it; say why you don't."
    return stated("flex_tail", case.subject, "No joint more than needed", Verdict.YOUR_CALL, detail, PRACTICE)


def _used(case: Case) -> Finding | None:
    point, title = case.run.charge_point, "Unit that is not new: what is inside, and that it works"
    if point.origin is Provenance.SUPPLIED_NEW:
        return None
    open_ones = [
        words
        for missing, words in (
            (point.built_year is None, "the year it was built"),
            (point.open_pen_inside is Seen.NOT_SEEN, "open-PEN device inside or not"),
            (point.rdc_dd_inside is Seen.NOT_SEEN, "6 mA DC detection inside or not"),
            (point.smart is Seen.NOT_SEEN, "smart functions or not"),
            (point.seen_working is Seen.NOT_SEEN, "that it works, before it goes on the wall"),
        )
        if missing
    ]
    if open_ones:
        return needs_fact("used_unit", case.subject, title, f"Find out: {'; '.join(open_ones)}.", PRACTICE)
    if point.seen_working is Seen.NO:
        remedy = "Don't fit it."
        return stated(
            "used_unit", case.subject, title, Verdict.FALLS_SHORT, "It does not work.", PRACTICE,
            stage=Stage.SURVEY, remedy=remedy,
        )  # fmt: skip
    detail = f"Built {point.built_year}, seen working."
    return stated("used_unit", case.subject, title, Verdict.MEETS, detail, PRACTICE, stage=Stage.SURVEY)


def _smart(case: Case) -> Finding | None:
    if case.run.charge_point.smart is not Seen.NO:
        return None
    detail = "No off-peak default, no random delay: a unit sold new must have both. Say why this one is fitted."
    title = "Smart functions"
    return stated("smart", case.subject, title, Verdict.YOUR_CALL, detail, "smart charge point regulations")


def _data(case: Case) -> Finding | None:
    """A smart unit without a way to the network keeps its defaults and nothing more."""
    ways, site, title = case.run.charge_point.data_ways, case.job.site, "Unit reaches the network"
    if not ways or site.data_looked_for is Seen.NOT_SEEN:
        return None
    reached = [way for way in ways if way in site.data_ways]
    if reached:
        detail = f"It can use {word(reached[0])}."
        return stated("data_way", case.subject, title, Verdict.MEETS, detail, PRACTICE, stage=Stage.SURVEY)
    detail = f"It asks for: {' or '.join(word(way) for way in ways)}. None was found; run a data cable, or say why not."
    return stated("data_way", case.subject, title, Verdict.YOUR_CALL, detail, PRACTICE, stage=Stage.SURVEY)


def _follows_clamp(case: Case) -> Finding | None:
    """A load limit, of the house or of a sub-main, is only as good as the clamp that tells the charge point."""
    limits = (case.job.supply.load_limit_a, *(chained.circuit.load_limit_a for chained in case.run.chain))
    if all(limit_a is None for limit_a in limits):
        return None
    title, clause = "Load limit has a current clamp to follow", "maker's instructions, common practice"
    clamp = case.run.charge_point.current_clamp
    if clamp is Seen.YES:
        detail = "Round the line tail only, arrow with the current, its wires on a twisted pair."
        return stated("load_clamp", case.subject, title, Verdict.MEETS, detail, clause, stage=Stage.SURVEY)
    if clamp is Seen.NO:
        detail = "The unit takes no clamp, so nothing holds the limit."
        remedy = "Use a unit that takes a clamp, turn it down instead, or ask for a bigger fuse."
        return stated(
            "load_clamp", case.subject, title, Verdict.FALLS_SHORT, detail, clause, stage=Stage.SURVEY, remedy=remedy
        )
    return needs_fact(
        "load_clamp", case.subject, title, "Does the unit take a current clamp? Look in its data.", clause
    )
