"""What open conductors, crossed ones and poor pairs look like: each kind says which steps read so, and no other may."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from fulmen.core.model.readings import Outcome, Reading, StepKey
from fulmen.core.verification.faults.faults import FaultInfo, fault_infos
from fulmen.core.verification.steps.sequence import Step

LINKED = (StepKey.R1_R2, StepKey.R1_RN, StepKey.R2)
END_TO_END = (StepKey.EARTHING_CONDUCTOR, StepKey.MAIN_BONDING)
# What each insulation test lies across.
ACROSS: Mapping[StepKey, frozenset[str]] = {
    StepKey.IR_LINE_NEUTRAL: frozenset({StepKey.IR_LINE_NEUTRAL}),
    StepKey.IR_LINE_EARTH: frozenset({StepKey.IR_LINE_EARTH}),
    StepKey.IR_NEUTRAL_EARTH: frozenset({StepKey.IR_NEUTRAL_EARTH}),
    StepKey.IR_LIVE_EARTH: frozenset({StepKey.IR_LINE_EARTH, StepKey.IR_NEUTRAL_EARTH}),
}
# How much of a miss it is that an armour closed what should be open, and that what is off was found wrong.
ARMOUR_CLOSED, OFF_IS_WRONG = 0.01, 0.7
Steps = Mapping[tuple[StepKey, str], Step]


def _reading(steps: Steps, key: StepKey, subject: str) -> Reading | None:
    step = steps.get((key, subject))
    return step.reading if step is not None else None


def _over(reading: Reading | None) -> bool | None:
    """Whether it read over range; None where it tells nothing."""
    if reading is None or reading.outcome not in (Outcome.MEASURED, Outcome.OVER_RANGE):
        return None
    return reading.outcome is Outcome.OVER_RANGE


def open_or_crossed(steps: Steps, subject: str) -> dict[str, float]:
    """The kinds that explain what reads over range at a subject and a polarity that is wrong, with the share of belief
    that each has; none where nothing is.
    """
    polarity = _reading(steps, StepKey.POLARITY_DEAD, subject)
    wrong = polarity is not None and polarity.outcome is Outcome.WRONG
    over = {key: here for key in (*LINKED, *END_TO_END) if (here := _over(_reading(steps, key, subject))) is not None}
    if not wrong and not any(over.values()):
        return {}
    missed = {
        kind: _missed(info, over, polarity)
        for kind, info in fault_infos().items()
        if info.crossed or any(over.get(StepKey(key)) for key in info.opens)
    }
    weights = {kind: 1 - times for kind, times in missed.items() if times < 1}
    return {kind: weight / sum(weights.values()) for kind, weight in sorted(weights.items(), key=lambda one: -one[1])}


def _missed(info: FaultInfo, over: dict[StepKey, bool], polarity: Reading | None) -> float:
    """How many readings a kind does not explain; one that an armour may have closed counts next to nothing."""
    opens = (*info.opens, *info.crossed)
    unlike = float(sum(here != (key in opens) for key, here in over.items()))
    if info.armour and not any(here and key not in opens for key, here in over.items()):
        unlike = min(unlike, ARMOUR_CLOSED)
    if polarity is None or polarity.outcome not in (Outcome.RIGHT, Outcome.WRONG):
        return unlike
    if polarity.outcome is Outcome.WRONG and info.opens:
        # A conductor that is off shows no polarity either.
        return unlike + OFF_IS_WRONG
    return unlike + ((polarity.outcome is Outcome.WRONG) != bool(info.crossed))


def poor_pairs(steps: Steps, subject: str, worry_mohm: float) -> dict[str, float]:
    """The kinds that explain the poor insulation of a subject, each as likely; none where none is poor."""
    read = {key: one for key in ACROSS if (one := _reading(steps, key, subject)) is not None and one.value is not None}
    low = {key: one.value < worry_mohm for key, one in read.items() if one.value is not None}
    if not any(low.values()):
        return {}
    limits = [step.limit_low for key in read if (step := steps.get((key, subject))) is not None]
    worst = min(one.value for one in read.values() if one.value is not None)
    damp = worst >= max((one for one in limits if one is not None), default=0.0)
    kinds = {kind: info for kind, info in fault_infos().items() if info.poor and info.damp == damp}
    if damp:
        return dict.fromkeys(kinds, 1 / len(kinds))
    unlike = {
        kind: sum(here == ACROSS[key].isdisjoint(info.poor) for key, here in low.items())
        for kind, info in kinds.items()
    }
    least = min(unlike.values())
    best = [kind for kind, times in unlike.items() if times == least]
    return dict.fromkeys(best, 1 / len(best))


def _is_open(steps: Steps, key: StepKey, subject: str) -> bool:
    """Whether a step is asked for or offered here, and nobody took it yet."""
    return (key, subject) in steps and _reading(steps, key, subject) is None


def tells_pairs_apart(steps: Steps, subject: str, kinds: list[str]) -> Iterator[StepKey]:
    """The steps that were not read yet, and read so with one of two kinds and not with the other."""
    one, other = (fault_infos()[kind] for kind in kinds[:2])
    for key, pairs in ACROSS.items():
        if _is_open(steps, key, subject) and pairs.isdisjoint(one.poor) != pairs.isdisjoint(other.poor):
            yield key
    for key in LINKED:
        if _is_open(steps, key, subject) and (key in (*one.opens, *one.crossed)) != (
            key in (*other.opens, *other.crossed)
        ):
            yield key
