"""The charge point: what it takes, what it holds inside, and where it is fixed."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field

from fulmen.core.model.arrangement import Arrangement
from fulmen.core.model.base import ChargeCurrentA, CsaMm2, FlexLengthM, HeightM, Id, IpCode, Line, Part, number
from fulmen.core.model.clamp import ClampProof
from fulmen.core.model.guards import OpenPenDevice, RcdMark, RcdType
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import DataWay


class Provenance(StrEnum):
    """Where the unit comes from: what is inside a customer's own or a second-hand one has to be found out."""

    SUPPLIED_NEW = "supplied_new"
    CUSTOMERS_OWN = "customers_own"
    SECOND_HAND = "second_hand"


class Fitted(StrEnum):
    """When the unit goes onto its cable; until a later one comes, the circuit is handed over without it."""

    NOW = "now"
    LATER = "later"


class Nearby(StrEnum):
    """What is near a charge point and makes its place a matter of its own."""

    POOL = "pool"
    CARAVAN = "caravan"
    WHEELS = "wheels"
    GAS = "gas"
    HIGHWAY = "highway"


class SocketKind(StrEnum):
    """What a unit without a lead offers."""

    TYPE_2 = "type_2"
    HOUSEHOLD = "household"
    OTHER = "other"


class ChargePointFacts(Part):
    """What matters electrically of a kind of charge point; a catalogue record holds the same fields.

    What the maker has not been asked yet is null or not seen; figures then take a single-phase unit of 32 A.
    `open_pen_opens_live` says whether its open-PEN device opens every line and the neutral; one in a board or a box
    tells that by its poles. `flex_rating_a` is what the maker says its flexible tail carries, where no table does.
    """

    phases: Literal[1, 3] | None = None
    max_current_a: ChargeCurrentA | None = None
    tethered: bool | None = None
    socket: SocketKind | None = None
    lead_length_m: Annotated[float, number(1, 20)] | None = None
    lead_csa_mm2: CsaMm2 | None = None
    device_min_a: ChargeCurrentA | None = None
    device_max_a: ChargeCurrentA | None = None
    open_pen_inside: Seen = Seen.NOT_SEEN
    open_pen_device: OpenPenDevice = OpenPenDevice()
    open_pen_opens_live: Seen = Seen.NOT_SEEN
    rdc_dd_inside: Seen = Seen.NOT_SEEN
    rcd_inside_seen: Seen = Seen.NOT_SEEN
    rcd_inside: RcdMark | None = None
    upstream_rcd_asked: Seen = Seen.NOT_SEEN
    upstream_rcd: RcdType | None = None
    terminal_max_mm2: CsaMm2 | None = None
    takes_armour: Seen = Seen.NOT_SEEN
    flex_tail: bool | None = None
    flex_csa_mm2: CsaMm2 | None = None
    flex_length_m: FlexLengthM | None = None
    flex_rating_a: ChargeCurrentA | None = None
    current_clamp: Seen = Seen.NOT_SEEN
    smart: Seen = Seen.NOT_SEEN
    feeds_back: Seen = Seen.NOT_SEEN
    data_ways: tuple[DataWay, ...] = ()
    ip_code: IpCode | None = None


# What figures take until the unit's own current is known; the verdicts wait for it.
USUAL_CURRENT_A = 32.0


class ChargePoint(ChargePointFacts):
    """One charge point as fitted: the facts of its kind, what is true of this one, how people are protected there.

    `set_current_locked` says that nobody turns it up without a tool, a code or its cover off.
    `nearby` is what stands near it, null until somebody looked; `locks_off` says whether what isolates it can be locked
    and is labelled.
    `like` names the unit of the same make and model whose facts it shares: they are entered there.
    `fitted` later, its cable is handed over tested: `end_closed` in a box that wants a tool, its device `left_locked`
    off and `left_labelled`.
    `door_distance_m` is the way from one that hangs indoors to the nearest door that a car could stand at.
    """

    id: Id
    name: Line
    record: Line = ""
    like: Id | Literal[""] = ""
    provenance: Provenance = Provenance.SUPPLIED_NEW
    serial_number: Line = ""
    built_year: Annotated[int, Field(strict=True, ge=2008, le=2100)] | None = None
    seen_working: Seen = Seen.NOT_SEEN
    set_current_a: ChargeCurrentA | None = None
    set_current_locked: Seen = Seen.NOT_SEEN
    hangs_outdoors: bool | None = None
    door_distance_m: Annotated[float, number(0, 100)] | None = None
    connector_height_m: HeightM | None = None
    nearby: tuple[Nearby, ...] | None = None
    locks_off: Seen = Seen.NOT_SEEN
    fitted: Fitted = Fitted.NOW
    end_closed: Seen = Seen.NOT_SEEN
    left_locked: Seen = Seen.NOT_SEEN
    left_labelled: Seen = Seen.NOT_SEEN
    arrangement: Arrangement = Arrangement()
    clamp_proof: ClampProof | None = None

    def as_like(self, other: ChargePoint) -> ChargePoint:
        """This unit with the facts of another one of its kind."""
        return self.model_copy(update={name: getattr(other, name) for name in ChargePointFacts.model_fields})

    @property
    def to_come(self) -> bool:
        """Whether its circuit is handed over before the unit hangs on it."""
        return self.fitted is Fitted.LATER

    @property
    def phase_count(self) -> Literal[1, 3]:
        """Phases of the unit; one until they are known."""
        return self.phases or 1

    @property
    def current_known(self) -> bool:
        """Whether somebody said what it is set to, or the most it can take."""
        return self.set_current_a is not None or self.max_current_a is not None

    def design_current_a(self) -> float:
        """Ib, the current the charge point is set to, or the most it can take: where anybody turns it up, that."""
        most_a = self.max_current_a or USUAL_CURRENT_A
        if self.set_current_a is None:
            return most_a
        return max(self.set_current_a, most_a) if self.set_current_locked is Seen.NO else self.set_current_a

    @property
    def may_be_turned_up(self) -> bool:
        """Whether it is set below what it can take, and nobody has said whether that can be undone."""
        most_a, set_a = self.max_current_a or USUAL_CURRENT_A, self.set_current_a
        return set_a is not None and set_a < most_a and self.set_current_locked is Seen.NOT_SEEN
