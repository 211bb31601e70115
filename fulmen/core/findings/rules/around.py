"""The rules about what stands around a circuit and is asked once, where it is seen: place, dwelling, boards."""

from __future__ import annotations

from fulmen.core.findings.finding import Stage, Topic
from fulmen.core.findings.rules.rule import Protects, Rule
from fulmen.core.model.stops import Stop

SURVEY = Stage.SURVEY

NEARBY = Rule(
    "nearby", "Near {unit}: {what}", SURVEY, Protects.HOUSE,
    "Its metal, its cable or its place does harm to what stands near.", stop=Stop.PARKING,
    looks_at=("nearby",),
)  # fmt: skip
CIRCUMSTANCE = Rule(
    "circumstance", "Dwelling: {what}", SURVEY, Protects.HOUSE, "Work is done that somebody had to allow first.",
    stop=Stop.OWNERSHIP,
    looks_at=("circumstances",),
)  # fmt: skip
BUILDING_CONTROL = Rule(
    "building_control", "Building control is told as its nation asks", SURVEY, Protects.RECORD,
    "The house can't be sold without papers that nobody has.", stop=Stop.OWNERSHIP,
    looks_at=("nation",),
)  # fmt: skip
OLD_PLACE = Rule(
    "old_place", "Place that the unit was moved from left safe", SURVEY, Protects.PEOPLE,
    "Bare ends behind a hole in the wall are made live again.", stop=Stop.OWNERSHIP,
)  # fmt: skip
SOCKET = Rule(
    "socket", "Socket of a kind that is allowed", Stage.DESIGN, Protects.HOUSE,
    "A worn plug burns under hours of load.", stop=Stop.CHARGE_POINT,
    looks_at=("tethered",),
)  # fmt: skip
LOCKS_OFF = Rule(
    "locks_off", "What isolates {unit} locks off and is labelled", SURVEY, Protects.WORK,
    "Somebody switches on what another has his hands in.", stop=Stop.CHARGE_POINT,
    looks_at=("locks_off",),
)  # fmt: skip
TO_COME = Rule(
    "to_come", "Circuit of {unit} left safe until it comes", Stage.LIVE, Protects.PEOPLE,
    "Somebody opens a box that is live, or switches on a cable that ends in the open.", stop=Stop.CHARGE_POINT,
    asked_at=SURVEY, topics=(Topic.READING,),
)  # fmt: skip
STAYS_CONNECTED = Rule(
    "stays_connected", "What stays connected while insulation is tested", Stage.DEAD, Protects.WORK,
    "500 V go into what nobody took off.", topics=(Topic.READING,),
)  # fmt: skip
BOARD_DEVICES = Rule(
    "board_devices", "Devices in {board} are those that its maker allows", SURVEY, Protects.CABLE,
    "A device that only fits burns at its busbar.", stop=Stop.BOARD,
    looks_at=("devices_allowed",),
)  # fmt: skip
BOARD_DIVERSITY = Rule(
    "board_diversity", "{board} carries several cars for hours", SURVEY, Protects.CABLE,
    "Devices side by side at full load overheat together.", stop=Stop.BOARD,
)  # fmt: skip
SURGE_AS_MADE = Rule(
    "surge_as_made", "Surge protection in {board} connected as its maker says", SURVEY, Protects.HOUSE,
    "It fails and burns, or opens nothing.", stop=Stop.BOARD,
)  # fmt: skip
CIRCUIT_ALONE = Rule(
    "circuit_alone", "Circuit serves its charge point alone", Stage.DESIGN, Protects.CABLE,
    "What hangs with it adds to hours of full load.",
)  # fmt: skip
SMOOTH_DC = Rule(
    "smooth_dc", "Nothing else of smooth DC behind the RCD that the car shares", SURVEY, Protects.PEOPLE,
    "Its direct current blinds the RCD, and nobody notices.", stop=Stop.BOARD, topics=(Topic.PEOPLE,),
)  # fmt: skip
LEAKAGE = Rule(
    "leakage", "Standing leakage leaves the RCD room", SURVEY, Protects.HOUSE, "It opens for nothing, at night.",
    stop=Stop.BOARD,
)  # fmt: skip
FLASH_GUARDS = Rule(
    "flash_guards", "Flash guards of the old board asked about", SURVEY, Protects.WORK,
    "Dust of asbestos comes off an old flash guard.", stop=Stop.BOARD,
)  # fmt: skip
MEASURING_ELECTRODE = Rule(
    "measuring_electrode", "Electrode that the open-PEN device measures against", Stage.DESIGN, Protects.PEOPLE,
    "Without it the device measures nothing.", topics=(Topic.PEOPLE,),
)  # fmt: skip
SOURCE = Rule(
    "source", "Own sources: where they come in, how much they feed", SURVEY, Protects.CABLE,
    "Current comes from where nobody looks for it.", stop=Stop.METER,
)  # fmt: skip
ISLAND_EARTH = Rule(
    "island_earth", "Earth while {source} runs alone", SURVEY, Protects.PEOPLE,
    "With the network goes its earth: no RCD opens on a fault.", stop=Stop.METER, topics=(Topic.PEOPLE,),
)  # fmt: skip
BUSBAR = Rule(
    "busbar", "Busbar of {board} carries what flows in from both sides", SURVEY, Protects.CABLE,
    "It carries more than any fuse before it lets through.", stop=Stop.BOARD,
)  # fmt: skip
