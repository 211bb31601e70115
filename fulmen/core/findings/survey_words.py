"""The plain words for what is seen at the survey: supply, dwelling, boards, what stands around."""

from __future__ import annotations

from enum import Enum

from fulmen.core.model.boards import Enclosure, MakeUp
from fulmen.core.model.charge_point import Fitted, Nearby, Provenance, SocketKind
from fulmen.core.model.circuits import StaysConnected
from fulmen.core.model.site import (
    CableLeft,
    CarPlace,
    Circumstance,
    DataWay,
    ElectrodeLeft,
    Hazard,
    Nation,
    Ownership,
    SharedLeft,
    WayLeft,
    WorkKind,
)
from fulmen.core.model.sources import SourceKind
from fulmen.core.model.stops import Stop
from fulmen.core.model.supply import (
    BondedService,
    ConductorProtection,
    CutOutCondition,
    Earthing,
    FuseStandard,
    MeterKind,
    TnsSchool,
)
from fulmen.core.model.tails import TailsEnd, TailsRun

SURVEY_WORDS: dict[type[Enum], dict[str, str]] = {
    Earthing: {
        Earthing.TN_C_S: "TN-C-S",
        Earthing.TN_S: "TN-S",
        Earthing.TT: "TT",
        Earthing.NOT_SEEN: "not seen yet",
    },
    TnsSchool: {
        TnsSchool.TREAT_AS_PME: "treat as PME",
        TnsSchool.AS_FOUND: "accept as found",
    },
    BondedService: {
        BondedService.WATER: "water",
        BondedService.GAS: "gas",
        BondedService.OIL: "oil",
        BondedService.STRUCTURAL_STEEL: "structural steel",
        BondedService.OTHER: "other",
    },
    CarPlace: {
        CarPlace.OUTDOORS: "outdoors",
        CarPlace.INDOORS_ONLY: "indoors only",
        CarPlace.NOT_SEEN: "not seen yet",
    },
    WorkKind: {
        WorkKind.NEW_INSTALLATION: "new installation",
        WorkKind.ADDITION: "addition",
        WorkKind.ALTERATION: "alteration",
        WorkKind.MOVED: "alteration: a unit moved",
        WorkKind.REMOVED: "a unit taken away",
    },
    CableLeft: {
        CableLeft.TAKEN_OUT: "taken out",
        CableLeft.PARKED: "left, feeding nothing",
        CableLeft.FEEDS_OTHER: "feeds something else",
        CableLeft.NOT_SEEN: "not seen yet",
    },
    WayLeft: {
        WayLeft.BLANKED: "blanked",
        WayLeft.LOCKED_OFF: "off, locked, labelled",
        WayLeft.OPEN: "open, or on",
        WayLeft.NOT_SEEN: "not seen yet",
    },
    ElectrodeLeft: {
        ElectrodeLeft.HAD_NONE: "had none",
        ElectrodeLeft.TAKEN_OUT: "taken out",
        ElectrodeLeft.LABELLED: "left, labelled",
        ElectrodeLeft.UNMARKED: "left unmarked",
        ElectrodeLeft.NOT_SEEN: "not seen yet",
    },
    SharedLeft: {
        SharedLeft.NOTHING_SHARED: "nothing shared them",
        SharedLeft.WORKS: "tested, works",
        SharedLeft.FAILED: "tested, failed",
        SharedLeft.NOT_TESTED: "not tested",
        SharedLeft.NOT_SEEN: "not seen yet",
    },
    Ownership: {
        Ownership.OWNER_LIVES_THERE: "owner lives there",
        Ownership.OWNER_LETS_IT: "owner lets it",
        Ownership.TENANT: "tenant asks",
        Ownership.NOT_SEEN: "not seen yet",
    },
    DataWay: {
        DataWay.WIFI: "Wi-Fi",
        DataWay.WIRED: "a data cable",
        DataWay.MOBILE: "mobile signal",
    },
    Hazard: {
        Hazard.OLD_DUCT: "existing duct: blocked until proven clear",
        Hazard.FULL_CAVITY: "cavity full of cables behind the board",
        Hazard.PIPES: "gas or water pipes",
        Hazard.DRAINS: "drains or waste pipes",
        Hazard.DATA_CABLES: "telephone or data cables",
        Hazard.CLADDING: "cladding",
        Hazard.ROUGH_WALL: "rough or dry-stone wall",
        Hazard.PAVING: "block paving",
        Hazard.NEAR_ROAD: "close to the road: can be hit",
        Hazard.UNDER_FLOOR_RUN: "under-floor run",
    },
    CutOutCondition: {
        CutOutCondition.SOUND: "sound",
        CutOutCondition.OLD: "old: cast iron or pitch-filled",
        CutOutCondition.DAMAGED: "damaged, scorched or leaking",
        CutOutCondition.NOT_SEEN: "not seen yet",
    },
    MeterKind: {
        MeterKind.SMART: "smart",
        MeterKind.DIGITAL: "figures, not smart",
        MeterKind.DIAL: "turning disc",
        MeterKind.NOT_SEEN: "not seen yet",
    },
    ConductorProtection: {
        ConductorProtection.GUARDED: "guarded against corrosion and damage, or not buried",
        ConductorProtection.AGAINST_CORROSION: "guarded against corrosion only",
        ConductorProtection.BARE: "bare copper in the ground",
        ConductorProtection.NOT_SEEN: "not seen yet",
    },
    TailsEnd: {
        TailsEnd.METER: "meter",
        TailsEnd.ISOLATOR: "isolator",
        TailsEnd.BLOCKS: "connector blocks",
        TailsEnd.BOARD: "board",
    },
    TailsRun: {
        TailsRun.CLIPPED: "clipped or in free air",
        TailsRun.ENCLOSED: "in conduit or trunking",
        TailsRun.INSULATED_WALL: "in an insulated wall",
        TailsRun.NOT_SEEN: "not seen yet",
    },
    FuseStandard: {
        FuseStandard.BS_88_3: "BS 88-3",
        FuseStandard.BS_1361: "BS 1361",
        FuseStandard.OTHER: "another one",
        FuseStandard.NOT_SEEN: "not seen yet",
    },
    Stop: {
        Stop.CUT_OUT: "Cut-out",
        Stop.METER: "Meter",
        Stop.TAILS: "Tails",
        Stop.EARTH: "Earth and bonding",
        Stop.BOARD: "Board",
        Stop.ROUTE: "Route",
        Stop.PARKING: "Parking place",
        Stop.DATA: "Data",
        Stop.LOADS: "Other loads",
        Stop.OWNERSHIP: "Ownership",
        Stop.CHARGE_POINT: "Charge point",
    },
    MakeUp: {
        MakeUp.ALL_RCBO: "an RCBO in every way",
        MakeUp.SPLIT_LOAD: "split load, two RCDs",
        MakeUp.BREAKERS_ONLY: "breakers, no RCD",
        MakeUp.REWIRABLE: "rewirable fuses",
        MakeUp.NOT_SEEN: "not seen yet",
    },
    Enclosure: {
        Enclosure.METAL: "metal",
        Enclosure.PLASTIC: "plastic",
        Enclosure.NOT_SEEN: "not seen yet",
    },
    Provenance: {
        Provenance.SUPPLIED_NEW: "supplied new with this job",
        Provenance.CUSTOMERS_OWN: "the customer's own",
        Provenance.SECOND_HAND: "second-hand",
    },
    Nearby: {
        Nearby.POOL: "a pool or a hot tub",
        Nearby.CARAVAN: "a caravan",
        Nearby.WHEELS: "wheels that could hit it",
        Nearby.GAS: "a gas meter or a vent within 150 mm",
        Nearby.HIGHWAY: "a highway within 2 m",
    },
    Circumstance: {
        Circumstance.LISTED: "a listed building",
        Circumstance.LEASEHOLD: "leasehold or shared ground",
        Circumstance.WHEELCHAIR: "a wheelchair user charges here",
    },
    Nation: {
        Nation.ENGLAND_WALES: "England or Wales",
        Nation.SCOTLAND: "Scotland",
        Nation.NORTHERN_IRELAND: "Northern Ireland",
        Nation.NOT_SEEN: "not seen yet",
    },
    SourceKind: {
        SourceKind.SOLAR: "solar panels",
        SourceKind.BATTERY: "battery",
        SourceKind.GENERATOR: "generator",
    },
    Fitted: {Fitted.NOW: "fitted with this job", Fitted.LATER: "comes later"},
    StaysConnected: {
        StaysConnected.SURGE_PROTECTION: "surge protection",
        StaysConnected.ELECTRONICS: "electronics",
        StaysConnected.UNIT: "the unit",
    },
    SocketKind: {
        SocketKind.TYPE_2: "Type 2, BS EN 62196",
        SocketKind.HOUSEHOLD: "household, marked for vehicles",
        SocketKind.OTHER: "another one",
    },
}
