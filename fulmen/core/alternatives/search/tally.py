"""Counting every pair of an electrical way and an arrangement, and why pairs fail."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, field

from fulmen.core.alternatives.search.judging import Short
from fulmen.core.alternatives.search.result import FailReason, SizeVerdict


@dataclass
class Tally:
    """Counts every pair tried, and why pairs fail."""

    tried: int = 0
    held: int = 0
    reasons: Counter[str] = field(default_factory=Counter)
    texts: dict[str, str] = field(default_factory=dict)
    sizes: dict[float, list[int]] = field(default_factory=dict)
    size_texts: dict[float, Counter[str]] = field(default_factory=dict)

    def commonest(self) -> tuple[FailReason, ...]:
        """The commonest reasons, the first one first."""
        return tuple(FailReason(rule=rule, times=n, text=self.texts[rule]) for rule, n in self.reasons.most_common(6))

    def count(self, csa_mm2: float, tried: int, shorts: Counter[Short]) -> None:
        """Pairs of one electrical way: how many, and the first shortfall of those that fail."""
        held = tried - shorts.total()
        self.tried += tried
        self.held += held
        per_size = self.sizes.setdefault(csa_mm2, [0, 0])
        per_size[0] += tried
        per_size[1] += held
        for short, times in shorts.items():
            self.reasons[short.rule.key] += times
            self.texts.setdefault(short.rule.key, short.text)
            self.size_texts.setdefault(csa_mm2, Counter())[short.text] += times

    def by_size(self) -> tuple[SizeVerdict, ...]:
        """Each size of the final circuit, the smallest first."""
        return tuple(self._size(csa_mm2) for csa_mm2 in sorted(self.sizes))

    def _size(self, csa_mm2: float) -> SizeVerdict:
        tried, held = self.sizes[csa_mm2]
        commonest = self.size_texts.get(csa_mm2, Counter()).most_common(1)
        return SizeVerdict(csa_mm2=csa_mm2, tried=tried, held=held, why_not=commonest[0][0] if commonest else "")
