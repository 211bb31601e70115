"""The checkers and the generated files: linter, types, drift of API document, schema and front end types."""

import subprocess
import unittest
from pathlib import Path

from tests.jobs import ROOT
from tests.test_cli import run

BIN = ROOT / ".venv" / "bin"
FRONTEND = ROOT / "frontend"


class Tools(unittest.TestCase):
    def passes(self, *command: str, cwd: Path = ROOT) -> None:
        done = subprocess.run(command, cwd=cwd, capture_output=True, text=True, check=False)
        self.assertEqual(done.returncode, 0, done.stdout[-3000:] + done.stderr[-3000:])

    def test_ruff(self) -> None:
        self.passes(str(BIN / "ruff"), "check", ".")

    def test_format(self) -> None:
        self.passes(str(BIN / "ruff"), "format", "--check", ".")

    def test_mypy(self) -> None:
        self.passes(str(BIN / "mypy"))

    def test_vue_tsc(self) -> None:
        self.passes("npm", "run", "-s", "check", cwd=FRONTEND)


class Generated(unittest.TestCase):
    """`make api` writes these; a change of the API without it fails here.

    The front end's types are made from the OpenAPI document at every build, so vue-tsc finds what drifted.
    """

    def test_openapi_document(self) -> None:
        self.assertEqual(run("openapi")[1], (ROOT / "docs" / "openapi.json").read_text(encoding="utf-8"))

    def test_job_file_schema(self) -> None:
        self.assertEqual(run("schema")[1], (ROOT / "docs" / "job-file.schema.json").read_text(encoding="utf-8"))

    def test_charge_point_schema(self) -> None:
        kept = (ROOT / "docs" / "charge-point.schema.json").read_text(encoding="utf-8")
        self.assertEqual(run("schema", "charge-point")[1], kept)
