"""Letters, photos, the householder's link and answers, the stand-in desk's cases, a user's own charge points."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    _letters()
    _link_and_what_comes_by_it()
    _desk_and_charge_points()


def _letters() -> None:
    op.create_table(
        "letter",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("document", sa.JSON, nullable=False),
    )
    op.create_index("ix_letter_job_id", "letter", ["job_id"])
    for verb in ("UPDATE", "DELETE"):
        op.execute(
            f"CREATE TRIGGER letter_no_{verb.lower()} BEFORE {verb} ON letter "
            "BEGIN SELECT RAISE(ABORT, 'letter entries are never rewritten'); END"
        )


def _link_and_what_comes_by_it() -> None:
    op.create_table(
        "survey_link",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("secret_sha256", sa.String(64), nullable=False, unique=True),
        sa.Column("made_by", sa.String(200), nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
        sa.Column("expires_at", sa.DateTime, nullable=False),
        sa.Column("withdrawn_at", sa.DateTime, nullable=True),
    )
    op.create_index("ix_survey_link_job_id", "survey_link", ["job_id"])
    op.create_table(
        "photo",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("link_id", sa.Integer, sa.ForeignKey("survey_link.id"), nullable=True),
        sa.Column("stop", sa.String(40), nullable=False),
        sa.Column("question", sa.String(40), nullable=False),
        sa.Column("sha256", sa.String(64), nullable=False),
        sa.Column("width_px", sa.Integer, nullable=False),
        sa.Column("height_px", sa.Integer, nullable=False),
        sa.Column("added_at", sa.DateTime, nullable=False),
        sa.Column("jpeg", sa.LargeBinary, nullable=False),
        sa.Column("thumbnail", sa.LargeBinary, nullable=False),
    )
    op.create_index("ix_photo_job_id", "photo", ["job_id"])
    op.create_index("ix_photo_link_id", "photo", ["link_id"])
    op.create_table(
        "householder_answer",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("link_id", sa.Integer, sa.ForeignKey("survey_link.id"), nullable=False),
        sa.Column("question", sa.String(40), nullable=False),
        sa.Column("value", sa.JSON, nullable=True),
        sa.Column("state", sa.String(20), nullable=False),
        sa.Column("note", sa.Text, nullable=False),
        sa.Column("given_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("link_id", "question"),
    )


def _desk_and_charge_points() -> None:
    op.create_table(
        "desk_case",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("job.id"), nullable=False),
        sa.Column("form", sa.JSON, nullable=False),
        sa.Column("pending", sa.JSON, nullable=False),
        sa.Column("received_on", sa.Date, nullable=False),
        sa.Column("today", sa.Date, nullable=False),
    )
    op.create_index("ix_desk_case_job_id", "desk_case", ["job_id"])
    op.create_table(
        "charge_point_record",
        sa.Column("id", sa.String(40), primary_key=True),
        sa.Column("document", sa.JSON, nullable=False),
    )


def downgrade() -> None:
    for table in ("charge_point_record", "desk_case", "householder_answer", "photo", "survey_link", "letter"):
        op.drop_table(table)
