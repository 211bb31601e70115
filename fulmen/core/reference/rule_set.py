"""The limits and clause references of one edition of BS 7671, as data."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from importlib.resources import files

from fulmen.core.errors import InputError
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
class RuleSet:
    """Every limit of one edition, with the edition's own particulars."""

    key: str
    title: str
    publication: str
    edition: str
    amendment: str
    amendment_date: str
    from_memory: bool
    limits: dict[str, Limit]

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
        clause = self.limits[name].clause
        return f"{self.publication} {clause}" if clause[:1].isdigit() or clause.startswith("Appendix") else clause


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
    names = ("title", "publication", "edition", "amendment", "amendment_date", "from_memory")
    return RuleSet(key=key, limits=limits, **{name: raw[name] for name in names})
