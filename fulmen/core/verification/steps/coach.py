"""The coach: the order of a job's test steps in which leads, dials, adapter positions and walks change least.

Its orders are those of BS 7671 Part 6: on each circuit the ranks of `steps.toml` one after the other, isolation signed
first, everything dead before “fit to energise” is signed, nothing live before. A move is a lead put to another
terminal, a change of function or range, an adapter position, a walk; each takes seconds that the tester may change.
The search is bounded: it keeps the best few beginnings of each length, and is never worse than the book's order.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum

from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.base import Part
from fulmen.core.model.readings import StepKey
from fulmen.core.model.testing import MoveSeconds
from fulmen.core.so_far import SoFar, finished
from fulmen.core.verification.steps.sequence import Step

# How many beginnings of one length are followed further.
KEPT = 24
# From here on what stands at the origin waits for no circuit, and no circuit for it.
LAST_COMMON_RANK = 7


class MoveKind(StrEnum):
    """What a move is."""

    LEAD = "lead"
    LINK = "link"
    DIAL = "dial"
    ADAPTER = "adapter"
    WALK = "walk"


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
    """What an order takes: how many moves of each kind, links among the leads, and all of them together [s]."""

    leads: int
    dials: int
    adapters: int
    walks: int
    duration_s: float


class CoachPlan(Part):
    """The order with the fewest moves that was found, and what it takes beside the book's."""

    steps: tuple[CoachedStep, ...]
    coached: Effort
    book: Effort


@dataclass(frozen=True)
class _Setup:
    """What hangs where: leads by jack, link, dial, adapter position, and where the tester stands."""

    place: str = ORIGIN
    dial: str = ""
    leads: tuple[tuple[str, str], ...] = ()
    link: str = ""
    adapter: str = ""


def coach(steps: Sequence[Step], seconds: MoveSeconds) -> CoachPlan:
    """The order of all steps with the fewest seconds of moves that a bounded search finds.

    Args:
        steps: the job's sequence; what is only offered with another step is left to the tester.
        seconds: what each kind of move takes.

    Returns:
        The plan; its order keeps every rank and hold, and takes no longer than the book's.
    """
    return finished(coaching(steps, seconds))


def coaching(steps: Sequence[Step], seconds: MoveSeconds) -> Iterator[SoFar[CoachPlan]]:
    """The same step by step, a place in the order a step; what is left until then keeps the book's order."""
    book = book_order([one for one in steps if one.offered_with is None or one.required or one.reading is not None])
    for placed, order in enumerate(_searched(book, seconds)):
        yield SoFar(placed, len(book), lambda order=order: _better_plan(order, book, seconds))  # type: ignore[misc]


def _better_plan(order: list[Step], book: list[Step], seconds: MoveSeconds) -> CoachPlan:
    found = min((order, book), key=lambda order: _effort(order, seconds).duration_s)
    return CoachPlan(steps=told_moves(found, seconds), coached=_effort(found, seconds), book=_effort(book, seconds))


def book_order(steps: Sequence[Step]) -> list[Step]:
    """The list of Part 6 taken circuit by circuit: what is common first, then each circuit from end to end."""
    circuits = list(dict.fromkeys(one.circuit for one in steps if one.circuit != ORIGIN))
    places = {circuit: at for at, circuit in enumerate(circuits)}
    keys = list(StepKey)

    def place(one: Step) -> tuple[int, int, int, int]:
        common_last = one.circuit == ORIGIN and (one.rank > LAST_COMMON_RANK or one.rank in (4, 5))
        group = 2 if common_last else 0 if one.circuit == ORIGIN else 1
        return 0 if one.stage == "dead" else 1, group, places.get(one.circuit, 0), keys.index(one.step)

    return sorted(steps, key=place)


def must_precede(first: Step, then: Step) -> bool:
    """Whether the order of Part 6 or a hold puts one step before another."""
    if first.kind == "hold" or then.kind == "hold" or first.stage != then.stage:
        return (first.stage != "dead", first.rank) < (then.stage != "dead", then.rank)
    if first.step is StepKey.LEADS_NULLED:
        return then.function == first.function and then.stage == first.stage and then.step is not first.step
    common = ORIGIN in (first.circuit, then.circuit) and max(first.rank, then.rank) <= LAST_COMMON_RANK + 1
    return (first.circuit == then.circuit or common) and first.rank < then.rank


@dataclass(frozen=True)
class _Beginning:
    """Some steps in an order: which are done, how things hang after them, and what it took so far."""

    done: int
    setup: _Setup
    taken_s: float
    order: tuple[int, ...]


def _searched(steps: list[Step], seconds: MoveSeconds) -> Iterator[list[Step]]:
    """A beam search: of all beginnings of one length the cheapest few go on; the cheapest of each length, completed."""
    before = [sum(1 << at for at, one in enumerate(steps) if must_precede(one, then)) for then in steps]
    kept = [_Beginning(0, _Setup(), 0.0, ())]
    yield list(steps)
    for _ in steps:
        longer: dict[tuple[int, _Setup], _Beginning] = {}
        for beginning in kept:
            for at, then in enumerate(steps):
                if beginning.done >> at & 1 or before[at] & ~beginning.done:
                    continue
                setup, counts = _after(beginning.setup, then)
                taken_s = beginning.taken_s + _seconds(counts, seconds)
                here = (beginning.done | 1 << at, setup)
                known = longer.get(here)
                if known is None or taken_s < known.taken_s:
                    longer[here] = _Beginning(here[0], setup, taken_s, (*beginning.order, at))
        kept = sorted(longer.values(), key=lambda one: one.taken_s)[:KEPT]
        begun = kept[0].order
        yield [steps[at] for at in (*begun, *(at for at in range(len(steps)) if at not in begun))]


def _after(setup: _Setup, step: Step) -> tuple[_Setup, tuple[int, int, int, int]]:
    """How things hang for a step, and how many leads, dials, adapter positions and walks that takes."""
    dial = step.dial if step.leads else setup.dial
    wanted = {lead.jack: _target(lead.terminal, step.place) for lead in step.leads}
    hanging = dict(setup.leads)
    leads = sum(hanging.get(jack) != target for jack, target in wanted.items())
    walks, place = 0, setup.place
    link = f"{step.links} {step.linked_at}".strip() if step.leads else setup.link
    if link and link != setup.link:
        leads, walks, place = leads + 1, walks + (place != step.linked_at), step.linked_at
    walks += place != step.place
    moved = _Setup(
        place=step.place,
        dial=dial,
        leads=tuple(sorted(wanted.items())) if step.leads else setup.leads,
        link=link,
        adapter=step.adapter or setup.adapter,
    )
    return moved, (leads, int(dial != setup.dial), int(moved.adapter != setup.adapter), walks)


def _target(terminal: str, place: str) -> str:
    """A terminal is another one at another place; the adapter's go with it."""
    return terminal if terminal.startswith("adapter") else f"{terminal} {place}"


def _seconds(counts: tuple[int, int, int, int], seconds: MoveSeconds) -> float:
    leads, dials, adapters, walks = counts
    return leads * seconds.lead_s + dials * seconds.dial_s + adapters * seconds.adapter_s + walks * seconds.walk_s


def _effort(order: Sequence[Step], seconds: MoveSeconds) -> Effort:
    setup, total = _Setup(), (0, 0, 0, 0)
    for step in order:
        setup, counts = _after(setup, step)
        total = tuple(map(sum, zip(total, counts, strict=True)))  # type: ignore[assignment]
    leads, dials, adapters, walks = total
    return Effort(leads=leads, dials=dials, adapters=adapters, walks=walks, duration_s=_seconds(total, seconds))


def told_moves(order: Sequence[Step], seconds: MoveSeconds) -> tuple[CoachedStep, ...]:
    """Each step of an order with the moves that come before it."""
    setup, told = _Setup(), []
    for step in order:
        after, _ = _after(setup, step)
        told.append(CoachedStep(step=step.step, subject=step.subject, moves=_moves(setup, after, step, seconds)))
        setup = replace(after)
    return tuple(told)


def _moves(before: _Setup, after: _Setup, step: Step, seconds: MoveSeconds) -> tuple[Move, ...]:
    """The moves between two setups in words, in the order they are made."""
    moves, place = [], before.place
    if after.link and after.link != before.link:
        if place != step.linked_at:
            moves.append(Move(kind=MoveKind.WALK, words="Go to the board", duration_s=seconds.walk_s))
        moves.append(Move(kind=MoveKind.LINK, words=f"Link {step.links}", duration_s=seconds.lead_s))
        place = step.linked_at
    if place != after.place:
        moves.append(
            Move(kind=MoveKind.WALK, words=f"Go {step.where.replace('at ', 'to ', 1)}", duration_s=seconds.walk_s)
        )
    if after.adapter != before.adapter:
        moves.append(Move(kind=MoveKind.ADAPTER, words=f"Adapter to {after.adapter}", duration_s=seconds.adapter_s))
    if after.dial != before.dial:
        moves.append(Move(kind=MoveKind.DIAL, words=f"Dial: {step.range}", duration_s=seconds.dial_s))
    hanging = dict(before.leads)
    moves += [
        Move(
            kind=MoveKind.LEAD,
            words=f"Lead {lead.jack} to {lead.terminal}",
            duration_s=seconds.lead_s,
            jack=lead.jack,
        )
        for lead in step.leads
        if hanging.get(lead.jack) != _target(lead.terminal, step.place)
    ]
    return tuple(moves)
