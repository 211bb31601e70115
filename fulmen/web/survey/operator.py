"""The network operator: the form, letters, dates; and the stand-in desk that ships."""

from __future__ import annotations

from flask import Response

from fulmen.core.demand.demand import demand_of
from fulmen.core.installation.installation import installation_of
from fulmen.core.job_dates import job_dates
from fulmen.core.model.letters import Letter
from fulmen.core.model.stops import Stop
from fulmen.core.network_operator.form import OperatorForm, operator_form
from fulmen.core.network_operator.notification import letter_facts
from fulmen.core.reference.rule_set import rule_set
from fulmen.documents.calendar import calendar_file
from fulmen.documents.operator_form import render_operator_form
from fulmen.simulators.operator_desk import desk_answers, sent_letter
from fulmen.store import desk as store_desk
from fulmen.store.operations import add_letters, load_job
from fulmen.store.photos import list_photos
from fulmen.store.stored_jobs import StoredJob
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.jobs.replies import job_reply
from fulmen.web.jobs.schemas import JobPath, JobState
from fulmen.web.survey.schemas import DeskState, NewLetter, PassDays

operator = api_blueprint("operator")


@operator.get("/jobs/<int:job_id>/operator-form", responses={200: OperatorForm, 404: Problem})
@allows(Role.ELECTRICIAN)
def read_operator_form(path: JobPath) -> Response:
    """Read what the operator is told, as JSON."""
    return reply(_form(load_job(store(), path.job_id)))


@operator.get("/jobs/<int:job_id>/operator-form.pdf", responses={200: None, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def download_operator_form(path: JobPath) -> Response:
    """Download what the operator is told, as PDF with the JSON inside."""
    pdf = render_operator_form(_form(load_job(store(), path.job_id)), now())
    headers = {"Content-Disposition": f'inline; filename="fulmen-operator-{path.job_id}.pdf"'}
    return Response(pdf, mimetype="application/pdf", headers=headers)


@operator.post("/jobs/<int:job_id>/letters", responses={201: JobState, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def keep_letter(path: JobPath, body: NewLetter) -> Response:
    """Keep a letter to or from the real operator; it is never changed after."""
    job = load_job(store(), path.job_id).job
    about = letter_facts(job, demand_of(installation_of(job), rule_set(job.rule_set)))
    letter = Letter(about=about, **body.model_dump())
    return job_reply(add_letters(store(), path.job_id, (letter,), now()), 201)


@operator.get("/jobs/<int:job_id>/dates.ics", responses={200: None, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def download_dates(path: JobPath) -> Response:
    """Download the job's dates for a calendar."""
    job = load_job(store(), path.job_id).job
    text = calendar_file(job.title, f"job-{path.job_id}", job_dates(job, rule_set(job.rule_set)), now())
    headers = {"Content-Disposition": f'attachment; filename="fulmen-dates-{path.job_id}.ics"'}
    return Response(text, mimetype="text/calendar", headers=headers)


@operator.get("/jobs/<int:job_id>/desk", responses={200: DeskState, 404: Problem})
@allows(Role.ELECTRICIAN)
def read_desk(path: JobPath) -> Response:
    """Read the case at the stand-in desk."""
    load_job(store(), path.job_id)
    case = store_desk.newest_case(store(), path.job_id)
    if case is None:
        return reply(DeskState(received_on=None, today=None, letters_to_come=0))
    return reply(DeskState(received_on=case.received_on, today=case.today, letters_to_come=len(case.pending)))


@operator.post("/jobs/<int:job_id>/desk", responses={201: JobState, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def hand_in(path: JobPath) -> Response:
    """Hand the form in at the stand-in desk. No operator sees it."""
    form, today = _form(load_job(store(), path.job_id)), now().date()
    sent = sent_letter(form, today)
    stored = store_desk.open_case(
        store(), path.job_id, form.model_dump(mode="json"), sent, desk_answers(form, today), now()
    )
    return job_reply(stored, 201)


@operator.post("/jobs/<int:job_id>/desk/days", responses={200: JobState, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def pass_days(path: JobPath, body: PassDays) -> Response:
    """Let simulated days pass at the stand-in desk; letters that fall due arrive."""
    return job_reply(store_desk.pass_days(store(), path.job_id, body.days, now()))


def _form(stored: StoredJob) -> OperatorForm:
    stops = tuple(Stop(row.stop) for row in list_photos(store(), stored.id))
    return operator_form(stored.job, rule_set(stored.job.rule_set), stops)
