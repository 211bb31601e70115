"""Settings: each variable read, bad ones refused by name; all of them documented; the householders' own door."""

import contextlib
import io
import os
import unittest
from unittest.mock import patch

from fulmen import cli
from fulmen.settings import Settings, read_settings
from tests.jobs import ROOT


def read(**variables: str) -> Settings:
    with patch.dict(os.environ, {f"FULMEN_{name}": value for name, value in variables.items()}):
        return read_settings()


class Variables(unittest.TestCase):
    def test_each_is_read(self) -> None:
        made = read(
            DATABASE="/tmp/x.sqlite",
            HOST="0.0.0.0",
            PORT="9000",
            HOUSEHOLDER_PORT="9001",
            HOUSEHOLDER_HOST="::1",
            HOUSEHOLDER_URL="https://ask.example",
        )
        self.assertEqual((str(made.database), made.host, made.port), ("/tmp/x.sqlite", "0.0.0.0", 9000))
        self.assertEqual(
            (made.householder_port, made.householder_host, made.householder_url), (9001, "::1", "https://ask.example")
        )
        self.assertLessEqual({"0.0.0.0", "::1", "ask.example"}, made.host_names())

    def test_the_householders_door_is_shut_unless_it_is_asked_for(self) -> None:
        self.assertEqual(read().householder_port, 0)

    def test_what_a_made_link_begins_with(self) -> None:
        self.assertEqual(read().link_url(), "")
        self.assertEqual(read(HOUSEHOLDER_PORT="8751").link_url(), "http://127.0.0.1:8751")
        self.assertEqual(
            read(HOUSEHOLDER_PORT="8751", HOUSEHOLDER_URL="https://ask.example").link_url(), "https://ask.example"
        )

    def test_bad_ones_are_refused_by_name(self) -> None:
        for name, value in (("PORT", "0"), ("PORT", "65536"), ("PORT", "http"), ("HOUSEHOLDER_PORT", "-1"), ("HOUSEHOLDER_PORT", "65536"),
                            ("HOUSEHOLDER_URL", "ask.example"), ("HOUSEHOLDER_URL", "ftp://ask.example")):  # fmt: skip
            with self.subTest(name, value=value), self.assertRaisesRegex(ValueError, f"FULMEN_{name} must"):
                read(**{name: value})

    def test_every_one_is_documented(self) -> None:
        documented = (ROOT / "docs" / "commands.md").read_text(encoding="utf-8")
        for field in Settings.__dataclass_fields__:
            self.assertIn(f"`FULMEN_{field.upper()}`", documented)


class Doors(unittest.TestCase):
    def test_serving_opens_the_second_door_only_where_a_port_is_set(self) -> None:
        for port, doors in ((0, 1), (8751, 2)):
            with (
                patch("fulmen.web.doors.listening.create_server") as server,
                patch("fulmen.web.app.create_app") as create,
                patch("fulmen.documents.render_process.RenderProcess") as render,
                contextlib.redirect_stdout(io.StringIO()) as told,
            ):
                cli._run_server(Settings(householder_port=port))
            with self.subTest(port):
                self.assertEqual((create.call_count, server.call_count), (doors, doors))
                self.assertEqual(server.return_value.run.call_count, doors)
                render.return_value.start.assert_called_once_with()
                self.assertIn("Fulmen is at http://127.0.0.1:8750/", told.getvalue())
