"""First tables, and the triggers that keep readings, papers and audit entries from being rewritten."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None

APPEND_ONLY = ("reading", "paper", "audit")


def upgrade() -> None:
    op.create_table(
        "job",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("title", sa.String(120), nullable=False),
        sa.Column("reference", sa.String(200), nullable=False),
        sa.Column("householder", sa.String(200), nullable=False),
        sa.Column("address", sa.Text, nullable=False),
        sa.Column("open_checks", sa.Integer, nullable=False),
        sa.Column("falls_short", sa.Integer, nullable=False),
        sa.Column("readings_taken", sa.Integer, nullable=False),
        sa.Column("readings_wanted", sa.Integer, nullable=False),
        sa.Column("document", sa.JSON, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("changed_at", sa.DateTime, nullable=False),
    )
    op.create_index("ix_job_changed_at", "job", ["changed_at"])
    op.create_table(
        "reading",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("step", sa.String(40), nullable=False),
        sa.Column("document", sa.JSON, nullable=False),
    )
    op.create_index("ix_reading_job_id", "reading", ["job_id"])
    op.create_table(
        "paper",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("number", sa.String(40), nullable=False, unique=True),
        sa.Column("kind", sa.String(40), nullable=False),
        sa.Column("supersedes_id", sa.Integer, sa.ForeignKey("paper.id"), nullable=True, unique=True),
        sa.Column("issued_at", sa.DateTime, nullable=False),
        sa.Column("data", sa.Text, nullable=False),
        sa.Column("sha256", sa.String(64), nullable=False),
        sa.Column("pdf", sa.LargeBinary, nullable=False),
    )
    op.create_index("ix_paper_job_id", "paper", ["job_id"])
    op.create_table(
        "audit",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=True),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("verb", sa.String(40), nullable=False),
        sa.Column("detail", sa.Text, nullable=False),
    )
    op.create_index("ix_audit_job_id", "audit", ["job_id"])
    for table in APPEND_ONLY:
        for verb in ("UPDATE", "DELETE"):
            op.execute(
                f"CREATE TRIGGER {table}_no_{verb.lower()} BEFORE {verb} ON {table} "
                f"BEGIN SELECT RAISE(ABORT, '{table} entries are never rewritten'); END"
            )


def downgrade() -> None:
    for table in ("audit", "paper", "reading", "job"):
        op.drop_table(table)
