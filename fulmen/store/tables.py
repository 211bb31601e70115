"""The tables. What is searched or counted is a column; the job document is one validated JSON column.

Times are stored in UTC. Readings, letters, calls, acts, papers, audit and chain entries are only ever appended:
triggers in the migrations refuse every update and delete of them. A photo is never altered, and taken out only by a
recorded act.
"""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Any

from sqlalchemy import JSON, Date, DateTime, ForeignKey, Index, LargeBinary, String, Text, TypeDecorator
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

from fulmen.core.findings.finding import Verdict


class Utc(TypeDecorator[datetime]):
    """A time stored in UTC and given back aware of it; SQLite itself forgets the zone."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        """Refuse a time without a zone, store the others in UTC."""
        if value is None:
            return None
        if value.tzinfo is None:
            raise ValueError("a time without a zone can't be stored")
        return value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        """Give the zone back."""
        return None if value is None else value.replace(tzinfo=UTC)


class Base(DeclarativeBase):
    """Root of the tables."""


class JobRow(Base):
    """A job: its document without the readings, and what lists and searches need.

    `version` counts edits and is what two editors compare; `revision` counts everything that a certificate is made of:
    edits, readings, letters, photos. `saved_by` is the name of who saved it last, as typed.
    """

    __tablename__ = "job"

    id: Mapped[int] = mapped_column(primary_key=True)
    title: Mapped[str] = mapped_column(String(120))
    reference: Mapped[str] = mapped_column(String(200))
    householder: Mapped[str] = mapped_column(String(200))
    address: Mapped[str] = mapped_column(Text)
    open_checks: Mapped[int]
    falls_short: Mapped[int]
    readings_taken: Mapped[int]
    readings_wanted: Mapped[int]
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    version: Mapped[int]
    revision: Mapped[int] = mapped_column(server_default="1", default=1)
    created_at: Mapped[datetime] = mapped_column(Utc)
    changed_at: Mapped[datetime] = mapped_column(Utc)
    saved_by: Mapped[str] = mapped_column(String(200), server_default="", default="")

    @property
    def verdict(self) -> Verdict:
        """The worst that is said of it, as a list tells it."""
        return Verdict.FALLS_SHORT if self.falls_short else Verdict.NEEDS if self.open_checks else Verdict.MEETS

    __table_args__ = (Index("ix_job_listed", "changed_at", "title", "reference", "householder", "address"),)


class ReadingRow(Base):
    """One reading, in the order taken."""

    __tablename__ = "reading"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    step: Mapped[str] = mapped_column(String(40))
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class LetterRow(Base):
    """One letter to or from the network operator, in the order kept."""

    __tablename__ = "letter"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class DecisionRow(Base):
    """One call settled by a person, in the order taken."""

    __tablename__ = "decision"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class ActRow(Base):
    """Who did what at a screen: a hold, a call or a signature, and the reading, decision or wish that it made.

    `name` is as typed, `device` tells one browser from another, `made_at` is by that device's clock, `came_at` by ours.
    """

    __tablename__ = "act"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    kind: Mapped[str] = mapped_column(String(20))
    about: Mapped[str] = mapped_column(String(120))
    row_id: Mapped[int]
    name: Mapped[str] = mapped_column(String(700))
    device: Mapped[str] = mapped_column(String(64))
    made_at: Mapped[datetime] = mapped_column(Utc)
    came_at: Mapped[datetime] = mapped_column(Utc)


class ActWordRow(Base):
    """A one-time word: whose device may do which act of which job until when; only its hash is kept."""

    __tablename__ = "act_word"

    sha256: Mapped[str] = mapped_column(String(64), primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"))
    kind: Mapped[str] = mapped_column(String(20))
    about: Mapped[str] = mapped_column(String(120))
    device: Mapped[str] = mapped_column(String(64), index=True)
    expires_at: Mapped[datetime] = mapped_column(Utc)
    used: Mapped[bool] = mapped_column(default=False, server_default="0")


class SurveyLinkRow(Base):
    """A link that lets the householder answer; only the hash of its secret is kept."""

    __tablename__ = "survey_link"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    secret_sha256: Mapped[str] = mapped_column(String(64), unique=True)
    made_by: Mapped[str] = mapped_column(String(200))
    made_at: Mapped[datetime] = mapped_column(Utc)
    expires_at: Mapped[datetime] = mapped_column(Utc)
    withdrawn_at: Mapped[datetime | None] = mapped_column(Utc)


class PhotoRow(Base):
    """A photo of one stop, re-encoded; `question` names what the householder was asked for.

    `added_at` is when it came, `made_at` when it was taken by its device's clock, where that told it.
    """

    __tablename__ = "photo"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    link_id: Mapped[int | None] = mapped_column(ForeignKey("survey_link.id"), index=True)
    stop: Mapped[str] = mapped_column(String(40))
    question: Mapped[str] = mapped_column(String(40))
    sha256: Mapped[str] = mapped_column(String(64))
    width_px: Mapped[int]
    height_px: Mapped[int]
    added_at: Mapped[datetime] = mapped_column(Utc)
    made_at: Mapped[datetime | None] = mapped_column(Utc)
    jpeg: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)
    thumbnail: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)


class EntryRow(Base):
    """One entry of a device that was done; see `store.entries`."""

    __tablename__ = "entry"

    key: Mapped[str] = mapped_column(String(64), primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"))
    sha256: Mapped[str] = mapped_column(String(64))
    photo_id: Mapped[int | None]
    came_at: Mapped[datetime] = mapped_column(Utc)


class HouseholderAnswerRow(Base):
    """The householder's newest answer to one question of one link."""

    __tablename__ = "householder_answer"

    id: Mapped[int] = mapped_column(primary_key=True)
    link_id: Mapped[int] = mapped_column(ForeignKey("survey_link.id"))
    question: Mapped[str] = mapped_column(String(40))
    value: Mapped[Any] = mapped_column(JSON)
    state: Mapped[str] = mapped_column(String(20))
    note: Mapped[str] = mapped_column(Text)
    given_at: Mapped[datetime] = mapped_column(Utc)


class DeskCaseRow(Base):
    """A case at the stand-in desk, with a simulated calendar of its own and the letters it has yet to send."""

    __tablename__ = "desk_case"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    form: Mapped[dict[str, Any]] = mapped_column(JSON)
    pending: Mapped[list[dict[str, Any]]] = mapped_column(JSON)
    received_on: Mapped[date] = mapped_column(Date)
    today: Mapped[date] = mapped_column(Date)


class ChargePointRecordRow(Base):
    """A charge point that the user added to the catalogue."""

    __tablename__ = "charge_point_record"

    id: Mapped[str] = mapped_column(String(40), primary_key=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class PaperRow(Base):
    """One issued paper: its bytes, the data inside it and the data's SHA-256.

    `contents` is what the core stated of the job when the paper was wished for; older papers kept none.
    """

    __tablename__ = "paper"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    number: Mapped[str] = mapped_column(String(40), unique=True)
    kind: Mapped[str] = mapped_column(String(40))
    supersedes_id: Mapped[int | None] = mapped_column(ForeignKey("paper.id"), unique=True)
    issued_at: Mapped[datetime] = mapped_column(Utc)
    data: Mapped[str] = mapped_column(Text)
    sha256: Mapped[str] = mapped_column(String(64))
    contents: Mapped[str | None] = mapped_column(Text, deferred=True)
    pdf: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)


class IssueRequestRow(Base):
    """One wish for a certificate, in the order asked; its number is kept for it from before it is rendered.

    Whoever renders it claims it for a while; a claim that ran out was left by one who died.
    """

    __tablename__ = "issue_request"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    revision: Mapped[int]
    signatures: Mapped[list[dict[str, Any]]] = mapped_column(JSON)
    asked_at: Mapped[datetime] = mapped_column(Utc)
    state: Mapped[str] = mapped_column(String(20), index=True)
    number: Mapped[str | None] = mapped_column(String(40), unique=True)
    paper_id: Mapped[int | None] = mapped_column(ForeignKey("paper.id"))
    refused: Mapped[str] = mapped_column(Text, default="", server_default="")
    claimed_by: Mapped[str] = mapped_column(String(40), default="", server_default="")
    claimed_until: Mapped[datetime | None] = mapped_column(Utc)


class ChainRow(Base):
    """One entry of the chain of hashes, see `store.chain`."""

    __tablename__ = "chain"
    __table_args__ = (Index("ix_chain_row", "kind", "row_id"), {"sqlite_autoincrement": True})

    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(20))
    row_id: Mapped[int]
    content_sha256: Mapped[str] = mapped_column(String(64))
    head: Mapped[str] = mapped_column(String(64))


class AuditRow(Base):
    """What was done, when, to which job."""

    __tablename__ = "audit"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int | None] = mapped_column(ForeignKey("job.id"), index=True)
    at: Mapped[datetime] = mapped_column(Utc)
    verb: Mapped[str] = mapped_column(String(40))
    detail: Mapped[str] = mapped_column(Text)


class PriceRow(Base):
    """One line of the user's price list."""

    __tablename__ = "price"

    key: Mapped[str] = mapped_column(String(60), primary_key=True)
    place: Mapped[int]
    name: Mapped[str] = mapped_column(String(120))
    unit: Mapped[str] = mapped_column(String(12))
    price: Mapped[float]
    work_min: Mapped[float]
    invented: Mapped[bool]


class SettingRow(Base):
    """One setting of the firm, by its name."""

    __tablename__ = "setting"

    key: Mapped[str] = mapped_column(String(40), primary_key=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class PracticeRow(Base):
    """One exercise: its house, what is hidden (`what`, `faults`), its acts in order; marks and total once it ended."""

    __tablename__ = "practice"

    id: Mapped[int] = mapped_column(primary_key=True)
    learner: Mapped[str] = mapped_column(String(200), index=True)
    set_key: Mapped[str] = mapped_column(String(40))
    title: Mapped[str] = mapped_column(String(200))
    charge_point: Mapped[str] = mapped_column(String(40))
    what: Mapped[str] = mapped_column(String(40))
    faults: Mapped[list[dict[str, Any]]] = mapped_column(JSON)
    seed: Mapped[int]
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    acts: Mapped[list[dict[str, Any]]] = mapped_column(JSON)
    marks: Mapped[list[dict[str, Any]] | None] = mapped_column(JSON)
    total: Mapped[int | None]
    begun_at: Mapped[datetime] = mapped_column(Utc)
    ended_at: Mapped[datetime | None] = mapped_column(Utc)


class PracticeLinkRow(Base):
    """An exercise for others behind a link: its house, and what is hidden in it."""

    __tablename__ = "practice_link"

    link: Mapped[str] = mapped_column(String(40), primary_key=True)
    title: Mapped[str] = mapped_column(String(200))
    charge_point: Mapped[str] = mapped_column(String(40))
    what: Mapped[str] = mapped_column(String(40))
    size: Mapped[float]
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    made_by: Mapped[str] = mapped_column(String(200))
    made_at: Mapped[datetime] = mapped_column(Utc)
