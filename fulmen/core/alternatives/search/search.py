"""The options search: every sensible combination of layout, cable, size, device and protection, and the few best.

Cables and devices decide one set of checks, arrangements another, and the two meet only in whether an RCD stands at
the board and how the cable ends. So each side is judged once and every pair of the two is counted; the few that are
shown are evaluated as whole jobs.
"""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, field

from fulmen.core.alternatives.budget import Budget
from fulmen.core.alternatives.routed import routed_run
from fulmen.core.alternatives.search.judging import Short
from fulmen.core.alternatives.search.nearest import Nearest, NearestWay
from fulmen.core.alternatives.search.protections import JudgedProtection, ProtectionBench, protections_to_try
from fulmen.core.alternatives.search.weighing import Candidate, candidate, few_best
from fulmen.core.alternatives.search.wiring import LeftOut, Wired, wired_ways
from fulmen.core.checks.boards import board_findings
from fulmen.core.circuit.run_figures import CircuitFigures, Known, case_of, known_of
from fulmen.core.editing.changes import Change, changes_between
from fulmen.core.editing.job_file import check_structure
from fulmen.core.editing.layouts import Layout, layouts
from fulmen.core.electrical.joints import joints_of
from fulmen.core.electrical.selectivity import device_words
from fulmen.core.evaluate import falls_short, findings_of
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.findings.rules import REGISTER
from fulmen.core.findings.rules.protection import OPEN_PEN
from fulmen.core.installation.installation import Installation, installation_of
from fulmen.core.judging.known import known_for
from fulmen.core.materials.prices import PriceList
from fulmen.core.model.base import Part
from fulmen.core.model.job import Job
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.rule_set import RuleSet


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
    nothing holds, `left_out` what was not tried, if anything.
    """

    tried: int
    held: int
    reasons: tuple[FailReason, ...]
    sizes: tuple[SizeVerdict, ...]
    few: tuple[FoundWay, ...]
    elsewhere: tuple[str, ...]
    nearest: NearestWay | None
    left_out: str
    invented_prices: bool


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


def search(
    job: Job, charge_point: str, rules: RuleSet, prices: PriceList, budget: Budget | None = None
) -> SearchResult:
    """Every sensible way to feed one charge point, and the few that no other beats.

    Args:
        job: the job as it stands.
        charge_point: id of the charge point.
        rules: the edition's limits.
        prices: the user's price list, for cost and working time.
        budget: how long it may go on; what was left out is told.

    Raises:
        InputError: no circuit with a route feeds such a charge point.
        JobFileError: the job's structure cannot be taken.
    """
    check_structure(job)
    installation, known = installation_of(job), known_for(job, rules)
    routed_run(installation, charge_point)
    budget, left_out = budget or Budget(), LeftOut()
    # Judged first, so that the budget knows how long a whole job takes.
    now, tally = findings_of(job, rules), Tally()
    kept: dict[object, tuple[Wired, JudgedProtection]] = {}
    tried = [layout for layout in layouts(installation, charge_point) if _sensible(layout)]
    laid_out = [known_of(layout.installation, rules, known.demand, known.measured) for layout in tried]
    boards, nearest = _board_shorts(tried, laid_out), Nearest()
    for layout, here, ruled_out in zip(tried, laid_out, boards, strict=True):
        bench = ProtectionBench(layout, protections_to_try(layout.job, layout.run), here)
        for wired in wired_ways(layout, here, budget, left_out):
            best = _count(wired, bench, tally, nearest, ruled_out)
            family = wired.family() if best is not None else None
            if best is not None and (family not in kept or _better(wired, kept[family][0], installation)):
                kept[family] = (wired, best)
    ways = [candidate(wired, best, prices, rules.value("u0_v")) for wired, best in kept.values()]
    few, elsewhere = _proven(job, now, ways, rules, budget, left_out)
    return SearchResult(
        tried=tally.tried,
        held=tally.held,
        reasons=tally.commonest(),
        sizes=tuple(_size(csa_mm2, tally) for csa_mm2 in sorted(tally.sizes)),
        few=few,
        elsewhere=elsewhere,
        nearest=_nearest(job, now, nearest, rules, budget) if not tally.held else None,
        left_out=left_out.words(),
        invented_prices=any(line.invented for line in prices.lines),
    )


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
    return [Short(REGISTER[one.rule], _told(one)) if one is not None else None for one in own]


def _nearest(job: Job, now: tuple[Finding, ...], nearest: Nearest, rules: RuleSet, budget: Budget) -> NearestWay:
    """The way that comes nearest, where nothing holds."""
    wired, reasons = nearest.told(now, rules, budget)
    if wired is not None:
        return NearestWay(layout=wired.layout.words, cable=_cables(wired), device=_devices(wired), reasons=reasons)
    return NearestWay(layout="as it stands", cable="", device="", reasons=reasons)


def _better(wired: Wired, other: Wired, installation: Installation) -> bool:
    """Of two ways that differ by device only: the standing devices, else the wider margin."""
    standing = installation.tree.circuits

    def score(way: Wired) -> tuple[bool, float]:
        circuits = [chained.circuit for chained in way.chain]
        return all(one.id in standing and standing[one.id].device == one.device for one in circuits), way.least_share

    return score(wired) > score(other)


def _size(csa_mm2: float, tally: Tally) -> SizeVerdict:
    tried, held = tally.sizes[csa_mm2]
    commonest = tally.size_texts.get(csa_mm2, Counter()).most_common(1)
    return SizeVerdict(csa_mm2=csa_mm2, tried=tried, held=held, why_not=commonest[0][0] if commonest else "")


def _count(
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


# How often the few are chosen again after one of them fell short as a whole job.
MOST_ROUNDS = 6


def _proven(
    job: Job, now: tuple[Finding, ...], ways: list[Candidate], rules: RuleSet, budget: Budget, left_out: LeftOut
) -> tuple[tuple[FoundWay, ...], tuple[str, ...]]:
    """The few evaluated as whole jobs: what falls short in all lies elsewhere; a way that adds to it makes room for
    the next best.
    """
    known: dict[int, tuple[Finding, ...]] = {}
    open_now = {one.key for one in now if one.is_open}
    for _ in range(MOST_ROUNDS):
        few = few_best(ways, job)
        for way, _ in few:
            if id(way) not in known and (not known or budget.allows()):
                known[id(way)] = findings_of(way.job, rules)
        if len(unproven := [way for way, _ in few if id(way) not in known]):
            # What there was no time to prove is not proposed.
            left_out.stopped, few = True, [entry for entry in few if entry[0] not in unproven]
        shorts = [{one.key: one for one in falls_short(known[id(way)])} for way, _ in few]
        common = set.intersection(*(set(each) for each in shorts)) if shorts else set()
        worse = {id(way) for (way, _), short in zip(few, shorts, strict=True) if set(short) - common}
        if not worse:
            break
        ways = [way for way in ways if id(way) not in worse]
    proven = tuple(
        _found(job, way, words, sum(one.is_open and one.key not in open_now for one in known[id(way)]))
        for way, words in few
        if id(way) not in worse
    )
    elsewhere = tuple(_told(shorts[0][key]) for key in sorted(common))
    return proven, elsewhere


def _told(finding: Finding) -> str:
    return f"{finding.title}: {finding.figures() or finding.detail}"


def _found(job: Job, way: Candidate, best_at: tuple[str, ...], conditions: int) -> FoundWay:
    wired, changes = way.wired, changes_between(job, way.job)
    return FoundWay(
        layout=wired.layout.words,
        cable=_cables(wired),
        device=_devices(wired),
        protection=way.protection.protection.words(tt=job.supply.earthing is Earthing.TT),
        best_at=best_at,
        metal_kg=way.metal_kg,
        work_min=way.work_min,
        price=way.price,
        spare_a=way.spare_a,
        drop_percent=way.drop_percent,
        margin=way.margin,
        joints=sum(len(joints_of(circuit, wired.layout.installation.cables)) for circuit in wired.circuits()),
        conditions=conditions,
        standing=not changes,
        changes=changes,
    )  # fmt: skip


def _cables(wired: Wired) -> str:
    return "; ".join(_cable_words(chained, wired.layout.installation) for chained in wired.chain)


def _devices(wired: Wired) -> str:
    return "; ".join(device_words(circuit.device) for circuit in wired.circuits())


def _cable_words(chained: CircuitFigures, installation: Installation) -> str:
    """The cables of a circuit in the order of walking; a size is said again only where it changes."""
    told, before_mm2 = [], 0.0
    for cable in dict.fromkeys(one.cable for one in chained.sections):
        size = f"{cable.csa_mm2:g} mm² " if cable.csa_mm2 != before_mm2 else ""
        told.append(size + installation.record(cable).name)
        before_mm2 = cable.csa_mm2
    return ", then ".join(told)
