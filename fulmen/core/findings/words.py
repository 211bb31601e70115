"""The plain words for every choice: one word for one thing from core to screen to paper."""

from __future__ import annotations

from enum import Enum

from fulmen.core.findings.finding import Finding, Stage, Verdict
from fulmen.core.findings.survey_words import SURVEY_WORDS
from fulmen.core.model.arrangement import CarEarth, MetalAtUnit, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.cables import Insulation, Protective
from fulmen.core.model.certificate import SignedPart
from fulmen.core.model.circuits import TerminalSchool
from fulmen.core.model.day import Season
from fulmen.core.model.defects import DefectOutcome
from fulmen.core.model.guards import DeviceKind, GuardKind, OpenPenSensing
from fulmen.core.model.inspections import InspectionItem, InspectionOutcome
from fulmen.core.model.instruments import Function
from fulmen.core.model.known_how import KnownHow
from fulmen.core.model.letters import LetterKind
from fulmen.core.model.load import DemandMethod, LoadKind
from fulmen.core.model.readings import Outcome
from fulmen.core.model.reference_method import ReferenceMethod
from fulmen.core.model.route import Fixings, LengthBy, Surroundings, WayMade
from fulmen.core.model.seen import Seen
from fulmen.core.model.testing import BoxSchool, LoopSchool, RcdSchool

# By kind first: two kinds may share a value, such as “none”, and mean different words.
WORDS: dict[type[Enum], dict[str, str]] = {
    **SURVEY_WORDS,
    Verdict: {
        Verdict.MEETS: "Meets",
        Verdict.FALLS_SHORT: "Falls short",
        Verdict.NEEDS: "Needs a fact",
        Verdict.YOUR_CALL: "Your call",
    },
    Stage: {
        Stage.SURVEY: "Survey",
        Stage.DESIGN: "Design",
        Stage.DEAD: "Dead tests",
        Stage.LIVE: "Live tests",
    },
    Seen: {
        Seen.YES: "yes",
        Seen.NO: "no",
        Seen.NOT_SEEN: "not seen yet",
    },
    OpenPenSensing: {
        OpenPenSensing.MET_VOLTAGE: "MET to true earth, clause (iii)",
        OpenPenSensing.LINE_NEUTRAL_WINDOW: "line-to-neutral window, clause (iv)",
    },
    CarEarth: {
        CarEarth.HOUSE_EARTH: "the house earth",
        CarEarth.OWN_ELECTRODE: "its own electrode (TT island)",
    },
    OpenPenMeasure: {
        OpenPenMeasure.DEVICE_IN_UNIT: "the device inside the unit",
        OpenPenMeasure.SEPARATE_DEVICE: "a separate device before the unit",
        OpenPenMeasure.LOW_ELECTRODE: "a low-resistance electrode on the house earth",
        OpenPenMeasure.THREE_PHASE_BALANCE: "the balance of a three-phase installation",
        OpenPenMeasure.INDOORS_ONLY: "no way to charge a car outdoors",
        OpenPenMeasure.NONE: "nothing",
    },
    MetalAtUnit: {
        MetalAtUnit.NONE: "no metal on the house earth",
        MetalAtUnit.APART: "kept apart: plastic gland, or cut back and sleeved",
        MetalAtUnit.TOUCHING: "touching the unit's earth",
        MetalAtUnit.NOT_SEEN: "not seen yet",
    },
    RdcDdPlace: {
        RdcDdPlace.IN_UNIT: "in the unit",
        RdcDdPlace.BEFORE_UNIT: "in a separate device before the unit",
        RdcDdPlace.NONE: "nowhere",
    },
    Surroundings: {
        Surroundings.CLIPPED: "clipped",
        Surroundings.IN_MASONRY: "in masonry wall",
        Surroundings.IN_WALL: "in stud or insulated wall",
        Surroundings.THROUGH_WALL: "through wall",
        Surroundings.UNDER_FLOOR: "under floor",
        Surroundings.LOFT: "loft, over insulation",
        Surroundings.LOFT_UNDER: "loft, under insulation",
        Surroundings.CONDUIT_OR_TRUNKING: "conduit or trunking",
        Surroundings.TRAY: "tray",
        Surroundings.BURIED: "buried",
        Surroundings.DUCT: "duct",
        Surroundings.POST: "post",
    },
    ReferenceMethod: {
        ReferenceMethod.A: "A, in conduit in an insulated wall",
        ReferenceMethod.B: "B, in conduit or trunking on a wall",
        ReferenceMethod.C: "C, clipped direct",
        ReferenceMethod.D: "D, in the ground",
        ReferenceMethod.E: "E, in free air or on tray",
        ReferenceMethod.M100: "100, above a ceiling, insulation to 100 mm",
        ReferenceMethod.M101: "101, above a ceiling, insulation over 100 mm",
        ReferenceMethod.M102: "102, in a stud wall, touching the inner face",
        ReferenceMethod.M103: "103, in a stud wall, surrounded by insulation",
    },
    LengthBy: {
        LengthBy.TAPE: "by tape",
        LengthBy.STEPS: "by steps",
    },
    WayMade: {
        WayMade.FOR_IT: "made for it",
        WayMade.SHARED: "shared with another circuit",
        WayMade.THERE: "there already",
    },
    Fixings: {
        Fixings.METAL: "metal",
        Fixings.PLASTIC: "plastic",
    },
    Protective: {
        Protective.CORE: "a core",
        Protective.ARMOUR: "the armour alone",
        Protective.CORE_AND_ARMOUR: "a core and the armour",
        Protective.SEPARATE: "a conductor of its own beside it",
    },
    Insulation: {
        Insulation.PVC_70: "70 °C thermoplastic",
        Insulation.XLPE_90: "90 °C thermosetting",
    },
    TerminalSchool: {
        TerminalSchool.BY_TEMPERATURE: "conductor no hotter than 70 °C",
        TerminalSchool.RATE_AT_70: "rated from the 70 °C table",
    },
    DeviceKind: {
        DeviceKind.BREAKER: "circuit-breaker",
        DeviceKind.FUSE: "gG fuse in a fused switch",
        DeviceKind.MOULDED_CASE: "moulded-case breaker",
        DeviceKind.REWIRABLE: "rewirable fuse",
    },
    KnownHow: {
        KnownHow.SEEN: "seen",
        KnownHow.TOLD: "told",
        KnownHow.MAKERS_PAPER: "maker's paper",
        KnownHow.OPERATOR: "from the operator",
        KnownHow.MEASURED: "measured",
        KnownHow.TAKEN_AS_USUAL: "taken as usual",
        KnownHow.NOT_SEEN: "not seen",
        KnownHow.EARLIER_VERSION: "taken from an earlier version",
    },
    GuardKind: {
        GuardKind.SWITCH: "switch",
        GuardKind.RCCB: "RCCB",
        GuardKind.OPEN_PEN_DEVICE: "open-PEN device",
        GuardKind.DC_DETECTOR: "6 mA DC detector",
    },
    LoadKind: {
        LoadKind.LIGHTING: "Lighting",
        LoadKind.SOCKETS: "Socket circuits",
        LoadKind.COOKER: "Cooking",
        LoadKind.SHOWER: "Electric showers",
        LoadKind.WATER_HEATER: "Water heating",
        LoadKind.HEATING: "Fixed heating",
        LoadKind.FLOOR_HEATING: "Floor heating",
        LoadKind.STORAGE_HEATING: "Storage heating",
        LoadKind.HEAT_PUMP: "Heat pump",
        LoadKind.CAR: "Charge point there already",
        LoadKind.OTHER: "Anything else",
    },
    DemandMethod: {
        DemandMethod.ENTERED: "I enter the total",
        DemandMethod.ADDED_UP: "add up with diversity",
        DemandMethod.MEASURED: "measured maximum",
    },
    DefectOutcome: {
        DefectOutcome.PUT_RIGHT: "put right",
        DefectOutcome.LEFT_TOLD_OWNER: "left, told the owner",
    },
    LetterKind: {
        LetterKind.NOTICE: "Notice sent",
        LetterKind.APPLICATION: "Application sent",
        LetterKind.ACCEPTED: "Accepted",
        LetterKind.FUSE_UPGRADE_BOOKED: "Fuse upgrade booked",
        LetterKind.UNLOOPING_BOOKED: "Un-looping needed, booked",
        LetterKind.MORE_WANTED: "More information wanted",
        LetterKind.WORK_DONE: "Operator's work is done",
    },
    Season: {
        Season.WINTER: "winter",
        Season.SUMMER: "summer",
    },
    Outcome: {
        Outcome.MEASURED: "measured",
        Outcome.OVER_RANGE: "over range",
        Outcome.RIGHT: "right",
        Outcome.WRONG: "wrong",
        Outcome.COULD_NOT_TEST: "could not test",
        Outcome.NOT_APPLICABLE: "not applicable",
        Outcome.TAKEN_BACK: "taken back",
    },
    Function: {
        Function.VOLTAGE: "voltage",
        Function.CONTINUITY: "continuity",
        Function.INSULATION: "insulation",
        Function.ELECTRODE: "earth electrode",
        Function.LOOP: "loop and fault current",
        Function.RCD: "RCD times",
        Function.DIRECT_RESIDUAL: "6 mA DC",
        Function.PHASE_SEQUENCE: "phase sequence",
        Function.VEHICLE: "pilot, as a vehicle",
        Function.CURRENT: "current, by clamp",
    },
    LoopSchool: {
        LoopSchool.SHARE: "80 % of the limit, as conductors are cold",
        LoopSchool.BY_TEMPERATURE: "the limit less what the conductors rise by",
    },
    RcdSchool: {
        RcdSchool.ONE: "one test at the rated current",
        RcdSchool.TWELVE: "½×, 1× and 5×, both half-waves, every form of current",
    },
    BoxSchool: {
        BoxSchool.APART: "before and behind a box, each by itself",
        BoxSchool.BRIDGED: "joined past the device in a box",
    },
    InspectionOutcome: {
        InspectionOutcome.GOOD: "good",
        InspectionOutcome.WRONG: "wrong",
        InspectionOutcome.NOT_APPLICABLE: "not applicable",
        InspectionOutcome.LIMITED: "limited",
    },
    InspectionItem: {
        InspectionItem.INTAKE: "Intake equipment: cut-out, meter and tails, as seen from outside",
        InspectionItem.OTHER_SOURCES: "Other sources in parallel or as an alternative",
        InspectionItem.AUTOMATIC_DISCONNECTION: "Earthing, bonding and automatic disconnection",
        InspectionItem.BASIC_PROTECTION: "Live parts covered or out of reach",
        InspectionItem.OTHER_PROTECTION: "Protection by other means than disconnection",
        InspectionItem.ADDITIONAL_PROTECTION: "Additional protection by RCD or bonding",
        InspectionItem.DISTRIBUTION_EQUIPMENT: "Boards: fixing, entries, terminals, ratings, surge protection",
        InspectionItem.CIRCUITS: "Circuits: cables, supports, routes, fire-stopping, connections",
        InspectionItem.ISOLATION_AND_SWITCHING: "Isolation and switching, both live conductors",
        InspectionItem.CURRENT_USING_EQUIPMENT: "Charge point as fitted: IP code, maker's instructions",
        InspectionItem.IDENTIFICATION_AND_NOTICES: "Labels, notices and circuit chart",
        InspectionItem.BATH_OR_SHOWER: "Rooms with a bath or shower",
        InspectionItem.CHARGE_POINT_LOCATION: "Car charging: height, impact, open-PEN measure, earth separation",
        InspectionItem.PROSUMER: "Own generation or storage working with this circuit",
    },
    SignedPart: {
        SignedPart.DESIGN: "Design",
        SignedPart.CONSTRUCTION: "Construction",
        SignedPart.INSPECTION_AND_TESTING: "Inspection and testing",
    },
}


def word(value: Enum) -> str:
    """The plain words for a choice.

    >>> word(Verdict.YOUR_CALL)
    'Your call'
    """
    return WORDS[type(value)][value._value_]


def verdict_words(finding: Finding) -> str:
    """The words of a finding's verdict: what it waits for is a fact or a reading."""
    if finding.verdict is Verdict.NEEDS and finding.waits_for == "reading":
        return "Needs a reading"
    return word(finding.verdict)
