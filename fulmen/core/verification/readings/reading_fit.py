"""Whether a reading is what its step asks for: a figure is a figure, right or wrong is that, and a hold is signed.

Every door asks this before a reading is kept. What an older version kept is asked too: what does not fit is told, and
counts for nothing.
"""

from __future__ import annotations

from fulmen.core.errors import InputError
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Edition, ask
from fulmen.core.findings.rules.readings import READING_FITS
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS, LEFT_OUT, Outcome, Reading, StepKey, counting
from fulmen.core.verification.steps.steps import FigureRange, Kind, definition_of, definitions_of

# How a step of each kind can end, besides being left out with a reason.
ENDS: dict[Kind, frozenset[Outcome]] = {
    "figure": frozenset({Outcome.MEASURED, Outcome.OVER_RANGE, Outcome.WRONG}),
    "either": frozenset({Outcome.MEASURED, Outcome.OVER_RANGE, Outcome.RIGHT, Outcome.WRONG}),
    "confirm": frozenset({Outcome.RIGHT, Outcome.WRONG}),
    "hold": frozenset({Outcome.RIGHT}),
}
ASKS: dict[Kind, str] = {
    "figure": "a figure",
    "either": "a figure, or right or wrong",
    "confirm": "right or wrong",
    "hold": "a signature",
}
SAID: dict[Outcome, str] = {
    Outcome.MEASURED: "a figure",
    Outcome.OVER_RANGE: "a figure over range",
    Outcome.RIGHT: "“right”",
    Outcome.WRONG: "“wrong”",
}


def range_of(step: StepKey) -> FigureRange | None:
    """The range of a step's figure; None where it takes none.

    >>> range_of(StepKey.ZS).most, range_of(StepKey.POLARITY_DEAD)
    (2000.0, None)
    """
    return next((one.figures for one in definitions_of(step) if one.figures), None)


def kinds_of(step: StepKey) -> tuple[Kind, ...]:
    """What a step can ask for: one key may stand for a figure on one unit and for a look on another."""
    return tuple(dict.fromkeys(one.kind for one in definitions_of(step)))


def misfit(reading: Reading) -> InputError | None:
    """Why a reading is not what its step asks for, and which of its fields says so; None where it is."""
    if reading.outcome in LEFT_OUT:
        return None
    if reading.outcome is Outcome.TAKEN_BACK:
        return InputError("outcome", "A hold that was signed stays: sign it again.") if reading.step in HOLDS else None
    if reading.entered_by and reading.step in HOLDS:
        return InputError("entered_by", "A hold is signed by who answers for it, and by nobody for them.")
    kinds = [kind for kind in kinds_of(reading.step) if reading.outcome in ENDS[kind]]
    title = definition_of(reading.step).title
    if not kinds:
        asked = " or ".join(ASKS[kind] for kind in kinds_of(reading.step))
        return InputError("outcome", f"{title} asks for {asked}; you gave {SAID[reading.outcome]}.")
    if reading.outcome is Outcome.WRONG and reading.value is None and kinds == ["figure"]:
        return InputError("value", f"{title} asks for a figure, also where it is wrong: give what was read.")
    return None if reading.value is None else _out_of_range(reading, reading.value, title)


def _out_of_range(reading: Reading, value: float, title: str) -> InputError | None:
    figures = range_of(reading.step)
    if figures is None:
        return InputError("value", f"{title} takes no figure; you gave {value:g}.")
    unit = definition_of(reading.step).unit
    if value > figures.most:
        return InputError("value", f"{title} can be at most {figures.most:g} {unit}; you gave {value:g}.")
    if value == 0 and figures.zero != "read":
        return InputError("value", f"{title}: {figures.zero}")
    if reading.outcome is Outcome.OVER_RANGE and figures.over == "none":
        return InputError("outcome", f"{title} has no over range: give the figure, up to {figures.most:g} {unit}.")
    return None


def check_readings(readings: tuple[Reading, ...]) -> None:
    """Refuse readings of which one is not what its step asks for.

    Raises:
        InputError: the first one at fault, and its field.
    """
    for reading in readings:
        found = misfit(reading)
        if found is not None:
            raise found


def misfits(job: Job) -> list[InputError]:
    """Every reading of a job that is not what its step asks for, by its place in the job file."""
    found = ((place, misfit(reading)) for place, reading in enumerate(job.readings))
    return [InputError(f"readings.{place}.{one.field}", one.message) for place, one in found if one is not None]


def fitting(job: Job) -> tuple[Reading, ...]:
    """The readings that count: each is what its step asks for, and nobody took it back."""
    return counting(one for one in job.readings if misfit(one) is None)


def misfit_findings(job: Job, counted: tuple[Reading, ...], edition: Edition) -> list[Finding]:
    """Readings that an older version kept and that no step asks for so, until they are taken again.

    Args:
        job: the whole job.
        counted: those of its readings that count, see `fitting`.
        edition: whose clause it is.
    """
    if len(counted) == len(job.readings):
        return []
    taken: dict[tuple[StepKey, str], str] = {}
    for reading in job.readings:
        found = misfit(reading)
        if found is None:
            taken.pop((reading.step, reading.subject), None)
        else:
            taken[reading.step, reading.subject] = found.message
    told = list(taken.values())
    asked = ask(READING_FITS, edition, ORIGIN)
    return [asked.needs_reading(f"Kept by an older version, does not count: {' '.join(told)}")] if told else []
