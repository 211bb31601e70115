"""The tables. What is searched or counted is a column; the job document is one validated JSON column.

Times are stored in UTC. Readings, papers and audit entries are only ever appended: triggers in the first
migration refuse every update and delete of them.
"""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import JSON, DateTime, ForeignKey, Index, LargeBinary, String, Text, TypeDecorator
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


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
    """A job: its document without the readings, and what lists and searches need."""

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
    created_at: Mapped[datetime] = mapped_column(Utc)
    changed_at: Mapped[datetime] = mapped_column(Utc)

    __table_args__ = (Index("ix_job_changed_at", "changed_at"),)


class ReadingRow(Base):
    """One reading, in the order taken."""

    __tablename__ = "reading"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    step: Mapped[str] = mapped_column(String(40))
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class PaperRow(Base):
    """One issued paper: its bytes, the data inside it and the data's SHA-256."""

    __tablename__ = "paper"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"), index=True)
    number: Mapped[str] = mapped_column(String(40), unique=True)
    kind: Mapped[str] = mapped_column(String(40))
    supersedes_id: Mapped[int | None] = mapped_column(ForeignKey("paper.id"), unique=True)
    issued_at: Mapped[datetime] = mapped_column(Utc)
    data: Mapped[str] = mapped_column(Text)
    sha256: Mapped[str] = mapped_column(String(64))
    pdf: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)


class AuditRow(Base):
    """What was done, when, to which job."""

    __tablename__ = "audit"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int | None] = mapped_column(ForeignKey("job.id"), index=True)
    at: Mapped[datetime] = mapped_column(Utc)
    verb: Mapped[str] = mapped_column(String(40))
    detail: Mapped[str] = mapped_column(Text)
