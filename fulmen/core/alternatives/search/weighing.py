"""Weighing ways that hold against each other: metal, work, price, spare capacity, volt drop, margin; the few best."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from fulmen.core.alternatives.protection_choice import ProtectionChoice, protected, with_protection
from fulmen.core.alternatives.search.protections import JudgedProtection
from fulmen.core.alternatives.search.wiring import Wired
from fulmen.core.editing.changes import changes_between
from fulmen.core.installation.installation import installation_of
from fulmen.core.materials.materials import materials_list, metal_kg_per_m
from fulmen.core.materials.prices import PriceList
from fulmen.core.model.job import Job

MOST_SHOWN = 7


@dataclass(frozen=True)
class Candidate:
    """One way that holds, as a whole job, with what it is weighed by."""

    wired: Wired
    protection: JudgedProtection
    job: Job
    metal_kg: float
    work_min: float
    price: float
    spare_a: float
    drop_percent: float
    margin: float

    def standing(self, now: Job) -> bool:
        """Whether it is the design as it stands."""
        return not changes_between(now, self.job)


# What is weighed, in words, and the figure of it: the less the better.
AIMS: tuple[tuple[str, Callable[[Candidate], float]], ...] = (
    ("least copper and steel", lambda one: round(one.metal_kg, 2)),
    ("least work", lambda one: round(one.work_min)),
    ("lowest price", lambda one: round(one.price, 1)),
    ("most spare capacity", lambda one: -round(one.spare_a, 1)),
    ("least volt drop", lambda one: round(one.drop_percent, 2)),
    ("widest margin", lambda one: -round(one.margin, 3)),
)


def candidate(wired: Wired, protection: JudgedProtection, prices: PriceList, u0_v: float) -> Candidate:
    """A way that holds with one arrangement, made a whole job and weighed."""
    job = taken(wired, protection)
    listed = materials_list(job, prices)
    return Candidate(
        wired=wired,
        protection=protection,
        job=job,
        metal_kg=sum(
            one.section.length_m * metal_kg_per_m(one.metre.record, one.cable.csa_mm2, chained.phases)
            for chained in wired.chain
            for one in chained.sections
        ),
        work_min=listed.work_min,
        price=listed.price,
        spare_a=min(
            _spare_a(one.laid.sections[one.laid.weakest].rating.iz_a, one.ib_a)
            for one in wired.chain
            if one.laid.weakest is not None
        ),
        drop_percent=wired.chain[-1].end.drop_v / u0_v * 100,
        margin=wired.least_share,
    )  # fmt: skip


def _spare_a(iz_a: float | None, ib_a: float) -> float:
    assert iz_a is not None
    return iz_a - ib_a


def taken(wired: Wired, judged: JudgedProtection) -> Job:
    """The job with a way and an arrangement taken."""
    protection, job = judged.protection, wired.layout.job
    new = {one.id: one for one in wired.circuits()}
    laid = job.model_copy(update={"circuits": tuple(new.get(one.id, one) for one in job.circuits)})
    run = installation_of(laid).run_to(wired.layout.run.charge_point.id)
    assert run is not None
    return with_protection(laid, protected(laid, run, ProtectionChoice(protection.arrangement, protection.rcd)))


def unbeaten(ways: list[Candidate]) -> list[Candidate]:
    """The ways that no other beats: none is as good in everything and better in something."""
    scored = [(way, tuple(aim(way) for _, aim in AIMS)) for way in ways]
    front: list[tuple[Candidate, tuple[float, ...]]] = []
    for way, score in sorted(scored, key=lambda entry: entry[1]):
        if not any(_beats(other, score) for _, other in front):
            front.append((way, score))
    return [way for way, _ in front]


def _beats(one: tuple[float, ...], other: tuple[float, ...]) -> bool:
    return all(mine <= theirs for mine, theirs in zip(one, other, strict=True))


def few_best(ways: list[Candidate], now: Job) -> list[tuple[Candidate, tuple[str, ...]]]:
    """At most a handful: the design as it stands if it holds, and of the unbeaten ways the best at each aim."""
    front = unbeaten(ways)
    best: dict[int, list[str]] = {}
    for words, aim in AIMS:
        if front:
            leader = min(range(len(front)), key=lambda index, aim=aim: (aim(front[index]), _total(front[index])))  # type: ignore[misc]
            best.setdefault(leader, []).append(words)
    few = [(front[index], tuple(words)) for index, words in best.items()]
    shown = [way for way, _ in few]
    others = [*(way for way in ways if way.standing(now)), *sorted(front, key=_total)]
    rest = list({id(way): way for way in others if not any(way is one for one in shown)}.values())
    return [*few, *((way, ()) for way in rest[: max(1, MOST_SHOWN - len(few))])]


def _total(way: Candidate) -> tuple[float, float]:
    return way.price + way.work_min, way.metal_kg
