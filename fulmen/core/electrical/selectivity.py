"""Selectivity of two devices in series: up to which fault current only the nearer one opens (BS 7671 536.4).

A fuse stays while the energy that the nearer device lets through is below its pre-arcing energy; a breaker stays
below the current at which it may trip at once (3·In for B, 5·In for C, 10·In for D).
"""

from __future__ import annotations

from dataclasses import dataclass
from math import sqrt

from fulmen.core.electrical.fault_energy import BANDS_A, FAST_S, cut_out_loop_ohm, fuse_opens_a, loop_opens_a
from fulmen.core.electrical.fault_loop import NOT_BEFORE_MULTIPLE, instantaneous_trip_a
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Device, DeviceKind, Rcd
from fulmen.core.reference.tables import table

LEAST_TIME_S = 0.0
SLOW_S = 5.0


@dataclass(frozen=True)
class Opener:
    """One overcurrent device of a chain, with the residual-current device that stands with it.

    `cut_out` is the standard of the network operator's fuse, empty for any other device. `by_maker` is the least
    current that opens it and within which time, where its maker said so.
    """

    name: str
    kind: DeviceKind
    curve: str
    rating_a: float
    rcd: Rcd | None = None
    cut_out: str = ""
    by_maker: tuple[float, float] | None = None


def opener_of(circuit: Circuit) -> Opener:
    """What opens by a circuit's device is."""
    device = circuit.device
    rcd = device.rcd.known() if device.rcd is not None else None
    known = device.by_maker and device.maker_zs_ohm is not None and device.maker_opens_s is not None
    return Opener(
        f"{device_words(device)}, {circuit.name}",
        device.kind,
        device.curve.value,
        float(device.rating_a),
        rcd,
        by_maker=(loop_opens_a(device.maker_zs_ohm), device.maker_opens_s) if known else None,  # type: ignore[arg-type]
    )


def device_words(device: Device) -> str:
    """A device in a word.

    >>> device_words(Device())
    'B40'
    """
    if device.kind is DeviceKind.BREAKER:
        return f"{device.curve.value}{device.rating_a}"
    return f"{device.rating_a} A {DEVICE_NAMES[device.kind]}"


DEVICE_NAMES = {
    DeviceKind.FUSE: "fuse",
    DeviceKind.MOULDED_CASE: "moulded-case breaker",
    DeviceKind.REWIRABLE: "rewirable fuse",
}


def cut_out_opener(fuse_a: float, standard: str) -> Opener:
    """The network operator's fuse: by the loops of its standard, by its energies within the gates of a gG fuse."""
    return Opener(f"{fuse_a:g} A cut-out fuse", DeviceKind.FUSE, "", fuse_a, cut_out=standard)


def pre_arcing_a2s(rating_a: float) -> float | None:
    """Least energy that melts a gG fuse [A²s], of the next rating down that the table prints; None below it."""
    fuses = table("gg_fuse")
    rows = [row for row in fuses.rows if row <= rating_a and fuses.has("pre_arcing_a2s", row)]
    return fuses.at("pre_arcing_a2s", rows[-1]) if rows else None


def selective_up_to_a(before: Opener, after: Opener) -> float | None:
    """The fault current up to which only the device after opens [A]; None where there is no end to it, 0 for never.

    Args:
        before: the device nearer the origin.
        after: the device nearer the fault.
    """
    if before.rating_a <= after.rating_a or DeviceKind.MOULDED_CASE in (before.kind, after.kind):
        return 0.0
    if before.kind is DeviceKind.BREAKER:
        return NOT_BEFORE_MULTIPLE[before.curve] * before.rating_a
    melts = pre_arcing_a2s(before.rating_a)
    if melts is None:
        return 0.0
    half_cycle_a = sqrt(melts / FAST_S)
    if after.kind is not DeviceKind.BREAKER:
        fuses = table("gg_fuse")
        total = fuses.at("total_a2s", after.rating_a) if fuses.has("total_a2s", after.rating_a) else None
        return None if total is not None and total < melts else half_cycle_a
    return max(half_cycle_a, _breaker_rows_a(after, melts))


def _breaker_rows_a(after: Opener, melts: float) -> float:
    """The largest printed fault current at which the breaker lets less through than melts the fuse [A]."""
    energies = table("let_through")
    band = next((top for top in BANDS_A if after.rating_a <= top), None)
    column = f"{after.curve}.{band}"
    if band is None or column not in energies.columns:
        return 0.0
    return max((row * 1000 for row in energies.rows if energies.at(column, row) < melts), default=0.0)


# BS 7671 536.4.1.4, from memory: how many times the residual current behind it a selective RCD has at least.
SELECTIVE_MULTIPLE = 3


def rcds_selective(before: Rcd, after: Rcd) -> bool:
    """Whether of two RCDs only the one after opens: the one before is delayed and three times less sensitive.

    >>> from fulmen.core.model.guards import RcdType
    >>> own = Rcd(type=RcdType.A, residual_ma=30)
    >>> rcds_selective(Rcd(type=RcdType.A, residual_ma=100, time_delayed=True), own)
    True
    >>> rcds_selective(Rcd(type=RcdType.A, residual_ma=100), own)
    False
    """
    return (
        before.time_delayed and not after.time_delayed and before.residual_ma >= SELECTIVE_MULTIPLE * after.residual_ma
    )


def opens_between_s(opener: Opener, fault_a: float, *, to_earth: bool) -> tuple[float, float]:
    """Within which times a device opens at a fault [s]; more than 5 s is given as infinite.

    Its residual-current part counts for faults to earth: 0 to 0.04 s at five times its rating, 0.05 to 0.15 s where
    it is time-delayed (BS EN 61008), 0.3 and 0.5 s at its rating.
    """
    times = [_overcurrent_between_s(opener, fault_a)]
    if to_earth and opener.rcd is not None:
        times.append(_residual_between_s(opener.rcd, fault_a * 1000))
    return min(least for least, _ in times), min(most for _, most in times)


def _residual_between_s(rcd: Rcd, fault_ma: float) -> tuple[float, float]:
    if fault_ma < rcd.residual_ma:
        return float("inf"), float("inf")
    fast = fault_ma >= 5 * rcd.residual_ma
    if rcd.time_delayed:
        return (0.05, 0.15) if fast else (0.13, 0.5)
    return LEAST_TIME_S, 0.04 if fast else 0.3


def _overcurrent_between_s(opener: Opener, fault_a: float) -> tuple[float, float]:
    if opener.rating_a == float("inf"):
        return float("inf"), float("inf")
    if opener.by_maker is not None:
        least_a, within_s = opener.by_maker
        return LEAST_TIME_S, within_s if fault_a >= least_a else float("inf")
    if opener.kind is DeviceKind.MOULDED_CASE:
        return LEAST_TIME_S, float("inf")
    if opener.kind is DeviceKind.BREAKER:
        if fault_a >= instantaneous_trip_a(opener.curve, opener.rating_a):
            return LEAST_TIME_S, 0.1
        may_trip = fault_a >= NOT_BEFORE_MULTIPLE[opener.curve] * opener.rating_a
        return (LEAST_TIME_S if may_trip else SLOW_S), float("inf")
    melts = pre_arcing_a2s(opener.rating_a)
    least_s = melts / fault_a**2 if melts is not None else LEAST_TIME_S
    return least_s, _fuse_most_s(opener, fault_a)


def _fuse_most_s(opener: Opener, fault_a: float) -> float:
    """The longest a fuse takes [s]; a rating the table lacks is taken as the next larger one."""
    energies = table("gg_fuse")
    row = next((row for row in energies.rows if row >= opener.rating_a), None)
    if row is None:
        return float("inf")
    if energies.has("total_a2s", row) and fault_a >= sqrt(energies.at("total_a2s", row) / FAST_S):
        return FAST_S
    if opener.cut_out:
        return _cut_out_most_s(opener, fault_a)
    for column, time_s in (("zs_0.4_s_ohm", 0.4), ("zs_5_s_ohm", SLOW_S)):
        if energies.has(column, row) and fault_a >= fuse_opens_a(row, column):
            return time_s
    return float("inf")


def _cut_out_most_s(opener: Opener, fault_a: float) -> float:
    row = next((row for row in table("cut_out_fuse").rows if row >= opener.rating_a), None)
    loop_ohm = None if row is None else cut_out_loop_ohm(row, opener.cut_out)
    return SLOW_S if loop_ohm is not None and fault_a >= loop_opens_a(loop_ohm) else float("inf")
