"""The steps of the tests, read from `steps.toml`: what every job's step of a kind has in common."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from typing import Any, Literal

from fulmen.core.findings.finding import Stage
from fulmen.core.model.instruments import Function
from fulmen.core.model.readings import StepKey
from fulmen.core.model.testing import RcdSchool
from fulmen.core.plain import plain
from fulmen.core.reference.tables import read_toml
from fulmen.core.verification.instruments.dials import Dial, Link, Point, dial

# A figure; right or wrong; a figure or just right; or a point where nobody goes on before somebody signed.
Kind = Literal["figure", "confirm", "either", "hold"]


class Where(StrEnum):
    """Where a step is taken."""

    BOARD = "board"
    CAR = "car"
    ORIGIN = "origin"
    ELECTRODE = "electrode"


WHERE_WORDS = {
    Where.BOARD: "at the board",
    Where.CAR: "at the charge point",
    Where.ORIGIN: "at the origin",
    Where.ELECTRODE: "at the electrode",
}


@plain
class FigureRange:
    """What a figure can be, see `ranges.toml`: in the unit of its step, from 0 to `most`.

    `zero` says why it can't be nought, "read" where it can; `over` what lies beyond the instrument's range.
    """

    most: float
    zero: str
    over: Literal["open", "good", "late", "none"]


@plain
class Lead:
    """One lead: the instrument's jack, the terminal in words, and the points that it joins there."""

    jack: str
    terminal: str
    at: tuple[Point, ...]


@plain
class StepText:
    """What is told of a step wherever it is taken: how, why, what can be hurt, and what its figure can be."""

    how: str
    why: str
    damages: str
    figures: FigureRange | None


@dataclass(frozen=True)
class StepDefinition:
    """What every job's step of this key has in common; `steps.toml` says what each field means.

    `figures` is the range of its figure; None where it takes none. `reference` names it among all of them.
    """

    key: StepKey
    reference: str
    stage: Stage
    rank: int
    title: str
    where: Where
    how: str
    why: str
    kind: Kind
    dial: Dial
    unit: str = ""
    decimals: int = 2
    leads: tuple[Lead, ...] = ()
    links: str = ""
    linked: Link = Link.NONE
    adapter: str = ""
    damages: str = ""
    subject: Literal["origin", "circuit", "rcd", "box"] = "circuit"
    applies: str = ""
    rcd_school: RcdSchool | None = None
    required: bool = True
    waivable: bool = False
    offered_with: StepKey | None = None
    figures: FigureRange | None = None

    @property
    def only_if_read(self) -> bool:
        """Whether nobody is asked for it any more: it stays where it was read."""
        return self.applies == "read_before"

    @property
    def function(self) -> Function:
        """What the instrument must be able to do."""
        return self.dial.function


def in_common(one: StepDefinition) -> dict[str, Any]:
    """What every job's step of this key says alike, by the names of a `Step`."""
    return {
        "step": one.key,
        "reference": one.reference,
        "stage": one.stage,
        "rank": one.rank,
        "kind": one.kind,
        "unit": one.unit,
        "decimals": one.decimals,
        "function": one.function,
        "dial": one.dial.key,
        "range": one.dial.words,
        "linked": one.linked,
        "offered_with": one.offered_with,
    }


@cache
def _ranges() -> dict[str, FigureRange]:
    told = read_toml(__package__, "ranges")
    return {shown: FigureRange(**{**one, "most": float(one["most"])}) for shown, one in told.items()}


@cache
def definitions() -> tuple[StepDefinition, ...]:
    """Every step, in the order of Part 6."""
    data = read_toml(__package__, "steps")
    seen: Counter[str] = Counter()
    found = []
    for one in data["step"]:
        seen[one["key"]] += 1
        reference = one["key"] if seen[one["key"]] == 1 else f"{one['key']}-{seen[one['key']]}"
        found.append(_definition({**data["template"].get(one.pop("template", ""), {}), **one, "reference": reference}))
    return tuple(found)


def step_texts() -> dict[str, StepText]:
    """What is told of every step, by its reference: read once, not with each step of each job."""
    return {one.reference: StepText(one.how, one.why, one.damages, one.figures) for one in definitions()}


@cache
def _by_key() -> dict[StepKey, tuple[StepDefinition, ...]]:
    return {key: tuple(one for one in definitions() if one.key is key) for key in StepKey}


def definitions_of(key: StepKey) -> tuple[StepDefinition, ...]:
    """The steps of a key: they differ in where they are taken and when they apply."""
    return _by_key()[key]


def definition_of(key: StepKey) -> StepDefinition:
    """The first step of a key."""
    return _by_key()[key][0]


# What one step's reading stands for besides: each entry is a set of steps that together take its place.
MET_BY: dict[StepKey, tuple[frozenset[StepKey], ...]] = {
    StepKey.R1_R2: (frozenset({StepKey.R2}),),
    StepKey.ELECTRODE: (frozenset({StepKey.ELECTRODE_LOOP}),),
    StepKey.IR_LIVE_EARTH: (frozenset({StepKey.IR_LINE_EARTH, StepKey.IR_NEUTRAL_EARTH}),),
    StepKey.FAULT_CURRENT_NEUTRAL: (frozenset({StepKey.FAULT_CURRENT}),),
    StepKey.FAULT_CURRENT_EARTH: (frozenset({StepKey.FAULT_CURRENT}),),
}


def _definition(entry: dict[str, Any]) -> StepDefinition:
    made = {
        **entry,
        "key": StepKey(entry["key"]),
        "stage": Stage(entry["stage"]),
        "where": Where(entry["where"]),
        "dial": dial(entry["dial"]),
        "linked": Link(entry.get("linked", Link.NONE)),
        "leads": tuple(
            Lead(jack=jack, terminal=terminal, at=tuple(map(Point, at.split())))
            for jack, terminal, at in entry.get("leads", ())
        ),
        "rcd_school": RcdSchool(entry["rcd_school"]) if "rcd_school" in entry else None,
        "offered_with": StepKey(entry["offered_with"]) if "offered_with" in entry else None,
    }
    figures = _ranges()[made["dial"].shows] if entry.get("unit") else None
    return StepDefinition(**made, figures=figures)
