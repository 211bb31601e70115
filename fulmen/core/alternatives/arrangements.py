"""Every way to protect people at the car, judged by the same checks as the design itself.

A way is an earth for the car, an open-PEN measure, an RCD at the board, a place for 6 mA DC detection, and surge
protection or none. Whatever stands already (the unit, the RCD in front, the route) is taken as it is.
"""

from __future__ import annotations

from collections.abc import Iterator
from enum import StrEnum
from itertools import product

from fulmen.core.checks.earth_separation import earth_separation_findings
from fulmen.core.checks.earthing import earthing_findings
from fulmen.core.checks.residual_current import residual_current_findings
from fulmen.core.checks.surge import surge_findings
from fulmen.core.circuit.run_figures import Case
from fulmen.core.circuit.specification import rcd_words
from fulmen.core.demand.demand import demand_of
from fulmen.core.editing.changes import Change
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.findings.words import word
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.base import Part
from fulmen.core.model.boards import Rcd, RcdType
from fulmen.core.model.charge_point import OpenPenSensing
from fulmen.core.model.job import Job
from fulmen.core.model.run import board_index, runs
from fulmen.core.model.supply import Earthing, Seen
from fulmen.core.reference.rule_set import RuleSet

PROTECTION = (earthing_findings, earth_separation_findings, residual_current_findings, surge_findings)


class Allowance(StrEnum):
    """The judgement of a way."""

    ALLOWED = "allowed"
    CONDITION = "condition"
    REFUSED = "refused"


class ArrangementReason(Part):
    """What stands against a way, or the condition it is allowed with; with clause and fear."""

    rule: str
    text: str
    clause: str
    fear: str
    school: str


class ArrangementOption(Part):
    """One way, in words, with its judgement; `changes` take it."""

    earth: str
    open_pen: str
    rcd: str
    rdc_dd: str
    surge: bool
    allowance: Allowance
    reasons: tuple[ArrangementReason, ...]
    chosen: bool
    changes: tuple[Change, ...]


class ArrangementOptions(Part):
    """Every way of one job, and how many are allowed, allowed with a condition, and refused."""

    options: tuple[ArrangementOption, ...]
    counts: dict[Allowance, int]


def judge_protection(job: Job, rules: RuleSet, place: int = 0) -> tuple[Allowance, tuple[ArrangementReason, ...]]:
    """How one charge point of a job, by its place in the list, is protected: allowed, with a condition, or refused.

    Raises:
        IndexError: the job has no such charge point.
    """
    return judge_case(Case(job, rules, runs(job)[place], demand_of(job, rules), None))


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

    Earth, open-PEN measure and DC detection are the whole job's; the RCD is that charge point's circuit's own.
    """
    found = runs(job)[place:]
    if not found or not found[0].chain:
        return ArrangementOptions(options=(), counts=dict.fromkeys(Allowance, 0))
    options = [_option(job, choice, rules, place) for choice in _combinations(job)]
    order = list(Allowance)
    options.sort(key=lambda one: (order.index(one.allowance), len(one.reasons)))
    return ArrangementOptions(
        options=tuple(options), counts={each: sum(one.allowance is each for one in options) for each in Allowance}
    )


Choice = tuple[CarEarth, OpenPenMeasure, OpenPenSensing | None, Rcd | None, RdcDdPlace, bool]


def _combinations(job: Job) -> Iterator[Choice]:
    rcds: list[Rcd | None] = [None, *(Rcd(type=kind) for kind in RcdType), Rcd(type=RcdType.A, switches_neutral=False)]
    for (earth, measure, sensing), rcd, place, surge in product(_earths(job), rcds, RdcDdPlace, (True, False)):
        yield earth, measure, sensing, rcd, place, surge


def _earths(job: Job) -> list[tuple[CarEarth, OpenPenMeasure, OpenPenSensing | None]]:
    """Earth and measure; on a TT supply there is only the one."""
    now = job.arrangement.open_pen
    if job.supply.earthing is Earthing.TT:
        return [(CarEarth.HOUSE_EARTH, now, None)]
    separate = [(CarEarth.HOUSE_EARTH, OpenPenMeasure.SEPARATE_DEVICE, sensing) for sensing in OpenPenSensing]
    others = [measure for measure in OpenPenMeasure if measure is not OpenPenMeasure.SEPARATE_DEVICE]
    return [
        (CarEarth.HOUSE_EARTH, OpenPenMeasure.DEVICE_IN_UNIT, None),
        *separate,
        *((CarEarth.HOUSE_EARTH, measure, None) for measure in others if measure is not OpenPenMeasure.DEVICE_IN_UNIT),
        (CarEarth.OWN_ELECTRODE, now, None),
    ]


def _option(job: Job, choice: Choice, rules: RuleSet, place: int) -> ArrangementOption:
    earth, measure, sensing, rcd, rdc_dd, surge = choice
    changed = _changed(job, choice, place)
    allowance, reasons = judge_protection(changed, rules, place)
    own = earth is CarEarth.OWN_ELECTRODE
    tt = job.supply.earthing is Earthing.TT
    open_pen = "none needed: no PEN in its earth" if own or tt else word(measure)
    watched = f", watching {word(sensing)}" if sensing and not own else ""
    return ArrangementOption(
        earth="the house electrode (TT)" if tt else word(earth),
        open_pen=open_pen + watched,
        rcd=rcd_words(rcd),
        rdc_dd=word(rdc_dd),
        surge=surge,
        allowance=allowance,
        reasons=reasons,
        chosen=not _changes(job, changed, place),
        changes=_changes(job, changed, place),
    )


def _circuit_index(job: Job, place: int) -> int:
    final = runs(job)[place].final().circuit.id
    return next(index for index, circuit in enumerate(job.circuits) if circuit.id == final)


def _changed(job: Job, choice: Choice, place: int) -> Job:
    """The job with a way taken; parts are copied, not checked again, since every value is one of the model's own."""
    earth, measure, sensing, rcd, rdc_dd, surge = choice
    device = job.arrangement.separate_device
    separate = device if sensing is None else device.model_copy(update={"sensing": sensing})
    arrangement = job.arrangement.model_copy(
        update={"car_earth": earth, "open_pen": measure, "separate_device": separate, "rdc_dd": rdc_dd}
    )
    index = _circuit_index(job, place)
    circuit = job.circuits[index]
    circuit = circuit.model_copy(update={"device": circuit.device.model_copy(update={"rcd": rcd})})
    circuits = (*job.circuits[:index], circuit, *job.circuits[index + 1 :])
    seen = Seen.YES if surge else Seen.NO
    origin = board_index(job, runs(job)[place].chain[0].board)
    fitted = job.boards[origin].model_copy(update={"surge_protection": seen})
    boards = (*job.boards[:origin], fitted, *job.boards[origin + 1 :])
    return job.model_copy(update={"arrangement": arrangement, "circuits": circuits, "boards": boards})


def _changes(job: Job, changed: Job, place: int) -> tuple[Change, ...]:
    """The fields by which a way differs from the job."""
    index, origin = _circuit_index(job, place), board_index(job, runs(job)[place].chain[0].board)
    now, then = job.arrangement, changed.arrangement
    rcd_now, rcd_then = job.circuits[index].device.rcd, changed.circuits[index].device.rcd
    pairs = [
        ("arrangement.car_earth", now.car_earth, then.car_earth),
        ("arrangement.open_pen", now.open_pen, then.open_pen),
        ("arrangement.separate_device.sensing", now.separate_device.sensing, then.separate_device.sensing),
        ("arrangement.rdc_dd", now.rdc_dd, then.rdc_dd),
        (f"circuits.{index}.device.rcd", rcd_now, rcd_then),
        (
            f"boards.{origin}.surge_protection",
            job.boards[origin].surge_protection,
            changed.boards[origin].surge_protection,
        ),
    ]
    return tuple(Change(field=field, value=_plain(new)) for field, old, new in pairs if old != new)


def _plain(value: object) -> object:
    return value.model_dump(mode="json") if isinstance(value, Rcd) else getattr(value, "value", value)
