"""Which faults an installation may have: only what its tests can meet, and only where it would matter."""

from __future__ import annotations

from collections.abc import Iterable

from fulmen.core.circuit.run_figures import Case
from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.verification.faults.faults import FaultPlace, Only, fault_info, planted_kinds
from fulmen.core.verification.steps.sequence import Step


def possible_faults(case: Case, steps: Iterable[Step]) -> list[str]:
    """The faults that a run may have.

    Args:
        case: the run; with figures.
        steps: the job's sequence.
    """
    keys = {one.step for one in steps}
    limited = case.job.supply.load_limit_a is not None and case.run.charge_point.current_clamp is Seen.YES
    return [
        kind
        for kind in planted_kinds()
        if (fault_info(kind).where is not FaultPlace.CLAMP or limited) and _can_be(fault_info(kind).only, case, keys)
    ]


def _can_be(only: Only, case: Case, keys: set[StepKey]) -> bool:
    """Whether the house has what a fault needs: of a short cable more of it takes nothing away that matters, nor would
    it show on an ordinary instrument, and so it is with a path beside the earth.
    """
    laid = case.figures.final.laid if case.figures is not None else None
    r1_ohm, r2_ohm = (laid.r1_ohm, laid.least_r2_ohm) if laid is not None else (0.0, 0.0)
    return (
        (not only.step or only.step in keys)
        and (not only.earthing or case.job.supply.earthing in only.earthing)
        and (not only.tethered or case.run.charge_point.tethered is True)
        and r1_ohm + r2_ohm >= only.least_loop_ohm
        and r2_ohm >= only.least_earth_ohm
    )
