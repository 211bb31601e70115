"""Entries that a device may send twice, done once; a photo's own time, where its device told it."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    op.create_table(
        "entry",
        sa.Column("key", sa.String(64), primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("sha256", sa.String(64), nullable=False),
        sa.Column("photo_id", sa.Integer),
        sa.Column("came_at", sa.DateTime, nullable=False),
    )
    op.add_column("photo", sa.Column("made_at", sa.DateTime))


def downgrade() -> None:
    op.drop_column("photo", "made_at")
    op.drop_table("entry")
