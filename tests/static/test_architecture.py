"""The shape of the project: which way imports point, which names carry which units, how long files get."""

import ast
import re
import unittest
from graphlib import TopologicalSorter
from pathlib import Path
from typing import ClassVar

from pydantic import BaseModel

import fulmen.core.model as model_package
from fulmen.core.alternatives.remedies import Remedy
from fulmen.core.alternatives.search.result import SearchResult
from fulmen.core.electrical.electrode import ElectrodeOutlook, ElectrodePlan
from fulmen.core.evaluate import Evaluation
from fulmen.core.materials.materials import MaterialsList
from fulmen.core.materials.prices import PriceList
from fulmen.core.model.job import Job
from fulmen.core.network_operator.form import OperatorForm
from fulmen.core.simulations.benches.pen_bench import Bench, BenchResult
from fulmen.core.simulations.benches.residual_chain import ResidualChain
from fulmen.core.simulations.benches.supply_day import SupplyDay
from fulmen.core.units import UNIT_OF_SUFFIX
from tests.jobs import ROOT
from tests.sources import nodes_of, tree_of

PACKAGE = ROOT / "fulmen"
LAYERS = {"core", "store", "documents", "photos", "simulators", "demo", "web"}
MAY_IMPORT = {
    "core": set(),
    "store": {"core"},
    "documents": {"core"},
    "photos": {"core"},
    "simulators": {"core"},
    "demo": {"core", "store", "simulators"},
    "web": {"core", "store", "documents", "photos", "simulators"},
}
# Lowest first: a wing imports from itself and from those before it. Wings of one line know nothing of each other.
WINGS = (
    ("errors", "units", "plain", "so_far"),
    ("model",),
    ("field_messages", "file_rows", "file_text"),
    ("findings",),
    ("reference",),
    ("electrical",),
    ("installation",),
    ("editing",),
    ("demand", "survey"),
    ("circuit",),
    ("materials", "network_operator"),
    ("checks", "verification"),
    ("simulations", "judging"),
    ("evaluate", "job_dates"),
    (
        "answer",
        "next_things",
    ),
    ("practice",),
    ("alternatives",),
    ("papers",),
)
# Rooms, lowest first: a room imports from itself and from those before it, rooms of one line know nothing of each other.
# What lies beside them may read them all, and none of them reads it.
ROOMS: dict[str, tuple[tuple[str, ...], ...]] = {
    "core/verification": (("instruments",), ("steps",), ("readings",), ("faults",)),
    "core/simulations": (("benches", "as_built"),),
    "web": (
        ("doors",),
        ("jobs",),
        ("survey", "design", "testing", "practice", "papers"),
        ("householder", "looking"),
    ),
}
FORBIDDEN_IN_CORE = {"time", "socket", "urllib", "http", "sqlite3", "subprocess", "os", "pathlib", "logging"}


def imports(path: Path) -> list[str]:
    found: list[str] = []
    for node in nodes_of(path):
        if isinstance(node, ast.Import):
            found += [alias.name for alias in node.names]
        elif isinstance(node, ast.ImportFrom) and node.module:
            found.append(node.module)
    return found


class Layers(unittest.TestCase):
    def test_imports_point_one_way(self) -> None:
        for layer, allowed in MAY_IMPORT.items():
            for path in (PACKAGE / layer).rglob("*.py"):
                for name in imports(path):
                    parts = name.split(".")
                    if parts[0] == "fulmen" and len(parts) > 1 and parts[1] in LAYERS:
                        with self.subTest(path.relative_to(ROOT)):
                            self.assertIn(parts[1], allowed | {layer})

    def test_the_core_knows_no_web_database_document_clock_or_network(self) -> None:
        for path in (PACKAGE / "core").rglob("*.py"):
            for name in imports(path):
                root = name.split(".")[0]
                with self.subTest(path=path.relative_to(ROOT), name=name):
                    self.assertNotIn(root, FORBIDDEN_IN_CORE)
                    self.assertNotIn(root, {"flask", "sqlalchemy", "weasyprint", "jinja2", "alembic", "waitress"})
            source = path.read_text(encoding="utf-8")
            self.assertNotRegex(source, r"\b(datetime\.now|date\.today|utcnow)\b")
            # Chance only from a seed that the caller gives: the same job gives the same answer.
            self.assertNotRegex(source, r"import random|from random import (?!Random\b)|Random\(\)")


class Wings(unittest.TestCase):
    FLOOR: ClassVar[dict[str, int]] = {wing: floor for floor, wings in enumerate(WINGS) for wing in wings}

    def test_a_wing_imports_only_from_those_before_it(self) -> None:
        for path in (PACKAGE / "core").rglob("*.py"):
            mine = path.relative_to(PACKAGE / "core").parts[0].removesuffix(".py")
            if mine == "__init__":
                continue
            for name in imports(path):
                if not name.startswith("fulmen.core."):
                    continue
                theirs = name.split(".")[2]
                with self.subTest(path=path.relative_to(ROOT), name=name):
                    allowed = theirs == mine or self.FLOOR[theirs] < self.FLOOR[mine]
                    # The three modules at the foot may read each other.
                    self.assertTrue(allowed or self.FLOOR[theirs] == self.FLOOR[mine] == 0)

    def test_a_room_imports_only_from_those_before_it(self) -> None:
        for house, lines in ROOMS.items():
            floor = {room: at for at, rooms in enumerate(lines) for room in rooms}
            there = {path.name for path in (PACKAGE / house).iterdir() if (path / "__init__.py").is_file()}
            self.assertEqual(there, set(floor))
            prefix = f"fulmen.{house.replace('/', '.')}."
            for room in floor:
                for path in (PACKAGE / house / room).rglob("*.py"):
                    for name in imports(path):
                        theirs = name.removeprefix(prefix).split(".")[0]
                        with self.subTest(path=path.relative_to(ROOT), name=name):
                            allowed = theirs == room or floor.get(theirs, len(lines)) < floor[room]
                            self.assertTrue(allowed or not name.startswith(prefix))

    def test_no_import_hides_in_a_function(self) -> None:
        for path in PACKAGE.rglob("*.py"):
            for node in nodes_of(path):
                if isinstance(node, ast.FunctionDef):
                    hidden = [one for one in ast.walk(node) if isinstance(one, ast.ImportFrom | ast.Import)]
                    core = [
                        one for one in hidden if isinstance(one, ast.ImportFrom) and "fulmen.core" in str(one.module)
                    ]
                    with self.subTest(path=path.relative_to(ROOT), function=node.name):
                        self.assertEqual(core, [])

    def test_modules_of_one_wing_form_no_cycle(self) -> None:
        graph: dict[str, set[str]] = {}
        for path in (PACKAGE / "core").rglob("*.py"):
            name = ".".join(path.relative_to(ROOT).with_suffix("").parts).removesuffix(".__init__")
            graph[name] = {found for found in imports(path) if found.startswith("fulmen.core.")} - {name}
        TopologicalSorter(graph).prepare()


class Size(unittest.TestCase):
    def test_files_and_functions_stay_small(self) -> None:
        for path in PACKAGE.rglob("*.py"):
            text = path.read_text(encoding="utf-8")
            with self.subTest(path.relative_to(ROOT)):
                self.assertLessEqual(len(text.splitlines()), 400)
                for node in nodes_of(path):
                    if isinstance(node, ast.FunctionDef) and node.end_lineno is not None:
                        self.assertLessEqual(node.end_lineno - node.lineno, 62, node.name)
        for path in (ROOT / "frontend" / "src").rglob("*.vue"):
            with self.subTest(path.name):
                self.assertLessEqual(len(path.read_text(encoding="utf-8").splitlines()), 200)


class Names(unittest.TestCase):
    def models(self) -> set[type[BaseModel]]:
        seen: set[type[BaseModel]] = set()

        def walk(model: type[BaseModel]) -> None:
            if model in seen:
                return
            seen.add(model)
            for field in model.model_fields.values():
                for part in re.findall(r"fulmen\.[\w.]+", str(field.annotation)):
                    module, _, name = part.rpartition(".")
                    found = getattr(__import__(module, fromlist=[name]), name, None)
                    if isinstance(found, type) and issubclass(found, BaseModel):
                        walk(found)

        walk(Job)
        for root in (
            Evaluation,
            SupplyDay,
            OperatorForm,
            Bench,
            BenchResult,
            ElectrodePlan,
            ElectrodeOutlook,
            ResidualChain,
            SearchResult,
            MaterialsList,
            PriceList,
            Remedy,
        ):
            walk(root)
        self.assertGreater(len(seen), 20)
        return seen

    def test_every_physical_number_carries_its_unit_and_is_in_the_nomenclature(self) -> None:
        table = (ROOT / "docs" / "nomenclature.md").read_text(encoding="utf-8")
        known = set(re.findall(r"^\| `(\w+)` \|", table, re.MULTILINE))
        plain = {"schema_version", "poles", "phases", "ways", "grouped_circuits", "index", "value", "limit", "margin",
                 "decimals", "diversity_factor", "entries", "missing", "facts", "known", "seed", "built_year", "spare_ways", "expected_low", "expected_high", "limit_low", "plausible_from", "asks_from", "here", "broken_before", "rods", "place", "loaded", "tried", "held", "times", "joints", "conditions", "left_out", "unpriced", "price", "quantity", "most", "weak", "values", "after_section", "rank", "digits", "digit"}  # fmt: skip
        for model in self.models():
            for name, field in model.model_fields.items():
                if re.search(r"\b(int|float)\b", str(field.annotation)) and "dict" not in str(field.annotation):
                    with self.subTest(model=model.__name__, name=name):
                        if name not in plain:
                            self.assertTrue(any(name.endswith(f"_{suffix}") for suffix in UNIT_OF_SUFFIX), "no unit")
                        self.assertTrue(name in known, "not in docs/nomenclature.md")

    def test_the_model_package_says_what_it_is(self) -> None:
        for path in (PACKAGE).rglob("*.py"):
            with self.subTest(path.relative_to(ROOT)):
                self.assertTrue(ast.get_docstring(tree_of(path)), "no docstring")
        self.assertTrue(model_package.__doc__)
