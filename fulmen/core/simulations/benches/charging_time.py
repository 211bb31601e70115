"""How long a car takes to charge: energy over the smaller of charge point and onboard charger."""

from __future__ import annotations


def charging_power_kw(charge_point_a: float, onboard_kw: float, u0_v: float, phases: int = 1) -> float:
    """Power that reaches the car, P = min(n·U0·I, onboard charger).

    Args:
        charge_point_a: what the charge point is set to [A], 6 to 80.
        onboard_kw: rating of the car's onboard charger [kW], 1.3 to 22.
        u0_v: nominal voltage to earth [V].
        phases: n, on how many phases it charges, 1 or 3.

    Returns:
        power [kW].

    >>> charging_power_kw(32, 22, 230)
    7.36
    >>> charging_power_kw(32, 3.6, 230)
    3.6
    >>> round(charging_power_kw(16, 22, 230, phases=3), 2)
    11.04
    """
    return min(phases * charge_point_a * u0_v / 1000, onboard_kw)


def charging_hours(battery_kwh: float, power_kw: float, efficiency: float) -> float:
    """Time to put energy into the battery at a steady power, t = E/(η·P); the slower last few per cent are left out.

    Args:
        battery_kwh: energy into the battery [kWh], 0 to 250.
        power_kw: power drawn from the supply [kW], above 0.
        efficiency: share of it that reaches the battery [1], 0 to 1.

    Returns:
        time [h].

    >>> round(charging_hours(40, 7.36, 0.92), 1)
    5.9
    """
    return battery_kwh / (power_kw * efficiency)
