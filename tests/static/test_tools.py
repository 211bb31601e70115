"""The checkers and the generated files: linter, types, drift of API document, schema and front end types."""

import importlib
import subprocess
import unittest
from pathlib import Path
from typing import ClassVar

from tests.jobs import ROOT
from tests.test_cli import run

BIN = ROOT / ".venv" / "bin"
FRONTEND = ROOT / "frontend"


class Tools(unittest.TestCase):
    """The checkers run beside each other: each by itself leaves a core idle."""

    COMMANDS: ClassVar[dict[str, tuple[list[str], Path]]] = {
        "vue-tsc": (["npm", "run", "-s", "check"], FRONTEND),
        "eslint": (["npm", "run", "-s", "lint"], FRONTEND),
        "prettier": (["npm", "run", "-s", "format"], FRONTEND),
        "mypy": ([str(BIN / "mypy")], ROOT),
        "ruff": ([str(BIN / "ruff"), "check", "."], ROOT),
        "format": ([str(BIN / "ruff"), "format", "--check", "."], ROOT),
    }
    running: ClassVar[dict[str, subprocess.Popen[str]]] = {}

    @classmethod
    def setUpClass(cls) -> None:
        for name, (command, folder) in cls.COMMANDS.items():
            cls.running[name] = subprocess.Popen(
                command, cwd=folder, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True
            )

    def passes(self, name: str) -> None:
        said, _ = self.running[name].communicate()
        self.assertEqual(self.running[name].returncode, 0, said[-3000:])

    def test_ruff(self) -> None:
        self.passes("ruff")

    def test_format(self) -> None:
        self.passes("format")

    def test_mypy(self) -> None:
        self.passes("mypy")

    def test_eslint(self) -> None:
        self.passes("eslint")

    def test_prettier(self) -> None:
        self.passes("prettier")

    def test_vue_tsc(self) -> None:
        self.passes("vue-tsc")


class Generated(unittest.TestCase):
    """`make api` writes these; a change of the API without it fails here.

    The front end's types are made from the OpenAPI document at every build, so vue-tsc finds what drifted.
    """

    def test_openapi_document(self) -> None:
        # In a process of its own: here the routes may have been imported undescribed.
        made = subprocess.run([str(BIN / "fulmen"), "openapi"], capture_output=True, text=True, check=True).stdout
        self.assertEqual(made, (ROOT / "docs" / "openapi.json").read_text(encoding="utf-8"))

    def test_no_half_a_document(self) -> None:
        importlib.import_module("fulmen.web.app")
        with self.assertRaisesRegex(RuntimeError, "process of its own"):
            run("openapi")

    def test_job_file_schema(self) -> None:
        self.assertEqual(run("schema")[1], (ROOT / "docs" / "job-file.schema.json").read_text(encoding="utf-8"))

    def test_rules_page(self) -> None:
        self.assertEqual(run("rules")[1], (ROOT / "docs" / "rules.md").read_text(encoding="utf-8"))

    def test_charge_point_schema(self) -> None:
        kept = (ROOT / "docs" / "charge-point.schema.json").read_text(encoding="utf-8")
        self.assertEqual(run("schema", "charge-point")[1], kept)
