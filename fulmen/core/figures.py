"""Every figure of one run, computed once: currents, ratings, volt drop, loop. The checks judge them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from itertools import accumulate

from fulmen.core.cable_rating import SectionRating, section_rating
from fulmen.core.catalogue import CableRecord, cable_record
from fulmen.core.demand import Demand
from fulmen.core.errors import TableError
from fulmen.core.fault_loop import conductor_ohm, temperature_factor, zs_limit_ohm
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.model.supply import Earthing
from fulmen.core.rule_set import RuleSet
from fulmen.core.run import Run
from fulmen.core.volt_drop import millivolts_per_a_m, section_volt_drop_v

ORIGIN = "origin"


@dataclass(frozen=True)
class Known:
    """A figure with where it comes from, and whether it was measured on this job."""

    value: float
    source: str
    measured: bool


@dataclass(frozen=True)
class SectionFigures:
    """One section's own share of the run."""

    rating: SectionRating
    r1_ohm: float
    r2_ohm: float
    drop_v: float
    ct: float


@dataclass(frozen=True)
class TailsFigures:
    """The tails' share of the run; zero where their size or length was not seen."""

    drop_v: float
    load_a: float
    r1_ohm: float
    r2_ohm: float


@dataclass(frozen=True)
class RunFigures:
    """The figures of a run whose last circuit has a route. Resistances are at 20 °C unless named hot."""

    run: Run
    record: CableRecord
    ib_a: float
    in_a: float
    cpc_mm2: float
    hot_factor: float
    ze: Known
    tails: TailsFigures
    sections: tuple[SectionFigures, ...]
    zs_limit_ohm: float

    @cached_property
    def length_m(self) -> float:
        """Length of the route from the board to the charge point [m]."""
        return sum(section.length_m for section in self.run.final().circuit.route)

    @cached_property
    def r1_ohm(self) -> float:
        """Line conductor, board to charge point, at 20 °C [Ω]."""
        return sum(section.r1_ohm for section in self.sections)

    @cached_property
    def r2_ohm(self) -> float:
        """Protective conductor, board to charge point, at 20 °C [Ω]."""
        return sum(section.r2_ohm for section in self.sections)

    @cached_property
    def volts_lost_v(self) -> float:
        """Volt drop from the origin to the charge point [V]."""
        return self.tails.drop_v + sum(section.drop_v for section in self.sections)

    @cached_property
    def board_loop_ohm(self) -> float:
        """Loop impedance at the board, hot [Ω]."""
        return self.ze.value + (self.tails.r1_ohm + self.tails.r2_ohm) * temperature_factor(70)

    @cached_property
    def zs_hot_ohm(self) -> float:
        """Loop impedance at the charge point with the conductors at operating temperature [Ω]."""
        return self.board_loop_ohm + (self.r1_ohm + self.r2_ohm) * self.hot_factor

    @cached_property
    def weakest(self) -> int | None:
        """Index of the section with the least Iz; None where a section has no rating."""
        ratings = [section.rating.iz_a for section in self.sections]
        known = [rating for rating in ratings if rating is not None]
        return ratings.index(min(known)) if len(known) == len(ratings) and known else None

    def volts_lost_along(self) -> list[float]:
        """Volt drop at the board and at the end of each section [V]."""
        return list(accumulate((section.drop_v for section in self.sections), initial=self.tails.drop_v))

    def loop_along(self) -> list[float]:
        """Hot loop impedance at the board and at the end of each section [Ω]."""
        steps = ((section.r1_ohm + section.r2_ohm) * self.hot_factor for section in self.sections)
        return list(accumulate(steps, initial=self.board_loop_ohm))


@dataclass(frozen=True)
class Case:
    """One run of one job, judged by one edition. `figures` is None until there is a circuit with a route."""

    job: Job
    rules: RuleSet
    run: Run
    demand: Demand
    figures: RunFigures | None

    @property
    def subject(self) -> str:
        """What the findings of this run are about: its final circuit, or its charge point without one."""
        return self.run.final().circuit.id if self.run.links else self.run.charge_point.id


def case_of(job: Job, rules: RuleSet, run: Run, demand: Demand) -> Case:
    """The run with its figures, where they can be computed."""
    return Case(job, rules, run, demand, run_figures(job, rules, run, demand))


def run_figures(job: Job, rules: RuleSet, run: Run, demand: Demand) -> RunFigures | None:
    """The figures of a run, or None where no circuit, no route or no such cable size stands there."""
    if not run.links or not run.final().circuit.route:
        return None
    circuit = run.final().circuit
    record = cable_record(circuit.cable.record)
    csa_mm2, ib_a = circuit.cable.csa_mm2, run.charge_point.design_current_a()
    phases = run.charge_point.phases
    try:
        cpc_mm2 = record.cpc_mm2(csa_mm2)
        millivolts = millivolts_per_a_m(record.insulation, csa_mm2, phases)
    except TableError:
        return None
    sections = []
    for section in circuit.route:
        rating = section_rating(section, record, csa_mm2, phases)
        drop_v, ct = section_volt_drop_v(section.length_m, ib_a, millivolts, record.operating_c(), rating)
        r1_ohm = conductor_ohm(section.length_m, csa_mm2)
        r2_ohm = conductor_ohm(section.length_m, cpc_mm2)
        sections.append(SectionFigures(rating, r1_ohm, r2_ohm, drop_v, ct))
    device = circuit.device
    limit = zs_limit_ohm(device.curve, device.rating_a, rules.value("u0_v"), rules.value("voltage_factor_min"))
    return RunFigures(
        run=run,
        record=record,
        ib_a=ib_a,
        in_a=device.rating_a,
        cpc_mm2=cpc_mm2,
        hot_factor=temperature_factor(record.operating_c()),
        ze=external_loop(job, rules),
        tails=tails_figures(job, demand, ib_a),
        sections=tuple(sections),
        zs_limit_ohm=limit,
    )


def tails_figures(job: Job, demand: Demand, ib_a: float) -> TailsFigures:
    """The tails' volt drop at the house's demand and their share of the loop.

    Without a demand the cut-out fuse's rating is taken, which is the safe side; the protective conductor
    is taken as long as the tails.
    """
    supply = job.supply
    if supply.tails_csa_mm2 is None or supply.tails_length_m is None:
        return TailsFigures(0.0, 0.0, 0.0, 0.0)
    fuse_a = float(supply.cut_out_fuse_a or 100)
    load_a = max(demand.held_a or fuse_a, ib_a)
    # Table 4D2B ends at 25 mm², so 35 mm² is worked as 25; below 1.5 it begins.
    millivolts = millivolts_per_a_m("pvc_70", min(max(supply.tails_csa_mm2, 1.5), 25.0))
    earth_mm2 = supply.earthing_conductor_csa_mm2 or supply.tails_csa_mm2
    return TailsFigures(
        drop_v=millivolts * load_a * supply.tails_length_m / 1000,
        load_a=load_a,
        r1_ohm=conductor_ohm(supply.tails_length_m, supply.tails_csa_mm2),
        r2_ohm=conductor_ohm(supply.tails_length_m, earth_mm2),
    )


def measured(job: Job, step: StepKey, subject: str) -> float | None:
    """The measured figure of a step, or None; a figure over range is no figure."""
    reading = job.reading(step, subject)
    return reading.value if reading is not None and reading.outcome is Outcome.MEASURED else None


def external_loop(job: Job, rules: RuleSet) -> Known:
    """Ze: as measured, else by enquiry, else the declared maximum of the earthing arrangement."""
    reading = measured(job, StepKey.ZE, ORIGIN)
    if reading is not None:
        return Known(reading, "measured", True)
    supply = job.supply
    if supply.ze_enquiry_ohm is not None:
        return Known(supply.ze_enquiry_ohm, "by enquiry", False)
    if supply.earthing is Earthing.TT:
        electrode, operator_ohm = supply_electrode(job, rules), rules.value("declared_operator_electrode_ohm")
        return Known(
            electrode.value + operator_ohm, f"electrode {electrode.source}, operator's {operator_ohm:g} Ω", False
        )
    return Known(declared_ze_ohm(job, rules), "declared maximum", False)


def declared_ze_ohm(job: Job, rules: RuleSet) -> float:
    """The most that operators declare for Ze on a TN supply; what was not seen is taken as TN-S, the higher."""
    tn_c_s = job.supply.earthing is Earthing.TN_C_S
    return rules.value("declared_ze_tn_c_s_ohm" if tn_c_s else "declared_ze_tn_s_ohm")


def fault_current(job: Job, rules: RuleSet) -> Known:
    """Prospective fault current at the origin [kA]: as measured, else by enquiry, else as declared."""
    reading = measured(job, StepKey.FAULT_CURRENT, ORIGIN)
    if reading is not None:
        return Known(reading, "measured", True)
    if job.supply.pscc_enquiry_ka is not None:
        return Known(job.supply.pscc_enquiry_ka, "by enquiry", False)
    return Known(rules.value("declared_pscc_ka"), "declared maximum", False)


def supply_electrode(job: Job, rules: RuleSet) -> Known:
    """RA of the installation's own electrode [Ω]; without any figure the most that counts as stable."""
    return _electrode(job, rules, ORIGIN, job.supply.electrode_design_ohm)


def car_electrode(job: Job, rules: RuleSet, charge_point_id: str) -> Known:
    """RA of the electrode that only the car is earthed to [Ω]."""
    return _electrode(job, rules, charge_point_id, job.arrangement.electrode_design_ohm)


def _electrode(job: Job, rules: RuleSet, subject: str, design_ohm: float | None) -> Known:
    reading = measured(job, StepKey.ELECTRODE, subject)
    if reading is not None:
        return Known(reading, "measured", True)
    if design_ohm is not None:
        return Known(design_ohm, "as designed", False)
    return Known(rules.value("electrode_stable_ohm"), "assumed, the most that is stable", False)
