"""Jobs: listing, creating, reading, saving, readings, the job file."""

from __future__ import annotations

from flask import Response, request

from fulmen.core.editing.blank_job import blank_job
from fulmen.core.editing.job_file import check_structure, read_job, write_job
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Reading
from fulmen.core.next_things import next_things
from fulmen.core.verification.readings.reading_fit import misfits
from fulmen.store import operations
from fulmen.store.papers import issued_as
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.jobs.replies import job_reply, judged
from fulmen.web.jobs.schemas import (
    BlankJob,
    EntryHeader,
    JobList,
    JobPath,
    JobQuery,
    JobState,
    JobSummary,
    SaveHeader,
    StillToDo,
)

jobs = api_blueprint("jobs")


@jobs.get("/jobs", responses={200: JobList})
@allows(Role.ELECTRICIAN)
def list_jobs(query: JobQuery) -> Response:
    """List jobs, newest change first."""
    rows, total = operations.list_jobs(store(), query.search, query.limit, query.offset)
    numbers = operations.certified(store(), [row.id for row in rows])
    names = [name for name in JobSummary.model_fields if name != "paper"]
    summaries = [JobSummary(**{name: getattr(row, name) for name in names}, paper=numbers.get(row.id)) for row in rows]
    return reply(JobList(jobs=summaries, total=total))


@jobs.post("/jobs/blank", responses={201: JobState})
@allows(Role.ELECTRICIAN)
def start_job(body: BlankJob) -> Response:
    """Start a job from a blank sheet."""
    return job_reply(operations.create_job(store(), blank_job(body.title, body.reference), now()), 201)


@jobs.post("/jobs", responses={201: JobState})
@allows(Role.ELECTRICIAN)
def import_job(body: Job) -> Response:
    """Import a job file as a new job."""
    # Read again from the text: the file's own rules (size, structure) speak first and name the place.
    job = read_job(request.get_data(as_text=True), misfits)
    return job_reply(operations.create_job(store(), job, now(), "imported"), 201)


@jobs.get("/jobs/<int:job_id>", responses={200: JobState, 404: Problem})
@allows(Role.ELECTRICIAN)
def read_one(path: JobPath) -> Response:
    """Read a job with its evaluation."""
    return job_reply(operations.load_job(store(), path.job_id))


@jobs.put("/jobs/<int:job_id>", responses={200: JobState, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def save_one(path: JobPath, header: SaveHeader, body: Job) -> Response:
    """Save a job's document if nobody saved it since it was read."""
    check_structure(body)
    return job_reply(operations.save_job(store(), path.job_id, header.version(), body, now(), header.by()))


@jobs.post("/jobs/<int:job_id>/next", responses={200: StillToDo})
@allows(Role.ELECTRICIAN)
def what_is_left(path: JobPath, body: Job) -> Response:
    """What the certificate of a job still needs, as its document stands on a page; nothing is stored."""
    found = next_things(body, judged(body))
    issued = issued_as(store(), path.job_id, body)
    return reply(StillToDo(things=found.things, left=found.left, issued=issued))


@jobs.post("/jobs/<int:job_id>/readings", responses={201: JobState, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def take_reading(path: JobPath, header: EntryHeader, body: Reading) -> Response:
    """Append a reading; one that its device sends again is kept once."""
    entry = header.entry(request.get_data())
    return job_reply(operations.add_reading(store(), path.job_id, body, now(), entry), 201)


@jobs.get("/jobs/<int:job_id>/file", responses={200: Job, 404: Problem})
@allows(Role.ELECTRICIAN)
def export_file(path: JobPath) -> Response:
    """Download the job file."""
    text = write_job(operations.load_job(store(), path.job_id).job)
    headers = {"Content-Disposition": f'attachment; filename="fulmen-job-{path.job_id}.json"'}
    return Response(text, mimetype="application/json", headers=headers)
