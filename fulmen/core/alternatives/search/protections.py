"""The ways to protect people that are tried with every cable: those that “Protect people” would list, judged by it."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from itertools import product

from fulmen.core.alternatives.arrangements import Allowance, judge_case
from fulmen.core.alternatives.protection_choice import Protected, ProtectionChoice, protected, with_protection
from fulmen.core.alternatives.search.candidates import Kinds
from fulmen.core.alternatives.search.judging import AT_THE_BOARD, Short
from fulmen.core.checks.charge_point import maker_rcd_finding
from fulmen.core.circuit.margins import rcd_in_time
from fulmen.core.circuit.protection_words import dc_place_words, rcd_words
from fulmen.core.circuit.run_figures import Case, Known, case_of, disconnection_s, known_of
from fulmen.core.editing.layouts import Layout
from fulmen.core.findings.finding import Verdict
from fulmen.core.findings.rules import REGISTER
from fulmen.core.findings.rules.protection import DISCONNECTION
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import Stands, holds_rcd, rcd_beside_device
from fulmen.core.installation.installation import installation_of
from fulmen.core.installation.run import Run
from fulmen.core.model.arrangement import Arrangement, CarEarth, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.cables import Cable
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import RcdMark, RcdType, ordered_rcd
from fulmen.core.model.job import Job
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.rule_set import RuleSet

MEASURES = (
    (CarEarth.HOUSE_EARTH, OpenPenMeasure.DEVICE_IN_UNIT),
    (CarEarth.HOUSE_EARTH, OpenPenMeasure.SEPARATE_DEVICE),
    (CarEarth.HOUSE_EARTH, OpenPenMeasure.LOW_ELECTRODE),
    (CarEarth.HOUSE_EARTH, OpenPenMeasure.THREE_PHASE_BALANCE),
    (CarEarth.OWN_ELECTRODE, OpenPenMeasure.NONE),
)
RCDS: tuple[RcdMark | None, ...] = (*(ordered_rcd(one) for one in (RcdType.A, RcdType.F, RcdType.B)), None)


NO_RCD = Short(DISCONNECTION, "only an RCD at the board would open it in time")


@dataclass(frozen=True)
class Protection:
    """One arrangement: earth and open-PEN measure, RCD at the board, place of 6 mA DC detection.

    `before` says whether another RCD stands before the unit, `in_unit` whether one is inside it.
    """

    arrangement: Arrangement
    rcd: RcdMark | None
    standing: bool
    before: bool = False
    in_unit: bool = True

    def words(self, *, tt: bool) -> str:
        """The arrangement in words."""
        earth = word(self.arrangement.car_earth)
        if tt:
            earth = "the house electrode"
        elif self.arrangement.car_earth is CarEarth.HOUSE_EARTH:
            earth = f"house earth, {word(self.arrangement.open_pen)}"
        type_b = self.rcd is not None and self.rcd.type is RcdType.B
        dc = dc_place_words(self.arrangement.rdc_dd, by_type_b=type_b)
        rcd = rcd_words(self.rcd, before=self.before, in_unit=self.in_unit)
        return f"{earth}; {rcd}; 6 mA DC detection {dc}"


@dataclass(frozen=True)
class JudgedProtection:
    """An arrangement as “Protect people” judges it on one layout and one kind of cable."""

    protection: Protection
    short: Short | None
    conditions: int


def protections_to_try(job: Job, run: Run) -> list[Protection]:
    """Every arrangement worth trying, the standing one first."""
    now, circuit = run.charge_point.arrangement, run.final().circuit
    measures: list[tuple[CarEarth, OpenPenMeasure]] = list(MEASURES)
    if job.supply.earthing is Earthing.TT:
        measures = [(CarEarth.HOUSE_EARTH, now.open_pen)]
    before, in_unit = rcd_beside_device(run.guards), holds_rcd(run.guards)
    standing = Protection(now, circuit.device.rcd, standing=True, before=before, in_unit=in_unit)
    found = [standing]
    for (earth, measure), rcd, place in product(measures, RCDS, RdcDdPlace):
        kept = now.open_pen if earth is CarEarth.OWN_ELECTRODE else measure
        arrangement = now.model_copy(update={"car_earth": earth, "open_pen": kept, "rdc_dd": place})
        if (arrangement, rcd) != (now, standing.rcd):
            found.append(Protection(arrangement, rcd, standing=False, before=before, in_unit=in_unit))
    return found


@dataclass(frozen=True)
class Pairing:
    """What becomes of one electrical way with every arrangement: why pairs fall short, and the best that holds."""

    tried: int
    shorts: Counter[Short]
    best: JudgedProtection | None


class ProtectionBench:
    """Judges arrangements on a layout; cables that look alike to those checks share the judgement."""

    def __init__(self, layout: Layout, tried: list[Protection], known: Known) -> None:
        self.layout, self.tried, self.known = layout, tried, known
        self._in_front = _opens_in_front(layout, known.rules)
        self._judged: dict[tuple[bool, bool], list[JudgedProtection]] = {}
        self._paired: dict[tuple[Kinds, bool], Pairing] = {}

    def paired(self, circuit: Circuit, kinds: Kinds, *, wants_rcd: bool) -> Pairing:
        """A final circuit in these kinds with every arrangement; the standing one is best, else the simplest."""
        known = self._paired.get((kinds, wants_rcd))
        if known is None:
            shorts: Counter[Short] = Counter()
            fits = []
            judged = self.judged(circuit, kinds)
            for one in judged:
                lacks = wants_rcd and one.protection.rcd is None and not self._in_front
                short = one.short or (NO_RCD if lacks else None)
                if short is None:
                    fits.append(one)
                else:
                    shorts[short] += 1
            best = min(fits, key=lambda one: (not one.protection.standing, one.conditions), default=None)
            known = self._paired[kinds, wants_rcd] = Pairing(len(judged), shorts, best)
        return known

    def judged(self, circuit: Circuit, kinds: Kinds) -> list[JudgedProtection]:
        """Every arrangement judged for a final circuit in these kinds of cable, in the order tried."""
        shape = self._shape(circuit, kinds)
        if shape not in self._judged:
            route = tuple(
                section.model_copy(update={"cable": Cable(record=record)})
                for section, record in zip(circuit.route, kinds.records, strict=True)
            )
            laid = circuit.model_copy(update={"route": route})
            self._judged[shape] = [self._judge(laid, one) for one in self.tried]
        return self._judged[shape]

    def plainest(self) -> JudgedProtection:
        """The arrangement that stands, not judged: for a way that falls short by its cable already."""
        return JudgedProtection(self.tried[0], None, 0)

    def _shape(self, circuit: Circuit, kinds: Kinds) -> tuple[bool, bool]:
        """What those checks see of the cable: armour that reaches the unit, and hidden sections without metal."""
        records = [self.layout.installation.cables[record] for record in kinds.records]
        hidden = any(
            section.concealed_under_50_mm and not record.earthed_metal_cover
            for section, record in zip(circuit.route, records, strict=True)
        )
        return bool(records[-1].armour), hidden

    def _judge(self, circuit: Circuit, protection: Protection) -> JudgedProtection:
        run, job, known = self.layout.run, self.layout.job, self.known
        taken = protected(job, run, ProtectionChoice(protection.arrangement, protection.rcd))
        laid = taken.circuit.model_copy(update={"route": circuit.route})
        changed = installation_of(with_protection(job, Protected(laid, taken.point)))
        then = changed.run_to(run.charge_point.id)
        assert then is not None
        case = case_of(known_of(changed, known.rules, known.demand, known.measured), then)
        allowance, reasons = judge_case(case)
        refused = allowance is Allowance.REFUSED
        short = Short(REGISTER[reasons[0].rule], reasons[0].text) if refused else _maker_refuses(case)
        return JudgedProtection(protection, short, 0 if allowance is Allowance.ALLOWED else len(reasons))


def _opens_in_front(layout: Layout, rules: RuleSet) -> bool:
    """Whether an RCD in front of the final circuit opens it in time, as sensitive as one with its device would be."""
    final, tt = layout.run.final().circuit.id, layout.job.supply.earthing is Earthing.TT
    in_front = [
        one
        for one in layout.run.rcds
        if one.residual.residual_ma <= AT_THE_BOARD.residual_ma
        and not (one.circuit == final and one.stands in (Stands.WAY, Stands.BOX, Stands.UNIT))
    ]
    return rcd_in_time(in_front, disconnection_s(rules, tt=tt, final=True), rules) is not None


def _maker_refuses(case: Case) -> Short | None:
    """The unit's maker may ask for a certain RCD before it."""
    asked = maker_rcd_finding(case)
    short = asked is not None and asked.verdict is Verdict.FALLS_SHORT
    return Short(REGISTER[asked.rule], asked.detail) if asked is not None and short else None
