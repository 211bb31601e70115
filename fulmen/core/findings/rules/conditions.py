"""What makes a call of a rule sound: a short list of things that can be looked at, of which a decision names one."""

from __future__ import annotations

from fulmen.core.findings.finding import Condition

RCD_PAST_THE_CABLE = (
    Condition(key="armoured", words="The cable before it is armoured or in earthed metal all the way"),
    Condition(key="on_the_surface", words="It runs on the surface all the way, where nobody drives a nail or a spade"),
    Condition(key="deep", words="Wherever it is hidden it lies deeper than 50 mm"),
)
BALANCE_OR_ROD = (
    Condition(key="wired_in", words="The loads it rests on are wired in and can't be switched off"),
    Condition(key="below_frost", words="The part of the rod below the frost holds the limit by itself"),
    Condition(key="measured_in_winter", words="It was measured in frozen ground"),
)
TN_S_AS_FOUND = (
    Condition(key="letter", words="The operator's letter says that no PEN is in its path, and is kept with the job"),
)
WINTER = (
    Condition(key="deep_rod", words="Most of the rod lies below half a metre, where the ground does not freeze"),
    Condition(key="frozen_figure", words="Its RCD holds the touch voltage with the frozen figure too"),
    Condition(key="measured_in_winter", words="It was measured in frozen ground"),
)
TT_IN_FRONT = (
    Condition(key="told", words="Everything may go off together; the householder was told what that is"),
    Condition(key="seen_insulated", words="All before the first RCDs was seen, covers off, in double insulation"),
)
RCD_OPENS_ALONE = (
    Condition(key="own_rcd", words="The RCD is this circuit's own, and its test is on the schedule"),
    Condition(key="two_rcds", words="Two RCDs stand before it, either of which opens in time"),
)
ISOLATED_ELSEWHERE = (
    Condition(key="isolator", words="A switch that opens both conductors stands within reach of the board"),
)
SHARED_RCD = (
    Condition(key="told", words="The householder was told what goes off together, and accepts it"),
    Condition(key="no_dc", words="Nothing else behind it makes smooth DC: no inverter, no drive"),
)
ELSE_PROTECTED = (
    Condition(key="own_rcds", words="Everything else behind it has an RCD of its own"),
    Condition(key="nothing_else", words="Nothing but these charge points hangs behind it"),
)
SHORT_COVERED = (
    Condition(key="overload", words="The device guards the cable against overload too (In ≤ Iz), so 435.1 covers it"),
    Condition(key="makers_curve", words="By its maker's curve it opens within the time that the cable stands"),
)
NEUTRAL_AT_EARTH = (
    Condition(key="link", words="The neutral is surely at earth, and a link that a tool opens isolates it"),
)
DANGER = (
    Condition(key="made_safe", words="It was made harmless for now, and labelled"),
    Condition(key="switched_off", words="It was switched off and locked"),
    Condition(key="owner_in_writing", words="The owner refused in writing, and a copy is kept"),
)
