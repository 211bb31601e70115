"""What may be wrong with an installation as built, and the least size at which it matters to safety (`faults.toml`)."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cache

from fulmen.core.reference.tables import read_toml


class FaultKind(StrEnum):
    """One thing that is not as it was designed."""

    LONGER_CABLE = "longer_cable"
    LINE_JOINT = "line_joint"
    NEUTRAL_JOINT = "neutral_joint"
    EARTH_JOINT = "earth_joint"
    LINE_NEUTRAL_CROSSED = "line_neutral_crossed"
    NO_EARTH = "no_earth"
    NEUTRAL_TO_EARTH = "neutral_to_earth"
    DAMAGED_CABLE = "damaged_cable"
    WET_INSULATION = "wet_insulation"
    RCD_SLOW = "rcd_slow"
    RCD_DEAD = "rcd_dead"
    RCD_BLIND_TO_PULSES = "rcd_blind_to_pulses"
    LEADS_NOT_NULLED = "leads_not_nulled"
    PARALLEL_EARTH = "parallel_earth"
    HIGH_ZE = "high_ze"
    POOR_SUPPLY_NEUTRAL = "poor_supply_neutral"
    EARTHS_JOINED = "earths_joined"
    DC_DETECTION_DEAD = "dc_detection_dead"
    CONTACTOR_STUCK = "contactor_stuck"
    SET_TOO_HIGH = "set_too_high"
    EARTH_LOSS_SLOW = "earth_loss_slow"
    DIODE_NOT_MISSED = "diode_not_missed"
    LEAD_CODED_TOO_HIGH = "lead_coded_too_high"
    SHORTED_PILOT_IGNORED = "shorted_pilot_ignored"
    OPEN_PEN_DEAD = "open_pen_dead"
    BOND_LOOSE = "bond_loose"
    BROKEN_PEN = "broken_pen"
    LINES_SWAPPED = "lines_swapped"
    CLAMP_REVERSED = "clamp_reversed"
    CLAMP_ROUND_BOTH = "clamp_round_both"
    CLAMP_WRONG_TAIL = "clamp_wrong_tail"
    CLAMP_PAIR_DEAD = "clamp_pair_dead"
    CLAMP_LIMIT_NOT_SET = "clamp_limit_not_set"


class FaultPlace(StrEnum):
    """Where a fault sits."""

    SUPPLY = "supply"
    BONDING = "bonding"
    CABLE = "cable"
    RCD = "rcd"
    UNIT = "unit"
    CLAMP = "clamp"
    LEADS = "leads"


@dataclass(frozen=True)
class FaultInfo:
    """A kind of fault: `faults.toml` says what each field means."""

    words: str
    where: FaultPlace
    least: float
    most: float
    unit: str
    why: str
    tells: str
    switched_on: str = ""


@cache
def _infos() -> dict[FaultKind, FaultInfo]:
    return {
        FaultKind(kind): FaultInfo(**{**entry, "where": FaultPlace(entry["where"])})
        for kind, entry in read_toml(__package__, "faults").items()
    }


def fault_info(kind: FaultKind) -> FaultInfo:
    """What is known of a kind.

    >>> fault_info(FaultKind.NO_EARTH).words
    'no earth at the unit'
    """
    return _infos()[kind]


@dataclass(frozen=True)
class Fault:
    """One fault of a size, in its kind's unit; in a cable by the id of its circuit, the last one of the run without."""

    kind: FaultKind
    size: float
    circuit: str = ""

    @property
    def info(self) -> FaultInfo:
        """What is known of its kind."""
        return fault_info(self.kind)
