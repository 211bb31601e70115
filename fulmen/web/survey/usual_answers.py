"""What the firm takes as usual: read it, replace it, and what it would answer on a job."""

from __future__ import annotations

from flask import Response

from fulmen.core.editing.job_file import check_structure
from fulmen.core.editing.usual_answers import UsualAnswers, usual_changes
from fulmen.store.kept import keep, kept
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.jobs.schemas import ChangeList, Question

KEY = "usual_answers"

usual = api_blueprint("usual")


@usual.get("/usual-answers", responses={200: UsualAnswers})
@allows(Role.ELECTRICIAN)
def read_usual_answers() -> Response:
    """Read what is taken as usual."""
    return reply(kept(store(), KEY, UsualAnswers))


@usual.put("/usual-answers", responses={200: UsualAnswers})
@allows(Role.ELECTRICIAN)
def replace_usual_answers(body: UsualAnswers) -> Response:
    """Replace what is taken as usual."""
    said = [name for name, value in body.model_dump().items() if value is not None]
    keep(store(), KEY, body, now(), ", ".join(said))
    return reply(body)


@usual.post("/usual-answers/changes", responses={200: ChangeList})
@allows(Role.ELECTRICIAN)
def answer_as_usual(body: Question) -> Response:
    """List the changes that answer a job's open facts by what is usual; nothing is stored."""
    check_structure(body.job)
    return reply(ChangeList(changes=list(usual_changes(body.job, kept(store(), KEY, UsualAnswers)))))
