"""Earth-fault loop: conductor resistance, Zs, and the largest Zs that opens a device in time."""

from __future__ import annotations

from fulmen.core.model.guards import Device, DeviceKind
from fulmen.core.reference.tables import table

COPPER_PER_C = 0.004
INSTANTANEOUS_MULTIPLE = {"B": 5.0, "C": 10.0, "D": 20.0}
# The longest that an instantaneous trip takes, BS EN 60898 and 61009; and the times that a gG fuse's table is for.
INSTANTANEOUS_S = 0.1
FUSE_COLUMNS = {"zs_5_s_ohm": 5.0, "zs_0.4_s_ohm": 0.4}
NOT_BEFORE_MULTIPLE = {"B": 3.0, "C": 5.0, "D": 10.0}


def conductor_ohm(length_m: float, csa_mm2: float, *, fine_strands: bool = False) -> float:
    """Resistance of one copper conductor at 20 °C.

    R = r·L/1000 with r from BS EN 60228; fine strands (class 5) resist 3 to 10 % more.

    Args:
        length_m: length [m], ≥ 0.
        csa_mm2: size [mm²], one of the table's rows.
        fine_strands: whether it is a flexible conductor.

    >>> round(conductor_ohm(15, 6), 4), round(conductor_ohm(15, 6, fine_strands=True), 4)
    (0.0462, 0.0495)
    """
    column = "fine_mohm_per_m" if fine_strands else "mohm_per_m"
    return table("conductor_resistance").at(column, csa_mm2) * length_m / 1000


def temperature_factor(conductor_c: float) -> float:
    """Resistance at a temperature over resistance at 20 °C: 1 + 0.004·(θ − 20).

    >>> temperature_factor(70), temperature_factor(90)
    (1.2, 1.28)
    """
    return 1 + COPPER_PER_C * (conductor_c - 20)


def instantaneous_trip_a(curve: str, rating_a: float) -> float:
    """Ia, the current that surely trips a BS EN 60898 or 61009 device at once: 5·In for B, 10·In for C, 20·In for D.

    >>> instantaneous_trip_a("C", 32)
    320.0
    """
    return INSTANTANEOUS_MULTIPLE[curve] * rating_a


def zs_limit_ohm(curve: str, rating_a: float, u0_v: float, cmin: float) -> float:
    """The largest Zs at operating temperature: Zs = U0·Cmin/Ia (BS 7671 411.4.4, Table 41.3).

    >>> round(zs_limit_ohm("B", 40, 230, 0.95), 2)
    1.09
    """
    return u0_v * cmin / instantaneous_trip_a(curve, rating_a)


def device_zs_limit_ohm(device: Device, within_s: float, *, u0_v: float, cmin: float) -> float | None:
    """The largest Zs that opens a device within a time, on TN [Ω].

    A circuit-breaker must trip at once, which takes 0.1 s at most. A gG fuse is read from its table, in the column of
    the longest time that is not above the one allowed. Above the tables, and of a moulded-case breaker, its maker's
    figure serves. None where none is known: a shorter time, what its maker was not asked, or a rewirable fuse, which
    this circuit may not have.

    Args:
        device: the device before the circuit.
        within_s: the time allowed [s].
        u0_v: nominal voltage to earth [V].
        cmin: least voltage factor [1].

    >>> device_zs_limit_ohm(Device(kind=DeviceKind.FUSE, rating_a=32), 0.4, u0_v=230, cmin=0.95)
    0.99
    """
    if device.by_maker:
        in_time = device.maker_opens_s is not None and device.maker_opens_s <= within_s
        return device.maker_zs_ohm if in_time else None
    if device.kind is DeviceKind.BREAKER:
        limit = zs_limit_ohm(device.curve.value, device.rating_a, u0_v, cmin)
        return limit if within_s >= INSTANTANEOUS_S else None
    column = next((name for name, time_s in FUSE_COLUMNS.items() if time_s <= within_s), None)
    fuses = table("gg_fuse")
    known = column is not None and device.kind is DeviceKind.FUSE and fuses.has(column, device.rating_a)
    return fuses.at(column, device.rating_a) if known and column is not None else None


def prospective_fault_ka(impedance_ohm: float, u0_v: float, cmax: float) -> float:
    """Prospective fault current [kA]: Ipf = U0·Cmax/Z/1000.

    >>> round(prospective_fault_ka(0.35, 230, 1.1), 2)
    0.72
    """
    return u0_v * cmax / impedance_ohm / 1000
