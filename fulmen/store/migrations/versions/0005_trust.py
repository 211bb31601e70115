"""A revision of each job, the queue of papers, the chain of hashes, and a full-text index of the jobs."""

from __future__ import annotations

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.types import TypeEngine

from fulmen.store.chain import append, content_sha256
from fulmen.store.tables import Utc

revision = "0005"
down_revision = "0004"

# Substrings of three letters and more are found by the index.
SEARCHED = ("title", "reference", "householder", "address")


def upgrade() -> None:
    op.execute("ALTER TABLE job ADD COLUMN revision INTEGER NOT NULL DEFAULT 1")
    op.create_table(
        "issue_request",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("signatures", sa.JSON, nullable=False),
        sa.Column("asked_at", sa.DateTime, nullable=False),
        sa.Column("state", sa.String(20), nullable=False),
        sa.Column("number", sa.String(40), nullable=True, unique=True),
        sa.Column("paper_id", sa.Integer, sa.ForeignKey("paper.id"), nullable=True),
        sa.Column("refused", sa.Text, nullable=False, server_default=""),
    )
    op.create_index("ix_issue_request_state", "issue_request", ["state"])
    op.create_index("ix_issue_request_job_id", "issue_request", ["job_id"])
    op.create_table(
        "chain",
        sa.Column("id", sa.Integer, primary_key=True, autoincrement=True),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("row_id", sa.Integer, nullable=False),
        sa.Column("content_sha256", sa.String(64), nullable=False),
        sa.Column("head", sa.String(64), nullable=False),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_chain_row", "chain", ["kind", "row_id"])
    for verb in ("UPDATE", "DELETE"):
        op.execute(
            f"CREATE TRIGGER chain_no_{verb.lower()} BEFORE {verb} ON chain "
            "BEGIN SELECT RAISE(ABORT, 'chain entries are never rewritten'); END"
        )
    op.execute(
        "CREATE TRIGGER photo_no_update BEFORE UPDATE ON photo "
        "BEGIN SELECT RAISE(ABORT, 'photo entries are never rewritten'); END"
    )
    _index_jobs()
    _seal_what_is_there()


def _index_jobs() -> None:
    # In the order of the list, and with all that is looked for: short words are looked for in it, row by row.
    op.drop_index("ix_job_changed_at", "job")
    op.create_index("ix_job_listed", "job", ["changed_at", *SEARCHED])
    columns = ", ".join(SEARCHED)
    new, old = (", ".join(f"{row}.{name}" for name in SEARCHED) for row in ("new", "old"))
    put = f"INSERT INTO job_search(rowid, {columns}) VALUES (new.id, {new});"
    out = f"INSERT INTO job_search(job_search, rowid, {columns}) VALUES ('delete', old.id, {old});"
    changed = " OR ".join(f"old.{name} IS NOT new.{name}" for name in SEARCHED)
    op.execute(
        f"CREATE VIRTUAL TABLE job_search USING fts5({columns}, content='job', content_rowid='id', tokenize='trigram')"
    )
    op.execute(f"INSERT INTO job_search(rowid, {columns}) SELECT id, {columns} FROM job")
    op.execute(f"CREATE TRIGGER job_search_insert AFTER INSERT ON job BEGIN {put} END")
    op.execute(f"CREATE TRIGGER job_search_delete AFTER DELETE ON job BEGIN {out} END")
    op.execute(f"CREATE TRIGGER job_search_update AFTER UPDATE ON job WHEN {changed} BEGIN {out} {put} END")


# What stood in the tables when the chain began.
TEXT, WHOLE = sa.Text(), sa.Integer()
STOOD: dict[str, dict[str, TypeEngine[Any]]] = {
    "reading": {"job_id": WHOLE, "step": TEXT, "document": sa.JSON()},
    "letter": {"job_id": WHOLE, "document": sa.JSON()},
    "photo": {
        "job_id": WHOLE, "link_id": WHOLE, "stop": TEXT, "question": TEXT, "width_px": WHOLE, "height_px": WHOLE,
        "jpeg": sa.LargeBinary(), "thumbnail": sa.LargeBinary(),
    },
    "paper": {
        "job_id": WHOLE, "number": TEXT, "kind": TEXT, "supersedes_id": WHOLE, "issued_at": Utc(), "data": TEXT,
        "sha256": TEXT, "pdf": sa.LargeBinary(),
    },
    "audit": {"job_id": WHOLE, "at": Utc(), "verb": TEXT, "detail": TEXT},
}  # fmt: skip


def _seal_what_is_there() -> None:
    """What older stores hold is sealed as it stands now, table by table."""
    connection = op.get_bind()
    for kind, columns in STOOD.items():
        made = [sa.column("id", WHOLE), *(sa.column(name, type_) for name, type_ in columns.items())]
        table = sa.table(kind, *made)
        numbers = connection.scalars(sa.select(table.c.id).order_by(table.c.id)).all()
        for number in numbers:
            row = connection.execute(sa.select(table).where(table.c.id == number)).one()
            append(connection, [(kind, row.id, content_sha256(kind, row))])


def downgrade() -> None:
    for name in ("job_search_update", "job_search_delete", "job_search_insert", "photo_no_update"):
        op.execute(f"DROP TRIGGER {name}")
    for table in ("job_search", "chain", "issue_request"):
        op.drop_table(table)
    op.drop_index("ix_job_listed", "job")
    op.create_index("ix_job_changed_at", "job", ["changed_at"])
    op.execute("ALTER TABLE job DROP COLUMN revision")
