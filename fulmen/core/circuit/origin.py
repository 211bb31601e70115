"""The origin's figures: loop, fault current, tails and electrodes, each as measured, by enquiry, or as declared."""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.demand.demand import Demand
from fulmen.core.electrical.fault_loop import conductor_ohm
from fulmen.core.electrical.volt_drop import millivolts_per_a_m
from fulmen.core.model.boards import Board
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.model.run import main_tails, runs, tails_to
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.model.tails import TailsStretch
from fulmen.core.reference.rule_set import RuleSet

ORIGIN = "origin"
FAULT_CURRENTS = (StepKey.FAULT_CURRENT_NEUTRAL, StepKey.FAULT_CURRENT_EARTH, StepKey.FAULT_CURRENT)


@dataclass(frozen=True)
class SourcedFigure:
    """A figure with where it comes from, and whether it was measured on this job."""

    value: float
    source: str
    measured: bool
    declared: bool = False


@dataclass(frozen=True)
class TailsFigures:
    """The tails' share of the run; zero where their size or length was not seen."""

    drop_v: float
    load_a: float
    r1_ohm: float
    r2_ohm: float


def tails_figures(job: Job, demand: Demand, ib_a: float, board: Board) -> TailsFigures:
    """The volt drop of the tails to a board and their share of the loop, stretch by stretch.

    A stretch that feeds only boards of this job's own circuits carries what those may take; any other one the house's
    demand, or the cut-out fuse's rating while that is not known, which is the safe side. The protective conductor is
    taken as long as the tails. A stretch whose size or length was not seen counts as nothing.
    """
    fuse_a = float(job.supply.cut_out_fuse_a or 100)
    house_a = max(demand.held_a or fuse_a, ib_a)
    drop_v = r1_ohm = r2_ohm = 0.0
    for one in tails_to(job, board.id) or main_tails(job):
        if one.csa_mm2 is None or one.length_m is None:
            continue
        # Table 4D2B ends at 25 mm², so 35 mm² is worked as 25; below 1.5 it begins.
        millivolts = millivolts_per_a_m("pvc_70", min(max(one.csa_mm2, 1.5), 25.0))
        drop_v += millivolts * _carried_a(job, one, house_a) * one.length_m / 1000
        r1_ohm += conductor_ohm(one.length_m, one.csa_mm2)
        r2_ohm += conductor_ohm(one.length_m, job.supply.earthing_conductor_csa_mm2 or one.csa_mm2)
    return TailsFigures(drop_v=drop_v, load_a=house_a if r1_ohm else 0.0, r1_ohm=r1_ohm, r2_ohm=r2_ohm)


def _carried_a(job: Job, stretch: TailsStretch, house_a: float) -> float:
    """What a stretch of the tails carries [A]."""
    boards = [board for board in job.boards if stretch in tails_to(job, board.id)]
    if any(board.feeds_others is not Seen.NO or board.other_loads for board in boards) or not boards:
        return house_a
    behind = {board.id for board in boards}
    points = [run.charge_point for run in runs(job) if run.chain and run.chain[0].board.id in behind]
    return min(house_a, sum(point.design_current_a() for point in points)) or house_a


def measured(job: Job, step: StepKey, subject: str) -> float | None:
    """The measured figure of a step, or None; a figure over range is no figure."""
    reading = job.reading(step, subject)
    return reading.value if reading is not None and reading.outcome is Outcome.MEASURED else None


def external_loop(job: Job, rules: RuleSet) -> SourcedFigure:
    """Ze: as measured, else by enquiry, else the declared maximum of the earthing arrangement.

    A reading of 0.00 is no loop but a slip: it is asked about, and nothing is reckoned with it.
    """
    reading = measured(job, StepKey.ZE, ORIGIN)
    if reading:
        return SourcedFigure(reading, "measured", measured=True)
    supply = job.supply
    electrode = supply_electrode(job, rules) if supply.earthing is Earthing.TT else None
    # On TT the loop goes through the electrode: a figure below that is another supply's.
    if supply.ze_enquiry_ohm is not None and (electrode is None or supply.ze_enquiry_ohm >= electrode.value):
        return SourcedFigure(supply.ze_enquiry_ohm, "by enquiry", measured=False)
    if electrode is not None:
        operator_ohm = rules.value("declared_operator_electrode_ohm")
        return SourcedFigure(
            electrode.value + operator_ohm,
            f"electrode {electrode.source}, operator's {operator_ohm:g} Ω",
            measured=False,
        )
    return SourcedFigure(declared_ze_ohm(job, rules), "declared maximum", measured=False, declared=True)


def declared_ze_ohm(job: Job, rules: RuleSet) -> float:
    """The most that operators declare for Ze on a TN supply; what was not seen is taken as TN-S, the higher."""
    tn_c_s = job.supply.earthing is Earthing.TN_C_S
    return rules.value("declared_ze_tn_c_s_ohm" if tn_c_s else "declared_ze_tn_s_ohm")


def fault_current(job: Job, rules: RuleSet) -> SourcedFigure:
    """Prospective fault current at the origin [kA]: the larger of those measured, else by enquiry, else as declared."""
    # An electrode's few amperes show as 0.00 kA: that is no figure to reckon with.
    read = [one for step in FAULT_CURRENTS if (one := measured(job, step, ORIGIN))]
    if read:
        return SourcedFigure(max(read), "measured", measured=True)
    if job.supply.pscc_enquiry_ka is not None:
        return SourcedFigure(job.supply.pscc_enquiry_ka, "by enquiry", measured=False)
    return SourcedFigure(rules.value("declared_pscc_ka"), "declared maximum", measured=False, declared=True)


def three_phase_fault_ka(job: Job, rules: RuleSet) -> float | None:
    """Three-phase fault current at the origin [kA]: twice the one to neutral or earth, which is the safe side.

    None on a single-phase supply.
    """
    return 2 * fault_current(job, rules).value if job.supply.phase_count == 3 else None


def neutral_loop_ohm(job: Job, rules: RuleSet) -> float:
    """The largest loop line to neutral at the origin that the least fault is reckoned with [Ω].

    A fault current measured or by enquiry is the larger of two, so it alone would promise too much: on TN the loop to
    earth counts where it is larger. On TT, where that loop says nothing, a declared fault current is only a maximum
    and the declared TN-C-S loop, which returns by the neutral, is taken.
    """
    known = fault_current(job, rules)
    to_neutral_ka = measured(job, StepKey.FAULT_CURRENT_NEUTRAL, ORIGIN) or known.value
    from_level = rules.value("u0_v") / (to_neutral_ka * 1000)
    if job.supply.earthing is not Earthing.TT:
        return max(from_level, external_loop(job, rules).value)
    return max(from_level, rules.value("declared_ze_tn_c_s_ohm")) if known.declared else from_level


def supply_electrode(job: Job, rules: RuleSet) -> SourcedFigure:
    """RA of the installation's own electrode [Ω]; without any figure the most that counts as stable."""
    return _electrode(job, rules, ORIGIN, job.supply.electrode_design_ohm)


def car_electrode(job: Job, rules: RuleSet, point: ChargePoint) -> SourcedFigure:
    """RA of the electrode that only the car is earthed to [Ω]: its test step is the circuit's that feeds the car."""
    feeder = next((one.id for one in job.circuits if one.feeds == point.id), point.id)
    return _electrode(job, rules, feeder, point.arrangement.electrode_design_ohm)


def _electrode(job: Job, rules: RuleSet, subject: str, design_ohm: float | None) -> SourcedFigure:
    reading = measured(job, StepKey.ELECTRODE, subject)
    if reading is None:
        # By loop tester the operator's electrode is in the figure: more than RA alone, which is the safe side.
        reading = measured(job, StepKey.ELECTRODE_LOOP, subject)
    if reading is not None:
        return SourcedFigure(reading, "measured", measured=True)
    if design_ohm is not None:
        return SourcedFigure(design_ohm, "as designed", measured=False)
    return SourcedFigure(rules.value("electrode_stable_ohm"), "assumed, the most that is stable", measured=False)
