"""Exercises as they are kept: begun, played act by act, marked when they end."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from pydantic import TypeAdapter
from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from fulmen.core.editing.stored_job import parse_stored_job
from fulmen.core.errors import CoreError
from fulmen.core.practice.acts import Act
from fulmen.core.practice.course import Course, gone_on, played
from fulmen.core.practice.exercise import Exercise
from fulmen.core.practice.marks import Mark, marked
from fulmen.core.verification.faults.faults import Fault
from fulmen.store.database import Sessions, writing
from fulmen.store.errors import MovedOn, NotFound, Outdated, TooMany
from fulmen.store.tables import PracticeRow

ACTS: TypeAdapter[list[Act]] = TypeAdapter(list[Act])
MOST_ACTS, MOST_LISTED, MOST_WRITTEN = 400, 100, 5000
# Of each learner the newest are kept; one that nobody ended is dropped after a month.
MOST_KEPT, UNENDED_KEPT_FOR = 200, timedelta(days=30)


@dataclass(frozen=True)
class StoredExercise:
    """An exercise with its course so far."""

    id: int
    learner: str
    set_key: str
    title: str
    course: Course
    begun_at: datetime
    ended_at: datetime | None


@dataclass(frozen=True)
class Result:
    """What a learner made of one exercise; no total while it runs."""

    id: int
    set_key: str
    title: str
    total: int | None
    begun_at: datetime


@dataclass(frozen=True)
class MarkedResult:
    """The same with its marks: whose, in how many minutes, and what ended it."""

    learner: str
    result: Result
    marks: tuple[Mark, ...]
    minutes: float | None
    ended_by: str


@dataclass(frozen=True)
class Begun:
    """An exercise to begin: who, of which set, in what words, and what is hidden."""

    learner: str
    set_key: str
    title: str
    what: str
    exercise: Exercise


def begin(sessions: Sessions, begun: Begun, now: datetime) -> StoredExercise:
    """Keep a new exercise; older ones of its learner, and those that nobody went on with, are dropped."""
    exercise = begun.exercise
    with writing(sessions) as session:
        _drop_old(session, begun.learner, now)
        row = PracticeRow(
            learner=begun.learner,
            set_key=begun.set_key,
            title=begun.title,
            charge_point=exercise.charge_point,
            what=begun.what,
            faults=[{"kind": one.kind, "size": one.size, "circuit": one.circuit} for one in exercise.faults],
            seed=exercise.seed,
            document=exercise.job.model_dump(mode="json"),
            acts=[],
            begun_at=now,
        )
        session.add(row)
        session.flush()
        return _stored(row, Course(exercise))


def _drop_old(session: Session, learner: str, now: datetime) -> None:
    unended = PracticeRow.ended_at.is_(None), PracticeRow.begun_at < now - UNENDED_KEPT_FOR
    # The newest stays always: the database would give its number to the next, and an open page would act on that.
    newest = select(func.max(PracticeRow.id)).scalar_subquery()
    session.execute(delete(PracticeRow).where(*unended, PracticeRow.id < newest))
    theirs = select(PracticeRow.id).where(PracticeRow.learner == learner).order_by(PracticeRow.id.desc())
    session.execute(delete(PracticeRow).where(PracticeRow.id.in_(theirs.offset(MOST_KEPT - 1).limit(-1))))


def load_exercise(sessions: Sessions, exercise_id: int) -> StoredExercise:
    """An exercise by its number, played to where it stands.

    Raises:
        NotFound: there is none.
        Outdated: it can't be played any more.
    """
    with sessions() as session:
        row = session.get(PracticeRow, exercise_id)
        if row is None:
            raise NotFound(f"There is no exercise {exercise_id}.")
        return _stored(row, _course(row))


def act(sessions: Sessions, exercise_id: int, after: int, done: Act, now: datetime) -> StoredExercise:
    """Add one act after those that the caller knows of; what ends the exercise has it marked.

    Raises:
        NotFound: there is no such exercise.
        MovedOn: another page added acts meanwhile.
        TooMany: it holds as many as are kept.
        InputError: the act can't be done here.
    """
    with sessions() as session:
        seen = _row(session, exercise_id, after)
    # Playing it takes longer than all the rest: nobody waits for the lock meanwhile.
    course = gone_on(_course(seen), done)
    marks = marked(course) if course.ended else None
    with writing(sessions) as session:
        row = _row(session, exercise_id, after)
        row.acts = [*row.acts, done.model_dump(mode="json")]
        if marks is not None:
            row.marks = [one.model_dump(mode="json") for one in marks.marks]
            row.total, row.ended_at = marks.total, now
        return _stored(row, course)


def _row(session: Session, exercise_id: int, after: int) -> PracticeRow:
    """An exercise that still stands where its learner saw it, and takes another act."""
    row = session.get(PracticeRow, exercise_id)
    if row is None:
        raise NotFound(f"There is no exercise {exercise_id}.")
    if len(row.acts) != after:
        raise MovedOn("This exercise went on in another window: look at it again. Nothing was done.")
    if after >= MOST_ACTS:
        raise TooMany(f"An exercise takes {MOST_ACTS} acts: name the fault, or begin another.")
    return row


def results(sessions: Sessions, learner: str) -> list[Result]:
    """A learner's exercises, the newest first."""
    with sessions() as session:
        newest = select(PracticeRow).where(PracticeRow.learner == learner).order_by(PracticeRow.id.desc())
        rows = session.scalars(newest.limit(MOST_LISTED)).all()
        return [_result(row) for row in rows]


def marked_results(sessions: Sessions, learner: str) -> list[MarkedResult]:
    """A learner's exercises with their marks, the newest first; everybody's without a name."""
    with sessions() as session:
        newest = select(PracticeRow).order_by(PracticeRow.id.desc())
        rows = session.scalars(newest.where(PracticeRow.learner == learner) if learner else newest.limit(MOST_WRITTEN))
        return [
            MarkedResult(
                row.learner, _result(row), tuple(Mark.model_validate(one) for one in row.marks or ()),
                None if row.ended_at is None else (row.ended_at - row.begun_at).total_seconds() / 60,
                "" if row.ended_at is None else "the fault" if row.acts[-1]["kind"] == "name" else "a mishap",
            )
            for row in rows
        ]  # fmt: skip


def _result(row: PracticeRow) -> Result:
    return Result(row.id, row.set_key, row.title, row.total, row.begun_at)


def _course(row: PracticeRow) -> Course:
    """The exercise played to where it stands; its house, faults and steps may be those of another version."""
    try:
        faults = tuple(Fault(one["kind"], one["size"], one["circuit"]) for one in row.faults)
        job, _ = parse_stored_job(row.document)
        return played(Exercise(job, row.charge_point, faults, row.seed), ACTS.validate_python(row.acts))
    except (CoreError, ValueError):
        raise Outdated("This exercise was begun with another version of Fulmen: begin a new one.") from None


def _stored(row: PracticeRow, course: Course) -> StoredExercise:
    return StoredExercise(row.id, row.learner, row.set_key, row.title, course, row.begun_at, row.ended_at)
