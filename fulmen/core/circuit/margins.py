"""The figures that decide whether a circuit holds, each with its limit: one place for the checks and the search.

A check dresses a margin with its words and working; the options search takes it bare.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from fulmen.core.circuit.laid_cable import Conductor
from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.electrical.fault_energy import device_energy_a2s, least_csa_mm2
from fulmen.core.findings.rules.protection import DISCONNECTION, SURVIVES_FAULT
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.findings.rules.run import (
    BREAKING_CAPACITY,
    LOAD_ON_DEVICE,
    TERMINAL_TEMPERATURE,
    TERMINALS,
    VOLT_DROP,
    VOLT_DROP_LIGHTING,
    WEAKEST_SECTION,
)
from fulmen.core.installation.guards import PlacedGuard
from fulmen.core.installation.tree import Tree
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import TerminalSchool
from fulmen.core.model.guards import DeviceKind, Rcd
from fulmen.core.model.load import LoadKind
from fulmen.core.reference.rule_set import RuleSet


@dataclass(frozen=True, slots=True)
class Margin:
    """One figure against its limit."""

    rule: Rule
    subject: str
    value: float
    limit: float
    unit: str
    at_least: bool = False

    def holds(self) -> bool:
        """Whether the limit is kept; exactly at it counts, to within rounding."""
        slack = 1e-9 * max(1.0, abs(self.limit))
        return self.value >= self.limit - slack if self.at_least else self.value <= self.limit + slack

    def share(self) -> float:
        """The share of the limit left over, negative where it falls short."""
        if self.limit == 0:
            return 0.0
        left = self.value - self.limit if self.at_least else self.limit - self.value
        return left / self.limit


@dataclass(frozen=True, slots=True)
class FaultEnergy:
    """The energy a circuit's conductors must survive, and the section whose conductor is closest to failing."""

    energy_a2s: float
    source: str
    conductor: Conductor

    @property
    def least_mm2(self) -> float:
        """The least size of that conductor [mm²]."""
        return least_csa_mm2(self.energy_a2s, self.conductor.k)


def load_margin(chained: CircuitFigures) -> Margin:
    """Ib ≤ In."""
    return Margin(LOAD_ON_DEVICE, chained.circuit.id, chained.ib_a, chained.in_a, "A")


def capacity_margin(chained: CircuitFigures) -> Margin | None:
    """In ≤ Iz of the weakest section; None where a section has no rating. Of a ring each way carries its share."""
    if chained.laid.weakest is None:
        return None
    iz_a = chained.sections[chained.laid.weakest].rating.iz_a
    assert iz_a is not None
    return Margin(WEAKEST_SECTION, chained.circuit.id, iz_a, chained.least_iz_a, "A", at_least=True)


def terminal_margin(chained: CircuitFigures, rules: RuleSet) -> Margin | None:
    """The hottest conductor at a terminal at Ib against 70 °C; None for 70 °C cable or where nothing rates it."""
    ninety = any(one.metre.record.operating_c() > rules.value("terminal_c") for one in chained.sections)
    if not ninety or chained.laid.hottest_end is None:
        return None
    return Margin(
        TERMINAL_TEMPERATURE, chained.circuit.id, chained.laid.hottest_end[0], rules.value("terminal_c"), "°C"
    )


def rated_at_70(chained: CircuitFigures) -> bool:
    """Whether the 70 °C table rates this circuit's cable."""
    return chained.circuit.terminals is TerminalSchool.RATE_AT_70


def loop_margin(chained: CircuitFigures) -> Margin | None:
    """Zs ≤ Zs max of the device; None where no figure is known for it."""
    if chained.zs_limit_ohm is None:
        return None
    return Margin(DISCONNECTION, chained.circuit.id, chained.end.loop_ohm, chained.zs_limit_ohm, "Ω")


def touch_margin(chained: CircuitFigures, rcd: Rcd, rules: RuleSet) -> Margin:
    """Zs·IΔn ≤ 50 V where only an RCD opens in time."""
    volts = chained.end.loop_ohm * rcd.residual_ma / 1000
    return Margin(DISCONNECTION, chained.circuit.id, volts, rules.value("touch_voltage_v"), "V")


def rcd_in_time(rcds: Iterable[PlacedGuard], within_s: float, rules: RuleSet) -> PlacedGuard | None:
    """The nearest of some RCDs, in order from the origin, that opens in time; a delayed one is too slow for a final
    circuit.

    A fault to earth drives many times IΔn; a delayed one is taken at IΔn.
    """
    fit = [
        one
        for one in rcds
        if rules.value("rcd_delayed_trip_max_ms" if one.residual.time_delayed else "rcd_fast_trip_ms") / 1000
        <= within_s
    ]
    return fit[-1] if fit else None


def terminals_margin(point: ChargePoint, circuit: str, csa_mm2: float) -> Margin | None:
    """The last cable's conductor against the largest that the unit's terminals take; None while nobody looked it up."""
    most_mm2 = point.terminal_max_mm2
    return Margin(TERMINALS, circuit, csa_mm2, most_mm2, "mm²") if most_mm2 is not None else None


def volt_drop_margin(final: CircuitFigures, rules: RuleSet) -> Margin:
    """ΔU from the origin to the end of the final circuit ≤ 5 % of U0; 3 % where it feeds lights."""
    percent = final.end.drop_v / rules.value("u0_v") * 100
    lights = any(one.kind is LoadKind.LIGHTING for one in final.circuit.loads)
    limit = rules.value("volt_drop_lighting_percent" if lights else "volt_drop_percent")
    return Margin(VOLT_DROP, final.circuit.id, percent, limit, "%")


def lighting_margin(tree: Tree, chained: CircuitFigures, rules: RuleSet) -> Margin | None:
    """ΔU from the origin to a board that feeds lights ≤ 3 % of U0; None where the circuit feeds no such board."""
    board = tree.boards.get(chained.circuit.feeds)
    if board is None or all(one.kind is not LoadKind.LIGHTING for one in board.other_loads):
        return None
    percent = chained.end.drop_v / rules.value("u0_v") * 100
    return Margin(VOLT_DROP_LIGHTING, board.id, percent, rules.value("volt_drop_lighting_percent"), "%")


def fault_energy(chained: CircuitFigures, fault_ka: float, rules: RuleSet) -> FaultEnergy:
    """What the conductors of a circuit must survive, and the one with the least to spare.

    Args:
        fault_ka: highest prospective fault current at its board [kA].

    Raises:
        TableError: the let-through is not known for such a fault.
    """
    source_v = rules.value("u0_v") * rules.value("voltage_factor_min")
    energy, source = device_energy_a2s(chained.device, fault_ka, source_v / chained.end.widest_loop_ohm)
    assert chained.laid.limiting is not None
    return FaultEnergy(energy, source, chained.laid.limiting)


def energy_margin(found: FaultEnergy, subject: str) -> Margin:
    """S ≥ √(I²t)/k for the conductor with the least to spare."""
    return Margin(SURVIVES_FAULT, subject, found.conductor.csa_mm2, found.least_mm2, "mm²", at_least=True)


def breaking_margin(chained: CircuitFigures) -> Margin:
    """The highest fault current at the device against what it can break."""
    limit_ka = breaking_limit_ka(chained)
    return Margin(BREAKING_CAPACITY, chained.circuit.id, chained.start_fault_ka, limit_ka, "kA")


def breaking_limit_ka(chained: CircuitFigures) -> float:
    """What the device can break [kA]: a fuse more than any supply gives, a breaker its Icn or its board's rating."""
    device = chained.device
    if device.kind is DeviceKind.FUSE:
        return FUSE_BREAKS_KA
    return max(device.breaking_capacity_ka, chained.conditional_ka)


# BS 88-2: the least breaking capacity of a gG fuse for industrial use; from memory.
FUSE_BREAKS_KA = 80.0
