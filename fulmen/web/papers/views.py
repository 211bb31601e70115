"""Papers: issuing, listing, downloading."""

from __future__ import annotations

from threading import Lock

from flask import Response, current_app, request

from fulmen.documents.paper_reader import read_paper
from fulmen.store import papers as store_papers
from fulmen.store.errors import TooMany
from fulmen.store.papers import WishState
from fulmen.store.tables import PaperRow
from fulmen.store.verifying import verify
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.guard import one_at_a_time, takes_paper
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.jobs.schemas import JobPath
from fulmen.web.jobs.signing import SigningHeader, warrant
from fulmen.web.papers.issuing import IssuingQueue
from fulmen.web.papers.schemas import IssuePath, IssueRequest, IssueState, Paper, PaperList, PaperPath, VerifiedPaper

papers = api_blueprint("papers")


@papers.get("/jobs/<int:job_id>/papers", responses={200: PaperList})
@allows(Role.ELECTRICIAN)
def list_papers(path: JobPath) -> Response:
    """List a job's papers, newest first."""
    rows = store_papers.list_papers(store(), path.job_id)
    return reply(PaperList(papers=_papers(rows)))


@papers.post("/jobs/<int:job_id>/papers", responses={202: IssueState, 403: Problem, 404: Problem, 409: Problem})
@allows(Role.ELECTRICIAN)
@one_at_a_time
def ask_for_paper(path: JobPath, header: SigningHeader, body: IssueRequest) -> Response:
    """Sign the job and ask for its certificate, which waits its turn; an earlier one becomes superseded."""
    seen = store_papers.Seen(header.version(), body.revision, body.job)
    by = warrant(header.word)
    asked = store_papers.ask_for_certificate(store(), path.job_id, seen, tuple(body.signatures), by, now())
    queue: IssuingQueue = current_app.extensions["issuing"]
    queue.wake()
    return reply(_issue_state(asked), 202)


@papers.get("/issues/<int:issue_id>", responses={200: IssueState, 404: Problem})
@allows(Role.ELECTRICIAN)
def show_issue(path: IssuePath) -> Response:
    """Tell how a certificate that was asked for stands."""
    return reply(_issue_state(store_papers.wish_state(store(), path.issue_id)))


def _issue_state(found: WishState) -> IssueState:
    paper = None
    if found.paper is not None:
        rows = store_papers.list_papers(store(), found.wish.job_id)
        paper = next((one for one in _papers(rows) if one.id == found.wish.paper_id), _papers([found.paper])[0])
    wish = found.wish
    return IssueState(id=wish.id, state=wish.state, ahead=found.ahead, paper=paper, refused=wish.refused)


@papers.post("/papers/verify", responses={200: VerifiedPaper, 409: Problem})
@allows(Role.ELECTRICIAN)
@takes_paper
def verify_paper() -> Response:
    """Tell whether a PDF is a certificate of this store, and still what was issued; nothing is kept of it."""
    # Looking at every page takes seconds of a whole core: one at a time.
    reading: Lock = current_app.extensions["reading_paper"]
    if not reading.acquire(blocking=False):
        raise TooMany("Another certificate is being looked at: try again in a moment.")
    try:
        found = verify(store(), request.get_data(), read_paper)
    finally:
        reading.release()
    return reply(VerifiedPaper(verdict=found.verdict, title=found.title, words=found.words))


@papers.get("/papers/<int:paper_id>.pdf", responses={200: None, 404: Problem, 409: Problem})
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
