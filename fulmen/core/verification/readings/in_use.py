"""What each instrument has read since it was last checked, and where two of them read the same thing.

When one turns out to be off, its readings since it was last known to be right are those to look at again.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from datetime import date
from itertools import combinations

from fulmen.core.model.instruments import Instrument
from fulmen.core.model.readings import Outcome, Reading, StepKey
from fulmen.core.plain import plain
from fulmen.core.verification.instruments.accuracy import error_of, measures_with, off_together
from fulmen.core.verification.steps.steps import definition_of


@plain
class JobReadings:
    """The readings of one job, in the order taken."""

    job_id: int
    title: str
    readings: tuple[Reading, ...]


@plain
class JobUse:
    """What an instrument read in one job: how many figures, and on which days."""

    job_id: int
    title: str
    count: int
    first: date
    last: date


@plain
class HeldAgainst:
    """Something that two instruments read: both figures, and whether they are within what both may be off."""

    job_id: int
    title: str
    step: StepKey
    what: str
    other: str
    value: float
    other_value: float
    unit: str
    within: bool


@plain
class InUse:
    """One instrument: since when its readings count, null for ever; when it is due; what it read, and beside what."""

    name: str
    serial_number: str
    since: date | None
    due: date | None
    count: int
    jobs: tuple[JobUse, ...]
    against: tuple[HeldAgainst, ...]


def in_use(register: Iterable[Instrument], jobs: Iterable[JobReadings]) -> tuple[InUse, ...]:
    """What each instrument of a register has read.

    Args:
        register: the instruments; readings name them by their names.
        jobs: every job with its readings.
    """
    every, known = tuple(jobs), {one.name: one for one in register}
    pairs = [pair for job in every for pair in _pairs(job, known)]
    return tuple(_of(one, every, [each for name, each in pairs if name == one.name]) for one in known.values())


def _of(instrument: Instrument, jobs: tuple[JobReadings, ...], against: list[HeldAgainst]) -> InUse:
    used = []
    for job in jobs:
        days = [one.taken_at.date() for one in job.readings if _counts(one, instrument)]
        if days:
            used.append(JobUse(job.job_id, job.title, len(days), min(days), max(days)))
    return InUse(
        name=instrument.name,
        serial_number=instrument.serial_number,
        since=instrument.checked_on,
        due=instrument.calibration_due,
        count=sum(one.count for one in used),
        jobs=tuple(sorted(used, key=lambda one: one.last, reverse=True)),
        against=tuple(against),
    )


def _counts(reading: Reading, instrument: Instrument) -> bool:
    """Whether a figure of an instrument was read since it was last checked; on that day counts."""
    since = instrument.checked_on
    return (
        reading.instrument == instrument.name
        and reading.value is not None
        and (since is None or reading.taken_at.date() >= since)
    )


def _pairs(job: JobReadings, known: dict[str, Instrument]) -> Iterator[tuple[str, HeldAgainst]]:
    """Where two instruments of the register read one step of one thing: the last figure of each, either way round."""
    last: dict[tuple[StepKey, str], dict[str, Reading]] = {}
    for reading in job.readings:
        if reading.outcome is Outcome.MEASURED and reading.instrument in known:
            last.setdefault((reading.step, reading.subject), {})[reading.instrument] = reading
    for (step, _), by_name in last.items():
        measures = measures_with(definition_of(step).dial)
        if measures is None:
            continue
        for one, other in combinations(by_name.values(), 2):
            errors = [(error_of(known[each.instrument], measures), each.value or 0.0) for each in (one, other)]
            within = abs((one.value or 0.0) - (other.value or 0.0)) <= off_together(errors)
            for here, there in ((one, other), (other, one)):
                yield here.instrument, _held(job, here, there, within=within)


def _held(job: JobReadings, here: Reading, there: Reading, *, within: bool) -> HeldAgainst:
    defined = definition_of(here.step)
    return HeldAgainst(
        job.job_id, job.title, here.step, defined.title, there.instrument, here.value or 0.0, there.value or 0.0,
        defined.unit, within,
    )  # fmt: skip
