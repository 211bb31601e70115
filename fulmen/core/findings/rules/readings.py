"""The rules of the tests: each reading against its limit, and readings against each other."""

from __future__ import annotations

from fulmen.core.findings.finding import Stage, Topic
from fulmen.core.findings.rules.rule import Protects, Rule
from fulmen.core.model.readings import StepKey

AGREES = (Topic.AGREEMENT,)
DEAD, LIVE, RECORD = Stage.DEAD, Stage.LIVE, Protects.RECORD


def _reading(step: StepKey) -> Rule:
    """The rule that judges a step's reading by its limit; the step says its title and stage."""
    return Rule(
        f"reading_{step.value}", "{step}", LIVE, Protects.PEOPLE,
        "What the design promised is not there.", step=step, topics=(Topic.READING,),
    )  # fmt: skip


READINGS: dict[StepKey, Rule] = {step: _reading(step) for step in StepKey}

AGREE_R1_R2 = Rule(
    "agree_r1_r2", "R1+R2 with the route", DEAD, RECORD, "A poor joint, or another cable than was written down.",
    step=StepKey.R1_R2, topics=AGREES,
)  # fmt: skip
AGREE_R1_RN = Rule(
    "agree_r1_rn", "R1+Rn with the route", DEAD, RECORD, "A poor joint, or another cable than was written down.",
    step=StepKey.R1_RN, topics=AGREES,
)  # fmt: skip
AGREE_ZE = Rule(
    "agree_ze", "Ze with the enquiry", LIVE, RECORD, "The earth was not off, or the operator's earth is failing.",
    step=StepKey.ZE, topics=AGREES,
)  # fmt: skip
AGREE_FAULT_CURRENT = Rule(
    "agree_fault_current", "Fault current with Ze", LIVE, RECORD, "The smaller of two figures was written down.",
    step=StepKey.FAULT_CURRENT, topics=AGREES,
)  # fmt: skip
AGREE_ZS = Rule(
    "agree_zs", "Zs with Ze and R1+R2", LIVE, RECORD, "A parallel path hides a poor earth conductor.",
    step=StepKey.ZS, topics=AGREES,
)  # fmt: skip
AGREE_LEAD = Rule(
    "agree_lead", "Earth of the lead against its length and size", LIVE, RECORD,
    "A poor contact in the lead leaves the car's body without an earth.", step=StepKey.CONNECTOR_EARTH, topics=AGREES,
)  # fmt: skip
AGREE_R2 = Rule(
    "agree_r2", "R2 with the route", DEAD, RECORD, "A poor joint, or another cable than was written down.",
    step=StepKey.R2, topics=AGREES,
)  # fmt: skip
AGREE_RING_R1 = Rule(
    "agree_ring_r1", "Ring: r1 with the route", DEAD, RECORD, "The ends of two circuits, or a joint that gets hot.",
    step=StepKey.RING_R1, topics=AGREES,
)  # fmt: skip
AGREE_RING_RN = Rule(
    "agree_ring_rn", "Ring: rn with r1", DEAD, RECORD, "A loose neutral gets hot, and every socket still works.",
    step=StepKey.RING_RN, topics=AGREES,
)  # fmt: skip
AGREE_RING_R2 = Rule(
    "agree_ring_r2", "Ring: r2 with r1", DEAD, RECORD, "A loose earth opens nothing.",
    step=StepKey.RING_R2, topics=AGREES,
)  # fmt: skip
AGREE_RING_ACROSS_N = Rule(
    "agree_ring_across_n", "Ring: cross-connected L–N with r1 and rn", DEAD, RECORD,
    "A bridged ring overloads one way round.", step=StepKey.R1_RN, topics=AGREES,
)  # fmt: skip
AGREE_RING_ACROSS_E = Rule(
    "agree_ring_across_e", "Ring: cross-connected L–E with r1 and r2", DEAD, RECORD,
    "A bridged ring overloads one way round.", step=StepKey.R1_R2, topics=AGREES,
)  # fmt: skip
AGREE_RN_R2 = Rule(
    "agree_rn_r2", "R1+Rn with R1+R2", DEAD, RECORD, "A loose neutral gets hot; a loose earth opens nothing.",
    step=StepKey.R1_RN, topics=AGREES,
)  # fmt: skip
AGREE_ZS_CABLE = Rule(
    "agree_zs_cable", "Loop at the cable's end with Ze and R1+R2", LIVE, RECORD,
    "A parallel path hides a poor earth conductor.", step=StepKey.ZS_CABLE, topics=AGREES,
)  # fmt: skip
AGREE_ZS_CHAIN = Rule(
    "agree_zs_chain", "Loop no less than at the board before", LIVE, RECORD,
    "One of the two was taken somewhere else.", step=StepKey.ZS, topics=AGREES,
)  # fmt: skip
AGREE_ZE_KIND = Rule(
    "agree_ze_kind", "Ze as high as a supply has", LIVE, RECORD, "Something else than the supply was read.",
    step=StepKey.ZE, topics=AGREES,
)  # fmt: skip
AGREE_FAULT_EARTH = Rule(
    "agree_fault_earth", "Fault current to earth with Ze", LIVE, RECORD, "One of the two is not the operator's earth.",
    step=StepKey.FAULT_CURRENT_EARTH, topics=AGREES,
)  # fmt: skip
AGREE_FAULT_PAIR = Rule(
    "agree_fault_pair", "Fault current to neutral with the one to earth", LIVE, RECORD,
    "A failing neutral raises the voltage of the whole house.", step=StepKey.FAULT_CURRENT_NEUTRAL, topics=AGREES,
)  # fmt: skip
AGREE_ELECTRODE_ZE = Rule(
    "agree_electrode_ze", "Ze with the electrode", LIVE, RECORD, "The electrode is not what the loop goes through.",
    step=StepKey.ZE, topics=AGREES,
)  # fmt: skip
AGREE_ELECTRODE_FORECAST = Rule(
    "agree_electrode_forecast", "Electrode as was forecast", DEAD, RECORD,
    "Other ground, or another rod, than was reckoned with.", step=StepKey.ELECTRODE, topics=AGREES,
)  # fmt: skip
AGREE_RCD_FIVE = Rule(
    "agree_rcd_five", "RCD sooner at five times its current", LIVE, RECORD, "One of the two figures is another's.",
    step=StepKey.RCD_FIVE, topics=AGREES,
)  # fmt: skip
AGREE_RCD_KIND = Rule(
    "agree_rcd_kind", "RCD as fast as its kind", LIVE, RECORD, "It sticks, or it is another than was written down.",
    step=StepKey.RCD_TRIP, topics=AGREES,
)  # fmt: skip
AGREE_OFFERED = Rule(
    "agree_offered", "Current offered as designed", LIVE, Protects.CABLE, "The car draws more than the cable carries.",
    step=StepKey.PILOT_DUTY, topics=AGREES,
)  # fmt: skip
AGREE_PROXIMITY = Rule(
    "agree_proximity", "Lead coded for what it carries", LIVE, Protects.CABLE, "A thin lead gets hot.",
    step=StepKey.PROXIMITY, topics=AGREES,
)  # fmt: skip
CANT_BE = Rule(
    "cant_be", "{what}", LIVE, RECORD, "A figure that nobody measured stands for one that nobody took.", topics=AGREES,
)  # fmt: skip
INSTRUMENT_NAMED = Rule(
    "instrument_named", "Every reading names its instrument", DEAD, RECORD, "Nobody can say what a figure is worth.",
    topics=AGREES,
)  # fmt: skip
INSTRUMENT_KNOWN = Rule(
    "instrument_known", "Every instrument in the register", DEAD, RECORD, "Nobody can say what a figure is worth.",
    topics=AGREES,
)  # fmt: skip
INSTRUMENT_DUE = Rule(
    "instrument_due", "{instrument}, calibration in date", DEAD, RECORD, "It reads wrong, and everything it read.",
    topics=AGREES,
)  # fmt: skip
INSTRUMENT_FITS = Rule(
    "instrument_fits", "{instrument} can measure what it read", DEAD, RECORD, "The figure is another's, or a guess.",
    topics=AGREES,
)  # fmt: skip
INSTRUMENT_EXACT = Rule(
    "instrument_exact", "How exactly {instrument} reads", DEAD, RECORD,
    "A fault hides in what the instrument may be off, or a sound cable is taken apart.", topics=AGREES,
)  # fmt: skip
READING_FITS = Rule(
    "reading_fits", "Every reading is what its step asks for", DEAD, RECORD,
    "A tick stands where a figure should, and nobody sees that nothing was measured.", topics=AGREES,
)  # fmt: skip
STRAY_READING = Rule(
    "stray_reading", "Every reading belongs to a step", DEAD, RECORD,
    "A figure that nobody judges any more stands on the schedule, or vanishes.", topics=AGREES,
)  # fmt: skip
TAKEN_AGAIN = Rule(
    "taken_again", "Why a step was taken again", DEAD, RECORD, "A bad figure vanishes behind a good one.",
    topics=AGREES,
)  # fmt: skip
HOLDS_SIGNED = Rule(
    "holds_signed", "Holds signed before going on", LIVE, Protects.WORK,
    "Somebody was at conductors that nobody had proven dead, or switched on what was not ready.", topics=AGREES,
)  # fmt: skip
AGREE_INSULATION = Rule(
    "agree_insulation", "Insulation like new cable", DEAD, Protects.CABLE, "The cable was damaged while it was laid.",
    topics=AGREES,
)  # fmt: skip
EARTHS_APART = Rule(
    "earths_apart", "Loop at the car goes through its own electrode", LIVE, Protects.PEOPLE,
    "The car is on the house earth after all: when the street's neutral breaks, its body is live.",
    step=StepKey.ZS, topics=(Topic.AGREEMENT, Topic.PEOPLE),
)  # fmt: skip
ELECTRODE_ALONE = Rule(
    "electrode_alone", "Electrode read by itself", DEAD, RECORD,
    "What stands in parallel is taken away one day, and the electrode alone is too high.",
    step=StepKey.ELECTRODE, topics=AGREES,
)  # fmt: skip
READING_ORDER = Rule(
    "reading_order", "Tested dead before it was tested live", LIVE, Protects.WORK,
    "Somebody was at live conductors that nobody had proven safe.", topics=AGREES,
)  # fmt: skip
