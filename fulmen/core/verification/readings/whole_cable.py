"""The reading of a whole cable that was tested in parts: resistances add up, the worst insulation counts."""

from __future__ import annotations

from fulmen.core.installation.legs import legs_of
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.readings import LEFT_OUT, ByStep, Outcome, Reading, StepKey
from fulmen.core.verification.steps.steps import definition_of

ADDS_UP = frozenset({StepKey.R1_R2, StepKey.R2, StepKey.R1_RN})


def subjects_of(circuit: Circuit) -> tuple[str, ...]:
    """Under whose names the cable of a circuit is read: its own, and those of its parts where a box parts it."""
    return tuple(dict.fromkeys((circuit.id, *(leg.subject for leg in legs_of(circuit)))))


def whole_reading(readings: ByStep, circuit: Circuit, key: StepKey) -> Reading | None:
    """The reading of a circuit that counts; where it was read in parts, all of them together as one.

    R = ΣR of the parts; insulation is the least of them; right only where each is. None until every part was read.
    """
    own, parts = readings.latest(key, circuit.id), subjects_of(circuit)[1:]
    read = [one for one in (readings.latest(key, part) for part in parts) if one is not None]
    if own is not None or not parts or len(read) < len(parts):
        return own
    worst = next((one for one in read if one.outcome in (*LEFT_OUT, Outcome.WRONG)), None)
    if worst is not None:
        return worst
    values = [one.value for one in read if one.value is not None]
    if len(values) < len(read):
        return read[0]
    if key in ADDS_UP:
        over = next((one for one in read if one.outcome is Outcome.OVER_RANGE), None)
        total = round(sum(values), definition_of(key).decimals)
        return over or read[0].model_copy(update={"value": total})
    return min(read, key=lambda one: one.value if one.value is not None else 0.0)
