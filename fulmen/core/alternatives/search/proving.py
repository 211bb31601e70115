"""Proving ways: those that no other beats are evaluated as whole jobs, and only what was is proposed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from fulmen.core.alternatives.search.protections import JudgedProtection
from fulmen.core.alternatives.search.result import FoundWay
from fulmen.core.alternatives.search.telling import found_way, told_short
from fulmen.core.alternatives.search.weighing import Candidate, candidate, few_best
from fulmen.core.alternatives.search.wiring import Wired
from fulmen.core.evaluate import falls_short, findings_of
from fulmen.core.findings.finding import Finding
from fulmen.core.materials.prices import PriceList
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import RuleSet

# How often the few are chosen again after one of them fell short as a whole job.
MOST_ROUNDS = 6


@dataclass(frozen=True)
class Proven:
    """The few that are proven, what falls short in all of them and so lies elsewhere, and whether more are to prove."""

    few: tuple[FoundWay, ...]
    elsewhere: tuple[str, ...]
    unproven: bool


class Proving:
    """Weighs ways and proves the few; what was worked out for a way is kept, and never changes an answer."""

    def __init__(self, job: Job, now: tuple[Finding, ...], rules: RuleSet, prices: PriceList) -> None:
        self._job, self._rules, self._prices = job, rules, prices
        self._open_now = {one.key for one in now if one.is_open}
        self._short_now = {one.key for one in falls_short(now)}
        # By the way itself, which is kept with it: another may come to stand in its family.
        self._weighed: dict[int, tuple[Wired, Candidate]] = {}
        self._findings: dict[int, tuple[Finding, ...]] = {}

    def of(self, kept: Iterable[tuple[Wired, JudgedProtection]], most_new: int, *, whole: bool) -> Proven:
        """The few of these ways: what falls short in all lies elsewhere; one that adds to it makes room for the next.

        Args:
            kept: ways that hold by themselves, each with its arrangement.
            most_new: how many more of them are judged as whole jobs.
            whole: these are all; until then nothing lies elsewhere but what falls short as the job stands.
        """
        ways, left = [self._candidate(*one) for one in kept], most_new
        for _ in range(MOST_ROUNDS):
            few = few_best(ways, self._job)
            new = [way for way, _ in few if id(way) not in self._findings]
            for way in new[:left]:
                self._findings[id(way)] = findings_of(way.job, self._rules)
            unproven, left = len(new) > left, max(0, left - len(new))
            few = [entry for entry in few if id(entry[0]) in self._findings]
            shorts = [{one.key: one for one in falls_short(self._findings[id(way)])} for way, _ in few]
            common = set.intersection(*(set(each) for each in shorts)) if shorts else set()
            if unproven or not whole:
                common &= self._short_now
            worse = {id(way) for (way, _), short in zip(few, shorts, strict=True) if set(short) - common}
            if not worse or unproven:
                break
            ways = [way for way in ways if id(way) not in worse]
        return Proven(
            few=tuple(self._found(way, words) for way, words in few if id(way) not in worse),
            elsewhere=tuple(told_short(shorts[0][key]) for key in sorted(common)),
            unproven=unproven,
        )

    def _candidate(self, wired: Wired, best: JudgedProtection) -> Candidate:
        if id(wired) not in self._weighed:
            self._weighed[id(wired)] = wired, candidate(wired, best, self._prices, self._rules.value("u0_v"))
        return self._weighed[id(wired)][1]

    def _found(self, way: Candidate, best_at: tuple[str, ...]) -> FoundWay:
        opened = (one for one in self._findings[id(way)] if one.is_open and one.key not in self._open_now)
        return found_way(self._job, way, best_at, sum(1 for _ in opened))
