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
