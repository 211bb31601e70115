"""Practice: the sets and results, an exercise begun, and its acts."""

from __future__ import annotations

from random import Random
from secrets import randbelow

from flask import Response

from fulmen.core.errors import InputError
from fulmen.core.model.job import Job
from fulmen.core.practice.exercise import untested
from fulmen.core.practice.sets import (
    OWN_SIZE,
    PracticeSet,
    hidden,
    house_anew,
    own_faults,
    practice_set,
    practice_sets,
    size_anew,
)
from fulmen.examples import example
from fulmen.store import practice as exercises
from fulmen.store import practice_links as links
from fulmen.store.operations import load_job
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.practice.results import results_csv
from fulmen.web.practice.schemas import (
    LINK,
    OWN,
    ActAfter,
    BeginPractice,
    ExercisePath,
    LearnerQuery,
    LinkPath,
    MakeLink,
    OwnHouse,
    PossibleFaults,
    PracticeDesk,
    PracticeLink,
    PracticeState,
    desk,
    fault_views,
    state_of,
)

practice = api_blueprint("practice")


@practice.get("/practice", responses={200: PracticeDesk})
@allows(Role.ELECTRICIAN)
def read_practice(query: LearnerQuery) -> Response:
    """List the sets, and the results under a learner's name."""
    return reply(desk(exercises.results(store(), query.learner.strip())))


@practice.post("/practice", responses={201: PracticeState, 404: Problem})
@allows(Role.ELECTRICIAN)
def begin_practice(body: BeginPractice) -> Response:
    """Hide something in a house that is drawn anew, and begin; what and where leaves the server only at the end."""
    ways = ((body.link, _of_link), (body.job_id, _of_job), (body.grade, _of_grade))
    begin = next((way for asked, way in ways if asked), _of_set)
    return reply(state_of(exercises.begin(store(), begin(body), now())), 201)


def chance() -> Random:
    """A chance of its own for each thing that is drawn: what is seen of one tells nothing of another."""
    return Random(randbelow(2**63))


def _of_set(body: BeginPractice) -> exercises.Begun:
    return _in_set(body, practice_set(body.practice_set))


def _of_grade(body: BeginPractice) -> exercises.Begun:
    of_grade = [one for one in practice_sets() if one.grade == body.grade]
    if not of_grade:
        raise InputError("grade", f"there is no grade {body.grade}")
    return _in_set(body, chance().choice(of_grade))


def _in_set(body: BeginPractice, its: PracticeSet) -> exercises.Begun:
    job = house_anew(its, example(its.house), chance())
    what = chance().choice(its.faults)
    exercise = hidden(job, job.charge_points[0].id, what, size_anew(its, chance()), randbelow(2**31))
    return exercises.Begun(body.learner, its.key, its.title, what, exercise)


def _of_job(body: BeginPractice) -> exercises.Begun:
    assert body.job_id is not None
    job, charge_point = _own_house(body.job_id, body.charge_point)
    what = chance().choice(own_faults(job, charge_point))
    exercise = hidden(untested(job), charge_point, what, OWN_SIZE, randbelow(2**31))
    return exercises.Begun(body.learner, OWN, job.title, what, exercise)


def _own_house(job_id: int, charge_point: str | None) -> tuple[Job, str]:
    job = load_job(store(), job_id).job
    if not job.charge_points:
        raise InputError("charge_point", "this job has no charge point yet: add one, and the way to it")
    return job, charge_point or job.charge_points[0].id


def _of_link(body: BeginPractice) -> exercises.Begun:
    made = links.opened(store(), body.link)
    exercise = hidden(made.job, made.charge_point, made.what, made.size, randbelow(2**31))
    return exercises.Begun(body.learner, LINK, made.title, made.what, exercise)


@practice.post("/practice/links", responses={201: PracticeLink, 404: Problem})
@allows(Role.ELECTRICIAN)
def make_exercise_link(body: MakeLink) -> Response:
    """Make an exercise for others: a fault of a size in a job, behind a link that tells neither."""
    job, charge_point = _own_house(body.job_id, body.charge_point)
    possible = own_faults(job, charge_point)
    if body.fault not in possible:
        raise InputError("fault", f"“{body.fault}” can't be in this house; choose one of {', '.join(possible)}")
    made = links.Made(untested(job), charge_point, job.title, body.fault, body.size)
    return reply(PracticeLink(link=links.keep_link(store(), made, body.by, now()), title=job.title), 201)


@practice.get("/practice/links/<link>", responses={200: PracticeLink, 404: Problem})
@allows(Role.ELECTRICIAN)
def read_exercise_link(path: LinkPath) -> Response:
    """Read whose house an exercise behind a link is; nothing else of it."""
    return reply(PracticeLink(link=path.link, title=links.opened(store(), path.link).title))


@practice.get("/practice/faults", responses={200: PossibleFaults, 404: Problem})
@allows(Role.ELECTRICIAN)
def list_faults(query: OwnHouse) -> Response:
    """List what may be hidden in a job, for who makes an exercise of it."""
    job, charge_point = _own_house(query.job_id, query.charge_point)
    return reply(PossibleFaults(faults=fault_views(own_faults(job, charge_point))))


@practice.get("/practice/results.csv", responses={200: None})
@allows(Role.ELECTRICIAN)
def write_results(query: LearnerQuery) -> Response:
    """Write a learner's exercises as CSV, mark by mark; everybody's without a name."""
    headers = {"Content-Disposition": 'attachment; filename="practice.csv"'}
    return Response(
        results_csv(exercises.marked_results(store(), query.learner.strip())), mimetype="text/csv", headers=headers
    )


@practice.get("/practice/<int:exercise_id>", responses={200: PracticeState, 404: Problem})
@allows(Role.ELECTRICIAN)
def read_exercise(path: ExercisePath) -> Response:
    """Read an exercise as it stands."""
    return reply(state_of(exercises.load_exercise(store(), path.exercise_id)))


@practice.post("/practice/<int:exercise_id>/acts", responses={200: PracticeState, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def do_act(path: ExercisePath, body: ActAfter) -> Response:
    """Do one thing: sign, switch, connect, take a reading, judge it, or name the fault."""
    return reply(state_of(exercises.act(store(), path.exercise_id, body.after, body.act, now())))
