"""Exercises behind a link, and the marks of each exercise beside its total."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"


def upgrade() -> None:
    op.add_column("practice", sa.Column("marks", sa.JSON, nullable=True))
    op.create_table(
        "practice_link",
        sa.Column("link", sa.String(40), primary_key=True),
        sa.Column("title", sa.String(200), nullable=False),
        sa.Column("charge_point", sa.String(40), nullable=False),
        sa.Column("what", sa.String(40), nullable=False),
        sa.Column("size", sa.Float, nullable=False),
        sa.Column("document", sa.JSON, nullable=False),
        sa.Column("made_by", sa.String(200), nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("practice_link")
    op.drop_column("practice", "marks")
