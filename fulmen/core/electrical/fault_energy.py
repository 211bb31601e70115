"""Whether a conductor survives the energy its device lets through (BS 7671 543.1.3 and 434.5.2)."""

from __future__ import annotations

from math import sqrt

from fulmen.core.electrical.fault_loop import FUSE_COLUMNS, INSTANTANEOUS_S, instantaneous_trip_a
from fulmen.core.errors import TableError
from fulmen.core.model.guards import Device, DeviceKind
from fulmen.core.reference.tables import table

BANDS_A = (16, 32, 40)
FAST_S = 0.01
# The energy class that the let-through table is for.
TABLED_CLASS = 3


def let_through_a2s(curve: str, rating_a: float, fault_current_ka: float) -> tuple[float, str]:
    """Let-through energy I²t of an energy-limiting class 3 device, and the table cell used.

    Read at the next fault current up that the table prints, in the band that holds the rating.

    Raises:
        TableError: the fault current or the rating is past the table, or it has no such curve.

    >>> let_through_a2s("B", 32, 4.1)[0]
    45000.0
    """
    band = next((top for top in BANDS_A if rating_a <= top), None)
    if band is None:
        raise TableError(f"{table('let_through').name()}: no band holds {rating_a:g} A")
    energies = table("let_through")
    column = f"{curve}.{band}"
    if column not in energies.columns:
        raise TableError(f"{energies.name()}: no column for curve {curve}")
    value, row = energies.at_or_above(column, fault_current_ka)
    return value, energies.source(column, row)


def device_energy_a2s(device: Device, most_ka: float, least_a: float) -> tuple[float, str]:
    """The most energy a device lets through, for every fault between the least and the highest, and its source.

    A breaker lets most through at the highest fault; where its table has no band or curve, and below its first row, the
    larger of I²·0.01 s there and Ia²·0.1 s at the threshold of its instantaneous trip bounds it. A fuse lets most
    through at the least fault: its energy there is at most I²t at the largest current known to take 5 s, 0.4 s or the
    fast region, whichever the fault reaches.

    Args:
        device: the device before the conductor.
        most_ka: highest prospective fault current where the conductor begins [kA].
        least_a: least fault current at its far end [A].

    Raises:
        TableError: the highest fault is past a breaker's table, its energy class is one that no table is for, or the
            least is too low for a fuse to open in 5 s.
    """
    if device.by_maker:
        return _maker_energy_a2s(device, least_a)
    if device.kind is DeviceKind.FUSE:
        return _fuse_energy_a2s(device.rating_a, least_a)
    if device.kind is DeviceKind.REWIRABLE:
        raise TableError("BS 3036: no let-through energy is known for a rewirable fuse")
    if device.energy_class not in (None, TABLED_CLASS):
        raise TableError(f"{table('let_through').name()}: none for energy class {device.energy_class}, ask the maker")
    in_table = device.rating_a <= BANDS_A[-1] and device.curve.value != "D"
    tabled = let_through_a2s(device.curve.value, device.rating_a, most_ka) if in_table else None
    first_ka, top_ka = table("let_through").rows[0], table("let_through").rows[-1]
    if tabled is not None and most_ka >= first_ka:
        return tabled
    if most_ka > top_ka:
        raise TableError(f"{table('let_through').name()}: {most_ka:g} kA is past its last row, {top_ka:g}")
    trip_a = instantaneous_trip_a(device.curve.value, device.rating_a)
    energy = max((most_ka * 1000) ** 2 * FAST_S, trip_a**2 * INSTANTANEOUS_S)
    if tabled is not None and energy >= tabled[0]:
        return tabled
    bound = f"the larger of I²·{FAST_S:g} s and Ia²·{INSTANTANEOUS_S:g} s; the maker's figure goes first"
    why = f"below {first_ka:g} kA" if tabled is not None else f"no table for {device.curve.value}{device.rating_a}"
    return energy, f"{why}: {bound}"


def cut_out_loop_ohm(rating_a: float, standard: str) -> float | None:
    """The largest loop that opens the network operator's fuse in 5 s [Ω]; None for a rating that its table lacks.

    Args:
        rating_a: rated current [A].
        standard: a column of the table; of any other, or one that nobody read, the smaller loop is taken.

    >>> cut_out_loop_ohm(100, "bs_88_3"), cut_out_loop_ohm(100, "bs_1361"), cut_out_loop_ohm(100, "not_seen")
    (0.38, 0.34, 0.34)
    """
    loops = table("cut_out_fuse")
    columns = [standard] if standard in loops.columns else list(loops.columns)
    return min((loops.at(one, rating_a) for one in columns if loops.has(one, rating_a)), default=None)


def cut_out_energy_a2s(rating_a: float, standard: str, fault_a: float) -> tuple[float, str]:
    """The most energy that the network operator's fuse lets through at a fault, opening within 5 s, and its source.

    Args:
        rating_a: rated current [A].
        standard: as `cut_out_loop_ohm`.
        fault_a: the fault current [A].

    Raises:
        TableError: such a fuse is not in the table, or the fault does not open it within 5 s.
    """
    loops, energies = table("cut_out_fuse"), table("gg_fuse")
    loop_ohm = cut_out_loop_ohm(rating_a, standard)
    opens_a = None if loop_ohm is None else loop_opens_a(loop_ohm)
    row = next((row for row in energies.rows if row >= rating_a), None)
    if opens_a is None or row is None:
        raise TableError(f"{loops.name()}: no figure for a {rating_a:g} A fuse")
    if fault_a < opens_a:
        raise TableError(f"{loops.name()}: {fault_a:.0f} A does not open a {rating_a:g} A fuse within 5 s")
    slow = opens_a**2 * SLOWEST_S
    return max(slow, energies.at("total_a2s", row)), f"{opens_a:.0f} A for {SLOWEST_S:g} s, {loops.name()}"


# The longest that a cut-out fuse's loops are given for.
SLOWEST_S = 5.0


def _fuse_energy_a2s(rating_a: float, least_a: float) -> tuple[float, str]:
    fuses = table("gg_fuse")
    if not fuses.has("total_a2s", rating_a):
        raise TableError(f"{fuses.name()}: no energies for a {rating_a:g} A fuse")
    total = fuses.at("total_a2s", rating_a)
    if least_a >= sqrt(total / FAST_S):
        return total, fuses.source("total_a2s", rating_a)
    for column, time_s in reversed(FUSE_COLUMNS.items()):
        if fuses.has(column, rating_a) and least_a >= (opens_a := fuse_opens_a(rating_a, column)):
            return max(
                total, opens_a**2 * time_s
            ), f"{opens_a:.0f} A for {time_s:g} s, {fuses.source(column, rating_a)}"
    raise TableError(f"{fuses.name()}: {least_a:.0f} A does not open a {rating_a:g} A fuse within 5 s")


def _maker_energy_a2s(device: Device, least_a: float) -> tuple[float, str]:
    """The larger of what its maker says at the highest fault and of the least current that opens it in its time."""
    zs_ohm, opens_s, energy = device.maker_zs_ohm, device.maker_opens_s, device.maker_energy_a2s
    if zs_ohm is None or opens_s is None or energy is None:
        raise TableError(f"No table holds a {device.rating_a} A device of this kind: its maker's loop, time and energy")
    opens_a = loop_opens_a(zs_ohm)
    if least_a < opens_a * (1 - 1e-9):
        raise TableError(f"{least_a:.0f} A does not open a {device.rating_a} A device within {opens_s:g} s")
    return max(energy, opens_a**2 * opens_s), f"its maker: {device.maker_source or 'no paper named'}"


def loop_opens_a(loop_ohm: float) -> float:
    """The current that a loop gives: Ia = U0·Cmin/Zs, with 230 V and 0.95 [A]."""
    return 230 * 0.95 / loop_ohm


def fuse_opens_a(rating_a: float, column: str) -> float:
    """The current that opens a gG fuse in the column's time [A].

    >>> round(fuse_opens_a(63, "zs_5_s_ohm"))
    280
    """
    return loop_opens_a(table("gg_fuse").at(column, rating_a))


def least_csa_mm2(energy_a2s: float, k: float) -> float:
    """The least conductor size that survives: S = √(I²t)/k.

    Args:
        energy_a2s: I²t [A²s], ≥ 0.
        k: material and temperature constant, 115 for copper in 70 °C, 143 in 90 °C insulation, 51 and 46 for
            their steel armour.

    >>> round(least_csa_mm2(45000, 115), 2)
    1.84
    """
    return sqrt(energy_a2s) / k
