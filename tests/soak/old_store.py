"""A store as the version before the chain left it, with jobs, readings, papers and photos in it."""

from __future__ import annotations

from datetime import UTC, datetime
from pathlib import Path

from alembic import command
from alembic.config import Config

from fulmen.core.model.stops import Stop
from fulmen.photos import make_photo
from fulmen.settings import Settings
from fulmen.store import papers
from fulmen.store.database import open_database, sessions
from fulmen.store.photos import Place, add_photo
from fulmen.store.upkeep import MIGRATIONS, migrate
from tests.acts import signed_job, warrant
from tests.jobs import DEVICE_IN_UNIT, job
from tests.photos import picture

NOW = datetime(2026, 11, 24, 9, 30, tzinfo=UTC)
OLD = "0004"


def older_store(folder: Path, jobs: int) -> Path:
    """The database's file, taken back to the older schema."""
    settings = Settings(database=folder / "older.sqlite")
    migrate(settings)
    engine = open_database(settings)
    made, photo = sessions(engine), make_photo(picture())
    for number in range(1, jobs + 1):
        told = job(DEVICE_IN_UNIT, {"title": f"House {number}"})
        stored = signed_job(made, told)
        add_photo(made, stored.id, photo, Place(Stop.CUT_OUT), NOW)
        by = warrant(made, stored.id)
        papers.ask_for_certificate(made, stored.id, papers.Seen(stored.version), told.certificate.signatures, by, NOW)
        papers.issue_next(made, lambda issue: b"%PDF-" + issue.data.encode() * 20, lambda: NOW)
    engine.dispose()
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.attributes["url"] = settings.database_url()
    command.downgrade(config, OLD)
    return settings.database
