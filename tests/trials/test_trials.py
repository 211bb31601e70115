"""The trial jobs: every trap is seen, no ordinary installation is blocked, no planted reading goes unnoticed.

Their data stands beside this file, with the argument and the clause of each. Operators are asked in every job; that is a
step of its own and not counted here.
"""

import tomllib
import unittest
from pathlib import Path
from typing import Any

from fulmen.core.editing.job_file import parse_job
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.findings.rules import REGISTER
from tests.jobs import RULES, job

NOT_KNOWN = "(not known)"
HERE = Path(__file__).parent


def trials(name: str) -> list[dict[str, Any]]:
    """The trials of one data file, in its order."""
    with (HERE / f"{name}.toml").open("rb") as source:
        ((_, found),) = tomllib.load(source).items()
    assert isinstance(found, list)
    return found


def built(trial: dict[str, Any]) -> Evaluation:
    """What a trial's installation computes to, before anything is tested."""
    changes = {field: None if value == NOT_KNOWN else value for field, value in trial["changes"].items()}
    decided = {} if "calls" in trial else {"decisions": []}
    return evaluate(job(trial["on"], {"readings": [], **decided, **changes}), RULES)


def told(findings: list[Finding]) -> str:
    return "; ".join(f"{one.key} {one.verdict}: {one.figures()} {one.detail}" for one in findings)


class Traps(unittest.TestCase):
    def test_every_trap_is_seen(self) -> None:
        for trial in trials("traps"):
            with self.subTest(trial["what"]):
                found = built(trial)
                of_rule = [one for one in found.findings if one.rule == trial["rule"]]
                verdicts = {one.verdict for one in of_rule if one.is_open}
                self.assertTrue(verdicts & {Verdict(one) for one in trial["verdicts"]}, told(of_rule))
                self.assertTrue(found.gaps, "no certificate goes out")

    def test_they_are_many_and_argued(self) -> None:
        found = trials("traps")
        self.assertGreaterEqual(len(found), 150)
        self.assertEqual(len({one["what"] for one in found}), len(found))
        self.assertTrue(all(one["why"] and one["clause"] and one["rule"] in REGISTER for one in found))


class Ordinary(unittest.TestCase):
    def test_none_is_blocked(self) -> None:
        for trial in trials("ordinary"):
            with self.subTest(trial["what"]):
                self.assertEqual(told([one for one in built(trial).findings if blocks(one, trial["calls"])]), "")

    def test_they_are_many(self) -> None:
        self.assertGreaterEqual(len(trials("ordinary")), 60)


def blocks(finding: Finding, calls: list[str]) -> bool:
    """Whether a finding stands in the way of an ordinary job: it falls short, wants a fact, or is an unnamed call."""
    if finding.rule == "operator":
        return False
    if finding.verdict is Verdict.YOUR_CALL:
        return finding.is_open and finding.rule not in calls
    wants = finding.verdict is Verdict.NEEDS and finding.waits_for == "fact"
    return wants or finding.verdict is Verdict.FALLS_SHORT


class Planted(unittest.TestCase):
    def test_none_goes_unnoticed(self) -> None:
        for trial in trials("readings"):
            data = job(trial["on"]).model_dump(mode="json")
            self.assertFalse([one for one in evaluate(parse_job(data), RULES).findings if one.is_open], trial["on"])
            read = {
                "value": None,
                **{name: value for name, value in trial.items() if name not in ("what", "on", "why")},
            }
            for reading in data["readings"]:
                if (reading["step"], reading["subject"]) == (trial["step"], trial["subject"]):
                    reading.update({name: None if value == NOT_KNOWN else value for name, value in read.items()})
            with self.subTest(trial["what"]):
                self.assertTrue([one for one in evaluate(parse_job(data), RULES).findings if one.is_open])

    def test_they_are_many(self) -> None:
        self.assertGreaterEqual(len(trials("readings")), 60)


if __name__ == "__main__":
    unittest.main()
