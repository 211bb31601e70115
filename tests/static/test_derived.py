"""The installation is derived once, the design is handed no reading, and nothing is kept behind anybody's back."""

import ast
import unittest
from collections.abc import Iterator
from pathlib import Path

from tests.sources import tree_of

ROOT = Path(__file__).resolve().parents[2]
CORE = ROOT / "fulmen" / "core"
# The design layer: what it goes by of the readings is `Measured`, made in one place.
DESIGN = ("installation", "demand", "survey", "circuit", "checks")
MADE_IN = "circuit/measured.py"
# Who asks the installation; the wings below it are the model, and what edits a job.
ASKS = ("demand", "survey", "circuit", "checks", "verification", "simulations", "judging", "practice", "alternatives")
PARTS = {"boards", "circuits", "charge_points", "maker_cables", "tails"}
NAMES = {"id", "feeds", "from_board", "board", "group"}


def trees(*wings: str) -> Iterator[tuple[str, ast.Module]]:
    for wing in wings:
        for path in sorted((CORE / wing).rglob("*.py")):
            yield str(path.relative_to(CORE)), tree_of(path)


def decorators(node: ast.FunctionDef | ast.ClassDef) -> list[str]:
    return [ast.unparse(one) for one in node.decorator_list]


def looks_up(node: ast.AST) -> str:
    """A search through the parts of a job for one of a name, as text; nothing where it is none."""
    if not isinstance(node, ast.GeneratorExp | ast.ListComp | ast.SetComp | ast.DictComp):
        return ""
    for over in node.generators:
        walked = {one.attr for one in ast.walk(over.iter) if isinstance(one, ast.Attribute)}
        compared = {one.attr for test in over.ifs for one in ast.walk(test) if isinstance(one, ast.Attribute)}
        if PARTS & walked and NAMES & compared:
            return ast.unparse(node)
    return ""


class Once(unittest.TestCase):
    def test_nothing_is_looked_up_in_the_job_again(self) -> None:
        found = [(at, told) for at, tree in trees(*ASKS) for node in ast.walk(tree) if (told := looks_up(node))]
        self.assertEqual(found, [])

    def test_the_search_for_such_places_finds_one(self) -> None:
        tree = ast.parse("feeder = next((one for one in job.circuits if one.feeds == point.id), None)")
        self.assertTrue(any(looks_up(node) for node in ast.walk(tree)))


class Apart(unittest.TestCase):
    def test_the_design_is_handed_no_reading(self) -> None:
        for at, tree in trees(*DESIGN):
            if at == MADE_IN:
                continue
            for node in ast.walk(tree):
                with self.subTest(at):
                    self.assertFalse(isinstance(node, ast.Attribute) and node.attr == "readings")
                    named = node.names if isinstance(node, ast.ImportFrom) else []
                    self.assertFalse({one.name for one in named} & {"Reading", "ByStep", "by_step"})

    def test_verification_imports_nothing_of_the_checks(self) -> None:
        for at, tree in trees("verification", "simulations"):
            for node in ast.walk(tree):
                if isinstance(node, ast.ImportFrom):
                    with self.subTest(at):
                        self.assertFalse(str(node.module).startswith("fulmen.core.checks"))


class NothingKept(unittest.TestCase):
    """A module keeps nothing but what it read once from its data file; what is frozen stays as it was made."""

    def test_only_data_files_are_read_once(self) -> None:
        for at, tree in trees("."):
            for node in ast.walk(tree):
                if not isinstance(node, ast.FunctionDef):
                    continue
                with self.subTest(at, function=node.name):
                    marks = decorators(node)
                    self.assertFalse(any("lru_cache" in one for one in marks))
                    named = [one.arg for one in node.args.args] in ([], ["key"])
                    self.assertTrue("cache" not in marks or named or node.name == "_defaults")

    def test_nothing_frozen_is_changed_and_no_module_remembers(self) -> None:
        for at, tree in trees("."):
            for node in ast.walk(tree):
                with self.subTest(at):
                    self.assertNotIsInstance(node, ast.Global)
                    if isinstance(node, ast.ClassDef) and any("frozen=True" in one for one in decorators(node)):
                        kept = [one for one in node.body if isinstance(one, ast.FunctionDef)]
                        self.assertFalse(any("cached_property" in decorators(one) for one in kept), node.name)
