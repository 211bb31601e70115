"""Issuing papers: a paper is its bytes, the data inside it and the data's SHA-256, never rewritten."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import Select, func, select
from sqlalchemy.orm import Session, undefer

from fulmen.core.editing.job_file import digest, write_job
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.model.certificate import Signature
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import rule_set
from fulmen.store.database import Sessions
from fulmen.store.errors import Conflict, NotFound, NothingChanged, NotReady
from fulmen.store.operations import claim_version, fill_row, load_job, record
from fulmen.store.tables import JobRow, PaperRow

CERTIFICATE = "electrical_installation_certificate"


@dataclass(frozen=True)
class Issue:
    """Everything a certificate is rendered from."""

    number: str
    issued_at: datetime
    supersedes: str | None
    job: Job
    evaluation: Evaluation
    data: str
    sha256: str


Render = Callable[[Issue], bytes]


def issue_certificate(
    sessions: Sessions, job_id: int, version: int, signatures: tuple[Signature, ...], now: datetime, render: Render
) -> PaperRow:
    """Sign the job, render its certificate and freeze it; an earlier certificate becomes superseded.

    Raises:
        NotFound: there is no such job.
        Conflict: somebody saved the job meanwhile.
        NotReady: something is missing or falls short; it carries what.
        NothingChanged: the newest certificate says the same already.
    """
    stored = load_job(sessions, job_id)
    if stored.version != version:
        raise Conflict(stored.version, stored.job)
    certificate = stored.job.certificate.model_copy(update={"signatures": signatures})
    job = stored.job.model_copy(update={"certificate": certificate})
    earlier = newest_paper(sessions, job_id)
    issue = prepare_issue(job, _next_number(sessions, now), now, earlier.number if earlier else None)
    if earlier is not None and earlier.sha256 == issue.sha256:
        raise NothingChanged(earlier.number)
    pdf = render(issue)
    with sessions() as session, session.begin():
        claim_version(session, job_id, version)
        row = session.get_one(JobRow, job_id)
        fill_row(row, job, now)
        paper = PaperRow(
            job_id=job_id,
            number=issue.number,
            kind=CERTIFICATE,
            supersedes_id=earlier.id if earlier else None,
            issued_at=now,
            data=issue.data,
            sha256=issue.sha256,
            pdf=pdf,
        )
        session.add(paper)
        record(session, job_id, now, "issued", f"{issue.number} {issue.sha256}")
    return paper


def prepare_issue(job: Job, number: str, issued_at: datetime, supersedes: str | None) -> Issue:
    """A job made ready to be rendered as a certificate.

    Raises:
        NotReady: something is missing or falls short; it carries what.
    """
    evaluation = evaluate(job, rule_set(job.rule_set))
    if evaluation.gaps:
        raise NotReady(evaluation.gaps)
    data = write_job(job)
    return Issue(number, issued_at, supersedes, job, evaluation, data, digest(data))


def list_papers(sessions: Sessions, job_id: int) -> list[PaperRow]:
    """The papers of a job, newest first."""
    with sessions() as session:
        return list(session.scalars(_papers_of(job_id)))


def newest_paper(sessions: Sessions, job_id: int) -> PaperRow | None:
    """The paper of a job that is in force, if any."""
    with sessions() as session:
        return session.scalars(_papers_of(job_id)).first()


def load_paper(sessions: Sessions, paper_id: int) -> PaperRow:
    """A paper with its bytes.

    Raises:
        NotFound: there is none.
    """
    with sessions() as session:
        paper = session.get(PaperRow, paper_id, options=[undefer(PaperRow.pdf)])
        if paper is None:
            raise NotFound(f"There is no paper {paper_id}.")
        return paper


def _papers_of(job_id: int) -> Select[PaperRow]:
    return select(PaperRow).where(PaperRow.job_id == job_id).order_by(PaperRow.id.desc())


def _next_number(sessions: Sessions, now: datetime) -> str:
    """Numbers count up within a year; the column's uniqueness refuses a number taken meanwhile."""
    prefix = f"FC-{now.year}-"
    with sessions() as session:
        return f"{prefix}{_count(session, prefix) + 1:04d}"


def _count(session: Session, prefix: str) -> int:
    return session.scalar(select(func.count()).where(PaperRow.number.startswith(prefix))) or 0
