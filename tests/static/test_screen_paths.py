"""Every path that a screen edits is a field of the job file: a field that moves takes its screens along."""

import re
import unittest
from typing import Any

from fulmen.core.model.charge_point import ChargePointFacts
from fulmen.core.model.job import Job
from tests.jobs import ROOT

SCHEMA: dict[str, Any] = Job.model_json_schema()
PREFIX = re.compile(
    r"const (\w+) = (?:computed\(\(\) => |\((?:field|name): string\) => )`([a-z_0-9.]*(?:\$\{[^}]*\}[a-z_0-9.]*)*)`"
)
USED = (
    re.compile(r"""(?<![:\w])path="([a-z_][a-z_0-9.]*)\""""),
    re.compile(r"store\.change\(\s*'([a-z_0-9.]+)'"),
    re.compile(r"field: '([a-z_0-9.]+)'"),
    re.compile(r"`\$\{(\w+)(?:\.value)?\}\.([a-z_0-9.]+)`"),
    re.compile(r"\b(at)\('([a-z_.]+)'\)"),
)  # fmt: skip


def resolved(node: dict[str, Any]) -> list[dict[str, Any]]:
    """A schema node behind its references, each alternative for itself."""
    if "$ref" in node:
        return resolved(SCHEMA["$defs"][node["$ref"].rsplit("/", 1)[1]])
    if "anyOf" in node or "allOf" in node:
        return [one for inner in node.get("anyOf", node.get("allOf", [])) for one in resolved(inner)]
    return [node]


def is_field(path: str) -> bool:
    """Whether a path, with any number for a place in a list, leads to a field of the job file."""
    here = resolved(SCHEMA)
    for part in path.split("."):
        step: list[dict[str, Any]] = []
        for node in here:
            if part.isdigit() and node.get("type") == "array":
                items = node.get("items", (node.get("prefixItems") or [{}])[0])
                step += resolved(items)
            elif part in node.get("properties", {}):
                step += resolved(node["properties"][part])
        here = step
    return bool(here)


def paths_in(text: str) -> set[str]:
    """The paths that a component names: literal ones, and those behind a prefix that it builds once."""
    prefixes = {name: re.sub(r"\$\{[^}]*\}", "0", made) for name, made in PREFIX.findall(text)}
    found = {path for pattern in USED[:3] for path in pattern.findall(text)}
    for pattern in USED[3:]:
        for name, field in pattern.findall(text):
            prefix = prefixes.get(name, "")
            if prefix and not prefix.startswith("0"):
                found.add(f"{prefix.removesuffix('0')}{field}" if pattern is USED[4] else f"{prefix}.{field}")
    return {path for path in found if not path.endswith(".")}


class ScreenPaths(unittest.TestCase):
    def test_every_one_is_a_field(self) -> None:
        seen = 0
        for path in (ROOT / "frontend" / "src").rglob("*.vue"):
            if path.name == "PriceEditor.vue":  # its fields are a price line's
                continue
            for field in paths_in(path.read_text(encoding="utf-8")):
                seen += 1
                with self.subTest(path.name, field=field):
                    self.assertTrue(is_field(field))
        self.assertGreater(seen, 120)

    def test_it_would_notice(self) -> None:
        moved = (
            "const at = (field: string) => `charge_points.${store.pointIndex}.${field}`\n<X :path=\"at('origin')\" />"
        )
        self.assertEqual(paths_in(moved), {"charge_points.0.origin"})
        self.assertFalse(is_field("charge_points.0.origin"))
        self.assertTrue(is_field("charge_points.0.provenance"))
        self.assertTrue(is_field("boards.0.groups.1.guards.0.rcd.type"))
        self.assertFalse(is_field("supply.tails_csa_mm2"))


class KindFacts(unittest.TestCase):
    def test_the_screens_know_the_same_facts_of_a_kind(self) -> None:
        told = (ROOT / "frontend" / "src" / "shared" / "likeUnits.ts").read_text(encoding="utf-8")
        listed = told[told.index("KIND_FACTS = [") : told.index("] as const")]
        self.assertEqual(re.findall(r"'(\w+)'", listed), list(ChargePointFacts.model_fields))
