"""Settings of the firm, such as what it takes as usual."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "setting",
        sa.Column("key", sa.String(40), primary_key=True),
        sa.Column("document", sa.JSON, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("setting")
