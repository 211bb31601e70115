"""The register of rules as a page: each with its question, clause, limits and what can happen; `make api` makes it."""

from __future__ import annotations

from fulmen.core.findings.rules import REGISTER
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.findings.words import word
from fulmen.core.reference.rule_set import RuleSet

HEAD = """# The rules

Made from the register (`fulmen/core/findings/rules/`) and the edition's rule set by `make api`; change them there.
Words in braces stand for what the rule is asked about. Limits without a clause of their own carry the rule's.
Written to {title}, **from memory**: check against the edition in force.
"""


def rules_page(rules: RuleSet) -> str:
    """The register as Markdown, one table for each thing that rules protect."""
    protected = list(dict.fromkeys(rule.protects for rule in REGISTER.values()))
    parts = [HEAD.format(title=rules.title)]
    for what in protected:
        parts.append(f"\n## {what.value[0].upper()}{what.value[1:]}\n")
        parts.append("| rule | question | stage | clause | limits | what can happen |\n|---|---|---|---|---|---|")
        parts += [_row(rule, rules) for rule in REGISTER.values() if rule.protects is what]
        schools = [rule for rule in REGISTER.values() if rule.protects is what and rule.schools]
        parts += ["", *(_schools(rule) for rule in schools)] if schools else []
    return "\n".join(parts) + "\n"


def _row(rule: Rule, rules: RuleSet) -> str:
    entry = rules.rules[rule.key]
    clauses = [rules.rule_clause(rule.key), *(rules.rule_clause(rule.key, variant) for variant in entry.variants)]
    limits = [f"`{name}` {rules.value(name):g} {rules.limit(name).unit}" for name in entry.limits]
    stage = word(rule.stage) + (f", {word(rule.stop)}" if rule.stop else "")
    cells = (
        f"`{rule.key}`", rule.title, stage, "; ".join(dict.fromkeys(clauses)), "; ".join(limits), rule.can_happen,
    )  # fmt: skip
    return "| " + " | ".join(cells) + " |"


def _schools(rule: Rule) -> str:
    assert rule.schools is not None
    return f"- `{rule.key}`: one school {rule.schools.cautious}; the other {rule.schools.other}."
