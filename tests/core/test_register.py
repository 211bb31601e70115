"""The register: one entry a rule, nothing else writes its name; an edition has a clause for each, and limits that exist."""

import ast
import re
import unittest
from pathlib import Path

from fulmen.core.findings.rules import REGISTER
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.reference.rule_set import rule_set, rule_set_keys
from tests.jobs import EXAMPLES, ROOT, evaluation
from tests.sources import nodes_of

CORE = ROOT / "fulmen" / "core"
REGISTER_FILES = CORE / "findings" / "rules"


def strings(path: Path) -> list[tuple[int, str]]:
    return [
        (node.lineno, node.value)
        for node in nodes_of(path)
        if isinstance(node, ast.Constant) and isinstance(node.value, str)
    ]


class Register(unittest.TestCase):
    def test_every_edition_knows_every_rule_and_only_those(self) -> None:
        for key in rule_set_keys():
            edition = rule_set(key)
            self.assertEqual(set(edition.rules), set(REGISTER), key)
            for name, entry in edition.rules.items():
                with self.subTest(edition=key, rule=name):
                    self.assertTrue(edition.rule_clause(name))
                    self.assertLessEqual(set(entry.limits), set(edition.limits))

    def test_each_entry_is_whole(self) -> None:
        for key, rule in REGISTER.items():
            with self.subTest(key):
                self.assertRegex(key, r"^[a-z0-9_]+$")
                self.assertTrue(rule.title and rule.can_happen)
                self.assertFalse(rule.told_with_choices and not rule.short)

    def test_every_finding_comes_from_the_register(self) -> None:
        for name in (path.stem for path in EXAMPLES.glob("*.json")):
            for one in evaluation(name).findings:
                with self.subTest(name, rule=one.rule):
                    rule = REGISTER[one.rule]
                    self.assertRegex(one.title, _pattern(rule))
                    self.assertIn(one.place, (rule.stop, None))

    def test_no_other_module_writes_a_rules_name(self) -> None:
        """A name that a field, a choice or a table bears as well is theirs: the type checker takes no plain string for a
        rule's name, see `tests/static/rule_keys.py`.
        """
        theirs = _other_names()
        for path in (ROOT / "fulmen").rglob("*.py"):
            if REGISTER_FILES in path.parents or "upgrades" in path.parts:
                continue
            for line, text in strings(path):
                rule = text.split("/")[0]
                if rule in REGISTER and ("/" in text or rule not in theirs):
                    self.fail(f"{path.relative_to(ROOT)}:{line} writes the name of the rule {rule}")

    def test_nobody_makes_a_rules_name_of_a_string(self) -> None:
        """Only the register and the edition's data give names: whoever else called `RuleKey` could write any."""
        makers = {"rule.py", "rule_set.py"}
        for path in (ROOT / "fulmen").rglob("*.py"):
            for node in nodes_of(path):
                made = isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "RuleKey"
                self.assertFalse(made and path.name not in makers, f"{path.relative_to(ROOT)}")

    def test_nobody_asks_a_finding_for_a_rule_by_name(self) -> None:
        """Comparing `finding.rule` with a string, or with some of them, would be a name written elsewhere."""
        for path in (ROOT / "fulmen").rglob("*.py"):
            for node in nodes_of(path):
                if isinstance(node, ast.Compare):
                    sides = [node.left, *node.comparators]
                    about_rule = any(isinstance(one, ast.Attribute) and one.attr in ("rule", "key") for one in sides)
                    written = {each.value for one in sides for each in ast.walk(one) if isinstance(each, ast.Constant)}
                    named = any(isinstance(one, str) and one in REGISTER for one in written)
                    self.assertFalse(about_rule and named, f"{path.relative_to(ROOT)}:{node.lineno}")

    def test_only_a_question_makes_a_finding(self) -> None:
        for path in (ROOT / "fulmen").rglob("*.py"):
            if path.name in ("question.py", "finding.py"):
                continue
            for node in nodes_of(path):
                if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
                    self.assertNotEqual(node.func.id, "Finding", f"{path.relative_to(ROOT)}:{node.lineno}")

    def test_the_browser_rebuilds_nothing(self) -> None:
        """No rule's name, no key put together and no verdict judged again in the front end: what follows from one is told
        by the core (`offers`, `asked`, `ways_wanted`, `changes`), only words and marks are chosen by it.
        """
        key = re.compile(rf"['\"`]({'|'.join(REGISTER)})/")
        for path in (ROOT / "frontend" / "src").rglob("*"):
            if path.suffix not in (".vue", ".ts") or path.name == "schema.ts":
                continue
            text = path.read_text(encoding="utf-8")
            with self.subTest(path.name):
                self.assertNotRegex(text, r"\.rule\}/\$\{")
                self.assertNotRegex(text, r"\.rule (===|!==)|\.rule\.startsWith|includes\((\w+\.)+rule\)")
                self.assertNotRegex(text, key)
                if path.name != "format.ts":
                    self.assertNotRegex(
                        text, r"verdict(\(\))? ?[!=]==? ?|[!=]==? ?'(meets|falls_short|needs|your_call)'"
                    )
                    self.assertNotRegex(text, r"\? '(meets|falls_short|needs|your_call)'")


def _pattern(rule: Rule) -> str:
    """A rule's title with anything in its places."""
    return "^" + re.sub(r"\\\{\w+\\\}", ".+", re.escape(rule.title)) + "$"


def _other_names() -> set[str]:
    """Names that stand for something else as well: fields of any class, values of choices, tables, editions' limits."""
    found = {path.stem for path in (CORE / "reference" / "tables").glob("*.toml")}
    for path in (ROOT / "fulmen").rglob("*.py"):
        for node in nodes_of(path):
            if isinstance(node, ast.ClassDef):
                found |= {
                    one.target.id
                    for one in node.body
                    if isinstance(one, ast.AnnAssign) and isinstance(one.target, ast.Name)
                }
                found |= {
                    one.value.value
                    for one in node.body
                    if isinstance(one, ast.Assign)
                    and isinstance(one.value, ast.Constant)
                    and isinstance(one.value.value, str)
                }
            elif isinstance(node, ast.keyword) and node.arg:
                found.add(node.arg)
    return found


if __name__ == "__main__":
    unittest.main()
