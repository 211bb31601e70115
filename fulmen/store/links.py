"""The householder's link: making it, withdrawing it, what comes by it, and what becomes of that."""

from __future__ import annotations

import hashlib
import secrets
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from fulmen.core.editing.changes import apply_changes
from fulmen.core.model.job import Job
from fulmen.core.survey.householder import answer_changes, checked_answer, plain_question
from fulmen.store.database import Sessions, writing
from fulmen.store.errors import Conflict, LinkGone, MovedOn, NotFound, TooMany
from fulmen.store.photos import NewPhoto, Place, insert_photo
from fulmen.store.stored_jobs import Standing, StoredJob, record, row_of
from fulmen.store.tables import HouseholderAnswerRow, JobRow, PhotoRow, SurveyLinkRow
from fulmen.store.turns import change

MOST_LINKS = 100
ARRIVED, ACCEPTED, ASKED_AGAIN = "arrived", "accepted", "asked_again"


@dataclass(frozen=True)
class LinkState:
    """A link with what came by it."""

    link: SurveyLinkRow
    answers: list[HouseholderAnswerRow]
    photos: list[PhotoRow]

    def ended(self, now: datetime) -> str:
        """Why the link no longer works, or an empty text."""
        if self.link.withdrawn_at is not None:
            return "withdrawn"
        return "expired" if now >= self.link.expires_at else ""


def make_link(sessions: Sessions, job_id: int, made_by: str, days: int, now: datetime) -> tuple[SurveyLinkRow, str]:
    """A new link and its secret, which is shown this once: only its hash is kept.

    Raises:
        NotFound: there is no such job.
        TooMany: the job had as many as it can.
    """
    secret = secrets.token_urlsafe(32)
    with writing(sessions) as session:
        row_of(session, job_id)
        made = session.scalar(select(func.count()).select_from(SurveyLinkRow).where(SurveyLinkRow.job_id == job_id))
        if (made or 0) >= MOST_LINKS:
            raise TooMany(f"A job has at most {MOST_LINKS} links in its life. Nothing was made.")
        link = SurveyLinkRow(
            job_id=job_id,
            secret_sha256=_hash(secret),
            made_by=made_by,
            made_at=now,
            expires_at=now + timedelta(days=days),
        )
        session.add(link)
        session.flush()
        record(session, job_id, now, "link made", f"{link.id}, {days} days")
        return link, secret


def withdraw_link(sessions: Sessions, job_id: int, link_id: int, now: datetime) -> None:
    """End a link at once; what came by it stays."""
    with writing(sessions) as session:
        link = session.get(SurveyLinkRow, link_id)
        if link is None or link.job_id != job_id:
            raise NotFound(f"There is no link {link_id}.")
        link.withdrawn_at = link.withdrawn_at or now
        record(session, job_id, now, "link withdrawn", str(link_id))


def list_links(sessions: Sessions, job_id: int) -> list[LinkState]:
    """Every link of a job with what came by it, newest first."""
    with sessions() as session:
        query = select(SurveyLinkRow).where(SurveyLinkRow.job_id == job_id).order_by(SurveyLinkRow.id.desc())
        return [_state(session, link) for link in session.scalars(query)]


def open_link(sessions: Sessions, secret: str, now: datetime) -> LinkState:
    """The link of a secret, while it works.

    Raises:
        NotFound: there is no such link.
        LinkGone: it has run out, or was withdrawn.
    """
    with sessions() as session:
        return _open(session, secret, now)


def give_answer(sessions: Sessions, secret: str, question: str, value: Any, now: datetime) -> LinkState:
    """Keep the householder's answer; a later one takes its place.

    Raises:
        NotFound, LinkGone: see `open_link`.
        InputError: this question can't have such an answer.
    """
    checked = checked_answer(plain_question(question), value)
    with writing(sessions) as session:
        link = _open(session, secret, now).link
        _keep(session, link, question, checked, now)
        return _state(session, link)


def give_photo(sessions: Sessions, secret: str, question: str, photo: NewPhoto, now: datetime) -> LinkState:
    """Keep a photo that the householder was asked for.

    Raises:
        NotFound, LinkGone: see `open_link`.
        TooMany: the link holds as many as it can.
        InputError: no photo was asked for there.
    """
    asked = plain_question(question)
    if asked.kind != "photo":
        checked_answer(asked, None)
    with writing(sessions) as session:
        link = _open(session, secret, now).link
        insert_photo(session, link.job_id, photo, Place(asked.stop, question, link.id), now)
        _keep(session, link, question, None, now)
        return _state(session, link)


def accept_answer(sessions: Sessions, job_id: int, answer_id: int, version: int, now: datetime) -> StoredJob:
    """Take an answer into the job.

    Raises:
        NotFound: there is no such answer with this job.
        Conflict: somebody saved the job meanwhile.
        MovedOn: the householder answered anew meanwhile.
    """
    with sessions() as session:
        seen = _answer(session, job_id, answer_id)

    def changed(stands: Standing) -> Job:
        if stands.version != version:
            raise Conflict(stands.save())
        return apply_changes(stands.job, answer_changes(stands.job, seen.question, seen.value))

    def keep(session: Session, row: JobRow, _: Job) -> None:
        answer = _answer(session, job_id, answer_id)
        if (answer.value, answer.given_at) != (seen.value, seen.given_at):
            raise MovedOn("The householder answered anew: look at it again. Nothing was taken into the job.")
        row.version += 1
        answer.state, answer.note = ACCEPTED, ""
        record(session, job_id, now, "answer accepted", answer.question)

    return change(sessions, job_id, now, changed, keep)


def ask_again(sessions: Sessions, job_id: int, answer_id: int, note: str, now: datetime) -> None:
    """Give a question back to the householder with a word on what is wanted.

    Raises:
        NotFound: there is no such answer with this job.
    """
    with writing(sessions) as session:
        answer = _answer(session, job_id, answer_id)
        answer.state, answer.note = ASKED_AGAIN, note
        record(session, job_id, now, "asked again", answer.question)


def _hash(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()


def _open(session: Session, secret: str, now: datetime) -> LinkState:
    link = session.scalars(select(SurveyLinkRow).where(SurveyLinkRow.secret_sha256 == _hash(secret))).first()
    if link is None:
        raise NotFound("There is no such link. Check that all of it was copied.")
    state = _state(session, link)
    ended = state.ended(now)
    if ended:
        why = "has run out" if ended == "expired" else "was withdrawn"
        raise LinkGone(f"This link {why}. Ask your electrician for a new one; what you sent has arrived.")
    return state


def _state(session: Session, link: SurveyLinkRow) -> LinkState:
    answers = select(HouseholderAnswerRow).where(HouseholderAnswerRow.link_id == link.id)
    photos = select(PhotoRow).where(PhotoRow.link_id == link.id).order_by(PhotoRow.id)
    return LinkState(link, list(session.scalars(answers)), list(session.scalars(photos)))


def _keep(session: Session, link: SurveyLinkRow, question: str, value: Any, now: datetime) -> None:
    query = select(HouseholderAnswerRow).where(
        HouseholderAnswerRow.link_id == link.id, HouseholderAnswerRow.question == question
    )
    row = session.scalars(query).first()
    if row is None:
        row = HouseholderAnswerRow(link_id=link.id, question=question)
        session.add(row)
    row.value, row.state, row.note, row.given_at = value, ARRIVED, "", now
    session.flush()
    record(session, link.job_id, now, "householder answered", question)


def _answer(session: Session, job_id: int, answer_id: int) -> HouseholderAnswerRow:
    answer = session.get(HouseholderAnswerRow, answer_id)
    link = session.get(SurveyLinkRow, answer.link_id) if answer else None
    if answer is None or link is None or link.job_id != job_id:
        raise NotFound(f"There is no answer {answer_id}.")
    return answer
