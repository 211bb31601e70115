"""How people are protected on one run, worked out once for the checks, the test steps and the simulations."""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.circuit.margins import rcd_in_time
from fulmen.core.circuit.run_figures import Case, CircuitFigures, disconnection_s
from fulmen.core.electrical.open_pen import electrode_limit_ohm
from fulmen.core.installation.guards import PlacedGuard
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure
from fulmen.core.model.supply import Earthing, TnsSchool


def has_car_electrode(case: Case) -> bool:
    """Whether only the car is earthed to an electrode of its own (TT island)."""
    own = not case.to_loads and case.arrangement.car_earth is CarEarth.OWN_ELECTRODE
    return own and case.job.supply.earthing is not Earthing.TT


def relies_on_low_electrode(case: Case) -> bool:
    """Whether an electrode on the house earth must hold the voltage of a broken PEN."""
    low = not case.to_loads and case.arrangement.open_pen is OpenPenMeasure.LOW_ELECTRODE
    return low and case.job.supply.earthing is not Earthing.TT and not has_car_electrode(case)


def earthed_by_pme(case: Case) -> bool:
    """Whether the house earth must be taken for a PME earth; what was not seen is."""
    supply = case.job.supply
    if supply.earthing is Earthing.TN_S:
        return supply.tns_school is TnsSchool.TREAT_AS_PME or not (
            supply.tns_confirmed_in_writing and supply.tns_confirmation
        )
    return supply.earthing is not Earthing.TT


def within_s(case: Case, chained: CircuitFigures) -> float:
    """The time within which a circuit of the run must be disconnected [s]."""
    return disconnection_s(case.rules, tt=case.job.supply.earthing is Earthing.TT, final=chained.final)


def opening_rcd(case: Case, chained: CircuitFigures) -> PlacedGuard | None:
    """The nearest RCD before a circuit that opens in its time; a time-delayed one is too slow for a final circuit."""
    return rcd_in_time(case.run.rcds_before[chained.circuit.id], within_s(case, chained), case.rules)


@dataclass(frozen=True, slots=True)
class LowElectrode:
    """What an electrode on the house earth must hold when the PEN breaks: the load, and the largest RA."""

    load_a: float
    limit_ohm: float


def low_electrode(case: Case) -> LowElectrode | None:
    """The largest electrode resistance of clause (ii) at the house's whole demand; None without a demand.

    A load limit is not credited: a broken PEN may come while the clamp has failed.
    """
    demand_a = case.demand.total_a
    if demand_a is None:
        return None
    load_a = max(demand_a, case.run.charge_point.design_current_a())
    rules = case.rules
    limit_ohm = electrode_limit_ohm(
        load_a, rules.value("u0_v"), rules.value("voltage_factor_max"), rules.value("pen_touch_voltage_v")
    )
    return LowElectrode(load_a, limit_ohm)
