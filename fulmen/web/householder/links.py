"""The householder's link as the electrician handles it: making, withdrawing, accepting, asking again."""

from __future__ import annotations

from datetime import datetime
from typing import cast

from flask import Response, current_app, request

from fulmen.core.editing.stored_job import clean_value
from fulmen.core.survey.householder import answer_words, plain_question
from fulmen.store import links as store_links
from fulmen.store.operations import load_job
from fulmen.store.tables import HouseholderAnswerRow
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.compression import holds_secret
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.householder.schemas import (
    AnswerPath,
    AnswerState,
    AskAgain,
    GivenAnswer,
    LinkInfo,
    LinkList,
    LinkPath,
    MadeLink,
    NewLink,
)
from fulmen.web.jobs.replies import job_reply
from fulmen.web.jobs.schemas import JobPath, JobState, VersionHeader

links = api_blueprint("links")


@links.get("/jobs/<int:job_id>/links", responses={200: LinkList, 404: Problem})
@allows(Role.ELECTRICIAN)
def list_links(path: JobPath) -> Response:
    """List the links of a job with what arrived by them, newest first."""
    load_job(store(), path.job_id)
    states = store_links.list_links(store(), path.job_id)
    return reply(LinkList(links=[_info(state, now()) for state in states]))


@links.post("/jobs/<int:job_id>/links", responses={201: MadeLink, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def make_link(path: JobPath, body: NewLink) -> Response:
    """Make a link for the householder; its address is told this once."""
    link, secret = store_links.make_link(store(), path.job_id, body.made_by, body.days, now())
    base = current_app.config["HOUSEHOLDER_URL"] or request.host_url
    address = f"{base.rstrip('/')}/answer/{secret}"
    holds_secret()
    return reply(MadeLink(id=link.id, address=address, expires_at=link.expires_at), 201)


@links.delete("/jobs/<int:job_id>/links/<int:link_id>", responses={204: None, 404: Problem})
@allows(Role.ELECTRICIAN)
def withdraw_link(path: LinkPath) -> Response:
    """Withdraw a link; what came by it stays."""
    store_links.withdraw_link(store(), path.job_id, path.link_id, now())
    return Response(status=204)


@links.post(
    "/jobs/<int:job_id>/answers/<int:answer_id>/accepted", responses={200: JobState, 404: Problem, 409: Problem}
)
@allows(Role.ELECTRICIAN)
def accept_answer(path: AnswerPath, header: VersionHeader) -> Response:
    """Take a householder's answer into the job."""
    return job_reply(store_links.accept_answer(store(), path.job_id, path.answer_id, header.version(), now()))


@links.post("/jobs/<int:job_id>/answers/<int:answer_id>/asked-again", responses={204: None, 404: Problem})
@allows(Role.ELECTRICIAN)
def ask_again(path: AnswerPath, body: AskAgain) -> Response:
    """Give a question back to the householder, with what is wanted instead."""
    store_links.ask_again(store(), path.job_id, path.answer_id, body.note, now())
    return Response(status=204)


def _info(state: store_links.LinkState, at: datetime) -> LinkInfo:
    return LinkInfo(
        id=state.link.id,
        made_by=state.link.made_by,
        made_at=state.link.made_at,
        expires_at=state.link.expires_at,
        ended=state.ended(at),
        answers=[_answer(answer, state) for answer in state.answers],
    )


def _answer(answer: HouseholderAnswerRow, state: store_links.LinkState) -> GivenAnswer:
    question = plain_question(answer.question)
    return GivenAnswer(
        id=answer.id,
        question=answer.question,
        text=question.text,
        words=answer_words(question, clean_value(answer.value)),
        photos=[photo.id for photo in state.photos if photo.question == answer.question],
        state=cast(AnswerState, answer.state),
        note=answer.note,
        given_at=answer.given_at,
    )
