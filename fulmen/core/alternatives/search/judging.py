"""Whether a circuit, and a whole run, holds: the same margins as the checks take, without their words.

What a reading must settle first (fault energy at a declared fault current, say) does not count against a way.
"""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass

from fulmen.core.circuit.fitness import guarded_in_ground, in_safe_zone, maker_takes, stands_weather
from fulmen.core.circuit.margins import (
    Margin,
    breaking_margin,
    capacity_margin,
    energy_margin,
    fault_energy,
    load_margin,
    loop_margin,
    terminal_margin,
    terminals_margin,
    touch_margin,
)
from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.errors import TableError
from fulmen.core.findings.rules.protection import DISCONNECTION
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.findings.rules.run import (
    BURIED_COVER,
    CONCEALED_ZONE,
    INDOOR_CABLE,
    MAKER_DEVICE,
    WEAKEST_SECTION,
)
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.guards import Rcd, RcdType
from fulmen.core.model.seen import Seen
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.units import telling_decimals

# The RCD that a circuit is taken to have where one must open it.
AT_THE_BOARD = Rcd(type=RcdType.A)


@dataclass(frozen=True)
class Short:
    """What a way falls short of first: the rule, its figure, and by what share of the limit."""

    rule: Rule
    text: str
    by: float = 1.0


@dataclass(frozen=True)
class CircuitVerdict:
    """A circuit judged: what falls short first; whether only an RCD opens it in time; its least margin."""

    short: Short | None
    wants_rcd: bool
    least_share: float


def short_of(margin: Margin) -> Short:
    """A margin that does not hold, in words with its figure."""
    usual = 0 if margin.unit == "°C" else 1 if margin.unit in ("A", "mm²") else 2
    decimals = telling_decimals(margin.value, margin.limit, usual)
    bound = "at least" if margin.at_least else "at most"
    text = f"{margin.rule.short} {margin.value:.{decimals}f} {margin.unit}, {bound} {margin.limit:.{decimals}f}"
    return Short(margin.rule, text, round(-margin.share(), 3))


def judge_circuit(
    chained: CircuitFigures, rules: RuleSet, *, tt: bool, rcd: Rcd | None, measured: bool
) -> CircuitVerdict:
    """One circuit against every margin that a cable and a device decide.

    Args:
        tt: on a TT supply only an RCD opens in time.
        rcd: the RCD before a sub-main that opens it; for a final circuit a 30 mA one is taken, see `wants_rcd`.
        measured: whether the fault current at the origin is a reading; a declared one refuses no device.
    """
    load, capacity = load_margin(chained), capacity_margin(chained)
    if not load.holds():
        return CircuitVerdict(short_of(load), wants_rcd=False, least_share=0.0)
    if capacity is None:
        return CircuitVerdict(
            Short(WEAKEST_SECTION, "a section that no table rates for this cable"), wants_rcd=False, least_share=0.0
        )
    if not capacity.holds():
        return CircuitVerdict(short_of(capacity), wants_rcd=False, least_share=0.0)
    loop, wants_rcd = loop_margin(chained), False
    if tt or loop is None or not loop.holds():
        if rcd is None:
            text = "nothing opens it in time" if loop is None or tt else short_of(loop).text
            return CircuitVerdict(Short(DISCONNECTION, text), wants_rcd=False, least_share=0.0)
        wants_rcd, loop = True, touch_margin(chained, rcd, rules)
    terminal = terminal_margin(chained, rules)
    # A device of just the load's size is usual, so the load does not narrow the margin.
    margins = [
        capacity,
        loop,
        *_fault_margins(chained, rules, measured=measured),
        *([terminal] if terminal is not None else []),
    ]
    short = next((short_of(one) for one in margins if not one.holds()), None) or _laid_wrong(chained)
    return CircuitVerdict(short, wants_rcd, min(one.share() for one in margins))


def _fault_margins(chained: CircuitFigures, rules: RuleSet, *, measured: bool) -> list[Margin]:
    margins = []
    # Past the let-through table a reading must settle it; the check says so.
    with suppress(TableError):
        margins.append(energy_margin(fault_energy(chained, chained.start_fault_ka, rules), chained.circuit.id))
    if measured:
        margins.append(breaking_margin(chained))
    return margins


def _laid_wrong(chained: CircuitFigures) -> Short | None:
    """Cable out of doors that is not made for it, unarmoured in the bare ground, or hidden outside the zones."""
    for one in chained.sections:
        section, record = one.section, one.metre.record
        if stands_weather(section, record) is Seen.NO:
            return Short(INDOOR_CABLE, f"{record.name} out of doors")
        if guarded_in_ground(section, record) is Seen.NO:
            return Short(BURIED_COVER, f"{record.name} has no earthed armour and lies in no duct")
        if in_safe_zone(section, record) is Seen.NO:
            return Short(CONCEALED_ZONE, f"{record.name} hidden outside the usual zones")
    return None


def judge_end(chained: CircuitFigures, point: ChargePoint) -> Short | None:
    """What the charge point's maker asks of device and terminals."""
    rating, csa_mm2 = chained.in_a, chained.sections[-1].cable.csa_mm2
    if maker_takes(point, rating) is Seen.NO:
        allowed = f"the maker allows {point.device_min_a:g} to {point.device_max_a:g} A"
        return Short(MAKER_DEVICE, f"{allowed}, this device is {rating:g} A")
    terminals = terminals_margin(point, chained.circuit.id, csa_mm2)
    return short_of(terminals) if terminals is not None and not terminals.holds() else None
