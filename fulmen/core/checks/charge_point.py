"""What the charge point asks for: RCD before it, terminals, entry, height, weather; and what a used one must show."""

from __future__ import annotations

from fulmen.core.checks.common import keeps_weather_out, leaning, mark_wanted
from fulmen.core.checks.earth_separation import arrives_armoured
from fulmen.core.checks.flexible_tail import flexible_tail_findings
from fulmen.core.checks.load_clamp import load_clamp_finding
from fulmen.core.checks.residual_current import unread_on
from fulmen.core.circuit.fitness import opens_at_once
from fulmen.core.circuit.margins import terminals_margin
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.protection import MAKER_RCD
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.findings.rules.run import (
    CONNECTOR_HEIGHT,
    DATA_WAY,
    GLAND_ENTRY,
    IP_CODE,
    LOAD_CLAMP,
    SET_CURRENT,
    SMART,
    USED_UNIT,
)
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.model.charge_point import Provenance
from fulmen.core.model.guards import RcdType
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import CarPlace, Circumstance
from fulmen.core.reference.cable_catalogue import last_cable

# Each type sees everything that the types before it see.
SEES = (RcdType.AC, RcdType.A, RcdType.F, RcdType.B)


def charge_point_findings(case: Case) -> list[Finding]:
    """Every finding about what the unit is and what it demands."""
    findings = [
        maker_rcd_finding(case),
        _terminals(case),
        _entry(case),
        *flexible_tail_findings(case),
        _used(case),
        _smart(case),
        _data(case),
        _set_current(case),
        _follows_clamp(case),
    ]
    return [finding for finding in findings if finding is not None]


def place_findings(case: Case) -> list[Finding]:
    """Every finding about where the charge point stands."""
    return [finding for finding in (_height(case), _ip_code(case)) if finding is not None]


def _about(rule: Rule, case: Case) -> Question:
    return ask(rule, case.rules, case.subject)


def maker_rcd_finding(case: Case) -> Finding | None:
    """The RCD that the unit's maker asks for before it, where one is asked for."""
    wanted = case.run.charge_point.upstream_rcd
    if not case.run.chain:
        return None
    asked = _about(MAKER_RCD, case)
    if wanted is None:
        unasked = case.run.charge_point.upstream_rcd_asked is not Seen.NO
        return asked.needs_fact("Look up which RCD the unit's maker asks for before it, if any.") if unasked else None
    most_ma = case.rules.value("rcd_residual_ma")
    own = [one for one in case.run.own_rcds if one.stands is not Stands.UNIT and opens_at_once(one.rcd, most_ma)]
    before = [(one, one.rcd.type) for one in own if one.rcd is not None]
    best = max(before, key=lambda entry: SEES.index(entry[1]), default=None)
    where = "at the board" if best is None or best[0].device is not None else best[0].where
    if best is not None and SEES.index(best[1]) >= SEES.index(wanted):
        return leaning(case, asked, best[0]).meets(
            f"Type {best[1].value} stands {where}; the maker asks for Type {wanted.value}."
        )
    unread = unread_on(case)
    if unread is not None:
        return mark_wanted(asked, unread)
    shared = _shared_that_serves(case, wanted, most_ma)
    if shared is not None and best is None and shared.shared is Seen.NOT_SEEN:
        return asked.needs_fact(f"Does anything else hang behind the {shared.name} {shared.where}?")
    if shared is not None and best is None:
        detail = (
            f"The maker asks for Type {wanted.value} before the unit: the {shared.name} {shared.where} is that, and "
            "serves others too. Read whether the data asks for one of its own, and say so."
        )
        return leaning(case, asked, shared).your_call(detail, basis={"shared": shared.name, "wanted": wanted})
    there = f"only Type {best[1].value}" if best is not None else f"none that opens at once on {most_ma:g} mA"
    return asked.falls_short(
        f"The maker asks for Type {wanted.value} before the unit; {where} stands {there}.",
        remedy=f"Use a Type {wanted.value} RCBO at the board.",
    )


def _shared_that_serves(case: Case, wanted: RcdType, most_ma: float) -> PlacedGuard | None:
    """An RCD in front that sees what the maker asks for and opens at once, where others hang behind it or may."""
    for guard in case.run.rcds_outside:
        sees = SEES.index(guard.residual.type) >= SEES.index(wanted)
        if guard.circuit == case.subject and sees and opens_at_once(guard.rcd, most_ma):
            return guard
    return None


def _terminals(case: Case) -> Finding | None:
    csa_mm2 = last_cable(case.run.final().circuit).csa_mm2 if case.run.chain else 0.0
    margin = terminals_margin(case.run.charge_point, case.subject, csa_mm2)
    if margin is None or not case.run.chain:
        return None
    return _about(margin.rule, case).judged(
        value=margin.value,
        limit=margin.limit,
        unit="mm²",
        decimals=0,
        detail="largest conductor its terminals take",
        remedy="End the cable in a box beside the unit and go on with a smaller flexible cable.",
    )


def _entry(case: Case) -> Finding | None:
    """Many units can't take an armoured cable's gland: the armour stops in a box and a tougher sheath goes on."""
    if not case.run.chain or not arrives_armoured(case):
        return None
    takes, asked = case.run.charge_point.takes_armour, _about(GLAND_ENTRY, case)
    if takes is Seen.NO:
        detail = "The unit has no entry for an armoured cable's gland: say where the armour stops and what goes on."
        remedy = "End the armour in a gland box below the unit and go on with flexible or tough-sheathed cable."
        return asked.your_call(detail, basis={"takes_armour": takes}, remedy=remedy)
    return asked.meets("Its entry takes the gland.") if takes is Seen.YES else None


def _used(case: Case) -> Finding | None:
    point, asked = case.run.charge_point, _about(USED_UNIT, case)
    if point.provenance is Provenance.SUPPLIED_NEW:
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
        return asked.needs_fact(f"Find out: {'; '.join(open_ones)}.")
    if point.seen_working is Seen.NO:
        return asked.falls_short("It does not work.", remedy="Don't fit it.")
    return asked.meets(f"Built {point.built_year}, seen working.")


def _smart(case: Case) -> Finding | None:
    if case.run.charge_point.smart is not Seen.NO:
        return None
    detail = "No off-peak default, no random delay: a unit sold new must have both. Say why this one is fitted."
    return _about(SMART, case).your_call(detail, basis={"smart": Seen.NO})


def _data(case: Case) -> Finding | None:
    """A smart unit without a way to the network keeps its defaults and nothing more."""
    ways, site = case.run.charge_point.data_ways, case.job.site
    if not ways or site.data_looked_for is Seen.NOT_SEEN:
        return None
    reached, asked = [way for way in ways if way in site.data_ways], _about(DATA_WAY, case)
    if reached:
        return asked.meets(f"It can use {word(reached[0])}.")
    detail = f"It asks for: {' or '.join(word(way) for way in ways)}. None was found; run a data cable, or say why not."
    return asked.your_call(detail, basis={"asks_for": ways, "found": site.data_ways})


def _set_current(case: Case) -> Finding | None:
    """A unit can be turned down, not up."""
    point, asked = case.run.charge_point, _about(SET_CURRENT, case)
    if point.set_current_a is None or point.max_current_a is None:
        return None
    if point.may_be_turned_up:
        return asked.needs_fact("Can it be turned up without a tool, a code, or its cover off?")
    if point.set_current_a < point.max_current_a and point.set_current_locked is Seen.NO:
        detail = (
            f"Anybody can turn it up: the circuit is judged at its full {point.max_current_a:g} A. Say why it is set."
        )
        return asked.your_call(detail, basis={"set_a": point.set_current_a, "max_a": point.max_current_a})
    if point.set_current_a <= point.max_current_a:
        return asked.meets(f"Set to {point.set_current_a:g} A of {point.max_current_a:g} A.")
    detail = f"Set to {point.set_current_a:g} A; the unit takes {point.max_current_a:g} A at most."
    return asked.falls_short(detail, remedy="Set it to what it can take.")


def _follows_clamp(case: Case) -> Finding | None:
    """A load limit, of the house or of a sub-main, is only as good as the clamp that tells the charge point."""
    limits = (case.job.supply.load_limit_a, *(chained.circuit.load_limit_a for chained in case.run.chain))
    if all(limit_a is None for limit_a in limits):
        return None
    asked, clamp = _about(LOAD_CLAMP, case), case.run.charge_point.current_clamp
    if clamp is Seen.YES and case.run.charge_point.to_come:
        # Nothing charges yet: it is proven when the unit comes, and the paper says so.
        return None
    if clamp is Seen.YES:
        return load_clamp_finding(asked, case, min(one for one in limits if one is not None))
    if clamp is Seen.NO:
        remedy = "Use a unit that takes a clamp, turn it down instead, or ask for a bigger fuse."
        return asked.falls_short("The unit takes no clamp, so nothing holds the limit.", remedy=remedy)
    return asked.needs_fact("Does the unit take a current clamp? Look in its data.")


def _height(case: Case) -> Finding:
    height_m, asked = case.run.charge_point.connector_height_m, _about(CONNECTOR_HEIGHT, case)
    wheelchair = Circumstance.WHEELCHAIR in (case.job.site.circumstances or ())
    who = "accessible" if wheelchair else "connector"
    low_m, high_m = case.rules.value(f"{who}_height_min_m"), case.rules.value(f"{who}_height_max_m")
    if height_m is None:
        return asked.needs_fact("Enter its height above the ground.")
    seat = " from a wheelchair" if wheelchair else ""
    detail = f"{height_m:.2f} m above ground; {low_m:g} to {high_m:g} m is wanted{seat}."
    if low_m <= height_m <= high_m:
        return asked.meets(detail)
    remedy = "Move it, or the householder overrules the height: say so."
    basis = {"height_m": round(height_m, 2), "low_m": low_m, "high_m": high_m}
    return asked.your_call(detail, basis=basis, remedy=remedy)


def _ip_code(case: Case) -> Finding | None:
    """By where the unit hangs; where nobody said, outdoors, unless no car can be charged outdoors either."""
    point, asked = case.run.charge_point, _about(IP_CODE, case)
    if point.hangs_outdoors is False:
        return None
    if point.hangs_outdoors is None and case.job.site.car_place is CarPlace.INDOORS_ONLY:
        return asked.needs_fact("Does the unit hang outdoors or indoors?")
    if point.ip_code is None:
        return asked.needs_fact("Enter the IP code of the unit.")
    return keeps_weather_out(point.ip_code, case.rules, asked, "unit")
