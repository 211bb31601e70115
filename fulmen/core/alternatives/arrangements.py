"""Every way to protect people at the car, judged by the same checks as the design itself.

A way is an earth for the car, an open-PEN measure, an RCD at the board, a place for 6 mA DC detection, and surge
protection or none. Whatever stands already (the unit, the RCD in front, the route) is taken as it is.
"""

from __future__ import annotations

from collections.abc import Iterator
from enum import StrEnum
from itertools import product

from fulmen.core.alternatives.protection_choice import (
    Protected,
    ProtectionChoice,
    protected,
    protection_changes,
    with_protection,
)
from fulmen.core.checks.earth_separation import earth_separation_findings
from fulmen.core.checks.earthing import earthing_findings
from fulmen.core.checks.front_rcds import front_rcd_findings
from fulmen.core.checks.residual_current import residual_current_findings
from fulmen.core.checks.surge import surge_findings
from fulmen.core.circuit.protection_words import dc_place_words, rcd_words
from fulmen.core.circuit.run_figures import Case, case_of, known_of
from fulmen.core.editing.changes import Change
from fulmen.core.findings.finding import Finding, RuleKey, Verdict
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import Stands, holds_rcd, rcd_beside_device
from fulmen.core.installation.installation import installation_of
from fulmen.core.installation.run import Run
from fulmen.core.judging.known import known_for
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.base import Part
from fulmen.core.model.guards import OpenPenSensing, RcdType, ordered_rcd
from fulmen.core.model.job import Job
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.rule_set import RuleSet

PROTECTION = (
    earthing_findings, earth_separation_findings, residual_current_findings, front_rcd_findings, surge_findings,
)  # fmt: skip


class Allowance(StrEnum):
    """The judgement of a way."""

    ALLOWED = "allowed"
    CONDITION = "condition"
    REFUSED = "refused"


VERDICTS = {
    Allowance.ALLOWED: Verdict.MEETS,
    Allowance.CONDITION: Verdict.YOUR_CALL,
    Allowance.REFUSED: Verdict.FALLS_SHORT,
}


class ArrangementReason(Part):
    """What stands against a way, or the condition it is allowed with; with clause and fear."""

    rule: RuleKey
    text: str
    clause: str
    fear: str
    school: str


class ArrangementOption(Part):
    """One way, in words, with its judgement; `changes` take it, `offered` unless it is refused or stands."""

    earth: str
    open_pen: str
    rcd: str
    rdc_dd: str
    surge: bool
    allowance: Allowance
    verdict: Verdict
    reasons: tuple[ArrangementReason, ...]
    chosen: bool
    changes: tuple[Change, ...]
    offered: bool


class ArrangementOptions(Part):
    """Every way of one job, and how many are allowed, allowed with a condition, and refused."""

    options: tuple[ArrangementOption, ...]
    counts: dict[Allowance, int]


def judge_protection(job: Job, rules: RuleSet, place: int = 0) -> tuple[Allowance, tuple[ArrangementReason, ...]]:
    """How one charge point of a job, by its place in the list, is protected: allowed, with a condition, or refused.

    Raises:
        IndexError: the job has no such charge point.
    """
    known = known_for(job, rules)
    return judge_case(case_of(known, known.installation.runs[place]))


def judge_case(case: Case) -> tuple[Allowance, tuple[ArrangementReason, ...]]:
    """The same for one run; none of these checks looks at the cable's figures, so the case may lack them."""
    return _judged([finding for check in PROTECTION for finding in check(case)])


def _judged(findings: list[Finding]) -> tuple[Allowance, tuple[ArrangementReason, ...]]:
    against = [one for one in findings if one.verdict is Verdict.FALLS_SHORT]
    conditions = [one for one in findings if one.verdict in (Verdict.NEEDS, Verdict.YOUR_CALL)]
    allowance = Allowance.REFUSED if against else Allowance.CONDITION if conditions else Allowance.ALLOWED
    told = against or conditions
    reasons = tuple(
        ArrangementReason(
            rule=one.rule, text=f"{one.title}: {one.detail}", clause=one.clause, fear=one.fear, school=one.school
        )
        for one in told
    )
    return allowance, reasons


def arrangement_options(job: Job, rules: RuleSet, place: int = 0) -> ArrangementOptions:
    """Every way for one charge point, by its place in the list, the allowed ones first; empty where nothing feeds it.

    Every one is that charge point's own; surge protection is its first board's.
    """
    known = known_for(job, rules)
    found = known.installation.runs[place:]
    if not found or not found[0].chain:
        return ArrangementOptions(options=(), counts=dict.fromkeys(Allowance, 0))
    beside = rcd_beside_device(found[0].guards)
    options = [
        _option(case_of(known, found[0]), place, choice, rcd_beside=beside) for choice in _combinations(job, found[0])
    ]
    order = list(Allowance)
    options.sort(key=lambda one: (order.index(one.allowance), len(one.reasons)))
    return ArrangementOptions(
        options=tuple(options), counts={each: sum(one.allowance is each for one in options) for each in Allowance}
    )


Choice = tuple[ProtectionChoice, bool]


def _combinations(job: Job, run: Run) -> Iterator[Choice]:
    rcds = [None, *(ordered_rcd(kind) for kind in RcdType), ordered_rcd(RcdType.A, neutral=False)]
    now = run.charge_point.arrangement
    for (earth, measure, sensing), rcd, place, surge in product(_earths(job, run), rcds, RdcDdPlace, (True, False)):
        arrangement = now.model_copy(update={"car_earth": earth, "open_pen": measure, "rdc_dd": place})
        yield ProtectionChoice(arrangement, rcd, sensing), surge


def _earths(job: Job, run: Run) -> list[tuple[CarEarth, OpenPenMeasure, OpenPenSensing | None]]:
    """Earth and measure; on a TT supply there is only the one. A device in a board is there as it is."""
    now = run.charge_point.arrangement.open_pen
    if job.supply.earthing is Earthing.TT:
        return [(CarEarth.HOUSE_EARTH, now, None)]
    in_board = any(one.open_pen and one.stands in (Stands.INCOMER, Stands.GROUP) for one in run.guards)
    sensings: list[OpenPenSensing | None] = [None] if in_board else list(OpenPenSensing)
    separate = [(CarEarth.HOUSE_EARTH, OpenPenMeasure.SEPARATE_DEVICE, sensing) for sensing in sensings]
    others = [measure for measure in OpenPenMeasure if measure is not OpenPenMeasure.SEPARATE_DEVICE]
    return [
        (CarEarth.HOUSE_EARTH, OpenPenMeasure.DEVICE_IN_UNIT, None),
        *separate,
        *((CarEarth.HOUSE_EARTH, measure, None) for measure in others if measure is not OpenPenMeasure.DEVICE_IN_UNIT),
        (CarEarth.OWN_ELECTRODE, now, None),
    ]


def _option(now: Case, place: int, choice: Choice, *, rcd_beside: bool) -> ArrangementOption:
    """One way; how people are protected changes neither the load nor the RCDs that others stand behind."""
    (taken, surge), arrangement = choice, choice[0].arrangement
    job, then = now.job, protected(now.job, now.run, taken)
    changed = _changed(now, then, surge=surge)
    known = known_of(installation_of(changed), now.rules, now.demand, now.measured)
    allowance, reasons = judge_case(case_of(known, known.installation.runs[place]))
    own = arrangement.car_earth is CarEarth.OWN_ELECTRODE
    tt = job.supply.earthing is Earthing.TT
    open_pen = "none needed: no PEN in its earth" if own or tt else word(arrangement.open_pen)
    watched = f", watching {word(taken.sensing)}" if taken.sensing and not own else ""
    changes = _changes(now, then, surge=surge)
    in_unit = holds_rcd(now.guards)
    return ArrangementOption(
        earth="the house electrode (TT)" if tt else word(arrangement.car_earth),
        open_pen=open_pen + watched,
        rcd=rcd_words(taken.rcd, before=rcd_beside, in_unit=in_unit),
        rdc_dd=dc_place_words(arrangement.rdc_dd, by_type_b=taken.rcd is not None and taken.rcd.type is RcdType.B),
        surge=surge,
        allowance=allowance,
        verdict=VERDICTS[allowance],
        reasons=reasons,
        chosen=not changes,
        changes=changes,
        offered=bool(changes) and allowance is not Allowance.REFUSED,
    )


def _changed(now: Case, then: Protected, *, surge: bool) -> Job:
    """The job with a way taken; parts are copied, not checked again: every value is the model's own."""
    first, job = now.run.chain[0].board, now.job
    fitted = first.model_copy(update={"surge_protection": _fitted(surge)})
    boards = tuple(fitted if board is first else board for board in job.boards)
    return with_protection(job.model_copy(update={"boards": boards}), then)


def _fitted(surge: bool) -> Seen:  # noqa: FBT001
    return Seen.YES if surge else Seen.NO


def _changes(now: Case, then: Protected, *, surge: bool) -> tuple[Change, ...]:
    """The fields by which a way differs from what stands."""
    first, new = now.run.chain[0].board, _fitted(surge)
    field = f"{now.installation.tree.paths[first.id]}.surge_protection"
    changed = (Change(field=field, value=new.value),) if first.surge_protection is not new else ()
    return (*protection_changes(now.installation, then), *changed)
