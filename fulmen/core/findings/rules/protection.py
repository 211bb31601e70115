"""The rules that keep people at the car alive: earth and broken PEN, RCD and DC, disconnection, energy, surge."""

from __future__ import annotations

from fulmen.core.findings.finding import Stage, Topic
from fulmen.core.findings.rules import conditions
from fulmen.core.findings.rules.rule import Protects, Rule, Schools
from fulmen.core.model.stops import Stop

DESIGN, SURVEY = Stage.DESIGN, Stage.SURVEY
PEOPLE, PEOPLE_TOPIC = Protects.PEOPLE, (Topic.PEOPLE,)

TNS_SCHOOL = Rule(
    "tns_school", "TN-S service: how its earth is taken", DESIGN, PEOPLE,
    "The operator joins earth and neutral in the street one day, and nobody at the house is told.",
    stop=Stop.CUT_OUT, asked_at=SURVEY, topics=PEOPLE_TOPIC,
    conditions=conditions.TN_S_AS_FOUND,
    schools=Schools("treat TN-S as PME", "accept TN-S as found, on the operator's written word"),
    looks_at=("tns_confirmation",),
)  # fmt: skip
OPEN_PEN = Rule(
    "open_pen", "A broken PEN can't reach the car", DESIGN, PEOPLE,
    "The street's neutral breaks, the house's load lifts the earth terminal, and with it the car. Who touches it "
    "stands on the ground and takes that voltage for as long as it lasts.",
    stop=Stop.CHARGE_POINT, asked_at=SURVEY, topics=PEOPLE_TOPIC,
    conditions=conditions.BALANCE_OR_ROD,
    schools=Schools("a measure that hangs on no other load", "rest on the balance of the installation"),
    looks_at=("open_pen_inside", "earthing"),
)  # fmt: skip
ELECTRODE_TOUCH = Rule(
    "electrode_touch", "Electrode and RCD hold the touch voltage", DESIGN, PEOPLE,
    "An earth fault lifts the car to a dangerous voltage before the RCD sees enough to open.",
    stop=Stop.EARTH, topics=PEOPLE_TOPIC,
    conditions=conditions.WINTER,
)  # fmt: skip
ELECTRODE_STABLE = Rule(
    "electrode_stable", "Electrode low enough to stay stable", DESIGN, PEOPLE,
    "It dries out or freezes, and the RCD no longer sees enough current to open.",
    stop=Stop.EARTH, topics=PEOPLE_TOPIC,
    conditions=conditions.WINTER,
)  # fmt: skip
FALL_OF_POTENTIAL = Rule(
    "fall_of_potential", "Three fall-of-potential readings agree", DESIGN, PEOPLE,
    "The spikes stood in each other's ground: the electrode is higher than it read.",
    topics=PEOPLE_TOPIC,
)  # fmt: skip
BYPASS = Rule(
    "bypass", "House earth kept apart at the unit", DESIGN, PEOPLE,
    "The device opens, and the car stays joined to the live earth through the armour all the same.",
    topics=PEOPLE_TOPIC,
)  # fmt: skip
SEPARATION = Rule(
    "separation", "Car's earth apart from metal on the house earth", DESIGN, PEOPLE,
    "One hand on the car, one on metal of the house earth: between them stands the broken PEN's voltage.",
    stop=Stop.PARKING, topics=PEOPLE_TOPIC,
)  # fmt: skip
ELECTRODE_CLEAR = Rule(
    "electrode_clear", "Electrode clear of buried metal on the house earth", DESIGN, PEOPLE,
    "Through the soil the electrode takes on the pipe's voltage; the island is only on paper.",
    topics=PEOPLE_TOPIC,
)  # fmt: skip
EXPORTED_EARTH = Rule(
    "exported_earth", "Metal at {board} bonded to the house earth", DESIGN, Protects.HOUSE,
    "A broken PEN drives the street's current through a thin earth core, and it burns.",
)  # fmt: skip
OWN_RCD = Rule(
    "own_rcd", "Own RCD of {residual_ma} mA or less, opening every live conductor", DESIGN, PEOPLE,
    "A person who touches a live part stays on it; or the neutral stays joined and carries a fault.",
    topics=PEOPLE_TOPIC,
    conditions=conditions.SHARED_RCD,
    schools=Schools("an RCD of its own for each charge point", "share one with circuits that have none"),
    looks_at=("rcd_inside_seen",),
)  # fmt: skip
RCD_AT_BOARD = Rule(
    "rcd_at_board", "RCD at the board as well as in the unit", DESIGN, PEOPLE,
    "The cable before the unit has no RCD: a damaged one is left to the fuse.", topics=PEOPLE_TOPIC,
    schools=Schools("an RCBO at the board too", "rely on the RCD in the unit"),
    conditions=conditions.RCD_PAST_THE_CABLE,
)  # fmt: skip
LOADS_RCD = Rule(
    "loads_rcd", "Sockets and lights behind {residual_ma} mA", DESIGN, PEOPLE,
    "Who touches a live part at a socket or a lamp is not cut off.", topics=PEOPLE_TOPIC,
)  # fmt: skip
RCD_NEUTRAL = Rule(
    "rcd_neutral", "RCD at the board opens the neutral too", DESIGN, PEOPLE,
    "A borrowed or live neutral stays joined while somebody works on what they think is dead.", topics=PEOPLE_TOPIC,
    schools=Schools("a double-pole RCBO", "leave the neutral to the RCD in the unit"),
    conditions=conditions.ISOLATED_ELSEWHERE,
)  # fmt: skip
DC_PROTECTION = Rule(
    "dc_protection", "Smooth DC from the car can't blind the RCD", DESIGN, PEOPLE,
    "Smooth DC from the car holds the RCD's core fast: the next fault to a person does not open it.",
    stop=Stop.CHARGE_POINT, asked_at=SURVEY, topics=PEOPLE_TOPIC,
    looks_at=("rdc_dd_inside",),
)  # fmt: skip
RCD_BLINDING = Rule(
    "rcd_blinding", "No RCD on the way that the car's DC blinds", DESIGN, PEOPLE,
    "The RCD that guards the rest of the house goes numb, and nobody notices until somebody needs it.",
    stop=Stop.BOARD, topics=PEOPLE_TOPIC,
    looks_at=("front_rcd_seen", "rdc_dd_inside"),
)  # fmt: skip
FRONT_RCD = Rule(
    "front_rcd", "RCD in front of the circuit", DESIGN, PEOPLE,
    "An RCD that nobody looked at may go blind, or take the house with it.",
    stop=Stop.BOARD, asked_at=SURVEY, topics=PEOPLE_TOPIC,
    looks_at=("front_rcd_seen",),
)  # fmt: skip
CONCEALED_CABLE = Rule(
    "concealed_cable", "Concealed cable has a {residual_ma} mA RCD before it", DESIGN, PEOPLE,
    "A nail goes into the cable, and the only RCD stands behind the nail.",
    topics=PEOPLE_TOPIC,
)  # fmt: skip
TT_ORIGIN_RCD = Rule(
    "tt_origin_rcd", "RCD at the TT origin", DESIGN, PEOPLE,
    "A fault before the circuit's own RCD stays: the fuse never blows on an electrode's loop.",
    stop=Stop.BOARD, topics=PEOPLE_TOPIC,
    conditions=conditions.TT_IN_FRONT,
)  # fmt: skip
MAKER_RCD = Rule(
    "maker_rcd", "RCD before the unit as its maker asks", DESIGN, PEOPLE,
    "The unit leaks what the RCD before it can't see.", stop=Stop.CHARGE_POINT, topics=PEOPLE_TOPIC,
    looks_at=("upstream_rcd_asked",),
)  # fmt: skip
SURGE = Rule(
    "surge", "Surge protection", DESIGN, Protects.HOUSE,
    "A surge takes the unit's electronics, and with them what protects people.",
    stop=Stop.BOARD, asked_at=SURVEY, topics=PEOPLE_TOPIC,
    schools=Schools("fit surge protection", "leave it out, the owner having declined in writing"),
    looks_at=("surge_protection",),
)  # fmt: skip
DISCONNECTION = Rule(
    "disconnection", "{opens} in {time_s} s", DESIGN, PEOPLE,
    "The metal of the charge point stays live until the fuse or breaker makes up its mind.",
    short="loop", told_with_choices=True,
    conditions=conditions.RCD_OPENS_ALONE,
)  # fmt: skip
DC_SUM = Rule(
    "dc_sum", "{rcd} stands the smooth DC of every car behind it", DESIGN, PEOPLE,
    "Two cars let twice as much smooth DC pass as one, and the RCD that all rely on goes blind.", topics=PEOPLE_TOPIC,
    conditions=conditions.ELSE_PROTECTED,
)  # fmt: skip
RCD_MARK = Rule(
    "rcd_mark", "Mark of the {rcd}", DESIGN, PEOPLE,
    "What was taken for one RCD is another: slower, or less sensitive.", topics=PEOPLE_TOPIC,
)  # fmt: skip
GOES_OFF = Rule(
    "goes_off", "What goes off with the {rcd}", DESIGN, Protects.HOUSE,
    "The freezer thaws and the stairs are dark because of a fault at the car.",
)  # fmt: skip
ISLAND_RCD = Rule(
    "island_rcd", "An RCD stands before the car's own electrode", DESIGN, PEOPLE,
    "A fault to the unit's case before its RCD sees the electrode alone: no breaker opens, and the case stays live.",
    topics=PEOPLE_TOPIC,
)  # fmt: skip
ISLAND_CONDUCTOR = Rule(
    "island_conductor", "Conductor to the car's electrode big enough", DESIGN, PEOPLE,
    "It corrodes or is cut, and the car has no earth at all.", topics=PEOPLE_TOPIC,
)  # fmt: skip
HOLDING_CONDUCTOR = Rule(
    "holding_conductor", "Conductor to the electrode carries a broken PEN's current", DESIGN, PEOPLE,
    "The house's current flows to ground through it while the PEN is open: it burns off, and the car's shell is live.",
    topics=PEOPLE_TOPIC,
)  # fmt: skip
NEW_BOARD_RCD = Rule(
    "new_board_rcd", "Sockets and lights of {board} have a {residual_ma} mA RCD", DESIGN, Protects.HOUSE,
    "A damaged lead in the garage kills, where an RCD would have opened.",
)  # fmt: skip
SURVIVES_FAULT = Rule(
    "survives_fault", "Conductors survive the fault", DESIGN, Protects.CABLE,
    "The earth conductor burns through before the device has opened.",
    short="conductors survive the fault", topics=(Topic.DESIGN,), told_with_choices=True,
)  # fmt: skip
LEAST_FAULT = Rule(
    "least_fault", "The least short circuit opens the device at once", DESIGN, Protects.CABLE,
    "A short far out is too weak to trip the breaker at once; it opens late, and the cable cooks till then.",
    conditions=conditions.SHORT_COVERED,
)  # fmt: skip
ARMOUR_ALONE = Rule(
    "armour_alone", "Armour big enough alone as protective conductor", DESIGN, Protects.CABLE,
    "The armour heats up with the fault current it was never sized for.",
)  # fmt: skip
