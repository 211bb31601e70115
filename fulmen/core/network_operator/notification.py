"""What the network operator must be told: notify after, or apply before; with the reasons, the deadline and the hold.

The thresholds are common practice and limits of the rule set. What was not seen counts against notifying after.
"""

from __future__ import annotations

from datetime import date, timedelta
from enum import StrEnum

from fulmen.core.demand.demand import Demand, existing_cars_a
from fulmen.core.model.defects import DefectOutcome
from fulmen.core.model.job import Job
from fulmen.core.model.letters import TO_OPERATOR, Against, Letter, LetterFacts, LetterKind
from fulmen.core.model.readings import ENERGISED, LEFT_OUT, Reading, counting
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import WorkKind
from fulmen.core.model.stops import Stop
from fulmen.core.model.supply import CutOutCondition
from fulmen.core.plain import plain
from fulmen.core.reference.rule_set import RuleSet

AGREES = (LetterKind.ACCEPTED, LetterKind.WORK_DONE)
UNSOUND = (CutOutCondition.OLD, CutOutCondition.DAMAGED)
AGAINST_WORDS = {
    Against.LOOPED: "looped",
    Against.CUT_OUT_NOT_SOUND: "cut-out not sound",
    Against.FEEDS_BACK: "feeds back",
}
OPERATORS_STOPS = (Stop.CUT_OUT, Stop.METER)


class Route(StrEnum):
    """When the operator is told."""

    NOTIFY_AFTER = "notify_after"
    APPLY_BEFORE = "apply_before"


class Held(StrEnum):
    """Whether a condition for notifying after holds."""

    YES = "yes"
    NO = "no"
    NOT_KNOWN = "not_known"


class OperatorState(StrEnum):
    """Where the matter stands with the operator."""

    NOT_SENT = "not_sent"
    WAITING = "waiting"
    BOOKED = "booked"
    MORE_WANTED = "more_wanted"
    ACCEPTED = "accepted"
    OUT_OF_DATE = "out_of_date"


@plain
class Reason:
    """One condition for notifying after, and whether it holds."""

    text: str
    holds: Held


@plain
class OperatorMatter:
    """The route with its reasons, the state, whether work must wait, and the deadline where there is one."""

    route: Route
    reasons: tuple[Reason, ...]
    about: LetterFacts
    about_words: str
    letters_about: tuple[str, ...]
    state: OperatorState
    hold: bool
    stand_in: bool
    deadline: date | None
    deadline_words: str


def operator_matter(job: Job, rules: RuleSet, demand: Demand, live_on: date | None) -> OperatorMatter:
    """Route, reasons, state and hold of a job; the deadline counts from the day on which it was live.

    A load that goes away waits for nobody: they are told once it is off.
    """
    removed = job.site.work is WorkKind.REMOVED
    reasons = () if removed else _reasons(job, rules, demand)
    route = Route.NOTIFY_AFTER if all(reason.holds is Held.YES for reason in reasons) else Route.APPLY_BEFORE
    about = letter_facts(job, demand)
    state = operator_state(job, about)
    last, agreed = job.letters[-1] if job.letters else None, _agreed(job, about)
    days = int(rules.value("notify_within_days"))
    deadline = live_on + timedelta(days=days) if live_on and route is Route.NOTIFY_AFTER and not removed else None
    if removed:
        words = "Once it is off."
    elif route is Route.APPLY_BEFORE:
        words = "Before any work, and not before the operator has agreed in writing."
    elif deadline:
        words = f"Within {days} days of energising: by {deadline:%-d %B %Y}."
    else:
        words = f"Within {days} days of energising."
    return OperatorMatter(
        route=route,
        reasons=reasons,
        about=about,
        about_words=about_words(about),
        letters_about=tuple(about_words(letter.about) for letter in job.letters),
        state=state,
        hold=route is Route.APPLY_BEFORE and state is not OperatorState.ACCEPTED,
        stand_in=bool(agreed and agreed.stand_in) if agreed or not last else last.stand_in,
        deadline=deadline,
        deadline_words=words,
    )


def letter_facts(job: Job, demand: Demand) -> LetterFacts:
    """What an answer of the operator rests on now: the demand, then whatever speaks against the supply."""
    supply = job.supply
    against = [Against.LOOPED] if supply.looped is Seen.YES else []
    against += [Against.CUT_OUT_NOT_SOUND] if supply.cut_out_condition in UNSOUND else []
    against += [Against.FEEDS_BACK] if any(one.feeds_back is Seen.YES for one in job.charge_points) else []
    return LetterFacts(
        demand_a=None if demand.held_a is None else float(round(demand.held_a)),
        load_limit_a=supply.load_limit_a,
        car_a=demand.car_a,
        against=tuple(against),
    )


def about_words(facts: LetterFacts | None) -> str:
    """What a letter was about, in words.

    >>> about_words(LetterFacts(demand_a=74, car_a=32, against=(Against.LOOPED,)))
    '74 A in all, charge point 32 A; looped'
    """
    if facts is None:
        return "not known what it was about"
    total = "demand not known" if facts.demand_a is None else f"{facts.demand_a:.0f} A in all"
    limit = f", load limit {facts.load_limit_a:g} A" if facts.load_limit_a is not None else ""
    against = [AGAINST_WORDS[one] for one in facts.against]
    return "; ".join([f"{total}{limit}, charge point {facts.car_a:g} A", *against])


def still_about(then: LetterFacts | None, now: LetterFacts) -> bool:
    """Whether a letter still covers the job: no more than was agreed, and nothing new that speaks against the supply.

    Agreed for more covers less of the same, and rounding undoes nothing. A limit that the operator counted on stays, or
    becomes a lower one, and none that they weren't told of takes its place; what they have mended since may fall away.

    >>> before = LetterFacts(demand_a=74, car_a=32)
    >>> looped = before.model_copy(update={"against": (Against.LOOPED,)})
    >>> still_about(looped, before), still_about(before, looped)
    (True, False)
    >>> still_about(before, LetterFacts(demand_a=60, car_a=16)), still_about(before, LetterFacts(demand_a=75, car_a=32))
    (True, False)
    """
    if then is None or now.car_a > then.car_a or not set(now.against) <= set(then.against):
        return False
    if then.load_limit_a is None or now.load_limit_a is None:
        held = then.load_limit_a == now.load_limit_a
    else:
        held = now.load_limit_a <= then.load_limit_a
    if then.demand_a is None or now.demand_a is None:
        return held and then.demand_a == now.demand_a
    return held and round(now.demand_a) <= round(then.demand_a)


def operator_state(job: Job, about: LetterFacts) -> OperatorState:
    """Where the matter stands: an agreement to what the job says now, else what the latest letter says of it."""
    if not job.letters:
        return OperatorState.NOT_SENT
    last = job.letters[-1]
    if _agreed(job, about) is not None:
        return OperatorState.ACCEPTED
    if not still_about(last.about, about):
        return OperatorState.OUT_OF_DATE
    if last.kind in TO_OPERATOR:
        return OperatorState.WAITING
    return OperatorState.MORE_WANTED if last.kind is LetterKind.MORE_WANTED else OperatorState.BOOKED


def _agreed(job: Job, about: LetterFacts) -> Letter | None:
    """The latest letter that agrees to what the job says now.

    A later notice, or work that the operator books, takes nothing back; only where the operator wants more does it.
    """
    for letter in reversed(job.letters):
        if letter.kind is LetterKind.MORE_WANTED:
            return None
        if letter.kind in AGREES and still_about(letter.about, about):
            return letter
    return None


def agreed_letter(job: Job, demand: Demand) -> Letter | None:
    """The operator's letter that agrees to what the job says now, if there is one."""
    return _agreed(job, letter_facts(job, demand))


def energised_on(readings: tuple[Reading, ...]) -> date | None:
    """The day of the first live reading: from then on the circuit was energised."""
    live = [one.taken_at for one in counting(readings) if one.step in ENERGISED and one.outcome not in LEFT_OUT]
    return min(live).date() if live else None


def _reasons(job: Job, rules: RuleSet, demand: Demand) -> tuple[Reason, ...]:
    return (
        _demand_reason(job, rules, demand),
        _car_reason(job, rules, demand),
        _loop_reason(job),
        _cut_out_reason(job),
        _defects(job),
        _feeds_back_reason(job),
    )


def _demand_reason(job: Job, rules: RuleSet, demand: Demand) -> Reason:
    supply, total_a = job.supply, demand.held_a
    least_a = rules.value("notify_demand_a")
    if total_a is None:
        return Reason(text="The demand is not known yet.", holds=Held.NOT_KNOWN)
    if total_a <= least_a:
        return Reason(text=f"Demand {total_a:.0f} A, not above {least_a:g} A.", holds=Held.YES)
    fuse_a = supply.cut_out_fuse_a
    if fuse_a is not None and total_a <= fuse_a:
        proven, allowed = supply.fuse_proven is Seen.YES, supply.operator_allows_to_rating is Seen.YES
        text = f"Demand {total_a:.0f} A, above {least_a:g} A but within the {fuse_a} A cut-out"
        if proven and allowed:
            return Reason(text=f"{text}, proven, and the operator's process allows it.", holds=Held.YES)
        lacking = "its fuse is not proven" if not proven else "the operator's process is not known to allow it"
        return Reason(text=f"{text}; {lacking}.", holds=Held.NO)
    fuse = "the cut-out fuse is not known" if fuse_a is None else f"above the {fuse_a} A cut-out fuse"
    return Reason(text=f"Demand {total_a:.0f} A, {fuse}.", holds=Held.NO)


def _car_reason(job: Job, rules: RuleSet, demand: Demand) -> Reason:
    """Every charge point of the house counts, those that are there already too."""
    most_a, there_a = rules.value("notify_car_a"), existing_cars_a(job, rules)
    car_a = demand.car_a + there_a
    holds = Held.YES if car_a <= most_a else Held.NO
    words = "not above" if holds is Held.YES else "above"
    there = f", {there_a:.0f} A of it there already" if there_a else ""
    return Reason(text=f"Charging takes {round(car_a, 1):g} A on a phase{there}, {words} {most_a:g} A.", holds=holds)


def _loop_reason(job: Job) -> Reason:
    seen = job.supply.looped
    texts = {
        Seen.YES: "The service is looped to a neighbour.",
        Seen.NO: "The service is not looped.",
        Seen.NOT_SEEN: "Looped or not was not seen yet.",
    }
    return Reason(text=texts[seen], holds={Seen.YES: Held.NO, Seen.NO: Held.YES, Seen.NOT_SEEN: Held.NOT_KNOWN}[seen])


def _cut_out_reason(job: Job) -> Reason:
    condition = job.supply.cut_out_condition
    if condition is CutOutCondition.SOUND:
        return Reason(text="The cut-out looks sound.", holds=Held.YES)
    if condition is CutOutCondition.NOT_SEEN:
        return Reason(text="The cut-out was not looked at yet.", holds=Held.NOT_KNOWN)
    return Reason(text="The cut-out is old or damaged.", holds=Held.NO)


def _feeds_back_reason(job: Job) -> Reason:
    """A unit that feeds the car's battery back is a source: its connection is applied for."""
    answers = {one.feeds_back for one in job.charge_points}
    if Seen.YES in answers:
        return Reason(text="A unit feeds back: its connection is applied for.", holds=Held.NO)
    if Seen.NOT_SEEN in answers:
        return Reason(text="Whether the unit feeds back was not looked up yet.", holds=Held.NOT_KNOWN)
    return Reason(text="No unit feeds back.", holds=Held.YES)


def _defects(job: Job) -> Reason:
    left = [
        defect
        for defect in job.defects
        if defect.stop in OPERATORS_STOPS and defect.outcome is DefectOutcome.LEFT_TOLD_OWNER
    ]
    if left:
        return Reason(text=f"A defect stands at the operator's equipment: {left[0].what}.", holds=Held.NO)
    return Reason(text="No defect stands at the operator's equipment.", holds=Held.YES)
