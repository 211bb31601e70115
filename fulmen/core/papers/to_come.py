"""What a certificate states of a circuit that is handed over before its unit hangs on it."""

from __future__ import annotations

from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.papers.cells import reading_text
from fulmen.core.papers.judged_job import JudgedJob


def units_to_come(judged: JudgedJob) -> tuple[str, ...]:
    """Of each unit that comes later: what was tested, how its circuit is left, and what is still to be done."""
    found = []
    for run in judged.installation.runs:
        if run.charge_point.to_come and run.chain:
            loop = reading_text(judged.readings.latest(StepKey.ZS_CABLE, run.subject), 2)
            left = "off and locked" if run.charge_point.left_locked is Seen.YES else "not locked off"
            found.append(
                f"{run.charge_point.name} is not fitted yet. {run.final().circuit.name} was tested to the closed box "
                f"at its end, loop there {loop} Ω, and is left {left}. Nothing may be charged from it before the unit "
                "is fitted, tested through its connector, and certified."
            )
    return tuple(found)
