"""Job documents of version 8, in which every answer about a unit taken away says one thing.

Documents are brought up as they are read; an older Fulmen would not read what this one saves. What could mean two
things is asked again, so the list of jobs does not go on telling that all of it meets.
"""

from __future__ import annotations

import json
import sys

import sqlalchemy as sa
from alembic import op

from fulmen.core.editing.upgrades.v7 import asks_again

revision = "0013"
down_revision = "0012"


def upgrade() -> None:
    connection = op.get_bind()
    documents = connection.execute(sa.text("SELECT id, document FROM job WHERE open_checks = 0")).all()
    asked = [number for number, text in documents if asks_again(json.loads(text))]
    for number in asked:
        connection.execute(sa.text("UPDATE job SET open_checks = 1 WHERE id = :id"), {"id": number})
    if asked:
        sys.stdout.write(f"{len(asked)} of the jobs of a unit taken away: how it was left is asked again.\n")


def downgrade() -> None:
    pass
