"""Exercises, and what the learners made of them."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    op.create_table(
        "practice",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("learner", sa.String(200), nullable=False),
        sa.Column("set_key", sa.String(40), nullable=False),
        sa.Column("title", sa.String(200), nullable=False),
        sa.Column("charge_point", sa.String(40), nullable=False),
        sa.Column("what", sa.String(40), nullable=False),
        sa.Column("faults", sa.JSON, nullable=False),
        sa.Column("seed", sa.Integer, nullable=False),
        sa.Column("document", sa.JSON, nullable=False),
        sa.Column("acts", sa.JSON, nullable=False),
        sa.Column("total", sa.Integer, nullable=True),
        sa.Column("begun_at", sa.DateTime, nullable=False),
        sa.Column("ended_at", sa.DateTime, nullable=True),
    )
    op.create_index("ix_practice_learner", "practice", ["learner"])


def downgrade() -> None:
    op.drop_table("practice")
