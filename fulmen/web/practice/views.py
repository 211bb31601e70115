"""Practice: the sets and results, an exercise begun, and its acts."""

from __future__ import annotations

from random import Random
from secrets import randbelow

from flask import Response

from fulmen.core.errors import InputError
from fulmen.core.practice.exercise import untested
from fulmen.core.practice.sets import OWN_SIZE, hidden, own_faults, practice_set
from fulmen.examples import example
from fulmen.store import practice as exercises
from fulmen.store.operations import load_job
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.practice.schemas import (
    OWN,
    ActAfter,
    BeginPractice,
    ExercisePath,
    LearnerQuery,
    PracticeDesk,
    PracticeState,
    desk,
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
    """Hide a fault that the learner has not met in this set, and begin."""
    seed = body.seed if body.seed is not None else randbelow(2**31)
    begun = _of_job(body, seed) if body.job_id is not None else _of_set(body, seed)
    return reply(state_of(exercises.begin(store(), begun, now())), 201)


def _of_set(body: BeginPractice, seed: int) -> exercises.Begun:
    its = practice_set(body.practice_set)
    job = its.job(example(its.house))
    met = exercises.done_in(store(), body.learner, its.key)
    what = Random(seed).choice([one for one in its.faults if one not in met] or its.faults)
    exercise = hidden(job, job.charge_points[0].id, what, its.size, seed)
    return exercises.Begun(body.learner, its.key, its.title, what, exercise)


def _of_job(body: BeginPractice, seed: int) -> exercises.Begun:
    assert body.job_id is not None
    job = load_job(store(), body.job_id).job
    if not job.charge_points:
        raise InputError("charge_point", "this job has no charge point yet: add one, and the way to it")
    charge_point = body.charge_point or job.charge_points[0].id
    what = Random(seed).choice(own_faults(job, charge_point))
    exercise = hidden(untested(job), charge_point, what, OWN_SIZE, seed)
    return exercises.Begun(body.learner, OWN, job.title, what, exercise)


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
