"""The run: the path of copper from the origin to a charge point, with what can open along it; never stored."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fulmen.core.installation.guards import PlacedGuard, Stands, guards_of
from fulmen.core.installation.tree import Chain, ChainCircuit, Tree
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.job import Job
from fulmen.core.model.seen import Seen

ORIGIN = "origin"


@dataclass(frozen=True, slots=True)
class Run:
    """The chain of circuits from the origin's board to one charge point, or to the loads of its last circuit.

    The chain is empty where nothing feeds the charge point yet. `subject` is what findings of this run are about: its
    final circuit, or its charge point without one. `guards` is everything that can open, from the cut-out fuse to what
    is inside the unit; `rcds` those that see a residual current, `own_rcds` those of them behind which nothing hangs
    but this run's final circuit, `rcds_before` those that see an earth fault anywhere on a circuit, by its name.
    `tested` are the RCDs by the subject of their readings, `tested_as` those subjects by the field of the RCD.
    `unread` are RCDs whose marks nobody has read, `unread_before` those of them before each circuit.
    """

    point: ChargePoint | None
    chain: Chain
    subject: str
    guards: tuple[PlacedGuard, ...]
    rcds: tuple[PlacedGuard, ...]
    own_rcds: tuple[PlacedGuard, ...]
    rcds_before: Mapping[str, tuple[PlacedGuard, ...]]
    tested: Mapping[str, PlacedGuard]
    tested_as: Mapping[str, str]
    unread: tuple[PlacedGuard, ...]
    unread_before: Mapping[str, tuple[PlacedGuard, ...]]

    @property
    def charge_point(self) -> ChargePoint:
        """The charge point at its end; a run to loads has none, and nothing that needs one is asked of it."""
        assert self.point is not None
        return self.point

    @property
    def to_loads(self) -> bool:
        """Whether it ends at loads, not at a charge point."""
        return self.point is None

    def final(self) -> ChainCircuit:
        """The last circuit of the chain: it ends at the charge point or at its loads."""
        return self.chain[-1]

    @property
    def rcds_outside(self) -> tuple[PlacedGuard, ...]:
        """The RCDs that stand outside the unit."""
        return tuple(one for one in self.rcds if one.stands is not Stands.UNIT)


def run_of(job: Job, tree: Tree, point: ChargePoint | None, chain: Chain) -> Run:
    """One run with its guards in order."""
    subject = chain[-1].circuit.id if chain else point.id if point is not None else ""
    guards = guards_of(job, tree, point, chain)
    rcds = tuple(one for one in guards if one.rcd is not None)
    own = tuple(one for one in rcds if one.circuit == subject and one.shared is Seen.NO)
    tested_as = _tested_as(chain, subject, rcds, own)
    tested = {tested_as[one.field]: one for one in rcds if one.field in tested_as}
    unread = tuple(one for one in guards if one.unread)
    return Run(
        point=point, chain=chain, subject=subject, guards=guards, rcds=rcds, own_rcds=own,
        rcds_before=_before(chain, rcds), tested=tested, tested_as=tested_as, unread=unread,
        unread_before=_before(chain, unread) if unread else dict.fromkeys((one.circuit.id for one in chain), ()),
    )  # fmt: skip


def _before(chain: Chain, rcds: tuple[PlacedGuard, ...]) -> dict[str, tuple[PlacedGuard, ...]]:
    """The RCDs that see an earth fault anywhere on each circuit: one in a box past part of its cable does not."""
    found: dict[str, tuple[PlacedGuard, ...]] = {}
    passed: list[str] = []
    for chained in chain:
        until = chained.circuit.id
        passed.append(until)
        found[until] = tuple(
            one
            for one in rcds
            if one.stands is not Stands.UNIT
            and one.circuit in passed
            and not (one.circuit == until and one.stands is Stands.BOX and one.after_section)
        )
    return found


def _tested_as(
    chain: Chain, subject: str, rcds: tuple[PlacedGuard, ...], own: tuple[PlacedGuard, ...]
) -> dict[str, str]:
    """Under whose name each RCD of a run is read, by its field.

    The circuit's own is read under the circuit's name: its device's, or the unit's where nothing else stands before
    it; the unit's behind another is read under the unit's name. A time-delayed one in front of the first board is
    read under the origin's name.
    """
    if not chain:
        return {}
    found: dict[str, str] = {}
    for guard in rcds:
        only_in_unit = guard.stands is Stands.UNIT and all(one is guard for one in own)
        name = subject if only_in_unit else guard.subject
        found[guard.field] = ORIGIN if delayed_at_origin(chain, guard) else name
    return found


def delayed_at_origin(chain: Chain, guard: PlacedGuard) -> bool:
    """Whether it is a time-delayed RCD in front of the first board's ways."""
    delayed = guard.rcd is not None and guard.rcd.time_delayed
    return delayed and guard.circuit == chain[0].circuit.id and guard.stands in (Stands.INCOMER, Stands.GROUP)
