"""The rules of the run: load, device and cable of each circuit, volt drop, laying, and what the unit asks for."""

from __future__ import annotations

from fulmen.core.findings.finding import Stage, Topic
from fulmen.core.findings.rules.rule import Protects, Rule
from fulmen.core.model.stops import Stop

DESIGN, SURVEY, CABLE = Stage.DESIGN, Stage.SURVEY, Protects.CABLE

CHARGE_POINT = Rule(
    "charge_point", "A charge point to design for", DESIGN, Protects.RECORD, "Nothing follows without one."
)
ROUTE = Rule(
    "route", "Route from the board to the charge point", DESIGN, CABLE, "Without a route nothing can be worked out."
)
LOAD_ON_DEVICE = Rule(
    "load_on_device", "{device} carries the load", DESIGN, CABLE,
    "It runs hot for hours and opens in the night, or ages until it doesn't.", short="device carries the load",
)  # fmt: skip
WEAKEST_SECTION = Rule(
    "weakest_section", "Weakest section carries {rating_a} A", DESIGN, CABLE,
    "The cable overheats where nobody sees it, before the device opens.",
    short="weakest section", told_with_choices=True,
)  # fmt: skip
TERMINAL_TEMPERATURE = Rule(
    "terminal_temperature", "Conductor cool enough for {terminal_c} °C terminals", DESIGN, CABLE,
    "Terminals made for less heat loosen and scorch.", short="conductor at the terminals", told_with_choices=True,
)  # fmt: skip
BREAKING_CAPACITY = Rule(
    "breaking_capacity", "Device can break the fault current at the board", DESIGN, CABLE,
    "The device bursts on a fault it can't break.", short="device can break the fault",
)  # fmt: skip
CABLE_SIZE = Rule(
    "cable_size", "Cable made in this size", DESIGN, CABLE, "No figure is known for a size that is not made."
)
EXISTING_CIRCUIT = Rule(
    "existing_circuit", "Existing circuit looked at", DESIGN, CABLE,
    "It is reckoned with a device and a cable that nobody has seen.",
)  # fmt: skip
RING_FINAL = Rule(
    "ring_final", "Ring final circuit", DESIGN, CABLE,
    "One way round carries more than it can, and no device opens.", short="ring final circuit",
)  # fmt: skip
CABLE_CORES = Rule(
    "cable_cores", "Cable has enough cores", DESIGN, CABLE, "A conductor is missing at the far end.",
    short="cores of the cable",
)  # fmt: skip
DEVICE_KIND = Rule(
    "device_kind", "Device fit for a charge point circuit", DESIGN, CABLE,
    "The fuse melts so late that the cable is cooked first.",
)  # fmt: skip
MAKER_DEVICE = Rule(
    "maker_device", "{rating_a} A device for a {unit_a} A unit", DESIGN, CABLE,
    "The maker's warranty is gone, and the unit's own switchgear may not survive the fault.",
    stop=Stop.CHARGE_POINT, asked_at=SURVEY, short="maker's device range",
    looks_at=("max_current_a",),
)  # fmt: skip
SELECTIVITY = Rule(
    "selectivity", "What goes off: {nearer} before {further}", DESIGN, Protects.HOUSE,
    "A fault at the car takes the whole house off.",
)  # fmt: skip
VOLT_DROP = Rule(
    "volt_drop", "Volt drop to {end}", DESIGN, CABLE,
    "It runs weak: the car charges slowly or drops out on cold evenings.",
    short="volt drop", told_with_choices=True,
)  # fmt: skip
VOLT_DROP_LIGHTING = Rule(
    "volt_drop_lighting", "Volt drop to the lights at {board}", DESIGN, Protects.HOUSE,
    "The lights dim whenever the car charges.", short="volt drop to the lights",
)  # fmt: skip
PHASES = Rule(
    "phases",
    "Phases that the charge point needs",
    DESIGN,
    CABLE,
    "It charges at a third of its power, or not at all.",
    looks_at=("phases",),
)
JOINT = Rule(
    "joint", "{joint} before section {number}", DESIGN, CABLE,
    "The joint warms up, and nobody can get at it.",
)  # fmt: skip

SECTION = "Section {number}, {place}: "
DEPTH = Rule("depth", SECTION + "deep enough", DESIGN, CABLE, "A spade finds it.")
WARNING_TAPE = Rule("warning_tape", SECTION + "marked by tape", DESIGN, Protects.WORK, "Nobody who digs is warned.")
BURIED_COVER = Rule(
    "buried_cover", SECTION + "armour or duct", DESIGN, Protects.WORK, "A spade goes through it.",
    short="armour or duct in the ground",
)  # fmt: skip
FIXINGS = Rule(
    "fixings", SECTION + "can't drop in a fire", DESIGN, Protects.HOUSE, "The cable hangs across the way out of a fire."
)
CLIP_SPACING = Rule("clip_spacing", SECTION + "clips close enough", DESIGN, CABLE, "It sags and pulls at its ends.")
BEND_RADIUS = Rule("bend_radius", SECTION + "bends wide enough", DESIGN, CABLE, "Sheath or armour opens at the bend.")
CLEARANCE = Rule(
    "clearance", SECTION + "clear of {what}", DESIGN, CABLE, "Data is disturbed, or a pipe is worn through."
)
FIRE_STOPPED = Rule(
    "fire_stopped", SECTION + "sealed and fire-stopped", DESIGN, Protects.HOUSE, "Fire and water get through the hole."
)
CONCEALED_ZONE = Rule(
    "concealed_zone", SECTION + "hidden where one expects it", DESIGN, Protects.HOUSE,
    "Somebody hangs a picture and drills into it.", short="hidden cable in its zone",
)  # fmt: skip
FULL_CAVITY = Rule(
    "full_cavity", SECTION + "grouped with the cables in the cavity", DESIGN, CABLE, "The bundle overheats."
)
SECTION_HAZARD = Rule("section_hazard", SECTION + "seen on the way", DESIGN, Protects.WORK, "What was seen is hit.")
SHARED_WAY = Rule(
    "shared_way", SECTION + "shares its way with a circuit that makes it", DESIGN, Protects.RECORD,
    "Nobody digs, or two heat each other that were taken alone.",
)  # fmt: skip
PACED = Rule("paced", "Lengths taped, not paced", DESIGN, CABLE, "The cable is cut too short.")
SLACK = Rule(
    "slack", "Loop of slack for the next charge point", DESIGN, CABLE, "The next unit needs a joint, or a new cable."
)

TERMINALS = Rule(
    "terminals", "Conductors fit the unit's terminals", DESIGN, CABLE, "Strands are cut off to make it fit.",
    stop=Stop.CHARGE_POINT, short="unit's terminals",
)  # fmt: skip
GLAND_ENTRY = Rule(
    "gland_entry", "Armoured cable can enter the unit", DESIGN, CABLE,
    "Water gets in round a gland that was forced.",
    stop=Stop.CHARGE_POINT,
)  # fmt: skip
FLEX_TAIL = Rule(
    "flex_tail", "No joint more than needed", DESIGN, CABLE, "One more joint outdoors, one more place for water.",
    stop=Stop.CHARGE_POINT,
    looks_at=("flex_tail",),
)  # fmt: skip
FLEX_RATING = Rule(
    "flex_rating", "Flexible tail carries what its device lets flow", DESIGN, CABLE,
    "The thinnest piece of the way runs hot for hours, where nobody looks.", stop=Stop.CHARGE_POINT,
)  # fmt: skip
FLEX_SURVIVES = Rule(
    "flex_survives", "Flexible tail survives a fault", DESIGN, CABLE,
    "It burns before its device opens.", stop=Stop.CHARGE_POINT,
)  # fmt: skip
USED_UNIT = Rule(
    "used_unit", "Unit that is not new: what is inside, and that it works", SURVEY, Protects.PEOPLE,
    "A unit older than what it is said to hold protects nobody.", stop=Stop.CHARGE_POINT,
)  # fmt: skip
SMART = Rule(
    "smart", "Smart functions", DESIGN, Protects.SUPPLY, "Every car in the street starts at the same minute.",
    stop=Stop.CHARGE_POINT,
)  # fmt: skip
DATA_WAY = Rule(
    "data_way",
    "Unit reaches the network",
    SURVEY,
    Protects.HOUSE,
    "The unit never learns the tariff.",
    stop=Stop.DATA,
    looks_at=("data_looked_for",),
)
LOAD_CLAMP = Rule(
    "load_clamp", "Load limit has a current clamp to follow", SURVEY, Protects.SUPPLY,
    "Nothing holds the limit, and the cut-out fuse goes.", stop=Stop.LOADS, topics=(Topic.OPERATOR, Topic.CLAMP),
)  # fmt: skip
CONNECTOR_HEIGHT = Rule(
    "connector_height", "Socket or connector at a good height", DESIGN, Protects.PEOPLE,
    "It is driven into, or out of reach for who needs it low.", stop=Stop.PARKING, asked_at=SURVEY,
)  # fmt: skip
GUARD_RATING = Rule(
    "guard_rating", "{guard} {where} carries what hangs behind it", DESIGN, Protects.CABLE,
    "It overheats for hours, and its contacts weld.",
)  # fmt: skip
GUARD_POLES = Rule(
    "guard_poles", "{guard} {where} opens what passes it", DESIGN, Protects.WORK,
    "Somebody works on a conductor that stayed live.",
)  # fmt: skip
GUARD_VOLTAGE = Rule(
    "guard_voltage", "Rated voltage of {guard} {where}", DESIGN, Protects.CABLE,
    "It flashes over inside when it opens.",
)  # fmt: skip
FEEDS_BACK = Rule(
    "feeds_back", "Whether the unit feeds back", DESIGN, Protects.WORK,
    "Somebody works on what the car keeps live.",
    looks_at=("feeds_back",),
)  # fmt: skip
BOTH_WAYS = Rule(
    "both_ways", "{guard} opens whichever way current flows", DESIGN, Protects.PEOPLE,
    "Fed from the wrong side, it burns instead of opening.",
)  # fmt: skip
INDOOR_CABLE = Rule(
    "indoor_cable", "Section {number}, {place}: cable made for the place", DESIGN, Protects.CABLE,
    "Sun and water crack its sheath; the fault comes years later.",
)  # fmt: skip
SET_CURRENT = Rule(
    "set_current", "Set within what the unit can take", DESIGN, Protects.CABLE,
    "It charges at more than it was made for.",
)  # fmt: skip
IP_CODE = Rule(
    "ip_code", "Weatherproof enough outdoors", DESIGN, CABLE, "Rain gets in.", stop=Stop.CHARGE_POINT, asked_at=SURVEY
)
