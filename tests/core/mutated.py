"""Evaluates jobs from standard input with each sentence of the core rewritten, and prints what must not have changed.

Run as a process of its own: `python -m tests.core.mutated`, or with `plain` for the sentences as they stand. A sentence
is any string with a space in it: those of findings, titles, details, letters, sources, words of choices, and the parts of
f-strings between the figures.
"""

from __future__ import annotations

import ast
import importlib.abc
import importlib.util
import json
import sys
from importlib.machinery import ModuleSpec, SourceFileLoader
from pathlib import Path
from types import CodeType

ROOT = Path(__file__).resolve().parents[2]
# What reads text by design: the job file's own grammar, shorthand typed by a person, unit and field names, old versions.
READS_TEXT = ("upgrades", "route_editing", "field_messages", "units", "half_hours", "tables", "prices")


class Rewritten(ast.NodeTransformer):
    """Every sentence in capitals with other words around it."""

    def visit_Constant(self, node: ast.Constant) -> ast.Constant:
        if isinstance(node.value, str) and " " in node.value:
            # Places to be filled in keep their names.
            text = node.value if "{" in node.value else node.value.swapcase()
            return ast.copy_location(ast.Constant(f"Mutated, {text} (in total)"), node)
        return node

    def visit_FormattedValue(self, node: ast.FormattedValue) -> ast.FormattedValue:
        node.value = self.visit(node.value)
        return node

    def visit_Call(self, node: ast.Call) -> ast.AST:
        # Patterns and formats of fields are no sentences.
        if isinstance(node.func, ast.Name) and node.func.id == "Field":
            return node
        return self.generic_visit(node)


class Loader(SourceFileLoader):
    """Compiles a module of the core with its sentences rewritten; neither reads nor leaves compiled files."""

    def get_code(self, fullname: str) -> CodeType:
        path = Path(self.path)
        tree = ast.parse(path.read_text(encoding="utf-8"))
        if not any(part in READS_TEXT for part in (*path.parts, path.stem)):
            tree = ast.fix_missing_locations(Rewritten().visit(tree))
        code = compile(tree, str(path), "exec")
        assert isinstance(code, CodeType)
        return code


class Finder(importlib.abc.MetaPathFinder):
    """Finds the core's modules before anybody else."""

    def find_spec(self, name: str, path: object, target: object = None) -> ModuleSpec | None:
        if not name.startswith("fulmen.core"):
            return None
        base = ROOT.joinpath(*name.split("."))
        package = base.is_dir()
        file = base / "__init__.py" if package else base.with_suffix(".py")
        return importlib.util.spec_from_file_location(
            name, file, loader=Loader(name, str(file)), submodule_search_locations=[str(base)] if package else None
        )


def main(mode: str) -> None:
    """Print verdicts, decisions, gaps and operator states of every job."""
    if mode != "plain":
        sys.meta_path.insert(0, Finder())
    from fulmen.core.editing.job_file import parse_job
    from fulmen.core.evaluate import evaluate
    from fulmen.core.reference.rule_set import rule_set

    told: dict[str, object] = {}
    for name, document in json.load(sys.stdin).items():
        job = parse_job(document)
        found = evaluate(job, rule_set(job.rule_set))
        told[name] = {
            "findings": [
                [
                    one.key,
                    one.verdict,
                    one.value,
                    one.limit,
                    one.is_open,
                    one.decision is not None,
                    one.place,
                    one.stage,
                ]
                for one in found.findings
            ],
            "operator": [found.operator.route, found.operator.state, found.operator.hold],
            "gaps": [[gap.kind, gap.key, gap.stage] for gap in found.gaps],
            "steps": [[step.step, step.subject, step.limit, step.expected_low] for step in found.steps],
            "stops": [[stop.stop, stop.known, stop.findings] for stop in found.stops],
        }
        told[f"{name} title"] = found.findings[0].detail
    print(json.dumps(told))


if __name__ == "__main__":
    main(sys.argv[1] if len(sys.argv) > 1 else "")
