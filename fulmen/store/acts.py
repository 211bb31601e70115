"""Acts of a person: holds, calls and signatures. Each wants a one-time word, bound to job, act and device.

The words are drawn for a page that holds a session, valid a day; spending one and doing the act are one transaction.
"""

from __future__ import annotations

import secrets
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from hashlib import sha256

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from fulmen.core.errors import InputError
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.model.base import Moment, Name, Part, Reason
from fulmen.core.model.decisions import Decision
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS, Outcome, Reading
from fulmen.core.verification.readings.reading_fit import check_readings
from fulmen.store.database import Sessions, writing
from fulmen.store.entries import DoneBefore, Entry, remember
from fulmen.store.errors import MovedOn, NotYours, TooMany
from fulmen.store.operations import check_past, load_job, with_readings
from fulmen.store.stored_jobs import Standing, StoredJob, reading_rows, record, row_of
from fulmen.store.tables import ActRow, ActWordRow, DecisionRow, JobRow
from fulmen.store.turns import change, judged

VALID = timedelta(days=1)
# A page holds a word for each open hold of a job and asks again after a reload; no device needs so many in a day.
MOST_WORDS = 5000


class ActKind(StrEnum):
    """What a person does at a screen."""

    HOLD = "hold"
    CALL = "call"
    SIGNATURE = "signature"


@dataclass(frozen=True)
class Act:
    """One act: which hold ("isolated/car"), which call (the finding's key), or the certificate's signature."""

    kind: ActKind
    about: str


CERTIFICATE = Act(ActKind.SIGNATURE, "certificate")


def hold(step: str, subject: str) -> Act:
    """The act of signing a hold."""
    return Act(ActKind.HOLD, f"{step}/{subject}")


@dataclass(frozen=True)
class Warrant:
    """What lets a screen do an act: the word that was drawn for it, and the device that holds it."""

    word: str
    device: str


def draw_words(
    sessions: Sessions, job_id: int, acts: Iterable[Act], device: str, now: datetime
) -> dict[Act, tuple[str, datetime]]:
    """A word for each act, told this once, and until when it is valid. Those that ran out are swept away.

    Raises:
        NotFound: there is no such job.
        TooMany: this device holds too many already.
    """
    until, words = now + VALID, {act: secrets.token_urlsafe(24) for act in acts}
    with writing(sessions) as session:
        row_of(session, job_id)
        session.execute(delete(ActWordRow).where(ActWordRow.expires_at < now))
        held = select(func.count()).select_from(ActWordRow).where(ActWordRow.device == device)
        if (session.scalar(held) or 0) + len(words) > MOST_WORDS:
            raise TooMany("This device asked for too many words to sign with: wait until they run out, within a day.")
        session.add_all(
            ActWordRow(
                sha256=_hash(word), job_id=job_id, kind=act.kind.value, about=act.about, device=device, expires_at=until
            )
            for act, word in words.items()
        )
    return {act: (word, until) for act, word in words.items()}


def spend(session: Session, job_id: int, act: Act, warrant: Warrant, now: datetime) -> None:
    """Use a word up for its act.

    Raises:
        NotYours: it is not the word of this act, job and device, was used before, or ran out.
    """
    row = session.get(ActWordRow, _hash(warrant.word))
    if row is None or (row.job_id, row.kind, row.about, row.device) != (
        job_id, act.kind.value, act.about, warrant.device
    ):  # fmt: skip
        raise NotYours("This page may not sign that: open the job again and sign there. Nothing was signed.")
    if row.used or row.expires_at < now:
        why = "was used already" if row.used else "ran out: it is valid for a day"
        raise NotYours(f"The one-time word of this signature {why}. Nothing was signed: look again and sign anew.")
    row.used = True


def _hash(word: str) -> str:
    return sha256(word.encode()).hexdigest()


def sign_hold(
    sessions: Sessions, job_id: int, reading: Reading, warrant: Warrant, now: datetime, entry: Entry | None = None
) -> StoredJob:
    """Keep a hold that a person signed. One that its device sends again is kept once.

    Raises:
        InputError: it is no hold, or not signed.
        NotFound: there is no such job.
        NotYours: the word is not this act's.
        KeyTaken: the entry's key was used for another one.
    """
    if reading.step not in HOLDS or reading.outcome is not Outcome.RIGHT:
        raise InputError("step", "Only a hold is signed here; other steps are read.")
    check_readings((reading,))
    check_past("taken_at", reading.taken_at, now)
    reading = reading.model_copy(update={"came_at": now})

    def keep(session: Session, _: JobRow, __: Job) -> None:
        remember(session, job_id, entry, now)
        act = hold(reading.step.value, reading.subject)
        spend(session, job_id, act, warrant, now)
        (kept,) = reading_rows(job_id, (reading,))
        session.add(kept)
        session.flush()
        _log(session, job_id, Done(act, kept.id, reading.taken_by, reading.taken_at), warrant, now)

    try:
        return change(sessions, job_id, now, lambda stands: with_readings(stands.job, (reading,)), keep)
    except DoneBefore:
        return load_job(sessions, job_id)


class Call(Part):
    """What a person says to a finding that is their call; what it rests on is read from the job, not from them."""

    finding: str
    condition: str = ""
    standing: bool = False
    reason: Reason
    name: Name
    decided_at: Moment


def settle_call(sessions: Sessions, job_id: int, call: Call, warrant: Warrant, now: datetime) -> StoredJob:
    """Keep why a finding that is the designer's call stands as it does.

    Raises:
        MovedOn: the finding is no call, or not any more.
        InputError: the condition is none of the finding's.
        NotFound: there is no such job.
        NotYours: the word is not this act's.
    """
    if call.decided_at.tzinfo is None:
        raise InputError("decided_at", "Give the time with its offset from UTC.")
    check_past("decided_at", call.decided_at, now)

    def changed(stands: Standing) -> Job:
        return stands.job.model_copy(
            update={"decisions": (*stands.job.decisions, _decision(sessions, stands.job, call))}
        )

    def keep(session: Session, _: JobRow, job: Job) -> None:
        act = Act(ActKind.CALL, call.finding)
        spend(session, job_id, act, warrant, now)
        kept = DecisionRow(job_id=job_id, document=job.decisions[-1].model_dump(mode="json"))
        session.add(kept)
        session.flush()
        _log(session, job_id, Done(act, kept.id, call.name, call.decided_at), warrant, now)

    return change(sessions, job_id, now, changed, keep)


def _decision(sessions: Sessions, job: Job, call: Call) -> Decision:
    findings = judged(sessions, job).findings
    found = next((one for one in findings if one.key == call.finding and one.verdict is Verdict.YOUR_CALL), None)
    if found is None:
        raise MovedOn("This is not your call as the job is saved: look at it again. Nothing was kept.")
    _check_condition(found, call)
    return Decision(
        key=found.key,
        about=found.detail,
        basis=found.basis,
        condition=call.condition,
        standing=call.standing,
        reason=call.reason,
        name=call.name,
        decided_on=call.decided_at.date(),
        decided_at=call.decided_at,
    )


def _check_condition(found: Finding, call: Call) -> None:
    conditions = {one.key for one in found.conditions}
    if conditions and call.condition not in conditions:
        raise InputError("condition", "Say which of the conditions makes it sound here.")


def log_signature(session: Session, job_id: int, wish_id: int, names: str, warrant: Warrant, now: datetime) -> None:
    """Keep who signed for a certificate that was asked for."""
    _log(session, job_id, Done(CERTIFICATE, wish_id, names, now), warrant, now)


@dataclass(frozen=True)
class Done:
    """An act that was done: the row it made, the name as typed, and when by the device's clock."""

    act: Act
    row_id: int
    name: str
    made_at: datetime


def _log(session: Session, job_id: int, done: Done, warrant: Warrant, came_at: datetime) -> None:
    session.add(
        ActRow(
            job_id=job_id,
            kind=done.act.kind.value,
            about=done.act.about,
            row_id=done.row_id,
            name=done.name,
            device=_hash(warrant.device)[:16],
            made_at=done.made_at,
            came_at=came_at,
        )
    )
    record(session, job_id, came_at, done.act.kind.value, done.act.about)
