"""What the API takes and gives about practice. What is hidden is told once the exercise has ended."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field

from fulmen.core.model.base import Id, Name, Part, Text
from fulmen.core.model.readings import Outcome
from fulmen.core.plain import changed
from fulmen.core.practice.acts import Act
from fulmen.core.practice.course import Course, Entry, setup_of
from fulmen.core.practice.covers import covers
from fulmen.core.practice.exercise import Exercise, Help, Place
from fulmen.core.practice.marks import Marks, marked
from fulmen.core.practice.mishaps import Mishap
from fulmen.core.practice.scene import Scene, scene
from fulmen.core.practice.sets import OWN_HELP, SOUND, PracticeSet, practice_sets
from fulmen.core.simulations.as_built.flow import Flow, flow
from fulmen.core.verification.faults.faults import FaultPlace, fault_info, planted_kinds
from fulmen.core.verification.instruments.dials import Link, Shows, dials
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.steps import Lead, definitions
from fulmen.store.practice import Result, StoredExercise

OWN, LINK = "own", "link"
NUMBER = Annotated[int, Field(ge=1, le=2**63 - 1)]


class ExercisePath(BaseModel):
    """An exercise's number in the path."""

    exercise_id: NUMBER


class LearnerQuery(BaseModel):
    """Whose results."""

    learner: Annotated[Text, Field(max_length=200)] = ""


class BeginPractice(Part):
    """Who practises: in a set, in any of a grade, on a job of one's own, or behind a link."""

    learner: Name
    practice_set: Annotated[Text, Field(max_length=40)] = ""
    grade: Annotated[int, Field(ge=1, le=9)] | None = None
    job_id: NUMBER | None = None
    charge_point: Id | None = None
    link: Annotated[str, Field(max_length=40)] = ""


class OwnHouse(BaseModel):
    """A job, and which of its charge points."""

    job_id: NUMBER
    charge_point: Id | None = None


class MakeLink(Part):
    """An exercise for others: a fault, or `sound`, in a job; `size` from the least that matters, 0, to the most, 1."""

    by: Name
    job_id: NUMBER
    charge_point: Id | None = None
    fault: Annotated[Text, Field(max_length=40)]
    size: Annotated[float, Field(ge=0, le=1)] = 0.3


class LinkPath(BaseModel):
    """The link in the path."""

    link: Annotated[str, Field(max_length=40)]


class PracticeLink(Part):
    """An exercise behind a link, and the house that it is in."""

    link: str
    title: str


class ActAfter(Part):
    """One act, and how many the caller knows of before it."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    after: Annotated[int, Field(ge=0, le=1000)]
    act: Act


class SetView(Part):
    """A set, and how many exercises it holds."""

    key: str
    title: str
    about: str
    grade: int
    count: int


class ResultView(Part):
    """What a learner made of one exercise; no total while it runs."""

    id: int
    practice_set: str
    title: str
    total: int | None
    begun_at: datetime


class PracticeDesk(Part):
    """The sets, and a learner's exercises, the newest first."""

    sets: tuple[SetView, ...]
    results: tuple[ResultView, ...]


class DialView(Part):
    """A setting that may be chosen."""

    key: str
    function: str
    words: str


class FaultView(Part):
    """A fault that may be named."""

    key: str
    words: str


class PossibleFaults(Part):
    """What may be hidden in a house."""

    faults: tuple[FaultView, ...]


class EntryView(Part):
    """One act and what it showed; `flow` as designed until the exercise has ended, then as built."""

    act: Act
    title: str = ""
    where: str = ""
    unit: str = ""
    outcome: Outcome | None = None
    value: float | None = None
    words: str = ""
    rightly: bool | None = None
    judged: bool | None = None
    flow: tuple[Flow, ...] = ()


class BoxView(Part):
    """A box that no dead test goes through, and whether it was signed that it is made up again."""

    key: str
    name: str
    made_up: bool


class CoverView(Part):
    """A cover, and whether it is off."""

    key: str
    name: str
    off: bool


class LinkView(Part):
    """A link that is in at the near end of a cable."""

    subject: str
    name: str
    linked: Link


class PracticeState(Part):
    """An exercise: its house, what may be chosen, and how it stands."""

    id: int
    learner: str
    practice_set: str
    title: str
    help: Help
    scene: Scene
    steps: tuple[Step, ...]
    dials: tuple[DialView, ...]
    adapters: tuple[str, ...]
    faults: tuple[FaultView, ...]
    places: tuple[Place, ...]
    limited: bool
    main_on: bool
    isolated: bool
    energised: bool
    connected: bool
    boxes: tuple[BoxView, ...]
    covers: tuple[CoverView, ...]
    links: tuple[LinkView, ...]
    entries: tuple[EntryView, ...]
    mishap: Mishap | None
    marks: Marks | None


def desk(results: list[Result]) -> PracticeDesk:
    """The sets and the results as they are shown."""
    sets = tuple(
        SetView(key=one.key, title=one.title, about=one.about, grade=one.grade, count=len(one.faults))
        for one in practice_sets()
    )
    listed = tuple(
        ResultView(id=one.id, practice_set=one.set_key, title=one.title, total=one.total, begun_at=one.begun_at)
        for one in results
    )
    return PracticeDesk(sets=sets, results=listed)


def state_of(stored: StoredExercise) -> PracticeState:
    """An exercise as its learner sees it."""
    course = stored.course
    exercise, told = course.exercise, _help(stored.set_key)
    return PracticeState(
        id=stored.id,
        learner=stored.learner,
        practice_set=stored.set_key,
        title=stored.title,
        help=told,
        scene=scene(exercise),
        steps=tuple(_told(one, told) for one in exercise.steps.values()),
        dials=_dials(exercise),
        adapters=tuple(dict.fromkeys(one.adapter for one in definitions() if one.adapter)),
        faults=_faults(exercise),
        places=exercise.places(),
        limited=exercise.job.supply.load_limit_a is not None,
        main_on=course.main_on,
        isolated=course.isolated,
        energised=course.energised,
        connected=course.connected,
        boxes=tuple(
            BoxView(key=one.subject, name=one.title, made_up=one.subject in course.made_up)
            for one in course.box_holds()
        ),
        covers=tuple(
            CoverView(key=one.key, name=one.name, off=one.key in course.covers_off) for one in covers(exercise)
        ),
        links=tuple(
            LinkView(subject=subject, name=course.cable_name(subject), linked=linked)
            for subject, linked in course.links
        ),
        entries=tuple(_entry(course, one) for one in course.entries),
        mishap=course.mishap,
        marks=marked(course) if course.ended else None,
    )


def _help(set_key: str) -> Help:
    found: PracticeSet | None = next((one for one in practice_sets() if one.key == set_key), None)
    return found.help if found is not None else OWN_HELP


def _told(step: Step, told: Help) -> Step:
    """A step with what its learner is to work out left blank; a lead keeps its jack."""
    blank: dict[str, Any] = {}
    if told is not Help.EXPECTED:
        blank |= {"expected_low": None, "expected_high": None, "expected_from": "", "expected_parts": ()}
    if told is Help.NONE:
        leads = tuple(Lead(jack=one.jack, terminal="", at=()) for one in step.leads)
        blank |= {
            "limit": None,
            "limit_low": None,
            "limit_from": "",
            "leads": leads,
            "links": "",
            "linked_at": "",
        }
        blank |= {"range": "", "dial": "", "linked": Link.NONE, "adapter": ""}
    return changed(step, **blank)


def _dials(exercise: Exercise) -> tuple[DialView, ...]:
    """The settings that this house's steps ask for, and the other test voltages."""
    asked = {one.dial for one in exercise.steps.values() if one.leads}
    offered = (one for one in dials().values() if one.key in asked or one.shows is Shows.INSULATION)
    return tuple(DialView(key=one.key, function=one.function, words=one.words) for one in offered)


def _faults(exercise: Exercise) -> tuple[FaultView, ...]:
    """Every fault there may be, whether or not this house can have it: a shorter list would tell."""
    limited = exercise.job.supply.load_limit_a is not None
    return fault_views(one for one in planted_kinds() if limited or fault_info(one).where is not FaultPlace.CLAMP)


def fault_views(kinds: Iterable[str]) -> tuple[FaultView, ...]:
    """Kinds in words, each once; `sound` where nothing is wrong."""
    words = {one: "nothing is wrong" if one == SOUND else fault_info(one).words for one in kinds}
    return tuple(FaultView(key=one, words=told) for one, told in words.items())


def _entry(course: Course, entry: Entry) -> EntryView:
    step, shown = entry.step, entry.shown
    if step is None or shown is None:
        return EntryView(act=entry.act, outcome=shown.outcome if shown else None, words=shown.words if shown else "")
    house = course.exercise.house if course.ended else course.exercise.sound
    act = entry.act
    flows = flow(house, step, setup_of(act, step)) if act.kind == "take" else ()
    unit = dials()[act.dial].unit if act.kind == "take" and step.leads else step.unit
    return EntryView(
        act=act,
        title=step.title,
        where=step.where,
        unit=unit,
        outcome=shown.outcome,
        value=shown.value,
        words=shown.words,
        # Whether the set stood rightly is told when there is nothing to find out any more.
        rightly=entry.rightly if course.ended else None,
        judged=entry.judged,
        flow=flows,
    )
