"""Every figure of one run, computed once along its chain of circuits: loads, ratings, volt drop, loop, fault level.

The checks judge these figures and nothing else; the options search weighs ways by them too. Volts are line to neutral,
so that single-phase and three-phase circuits add up along one chain.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import accumulate
from math import sqrt

from fulmen.core.cable_rating import SectionRating, section_rating
from fulmen.core.catalogue import K_COPPER, K_STEEL, CableRecord, cable_of, cable_record, protective_metal
from fulmen.core.circuit_load import CircuitLoad, circuit_load
from fulmen.core.demand import Demand
from fulmen.core.errors import TableError
from fulmen.core.fault_loop import conductor_ohm, device_zs_limit_ohm, temperature_factor
from fulmen.core.model.cables import Cable, Protective
from fulmen.core.model.circuits import Circuit, TerminalSchool
from fulmen.core.model.job import Job
from fulmen.core.model.route import Section
from fulmen.core.origin import Known, TailsFigures, external_loop, fault_current, tails_figures
from fulmen.core.rule_set import RuleSet
from fulmen.core.run import Link, Run
from fulmen.core.volt_drop import millivolts_per_a_m, temperature_correction

ARMOUR_C = {"pvc_70": 60.0, "xlpe_90": 80.0}
STEEL_PER_C = 0.0045


@dataclass(frozen=True)
class CablePerMetre:
    """What a cable costs in loop and volts, per metre. Resistances are at 20 °C unless named hot.

    `least_r2` takes armour beside the core into account, for the highest fault current.
    """

    record: CableRecord
    cpc_mm2: float
    r1_ohm: float
    r2_ohm: float
    hot_ohm: float
    least_r2_ohm: float
    single_mv: float
    balanced_mv: float


@dataclass(frozen=True)
class SectionFigures:
    """One section's own share of the run."""

    section: Section
    cable: Cable
    metre: CablePerMetre
    rating: SectionRating
    drop_v: float
    ct: float

    @property
    def r1_ohm(self) -> float:
        """Line conductor at 20 °C [Ω]."""
        return self.metre.r1_ohm * self.section.length_m

    @property
    def r2_ohm(self) -> float:
        """Protective conductor at 20 °C [Ω]."""
        return self.metre.r2_ohm * self.section.length_m

    @property
    def hot_ohm(self) -> float:
        """R1+R2 at operating temperature [Ω]."""
        return self.metre.hot_ohm * self.section.length_m


@dataclass(frozen=True)
class LaidCable:
    """The cable of one circuit as laid, section by section, and what its sections come to together."""

    sections: tuple[SectionFigures, ...]
    ib_a: float

    @cached_property
    def length_m(self) -> float:
        """Length of the route [m]."""
        return sum(one.section.length_m for one in self.sections)

    @cached_property
    def r1_ohm(self) -> float:
        """Line conductor at 20 °C [Ω]."""
        return sum(one.r1_ohm for one in self.sections)

    @cached_property
    def r2_ohm(self) -> float:
        """Protective conductor at 20 °C [Ω]."""
        return sum(one.r2_ohm for one in self.sections)

    @cached_property
    def least_r2_ohm(self) -> float:
        """Protective conductor at 20 °C with armour beside the core counted [Ω]."""
        return sum(one.metre.least_r2_ohm * one.section.length_m for one in self.sections)

    @cached_property
    def hot_ohm(self) -> float:
        """R1+R2 at operating temperature [Ω]."""
        return sum(one.hot_ohm for one in self.sections)

    @cached_property
    def drop_v(self) -> float:
        """Volt drop [V]."""
        return sum(one.drop_v for one in self.sections)

    @cached_property
    def weakest(self) -> int | None:
        """Index of the section with the least Iz; None where a section has no rating."""
        ratings = [one.rating.iz_a for one in self.sections]
        known = [rating for rating in ratings if rating is not None]
        return ratings.index(min(known)) if len(known) == len(ratings) and known else None

    @cached_property
    def hottest(self) -> tuple[float, SectionFigures] | None:
        """Highest conductor temperature at the design current [°C], and the section; None without a rating."""
        found = [(one.rating.conductor_c(self.ib_a), one) for one in self.sections]
        known = [(temperature, one) for temperature, one in found if temperature is not None]
        return max(known, key=lambda entry: entry[0]) if known else None

    @cached_property
    def frailest(self) -> tuple[SectionFigures, str, float, float]:
        """The conductor that survives least energy: its section, name, size [mm²] and k."""
        found = [(one, *conductor) for one in self.sections for conductor in conductors_of(one)]
        return min(found, key=lambda entry: entry[2] * entry[3])


def conductors_of(one: SectionFigures) -> tuple[tuple[str, float, float], tuple[str, float, float]]:
    """Line and protective conductor of a section: name, size [mm²], k."""
    insulation, csa_mm2 = one.metre.record.insulation, one.cable.csa_mm2
    alone = one.cable.protective is Protective.ARMOUR or one.metre.record.cpc == "armour"
    k = K_STEEL[insulation] if alone else K_COPPER[insulation]
    protective = "armour" if alone else "protective conductor"
    return ("line conductor", csa_mm2, K_COPPER[insulation]), (protective, one.metre.cpc_mm2, k)


@dataclass(frozen=True)
class ChainPoint:
    """Where a circuit begins or ends: hot loop, volts lost, and the cold loops that set the highest fault current."""

    loop_ohm: float
    drop_v: float
    source_v: float
    origin_ka: float
    neutral_ohm: float = 0.0
    protective_ohm: float = 0.0

    def fault_ka(self, phases: int) -> float:
        """Highest prospective fault current here [kA]; three-phase faults go round half the loop."""
        if phases == 1 and not self.neutral_ohm:
            return self.origin_ka
        source_ohm = self.source_v / (self.origin_ka * 1000)
        loop_ohm = source_ohm + min(self.neutral_ohm, self.protective_ohm)
        if phases == 3:
            loop_ohm = min(loop_ohm, (source_ohm + self.neutral_ohm) / 2)
        return self.source_v / loop_ohm / 1000

    def after(self, laid: LaidCable) -> ChainPoint:
        """The point past some cable."""
        return ChainPoint(
            self.loop_ohm + laid.hot_ohm,
            self.drop_v + laid.drop_v,
            self.source_v,
            self.origin_ka,
            self.neutral_ohm + 2 * laid.r1_ohm,
            self.protective_ohm + laid.r1_ohm + laid.least_r2_ohm,
        )


@dataclass(frozen=True)
class LinkFigures:
    """One circuit of the chain: its load, its cable as laid, and the points where it begins and ends."""

    link: Link
    final: bool
    phases: int
    board_phases: int
    load: CircuitLoad
    laid: LaidCable
    start: ChainPoint
    end: ChainPoint
    zs_limit_ohm: float | None

    @property
    def sections(self) -> tuple[SectionFigures, ...]:
        """The sections of its route."""
        return self.laid.sections

    @property
    def ib_a(self) -> float:
        """Design current [A]."""
        return self.load.ib_a

    @property
    def in_a(self) -> float:
        """Rated current of its device [A]."""
        return float(self.link.circuit.device.rating_a)

    @property
    def start_fault_ka(self) -> float:
        """Highest prospective fault current at its board [kA]."""
        return self.start.fault_ka(self.board_phases)

    @property
    def end_fault_ka(self) -> float:
        """Highest prospective fault current at its far end [kA]."""
        return self.end.fault_ka(self.phases)

    @property
    def hot_factor(self) -> float:
        """The largest ratio of hot to cold loop along it."""
        return max(one.hot_ohm / (one.r1_ohm + one.r2_ohm) for one in self.sections)

    def volts_lost_along(self) -> list[float]:
        """Volt drop at its board and at the end of each section [V]."""
        return list(accumulate((one.drop_v for one in self.sections), initial=self.start.drop_v))

    def loop_along(self) -> list[float]:
        """Hot loop impedance at its board and at the end of each section [Ω]."""
        return list(accumulate((one.hot_ohm for one in self.sections), initial=self.start.loop_ohm))


@dataclass(frozen=True)
class RunFigures:
    """The figures of a run every circuit of which has a route."""

    run: Run
    ze: Known
    fault: Known
    tails: TailsFigures
    links: tuple[LinkFigures, ...]

    @property
    def final(self) -> LinkFigures:
        """The circuit that ends at the charge point."""
        return self.links[-1]

    @cached_property
    def length_m(self) -> float:
        """Length from the origin's board to the charge point [m]."""
        return sum(link.laid.length_m for link in self.links)


@dataclass(frozen=True)
class Case:
    """One run of one job, judged by one edition. `figures` is None until every circuit has a route."""

    job: Job
    rules: RuleSet
    run: Run
    demand: Demand
    figures: RunFigures | None

    @property
    def subject(self) -> str:
        """What the findings of this run are about: its final circuit, or its charge point without one."""
        return self.run.final().circuit.id if self.run.links else self.run.charge_point.id

    def link(self, circuit_id: str) -> LinkFigures | None:
        """The figures of one circuit of the run, if it is one and has any."""
        links = self.figures.links if self.figures is not None else ()
        return next((link for link in links if link.link.circuit.id == circuit_id), None)


def case_of(job: Job, rules: RuleSet, run: Run, demand: Demand) -> Case:
    """The run with its figures, where they can be computed."""
    return Case(job, rules, run, demand, run_figures(job, rules, run, demand))


def run_figures(job: Job, rules: RuleSet, run: Run, demand: Demand) -> RunFigures | None:
    """The figures of a run, or None where no circuit, no route or no such cable size stands there."""
    if not run.links or any(not link.circuit.route for link in run.links):
        return None
    tails = tails_figures(job, demand, run.charge_point.design_current_a())
    ze, fault = external_loop(job, rules), fault_current(job, rules)
    links: list[LinkFigures] = []
    point = chain_start(job, rules, tails)
    try:
        for link in run.links:
            final = link is run.links[-1]
            phases = run.charge_point.phases if final else link.circuit.phases
            load = circuit_load(job, link.circuit, rules)
            laid = laid_cable(job, link.circuit, phases, load)
            links.append(link_figures(job, rules, link, final, phases, load, laid, point))
            point = links[-1].end
    except TableError:
        return None
    return RunFigures(run, ze, fault, tails, tuple(links))


def chain_start(job: Job, rules: RuleSet, tails: TailsFigures) -> ChainPoint:
    """The origin's board: past the tails. For the highest fault the tails are left out, which is the safe side."""
    loop_ohm = external_loop(job, rules).value + (tails.r1_ohm + tails.r2_ohm) * temperature_factor(70)
    source_v = rules.value("u0_v") * rules.value("voltage_factor_max")
    return ChainPoint(loop_ohm, tails.drop_v, source_v, fault_current(job, rules).value)


def link_figures(
    job: Job,
    rules: RuleSet,
    link: Link,
    final: bool,
    phases: int,
    load: CircuitLoad,
    laid: LaidCable,
    start: ChainPoint,
) -> LinkFigures:
    """One circuit's figures from where it begins."""
    at_origin = not any(circuit.feeds == link.board.id for circuit in job.circuits)
    board_phases = 3 if link.board.phases == 3 or (at_origin and job.supply.phases == 3) else 1
    u0_v, cmin = rules.value("u0_v"), rules.value("voltage_factor_min")
    limit = device_zs_limit_ohm(link.circuit.device, final, u0_v, cmin)
    return LinkFigures(link, final, phases, board_phases, load, laid, start, start.after(laid), limit)


def laid_cable(job: Job, circuit: Circuit, phases: int, load: CircuitLoad) -> LaidCable:
    """A circuit's cable along its route; raises as `section_figures`."""
    rate_at_70 = circuit.terminals is TerminalSchool.RATE_AT_70
    sections = (
        section_figures(job, section, cable_of(circuit, section), phases, load, rate_at_70) for section in circuit.route
    )
    return LaidCable(tuple(sections), load.ib_a)


def section_figures(
    job: Job, section: Section, cable: Cable, phases: int, load: CircuitLoad, rate_at_70: bool
) -> SectionFigures:
    """Rating, volt drop and resistances of one section.

    ΔU = (mV single·I single + mV balanced·I balanced)·L·Ct/1000; Ct is 1 where the 70 °C table rates 90 °C cable.

    Raises:
        TableError: the cable is not made in this size, or its armour has no figure.
    """
    record = cable_record(cable.record, job)
    metre = cable_per_metre(record, cable)
    rated = record.at_70() if rate_at_70 else record
    rating = section_rating(section, rated, cable.csa_mm2, phases)
    ct = 1.0
    if rating.it_a is not None and rated is record:
        ct = temperature_correction(record.operating_c(), rating.reference_c, rating.factor, load.ib_a, rating.it_a)
    millivolts = metre.single_mv * load.single_a + metre.balanced_mv * load.balanced_a
    return SectionFigures(section, cable, metre, rating, millivolts * section.length_m * ct / 1000, ct)


@lru_cache(maxsize=1024)
def cable_per_metre(record: CableRecord, cable: Cable) -> CablePerMetre:
    """Resistances and volts of a cable, per metre; raises as `section_figures`."""
    csa_mm2 = cable.csa_mm2
    single_mv, three_mv = (millivolts_per_a_m(record.insulation, csa_mm2, phases) for phases in (1, 3))
    hot, armour_hot = (
        temperature_factor(record.operating_c()),
        1 + STEEL_PER_C * (ARMOUR_C[record.insulation] - 20),
    )
    r1 = conductor_ohm(1, csa_mm2)
    core = conductor_ohm(1, record.cpc_mm2(csa_mm2)) if record.cpc != "armour" else None
    armour = record.armour_mohm_per_m(csa_mm2) / 1000 if record.armour else None
    if cable.protective is Protective.CORE and core is not None:
        r2, hot_r2 = core, core * hot
    elif cable.protective is Protective.CORE_AND_ARMOUR and core is not None:
        r2, hot_r2 = _beside(core, armour, record), _beside(core * hot, armour and armour * armour_hot, record)
    else:
        r2 = record.armour_mohm_per_m(csa_mm2) / 1000
        hot_r2 = r2 * armour_hot
    least = r2 if armour is None or core is None else _beside(core, armour, record)
    protective = cable if core is not None else cable.model_copy(update={"protective": Protective.ARMOUR})
    return CablePerMetre(
        record, protective_metal(record, protective), r1, r2, r1 * hot + hot_r2, least, single_mv, three_mv / sqrt(3)
    )


def _beside(core_ohm: float, armour_ohm: float | None, record: CableRecord) -> float:
    if armour_ohm is None:
        raise TableError(f"{record.name} has no armour that could serve")
    return core_ohm * armour_ohm / (core_ohm + armour_ohm)
