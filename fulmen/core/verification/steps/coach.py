"""The coach: the order of a job's test steps that takes a hand the least time to go through.

Its orders are those of BS 7671 Part 6: on each circuit the ranks of `steps.toml` one after the other, isolation signed
first, everything dead before “fit to energise” is signed, nothing live before; a sub-main is proven before what it
feeds is switched on, and a unit's states go from nobody there to charging, then each fault. For moves see `moves.py`.
The search is bounded: it keeps the best few beginnings of each length, and is never worse than the book's order.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.base import Part
from fulmen.core.model.readings import StepKey
from fulmen.core.so_far import SoFar, finished
from fulmen.core.verification.steps.moves import Act, MoveKind, Setup, Wants, acts, put_back, told, wants
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.site_map import SiteMap

# How many beginnings of one length that end alike are followed further: ten times as many save less than one per cent.
KEPT = 200
# From here on what stands at the origin waits for no circuit, and no circuit for it.
LAST_COMMON_RANK = 7
# The order in which a person goes through a unit's states: nobody, a car, its offer, charging, each fault, the fan.
STATES = (
    (StepKey.PILOT_A,), (StepKey.PILOT_B,), (StepKey.PILOT_DUTY,), (StepKey.PILOT_C,),
    (StepKey.EARTH_OPEN, StepKey.DIODE, StepKey.PILOT_SHORTED), (StepKey.PILOT_D,), (StepKey.RESET,),
)  # fmt: skip
STATE_OF = {step: place for place, steps in enumerate(STATES) for step in steps}
# What proves a sub-main.
PROVES = frozenset({StepKey.ZS, StepKey.ZS_CABLE})


class Move(Part):
    """One move before a step, in words, with what it takes; `jack` is the lead's that moves."""

    kind: MoveKind
    words: str
    duration_s: float
    jack: str = ""


class CoachedStep(Part):
    """One step in its place in the order, and the moves that come before it."""

    step: StepKey
    subject: str
    moves: tuple[Move, ...]


class Effort(Part):
    """What an order takes: moves of each kind, all others together, and the time of all of them [s].

    `fixed_s` is what no order saves: signatures, what is set again, each unit and box opened and closed once.
    """

    leads: int
    dials: int
    adapters: int
    walks: int
    others: int
    moves: int
    duration_s: float
    fixed_s: float


class CoachPlan(Part):
    """The order with the least time that was found, what is left to put back, and what it takes beside the book's."""

    steps: tuple[CoachedStep, ...]
    put_back: tuple[Move, ...]
    coached: Effort
    book: Effort


def coach(steps: Sequence[Step], site: SiteMap) -> CoachPlan:
    """The order of all steps that a bounded search finds to take the least time.

    Args:
        steps: the job's sequence; what is only offered with another step is left to the tester.
        site: where they are taken.

    Returns:
        The plan; its order keeps every rank and hold, and takes no longer than the book's.
    """
    return finished(coaching(steps, site))


def coaching(steps: Sequence[Step], site: SiteMap, kept: int = KEPT) -> Iterator[SoFar[CoachPlan]]:
    """The same step by step, a place in the order a step; what is left until then keeps the book's order."""
    listed = [one for one in steps if one.offered_with is None or one.required or one.reading is not None]
    book = book_order(listed, site)
    for placed, order in enumerate(_searched(book, site, kept)):
        yield SoFar(placed, len(book), lambda order=order: _better_plan(order, book, site))  # type: ignore[misc]


def _better_plan(order: list[Step], book: list[Step], site: SiteMap) -> CoachPlan:
    found = min((order, book), key=lambda order: effort(order, site).duration_s)
    steps, left = told_moves(found, site)
    return CoachPlan(steps=steps, put_back=left, coached=effort(found, site), book=effort(book, site))


def book_order(steps: Sequence[Step], site: SiteMap) -> list[Step]:
    """The list of Part 6 taken circuit by circuit: what is common first, then each circuit from end to end."""
    depth = {one.circuit: len(site.before(one.circuit)) for one in steps}
    circuits = sorted(dict.fromkeys(one.circuit for one in steps if one.circuit != ORIGIN), key=lambda one: depth[one])
    places = {circuit: at for at, circuit in enumerate(circuits)}
    keys = list(StepKey)

    def place(one: Step) -> tuple[int, int, int, int, int, int]:
        common_last = one.circuit == ORIGIN and (one.rank > LAST_COMMON_RANK or one.rank in (3, 5))
        group = 2 if common_last else 0 if one.circuit == ORIGIN else 1
        state = STATE_OF.get(one.step, -1)
        return (one.stage != "dead", group, places.get(one.circuit, 0), one.rank, state, keys.index(one.step))

    return sorted(steps, key=place)


def must_precede(first: Step, then: Step, site: SiteMap) -> bool:
    """Whether the order of Part 6, a hold, or what is proven before it is switched on puts one step before another."""
    if first.kind == "hold" or then.kind == "hold" or first.stage != then.stage:
        return (first.stage != "dead", first.rank) < (then.stage != "dead", then.rank)
    if first.step is StepKey.LEADS_NULLED:
        return then.function == first.function and then.step is not first.step
    if first.stage != "dead" and first.step in PROVES and first.circuit in site.before(then.circuit):
        return True
    if first.circuit == then.circuit and first.step in STATE_OF and then.step in STATE_OF:
        return STATE_OF[first.step] < STATE_OF[then.step]
    common = ORIGIN in (first.circuit, then.circuit) and max(first.rank, then.rank) <= LAST_COMMON_RANK + 1
    return (first.circuit == then.circuit or common) and first.rank < then.rank


@dataclass(frozen=True, slots=True)
class _Beginning:
    """Some steps in an order: which are done, how things stand after them, and what it took so far."""

    done: int
    setup: Setup
    taken_s: float
    order: tuple[int, ...]


def _searched(steps: list[Step], site: SiteMap, width: int) -> Iterator[list[Step]]:
    """A beam search: of all beginnings of one length the cheapest few go on; the cheapest of each length, completed."""
    before = [sum(1 << at for at, one in enumerate(steps) if must_precede(one, then, site)) for then in steps]
    wanted = [wants(one, site) for one in steps]
    reached: dict[tuple[Setup, int], tuple[Setup, float]] = {}
    kept = [_Beginning(0, Setup(), 0.0, ())]
    yield list(steps)
    for _ in steps:
        longer: dict[tuple[int, Setup], _Beginning] = {}
        for beginning in kept:
            for at, then in enumerate(wanted):
                if beginning.done >> at & 1 or before[at] & ~beginning.done:
                    continue
                if (beginning.setup, at) not in reached:
                    reached[beginning.setup, at] = _cost(beginning.setup, then, site)
                setup, cost_s = reached[beginning.setup, at]
                taken_s = beginning.taken_s + cost_s
                here = (beginning.done | 1 << at, setup)
                known = longer.get(here)
                if known is None or taken_s < known.taken_s:
                    longer[here] = _Beginning(here[0], setup, taken_s, (*beginning.order, at))
        kept = _widely(longer.values(), width)
        begun = kept[0].order
        yield [steps[at] for at in (*begun, *(at for at in range(len(steps)) if at not in begun))]


def _widely(every: Iterable[_Beginning], width: int) -> list[_Beginning]:
    """The cheapest few that end at each place with each circuit as far: what is dear now may be what saves later."""
    few: Counter[object] = Counter()
    kept = []
    for one in sorted(every, key=lambda one: one.taken_s):
        here = (one.setup.place, one.setup.link, one.setup.opened, one.setup.cores_out, one.setup.joined)
        if few[here] < width:
            few[here] += 1
            kept.append(one)
    return kept


def _cost(setup: Setup, then: Wants, site: SiteMap) -> tuple[Setup, float]:
    after, made = acts(setup, then, site)
    return after, sum(one.duration_s for one in made)


def made_for(order: Sequence[Step], site: SiteMap) -> list[list[Act]]:
    """The moves before each step of an order, and those that put everything back after the last."""
    setup, every = Setup(), []
    for step in order:
        setup, made = acts(setup, wants(step, site), site)
        every.append(made)
    return [*every, put_back(setup, site)[1]]


def effort(order: Sequence[Step], site: SiteMap) -> Effort:
    """What an order takes."""
    made = [one for some in made_for(order, site) for one in some]
    counts = {kind: sum(one.kind is kind for one in made) for kind in MoveKind}
    told_apart = (MoveKind.LEAD, MoveKind.LINK, MoveKind.DIAL, MoveKind.ADAPTER, MoveKind.WALK)
    return Effort(
        leads=counts[MoveKind.LEAD] + counts[MoveKind.LINK],
        dials=counts[MoveKind.DIAL],
        adapters=counts[MoveKind.ADAPTER],
        walks=counts[MoveKind.WALK],
        others=sum(count for kind, count in counts.items() if kind not in told_apart),
        moves=len(made),
        duration_s=sum(one.duration_s for one in made),
        fixed_s=_fixed_s(made),
    )


def _fixed_s(made: list[Act]) -> float:
    """What no order saves: each signature, each thing set again, each unit opened and closed once."""
    once, fixed_s = set(), 0.0
    for one in made:
        if one.kind in (MoveKind.SIGN, MoveKind.RESET):
            fixed_s += one.duration_s
        elif one.kind in (MoveKind.UNIT, MoveKind.BOX) and (one.what, one.to) not in once:
            once.add((one.what, one.to))
            fixed_s += one.duration_s
    return fixed_s


def told_moves(order: Sequence[Step], site: SiteMap) -> tuple[tuple[CoachedStep, ...], tuple[Move, ...]]:
    """Each step of an order with the moves that come before it, and what is put back after the last."""
    *every, last = made_for(order, site)
    steps = tuple(
        CoachedStep(step=step.step, subject=step.subject, moves=_in_words(made, step, site))
        for step, made in zip(order, every, strict=True)
    )
    return steps, _in_words(last, None, site)


def _in_words(made: list[Act], step: Step | None, site: SiteMap) -> tuple[Move, ...]:
    every = told(made, step, site)
    return tuple(Move(kind=one.kind, words=words, duration_s=one.duration_s, jack=one.jack) for one, words in every)
