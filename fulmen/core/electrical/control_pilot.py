"""The control pilot and the proximity contact of a charge point (IEC 61851-1:2017, Annexes A and B).

Contents: the voltage of a state, the current that a duty offers and the duty that offers a current, the current that a
resistor codes.
"""

from __future__ import annotations

from enum import StrEnum

from fulmen.core.reference.tables import table


class PilotState(StrEnum):
    """A state of the vehicle, as the pilot shows it."""

    A = "A"
    B = "B"
    C = "C"
    D = "D"
    E = "E"
    F = "F"


NOMINAL_V = {
    PilotState.A: 12.0, PilotState.B: 9.0, PilotState.C: 6.0, PilotState.D: 3.0, PilotState.E: 0.0, PilotState.F: -12.0,
}  # fmt: skip


def pilot_volts(state: PilotState) -> tuple[float, float]:
    """The least and the most of the pilot's voltage in a state [V], for its positive half where it pulses.

    References: IEC 61851-1 Table A.4 (from memory).

    >>> pilot_volts(PilotState.C)
    (5.0, 7.0)
    """
    states, nominal_v = table("pilot_states"), NOMINAL_V[state]
    return states.at("low", nominal_v), states.at("high", nominal_v)


def offered_a(duty_percent: float) -> float | None:
    """The current that a duty of the pilot offers, as a vehicle reads it; None where it offers none.

    I = 0.6·D from 10 to 85 %, 2.5·(D − 64) to 96 %; 6 A from 8 %, 80 A to 97 %. From 3 to 7 % the two talk
    digitally; below, between and above, no charging.

    Args:
        duty_percent: duty of the pilot [%], 0 to 100.

    References: IEC 61851-1 Table A.8 (from memory).

    >>> round(offered_a(53.3), 1)
    32.0
    >>> offered_a(5.0) is None
    True
    """
    duty = table("pilot_duty")
    # Where two stretches meet the first counts, as the standard has it at 85 %.
    for begins in duty.rows:
        if begins <= duty_percent <= duty.at("ends", begins):
            slope = duty.at("slope", begins) if duty.has("slope", begins) else 0.0
            return duty.at("least", begins) + slope * (duty_percent - begins)
    return None


def duty_of(current_a: float) -> float:
    """The duty of the pilot that offers a current [%]: I/0.6 up to 51 A, I/2.5 + 64 above.

    Args:
        current_a: the current offered [A], 6 to 80.

    References: IEC 61851-1 Table A.8 (from memory).

    >>> round(duty_of(32.0), 1)
    53.3
    """
    duty = table("pilot_duty")
    begins = 10.0 if current_a <= offered_at_end(10.0) else 85.0
    return begins + (current_a - duty.at("least", begins)) / duty.at("slope", begins)


def offered_at_end(begins: float) -> float:
    """The most that one stretch of the duty's curve offers [A]; `begins` is its first duty [%].

    >>> offered_at_end(10.0)
    51.0
    """
    duty = table("pilot_duty")
    return duty.at("least", begins) + duty.at("slope", begins) * (duty.at("ends", begins) - begins)


def coded_a(resistor_ohm: float) -> float | None:
    """The current that a lead carries by the resistor between proximity contact and earth [A]; None for no code.

    Args:
        resistor_ohm: as measured [Ω].

    References: IEC 61851-1 Table B.2 (from memory); a tenth about each value is our own.

    >>> coded_a(221.0)
    32.0
    """
    codes = table("proximity")
    held = (row for row in codes.rows if codes.at("low", row) <= resistor_ohm <= codes.at("high", row))
    return next((codes.at("current_a", row) for row in held), None)


def least_code(current_a: float) -> tuple[float, float]:
    """The least of the codes that carries a current: what it codes [A], and its resistor [Ω]; the greatest past all.

    Args:
        current_a: what flows at most [A].

    References: IEC 61851-1 Table B.2 (from memory).

    >>> least_code(16.0)
    (20.0, 680.0)
    """
    codes = table("proximity")
    coded = sorted((codes.at("current_a", row), float(row)) for row in codes.rows)
    return next((one for one in coded if one[0] >= current_a), coded[-1])
