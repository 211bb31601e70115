"""What a householder reaches by a link, without an account: the plain questions, and nothing else of the job."""

from __future__ import annotations

from typing import cast

from flask import Response, current_app, request

from fulmen.core.editing.stored_job import clean_value
from fulmen.core.survey.householder import QUESTIONS, PlainQuestion
from fulmen.photos import make_photo
from fulmen.store import links as store_links
from fulmen.store.errors import NotFound
from fulmen.store.photos import load_photo
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.compression import holds_secret
from fulmen.web.doors.guard import takes_photo
from fulmen.web.doors.limits import Buckets
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem, problem_response
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.householder.schemas import (
    AnswerState,
    AskedQuestion,
    HouseholderPage,
    PlainReply,
    SecretPath,
    SecretPhotoPath,
    SecretQuestionPath,
)
from fulmen.web.survey.photos import picture

householder = api_blueprint("householder")
# The secret of a link stands in the address of each of these.
householder.before_request(holds_secret)


@householder.errorhandler(NotFound)
def unknown(error: NotFound) -> Response:
    """No such link, and after a few of them no more answers for a while: nobody guesses a secret by trying."""
    guesses: Buckets = current_app.extensions["guesses"]
    if guesses.take(request.remote_addr or ""):
        return problem_response(Problem(title="Not found", status=404, detail=str(error)))
    told = problem_response(
        Problem(title="Too many tries", status=429, detail="Too many links that don't exist: wait.")
    )
    told.headers["Retry-After"] = "60"
    return told


@householder.get("/householder/<secret>", responses={200: HouseholderPage, 404: Problem, 429: Problem, 410: Problem})
@allows(Role.HOUSEHOLDER)
def open_link(path: SecretPath) -> Response:
    """Open a link: who asks, until when, and what."""
    return reply(_page(store_links.open_link(store(), path.secret, now())))


@householder.put(
    "/householder/<secret>/answers/<question>",
    responses={200: HouseholderPage, 404: Problem, 429: Problem, 410: Problem},
)
@allows(Role.HOUSEHOLDER)
def give_answer(path: SecretQuestionPath, body: PlainReply) -> Response:
    """Answer a question; a later answer takes its place."""
    return reply(_page(store_links.give_answer(store(), path.secret, path.question, body.value, now())))


@householder.post(
    "/householder/<secret>/photos/<question>",
    responses={201: HouseholderPage, 404: Problem, 429: Problem, 409: Problem, 410: Problem, 413: Problem},
)
@allows(Role.HOUSEHOLDER)
@takes_photo
def give_photo(path: SecretQuestionPath) -> Response:
    """Send a photo that was asked for: the body is a JPEG, PNG, WebP or HEIC file."""
    # The link first: nobody without one has a picture worked on.
    store_links.open_link(store(), path.secret, now())
    photo = make_photo(request.get_data())
    return reply(_page(store_links.give_photo(store(), path.secret, path.question, photo, now())), 201)


@householder.get("/householder/<secret>/photos/<int:photo_id>.jpg", responses={200: None, 404: Problem, 410: Problem})
@allows(Role.HOUSEHOLDER)
def show_given_photo(path: SecretPhotoPath) -> Response:
    """Show, small, a photo that came by this link."""
    state = store_links.open_link(store(), path.secret, now())
    return picture(load_photo(store(), path.photo_id, state.link.id).thumbnail)


def _page(state: store_links.LinkState) -> HouseholderPage:
    return HouseholderPage(
        asked_by=state.link.made_by,
        expires_at=state.link.expires_at,
        questions=[_asked(question, state) for question in QUESTIONS],
    )


def _asked(question: PlainQuestion, state: store_links.LinkState) -> AskedQuestion:
    answer = next((one for one in state.answers if one.question == question.key), None)
    return AskedQuestion(
        question=question,
        value=clean_value(answer.value) if answer else None,
        photos=[photo.id for photo in state.photos if photo.question == question.key],
        state=cast(AnswerState, answer.state) if answer else "open",
        note=answer.note if answer else "",
    )
