"""The supply as found at the origin: earthing, cut-out, tails, bonding, main switch."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field

from fulmen.core.model.base import CsaMm2, ElectrodeOhm, FaultKa, Line, LoadA, LoopOhm, Part, PhotoRef, number
from fulmen.core.model.seen import Seen
from fulmen.core.model.sources import Source
from fulmen.core.model.tails import TailsStretch


class Earthing(StrEnum):
    """The earthing arrangement, by looking."""

    TN_C_S = "tn_c_s"
    TN_S = "tn_s"
    TT = "tt"
    NOT_SEEN = "not_seen"


class TnsSchool(StrEnum):
    """How a TN-S earth is taken: the cautious school first."""

    TREAT_AS_PME = "treat_as_pme"
    AS_FOUND = "as_found"


class BondedService(StrEnum):
    """An incoming service that is main bonded."""

    WATER = "water"
    GAS = "gas"
    OIL = "oil"
    STRUCTURAL_STEEL = "structural_steel"
    OTHER = "other"


class CutOutCondition(StrEnum):
    """What the cut-out looks like. Anything but sound is the operator's to mend before work starts."""

    SOUND = "sound"
    OLD = "old"
    DAMAGED = "damaged"
    NOT_SEEN = "not_seen"


class FuseStandard(StrEnum):
    """What the cut-out fuse is made to; one that nobody read counts as the slower."""

    BS_88_3 = "bs_88_3"
    BS_1361 = "bs_1361"
    OTHER = "other"
    NOT_SEEN = "not_seen"


class MeterKind(StrEnum):
    """The meter, by its face."""

    SMART = "smart"
    DIGITAL = "digital"
    DIAL = "dial"
    NOT_SEEN = "not_seen"


class ConductorProtection(StrEnum):
    """How a conductor to an electrode is guarded in the ground; one that is not buried is guarded."""

    GUARDED = "guarded"
    AGAINST_CORROSION = "against_corrosion"
    BARE = "bare"
    NOT_SEEN = "not_seen"


class Supply(Part):
    """The supply from the network operator's cut-out to the first board.

    `incoming_metal` are the metal services and structures that come in, null until somebody looked.
    `cut_out_fuse_mark` is what the fuse's carrier says where its standard is another one.
    `insulated_to_rcds` says whether all between the cut-out and the first RCDs is in double or reinforced insulation.
    """

    earthing: Earthing = Earthing.NOT_SEEN
    tns_school: TnsSchool = TnsSchool.TREAT_AS_PME
    tns_confirmed_in_writing: bool = False
    tns_confirmation: PhotoRef = ""
    phases: Literal[1, 3] | None = None
    supply_number: Line = ""
    looped: Seen = Seen.NOT_SEEN
    neighbour_charge_point: Seen = Seen.NOT_SEEN
    cut_out_condition: CutOutCondition = CutOutCondition.NOT_SEEN
    cut_out_fuse_a: Annotated[int, Field(strict=True, ge=30, le=200)] | None = None
    cut_out_fuse_standard: FuseStandard = FuseStandard.NOT_SEEN
    cut_out_fuse_mark: Line = ""
    fuse_proven: Seen = Seen.NOT_SEEN
    operator_allows_to_rating: Seen = Seen.NOT_SEEN
    meter: MeterKind = MeterKind.NOT_SEEN
    isolator: Seen = Seen.NOT_SEEN
    room_to_split_tails: Seen = Seen.NOT_SEEN
    own_generation: Seen = Seen.NOT_SEEN
    sources: tuple[Source, ...] = Field(default=(), max_length=8)
    ze_enquiry_ohm: LoopOhm | None = None
    pscc_enquiry_ka: FaultKa | None = None
    maximum_demand_a: LoadA | None = None
    load_limit_a: Annotated[float, number(20, 100)] | None = None
    tails: tuple[TailsStretch, ...] = Field(default=(), max_length=12)
    earth_terminal: Seen = Seen.NOT_SEEN
    earthing_conductor_csa_mm2: CsaMm2 | None = None
    main_bonding_csa_mm2: CsaMm2 | None = None
    incoming_metal: tuple[BondedService, ...] | None = None
    bonded_services: tuple[BondedService, ...] = ()
    bonding_near_entry: Seen = Seen.NOT_SEEN
    no_extraneous_parts: bool = False
    electrode_design_ohm: ElectrodeOhm | None = None
    electrode_location: Line = ""
    earthing_conductor_protection: ConductorProtection = ConductorProtection.NOT_SEEN
    insulated_to_rcds: Seen = Seen.NOT_SEEN
    operator_told_of_ze: Seen = Seen.NOT_SEEN

    @property
    def no_metal_comes_in(self) -> bool:
        """Whether somebody looked and no metal service or structure comes in."""
        return self.no_extraneous_parts if self.incoming_metal is None else not self.incoming_metal

    @property
    def phase_count(self) -> Literal[1, 3]:
        """Phases of the supply; one until they are known."""
        return self.phases or 1
