"""The steps of the test sequence: what every job's step of a kind has in common, and when it applies."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from fulmen.core.checks.residual_current import own_rcds, rcds
from fulmen.core.circuit.guards import PlacedGuard, Stands
from fulmen.core.circuit.origin import ORIGIN
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Stage
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.readings import StepKey
from fulmen.core.model.supply import Earthing

Kind = Literal["figure", "confirm"]


class Where(StrEnum):
    """Where a step is taken."""

    BOARD = "board"
    CAR = "car"
    ORIGIN = "origin"
    ELECTRODE = "electrode"


WHERE_WORDS = {
    Where.BOARD: "at the board",
    Where.CAR: "at the charge point",
    Where.ORIGIN: "at the origin",
    Where.ELECTRODE: "at the electrode",
}


@dataclass(frozen=True)
class StepDefinition:
    """What every job's step of this key has in common."""

    key: StepKey
    stage: Stage
    title: str
    where: Where
    how: str
    kind: Kind
    unit: str = ""
    decimals: int = 2
    leads: tuple[str, ...] = ()
    subject: Literal["origin", "circuit", "rcd"] = "circuit"
    applies: Callable[[Case], bool] = lambda case: True
    required: bool = True


def tested_rcds(case: Case, key: StepKey) -> dict[str, PlacedGuard]:
    """The RCDs of a run that a step tests, each on its own, by the subject of their readings.

    The circuit's own is read under the circuit's name: its device's, or the unit's where nothing else stands before
    it. A time-delayed one in front of the first board has a step of its own, read under the origin's name.
    """
    found: dict[str, PlacedGuard] = {}
    for guard in rcds(case):
        inside = guard.stands is Stands.UNIT
        if inside and any(one is not guard for one in own_rcds(case)):
            continue
        origin = delayed_at_origin(case, guard)
        if origin is (key is StepKey.RCD_ORIGIN_TRIP):
            found[ORIGIN if origin else case.subject if inside else guard.subject] = guard
    return found


def delayed_at_origin(case: Case, guard: PlacedGuard) -> bool:
    """Whether it is a time-delayed RCD in front of the first board's ways."""
    first, delayed = case.run.chain[0].circuit.id, guard.rcd is not None and guard.rcd.time_delayed
    return delayed and guard.circuit == first and guard.stands in (Stands.INCOMER, Stands.GROUP)


def _has_rcd(case: Case) -> bool:
    return bool(tested_rcds(case, StepKey.RCD_TRIP))


def relies_on_low_electrode(case: Case) -> bool:
    """Whether an electrode on the house earth must hold the voltage of a broken PEN."""
    low = not case.to_loads and case.arrangement.open_pen is OpenPenMeasure.LOW_ELECTRODE
    return low and case.job.supply.earthing is not Earthing.TT and not has_car_electrode(case)


def _has_electrode_at_origin(case: Case) -> bool:
    return case.job.supply.earthing is Earthing.TT or relies_on_low_electrode(case)


def has_car_electrode(case: Case) -> bool:
    """Whether only the car is earthed to an electrode of its own (TT island)."""
    own = not case.to_loads and case.arrangement.car_earth is CarEarth.OWN_ELECTRODE
    return own and case.job.supply.earthing is not Earthing.TT


def _delayed_at_origin(case: Case) -> bool:
    return bool(tested_rcds(case, StepKey.RCD_ORIGIN_TRIP))


def _detects_dc(case: Case) -> bool:
    return case.arrangement.rdc_dd is not RdcDdPlace.NONE


def _three_phase(case: Case) -> bool:
    return case.run.charge_point.phase_count == 3


def _bonds(case: Case) -> bool:
    return bool(case.job.supply.bonded_services)


DEAD, LIVE = Stage.DEAD, Stage.LIVE
AT_BOARD, AT_CAR, AT_ORIGIN, AT_ELECTRODE = Where.BOARD, Where.CAR, Where.ORIGIN, Where.ELECTRODE
LIVE_CARE = "Live: fused probes, covers back on before you walk away."

DEFINITIONS = (
    StepDefinition(
        StepKey.MAIN_BONDING,
        DEAD,
        "Main bonding, continuity",
        AT_ORIGIN,
        "Null the long lead. From the earthing terminal to the metal of each service, clamp and all: the highest.",
        "figure",
        "Ω",
        leads=("PE",),
        subject="origin",
        applies=_bonds,
    ),
    StepDefinition(
        StepKey.R1_R2,
        DEAD,
        "Continuity, R1+R2",
        AT_CAR,
        "Null the leads. Link line and earth at the board; read between them at the charge point.",
        "figure",
        "Ω",
        leads=("L", "PE"),
    ),
    StepDefinition(
        StepKey.R1_RN,
        DEAD,
        "Cross-check, R1+Rn",
        AT_CAR,
        "Link line and neutral at the board; read between them at the charge point.",
        "figure",
        "Ω",
        leads=("L", "N"),
        required=False,
    ),
    StepDefinition(
        StepKey.IR_LIVE_EARTH,
        DEAD,
        "Insulation, live to earth",
        AT_BOARD,
        "500 V d.c., line and neutral together to earth; charge point and surge protection off.",
        "figure",
        "MΩ",
        1,
        leads=("L", "N", "PE"),
    ),
    StepDefinition(
        StepKey.IR_LINE_NEUTRAL,
        DEAD,
        "Insulation, line to neutral",
        AT_BOARD,
        "500 V d.c., before the charge point is connected.",
        "figure",
        "MΩ",
        1,
        leads=("L", "N"),
    ),
    StepDefinition(
        StepKey.POLARITY_DEAD,
        DEAD,
        "Polarity, dead",
        AT_CAR,
        "Every line terminal is line, every switch is in the line.",
        "confirm",
        leads=("L", "N", "PE"),
    ),
    StepDefinition(
        StepKey.ELECTRODE,
        DEAD,
        "Earth electrode",
        AT_ELECTRODE,
        "Disconnect it first. Three readings with the potential spike moved must agree.",
        "figure",
        "Ω",
        1,
        leads=("PE",),
        subject="origin",
        applies=_has_electrode_at_origin,
    ),
    StepDefinition(
        StepKey.ELECTRODE,
        DEAD,
        "Car's own earth electrode",
        AT_ELECTRODE,
        "Disconnect it first. Three readings with the potential spike moved must agree.",
        "figure",
        "Ω",
        1,
        leads=("PE",),
        applies=has_car_electrode,
    ),
    StepDefinition(
        StepKey.POLARITY_LIVE,
        LIVE,
        "Polarity, live",
        AT_ORIGIN,
        f"Line to neutral, line to earth, neutral to earth. {LIVE_CARE}",
        "confirm",
        leads=("L", "N", "PE"),
        subject="origin",
    ),
    StepDefinition(
        StepKey.ZE,
        LIVE,
        "Ze at the cut-out",
        AT_ORIGIN,
        f"Main switch off and locked; earthing conductor off the terminal, back on afterwards. {LIVE_CARE}",
        "figure",
        "Ω",
        leads=("L", "PE"),
        subject="origin",
    ),
    StepDefinition(
        StepKey.FAULT_CURRENT,
        LIVE,
        "Prospective fault current",
        AT_ORIGIN,
        f"Line to neutral and line to earth, earthing back on: write the larger. {LIVE_CARE}",
        "figure",
        "kA",
        leads=("L", "N", "PE"),
        subject="origin",
    ),
    StepDefinition(
        StepKey.ZS,
        LIVE,
        "Loop at the car, Zs",
        AT_CAR,
        f"Vehicle adapter in state C; tester on loop, no trip. {LIVE_CARE}",
        "figure",
        "Ω",
        leads=("L", "N", "PE"),
    ),
    StepDefinition(
        StepKey.RCD_TRIP,
        LIVE,
        "RCD at its rated current",
        AT_CAR,
        "1× rated residual current, alternating; write the longest time.",
        "figure",
        "ms",
        1,
        leads=("L", "N", "PE"),
        subject="rcd",
        applies=_has_rcd,
    ),
    StepDefinition(
        StepKey.RCD_ORIGIN_TRIP,
        LIVE,
        "Time-delayed RCD at the origin",
        AT_ORIGIN,
        "1× rated residual current, alternating.",
        "figure",
        "ms",
        1,
        leads=("L", "N", "PE"),
        subject="rcd",
        applies=_delayed_at_origin,
    ),
    StepDefinition(
        StepKey.PHASE_SEQUENCE,
        LIVE,
        "Phase sequence",
        AT_CAR,
        f"Indicator on L1, L2, L3: it turns as at the origin. {LIVE_CARE}",
        "confirm",
        leads=("L", "N", "PE"),
        applies=_three_phase,
    ),
    StepDefinition(
        StepKey.RCD_BUTTON,
        LIVE,
        "RCD test button",
        AT_BOARD,
        "Press it: it opens; set it again.",
        "confirm",
        subject="rcd",
        applies=_has_rcd,
    ),
    StepDefinition(
        StepKey.DC_DETECTION,
        LIVE,
        "6 mA DC detection",
        AT_CAR,
        "Smooth DC through the connector: it opens at 6 mA or less.",
        "confirm",
        applies=_detects_dc,
        required=False,
    ),
    StepDefinition(
        StepKey.CHARGE_POINT_STATES,
        LIVE,
        "Charge point states",
        AT_CAR,
        "A, B and C as they should be; pilot error and earth error each open it; it sets again.",
        "confirm",
    ),
    # The order is that of StepKey.
)
