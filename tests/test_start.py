"""It starts or says why: one sentence, an exit code, no traceback; and nothing that stood there is touched."""

import os
import socket
import sqlite3
import subprocess
import sys
import tempfile
import unittest
from contextlib import closing
from pathlib import Path
from unittest.mock import patch

from fulmen import cli
from fulmen.settings import ROOT, Settings
from fulmen.store.upkeep import migrate
from tests.app import PATIENCE_S


def free_port() -> int:
    """A port of this machine that nobody listens at."""
    with closing(socket.socket()) as free:
        free.bind(("127.0.0.1", 0))
        return int(free.getsockname()[1])


class Start(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        (self.folder / "dist").mkdir()
        (self.folder / "dist" / "index.html").write_text("<!doctype html>", encoding="utf-8")
        self.database = self.folder / "fulmen.sqlite"
        self.env = {
            "FULMEN_DATABASE": str(self.database), "FULMEN_FRONTEND": str(self.folder / "dist"), "FULMEN_PORT": str(free_port()),
        }  # fmt: skip

    def refused(self, words: str, command: str = "serve", **env: str) -> None:
        """It ends at once with code 2 and one sentence, and the database is as it was."""
        before = self.database.read_bytes() if self.database.is_file() else None
        with patch.dict(os.environ, {**self.env, **env}), patch("sys.stderr") as stderr, patch("sys.stdout"):
            code = cli.main([command])
        said = "".join(str(call.args[0]) for call in stderr.write.call_args_list).strip()
        self.assertEqual(code, 2, said)
        self.assertIn(words, said)
        self.assertEqual(len(said.splitlines()), 1, said)
        self.assertNotIn("Traceback", said)
        if before is not None:
            self.assertEqual(self.database.read_bytes(), before)

    def whole(self) -> None:
        migrate(Settings(database=self.database))
        with closing(sqlite3.connect(self.database)) as database:
            database.execute("PRAGMA journal_mode=DELETE")

    def test_a_database_that_is_none(self) -> None:
        self.database.write_text("Dear diary, " * 100, encoding="utf-8")
        self.refused("is no database")

    def test_a_database_that_breaks_off(self) -> None:
        self.whole()
        for keep in (0.3, 0.6, 0.95):
            data = self.database.read_bytes()
            self.database.write_bytes(data[: int(len(data) * keep)])
            with self.subTest(keep):
                self.refused("is damaged")
            self.database.write_bytes(data)

    def test_a_database_with_a_broken_page(self) -> None:
        self.whole()
        data = bytearray(self.database.read_bytes())
        data[4096 * 3 : 4096 * 4] = b"\xff" * 4096
        self.database.write_bytes(data)
        self.refused("is damaged")

    def test_a_database_of_a_newer_fulmen_or_of_something_else(self) -> None:
        self.whole()
        with closing(sqlite3.connect(self.database)) as database, database:
            database.execute("UPDATE alembic_version SET version_num = '9999'")
        self.refused("written by a newer Fulmen (schema 9999")
        self.database.unlink()
        with closing(sqlite3.connect(self.database)) as database, database:
            database.execute("CREATE TABLE recipe (name TEXT)")
        self.refused("not one of Fulmen's")

    def test_a_folder_an_empty_path_and_a_place_that_is_not_there(self) -> None:
        self.refused("is a folder", FULMEN_DATABASE=str(self.folder))
        self.refused("is a folder", FULMEN_DATABASE="")
        self.refused("fulmen:", FULMEN_DATABASE=str(self.folder / "dist" / "index.html" / "fulmen.sqlite"))

    def test_a_front_end_that_is_not_built(self) -> None:
        self.refused("The front end is not built", FULMEN_FRONTEND=str(self.folder))

    def test_wrong_settings(self) -> None:
        for env in (
            {"FULMEN_PORT": "many"},
            {"FULMEN_PORT": "0"},
            {"FULMEN_PORT": "70000"},
            {"FULMEN_HOUSEHOLDER_PORT": "-1"},
        ):
            with self.subTest(env):
                self.refused("must be a number", **env)
        self.refused("must begin with http", FULMEN_HOUSEHOLDER_URL="ask.example")

    def test_a_port_that_is_taken(self) -> None:
        with closing(socket.socket()) as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            port = str(taken.getsockname()[1])
            self.refused("another program listens there already", FULMEN_PORT=port)
            self.refused("FULMEN_HOUSEHOLDER_PORT", FULMEN_HOUSEHOLDER_PORT=port)

    def test_the_other_commands_say_it_too(self) -> None:
        self.refused("There is no database", "doctor")

    def test_looking_over_changes_nothing(self) -> None:
        self.whole()
        with patch.dict(os.environ, self.env), patch("sys.stdout"):
            before = self.database.read_bytes()
            self.assertEqual(cli.main(["doctor"]), 0)
            self.assertEqual(self.database.read_bytes(), before)
        with closing(sqlite3.connect(self.database)) as database, database:
            database.execute("UPDATE alembic_version SET version_num = '0004'")
        self.refused("start this Fulmen on it first", "doctor")

    def test_the_address_is_told_once_it_listens(self) -> None:
        """A process of its own: what it prints can be asked at once."""
        import urllib.request

        port = free_port()
        env = {**os.environ, **self.env, "FULMEN_PORT": str(port)}
        server = subprocess.Popen(
            [sys.executable, "-m", "fulmen.cli", "serve"], cwd=ROOT, env=env, stdout=subprocess.PIPE, text=True
        )
        try:
            assert server.stdout is not None
            line = server.stdout.readline()
            self.assertIn(f"http://127.0.0.1:{port}/", line)
            with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/v1/jobs", timeout=PATIENCE_S) as answer:
                self.assertEqual(answer.status, 200)
        finally:
            server.terminate()
            server.wait(PATIENCE_S)
            assert server.stdout is not None
            server.stdout.close()


if __name__ == "__main__":
    unittest.main()
