"""A wish for a certificate is claimed in its row by whoever renders it, until when."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"


def upgrade() -> None:
    op.add_column("issue_request", sa.Column("claimed_by", sa.String(40), nullable=False, server_default=""))
    op.add_column("issue_request", sa.Column("claimed_until", sa.DateTime))


def downgrade() -> None:
    op.drop_column("issue_request", "claimed_until")
    op.drop_column("issue_request", "claimed_by")
