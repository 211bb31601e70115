"""Acts that an older version of the store kept: told as signed elsewhere, and counting for nothing until signed anew."""

import json
import sqlite3
from contextlib import closing

from alembic import command
from alembic.config import Config

from fulmen.core.editing.acts import as_history
from fulmen.core.model.readings import HOLDS
from fulmen.store import operations
from fulmen.store.doctor import first_fault
from fulmen.store.stored_jobs import reading_rows
from fulmen.store.tables import JobRow
from fulmen.store.upkeep import MIGRATIONS, migrate
from tests.acts import sign_as_told
from tests.app import NOW, AppCase
from tests.jobs import DEVICE_IN_UNIT, job


class OlderStore(AppCase):
    def older(self, job_id: int) -> None:
        """A job as the version before kept it: acts within its document and among its readings, whoever brought them."""
        told = job(DEVICE_IN_UNIT)
        with self.sessions() as session, session.begin():
            row = session.get_one(JobRow, job_id)
            document = json.loads(json.dumps(row.document))
            document.pop("elsewhere")
            plain = told.model_dump(mode="json")
            row.document = document | {"decisions": plain["decisions"], "certificate": plain["certificate"]}
            session.add_all(reading_rows(job_id, tuple(one for one in told.readings if one.step in HOLDS)))

    def brought_up(self) -> None:
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        config.attributes["url"] = self.settings.database_url()
        command.downgrade(config, "0008")
        migrate(self.settings)

    def setUp(self) -> None:
        super().setUp()
        self.told = job(DEVICE_IN_UNIT)
        operations.create_job(self.sessions, job(DEVICE_IN_UNIT, {"readings": [], "decisions": []}), NOW)
        # One whose certificate this store issued, signatures and all.
        self.issued = self.store(DEVICE_IN_UNIT).id
        self.issue(job_id=self.issued)

    def test_they_are_history_until_signed_anew(self) -> None:
        self.older(1)
        self.brought_up()
        found = operations.load_job(self.sessions, 1)
        moved = as_history(self.told)
        self.assertEqual(found.job.elsewhere.holds, moved.elsewhere.holds)
        self.assertEqual(found.job.elsewhere.decisions, self.told.decisions)
        self.assertEqual(found.job.elsewhere.signatures, self.told.certificate.signatures)
        self.assertEqual((found.job.decisions, found.job.certificate.signatures), ((), ()))
        self.assertEqual([one for one in found.job.readings if one.step in HOLDS], [])
        self.assertEqual([one.reading for one in found.evaluation.steps if one.step in HOLDS], [None] * 2)
        after = sign_as_told(self.sessions, 1, self.told)
        self.assertEqual((len(after.job.decisions), len(after.job.elsewhere.holds)), (1, 2))
        self.assertTrue(all(one.met for one in after.evaluation.steps if one.step in HOLDS))

    def test_saving_does_not_tell_them_twice(self) -> None:
        self.older(1)
        self.brought_up()
        for title in ("Once", "Twice"):
            found = operations.load_job(self.sessions, 1)
            changed = found.job.model_copy(update={"title": title})
            operations.save_job(self.sessions, 1, found.version, changed, NOW)
        self.assertEqual(operations.load_job(self.sessions, 1).job.elsewhere, found.job.elsewhere)
        self.assertEqual(len(found.job.elsewhere.holds), 2)

    def test_what_this_store_issued_stays_signed(self) -> None:
        self.brought_up()
        found = operations.load_job(self.sessions, self.issued)
        self.assertEqual(found.job.certificate.signatures, self.told.certificate.signatures)

    def test_acts_and_calls_are_sealed(self) -> None:
        self.assertEqual(first_fault(self.settings.database), "")
        for table, column in (("act", "name"), ("decision", "document")):
            with closing(sqlite3.connect(self.settings.database)) as database, database:
                with self.assertRaises(sqlite3.IntegrityError):
                    database.execute(f"UPDATE {table} SET {column} = '\"forged\"'")
                guard = f"{table}_no_update"
                (sql,) = database.execute("SELECT sql FROM sqlite_master WHERE name = ?", (guard,)).fetchone()
                database.execute(f"DROP TRIGGER {guard}")
                (kept,) = database.execute(f"SELECT {column} FROM {table} LIMIT 1").fetchone()
                database.execute(f"UPDATE {table} SET {column} = '\"forged\"' WHERE id = 1")
                database.execute(sql)
            self.assertIn("is not what was kept", first_fault(self.settings.database))
            with closing(sqlite3.connect(self.settings.database)) as database, database:
                database.execute(f"DROP TRIGGER {guard}")
                database.execute(f"UPDATE {table} SET {column} = ? WHERE id = 1", (kept,))
                database.execute(sql)
        self.assertEqual(first_fault(self.settings.database), "")
