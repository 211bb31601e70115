"""Which device goes off for a fault at each point of a run: at every board's way, and at the charge point.

For each point the least fault current is taken, conductors hot, since a device that is late is what hurts; the
devices before the point are compared by the times within which they open.
"""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case, CircuitFigures
from fulmen.core.electrical.selectivity import (
    Opener,
    cut_out_opener,
    opener_of,
    opens_between_s,
    selective_up_to_a,
)
from fulmen.core.installation.guards import PlacedGuard, Stands, rcd_name
from fulmen.core.model.guards import DeviceKind
from fulmen.core.model.seen import Seen
from fulmen.core.plain import plain


@plain
class FaultAt:
    """One fault: where, between which conductors, how much flows, what opens first and what may open with it."""

    at: str
    to_earth: bool
    fault_a: float
    first: str
    within_s: float | None
    may_open_too: tuple[str, ...]
    told: str


def what_opens(case: Case) -> tuple[FaultAt, ...]:
    """Every fault of a run, from the origin's board to the charge point; empty without figures."""
    figures = case.figures
    if figures is None:
        return ()
    faults: list[FaultAt] = []
    supply = case.job.supply
    before = [cut_out_opener(float(supply.cut_out_fuse_a or 100), supply.cut_out_fuse_standard)]
    for number, chained in enumerate(figures.chain):
        before.extend(_opener(guard, chained) for guard in case.guards if _opens_before(guard, chained))
        end = case.run.charge_point.name if chained.final else figures.chain[number + 1].board.name
        source_v = case.rules.value("u0_v") * case.rules.value("voltage_factor_min")
        faults.append(_fault(end, to_earth=True, fault_a=source_v / chained.end.loop_ohm, before=before))
        faults.append(_fault(end, to_earth=False, fault_a=source_v / chained.end.hot_neutral_ohm, before=before))
    return tuple(faults)


def _opens_before(guard: PlacedGuard, chained: CircuitFigures) -> bool:
    """Whether a guard stands on or before this circuit, and opens on a fault; what is inside the unit does not."""
    if guard.circuit != chained.circuit.id or guard.stands in (Stands.CUT_OUT, Stands.UNIT):
        return False
    return guard.device is not None or guard.rcd is not None


def _opener(guard: PlacedGuard, chained: CircuitFigures) -> Opener:
    """A residual-current device without overcurrent part opens for faults to earth only."""
    if guard.device is not None or guard.rcd is None:
        return opener_of(chained.circuit)
    others = f" (with it {guard.others})" if guard.others and guard.shared is not Seen.NO else ""
    return Opener(f"{rcd_name(guard.rcd)} {guard.where}{others}", DeviceKind.FUSE, "", float("inf"), guard.rcd)


def _fault(at: str, *, to_earth: bool, fault_a: float, before: list[Opener]) -> FaultAt:
    times = [opens_between_s(opener, fault_a, to_earth=to_earth) for opener in before]
    order = sorted(range(len(before)), key=lambda index: (times[index][1], -index))
    first = order[0]
    within_s = times[first][1]
    if within_s == float("inf"):
        told = "Nothing opens within 5 s."
        return FaultAt(at=at, to_earth=to_earth, fault_a=fault_a, first="", within_s=None, may_open_too=(), told=told)
    others = [
        guard
        for index, guard in enumerate(before)
        if index != first
        and times[index][0] < within_s
        and not _stays(guard, before[first], is_before=index < first, fault_a=fault_a)
    ]
    what = "to earth" if to_earth else "line to neutral"
    told = f"{fault_a:.0f} A {what}: {before[first].name} opens within {within_s:g} s"
    told += f"; {' and '.join(guard.name for guard in others)} may open too." if others else ", and nothing else."
    names = tuple(guard.name for guard in others)
    return FaultAt(
        at=at, to_earth=to_earth, fault_a=fault_a, first=before[first].name, within_s=within_s, may_open_too=names,
        told=told,
    )  # fmt: skip


def _stays(opener: Opener, first: Opener, *, is_before: bool, fault_a: float) -> bool:
    """Whether a device nearer the origin stays for lack of energy, though its time alone would let it open."""
    if not is_before or opener.rcd is not None or opener.rating_a == float("inf"):
        return False
    up_to_a = selective_up_to_a(opener, first)
    return up_to_a is None or fault_a <= up_to_a
