"""What is to be said of the tests beside their figures: what was left out and why, what was taken again and why."""

from __future__ import annotations

from collections.abc import Iterable

from fulmen.core.evaluate import Evaluation
from fulmen.core.findings.words import word
from fulmen.core.installation.legs import legs_of
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.circuits import Circuit
from fulmen.core.papers.cells import LEFT_OUT, reading_text
from fulmen.core.verification.readings.taken_again import taken_back_words
from fulmen.core.verification.readings.whole_cable import subjects_of
from fulmen.core.verification.steps.sequence import Step


def remarks_of(evaluation: Evaluation, circuit: Circuit) -> str:
    """What is to be said of a circuit: what was written, what was left out, what was taken again."""
    told = [line for subject in subjects_of(circuit) for line in _told_of(evaluation, subject)]
    return " ".join(filter(None, [circuit.remarks, _in_parts(evaluation, circuit), _at_half_voltage(circuit), *told]))


def _at_half_voltage(circuit: Circuit) -> str:
    """What stayed connected while its insulation was tested."""
    if circuit.fitted_with_this_job or not circuit.stays_connected:
        return ""
    stays = ", ".join(word(one) for one in circuit.stays_connected)
    return f"Insulation live to earth alone: {stays} stayed connected."


def _in_parts(evaluation: Evaluation, circuit: Circuit) -> str:
    """Which parts of its cable were tested each by itself: what stands in the schedule is all of them together."""
    read = {one.subject for one in evaluation.steps if one.reading is not None}
    parts = [leg.name for leg in legs_of(circuit) if leg.subject != circuit.id and leg.subject in read]
    return f"Dead tests in parts: {', '.join(parts)}; resistances added, the least insulation." if parts else ""


def remarks_at_origin(evaluation: Evaluation) -> tuple[str, ...]:
    """What is to be said of the tests at the origin."""
    return tuple(_told_of(evaluation, ORIGIN))


def _told_of(evaluation: Evaluation, subject: str) -> list[str]:
    own = [one for one in evaluation.steps if one.subject == subject]
    return [*_left_out(own), *_taken_again(own), *_taken_back(own)]


def _left_out(steps: Iterable[Step]) -> list[str]:
    """Each limitation with its reason."""
    read = [(step, step.reading) for step in steps if step.reading is not None]
    return [
        f"{step.title}: {LEFT_OUT[one.outcome]}, {one.reason}."
        for step, one in read
        if one.outcome in LEFT_OUT and one.reason
    ]


def _taken_back(steps: Iterable[Step]) -> list[str]:
    """Each reading that was taken back, by whom and why."""
    return [f"{step.title}: {told}." for step in steps for told in taken_back_words(step)]


def _taken_again(steps: Iterable[Step]) -> list[str]:
    """Each retest with what was read first, and why."""
    told = []
    for step in steps:
        if step.earlier and step.reading is not None:
            first = ", then ".join(f"{reading_text(one, step.decimals)} by {one.taken_by}" for one in step.earlier)
            told.append(f"{step.title}: {first} before; {step.reading.again_because or 'not said why'}.")
    return told
