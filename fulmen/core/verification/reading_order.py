"""The order of the tests: dead before live on every circuit, nothing signed before it was tested or yet to come."""

from __future__ import annotations

from datetime import date, datetime

from fulmen.core.findings.finding import Finding, Stage
from fulmen.core.findings.question import Edition, ask
from fulmen.core.findings.rules.readings import HOLDS_SIGNED, READING_ORDER
from fulmen.core.findings.words import word
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.certificate import SignedPart
from fulmen.core.model.job import Job
from fulmen.core.model.readings import ENERGISED, LEFT_OUT, ByStep, Outcome, StepKey, counting
from fulmen.core.verification.certificate_gaps import Gap
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.steps import definition_of, definitions


def order_findings(readings: ByStep, steps: tuple[Step, ...], edition: Edition) -> list[Finding]:
    """For every circuit that was tested live: whether it had been tested dead by then."""
    circuits = dict.fromkeys(one.subject for one in steps if one.subject != ORIGIN and (one.guard or one.is_whole))
    found = [_dead_first(readings, circuit, _of(circuit, steps), edition) for circuit in circuits]
    return [one for one in (_holds(readings, steps, edition), *found) if one is not None]


def _of(circuit: str, steps: tuple[Step, ...]) -> list[Step]:
    """The steps of a circuit with those of the parts of its cable; of an RCD its own."""
    return [one for one in steps if one.subject == circuit or (one.circuit == circuit and not one.guard)]


# What nobody does before a hold is signed: each with the readings that show that it was done.
HELD_BACK = (
    (
        StepKey.ISOLATED,
        frozenset(one.key for one in definitions() if one.stage is Stage.DEAD and one.rank > 0)
        | {StepKey.SAFE_TO_ENERGISE},
    ),
    (StepKey.SAFE_TO_ENERGISE, ENERGISED - {StepKey.SAFE_TO_ENERGISE, StepKey.POLARITY_LIVE}),
)
# With these the supply is on past the main switch, or somebody says that it may be.
SWITCHED_ON = ENERGISED - {StepKey.POLARITY_LIVE}


def _holds(readings: ByStep, steps: tuple[Step, ...], edition: Edition) -> Finding | None:
    """Whether each hold was signed before the first reading past it."""
    asked, late = ask(HOLDS_SIGNED, edition, ORIGIN), []
    begun, every = False, [one for taken in readings.taken.values() for one in taken]
    for hold, past in HELD_BACK:
        first = min((one.taken_at for one in every if one.step in past and one.outcome not in LEFT_OUT), default=None)
        if first is None:
            continue
        begun = True
        signed = [one for one in every if one.step is hold and one.outcome is Outcome.RIGHT]
        if not signed:
            stage = definition_of(hold).stage
            return asked.needs_reading(f"Not signed: {definition_of(hold).title}.", stage=stage)
        if min(one.taken_at for one in signed) > first:
            late.append(hold)
    for box in (one for one in steps if one.step is StepKey.BOX_MADE_UP):
        unsigned = _made_up_late(readings, box.subject, steps)
        if unsigned and readings.latest(StepKey.BOX_MADE_UP, box.subject) is None:
            return asked.needs_reading(f"Not signed: {box.title}.", stage=Stage.DEAD)
        late += [StepKey.BOX_MADE_UP] if unsigned else []
    if not late:
        return asked.meets("Each before the first reading past it.") if begun else None
    titles = ", ".join(definition_of(hold).title for hold in late)
    detail = f"{titles}: signed after readings that it holds back. Say how that was known then."
    return asked.your_call(detail, basis={"holds": tuple(late)})


def _made_up_late(readings: ByStep, box: str, steps: tuple[Step, ...]) -> bool:
    """Whether something was read with the supply on after the cores came out of a box, and nobody had signed since that
    it was made up again.
    """
    at_it = [one for one in steps if box in (*one.cores_out, *one.cores_joined)]
    out_at = [one.taken_at for step in at_it for one in readings.every(step.step, step.subject)]
    signs = readings.every(StepKey.BOX_MADE_UP, box)
    signed_at = [one.taken_at for one in signs if one.outcome is Outcome.RIGHT]
    on_at = [
        one.taken_at
        for (step, _), taken in readings.taken.items()
        if step in SWITCHED_ON
        for one in taken
        if one.outcome not in LEFT_OUT
    ]
    last_out = {at: max((one for one in out_at if one <= at), default=None) for at in on_at}
    return any(out is not None and not any(out <= one <= at for one in signed_at) for at, out in last_out.items())


def _dead_first(readings: ByStep, circuit: str, steps: list[Step], edition: Edition) -> Finding | None:
    live = [(step, at) for step in steps if step.stage is Stage.LIVE if (at := _first_at(readings, step)) is not None]
    if not live:
        return None
    (first, begun_at), asked = min(live, key=lambda one: one[1]), ask(READING_ORDER, edition, circuit)
    # The lead of a unit that is isolated may be read at any time.
    asked_first = [one for one in steps if one.stage is Stage.DEAD and one.step is not StepKey.CONNECTOR_EARTH]
    dead = [(step, _first_at(readings, step)) for step in asked_first if step.required]
    missing = [step.title for step, at in dead if at is None]
    if missing:
        return asked.needs_reading(f"Tested live, and not dead: {', '.join(missing)}.", stage=Stage.DEAD)
    late = [step for step, at in dead if at is not None and at > begun_at]
    if not late:
        return asked.meets("Every dead test before the first live one.")
    titles = ", ".join(step.title for step in late)
    detail = (
        f"{first.title} at {begun_at:%-d %B, %H:%M}, before {titles}. Say how the circuit was known to be safe, or "
        "that the times were entered later."
    )
    return asked.your_call(detail, basis={"first_live": first.step, "late": tuple(step.step for step in late)})


def _first_at(readings: ByStep, step: Step) -> datetime | None:
    """When a step, or all that stands for it, was first taken: a retest after the live ones takes nothing back."""
    own = _taken_at(readings, step.step, step.subject)
    if own is not None or not step.stood_for:
        return own
    times = [_taken_at(readings, *one) for one in step.stood_for_by]
    return max((at for at in times if at is not None), default=None)


def _taken_at(readings: ByStep, key: StepKey, subject: str) -> datetime | None:
    """When a step was first read; one that was left out was not."""
    taken = (one.taken_at for one in readings.every(key, subject) if one.outcome not in LEFT_OUT)
    return min(taken, default=None)


def date_gaps(job: Job, today: date) -> tuple[Gap, ...]:
    """What no paper issued on a day may hold: signatures before the last test, readings and signatures yet to come.

    Args:
        today: the day of issue; the core knows no clock.
    """
    gaps = []
    tested_on = max((one.taken_at.date() for one in counting(job.readings)), default=None)
    signed = job.certificate.signature(SignedPart.INSPECTION_AND_TESTING)
    if tested_on is not None and signed is not None and signed.signed_on < tested_on:
        signed_on, tested = (f"{day:%-d %B %Y}" for day in (signed.signed_on, tested_on))
        gaps.append(f"Inspection and testing signed on {signed_on}, before the last test on {tested}")
    # What takes a reading back is dated too.
    last_on = max((one.taken_at.date() for one in job.readings), default=None)
    if last_on is not None and last_on > today:
        gaps.append(f"A reading is dated {last_on:%-d %B %Y}, which is yet to come")
    gaps += [
        f"{word(one.part).capitalize()} signed on {one.signed_on:%-d %B %Y}, which is yet to come"
        for one in job.certificate.signatures
        if one.signed_on > today
    ]
    return tuple(
        Gap(kind="signature", key=f"dates-{place}", text=text, stage="papers") for place, text in enumerate(gaps)
    )
