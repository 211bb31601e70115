"""Papers: each is its bytes, the data inside it with its SHA-256, and what it states; never rewritten.

A certificate is asked for, waits its turn, is rendered, and is kept only if the job still is what it was made from.
Its number is taken before it is rendered and belongs to its wish alone: a wish that is refused gives it back, one whose
process died is taken up again with it. Whoever renders a wish claims it in its row, so that several can be at work.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import Integer, Select, cast, delete, func, or_, select, update
from sqlalchemy.orm import Session, undefer

from fulmen.core.editing.differences import differences
from fulmen.core.editing.job_file import digest, write_job
from fulmen.core.errors import PaperError
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.certificate import Signature
from fulmen.core.model.job import Job
from fulmen.core.model.site import WorkKind
from fulmen.core.papers.certificate import certificate_contents
from fulmen.core.verification.certificate_gaps import written_gaps
from fulmen.core.verification.reading_order import date_gaps
from fulmen.store.acts import CERTIFICATE as SIGNING
from fulmen.store.acts import Warrant, log_signature, spend
from fulmen.store.chain import first_unsealed, is_sealed, newest_head
from fulmen.store.database import Sessions, writing
from fulmen.store.errors import (
    Altered,
    ClaimLost,
    Conflict,
    NotAsSeen,
    NotFound,
    NothingChanged,
    StoreError,
    TooMany,
)
from fulmen.store.generations import number_prefix
from fulmen.store.issues import Issue, Render, State, check_no_gaps, prepare_issue, ready
from fulmen.store.stored_jobs import Standing, fill_row, record, row_of, standing_row
from fulmen.store.tables import IssueRequestRow, JobRow, PaperRow
from fulmen.store.turns import in_turn

CERTIFICATE, REMOVAL_RECORD = "electrical_installation_certificate", "removal_record"


@dataclass(frozen=True)
class Seen:
    """What a signer saw of a job: its version, its revision and the document that their screen held, where sent."""

    version: int
    revision: int | None = None
    job: Job | None = None


@dataclass(frozen=True)
class WishState:
    """How a wish stands: how many are before it, and its paper."""

    wish: IssueRequestRow
    ahead: int
    paper: PaperRow | None


# Longer than any paper takes; a dead process's wish waits so long where nobody knows that it died.
CLAIMED_FOR = timedelta(minutes=10)
# How long a page may ask after a wish that came to its end.
ENDED_KEPT_FOR = timedelta(days=30)
WAITING, RENDERING, ISSUED, REFUSED = "waiting", "rendering", "issued", "refused"
UNDER_WAY = (WAITING, RENDERING)
MOST_WAITING, MOST_LISTED = 500, 200
CHANGED = "The job changed while its certificate was being made: look at it and issue again."


def ask_for_certificate(
    sessions: Sessions, job_id: int, seen: Seen, signatures: tuple[Signature, ...], warrant: Warrant, now: datetime
) -> WishState:
    """Keep the wish for a certificate of a job as its signers saw it and signed it; asked twice, it is the same wish.

    Raises:
        NotFound: there is no such job.
        Conflict: the job is not what the signer saw, by its version.
        NotAsSeen: it is another by its document; it carries the first field that differs.
        NotReady: something is missing or falls short; it carries what.
        NothingChanged: the newest certificate says the same already.
        TooMany: too many wait already.
        NotYours: the word that it is signed with is not this act's.
    """

    def judge(stands: Standing) -> Job:
        if stands.version != seen.version or stands.revision != (seen.revision or stands.revision):
            raise Conflict(stands.save())
        if seen.job is not None:
            _as_seen(seen.job, stands.job)
        signed = _signed(stands.job, signatures)
        # Judged in full when its turn comes; before that it is enough to refuse what is known to be open.
        if not stands.settled:
            ready(signed, now)
        check_no_gaps((*written_gaps(installation_of(signed)), *date_gaps(signed, now.date())))
        return signed

    def keep(session: Session, row: JobRow, signed: Job) -> WishState:
        waiting = _wish_of(session, job_id)
        if waiting is not None:
            return _state(session, waiting)
        _check_new(_newest_paper(session, job_id), signed)
        ahead = _under_way(session)
        if ahead >= MOST_WAITING:
            raise TooMany(f"{MOST_WAITING} certificates wait already: try again in a minute.")
        spend(session, job_id, SIGNING, warrant, now)
        wish = IssueRequestRow(
            job_id=job_id,
            revision=row.revision,
            signatures=[one.model_dump(mode="json") for one in signatures],
            asked_at=now,
            state=WAITING,
        )
        session.add(wish)
        session.flush()
        names = ", ".join(dict.fromkeys(one.name for one in signatures))
        log_signature(session, job_id, wish.id, names, warrant, now)
        return WishState(wish, ahead, None)

    return in_turn(sessions, job_id, judge, keep)


def issue_next(
    sessions: Sessions,
    render: Render,
    clock: Callable[[], datetime],
    claimant: str = "one",
    state: State = certificate_contents,
) -> IssueRequestRow | None:
    """Claim the oldest wish that nobody is at, render it and keep the paper, or refuse it; None where none waits.

    Args:
        sessions: the store.
        render: makes the bytes.
        clock: the time.
        claimant: who claims it; what it claimed before and never ended is its own to take up.
        state: works out what the certificate states.
    """
    taken = _take(sessions, clock(), claimant)
    if taken is None:
        return None
    try:
        with sessions() as session:
            signatures = tuple(Signature.model_validate(one) for one in taken.signatures)
            issue = _prepared(session, taken, signatures, clock(), state)
        pdf = render(issue)
        return _keep(sessions, taken, issue, pdf)
    except ClaimLost:
        return taken
    except Conflict:
        return _refuse(sessions, taken, CHANGED)
    except (StoreError, PaperError) as error:
        return _refuse(sessions, taken, str(error))
    except Exception:
        _refuse(sessions, taken, "The certificate could not be made; nothing was issued. The log says more.")
        raise


def _drop_ended(session: Session, taken: IssueRequestRow, now: datetime) -> None:
    """Wishes that came to their end long ago are dropped; what they came to stands in papers, acts and the log.

    Only those before one that is just taken up: the database would give the newest one's number to the next.
    """
    ended = IssueRequestRow.state.in_((ISSUED, REFUSED)), IssueRequestRow.asked_at < now - ENDED_KEPT_FOR
    session.execute(delete(IssueRequestRow).where(*ended, IssueRequestRow.id < taken.id))


def _as_seen(shown: Job, stored: Job) -> None:
    """A paper is made of what is stored, and of nothing that a screen only shows."""
    different = differences(shown, stored)
    if different:
        first = different[0]
        raise NotAsSeen(first.field, ": ".join(filter(None, (first.where, first.name))))


def _waiting() -> Select[IssueRequestRow]:
    return select(IssueRequestRow).where(IssueRequestRow.state.in_(UNDER_WAY)).order_by(IssueRequestRow.id)


def _wish_of(session: Session, job_id: int) -> IssueRequestRow | None:
    return session.scalars(_waiting().where(IssueRequestRow.job_id == job_id)).first()


def _take(sessions: Sessions, now: datetime, claimant: str) -> IssueRequestRow | None:
    free = or_(
        IssueRequestRow.state == WAITING,
        IssueRequestRow.claimed_by == claimant,
        IssueRequestRow.claimed_until.is_(None),
        IssueRequestRow.claimed_until < now,
    )
    with writing(sessions) as session:
        wish = session.scalars(_waiting().where(free).limit(1)).first()
        if wish is not None:
            _drop_ended(session, wish, now)
            wish.state, wish.number = RENDERING, wish.number or _next_number(session, now)
            wish.claimed_by, wish.claimed_until = claimant, now + CLAIMED_FOR
        return wish


def let_go_of_claims(sessions: Sessions) -> None:
    """What others claimed is free again: whoever serves a store alone knows that they are gone."""
    with writing(sessions) as session:
        session.execute(update(IssueRequestRow).where(IssueRequestRow.state == RENDERING).values(claimed_until=None))


def _own(session: Session, taken: IssueRequestRow) -> IssueRequestRow:
    """The wish, if it is still claimed by who renders it.

    Raises:
        ClaimLost: it took so long that another took it up.
    """
    wish = session.get_one(IssueRequestRow, taken.id)
    if wish.state != RENDERING or wish.claimed_by != taken.claimed_by:
        raise ClaimLost("another took this certificate up meanwhile")
    return wish


def _prepared(
    session: Session, taken: IssueRequestRow, signatures: tuple[Signature, ...], now: datetime, state: State
) -> Issue:
    """The wish's job made ready, if it still is what was signed, and what the store was given.

    Raises:
        Altered: what the job holds is not what was sealed.
        Conflict: the job changed since it was signed.
        NothingChanged, NotReady: see `ask_for_certificate`.
    """
    stands = standing_row(session, row_of(session, taken.job_id))
    if stands.revision != taken.revision:
        raise Conflict(stands.save())
    altered = first_unsealed(session.connection(), taken.job_id)
    if altered:
        raise Altered(f"{altered} Nothing is issued of it: run doctor.")
    job = _signed(stands.job, signatures)
    earlier = _newest_paper(session, taken.job_id)
    _check_new(earlier, job)
    head = newest_head(session.connection()).words()
    return prepare_issue(job, taken.number or "", now, earlier.number if earlier else None, head, state)


def _signed(job: Job, signatures: tuple[Signature, ...]) -> Job:
    return job.model_copy(update={"certificate": job.certificate.model_copy(update={"signatures": signatures})})


def _check_new(earlier: PaperRow | None, job: Job) -> None:
    """A certificate of the very same data is not made again."""
    if earlier is not None and earlier.sha256 == digest(write_job(job)):
        raise NothingChanged(earlier.number)


def _newest_paper(session: Session, job_id: int) -> PaperRow | None:
    return session.scalars(_papers_of(job_id)).first()


def issued_as(sessions: Sessions, job_id: int, job: Job) -> str | None:
    """The number of the job's newest paper, if it was issued from exactly this document."""
    with sessions() as session:
        newest = _newest_paper(session, job_id)
        # By what they say: whoever sends a document may order the names of a basis as they like.
        same = newest is not None and json.loads(newest.data) == job.model_dump(mode="json")
        return newest.number if newest is not None and same else None


def _keep(sessions: Sessions, taken: IssueRequestRow, issue: Issue, pdf: bytes) -> IssueRequestRow:
    """The paper kept, if the job still is what it was made from."""
    with writing(sessions) as session:
        wish = _own(session, taken)
        row = row_of(session, taken.job_id)
        if row.revision != taken.revision:
            raise Conflict(standing_row(session, row).save())
        row.version, row.revision = row.version + 1, row.revision + 1
        fill_row(row, issue.job, issue.evaluation, issue.issued_at)
        earlier = _newest_paper(session, taken.job_id)
        paper = PaperRow(
            job_id=taken.job_id,
            number=issue.number,
            kind=REMOVAL_RECORD if issue.job.site.work is WorkKind.REMOVED else CERTIFICATE,
            supersedes_id=earlier.id if earlier else None,
            issued_at=issue.issued_at,
            data=issue.data,
            sha256=issue.sha256,
            contents=issue.contents.model_dump_json(),
            pdf=pdf,
        )
        session.add(paper)
        session.flush()
        wish.state, wish.paper_id = ISSUED, paper.id
        record(session, taken.job_id, issue.issued_at, "issued", f"{issue.number} {issue.sha256}")
        return wish


def _refuse(sessions: Sessions, taken: IssueRequestRow, why: str) -> IssueRequestRow:
    """Nothing was issued: its number is free for the next one."""
    with writing(sessions) as session:
        wish = _own(session, taken)
        wish.state, wish.number, wish.refused = REFUSED, None, why
        return wish


def wish_state(sessions: Sessions, wish_id: int) -> WishState:
    """How a wish stands.

    Raises:
        NotFound: there is none.
    """
    with sessions() as session:
        wish = session.get(IssueRequestRow, wish_id)
        if wish is None:
            raise NotFound(f"No certificate was asked for as {wish_id}.")
        return _state(session, wish)


def _state(session: Session, wish: IssueRequestRow) -> WishState:
    paper = session.get(PaperRow, wish.paper_id) if wish.paper_id is not None else None
    return WishState(wish, _under_way(session, wish.id) if wish.state == WAITING else 0, paper)


def _under_way(session: Session, before: int | None = None) -> int:
    """How many wishes are not at their end; only those asked for before one, where that is told."""
    counted = select(func.count()).select_from(IssueRequestRow).where(IssueRequestRow.state.in_(UNDER_WAY))
    return session.scalar(counted if before is None else counted.where(IssueRequestRow.id < before)) or 0


def list_papers(sessions: Sessions, job_id: int) -> list[PaperRow]:
    """The papers of a job, newest first; of very many the newest."""
    with sessions() as session:
        return list(session.scalars(_papers_of(job_id).limit(MOST_LISTED)))


def load_paper(sessions: Sessions, paper_id: int) -> PaperRow:
    """A paper with its bytes, which are what was issued.

    Raises:
        NotFound: there is none.
        Altered: the paper is not what was sealed.
    """
    with sessions() as session:
        paper = session.get(PaperRow, paper_id, options=[undefer(PaperRow.pdf)])
        if paper is None:
            raise NotFound(f"There is no paper {paper_id}.")
        if not is_sealed(session.connection(), "paper", paper):
            raise Altered(f"Certificate {paper.number} was altered in the database and is not handed out: run doctor.")
        return paper


def _papers_of(job_id: int) -> Select[PaperRow]:
    return select(PaperRow).where(PaperRow.job_id == job_id).order_by(PaperRow.id.desc())


def _next_number(session: Session, now: datetime) -> str:
    """Numbers count up within a year, and within what was restored; those of papers and of wishes are taken."""
    prefix = number_prefix(session, now.year)
    last = 0
    for column in (PaperRow.number, IssueRequestRow.number):
        count = cast(func.substr(column, len(prefix) + 1), Integer)
        last = max(last, session.scalar(select(func.max(count)).where(column.startswith(prefix))) or 0)
    return f"{prefix}{last + 1:04d}"
