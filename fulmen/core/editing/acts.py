"""Acts in a job document: holds, calls and signatures. A person does them at a screen; a file only tells of them."""

from __future__ import annotations

from typing import TypeVar

from fulmen.core.errors import InputError
from fulmen.core.findings.words import word
from fulmen.core.model.elsewhere import MOST_TOLD, Elsewhere
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS, Reading

One = TypeVar("One")


def as_history(job: Job) -> Job:
    """The job with every act that it brings put among what was signed elsewhere.

    >>> from fulmen.examples import example
    >>> moved = as_history(example("tn-c-s-device-in-unit"))
    >>> len(moved.elsewhere.holds), moved.decisions, moved.certificate.signatures
    (2, (), ())
    >>> as_history(moved) == moved
    True
    """
    holds = tuple(one for one in job.readings if one.step in HOLDS)
    signatures = job.certificate.signatures
    if not holds and not job.decisions and not signatures:
        return job
    return with_history(
        job.model_copy(
            update={
                "readings": tuple(one for one in job.readings if one.step not in HOLDS),
                "decisions": (),
                "certificate": job.certificate.model_copy(update={"signatures": ()}),
            }
        ),
        Elsewhere(holds=holds, decisions=job.decisions, signatures=signatures),
    )


def with_history(job: Job, brought: Elsewhere) -> Job:
    """The job with more among what was signed elsewhere; what stands there already stands there once."""
    there = job.elsewhere
    if brought == Elsewhere():
        return job
    elsewhere = Elsewhere.made(
        holds=_both(there.holds, brought.holds),
        decisions=_both(there.decisions, brought.decisions),
        signatures=_both(there.signatures, brought.signatures),
    )
    return job.model_copy(update={"elsewhere": elsewhere})


def _both(there: tuple[One, ...], brought: tuple[One, ...]) -> tuple[One, ...]:
    return (*there, *(one for one in brought if one not in there))[-MOST_TOLD:]


def without_acts(job: Job) -> Job:
    """The job as it stands before anybody signed anything, here or elsewhere."""
    return as_history(job).model_copy(update={"elsewhere": Elsewhere()})


def history_words(job: Job) -> list[str]:
    """What was signed elsewhere, by whom and when, a line for each.

    >>> from fulmen.examples import example
    >>> history_words(as_history(example("tn-c-s-device-in-unit")))[0]
    'isolated, R. Quillfeather, 18 November 2026'
    """
    there = job.elsewhere
    return [
        *(f"{one.step.value.replace('_', ' ')}, {one.taken_by}, {one.taken_at:%-d %B %Y}" for one in there.holds),
        *(f"a call, {one.name}, {one.decided_on:%-d %B %Y}" for one in there.decisions),
        *(f"{word(one.part).lower()}, {one.name}, {one.signed_on:%-d %B %Y}" for one in there.signatures),
    ]


def check_no_hold(readings: tuple[Reading, ...]) -> None:
    """Refuse holds among readings that come by another way than a signature.

    Raises:
        InputError: one of them is a hold.
    """
    if any(one.step in HOLDS for one in readings):
        raise InputError("step", "A hold is signed by a person on its own screen; it can't be sent as a reading.")
