"""A job made ready to become a certificate: judged from nothing, with what the certificate states worked out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

from fulmen.core.editing.acts import as_history
from fulmen.core.editing.job_file import digest, write_job
from fulmen.core.evaluate import Evaluation
from fulmen.core.model.job import Job
from fulmen.core.papers.certificate import CertificateContents, certificate_contents
from fulmen.core.verification.certificate_gaps import Gap
from fulmen.core.verification.reading_order import date_gaps
from fulmen.store.errors import NotReady
from fulmen.store.turns import judged_anew


@dataclass(frozen=True)
class Issue:
    """Everything a certificate is rendered from. A draft is made of a file: it has no number, and nobody signed it."""

    number: str
    issued_at: datetime
    supersedes: str | None
    job: Job
    evaluation: Evaluation
    contents: CertificateContents
    data: str
    sha256: str
    chain: str = ""
    draft: bool = False


Render = Callable[[Issue], bytes]
# Works out what a certificate states of a job and its evaluation; a server has a process of its own for it.
State = Callable[[Job, Evaluation], CertificateContents]


def prepare_issue(
    job: Job,
    number: str,
    issued_at: datetime,
    supersedes: str | None,
    chain: str = "",
    state: State = certificate_contents,
) -> Issue:
    """A job made ready to be rendered as a certificate; `chain` is the store's newest entry, if it comes from one.

    Raises:
        NotReady: something is missing or falls short; it carries what.
    """
    evaluation = ready(job, issued_at)
    data = write_job(job)
    return Issue(number, issued_at, supersedes, job, evaluation, state(job, evaluation), data, digest(data), chain)


def ready(job: Job, issued_at: datetime) -> Evaluation:
    """What the rules say of a job that a certificate can be made of, worked out from nothing.

    Raises:
        NotReady: something is missing or falls short; it carries what.
    """
    evaluation = judged_anew(job)
    check_no_gaps((*evaluation.gaps, *date_gaps(job, issued_at.date())))
    return evaluation


def check_no_gaps(gaps: tuple[Gap, ...]) -> None:
    """Nothing is issued over a gap.

    Raises:
        NotReady: there are gaps; it carries them.
    """
    if gaps:
        raise NotReady(gaps)


def draft_issue(job: Job, written_at: datetime) -> Issue:
    """A job file's certificate as a draft, whatever is still open; what the file tells of acts is history."""
    job = as_history(job)
    data = write_job(job)
    evaluation = judged_anew(job)
    contents = certificate_contents(job, evaluation)
    return Issue("", written_at, None, job, evaluation, contents, data, digest(data), draft=True)
