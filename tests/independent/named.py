"""What the product may call each planted kind: written from what the kinds are, before any run.

A kind that leaves the same readings as another in every reading that was taken can't be told from it; so that this hides
nothing, both figures are told: the kind is the first named, or one of those named (at most three).
"""

from __future__ import annotations

# Of these a finding says by itself what it is (the hour, the volts, the instrument): nothing is left to be named.
SAY_THEMSELVES = frozenset({
    "insulation at 250 V", "all in one second", "nulled afterwards", "dead tests after live",
    "conductors hotter than weather", "instrument past its date", "instrument that can't",
})  # fmt: skip
CALLED: dict[str, str] = {
    "line joint": "line_joint", "neutral joint": "neutral_joint", "earth joint": "earth_joint",
    # Thinner cable reads like more of it: one entry stands for both, and says to look at the print.
    "longer cable": "longer_cable", "next size down": "longer_cable", "shorter cable": "shorter_cable",
    "small earth": "small_earth", "line and neutral crossed": "line_neutral_crossed",
    "line and earth crossed": "line_earth_crossed", "neutral and earth crossed": "neutral_earth_crossed",
    "no earth": "no_earth", "no neutral": "no_neutral", "no line": "no_line",
    "neutral touches earth": "neutral_to_earth", "line nicked to earth": "damaged_cable",
    "line nicked to neutral": "line_to_neutral", "wet throughout": "wet_insulation", "damp": "damp",
    "terminal loose at the breaker": "loose_terminal", "earth of a tray beside it": "parallel_earth",
    "contactor's contact poor": "contactor_poor", "lead's earth poor": "lead_earth_poor",
    "operator's earth poor": "high_ze", "PEN broken": "broken_pen", "supply's neutral poor": "poor_supply_neutral",
    "earthing conductor's terminal poor": "earthing_poor", "earthing conductor left off": "earthing_off",
    "bonding clamp loose": "bond_loose", "bonding left off": "bond_off", "reversed at the cut-out": "supply_reversed",
    "RCD slow": "rcd_slow", "RCD slow at five times": "rcd_slow", "RCD dead": "rcd_dead",
    # At 30 mA one of 100 mA does nothing.
    "RCD of 100 mA where 30 was ordered": "rcd_dead", "RCD delayed where none should be": "rcd_delayed",
    "RCD blind to pulses": "rcd_blind_to_pulses", "RCD's button dead": "rcd_button_dead",
    "6 mA detection dead": "dc_detection_dead", "6 mA detection late": "dc_detection_late",
    "6 mA detection nervous": "dc_detection_nervous", "open-PEN device dead": "open_pen_dead",
    "contactor stuck": "contactor_stuck", "set too high": "set_too_high", "set too low": "set_too_low",
    "broken earth noticed late": "earth_loss_slow", "charges without a diode": "diode_not_missed",
    "charges on a shorted pilot": "shorted_pilot_ignored", "pilot low in state B": "pilot_poor",
    "pilot low in state C": "pilot_poor", "lead coded too high": "lead_coded_too_high",
    "lead coded for nothing": "lead_coded_for_nothing", "does not reset": "does_not_reset",
    "surge device spent": "surge_spent", "electrode poor": "electrode_poor", "electrode beside a pipe": "electrode_beside",
    "two earths joined": "earths_joined", "leads not nulled": "leads_not_nulled", "leads over-nulled": "leads_over_nulled",
    "comma in R1+R2": "misread", "comma in Zs": "misread", "comma in Ze": "misread",
    "comma the other way in Zs": "misread", "Zs written for R1+R2": "swapped", "Ze written for Zs": "copied",
    "amperes written as kiloamperes": "misread", "seconds written as milliseconds": "misread",
    "1× and 5× swapped": "swapped", "another circuit's row": "copied",
}  # fmt: skip
# Those that are in one cable, so that its name can be right or wrong; of two rows alike nobody knows which was copied.
IN_A_CABLE = frozenset({
    "line joint", "neutral joint", "earth joint", "longer cable", "next size down", "shorter cable", "small earth",
    "line and neutral crossed", "line and earth crossed", "neutral and earth crossed", "no earth", "no neutral", "no line",
    "neutral touches earth", "line nicked to earth", "line nicked to neutral", "wet throughout", "damp",
    "terminal loose at the breaker", "earth of a tray beside it", "comma in R1+R2", "comma in Zs",
    "comma the other way in Zs", "Zs written for R1+R2",
})  # fmt: skip
