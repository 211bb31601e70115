"""The rules of the survey: the supply as found, the boards, the load, and what the operator must be told."""

from __future__ import annotations

from fulmen.core.findings.finding import Stage, Topic
from fulmen.core.findings.rules import conditions
from fulmen.core.findings.rules.rule import Protects, Rule
from fulmen.core.model.stops import Stop

SURVEY = Stage.SURVEY
OPERATOR_TOPIC, DEMAND_TOPICS = (Topic.OPERATOR,), (Topic.OPERATOR, Topic.DEMAND)

EARTHING_KNOWN = Rule(
    "earthing_known", "Earthing arrangement of the supply", SURVEY, Protects.PEOPLE,
    "Everything that protects people rests on a guess.", stop=Stop.CUT_OUT,
    looks_at=("earthing",),
)  # fmt: skip
LOOPED = Rule(
    "looped", "Service not looped to a neighbour", SURVEY, Protects.SUPPLY,
    "Two houses' load goes through one cable and one block.", stop=Stop.CUT_OUT, topics=OPERATOR_TOPIC,
    looks_at=("looped", "neighbour_charge_point"),
)  # fmt: skip
CUT_OUT = Rule(
    "cut_out", "Cut-out sound", SURVEY, Protects.SUPPLY,
    "An old block cracks, smokes or catches fire under hours of load.",
    stop=Stop.CUT_OUT, topics=OPERATOR_TOPIC,
    looks_at=("cut_out_condition", "fuse_proven", "cut_out_fuse_a"),
)  # fmt: skip
ISOLATOR = Rule(
    "isolator",
    "Tails can be made dead",
    SURVEY,
    Protects.WORK,
    "Somebody works on live tails.",
    stop=Stop.METER,
    looks_at=("isolator",),
)
TAILS_SIZE = Rule(
    "tails_size", "Tails big enough for the cut-out fuse", SURVEY, Protects.CABLE,
    "The tails overheat behind the fuse.",
    stop=Stop.TAILS,
    looks_at=("csa_mm2", "cut_out_fuse_a"),
)  # fmt: skip
TAILS_CAPACITY = Rule(
    "tails_capacity", "Tails carry what can flow, as they run", SURVEY, Protects.CABLE,
    "The tails overheat behind a fuse that never opens.", stop=Stop.TAILS, topics=(Topic.DEMAND,),
    looks_at=("csa_mm2", "length_m"),
)  # fmt: skip
TAILS_LENGTH = Rule(
    "tails_length", "Tails short enough without their own device", SURVEY, Protects.CABLE,
    "A long piece of cable has only the operator's fuse before it.", stop=Stop.TAILS,
    looks_at=("length_m",),
)  # fmt: skip
TAILS_SLEEVED = Rule(
    "tails_sleeved", "Tails marked brown and blue", SURVEY, Protects.WORK, "Line and neutral are crossed.",
    stop=Stop.TAILS,
    looks_at=("sleeved",),
)  # fmt: skip
EARTHING_CONDUCTOR = Rule(
    "earthing_conductor", "Earthing conductor big enough", SURVEY, Protects.HOUSE,
    "It burns through with the first bad fault.", stop=Stop.EARTH,
    looks_at=("earthing_conductor_csa_mm2",),
)  # fmt: skip
MAIN_BONDING = Rule(
    "main_bonding", "Main bonding in place and big enough", SURVEY, Protects.HOUSE,
    "Taps and pipes stand at another voltage than the rest, or the bonding burns when the PEN breaks.", stop=Stop.EARTH,
    looks_at=("incoming_metal", "main_bonding_csa_mm2"),
)  # fmt: skip
EARTH_TERMINAL = Rule(
    "earth_terminal", "Main earthing terminal present", SURVEY, Protects.HOUSE, "Earths end wherever they fell.",
    stop=Stop.EARTH,
    looks_at=("earth_terminal",),
)  # fmt: skip
BONDING_PLACE = Rule(
    "bonding_place", "Main bonding where the service comes in", SURVEY, Protects.HOUSE,
    "What is before the clamp is not bonded.", stop=Stop.EARTH,
    looks_at=("bonding_near_entry",),
)  # fmt: skip
WAY_CLEAR = Rule(
    "way_clear",
    "Way proven clear",
    SURVEY,
    Protects.WORK,
    "The van comes back for a digger.",
    stop=Stop.ROUTE,
    looks_at=("way_proven_clear",),
)
PERMISSION = Rule(
    "permission", "Owner agrees in writing", SURVEY, Protects.RECORD, "Who does not own the house orders work on it.",
    stop=Stop.OWNERSHIP,
    looks_at=("ownership",),
)  # fmt: skip
OWN_LAND = Rule(
    "own_land", "Car stands on the dwelling's own land", SURVEY, Protects.HOUSE, "Somebody trips over the lead.",
    stop=Stop.PARKING,
    looks_at=("parking_on_own_land",),
)  # fmt: skip
DANGER_LEFT = Rule(
    "danger_left", "Nothing dangerous left behind", SURVEY, Protects.HOUSE,
    "The danger that was seen hurts somebody.",
    stop=Stop.BOARD,
    conditions=conditions.DANGER,
)  # fmt: skip
DANGER_IN_PATH = Rule(
    "danger_in_path", "Nothing dangerous left where the car's current flows", SURVEY, Protects.HOUSE,
    "A scorched or loose joint carries hours of the car's current on top of the house's: it burns.",
    stop=Stop.BOARD,
)  # fmt: skip
BOARD_MAKE_UP = Rule(
    "board_make_up", "Board takes the new device", SURVEY, Protects.CABLE,
    "A device stands in a board not made for it.",
    stop=Stop.BOARD,
    looks_at=("make_up",),
)  # fmt: skip
SPARE_WAY = Rule(
    "spare_way",
    "A way for the circuit",
    SURVEY,
    Protects.CABLE,
    "Two circuits share one way.",
    stop=Stop.BOARD,
    looks_at=("spare_ways",),
)
LOOKED_INSIDE = Rule(
    "looked_inside", "Looked over with its lid off", SURVEY, Protects.HOUSE,
    "A loose conductor cooks behind the lid.",
    stop=Stop.BOARD,
    looks_at=("looked_inside",),
)  # fmt: skip
BOARD_LABELS = Rule(
    "board_labels", "Circuits of the board labelled", SURVEY, Protects.WORK, "The wrong circuit is switched off.",
    stop=Stop.BOARD,
    looks_at=("labels_complete",),
)  # fmt: skip
CONTRADICTION = Rule(
    "contradiction", "Can't both be so: {says}", SURVEY, Protects.PEOPLE,
    "One of the two is wrong, and what rests on it protects nobody.",
)  # fmt: skip
CLAIM = Rule(
    "claim", "Claimed: {says}", SURVEY, Protects.HOUSE,
    "It is as usual after all, and the design rests on somebody's hope.",
)  # fmt: skip
BOARD_CASE = Rule(
    "board_case", "Board's case won't feed a fire", Stage.DESIGN, Protects.HOUSE,
    "A loose terminal sets the case alight.", stop=Stop.BOARD, asked_at=SURVEY,
    looks_at=("enclosure", "indoors"),
)  # fmt: skip
MAIN_SWITCH_POLES = Rule(
    "main_switch_poles", "Main switch opens every live conductor", SURVEY, Protects.WORK,
    "Somebody works on a neutral that is not dead.", stop=Stop.BOARD,
    conditions=conditions.NEUTRAL_AT_EARTH,
    looks_at=("poles",),
)  # fmt: skip
BOARD_IP = Rule(
    "board_ip", "Outdoor board keeps the weather out", Stage.DESIGN, Protects.CABLE,
    "Rain gets to live parts.", stop=Stop.BOARD,
)  # fmt: skip
ZE_ENQUIRY = Rule(
    "ze_enquiry", "Ze and fault current by enquiry agree", SURVEY, Protects.HOUSE,
    "One of the two is wrong, and devices are chosen by it.", stop=Stop.CUT_OUT,
)  # fmt: skip
DEMAND_ENTERED = Rule(
    "demand_entered", "Entered demand holds house and car", SURVEY, Protects.SUPPLY,
    "The figure is the house's alone, and the fuse goes at night.", stop=Stop.LOADS, topics=DEMAND_TOPICS,
)  # fmt: skip
ENERGISED_EARLY = Rule(
    "energised_early", "Energised after the operator agreed", SURVEY, Protects.SUPPLY,
    "The street carries what nobody planned for.", topics=OPERATOR_TOPIC,
)  # fmt: skip
DEMAND = Rule(
    "demand", "Demand within the cut-out fuse", SURVEY, Protects.SUPPLY,
    "The cut-out fuse goes, at night, for everybody.",
    stop=Stop.LOADS, topics=DEMAND_TOPICS,
    looks_at=("load", "cut_out_fuse_a"),
)  # fmt: skip
DEMAND_MAIN_SWITCH = Rule(
    "demand_main_switch", "Demand within the main switch", SURVEY, Protects.CABLE,
    "The main switch overheats for hours.",
    stop=Stop.LOADS, topics=DEMAND_TOPICS,
    looks_at=("rating_a", "load"),
)  # fmt: skip
METER_RECORD = Rule(
    "meter_record", "Meter record long enough to trust its peak", SURVEY, Protects.SUPPLY,
    "The peak came in another month.",
    stop=Stop.LOADS, topics=OPERATOR_TOPIC,
)  # fmt: skip
OPERATOR = Rule(
    "operator", "Network operator told in time", SURVEY, Protects.SUPPLY,
    "The street's cable or transformer carries what nobody planned for.", topics=OPERATOR_TOPIC,
)  # fmt: skip
