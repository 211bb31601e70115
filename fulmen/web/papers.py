"""Papers: issuing, listing, downloading."""

from __future__ import annotations

from flask import Response

from fulmen.documents.certificate import render_certificate
from fulmen.store import papers as store_papers
from fulmen.store.tables import PaperRow
from fulmen.web.blueprint import api_blueprint
from fulmen.web.policy import Role, allows
from fulmen.web.problems import Problem
from fulmen.web.replies import now, reply, store
from fulmen.web.schemas import IssueRequest, JobPath, Paper, PaperList, PaperPath, VersionHeader

papers = api_blueprint("papers")


@papers.get("/jobs/<int:job_id>/papers", responses={200: PaperList})
@allows(Role.ELECTRICIAN)
def list_papers(path: JobPath) -> Response:
    """List a job's papers, newest first."""
    rows = store_papers.list_papers(store(), path.job_id)
    return reply(PaperList(papers=_papers(rows)))


@papers.post("/jobs/<int:job_id>/papers", responses={201: Paper, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
def issue_paper(path: JobPath, header: VersionHeader, body: IssueRequest) -> Response:
    """Sign and issue the certificate; an earlier one becomes superseded."""
    signatures = tuple(body.signatures)
    store_papers.issue_certificate(store(), path.job_id, header.version(), signatures, now(), render_certificate)
    return reply(_papers(store_papers.list_papers(store(), path.job_id))[0], 201)


@papers.get("/papers/<int:paper_id>.pdf")
@allows(Role.ELECTRICIAN)
def download_paper(path: PaperPath) -> Response:
    """Download a paper as PDF, byte for byte as issued."""
    paper = store_papers.load_paper(store(), path.paper_id)
    headers = {"Content-Disposition": f'inline; filename="{paper.number}.pdf"'}
    return Response(paper.pdf, mimetype="application/pdf", headers=headers)


def _papers(rows: list[PaperRow]) -> list[Paper]:
    numbers = {row.id: row.number for row in rows}
    superseded = {row.supersedes_id: row.number for row in rows if row.supersedes_id is not None}
    return [
        Paper(
            id=row.id,
            number=row.number,
            kind=row.kind,
            issued_at=row.issued_at,
            sha256=row.sha256,
            supersedes=numbers.get(row.supersedes_id) if row.supersedes_id else None,
            superseded_by=superseded.get(row.id),
        )
        for row in rows
    ]
