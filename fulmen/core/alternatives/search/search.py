"""The options search: every sensible combination of layout, cable, size, device and protection, and the few best.

Cables and devices decide one set of checks, arrangements another, and the two meet only in whether an RCD stands at
the board and how the cable ends. So each side is judged once and every pair of the two is counted; the few that are
shown are evaluated as whole jobs.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from fulmen.core.alternatives.routed import routed_run
from fulmen.core.alternatives.search.judging import Short
from fulmen.core.alternatives.search.nearest import Nearest, NearestWay, nearest_of
from fulmen.core.alternatives.search.protections import JudgedProtection, ProtectionBench, protections_to_try
from fulmen.core.alternatives.search.proving import Proving
from fulmen.core.alternatives.search.result import SearchResult
from fulmen.core.alternatives.search.tally import Tally
from fulmen.core.alternatives.search.telling import cables_words, devices_words, told_short
from fulmen.core.alternatives.search.wiring import Wired, Wiring
from fulmen.core.checks.boards import board_findings
from fulmen.core.circuit.run_figures import Known, case_of, known_of
from fulmen.core.editing.job_file import check_structure
from fulmen.core.editing.layouts import Layout, layouts
from fulmen.core.evaluate import falls_short, findings_of
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.findings.rules import REGISTER
from fulmen.core.findings.rules.protection import OPEN_PEN
from fulmen.core.installation.installation import Installation, installation_of
from fulmen.core.judging.known import known_for
from fulmen.core.materials.prices import PriceList
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.so_far import SoFar, finished

# How many ways are judged as whole jobs each time that somebody wants to see, until all were tried.
PROVEN_AT_A_TELLING = 2


def search(job: Job, charge_point: str, rules: RuleSet, prices: PriceList) -> SearchResult:
    """Every sensible way to feed one charge point, and the few that no other beats.

    Args:
        job: the job as it stands.
        charge_point: id of the charge point.
        rules: the edition's limits.
        prices: the user's price list, for cost and working time.

    Raises:
        InputError: no circuit with a route feeds such a charge point.
        JobFileError: the job's structure cannot be taken.
    """
    return finished(searching(job, charge_point, rules, prices))


def searching(job: Job, charge_point: str, rules: RuleSet, prices: PriceList) -> Iterator[SoFar[SearchResult]]:
    """The same step by step: the layout that stands first, in it the standing cable, then its other sizes."""
    check_structure(job)
    installation = installation_of(job)
    routed_run(installation, charge_point)
    hunt = _Hunt(job, installation, charge_point, rules, prices)
    yield from hunt.ways()
    yield from hunt.proofs()


class _Hunt:
    """One search under way: what was tried, and of every family of ways the best that holds."""

    def __init__(
        self, job: Job, installation: Installation, charge_point: str, rules: RuleSet, prices: PriceList
    ) -> None:
        self.job, self.installation, self.rules = job, installation, rules
        self.now, known = findings_of(job, rules), known_for(job, rules)
        self.invented = any(line.invented for line in prices.lines)
        self.proving = Proving(job, self.now, rules, prices)
        self.tally, self.nearest = Tally(), Nearest()
        self.kept: dict[object, tuple[Wired, JudgedProtection]] = {}
        laid_out = [layout for layout in layouts(installation, charge_point) if _sensible(layout)]
        each = [known_of(layout.installation, rules, known.demand, known.measured) for layout in laid_out]
        self.wirings = [Wiring(layout, here) for layout, here in zip(laid_out, each, strict=True)]
        self.benches = [
            ProtectionBench(layout, protections_to_try(layout.job, layout.run), here)
            for layout, here in zip(laid_out, each, strict=True)
        ]
        self.ruled_out = _board_shorts(laid_out, each)

    def ways(self) -> Iterator[SoFar[SearchResult]]:
        """Every way of every layout, counted with every arrangement."""
        ahead = [wiring.count() * len(bench.tried) for wiring, bench in zip(self.wirings, self.benches, strict=True)]
        for place, (wiring, bench) in enumerate(zip(self.wirings, self.benches, strict=True)):
            of, after = self.tally.tried + sum(ahead[place:]), sum(ahead[place + 1 :])
            yield SoFar(self.tally.tried, of, self.told)
            for wired in wiring.ways():
                if wired is not None:
                    self._count(wired, bench, self.ruled_out[place])
                yield SoFar(self.tally.tried, max(of, self.tally.tried + after), self.told)

    def proofs(self) -> Iterator[SoFar[SearchResult]]:
        """The few judged as whole jobs, one a step; where nothing holds, the nearest ways."""
        tried = self.tally.tried
        while self.proving.of(self.kept.values(), 1, whole=True).unproven:
            yield SoFar(tried, tried, self.told)
        near: list[tuple[Wired | None, list[Finding]]] = [(None, falls_short(self.now))]
        for one in self.nearest.judged(self.rules) if not self.tally.held else ():
            near.append(one)
            yield SoFar(tried, tried, self.told)
        yield SoFar(tried, tried, lambda: self.told(near))

    def told(self, near: list[tuple[Wired | None, list[Finding]]] | None = None) -> SearchResult:
        """What is found so far; `near` is given once everything was tried."""
        proven = self.proving.of(self.kept.values(), PROVEN_AT_A_TELLING, whole=near is not None)
        return SearchResult(
            tried=self.tally.tried,
            held=self.tally.held,
            reasons=self.tally.commonest(),
            sizes=self.tally.by_size(),
            few=proven.few,
            elsewhere=proven.elsewhere,
            nearest=_nearest_way(near) if near is not None and not self.tally.held else None,
            left_out=sum(wiring.left_out for wiring in self.wirings),
            invented_prices=self.invented,
        )

    def _count(self, wired: Wired, bench: ProtectionBench, ruled_out: Short | None) -> None:
        best = _counted(wired, bench, self.tally, self.nearest, ruled_out)
        family = wired.family() if best is not None else None
        if best is not None and (family not in self.kept or _better(wired, self.kept[family][0], self.installation)):
            self.kept[family] = (wired, best)


# Nobody puts a board before the last steps of a route; common practice, no source.
LEAST_BEHIND_A_BOARD_M = 3.0


def _sensible(layout: Layout) -> bool:
    """Whether a layout is worth proposing: no new board just before the charge point."""
    final = layout.run.final()
    behind_m = sum(section.length_m for section in final.circuit.route)
    new_board = len(layout.run.chain) > 1 and final.board.fitted_with_this_job
    return layout.as_it_stands or not new_board or behind_m >= LEAST_BEHIND_A_BOARD_M


def _board_shorts(tried: list[Layout], laid_out: list[Known]) -> list[Short | None]:
    """What rules a whole layout out: its boards fall short of something that those of another layout do not."""
    found = [
        {one.rule: one for one in board_findings(case_of(here, layout.run)) if one.verdict is Verdict.FALLS_SHORT}
        for layout, here in zip(tried, laid_out, strict=True)
    ]
    common = set.intersection(*(set(each) for each in found))
    own = [next((one for rule, one in each.items() if rule not in common), None) for each in found]
    return [Short(REGISTER[one.rule], told_short(one)) if one is not None else None for one in own]


def _nearest_way(near: list[tuple[Wired | None, list[Finding]]]) -> NearestWay:
    """The way that comes nearest, where nothing holds."""
    wired, reasons = nearest_of(near)
    if wired is not None:
        return NearestWay(
            layout=wired.layout.words, cable=cables_words(wired), device=devices_words(wired), reasons=reasons
        )
    return NearestWay(layout="as it stands", cable="", device="", reasons=reasons)


def _better(wired: Wired, other: Wired, installation: Installation) -> bool:
    """Of two ways that differ by device only: the standing devices, else the wider margin."""
    standing = installation.tree.circuits

    def score(way: Wired) -> tuple[bool, float]:
        circuits = [chained.circuit for chained in way.chain]
        return all(one.id in standing and standing[one.id].device == one.device for one in circuits), way.least_share

    return score(wired) > score(other)


def _counted(
    wired: Wired, bench: ProtectionBench, tally: Tally, nearest: Nearest, ruled_out: Short | None
) -> JudgedProtection | None:
    """Count a way with every arrangement; the arrangement it is kept with: the standing one, else the simplest."""
    short = wired.short or ruled_out
    if short is not None:
        tally.count(wired.csa_mm2, len(bench.tried), Counter({short: len(bench.tried)}))
        nearest.seen(wired, bench.plainest(), short)
        return None
    pairing = bench.paired(wired.layout.run.final().circuit, wired.kinds[-1], wants_rcd=wired.wants_rcd)
    tally.count(wired.csa_mm2, pairing.tried, pairing.shorts)
    if pairing.best is None:
        nearest.seen(wired, bench.plainest(), Short(OPEN_PEN, "", 0.0))
    return pairing.best
