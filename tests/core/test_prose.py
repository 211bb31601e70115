"""Data, not prose: no branch of the core reads a sentence, and rewriting every sentence changes no judgement."""

import ast
import json
import subprocess
import sys
import unittest
from datetime import date
from typing import Any

from fulmen.core.demand.demand import demand_of
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.decisions import Decision
from fulmen.core.model.letters import Letter, LetterKind
from fulmen.core.network_operator.notification import letter_facts
from tests.jobs import EXAMPLES, ROOT, RULES, job

DAY = date(2026, 11, 24)
# The operator agreed before anything was live.
BEFORE = date(2026, 10, 1)

CORE = ROOT / "fulmen" / "core"
# What holds sentences: asking whether one is there is data, comparing or searching it is not.
SENTENCES = {"detail", "title", "remedy", "fear", "school", "text", "words", "source", "why_unrated", "about_words",
             "deadline_words", "clause", "consequence", "why_not", "whose", "limit_from", "expected_from", "how"}  # fmt: skip
SEARCHES = {"startswith", "endswith", "find", "index", "count", "split", "partition"}


def _reads(node: ast.AST) -> bool:
    """Whether an expression is a sentence of a part: `finding.detail`, `known.source`."""
    return isinstance(node, ast.Attribute) and node.attr in SENTENCES


def _phrase(node: ast.AST) -> bool:
    return isinstance(node, ast.Constant) and isinstance(node.value, str) and " " in node.value.strip()


class Branches(unittest.TestCase):
    def test_no_comparison_reads_a_sentence(self) -> None:
        for path in CORE.rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
                if isinstance(node, ast.Compare):
                    sides = [node.left, *node.comparators]
                    with self.subTest(path=path.relative_to(ROOT), line=node.lineno):
                        self.assertFalse(any(_reads(side) or _phrase(side) for side in sides))

    def test_no_branch_searches_a_sentence(self) -> None:
        for path in CORE.rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
                if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute) and node.func.attr in SEARCHES:
                    with self.subTest(path=path.relative_to(ROOT), line=node.lineno):
                        self.assertFalse(_reads(node.func.value))

    def test_the_tree_test_would_notice(self) -> None:
        tree = ast.parse('known.source == "declared maximum"\nwhose in finding.title')
        found = [node for node in ast.walk(tree) if isinstance(node, ast.Compare)]
        self.assertTrue(all(any(_reads(side) for side in (node.left, *node.comparators)) for node in found))


class Mutated(unittest.TestCase):
    """Jobs decided and answered with the sentences as they stand, read with every sentence rewritten."""

    def told(self, mode: str, jobs: dict[str, Any]) -> Any:
        command = [sys.executable, "-m", "tests.core.mutated", mode]
        done = subprocess.run(command, cwd=ROOT, input=json.dumps(jobs), capture_output=True, text=True, check=False)
        self.assertEqual(done.returncode, 0, done.stderr[-2000:])
        return json.loads(done.stdout)

    def test_every_sentence_rewritten_no_judgement_changes(self) -> None:
        jobs = {path.stem: _settled(path.stem) for path in EXAMPLES.glob("*.json")}
        plain, mutated = self.told("plain", jobs), self.told("mutated", jobs)
        rewritten = [name for name in plain if name.endswith(" title") and plain[name] != mutated[name]]
        self.assertEqual(len(rewritten), len(jobs), "the sentences were not rewritten")
        decided = 0
        for name, judged in plain.items():
            if name.endswith(" title"):
                continue
            calls = [one for one in judged["findings"] if one[1] == Verdict.YOUR_CALL]
            self.assertEqual([one[0] for one in calls if not one[5]], [], "a decision does not survive its file")
            decided += len(calls)
            self.assertEqual(judged["operator"][1], "accepted", name)
            for part, value in judged.items():
                with self.subTest(name, part=part):
                    self.assertEqual(value, mutated[name][part])
        self.assertGreater(decided, 15)


def _settled(name: str) -> dict[str, Any]:
    """An example with every call decided and the operator's agreement in hand."""
    made = job(name)
    calls = [one for one in evaluate(made, RULES).findings if one.verdict is Verdict.YOUR_CALL]
    decisions = tuple(
        Decision(
            key=one.key,
            about=one.detail,
            basis=one.basis,
            reason="It serves.",
            name="R. Quillfeather",
            decided_on=DAY,
            condition=one.conditions[0].key if one.conditions else "",
        )
        for one in calls
    )
    agreed = Letter(
        kind=LetterKind.ACCEPTED, dated=BEFORE, about=letter_facts(made, demand_of(installation_of(made), RULES))
    )
    return made.model_copy(update={"decisions": decisions, "letters": (agreed,)}).model_dump(mode="json")
