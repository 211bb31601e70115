"""The site: whose it is, where it is, and where the car will stand."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from fulmen.core.model.base import Line, Paragraph, Part, number
from fulmen.core.model.seen import Seen


class CarPlace(StrEnum):
    """Where a car can be charged from the connector; a lead that reaches outdoors counts as outdoors."""

    OUTDOORS = "outdoors"
    INDOORS_ONLY = "indoors_only"
    NOT_SEEN = "not_seen"


class WorkKind(StrEnum):
    """What the certificate is for."""

    NEW_INSTALLATION = "new_installation"
    ADDITION = "addition"
    ALTERATION = "alteration"
    MOVED = "moved"
    REMOVED = "removed"


class Ownership(StrEnum):
    """Whose the dwelling is: somebody else's needs the owner's word in writing."""

    OWNER_LIVES_THERE = "owner_lives_there"
    OWNER_LETS_IT = "owner_lets_it"
    TENANT = "tenant"
    NOT_SEEN = "not_seen"


class DataWay(StrEnum):
    """A way for the charge point to reach the network."""

    WIFI = "wifi"
    WIRED = "wired"
    MOBILE = "mobile"


class Hazard(StrEnum):
    """What was seen along the way that the run has to reckon with."""

    OLD_DUCT = "old_duct"
    FULL_CAVITY = "full_cavity"
    PIPES = "pipes"
    DRAINS = "drains"
    DATA_CABLES = "data_cables"
    CLADDING = "cladding"
    ROUGH_WALL = "rough_wall"
    PAVING = "paving"
    NEAR_ROAD = "near_road"
    UNDER_FLOOR_RUN = "under_floor_run"


class Circumstance(StrEnum):
    """What is true of the dwelling or of who charges there, and changes what has to be done."""

    LISTED = "listed"
    LEASEHOLD = "leasehold"
    WHEELCHAIR = "wheelchair"


class Nation(StrEnum):
    """Where the dwelling stands: each has its own way of telling building control."""

    ENGLAND_WALES = "england_wales"
    SCOTLAND = "scotland"
    NORTHERN_IRELAND = "northern_ireland"
    NOT_SEEN = "not_seen"


class CableLeft(StrEnum):
    """What became of the cable of a unit that was taken away."""

    TAKEN_OUT = "taken_out"
    PARKED = "parked"
    FEEDS_OTHER = "feeds_other"
    NOT_SEEN = "not_seen"


class WayLeft(StrEnum):
    """What became of its way at the board; `locked_off` is off, locked and labelled."""

    BLANKED = "blanked"
    LOCKED_OFF = "locked_off"
    OPEN = "open"
    NOT_SEEN = "not_seen"


class ElectrodeLeft(StrEnum):
    """What became of an electrode that was its own."""

    HAD_NONE = "had_none"
    TAKEN_OUT = "taken_out"
    LABELLED = "labelled"
    UNMARKED = "unmarked"
    NOT_SEEN = "not_seen"


class SharedLeft(StrEnum):
    """How what shared its guards (an RCD, an open-PEN device, a load limit) was found afterwards."""

    NOTHING_SHARED = "nothing_shared"
    WORKS = "works"
    FAILED = "failed"
    NOT_TESTED = "not_tested"
    NOT_SEEN = "not_seen"


class Removal(Part):
    """How a unit that was taken away left what it hung on, where nothing takes its place.

    `ends_safe` is asked of a cable that stays: dead at both ends, in a box, labelled. `earth_whole` says that the earth
    and bonding of the house are.
    """

    cable: CableLeft = CableLeft.NOT_SEEN
    ends_safe: Seen = Seen.NOT_SEEN
    way_at_board: WayLeft = WayLeft.NOT_SEEN
    earth_whole: Seen = Seen.NOT_SEEN
    electrode: ElectrodeLeft = ElectrodeLeft.NOT_SEEN
    shared: SharedLeft = SharedLeft.NOT_SEEN
    holes_closed: Seen = Seen.NOT_SEEN
    labels_right: Seen = Seen.NOT_SEEN
    operator_told: Seen = Seen.NOT_SEEN


class Site(Part):
    """The dwelling and its householder. `circumstances` is null until somebody asked.

    `old_place` says whether the place that a unit was moved from is left safe, `removal` how one was taken away.
    """

    householder: Line = ""
    address: Paragraph = ""
    car_place: CarPlace = CarPlace.NOT_SEEN
    work: WorkKind = WorkKind.ADDITION
    old_place: Seen = Seen.NOT_SEEN
    removal: Removal = Removal()
    extent: Paragraph = ""
    parking_on_own_land: Seen = Seen.NOT_SEEN
    wanted_position: Paragraph = ""
    nation: Nation = Nation.NOT_SEEN
    ownership: Ownership = Ownership.NOT_SEEN
    circumstances: tuple[Circumstance, ...] | None = None
    permission_in_writing: Seen = Seen.NOT_SEEN
    data_ways: tuple[DataWay, ...] = ()
    data_looked_for: Seen = Seen.NOT_SEEN
    hazards: tuple[Hazard, ...] = ()
    way_proven_clear: Seen = Seen.NOT_SEEN
    stride_m: Annotated[float, number(0.3, 1.3)] = 0.75
    route_notes: Paragraph = ""
