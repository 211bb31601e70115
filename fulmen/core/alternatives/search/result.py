"""What a search tells: the few ways that no other beats, and why the others fall short."""

from __future__ import annotations

from fulmen.core.alternatives.search.nearest import NearestWay
from fulmen.core.editing.changes import Change
from fulmen.core.model.base import Part


class SizeVerdict(Part):
    """One size of the final circuit: how many ways held, and what the others fall short of first, with its figure."""

    csa_mm2: float
    tried: int
    held: int
    why_not: str


class FailReason(Part):
    """What ways fall short of first: the rule, how often, and one of its figures."""

    rule: str
    times: int
    text: str


class FoundWay(Part):
    """One way that no other beats: in words, what it weighs, costs and leaves over, and the changes that take it.

    `conditions` are questions that it opens: facts or readings it needs, reasons it asks for.
    """

    layout: str
    cable: str
    device: str
    protection: str
    best_at: tuple[str, ...]
    metal_kg: float
    work_min: float
    price: float
    spare_a: float
    drop_percent: float
    margin: float
    joints: int
    conditions: int
    standing: bool
    changes: tuple[Change, ...]


class SearchResult(Part):
    """What a search found. `elsewhere` are checks that fall short whichever way is taken; `nearest` is told where
    nothing holds; `left_out` counts the ways to lay sub-mains that were not gone on with, those of least margin.
    """

    tried: int
    held: int
    reasons: tuple[FailReason, ...]
    sizes: tuple[SizeVerdict, ...]
    few: tuple[FoundWay, ...]
    elsewhere: tuple[str, ...]
    nearest: NearestWay | None
    left_out: int
    invented_prices: bool
