"""The register of rules: one entry a rule, and nothing else writes a rule's name.

A check imports the entry and asks it (`findings.question`); clause and limits come from the edition.
"""

from __future__ import annotations

from fulmen.core.findings.finding import RuleKey
from fulmen.core.findings.rules import around, protection, readings, removal, run, supply
from fulmen.core.findings.rules.rule import Rule

REGISTER: dict[RuleKey, Rule] = {
    rule.key: rule
    for part in (supply, run, protection, around, removal)
    for rule in vars(part).values()
    if isinstance(rule, Rule)
} | {rule.key: rule for rule in (*readings.READINGS.values(), *vars(readings).values()) if isinstance(rule, Rule)}
