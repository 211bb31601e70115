"""Where nothing holds: the way that comes nearest, and the three reasons that matter there.

What most ways fall short of first says little: thin cable fails by thousands. So the ways nearest to holding are made
whole jobs and evaluated, and the one with the fewest shortfalls, and the smallest, tells what stands in the way.
"""

from __future__ import annotations

import heapq
from collections.abc import Iterator
from dataclasses import dataclass, field
from itertools import count

from fulmen.core.alternatives.search.judging import Short
from fulmen.core.alternatives.search.protections import JudgedProtection
from fulmen.core.alternatives.search.weighing import taken
from fulmen.core.alternatives.search.wiring import Wired
from fulmen.core.evaluate import falls_short, findings_of
from fulmen.core.findings.finding import Finding
from fulmen.core.model.base import Part
from fulmen.core.reference.rule_set import RuleSet

MOST_OF_A_RULE, MOST_TOLD = 6, 3


class NearestWay(Part):
    """The way that comes nearest to holding, in words, and what stands in its way, the worst first."""

    layout: str
    cable: str
    device: str
    reasons: tuple[str, ...]


@dataclass
class Nearest:
    """Keeps, of the ways that fall short of a rule first, the few that do so by least, each with an arrangement."""

    _heaps: dict[str, list[tuple[float, int, Wired, JudgedProtection]]] = field(default_factory=dict)
    _order: count[int] = field(default_factory=count)

    def seen(self, wired: Wired, arrangement: JudgedProtection, short: Short) -> None:
        """One way that falls short."""
        if len(wired.chain) < len(wired.layout.run.chain):
            return  # Behind a sub-main that falls short nothing was worked out.
        heap = self._heaps.setdefault(short.rule.key, [])
        entry = (-short.by, -next(self._order), wired, arrangement)
        if len(heap) < MOST_OF_A_RULE:
            heapq.heappush(heap, entry)
        elif entry[0] > heap[0][0]:
            heapq.heapreplace(heap, entry)

    def judged(self, rules: RuleSet) -> Iterator[tuple[Wired, list[Finding]]]:
        """Each of them as a whole job: what it falls short of."""
        for heap in self._heaps.values():
            for _, _, wired, one in heap:
                yield wired, falls_short(findings_of(taken(wired, one), rules))


def nearest_of(tried: list[tuple[Wired | None, list[Finding]]]) -> tuple[Wired | None, tuple[str, ...]]:
    """The one with the fewest shortfalls, and the smallest; None for the design as it stands. The worst reasons."""
    nearest, shorts = min(tried, key=lambda entry: (len(entry[1]), -sum(one.margin or -1.0 for one in entry[1])))
    worst = sorted(shorts, key=lambda one: one.margin if one.margin is not None else -1.0)
    return nearest, tuple(f"{one.title}: {one.figures() or one.detail}" for one in worst[:MOST_TOLD])
