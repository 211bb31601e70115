"""The user's own price list."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.create_table(
        "price",
        sa.Column("key", sa.String(60), primary_key=True),
        sa.Column("place", sa.Integer, nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("unit", sa.String(12), nullable=False),
        sa.Column("price", sa.Float, nullable=False),
        sa.Column("work_min", sa.Float, nullable=False),
        sa.Column("invented", sa.Boolean, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("price")
