"""What may be wrong with an installation as built or with what was written down of it, read from `faults.toml`."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from typing import Any

from fulmen.core.reference.tables import read_toml


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
class Built:
    """What a fault is in an installation as built; its size says how much.

    In a cable: `joint` is the conductor with more ohms, `longer` makes all of them so many times as long, `crossed` two
    that changed places, `off` one that is in no terminal, `poor` the pairs that leak, each `times` the size [MΩ];
    `turned` two lines changed over. At the supply: `supply` says whether Ze is so many times the declared one or the
    neutral has so many ohms more, `sags` that its volts do. `bond`, `leads`: ohms there. `beside`: a path beside the
    earth at the unit, so many times R2. `joins_earths`: ohms between an island's two. `rcd`: dead, blind to pulses, or
    slow [ms]. The unit: set to so many times its current, its lead `coded` too high, `figure_at` the step that shows
    the size, `wrong_at` the steps that are found wrong. `clamp`: what it sees; `reports` that the unit says so,
    `obeys_not` that the limit is not kept.
    """

    joint: str = ""
    longer: bool = False
    crossed: str = ""
    off: str = ""
    poor: tuple[str, ...] = ()
    times: float = 1.0
    turned: bool = False
    supply: str = ""
    sags: bool = False
    bond: bool = False
    leads: bool = False
    beside: bool = False
    joins_earths: bool = False
    rcd: str = ""
    set_times: bool = False
    coded: bool = False
    figure_at: str = ""
    wrong_at: tuple[str, ...] = ()
    clamp: str = ""
    reports: bool = False
    obeys_not: bool = False


@dataclass(frozen=True)
class Only:
    """Where a fault can be at all: a step that meets it, the supply's earthing, a lead, and cable enough to show it."""

    step: str = ""
    earthing: tuple[str, ...] = ()
    tethered: bool = False
    least_loop_ohm: float = 0.0
    least_earth_ohm: float = 0.0


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
    `brings` are kinds that it looks like besides. Where it is planted in practice `built` says what it is there, `only`
    where it can be, `least` and `most` its sizes in `unit`, `switched_on` what had happened had it been switched on
    untested.
    """

    words: str
    where: FaultPlace
    why: str
    tells: str
    look: str
    least: float = 0.0
    most: float = 0.0
    unit: str = ""
    built: Built | None = None
    only: Only = Only()
    switched_on: str = ""
    adds: Adds | None = None
    opens: tuple[str, ...] = ()
    crossed: tuple[str, ...] = ()
    armour: bool = False
    poor: tuple[str, ...] = ()
    damp: bool = False
    shown: tuple[Shown, ...] = ()
    brings: tuple[str, ...] = ()

    @property
    def in_one_cable(self) -> bool:
        """Whether it sits in one cable of a run rather than in all of it."""
        return self.where is FaultPlace.CABLE and not (self.built is not None and self.built.turned)


@cache
def fault_infos() -> dict[str, FaultInfo]:
    """Every kind, by its key, in the order of the file."""
    return {key: _info(entry) for key, entry in read_toml(__package__, "faults").items()}


def _info(entry: dict[str, Any]) -> FaultInfo:
    adds = entry.get("adds")
    built, only = _lists(entry.get("built")), _lists(entry.get("only")) or {}
    parsed = {
        "where": FaultPlace(entry["where"]),
        "adds": Adds(**adds) if adds is not None else None,
        "built": Built(**built) if built is not None else None,
        "only": Only(**only),
        "shown": tuple(Shown(**one) for one in entry.get("shown", ())),
        **{name: tuple(entry.get(name, ())) for name in ("opens", "crossed", "poor", "brings")},
    }
    return FaultInfo(**{**entry, **parsed})


def _lists(entry: dict[str, Any] | None) -> dict[str, Any] | None:
    """An entry with its lists as they are kept."""
    if entry is None:
        return None
    return {name: tuple(value) if isinstance(value, list) else value for name, value in entry.items()}


@cache
def planted_kinds() -> tuple[str, ...]:
    """The kinds that are planted in practice."""
    return tuple(kind for kind, info in fault_infos().items() if info.built is not None)


def fault_info(kind: str) -> FaultInfo:
    """What is known of a kind.

    >>> fault_info("no_earth").words
    'no earth at the unit'
    """
    return fault_infos()[kind]


@dataclass(frozen=True)
class Fault:
    """One fault of a size, in its kind's unit; in a cable by the id of its circuit, the last one of the run without."""

    kind: str
    size: float
    circuit: str = ""

    @property
    def info(self) -> FaultInfo:
        """What is known of its kind."""
        return fault_info(self.kind)

    @property
    def built(self) -> Built:
        """What it is in an installation as built."""
        found = self.info.built
        assert found is not None, f"{self.kind} is never planted"
        return found
