"""A paper keeps what the core stated of the job when it was wished for; papers from before keep none."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    op.add_column("paper", sa.Column("contents", sa.Text))


def downgrade() -> None:
    op.drop_column("paper", "contents")
