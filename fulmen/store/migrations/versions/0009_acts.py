"""Acts of persons: calls in rows of their own, who did what, and the one-time words that let a screen do it.

What an older store holds of acts was not done through such a word: it is read as signed elsewhere. Signatures move
there, save those of jobs whose certificate this store issued.
"""

from __future__ import annotations

import json

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"

APPEND_ONLY = ("decision", "act")


def upgrade() -> None:
    op.create_table(
        "decision",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("document", sa.JSON, nullable=False),
    )
    op.create_table(
        "act",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("about", sa.String(120), nullable=False),
        sa.Column("row_id", sa.Integer, nullable=False),
        sa.Column("name", sa.String(700), nullable=False),
        sa.Column("device", sa.String(64), nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
        sa.Column("came_at", sa.DateTime, nullable=False),
    )
    op.create_table(
        "act_word",
        sa.Column("sha256", sa.String(64), primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("about", sa.String(120), nullable=False),
        sa.Column("device", sa.String(64), nullable=False),
        sa.Column("expires_at", sa.DateTime, nullable=False),
        sa.Column("used", sa.Boolean, nullable=False, server_default="0"),
    )
    op.create_index("ix_act_word_device", "act_word", ["device"])
    for table in APPEND_ONLY:
        op.create_index(f"ix_{table}_job_id", table, ["job_id"])
        for verb in ("UPDATE", "DELETE"):
            op.execute(
                f"CREATE TRIGGER {table}_no_{verb.lower()} BEFORE {verb} ON {table} "
                f"BEGIN SELECT RAISE(ABORT, '{table} entries are never rewritten'); END"
            )
    _signed_elsewhere()


def _signed_elsewhere() -> None:
    connection = op.get_bind()
    rows = connection.execute(sa.text("SELECT id, document FROM job WHERE id NOT IN (SELECT job_id FROM paper)")).all()
    for job_id, text in rows:
        document = json.loads(text)
        certificate = document.get("certificate")
        signatures = certificate.pop("signatures", None) if isinstance(certificate, dict) else None
        if signatures:
            document["elsewhere"] = {"signatures": signatures}
            change = sa.text("UPDATE job SET document = :document WHERE id = :id")
            connection.execute(change, {"document": json.dumps(document), "id": job_id})


def downgrade() -> None:
    for table in ("act_word", "act", "decision"):
        op.drop_table(table)
