"""Whose save a job stands as: the name as typed, told to whoever saved it too."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    op.add_column("job", sa.Column("saved_by", sa.String(200), nullable=False, server_default=""))


def downgrade() -> None:
    op.drop_column("job", "saved_by")
