"""The register of rules as a page: each with its question, clause, limits and what can happen; `make api` makes it."""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.findings.rules import REGISTER
from fulmen.core.findings.rules.guard_facts import LEANS_ON, GuardFact, Worse
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
    return "\n".join([*parts, *_guards()]) + "\n"


WORSE = {
    Worse.MORE: "more is worse",
    Worse.LESS: "less is worse",
    Worse.SET: "worse where it is so",
    Worse.NOT_SET: "worse where it is not so",
    Worse.EITHER: "pulls both ways",
}


FACTS = {
    GuardFact.RESIDUAL_MA: "residual current",
    GuardFact.TIME_DELAYED: "time-delayed",
    GuardFact.TYPE: "type",
    GuardFact.POLES: "poles",
    GuardFact.RATING_A: "rated current",
    GuardFact.VOLTAGE_V: "rated voltage",
    GuardFact.SHARED: "shared",
}


def _guards() -> Iterator[str]:
    """What each rule leans on of a guard, and why it leaves out the rest."""
    yield "\n## What each rule leans on of a guard\n"
    yield "Types go from AC over A and F to B; *shared* says that other circuits hang behind it.\n"
    yield f"| rule | {' | '.join(FACTS[fact] for fact in GuardFact)} |\n|---{'|---' * len(GuardFact)}|"
    for rule, row in LEANS_ON.items():
        cells = (
            f"**{WORSE[cell]}**" if isinstance(cell, Worse) else cell for cell in (row[fact] for fact in GuardFact)
        )
        yield f"| `{rule}` | {' | '.join(cells)} |"


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
