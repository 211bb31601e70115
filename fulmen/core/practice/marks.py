"""How an exercise is marked, a hundred in all: order, holds, how complete, readings, fault and place; what would tell.

A fault that nothing taken shows was guessed, and what was never tested is not sound: neither counts.
"""

from __future__ import annotations

from fulmen.core.model.base import Part
from fulmen.core.model.readings import LEFT_OUT, StepKey
from fulmen.core.practice.course import Course, Entry
from fulmen.core.practice.exercise import PLACE_WORDS
from fulmen.core.practice.shown_by import doubts, shown_at, shown_by
from fulmen.core.verification.faults.faults import Fault, FaultPlace
from fulmen.core.verification.steps.sequence import Step

ORDER, HOLD, COMPLETE, READINGS, FAULT, PLACE = 15, 10, 15, 20, 20, 10


class Mark(Part):
    """Points got of those that there were, and what for."""

    title: str
    got: int
    of: int
    told: str


class Explained(Part):
    """What was hidden: in words, where, which tests show it and what they say, why it matters."""

    words: str
    place: str
    size: str
    shown_by: tuple[str, ...]
    tells: str
    why: str


class Marks(Part):
    """The marks of one exercise and the explanation."""

    marks: tuple[Mark, ...]
    total: int
    explained: tuple[Explained, ...]


def marked(course: Course) -> Marks:
    """The marks of a course that has ended."""
    of_tests = _order(course), _isolated(course), _switched_on(course), _complete(course), _readings(course)
    marks = (*of_tests, _fault(course), _place(course))
    explained = tuple(_explained(course, one) for one in course.exercise.faults)
    return Marks(marks=marks, total=sum(one.got for one in marks), explained=explained)


def _takes(course: Course) -> list[Entry]:
    return [one for one in course.entries if one.step is not None]


def _order(course: Course) -> Mark:
    """Each asked-for step's first reading in the order of Part 6; those that are only offered may come at any time."""
    seen, late, rank = set(), [], 0
    for entry in _takes(course):
        step = entry.step
        assert step is not None
        if not step.required or (step.step, step.subject) in seen:
            continue
        seen.add((step.step, step.subject))
        if step.rank < rank:
            late.append(step.title)
        rank = max(rank, step.rank)
    count = len(seen)
    told = f"{count - len(late)} of {count} tests in their turn." if count else "Nothing was tested."
    if late:
        told += f" Late: {', '.join(late[:3])}."
    return Mark(title="Order", got=round(ORDER * (count - len(late)) / count) if count else 0, of=ORDER, told=told)


def _isolated(course: Course) -> Mark:
    early = [one for one in _takes(course) if not one.in_time]
    kept = course.isolated and not early
    told = "Isolated, proved dead and signed before the first lead." if kept else "Dead tests begin with this hold."
    return Mark(title="Hold: isolated", got=HOLD if kept else 0, of=HOLD, told=told)


def _switched_on(course: Course) -> Mark:
    if course.mishap is not None:
        return Mark(title="Hold: fit to energise", got=0, of=HOLD, told=f"{course.mishap.title}.")
    told = "Switched on once every dead test held." if course.energised else "Not switched on: nobody was in danger."
    return Mark(title="Hold: fit to energise", got=HOLD if course.isolated else 0, of=HOLD, told=told)


def _readings(course: Course) -> Mark:
    """One point for a set that stood rightly, one for seeing whether what it showed is as it should be."""
    takes = _takes(course)
    displays = [one for one in takes if one.shown is not None and one.shown.outcome not in LEFT_OUT]
    open_steps = {(one.step, one.subject) for one in doubts(course.judged())} if takes else set()
    stood = sum(one.rightly for one in takes)
    saw = sum(_saw(one, open_steps) for one in displays)
    got = round(READINGS * (stood + saw) / (len(takes) + len(displays))) if takes else 0
    told = f"{stood} of {len(takes)} taken as asked; {saw} of {len(displays)} displays judged rightly."
    return Mark(title="Readings", got=got, of=READINGS, told=told if takes else "None taken.")


def _saw(entry: Entry, open_steps: set[tuple[StepKey | None, str]]) -> bool:
    assert entry.step is not None
    right = (entry.step.step, entry.step.subject) not in open_steps
    return entry.rightly and entry.judged is right


def _untested(course: Course, rank: int | None = None) -> tuple[list[Step], int]:
    """The asked-for tests that nothing was taken of, up to a rank where one is given; and how many were asked for."""
    met = {(one.step, one.subject) for one in course.judged().steps if one.met}
    tried = {(one.step.step, one.step.subject) for one in course.entries if one.step is not None and one.rightly}
    due = [
        one
        for one in course.exercise.steps.values()
        if one.required and one.kind != "hold" and (rank is None or one.rank <= rank)
    ]
    return [one for one in due if (one.step, one.subject) not in met | tried], len(due)


def _proof(course: Course) -> Entry | None:
    """The first test, set as it asks, that shows what is hidden."""
    shows = shown_at(course.exercise)
    takes = (one for one in _takes(course) if one.rightly and one.step is not None)
    return next((one for one in takes if one.step is not None and (one.step.step, one.step.subject) in shows), None)


def _is_named(course: Course) -> bool:
    named, kinds = course.named, {one.kind for one in course.exercise.faults}
    return named is not None and (named.fault in kinds if kinds else named.fault is None)


def _is_proven(course: Course) -> bool:
    """Whether what was named rests on something: a test that shows it, or every one where nothing is wrong."""
    if not _is_named(course):
        return False
    if not course.exercise.faults:
        return not _untested(course)[0]
    clamped = any(one.info.where is FaultPlace.CLAMP for one in course.exercise.faults)
    return course.proof is not None if clamped else _proof(course) is not None


def _complete(course: Course) -> Mark:
    """What was found was looked for in turn up to there; what is called sound was tested all through."""
    proof = _proof(course) if _is_proven(course) else None
    left, due = _untested(course, proof.step.rank if proof is not None and proof.step is not None else None)
    told = f"{due - len(left)} of {due} tests taken."
    if left:
        told += f" Not: {', '.join(one.title for one in left[:3])}{' and more' if left[3:] else ''}."
    # One that is left out always costs something.
    got = COMPLETE * (due - len(left)) // due if due and _takes(course) else 0
    return Mark(title="Complete", got=got, of=COMPLETE, told=told)


def _fault(course: Course) -> Mark:
    right = _is_proven(course)
    told = "Named rightly." if right else "Not named." if course.named is None else "It was something else."
    if _is_named(course) and not right:
        told = "A guess: nothing that you took shows it." if course.exercise.faults else NOT_SOUND
    return Mark(title="Fault", got=FAULT if right else 0, of=FAULT, told=told)


NOT_SOUND = "What was never tested is not sound."


def _place(course: Course) -> Mark:
    """Where nothing is wrong, who says so has its place too."""
    named, faults = course.named, course.exercise.faults
    places = {course.exercise.place_of(one) for one in faults}
    right = named is not None and (named.place in places if faults else named.fault is None)
    told = "Found." if right else "Not said." if named is None else "It was elsewhere."
    if right and _is_named(course) and not _is_proven(course):
        right, told = False, "A guess." if faults else NOT_SOUND
    return Mark(title="Place", got=PLACE if right else 0, of=PLACE, told=told)


def _explained(course: Course, fault: Fault) -> Explained:
    exercise, info = course.exercise, fault.info
    where = exercise.place_of(fault)
    words = next((one.words for one in exercise.places() if one.key == where), PLACE_WORDS.get(info.where, ""))
    size = "" if not info.unit else f"{fault.size:.2g} {info.unit}"
    return Explained(
        words=info.words, place=words, size=size, shown_by=shown_by(exercise), tells=info.tells, why=info.why
    )
