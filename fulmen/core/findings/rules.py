"""Why a rule is there: what can happen to somebody where it falls short; and the schools of practice."""

from __future__ import annotations

from typing import NamedTuple

FEARS = {
    "open_pen": "The street's neutral breaks, the house's load lifts the earth terminal, and with it the car. Who "
    "touches it stands on the ground and takes that voltage for as long as it lasts.",
    "bypass": "The device opens, and the car stays joined to the live earth through the armour all the same.",
    "separation": "One hand on the car, one on metal of the house earth: between them stands the broken PEN's voltage.",
    "electrode_clear": "Through the soil the electrode takes on the pipe's voltage; the island is only on paper.",
    "electrode_touch": "An earth fault lifts the car to a dangerous voltage before the RCD sees enough to open.",
    "electrode_stable": "It dries out or freezes, and the RCD no longer sees enough current to open.",
    "own_rcd": "A person who touches a live part stays on it; or the neutral stays joined and carries a fault.",
    "rcd_neutral": "A borrowed or live neutral stays joined while somebody works on what they think is dead.",
    "dc_protection": "Smooth DC from the car holds the RCD's core fast: the next fault to a person does not open it.",
    "rcd_blinding": "The RCD that guards the rest of the house goes numb, and nobody notices until somebody needs it.",
    "concealed_cable": "A nail goes into the cable, and the only RCD stands behind the nail.",
    "tt_origin_rcd": "A fault before the circuit's own RCD stays: the fuse never blows on an electrode's loop.",
    "disconnection": "The metal of the charge point stays live until the fuse or breaker makes up its mind.",
    "survives_fault": "The earth conductor burns through before the device has opened.",
}

# The rules that protect people at the car; the others guard the cable and the papers.
PROTECTION_RULES = frozenset(FEARS) - {"disconnection", "survives_fault"} | {
    "fall_of_potential", "rcd_at_board", "front_rcd", "maker_rcd", "surge", "tns_school",
}  # fmt: skip


class Schools(NamedTuple):
    """Two ways that good practitioners go; the cautious one first."""

    cautious: str
    other: str


SCHOOLS = {
    "tns_school": Schools("treat TN-S as PME", "accept TN-S as found, on the operator's written word"),
    "rcd_at_board": Schools("an RCBO at the board too", "rely on the RCD in the unit"),
    "rcd_neutral": Schools("a double-pole RCBO", "leave the neutral to the RCD in the unit"),
    "surge": Schools("fit surge protection", "leave it out, the owner having declined in writing"),
    "open_pen": Schools("a measure that hangs on no other load", "rest on the balance of the installation"),
}
