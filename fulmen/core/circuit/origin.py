"""The origin's figures: loop, fault current, tails and electrodes, each as measured, by enquiry, or as declared."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fulmen.core.circuit.measured import Measured
from fulmen.core.demand.demand import Demand
from fulmen.core.electrical.fault_loop import conductor_ohm
from fulmen.core.electrical.volt_drop import millivolts_per_a_m
from fulmen.core.installation.installation import Installation
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.boards import Board
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing, Supply
from fulmen.core.model.tails import TailsStretch
from fulmen.core.reference.rule_set import RuleSet


@dataclass(frozen=True, slots=True)
class SourcedFigure:
    """A figure with where it comes from, and whether it was measured on this job."""

    value: float
    source: str
    measured: bool
    declared: bool = False


@dataclass(frozen=True, slots=True)
class TailsFigures:
    """The tails' share of the run; zero where their size or length was not seen."""

    drop_v: float
    load_a: float
    r1_ohm: float
    r2_ohm: float


@dataclass(frozen=True, slots=True)
class Origin:
    """The origin's figures, from which every chain of circuits begins.

    `ze` is the external loop [Ω], `fault` the prospective fault current [kA], `neutral_loop_ohm` the largest loop line
    to neutral that the least fault is reckoned with, `electrode` the installation's own [Ω] and `car_electrodes` those
    that only a car is earthed to, by its charge point.
    """

    ze: SourcedFigure
    fault: SourcedFigure
    neutral_loop_ohm: float
    electrode: SourcedFigure
    car_electrodes: Mapping[str, SourcedFigure]


def origin_of(installation: Installation, rules: RuleSet, measured: Measured) -> Origin:
    """The origin's figures: each as measured, else by enquiry or as designed, else as declared."""
    supply = installation.job.supply
    electrode = _electrode(rules, measured, ORIGIN, supply.electrode_design_ohm)
    ze = _external_loop(supply, rules, measured, electrode)
    fault = _fault_current(supply, rules, measured)
    feeders = installation.tree.feeders
    return Origin(
        ze=ze,
        fault=fault,
        neutral_loop_ohm=_neutral_loop_ohm(supply, rules, measured, ze, fault),
        electrode=electrode,
        # The test step of a car's electrode is the circuit's that feeds it.
        car_electrodes={
            point.id: _electrode(
                rules, measured, feeders[point.id].id if point.id in feeders else point.id,
                point.arrangement.electrode_design_ohm,
            )
            for point in installation.job.charge_points
        },
    )  # fmt: skip


def tails_figures(installation: Installation, demand: Demand, ib_a: float, board: Board) -> TailsFigures:
    """The volt drop of the tails to a board and their share of the loop, stretch by stretch.

    A stretch that feeds only boards of this job's own circuits carries what those may take; any other one the house's
    demand, or the cut-out fuse's rating while that is not known, which is the safe side. The protective conductor is
    taken as long as the tails. A stretch whose size or length was not seen counts as nothing.
    """
    supply = installation.job.supply
    fuse_a = float(supply.cut_out_fuse_a or 100)
    house_a = max(demand.held_a or fuse_a, ib_a)
    drop_v = r1_ohm = r2_ohm = 0.0
    for one in installation.tails_to.get(board.id) or installation.main_tails:
        if one.csa_mm2 is None or one.length_m is None:
            continue
        # Table 4D2B ends at 25 mm², so 35 mm² is worked as 25; below 1.5 it begins.
        millivolts = millivolts_per_a_m("pvc_70", min(max(one.csa_mm2, 1.5), 25.0))
        drop_v += millivolts * carried_a(installation, one, house_a) * one.length_m / 1000
        r1_ohm += conductor_ohm(one.length_m, one.csa_mm2)
        r2_ohm += conductor_ohm(one.length_m, supply.earthing_conductor_csa_mm2 or one.csa_mm2)
    return TailsFigures(drop_v=drop_v, load_a=house_a if r1_ohm else 0.0, r1_ohm=r1_ohm, r2_ohm=r2_ohm)


def carried_a(installation: Installation, stretch: TailsStretch, house_a: float) -> float:
    """What a stretch of the tails carries [A]."""
    boards = installation.boards_behind[stretch.id]
    if any(board.feeds_others is not Seen.NO or board.other_loads for board in boards) or not boards:
        return house_a
    behind = {board.id for board in boards}
    points = [run.charge_point for run in installation.runs if run.chain and run.chain[0].board.id in behind]
    return min(house_a, sum(point.design_current_a() for point in points)) or house_a


def _external_loop(supply: Supply, rules: RuleSet, measured: Measured, electrode: SourcedFigure) -> SourcedFigure:
    """Ze: as measured, else by enquiry, else the declared maximum of the earthing arrangement."""
    if measured.ze_ohm is not None:
        return SourcedFigure(measured.ze_ohm, "measured", measured=True)
    tt = supply.earthing is Earthing.TT
    # On TT the loop goes through the electrode: a figure below that is another supply's.
    if supply.ze_enquiry_ohm is not None and (not tt or supply.ze_enquiry_ohm >= electrode.value):
        return SourcedFigure(supply.ze_enquiry_ohm, "by enquiry", measured=False)
    if tt:
        operator_ohm = rules.value("declared_operator_electrode_ohm")
        return SourcedFigure(
            electrode.value + operator_ohm,
            f"electrode {electrode.source}, operator's {operator_ohm:g} Ω",
            measured=False,
        )
    return SourcedFigure(declared_ze_ohm(supply, rules), "declared maximum", measured=False, declared=True)


def declared_ze_ohm(supply: Supply, rules: RuleSet) -> float:
    """The most that operators declare for Ze on a TN supply; what was not seen is taken as TN-S, the higher."""
    tn_c_s = supply.earthing is Earthing.TN_C_S
    return rules.value("declared_ze_tn_c_s_ohm" if tn_c_s else "declared_ze_tn_s_ohm")


def _fault_current(supply: Supply, rules: RuleSet, measured: Measured) -> SourcedFigure:
    """Prospective fault current at the origin [kA]: the larger of those measured, else by enquiry, else as declared."""
    if measured.fault_ka is not None:
        return SourcedFigure(measured.fault_ka, "measured", measured=True)
    if supply.pscc_enquiry_ka is not None:
        return SourcedFigure(supply.pscc_enquiry_ka, "by enquiry", measured=False)
    return SourcedFigure(rules.value("declared_pscc_ka"), "declared maximum", measured=False, declared=True)


def three_phase_fault_ka(origin: Origin, supply: Supply) -> float | None:
    """Three-phase fault current at the origin [kA]: twice the one to neutral or earth, which is the safe side.

    None on a single-phase supply.
    """
    return 2 * origin.fault.value if supply.phase_count == 3 else None


def _neutral_loop_ohm(
    supply: Supply, rules: RuleSet, measured: Measured, ze: SourcedFigure, fault: SourcedFigure
) -> float:
    """The largest loop line to neutral at the origin that the least fault is reckoned with [Ω].

    A fault current measured or by enquiry is the larger of two, so it alone would promise too much: on TN the loop to
    earth counts where it is larger. On TT, where that loop says nothing, a declared fault current is only a maximum
    and the declared TN-C-S loop, which returns by the neutral, is taken.
    """
    from_level = rules.value("u0_v") / ((measured.fault_neutral_ka or fault.value) * 1000)
    if supply.earthing is not Earthing.TT:
        return max(from_level, ze.value)
    return max(from_level, rules.value("declared_ze_tn_c_s_ohm")) if fault.declared else from_level


def _electrode(rules: RuleSet, measured: Measured, subject: str, design_ohm: float | None) -> SourcedFigure:
    """RA [Ω]: as measured, else as designed, else the most that counts as stable."""
    read_ohm = measured.electrode_ohm.get(subject, measured.electrode_loop_ohm.get(subject))
    if read_ohm is not None:
        return SourcedFigure(read_ohm, "measured", measured=True)
    if design_ohm is not None:
        return SourcedFigure(design_ohm, "as designed", measured=False)
    return SourcedFigure(rules.value("electrode_stable_ohm"), "assumed, the most that is stable", measured=False)
