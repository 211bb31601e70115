"""The guards of a run as they are shown: what each opens, which residual currents it sees, what goes off with it."""

from __future__ import annotations

from itertools import accumulate

from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.installation.run import Run
from fulmen.core.model.guards import DeviceKind, GuardKind, RcdType
from fulmen.core.model.seen import Seen
from fulmen.core.plain import plain

SEES = {
    RcdType.AC: "alternating current only",
    RcdType.A: "alternating and pulsating current",
    RcdType.F: "alternating and pulsating current, mixed frequencies",
    RcdType.B: "alternating, pulsating and smooth current",
}
BEHIND = {
    Seen.NO: "nothing but this circuit",
    Seen.YES: "other circuits too",
    Seen.NOT_SEEN: "not looked at: other circuits or not",
}


@plain
class GuardView:
    """One guard in its place along the run: `mark` names its symbol, `short` is its caption."""

    field: str
    stands: Stands
    kind: str
    name: str
    short: str
    where: str
    opens: str
    sees: str
    behind: str
    at_m: float


@plain
class RunGuards:
    """The guards of one run in order, from the cut-out fuse to what is inside the unit; a run to loads has no unit."""

    circuit: str
    charge_point: str
    guards: tuple[GuardView, ...]


def run_guards(run: Run) -> RunGuards:
    """The guards of a run with what is told of each, from the same list as the checks."""
    starts_m, total_m = {}, 0.0
    for chained in run.chain:
        starts_m[chained.circuit.id] = list(
            accumulate((one.length_m for one in chained.circuit.route), initial=total_m)
        )
        total_m = starts_m[chained.circuit.id][-1]
    return RunGuards(
        circuit=run.subject,
        charge_point=run.point.id if run.point is not None else "",
        guards=tuple(_view(guard, starts_m, total_m) for guard in run.guards),
    )


def _view(guard: PlacedGuard, starts_m: dict[str, list[float]], total_m: float) -> GuardView:
    along = starts_m.get(guard.circuit, [0.0])
    at_m = total_m if guard.stands is Stands.UNIT else along[guard.after_section or 0]
    return GuardView(
        field=guard.field, stands=guard.stands, kind=_kind(guard), name=guard.name, short=_short(guard),
        where=guard.where, opens=_opens(guard), sees=_sees(guard), behind=_behind(guard), at_m=at_m,
    )  # fmt: skip


def _kind(guard: PlacedGuard) -> str:
    """What it is, as its symbol tells it."""
    if guard.guard is not None:
        return guard.guard.kind.value
    if guard.device is not None:
        with_rcd = guard.device.kind is DeviceKind.BREAKER and guard.device.rcd is not None
        return "rcbo" if with_rcd else guard.device.kind.value
    if guard.is_rcd:
        return GuardKind.RCCB.value
    if guard.open_pen is not None:
        return GuardKind.OPEN_PEN_DEVICE.value
    return GuardKind.DC_DETECTOR.value if guard.detects_dc else DeviceKind.FUSE.value


def _short(guard: PlacedGuard) -> str:
    """A caption of a few characters: its current or curve, and its type."""
    rcd = (
        f"{guard.rcd.type.value}{' S' if guard.rcd.time_delayed else ''} {guard.rcd.residual_ma} mA"
        if guard.rcd
        else ""
    )
    if guard.device is not None:
        return f"{guard.name} {rcd}".strip()
    if guard.open_pen is not None or (guard.guard and guard.guard.kind is GuardKind.OPEN_PEN_DEVICE):
        return "open PEN"
    if guard.detects_dc:
        return "6 mA DC"
    if guard.fuse_a is not None:
        return f"{guard.fuse_a:g} A fuse"
    if guard.stands is Stands.CUT_OUT:
        return "fuse, A?"
    rated = f"{guard.guard.rating_a:g} A" if guard.guard is not None and guard.guard.rating_a is not None else ""
    if guard.guard is not None and guard.guard.kind is GuardKind.SWITCH:
        return f"{rated} switch".strip()
    return rcd or f"RCCB {rated}".strip()


def _opens(guard: PlacedGuard) -> str:
    """Which poles it opens; not known is said."""
    if guard.open_pen is not None:
        earth = guard.open_pen.opens_protective_conductor
        if earth is None:
            return f"{_live(guard)}; not known whether the protective conductor too"
        return f"{_live(guard)}, {'and' if earth else 'not'} the protective conductor"
    if guard.detects_dc and guard.stands is Stands.UNIT:
        return "through the device it belongs to"
    if guard.stands is Stands.CUT_OUT or (guard.device is not None and not guard.device.opens_poles):
        return "the line"
    return _live(guard)


def _live(guard: PlacedGuard) -> str:
    """Which live conductors it opens."""
    line = "line" if guard.phases == 1 else "lines"
    if guard.opens_live is None:
        return "not known which poles"
    if guard.opens_live:
        return f"{line} and neutral"
    few = guard.poles is not None and guard.poles < guard.phases
    return f"{guard.poles} of {guard.phases} lines" if few else f"the {line} only"


def _sees(guard: PlacedGuard) -> str:
    """Which residual currents it sees; empty where it is no residual-current device."""
    if guard.rcd is not None:
        return f"{SEES[guard.rcd.type]}, from {guard.rcd.residual_ma} mA"
    if guard.detects_dc:
        return "smooth current, from 6 mA"
    return "not known which" if guard.is_rcd else ""


def _behind(guard: PlacedGuard) -> str:
    """What goes off with it."""
    if guard.stands is Stands.CUT_OUT:
        return "the whole installation"
    return f"{guard.others} too" if guard.others and guard.shared is not Seen.NO else BEHIND[guard.shared]
