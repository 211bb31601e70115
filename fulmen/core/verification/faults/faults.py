"""What may be wrong with an installation as built or with what was written down of it, read from `faults.toml`."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from typing import Any

from fulmen.core.reference.tables import read_toml


class FaultKind(StrEnum):
    """What is planted in practice: one thing that is not as it was designed."""

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
    """Where a fault sits; `writing` where only what was written down is wrong."""

    SUPPLY = "supply"
    BONDING = "bonding"
    CABLE = "cable"
    RCD = "rcd"
    UNIT = "unit"
    CLAMP = "clamp"
    LEADS = "leads"
    WRITING = "writing"


@dataclass(frozen=True)
class Adds:
    """The piece that a fault makes longer or shorter, see `pieces.py`, and by how much at least and at most."""

    piece: str
    least: float
    most: float


@dataclass(frozen=True)
class Shown:
    """What shows a fault by itself: an open finding of a rule or of a step's own reading, by what it rests on.

    `steps` names a group of steps, see `seen_alone.py`; `side` on which side of its limit or of what is expected the
    figure lies; `basis` a fact of the finding, `says` what that must be; `about` the end of its subject; `unless` a
    group of steps of which none may be open too.
    """

    rule: str = ""
    step: str = ""
    steps: str = ""
    outcome: str = ""
    verdict: str = ""
    side: str = ""
    basis: str = ""
    says: str = ""
    about: str = ""
    unless: str = ""


@dataclass(frozen=True)
class FaultInfo:
    """A kind of fault: in words, where it sits, why it matters, what tells it and where to look.

    What its readings look like is one of these: `adds` where ohms are added, `opens` the continuity steps that read
    over range, `crossed` the same with a wrong polarity (unless an `armour` beside the core closes them), `poor` the
    pairs of poor insulation (`damp` where it is above its limit all the same), `shown` what one finding says by itself.
    `brings` are kinds that it looks like besides. `least` and `most` are its sizes in practice, in `unit`, nought where
    it is never planted there; `switched_on` is what had happened had it been switched on untested.
    """

    words: str
    where: FaultPlace
    why: str
    tells: str
    look: str
    least: float = 0.0
    most: float = 0.0
    unit: str = ""
    switched_on: str = ""
    adds: Adds | None = None
    opens: tuple[str, ...] = ()
    crossed: tuple[str, ...] = ()
    armour: bool = False
    poor: tuple[str, ...] = ()
    damp: bool = False
    shown: tuple[Shown, ...] = ()
    brings: tuple[str, ...] = ()


@cache
def fault_infos() -> dict[str, FaultInfo]:
    """Every kind, by its key, in the order of the file."""
    return {key: _info(entry) for key, entry in read_toml(__package__, "faults").items()}


def _info(entry: dict[str, Any]) -> FaultInfo:
    adds = entry.get("adds")
    parsed = {
        "where": FaultPlace(entry["where"]),
        "adds": Adds(**adds) if adds is not None else None,
        "shown": tuple(Shown(**one) for one in entry.get("shown", ())),
        **{name: tuple(entry.get(name, ())) for name in ("opens", "crossed", "poor", "brings")},
    }
    return FaultInfo(**{**entry, **parsed})


def fault_info(kind: str) -> FaultInfo:
    """What is known of a kind.

    >>> fault_info(FaultKind.NO_EARTH).words
    'no earth at the unit'
    """
    return fault_infos()[kind]


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
