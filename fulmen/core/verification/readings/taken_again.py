"""Steps that were taken again or taken back: whose reading each follows, and why. Nothing vanishes silently.

A retest says which reading its tester knew of (`follows`) and why it was taken all the same. Two people who measure one
step without a network don't know of each other: both readings stay, and somebody says which counts, and why.
"""

from __future__ import annotations

from itertools import pairwise

from fulmen.core.errors import InputError
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Edition, ask
from fulmen.core.findings.rules.readings import TAKEN_AGAIN
from fulmen.core.findings.words import word
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS, Follows, Outcome, Reading, is_of
from fulmen.core.verification.steps.sequence import Step

LEAST_WHY = 3
# A basis holds so many facts.
MOST_TOLD = 40


def after(reading: Reading) -> Follows:
    """What a retest says of the reading that its tester knew of."""
    return Follows(taken_by=reading.taken_by, taken_at=reading.taken_at)


def check_told(readings: tuple[Reading, ...]) -> None:
    """Refuse a new reading that tells half of why it was taken again: whose it follows, and the reason, go together.

    Raises:
        InputError: one of them is missing; the message names it.
    """
    for one in readings:
        if one.again_because and one.follows is None:
            raise InputError("follows", "Say whose reading it follows: who took it, and when.")
        if one.outcome is Outcome.TAKEN_BACK:
            continue
        if one.follows is not None and len(one.again_because) < LEAST_WHY:
            raise InputError("again_because", f"Say why it is taken again, after {one.follows.taken_by}'s.")


def check_taken_back(job: Job, readings: tuple[Reading, ...]) -> None:
    """Refuse to take back what nobody read.

    Args:
        job: the job before the readings.
        readings: what is to be kept.

    Raises:
        InputError: an entry takes back a reading that is not there, or before it was read.
    """
    known = (*job.readings, *readings)
    for one in readings:
        if one.outcome is not Outcome.TAKEN_BACK:
            continue
        meant = next((other for other in known if is_of(one, other)), None)
        if meant is None:
            raise InputError("follows", "There is no such reading of this test: say who took it, and when.")
        if one.taken_at < meant.taken_at:
            raise InputError("taken_at", "Taken back before it was read: set this device’s clock, then do it again.")


def is_told(before: Reading, reading: Reading) -> bool:
    """Whether a reading may count over the one before it without anybody being asked.

    One that an older version kept says why and not whose it follows: it was taken at a screen that showed the one
    before. Two people may both find right what is right, and both sign a hold: neither counts over the other.
    """
    if reading.step in HOLDS or (before.outcome is reading.outcome is Outcome.RIGHT):
        return True
    if len(reading.again_because) < LEAST_WHY:
        return False
    return reading.follows is None or reading.follows == after(before)


def retest_findings(steps: tuple[Step, ...], edition: Edition) -> list[Finding]:
    """Steps that were taken again: the first figure stays, and why it was taken again is told."""
    by_subject: dict[str, list[Step]] = {}
    for step in steps:
        if step.taken_back or (step.earlier and step.reading is not None):
            by_subject.setdefault(step.subject, []).append(step)
    return [_again(taken, subject, edition) for subject, taken in by_subject.items()]


def _again(steps: list[Step], subject: str, edition: Edition) -> Finding:
    asked = ask(TAKEN_AGAIN, edition, subject).shown_at(steps[0].stage, named=False)
    untold = [(step, *pair) for step in steps for pair in _pairs(step) if not is_told(*pair)]
    revived = [(step, one) for step in steps if (one := _revived(step)) is not None]
    back = [f"{step.title}: {told}." for step in steps for told in taken_back_words(step)]
    if not untold and not revived:
        return asked.meets(" ".join(["Each says why.", *back]))
    told = [_untold_words(step, before, reading) for step, before, reading in untold]
    if untold:
        told.append("The last one counts: say why.")
    if revived:
        told += [
            *back,
            *(f"{_said(step, one)} counts again: test again, or say why it holds." for step, one in revived),
        ]
    # Which readings, not only which step: another one that nobody knew of is asked about anew.
    asked_of = [*((step, one) for step, _, one in untold), *revived]
    basis = tuple(f"{step.step} {one.taken_at:%Y-%m-%dT%H:%M:%S%z} {one.taken_by}"[:100] for step, one in asked_of)
    return asked.your_call(" ".join(told), basis={"readings": basis[-MOST_TOLD:]})


def _revived(step: Step) -> Reading | None:
    """A reading that counts only since a later one was taken back: a bad figure does not vanish behind an older one."""
    counts = step.reading
    read = [one for one in step.taken_back if one.outcome is not Outcome.TAKEN_BACK]
    return counts if counts is not None and any(one.taken_at > counts.taken_at for one in read) else None


def _pairs(step: Step) -> list[tuple[Reading, Reading]]:
    """Each reading of a step with the one before it."""
    taken = [*step.earlier, *([step.reading] if step.reading is not None else [])]
    return list(pairwise(taken))


def _untold_words(step: Step, before: Reading, reading: Reading) -> str:
    told = f"{step.title}: {_said(step, reading)} after {_said(step, before)}"
    if reading.follows is not None and reading.follows != after(before):
        return f"{told}, of which {reading.taken_by} did not know."
    return f"{told}; {reading.taken_by} did not know of it, or did not say why."


def taken_back_words(step: Step) -> list[str]:
    """What was read at a step and taken back, by whom and why."""
    back, told = "", []
    for one in step.taken_back:
        if one.outcome is Outcome.TAKEN_BACK and back:
            told.append(f"{back} taken back by {one.taken_by}: {one.reason.rstrip('.')}")
        back = "" if one.outcome is Outcome.TAKEN_BACK else _said(step, one)
    return told


def _said(step: Step, reading: Reading) -> str:
    read = word(reading.outcome) if reading.value is None else f"{reading.value:.{step.decimals}f} {step.unit}"
    over = ">" if reading.outcome is Outcome.OVER_RANGE else ""
    return f"{over}{read} by {reading.taken_by}, {reading.taken_at:%-d %B, %H:%M}"
