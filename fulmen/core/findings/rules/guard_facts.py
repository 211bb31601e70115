"""What each rule that leans on a guard leans on: one table, rule by fact of a guard, and which direction is worse.

A fact that a rule leaves out says why. A test changes every fact of every guard and holds each rule to its row: what is
worse never judges better, and what a rule leaves out never changes it. `docs/rules.md` is made from it.
"""

from __future__ import annotations

from collections.abc import Mapping
from enum import StrEnum
from typing import Final

from fulmen.core.findings.finding import RuleKey
from fulmen.core.findings.rules import around, run, supply
from fulmen.core.findings.rules import protection as people
from fulmen.core.findings.rules.rule import Rule


class GuardFact(StrEnum):
    """What a guard is, as far as any rule leans on it."""

    RESIDUAL_MA = "residual_ma"
    TIME_DELAYED = "time_delayed"
    TYPE = "type"
    POLES = "poles"
    RATING_A = "rating_a"
    VOLTAGE_V = "voltage_v"
    SHARED = "shared"


class Worse(StrEnum):
    """Which direction of a fact is worse for a rule; types go from AC over A and F to B."""

    MORE = "more"
    LESS = "less"
    SET = "so"
    NOT_SET = "not_so"
    EITHER = "either"


Cell = Worse | str
Row = Mapping[GuardFact, Cell]
RESIDUAL, DELAY, TYPE, POLES, RATING, VOLTAGE, SHARED = GuardFact
MORE, LESS, SET, EITHER = Worse.MORE, Worse.LESS, Worse.SET, Worse.EITHER

CARRIES: Final = "guard_rating judges what it carries"
MADE_FOR: Final = "guard_voltage judges it"
LINES: Final = "guard_poles judges it"
OWN: Final = "own_rcd judges the charge point's own; here whoever shares it is guarded as well"
SEES: Final = "dc_protection and rcd_blinding judge types"
NO_RCD: Final = "no matter of residual current"


def _row(**cells: Cell) -> Row:
    return {GuardFact(name): cell for name, cell in cells.items()}


def _overcurrent(rating: Worse, *, others: str = "judged for each circuit of the run by itself") -> Row:
    """A rule that leans on the rated current of an overcurrent device."""
    return _row(
        residual_ma=NO_RCD, time_delayed=NO_RCD, type=NO_RCD, poles=LINES, rating_a=rating, voltage_v=MADE_FOR,
        shared=others,
    )  # fmt: skip


def _by_load() -> Row:
    """A rule that leans on nothing that a guard is, only on the load that others put on what stands before it."""
    no_guard = "no device stands in the figure"
    return _row(
        residual_ma=no_guard, time_delayed=no_guard, type=no_guard, poles=no_guard, rating_a=no_guard,
        voltage_v=no_guard, shared=SET,
    )  # fmt: skip


TABLE: dict[Rule, Row] = {
    people.OWN_RCD: _row(
        residual_ma=MORE, time_delayed=SET, type=SEES, poles=LESS, rating_a=CARRIES, voltage_v=MADE_FOR, shared=SET
    ),
    people.RCD_AT_BOARD: _row(
        residual_ma=MORE, time_delayed=SET, type="a nail makes a plain alternating fault, which every type sees",
        poles="rcd_neutral judges it: the line that opens ends a fault in the cable", rating_a=CARRIES,
        voltage_v=MADE_FOR, shared=OWN,
    ),
    people.RCD_NEUTRAL: _row(
        residual_ma="own_rcd judges it", time_delayed="own_rcd judges it", type=SEES, poles=LESS, rating_a=CARRIES,
        voltage_v=MADE_FOR, shared="an RCBO on the circuit's own way has nothing else behind it",
    ),
    people.DC_PROTECTION: _row(
        residual_ma=MORE, time_delayed=SET, type=LESS, poles="own_rcd judges it", rating_a=CARRIES, voltage_v=MADE_FOR,
        shared=SET,
    ),
    people.RCD_BLINDING: _row(
        residual_ma="smooth current blinds by the type, whatever the rated residual current",
        time_delayed="a delay changes nothing of what blinds it",
        type=EITHER, poles=LINES, rating_a=CARRIES, voltage_v=MADE_FOR, shared="wherever on the way it stands",
    ),
    people.DC_SUM: _row(
        residual_ma="smooth current blinds by the type, whatever the rated residual current",
        time_delayed="a delay changes nothing of what blinds it",
        type=LESS, poles=LINES, rating_a=CARRIES, voltage_v=MADE_FOR, shared="counted by the charge points behind it",
    ),
    people.FRONT_RCD: _row(
        residual_ma="asks only whether somebody looked", time_delayed="asks only whether somebody looked",
        type="asks only whether somebody looked", poles=LINES, rating_a=CARRIES, voltage_v=MADE_FOR,
        shared="goes_off asks what hangs behind it",
    ),
    people.GOES_OFF: _row(
        residual_ma=EITHER, time_delayed=EITHER, type="which goes first is no matter of what it sees", poles=LINES,
        rating_a=CARRIES, voltage_v=MADE_FOR, shared=SET,
    ),
    people.RCD_MARK: _row(
        residual_ma=LESS, time_delayed=SET, type="every type is made for 30 mA", poles=LINES, rating_a=CARRIES,
        voltage_v=MADE_FOR, shared="a mark is a mark, whoever hangs behind it",
    ),
    people.ELECTRODE_TOUCH: _row(
        residual_ma=MORE, time_delayed="RA·IΔn is taken at IΔn, at which a delayed one opens too", type=SEES,
        poles="tt_origin_rcd and own_rcd judge it", rating_a=CARRIES, voltage_v=MADE_FOR,
        shared=EITHER,
    ),
    people.DISCONNECTION: _row(
        residual_ma=MORE, time_delayed=SET, type=SEES, poles="the line that opens ends a fault to earth",
        rating_a=MORE, voltage_v=MADE_FOR, shared=OWN,
    ),
    people.ISLAND_RCD: _row(
        residual_ma=MORE, time_delayed=SET, type=SEES, poles="the line that opens ends a fault to the case",
        rating_a=CARRIES, voltage_v=MADE_FOR, shared=OWN,
    ),
    people.TT_ORIGIN_RCD: _row(
        residual_ma="electrode_touch judges every RCD on the way of a TT supply",
        time_delayed=Worse.NOT_SET, type=SEES, poles=LESS, rating_a=CARRIES, voltage_v=MADE_FOR,
        shared="it is there for what others share",
    ),
    people.MAKER_RCD: _row(
        residual_ma=MORE, time_delayed=SET, type=LESS, poles="own_rcd judges it", rating_a=CARRIES, voltage_v=MADE_FOR,
        shared=SET,
    ),
    people.NEW_BOARD_RCD: _row(
        residual_ma=MORE, time_delayed=SET, type="411.3.3 asks for 30 mA of the type that the loads ask for",
        poles="the line that opens ends the fault; main_switch_poles isolates", rating_a=CARRIES, voltage_v=MADE_FOR,
        shared=EITHER,
    ),
    people.LOADS_RCD: _row(
        residual_ma=MORE, time_delayed=SET, type="411.3.3 asks for 30 mA of the type that the loads ask for",
        poles="the line that opens ends the fault; main_switch_poles isolates", rating_a=CARRIES, voltage_v=MADE_FOR,
        shared=OWN,
    ),
    people.CONCEALED_CABLE: _row(
        residual_ma=MORE, time_delayed=SET, type="a nail makes a plain alternating fault, which every type sees",
        poles="the line that opens ends the fault", rating_a=CARRIES, voltage_v=MADE_FOR, shared=OWN,
    ),
    people.OPEN_PEN: _row(
        residual_ma=NO_RCD, time_delayed=NO_RCD, type=NO_RCD, poles=LESS, rating_a=CARRIES, voltage_v=MADE_FOR,
        shared="one before several charge points opens for them all",
    ),
    people.SURVIVES_FAULT: _overcurrent(MORE),
    people.LEAST_FAULT: _overcurrent(MORE),
    run.GUARD_RATING: _row(
        residual_ma=NO_RCD, time_delayed=NO_RCD, type=NO_RCD, poles=LINES, rating_a=EITHER, voltage_v=MADE_FOR,
        shared=SET,
    ),
    run.GUARD_POLES: _row(
        residual_ma=NO_RCD, time_delayed=NO_RCD, type=NO_RCD, poles=LESS, rating_a=CARRIES, voltage_v=MADE_FOR,
        shared="what passes it passes it",
    ),
    run.GUARD_VOLTAGE: _row(
        residual_ma=NO_RCD, time_delayed=NO_RCD, type=NO_RCD, poles=LINES, rating_a=CARRIES, voltage_v=LESS,
        shared="the voltage is the supply's",
    ),
    run.VOLT_DROP: _by_load(),
    run.VOLT_DROP_LIGHTING: _by_load(),
    supply.MAIN_SWITCH_POLES: _row(
        residual_ma=NO_RCD, time_delayed=NO_RCD, type=NO_RCD, poles=LESS, rating_a=CARRIES, voltage_v=MADE_FOR,
        shared="everything hangs behind it",
    ),
    supply.DEMAND_MAIN_SWITCH: _overcurrent(LESS, others="everything hangs behind it"),
    supply.TAILS_CAPACITY: _row(
        residual_ma=NO_RCD, time_delayed=NO_RCD, type=NO_RCD, poles=LINES, rating_a=MORE, voltage_v=MADE_FOR,
        shared=SET,
    ),
    supply.CONTRADICTION: _row(
        residual_ma="holds what is said against what is said", time_delayed="holds what is said against what is said",
        type="holds what is said against what is said", poles=EITHER, rating_a=CARRIES, voltage_v=MADE_FOR,
        shared="goes_off asks what hangs behind it",
    ),
    run.BOTH_WAYS: _row(
        residual_ma=NO_RCD, time_delayed=NO_RCD, type=NO_RCD, poles=LINES, rating_a=CARRIES, voltage_v=MADE_FOR,
        shared="current passes it, whoever else shares it",
    ),
    run.SELECTIVITY: _overcurrent(EITHER),
    run.LOAD_ON_DEVICE: _overcurrent(LESS),
    run.WEAKEST_SECTION: _overcurrent(MORE),
    run.RING_FINAL: _overcurrent(MORE),
    around.SMOOTH_DC: _row(
        residual_ma="smooth current blinds by the type, whatever the rated residual current",
        time_delayed=Worse.NOT_SET, type=LESS, poles=LINES, rating_a=CARRIES, voltage_v=MADE_FOR, shared=SET,
    ),
    around.LEAKAGE: _row(
        residual_ma=LESS, time_delayed=Worse.NOT_SET, type="leakage at 50 Hz is seen by every type", poles=LINES,
        rating_a=CARRIES, voltage_v=MADE_FOR, shared=SET,
    ),
    around.BOARD_DIVERSITY: _overcurrent(LESS),
    run.FLEX_RATING: _overcurrent(MORE),
    run.FLEX_SURVIVES: _overcurrent(MORE),
    run.MAKER_DEVICE: _overcurrent(EITHER),
    run.BREAKING_CAPACITY: _row(
        residual_ma=NO_RCD, time_delayed=NO_RCD, type=NO_RCD, poles=LINES,
        rating_a="what it breaks is marked by itself, whatever its rated current", voltage_v=MADE_FOR,
        shared="judged for each circuit of the run by itself",
    ),
    run.DEVICE_KIND: _row(
        residual_ma=NO_RCD, time_delayed=NO_RCD, type=NO_RCD, poles=LINES,
        rating_a=MORE, voltage_v=MADE_FOR,
        shared="judged for each circuit of the run by itself",
    ),
}  # fmt: skip
LEANS_ON: dict[RuleKey, Row] = {rule.key: row for rule, row in TABLE.items()}
