"""How a unit that was taken away was left, as its record states it: what was looked at, and what was found."""

from __future__ import annotations

from fulmen.core.evaluate import Evaluation
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.rules import REGISTER, removal

RULES = tuple(rule.key for rule in vars(removal).values() if rule in REGISTER.values())


def removal_rows(evaluation: Evaluation) -> tuple[tuple[str, str], ...]:
    """Each thing that was looked at with what is said of it, in the order of the register."""
    found = {one.rule: one for one in evaluation.findings}
    return tuple((found[key].title, _told(found[key])) for key in RULES if key in found)


def _told(finding: Finding) -> str:
    decision = finding.decision
    return finding.detail if decision is None else f"{finding.detail} {decision.reason} ({decision.name})"
