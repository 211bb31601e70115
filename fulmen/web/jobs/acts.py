"""Acts of a person: the words that a page holds to do them, holds and calls. Signing is asking for a certificate."""

from __future__ import annotations

from flask import Response, request

from fulmen.core.model.readings import Reading
from fulmen.store import acts as store_acts
from fulmen.store.acts import Act, Call
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.compression import holds_secret
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.jobs.replies import job_reply
from fulmen.web.jobs.schemas import ActWord, ActWords, JobPath, JobState, WordsWanted
from fulmen.web.jobs.signing import WordHeader, this_device, warrant

acts = api_blueprint("acts")


@acts.post("/jobs/<int:job_id>/words", responses={201: ActWords, 403: Problem, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def draw_words(path: JobPath, body: WordsWanted) -> Response:
    """Draw a one-time word for each act: it lets this browser do that act of this job once, within a day."""
    wanted = [Act(one.kind, one.about) for one in body.acts]
    drawn = store_acts.draw_words(store(), path.job_id, wanted, this_device(begin=True), now())
    words = [
        ActWord(kind=act.kind, about=act.about, word=word, expires_at=until) for act, (word, until) in drawn.items()
    ]
    holds_secret()
    return reply(ActWords(words=words), 201)


@acts.post("/jobs/<int:job_id>/holds", responses={201: JobState, 403: Problem, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def sign_hold(path: JobPath, header: WordHeader, body: Reading) -> Response:
    """Sign a hold; one that its device sends again is kept once."""
    entry, by = header.entry(request.get_data()), warrant(header.word)
    return job_reply(store_acts.sign_hold(store(), path.job_id, body, by, now(), entry), 201)


@acts.post("/jobs/<int:job_id>/calls", responses={201: JobState, 403: Problem, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def settle_call(path: JobPath, header: WordHeader, body: Call) -> Response:
    """Settle a finding that is the designer's call; what it rests on is read from the job as it is saved."""
    return job_reply(store_acts.settle_call(store(), path.job_id, body, warrant(header.word), now()), 201)
