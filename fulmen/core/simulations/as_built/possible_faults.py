"""Which faults an installation may have: only what its tests can meet, and only where it would matter."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from fulmen.core.circuit.run_figures import Case
from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.faults.faults import FaultKind, FaultPlace, fault_info
from fulmen.core.verification.steps.sequence import Step

# Below this a path beside the earth takes nothing away that matters. Our own, no source.
LEAST_EARTH_OHM = 0.08
# Of a shorter cable more of it takes nothing away that matters, nor would it show on an ordinary instrument.
LEAST_CABLE_OHM = 0.1
SEEN_AT = {
    FaultKind.EARTHS_JOINED: StepKey.IR_EARTHS,
    FaultKind.RCD_BLIND_TO_PULSES: StepKey.RCD_PULSE_0,
    FaultKind.OPEN_PEN_DEAD: StepKey.OPEN_PEN_TEST,
    FaultKind.DC_DETECTION_DEAD: StepKey.DC_DETECTION,
    FaultKind.LINES_SWAPPED: StepKey.PHASE_SEQUENCE,
    FaultKind.BOND_LOOSE: StepKey.MAIN_BONDING,
    FaultKind.RCD_DEAD: StepKey.RCD_BUTTON,
    FaultKind.RCD_SLOW: StepKey.RCD_BUTTON,
}
WHERE: dict[FaultKind, Callable[[Case], bool]] = {
    # Where neutral and earth are one conductor, so is the fault.
    FaultKind.POOR_SUPPLY_NEUTRAL: lambda case: case.job.supply.earthing is not Earthing.TN_C_S,
    FaultKind.BROKEN_PEN: lambda case: case.job.supply.earthing is Earthing.TN_C_S,
    FaultKind.HIGH_ZE: lambda case: case.job.supply.earthing is not Earthing.TT,
    FaultKind.LEAD_CODED_TOO_HIGH: lambda case: case.run.charge_point.tethered is True,
    FaultKind.LONGER_CABLE: lambda case: (
        case.figures is not None
        and case.figures.final.laid.r1_ohm + case.figures.final.laid.least_r2_ohm >= LEAST_CABLE_OHM
    ),
    FaultKind.PARALLEL_EARTH: lambda case: (
        case.figures is not None and case.figures.final.laid.least_r2_ohm >= LEAST_EARTH_OHM
    ),
}


def possible_faults(case: Case, steps: Iterable[Step]) -> list[FaultKind]:
    """The faults that a run may have.

    Args:
        case: the run; with figures.
        steps: the job's sequence.
    """
    keys = {one.step for one in steps}
    limited = case.job.supply.load_limit_a is not None and case.run.charge_point.current_clamp is Seen.YES
    return [
        kind
        for kind in FaultKind
        if (fault_info(kind).where is not FaultPlace.CLAMP or limited)
        and SEEN_AT.get(kind, StepKey.R1_R2) in keys
        and (kind not in WHERE or WHERE[kind](case))
    ]
