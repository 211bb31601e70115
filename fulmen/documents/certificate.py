"""The Electrical Installation Certificate as PDF, written as PDF/A-3 with the job file inside it.

It sets in type what the core stated of the job when the certificate was wished for, and works nothing out.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any, Protocol

from markupsafe import Markup

from fulmen.core.findings.caution import CAUTION
from fulmen.core.model.certificate import Signature, SignedPart
from fulmen.core.model.inspections import InspectionItem
from fulmen.core.model.job import Job
from fulmen.core.model.site import WorkKind
from fulmen.core.papers.certificate import CertificateContents
from fulmen.documents.rendering import Inside, environment, write_pdf
from fulmen.documents.run_drawing import run_drawing

ATTACHMENT = "job.json"


class Issue(Protocol):
    """What a certificate is rendered from; a draft has no number, and says on every page what it is."""

    @property
    def number(self) -> str: ...
    @property
    def issued_at(self) -> datetime: ...
    @property
    def supersedes(self) -> str | None: ...
    @property
    def job(self) -> Job: ...
    @property
    def contents(self) -> CertificateContents: ...
    @property
    def data(self) -> str: ...
    @property
    def sha256(self) -> str: ...
    @property
    def chain(self) -> str: ...
    @property
    def draft(self) -> bool: ...


def render_certificate(issue: Issue) -> bytes:
    """The certificate's bytes; the same issue gives the same bytes."""
    inside = Inside(ATTACHMENT, "The job file this certificate was made from", issue.data)
    return write_pdf(certificate_html(issue), inside, issue.issued_at)


def certificate_html(issue: Issue) -> str:
    """The certificate as HTML, before it becomes pages."""
    return environment().get_template(_template(issue.job)).render(**_content(issue))


def _template(job: Job) -> str:
    """What is put in gets a certificate; a unit that is taken away a record of how it was left."""
    return "removal.html.j2" if job.site.work is WorkKind.REMOVED else "certificate.html.j2"


def _content(issue: Issue) -> dict[str, Any]:
    job, contents = issue.job, issue.contents
    return {
        "issue": issue,
        "job": job,
        "stated": contents,
        "caution": CAUTION,
        "signed": _signed(job),
        "inspections": [(item, job.inspection(item)) for item in InspectionItem],
        "drawings": [(one, Markup(run_drawing(one.profile, one.guards))) for one in contents.drawn],
    }


def _signed(job: Job) -> list[tuple[list[SignedPart], Signature]]:
    """The signatures, parts signed alike by one person together."""
    groups: dict[str, tuple[list[SignedPart], Signature]] = {}
    for signature in job.certificate.signatures:
        person = signature.model_dump_json(exclude={"part"})
        groups.setdefault(person, ([], signature))[0].append(signature.part)
    return list(groups.values())
