"""The limits and clause references of one edition of BS 7671, as data."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cache
from importlib.resources import files
from typing import Any

from fulmen.core.errors import InputError
from fulmen.core.findings.finding import RuleKey
from fulmen.core.reference.tables import read_toml

PACKAGE = "fulmen.core.reference.rule_sets"
CURRENT = "bs7671_2018_a3_2024"


@dataclass(frozen=True)
class Limit:
    """One limit: its figure, its unit and the clause it comes from."""

    value: float
    unit: str
    clause: str


@dataclass(frozen=True)
class RuleEntry:
    """What an edition says of one rule of the register: its clause, its limits, and the clauses of its variants."""

    clause: str = ""
    limits: tuple[str, ...] = ()
    variants: dict[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class RuleSet:
    """Every limit of one edition, the clause of each rule, and the edition's own particulars."""

    key: str
    title: str
    publication: str
    edition: str
    amendment: str
    amendment_date: str
    from_memory: bool
    limits: dict[str, Limit]
    rules: dict[RuleKey, RuleEntry]
    # Asked for with every finding: worked out once.
    _clauses: dict[tuple[str, str], str] = field(default_factory=dict, init=False, repr=False, compare=False)

    def limit(self, name: str) -> Limit:
        """The limit of this name.

        >>> rule_set().limit("volt_drop_percent").value
        5.0
        """
        return self.limits[name]

    def value(self, name: str) -> float:
        """The figure of the limit of this name."""
        return self.limits[name].value

    def clause(self, name: str) -> str:
        """Publication and clause of the limit of this name; a source that is no clause stands alone."""
        return self._cited(self.limits[name].clause)

    def rule_clause(self, rule: RuleKey, variant: str = "") -> str:
        """Publication and clause that a rule rests on: its variant's, that of a limit by name, or its own.

        >>> rule_set().rule_clause(RuleKey("own_rcd"))
        'BS 7671 722.531.3.101'
        >>> rule_set().rule_clause(RuleKey("depth"), "buried_drive_m")
        'BS 7671 522.8.10, common practice'
        """
        known = self._clauses.get((rule, variant))
        if known is None:
            known = self._clauses[rule, variant] = self._looked_up(rule, variant)
        return known

    def _looked_up(self, rule: RuleKey, variant: str) -> str:
        entry = self.rules[rule]
        if variant in self.limits:
            return self.clause(variant)
        text = entry.variants[variant] if variant else entry.clause
        return self._cited(text) if text else self.clause(entry.limits[0])

    def _cited(self, clause: str) -> str:
        numbered = clause[:1].isdigit() or clause.startswith(("Appendix", "Table", "Part"))
        return f"{self.publication} {clause}" if numbered else clause


def rule_set_keys() -> list[str]:
    """The keys of every edition that ships with Fulmen."""
    names = (entry.name for entry in files(PACKAGE).iterdir())
    return sorted(name.removesuffix(".toml") for name in names if name.endswith(".toml"))


@cache
def rule_set(key: str = CURRENT) -> RuleSet:
    """The rule set of this key.

    Raises:
        InputError: Fulmen holds no such edition.
    """
    if key not in rule_set_keys():
        raise InputError("rule_set", f"there is no edition “{key}”; choose one of {', '.join(rule_set_keys())}")
    raw = read_toml(PACKAGE, key)
    limits = {name: Limit(**entry) for name, entry in raw["limits"].items()}
    rules = {RuleKey(name): _rule_entry(entry) for name, entry in raw["rules"].items()}
    names = ("title", "publication", "edition", "amendment", "amendment_date", "from_memory")
    return RuleSet(key=key, limits=limits, rules=rules, **{name: raw[name] for name in names})


def _rule_entry(entry: dict[str, Any]) -> RuleEntry:
    return RuleEntry(entry.get("clause", ""), tuple(entry.get("limits", ())), entry.get("variants", {}))
