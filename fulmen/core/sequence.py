"""The test sequence of Part 6 for one job: which steps, in which order, what to expect, what limits."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from fulmen.core.agreement import Band, r1_r2_band, r1_rn_band, zs_band
from fulmen.core.checks.residual_current import board_rcd, front_rcds
from fulmen.core.figures import ORIGIN, Case, measured
from fulmen.core.findings import Stage
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.base import Part
from fulmen.core.model.readings import Reading, StepKey
from fulmen.core.model.supply import Earthing

Kind = Literal["figure", "confirm"]


@dataclass(frozen=True)
class StepDefinition:
    """What every job's step of this key has in common."""

    key: StepKey
    stage: Stage
    title: str
    where: str
    how: str
    kind: Kind
    unit: str = ""
    decimals: int = 2
    leads: tuple[str, ...] = ()
    subject: Literal["origin", "circuit"] = "circuit"
    applies: Callable[[Case], bool] = lambda case: True
    required: bool = True


class Step(Part):
    """One step of one job's sequence, with what is expected, what limits it, and the reading that counts."""

    step: StepKey
    subject: str
    stage: Stage
    title: str
    where: str
    how: str
    kind: Kind
    unit: str
    decimals: int
    leads: tuple[str, ...]
    required: bool
    expected_low: float | None = None
    expected_high: float | None = None
    expected_from: str = ""
    limit: float | None = None
    limit_low: float | None = None
    limit_from: str = ""
    reading: Reading | None = None


def _has_rcd(case: Case) -> bool:
    return board_rcd(case) is not None or case.run.charge_point.rcd_inside is not None


def _has_electrode_at_origin(case: Case) -> bool:
    low = case.job.arrangement.open_pen is OpenPenMeasure.LOW_ELECTRODE
    return case.job.supply.earthing is Earthing.TT or (low and not _has_car_electrode(case))


def _has_car_electrode(case: Case) -> bool:
    own = case.job.arrangement.car_earth is CarEarth.OWN_ELECTRODE
    return own and case.job.supply.earthing is not Earthing.TT


def _delayed_at_origin(case: Case) -> bool:
    return any(rcd.time_delayed for rcd in front_rcds(case))


def _detects_dc(case: Case) -> bool:
    return case.job.arrangement.rdc_dd is not RdcDdPlace.NONE


DEAD, LIVE = Stage.DEAD, Stage.LIVE
AT_BOARD, AT_CAR, AT_ORIGIN = "at the board", "at the charge point", "at the origin"
LIVE_CARE = "Live: fused probes, covers back on before you walk away."

DEFINITIONS = (
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
        "at the electrode",
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
        "at the electrode",
        "Disconnect it first. Three readings with the potential spike moved must agree.",
        "figure",
        "Ω",
        1,
        leads=("PE",),
        applies=_has_car_electrode,
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
        subject="origin",
        applies=_delayed_at_origin,
    ),
    StepDefinition(
        StepKey.RCD_BUTTON,
        LIVE,
        "RCD test button",
        AT_BOARD,
        "Press it: it opens; set it again.",
        "confirm",
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
)


def sequence(cases: list[Case]) -> list[Step]:
    """Every step of the job, dead before live; a step at the origin stands once, whatever hangs on it."""
    steps, seen = [], set()
    for definition in DEFINITIONS:
        for case in cases:
            if not case.run.links or not definition.applies(case):
                continue
            subject = ORIGIN if definition.subject == "origin" else case.subject
            if (definition.key, subject) not in seen:
                seen.add((definition.key, subject))
                steps.append(_step(definition, subject, case))
    return steps


def step_figures_of(case: Case, key: StepKey, subject: str) -> tuple[float | None, float | None, str]:
    """The limit, the lower limit and where they come from, for a step that is a figure."""
    finder = LIMITS.get(key)
    return finder(case, subject) if finder else (None, None, "")


def expected_band(case: Case, key: StepKey, conductor_c: float | None = None) -> Band | None:
    """Where a reading of this step should lie, if that can be told yet."""
    if case.figures is None:
        return None
    if key is StepKey.R1_R2:
        return r1_r2_band(case.figures, case.rules, conductor_c)
    if key is StepKey.R1_RN:
        return r1_rn_band(case.figures, case.rules, conductor_c)
    if key is StepKey.ZS:
        return _expected_zs(case)
    return None


def _expected_zs(case: Case) -> Band | None:
    figures = case.figures
    assert figures is not None
    if _has_car_electrode(case):
        return None
    read = measured(case.job, StepKey.R1_R2, case.subject)
    r1_r2 = read if read is not None else figures.r1_ohm + figures.r2_ohm
    origin = "as read" if read is not None else "from the route"
    source = f"Ze {figures.ze.value:.2f} {figures.ze.source} + R1+R2 {r1_r2:.2f} {origin}, cold"
    return zs_band(figures.ze.value, r1_r2, case.rules, source)


def _step(definition: StepDefinition, subject: str, case: Case) -> Step:
    limit, limit_low, limit_from = step_figures_of(case, definition.key, subject)
    band = expected_band(case, definition.key)
    return Step(
        step=definition.key,
        subject=subject,
        stage=definition.stage,
        title=definition.title,
        where=definition.where,
        how=definition.how,
        kind=definition.kind,
        unit=definition.unit,
        decimals=definition.decimals,
        leads=definition.leads,
        required=definition.required,
        expected_low=band.low if band else None,
        expected_high=band.high if band else None,
        expected_from=band.source if band else "",
        limit=limit,
        limit_low=limit_low,
        limit_from=limit_from,
        reading=case.job.reading(definition.key, subject),
    )


Limits = tuple[float | None, float | None, str]


def _limit_r1_r2(case: Case, subject: str) -> Limits:
    figures = case.figures
    if figures is None or case.job.supply.earthing is Earthing.TT:
        return None, None, ""
    most = (figures.zs_limit_ohm - figures.board_loop_ohm) / figures.hot_factor
    return (
        max(most, 0.0),
        None,
        f"(Zs max {figures.zs_limit_ohm:.2f} − {figures.board_loop_ohm:.2f})/{figures.hot_factor:g}",
    )


def _limit_zs(case: Case, subject: str) -> Limits:
    figures = case.figures
    if figures is None:
        return None, None, ""
    rcd = board_rcd(case) or case.run.charge_point.rcd_inside
    too_high = board_rcd(case) is not None and figures.zs_hot_ohm > figures.zs_limit_ohm
    by_rcd = case.job.supply.earthing is Earthing.TT or _has_car_electrode(case) or too_high
    if by_rcd:
        most = case.rules.value("touch_voltage_v") / (rcd.residual_ma / 1000) if rcd else None
        return most, None, "50 V ÷ IΔn"
    share = case.rules.value("measured_loop_factor")
    return share * figures.zs_limit_ohm, None, f"{share:.0%} of {figures.zs_limit_ohm:.2f} Ω, as conductors are cold"


def _limit_ze(case: Case, subject: str) -> Limits:
    earthing = case.job.supply.earthing
    if earthing is Earthing.TT:
        return None, None, ""
    name = "declared_ze_tn_c_s_ohm" if earthing is Earthing.TN_C_S else "declared_ze_tn_s_ohm"
    return case.rules.value(name), None, "declared maximum"


def _limit_fault_current(case: Case, subject: str) -> Limits:
    final = case.run.final()
    most = max(final.circuit.device.breaking_capacity_ka, final.board.conditional_rating_ka or 0.0)
    return most, None, "what the device and its board can break"


def _limit_insulation(case: Case, subject: str) -> Limits:
    return None, case.rules.value("insulation_mohm"), "at 500 V d.c."


def _limit_electrode(case: Case, subject: str) -> Limits:
    return case.rules.value("electrode_stable_ohm"), None, "stable in dry and frozen ground"


def _limit_rcd(case: Case, subject: str) -> Limits:
    return case.rules.value("rcd_trip_ms"), None, "at 1× IΔn"


def _limit_delayed_rcd(case: Case, subject: str) -> Limits:
    return case.rules.value("rcd_delayed_trip_max_ms"), case.rules.value("rcd_delayed_trip_min_ms"), "S-type at 1× IΔn"


LIMITS: dict[StepKey, Callable[[Case, str], Limits]] = {
    StepKey.R1_R2: _limit_r1_r2,
    StepKey.IR_LIVE_EARTH: _limit_insulation,
    StepKey.IR_LINE_NEUTRAL: _limit_insulation,
    StepKey.ELECTRODE: _limit_electrode,
    StepKey.ZE: _limit_ze,
    StepKey.FAULT_CURRENT: _limit_fault_current,
    StepKey.ZS: _limit_zs,
    StepKey.RCD_TRIP: _limit_rcd,
    StepKey.RCD_ORIGIN_TRIP: _limit_delayed_rcd,
}
