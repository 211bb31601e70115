"""Migrations: a database of the first version keeps its jobs; up, down and up again ends the same."""

import json
import sqlite3
import tempfile
import unittest
from contextlib import closing, redirect_stdout
from io import StringIO
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config

from fulmen.settings import Settings
from fulmen.store.database import open_database, sessions
from fulmen.store.operations import load_job
from fulmen.store.upkeep import MIGRATIONS, migrate
from tests.jobs import HALFWAY, example_text


class Upgrade(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.settings = Settings(database=Path(folder.name) / "old.sqlite")
        self.config = Config()
        self.config.set_main_option("script_location", str(MIGRATIONS))
        self.config.attributes["url"] = self.settings.database_url()

    def tables(self) -> set[str]:
        with closing(sqlite3.connect(self.settings.database)) as database:
            return {name for (name,) in database.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}

    def test_a_job_of_the_first_version_is_read_by_the_newest(self) -> None:
        command.upgrade(self.config, "0001")
        document = json.loads(example_text(HALFWAY))
        # What the first version did not know is not in its document.
        for part in ("load", "day", "defects", "letters", "readings"):
            document.pop(part)
        for field in ("meter", "fuse_proven", "tns_confirmation"):
            document["supply"].pop(field)
        document["charge_points"][0].pop("arrangement")
        document |= {"schema_version": 1, "arrangement": {"car_earth": "house_earth"}}
        with closing(sqlite3.connect(self.settings.database)) as database, database:
            columns = {row[1]: row for row in database.execute("PRAGMA table_info(job)")}
            values = {
                name: 0 if "INT" in row[2] else "2026-11-01 10:00:00" if "DATE" in row[2] else ""
                for name, row in columns.items()
            }
            values |= {"id": 1, "version": 1, "title": "Old", "document": json.dumps(document)}
            marks = ", ".join("?" for _ in values)
            database.execute(f"INSERT INTO job ({', '.join(values)}) VALUES ({marks})", list(values.values()))
        migrate(self.settings)
        engine = open_database(self.settings)
        job = load_job(sessions(engine), 1).job
        engine.dispose()
        self.assertEqual(
            (job.title, job.supply.meter.value, job.charge_points[0].arrangement.metal_at_unit.value),
            (document["title"], "not_seen", "not_seen"),
        )
        self.assertEqual((job.letters, job.defects, job.load.method.value), ((), (), "entered"))

    def test_down_and_up_again(self) -> None:
        migrate(self.settings)
        newest = self.tables()
        command.downgrade(self.config, "0001")
        self.assertLess(self.tables(), newest)
        self.assertIn("photo", newest - self.tables())
        migrate(self.settings)
        self.assertEqual(self.tables(), newest)

    def test_it_says_how_many_jobs_are_asked_again(self) -> None:
        command.upgrade(self.config, "0011")
        plain = json.loads(example_text(HALFWAY))
        # Where a record answered for a unit without such a device, at a board fitted with the job, nothing was a default.
        answered = json.loads(json.dumps(plain))
        answered["charge_points"][0] |= {"record": "tethered-all-inside", "open_pen_inside": "no"}
        answered["boards"][0]["fitted_with_this_job"] = True
        self.keep([one | {"schema_version": 5} for one in (plain, answered, plain)])
        with redirect_stdout(StringIO()) as told:
            migrate(self.settings)
        self.assertIn("2 of 3 jobs need facts", told.getvalue())
        with closing(sqlite3.connect(self.settings.database)) as database:
            counted = [count for (count,) in database.execute("SELECT open_checks FROM job ORDER BY id")]
        self.assertEqual(counted, [1, 0, 1], "the list tells no longer that all of it meets")

    def test_a_unit_taken_away_is_asked_again(self) -> None:
        """A yes of version 7 could mean two things: the list tells no longer that all of it meets."""
        command.upgrade(self.config, "0012")
        there, gone = ({"title": "x", "schema_version": 7, "site": {"work": work}} for work in ("addition", "removed"))
        self.keep([there, gone])
        with redirect_stdout(StringIO()) as told:
            migrate(self.settings)
        self.assertIn("1 of the jobs of a unit taken away", told.getvalue())
        with closing(sqlite3.connect(self.settings.database)) as database:
            counted = [count for (count,) in database.execute("SELECT open_checks FROM job ORDER BY id")]
        self.assertEqual(counted, [0, 1])

    def keep(self, documents: list[dict[str, Any]]) -> None:
        """Jobs in a store of an earlier revision, none of them open."""
        with closing(sqlite3.connect(self.settings.database)) as database, database:
            columns = {row[1]: row for row in database.execute("PRAGMA table_info(job)")}
            for number, document in enumerate(documents, 1):
                values = {
                    name: 0 if "INT" in row[2] else "2026-11-01 10:00:00" if "DATE" in row[2] else ""
                    for name, row in columns.items()
                }
                values |= {"id": number, "version": 1, "document": json.dumps(document)}
                marks = ", ".join("?" for _ in values)
                database.execute(f"INSERT INTO job ({', '.join(values)}) VALUES ({marks})", list(values.values()))
