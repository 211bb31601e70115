"""The recipes of CONTRIBUTING.md, followed to the letter on a copy of the project, which must then pass."""

import json
import os
import re
import shutil
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from typing import Any

from tests.jobs import DEVICE_IN_UNIT, ROOT

HEADING = re.compile(r"^## (?P<title>.+)$", re.MULTILINE)
PLACE = r"(?:At the end of `(?P<end>[^`]+)`|In `(?P<file>[^`]+)`, (?P<how>after|instead of) `(?P<anchor>[^`]+)`):"
STEP = re.compile(rf"^{PLACE}\n```\w+\n(?P<code>.*?)^```$", re.MULTILINE | re.DOTALL)
COPIED = ("fulmen", "tests", "examples", "docs")
LEFT_OUT = shutil.ignore_patterns("__pycache__", "browser", "bench", "screenshots", "fonts")

EDITIONS = "test_register.Register.test_every_edition_knows_every_rule_and_only_those"
# Older files read on, and the schema keeps what it promised.
FILES = ("test_upgrades.EveryFile.test_each_reads_and_writes_as_the_present_version", "test_schema_promises")


def recipe(title: str) -> str:
    """The text under one heading."""
    text = (ROOT / "CONTRIBUTING.md").read_text(encoding="utf-8")
    parts = HEADING.split(text)
    return dict(zip(parts[1::2], parts[2::2], strict=True))[title]


def follow(title: str, copy: Path) -> int:
    """Put every block of a recipe where its line says; how many files it opened."""
    opened = set()
    for step in STEP.finditer(recipe(title)):
        path = copy / (step["end"] or step["file"])
        text, code = path.read_text(encoding="utf-8"), step["code"]
        if step["end"]:
            text += code
        elif text.count(step["anchor"]) != 1:
            raise AssertionError(f"{path.name} holds “{step['anchor']}” {text.count(step['anchor'])} times")
        elif step["how"] == "after":
            text = text.replace(f"{step['anchor']}\n", f"{step['anchor']}\n{code}")
        else:
            text = text.replace(step["anchor"], code.removesuffix("\n"))
        path.write_text(text, encoding="utf-8")
        opened.add(path)
    return len(opened)


class Recipes(unittest.TestCase):
    def setUp(self) -> None:
        self.folder = tempfile.TemporaryDirectory()
        self.addCleanup(self.folder.cleanup)
        self.copy = Path(self.folder.name)
        for name in COPIED:
            shutil.copytree(ROOT / name, self.copy / name, ignore=LEFT_OUT)
        # The register's test looks at the browser's code too.
        (self.copy / "frontend" / "src").mkdir(parents=True)

    def python(self, *arguments: str) -> subprocess.CompletedProcess[str]:
        where = {**os.environ, "PYTHONPATH": str(self.copy), "PYTHONDONTWRITEBYTECODE": "1"}
        return subprocess.run(
            [sys.executable, *arguments], cwd=self.copy, env=where, capture_output=True, text=True, check=False
        )

    def passes(self, *tests: str) -> None:
        """What holds just that which the recipe adds, on the copy; the rest is held by the suite itself."""
        done = self.python("-m", "unittest", *(f"tests.core.{test}" for test in tests))
        self.assertEqual(done.returncode, 0, done.stderr[-3000:])

    def designed(self, **changes: Any) -> dict[str, Any]:
        document = json.loads((self.copy / "examples" / f"{DEVICE_IN_UNIT}.json").read_text(encoding="utf-8"))
        for path, value in changes.items():
            part: Any = document
            *parents, last = path.split("__")
            for name in parents:
                part = part[int(name)] if isinstance(part, list) else part[name]
            part[last] = value
        (self.copy / "job.json").write_text(json.dumps(document), encoding="utf-8")
        done = self.python("-m", "fulmen.cli", "design", "job.json", "--json")
        self.assertIn(done.returncode, (0, 1), done.stderr)
        self.assertTrue(done.stdout, done.stderr)
        return {one["key"]: one for one in json.loads(done.stdout)["findings"]}

    def test_add_a_cable_kind(self) -> None:
        self.assertEqual(follow("Add a cable kind", self.copy), 1)
        found = self.designed(circuits__0__cable__record="flat-ev")
        # It lies in a duct, where its own table rates nothing: its insulation's D column is taken, and its maker asked.
        self.assertEqual(found["weakest_section/ev"]["verdict"], "your_call")
        self.passes("test_tables.LookUp", "test_materials.Fixing", "test_search.Choices", EDITIONS)

    def test_change_a_limit(self) -> None:
        self.assertEqual(follow("Change a limit", self.copy), 1)
        own = self.designed()["own_rcd/ev"]
        self.assertEqual(own["verdict"], "falls_short")
        self.assertIn("10 mA", own["title"] + own["remedy"])
        self.passes("test_register.Register.test_each_entry_is_whole", "test_tables.Provenance", EDITIONS)

    def test_add_a_test_step(self) -> None:
        self.assertEqual(follow("Add a test step", self.copy), 3)
        reading = {"step": "earth_label", "subject": "origin", "outcome": "right", "taken_by": "R. Quillfeather", "taken_at": "2026-11-24T10:00:00Z"}  # fmt: skip
        found = self.designed(readings=[reading])
        self.assertEqual(found["reading_earth_label/origin"]["verdict"], "meets")
        self.passes("test_readings.Sequence", "test_evaluate.Examples", *FILES, EDITIONS)

    def test_add_a_survey_fact_with_its_finding(self) -> None:
        self.assertEqual(follow("Add a survey fact with its finding", self.copy), 5)
        self.assertEqual(self.designed()["tails_clipped/origin"]["verdict"], "needs")
        found = self.designed(supply__meter_tails_clipped="no")["tails_clipped/origin"]
        self.assertEqual((found["verdict"], found["place"]), ("falls_short", "tails"))
        self.passes(
            "test_register.Register.test_every_finding_comes_from_the_register", EDITIONS, "test_walk.Walk", *FILES
        )

    def test_add_a_fault(self) -> None:
        """Planted by its name, seen by the set, named by the ledger; refused where the house can't have it."""
        self.assertEqual(follow("Add a fault", self.copy), 1)
        examples = self.copy / "examples"
        written = ("-m", "fulmen.cli", "instruments", "--json", "read.json", "--fault", "lock_dead")
        tethered = self.python(*written, str(examples / f"{DEVICE_IN_UNIT}.json"))
        self.assertIn("can’t be in this house", tethered.stderr)
        self.designed(charge_points__0__tethered=False, charge_points__0__socket="type_2", readings=[])
        read = self.python(*written, "job.json")
        self.assertEqual(read.returncode, 0, read.stderr)
        rows = json.loads((self.copy / "read.json").read_text(encoding="utf-8"))
        self.assertIn(("connector_lock", "wrong"), {(one["step"], one["outcome"]) for one in rows})
        asked = (
            "import json; from fulmen.core.editing.job_file import parse_job; from fulmen.core.evaluate import evaluate;"
            "from fulmen.core.reference.rule_set import rule_set; job = parse_job(json.load(open('job.json')));"
            "print([c.fault for d in evaluate(job, rule_set(job.rule_set)).looks_like for c in d.candidates])"
        )
        wrong = {"step": "connector_lock", "subject": "ev", "outcome": "wrong", "reason": "it pulls out",
                 "taken_by": "R. Quillfeather", "taken_at": "2026-11-24T10:00:00Z"}  # fmt: skip
        self.designed(charge_points__0__tethered=False, charge_points__0__socket="type_2", readings=[wrong])
        self.assertEqual(self.python("-c", asked).stdout.strip(), "['lock_dead']")
        self.passes("test_looks_like.Register")

    def test_every_recipe_but_the_screens_is_followed(self) -> None:
        followed = {name.removeprefix("test_").replace("_", " ") for name in dir(self) if name.startswith("test_")}
        text = (ROOT / "CONTRIBUTING.md").read_text(encoding="utf-8")
        recipes = {title.lower() for title in HEADING.findall(text) if title.split()[0] in ("Add", "Change")}
        self.assertEqual(recipes - followed, {"add a screen"})
