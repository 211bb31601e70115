"""Job documents of version 6, in which nothing is a fact of a found thing because it was a default.

Documents are brought up as they are read, and papers that were issued stay as they are; an older Fulmen would not read
what this one saves. How many jobs are asked again for facts that they seemed to hold is said, and the list of jobs does
not go on telling that all of it meets.
"""

from __future__ import annotations

import json
import sys

import sqlalchemy as sa
from alembic import op

from fulmen.core.editing.upgrades import asks_again_for_facts

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    connection = op.get_bind()
    documents = connection.execute(sa.text("SELECT id, document FROM job")).all()
    asked = [number for number, text in documents if asks_again_for_facts(json.loads(text))]
    for number in asked:
        connection.execute(sa.text("UPDATE job SET open_checks = 1 WHERE id = :id AND open_checks = 0"), {"id": number})
    if asked:
        told = f"{len(asked)} of {len(documents)} jobs need facts that only a default stood for; each asks for its own."
        sys.stdout.write(f"{told}\n")


def downgrade() -> None:
    pass
