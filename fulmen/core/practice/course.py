"""An exercise played from its acts: what each showed, how the house stands, and what ended it.

Nothing is remembered but the acts: the same acts on the same exercise always give the same course.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from datetime import timedelta

from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.errors import InputError
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.finding import Stage, Verdict
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.clamp import ClampProof
from fulmen.core.model.job import Job
from fulmen.core.model.readings import LEFT_OUT, Outcome, Reading, StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.practice.acts import Act, Connect, Cover, Judge, Name, Sign, Switch, Take, TestClamp, Unlink
from fulmen.core.practice.covers import UNIT, covers, under
from fulmen.core.practice.dangers import danger_of
from fulmen.core.practice.exercise import BEGUN, LEARNER, Exercise
from fulmen.core.practice.mishaps import Mishap, MishapKey, mishap
from fulmen.core.practice.set_rightly import set_rightly
from fulmen.core.practice.shown_by import doubts, set_for
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.simulations.as_built.set_up import Placed, Setup, Shown, nothing
from fulmen.core.simulations.as_built.simulated_clamp import clamp_shown
from fulmen.core.verification.faults.faults import planted_kinds
from fulmen.core.verification.instruments.dials import Link, Point, Shows, dial, dials
from fulmen.core.verification.steps.sequence import Step

# What is read of the circuit itself needs it on; ohms and the lead's code do not.
NEEDS_LIFE = {Shows.LOOP, Shows.FAULT_CURRENT, Shows.RCD, Shows.DC_RISING, Shows.ROTATION, Shows.PILOT, Shows.DUTY}
SUPPLY_SIDE = {Point.SUPPLY_L, Point.SUPPLY_N}


@dataclass(frozen=True)
class Entry:
    """One act and what came of it: a display where something was taken, whether the set stood as the step asks."""

    act: Act
    step: Step | None = None
    shown: Shown | None = None
    rightly: bool = False
    in_time: bool = True
    judged: bool | None = None


@dataclass(frozen=True)
class Course:
    """How an exercise stands after its acts."""

    exercise: Exercise
    entries: tuple[Entry, ...] = ()
    main_on: bool = True
    isolated: bool = False
    energised: bool = False
    connected: bool = False
    made_up: frozenset[str] = frozenset()
    covers_off: frozenset[str] = frozenset()
    links: tuple[tuple[str, Link], ...] = ()
    proof: ClampProof | None = None
    mishap: Mishap | None = None
    named: Name | None = None
    readings: dict[tuple[str, str], Reading] = field(default_factory=dict)

    @property
    def ended(self) -> bool:
        """Whether nothing more can be done."""
        return self.mishap is not None or self.named is not None

    def tested_job(self) -> Job:
        """The job with the readings that were taken as their steps ask."""
        job = self.exercise.job.model_copy(update={"readings": tuple(self.readings.values())})
        if self.proof is None:
            return job
        at = [one.id for one in job.charge_points].index(self.exercise.charge_point)
        value = self.proof.model_dump(mode="json")
        return apply_changes(job, (Change(field=f"charge_points.{at}.clamp_proof", value=value),))

    def judged(self) -> Evaluation:
        """What the app makes of them."""
        job = self.tested_job()
        return evaluate(job, rule_set(job.rule_set))

    def dead_missing(self) -> tuple[str, ...]:
        """The dead tests that are asked for, and nothing was taken that stands for them."""
        exercise = replace(self.exercise, job=self.tested_job())
        steps = exercise.steps.values()
        holds = () if self.isolated else (self.exercise.steps[StepKey.ISOLATED, ORIGIN].title,)
        boxes = [one.title for one in self.box_holds() if one.subject not in self.made_up]
        dead = [one for one in steps if one.stage is Stage.DEAD and one.required and one.kind != "hold"]
        return (*holds, *(one.title for one in dead if not one.met), *boxes)

    def cable_name(self, subject: str) -> str:
        """The circuit that a cable, or a part of one, is of."""
        installation = self.exercise.case.installation
        leg = installation.leg(subject)
        return installation.tree.circuits[leg.circuit if leg is not None else subject].name

    def box_holds(self) -> tuple[Step, ...]:
        """The holds of the boxes that no dead test goes through."""
        return tuple(one for one in self.exercise.steps.values() if one.step is StepKey.BOX_MADE_UP)

    def dead_failed(self) -> tuple[str, ...]:
        """The dead tests whose reading does not hold."""
        open_steps = {(one.step, one.subject) for one in doubts(self.judged()) if one.verdict is Verdict.FALLS_SHORT}
        dead = [one for one in self.exercise.steps.values() if one.stage is Stage.DEAD]
        return tuple(one.title for one in dead if (one.step, one.subject) in open_steps)


def played(exercise: Exercise, acts: Iterable[Act]) -> Course:
    """The course of an exercise after some acts.

    Raises:
        InputError: see `gone_on`.
    """
    course = Course(exercise)
    for act in acts:
        course = gone_on(course, act)
    return course


def gone_on(course: Course, act: Act) -> Course:
    """The course after one more act.

    Raises:
        InputError: the act names a step, a setting or a place that is not there, or comes after the end.
    """
    if course.ended:
        raise InputError("act", "the exercise has ended: begin another")
    return _done(course, act)


def _done(course: Course, act: Act) -> Course:
    match act:
        case Sign():
            return _signed(course, act)
        case Switch():
            return _switched(course, act)
        case Connect():
            return _connected(course, act)
        case Cover():
            return _covered(course, act)
        case Unlink():
            return _unlinked(course, act)
        case Take():
            return _taken(course, act)
        case Judge():
            return _judged(course, act)
        case TestClamp():
            return _clamp_tested(course, act)
        case Name():
            return _named(course, act)


def _with(course: Course, entry: Entry) -> Course:
    return replace(course, entries=(*course.entries, entry))


def _ended(course: Course, act: Act, key: MishapKey, missing: tuple[str, ...] = ()) -> Course:
    return replace(_with(course, Entry(act)), mishap=mishap(key, course.exercise.faults, missing))


def _signed(course: Course, act: Sign) -> Course:
    if act.step is StepKey.ISOLATED:
        return replace(_with(course, Entry(act)), isolated=True, main_on=False)
    if act.step is StepKey.BOX_MADE_UP:
        if act.subject not in {one.subject for one in course.box_holds()}:
            raise InputError("act.subject", f"there is no box “{act.subject}” in the way of this house's tests")
        return replace(_with(course, Entry(act)), made_up=course.made_up | {act.subject})
    missing = course.dead_missing()
    if missing:
        return _ended(course, act, MishapKey.NOT_DEAD_TESTED, missing)
    failed = course.dead_failed()
    if failed:
        return _ended(course, act, MishapKey.DEAD_TESTS_FAILED, failed)
    return _open_or_linked(course, act) or replace(_with(course, Entry(act)), energised=True, main_on=True)


def _open_or_linked(course: Course, act: Act) -> Course | None:
    """What is still in or off as the switch goes on."""
    linked = tuple(course.cable_name(subject) for subject, _ in course.links)
    if linked:
        return _ended(course, act, MishapKey.LINK_LEFT_IN, linked)
    return _ended(course, act, MishapKey.COVERS_OFF, _names(course, course.covers_off)) if course.covers_off else None


def _names(course: Course, places: Iterable[str]) -> tuple[str, ...]:
    names = {one.key: one.name for one in covers(course.exercise)}
    return tuple(names[one] for one in names if one in set(places))


def _switched(course: Course, act: Switch) -> Course:
    """Off is always allowed; on again only once it is signed that it may be."""
    if act.on and not course.main_on and not course.energised:
        signature = course.exercise.steps[StepKey.SAFE_TO_ENERGISE, ORIGIN].title
        return _ended(course, act, MishapKey.NOT_DEAD_TESTED, (*course.dead_missing(), signature))
    if act.on and not course.main_on and (ended := _open_or_linked(course, act)) is not None:
        return ended
    return replace(_with(course, Entry(act)), main_on=act.on)


def _connected(course: Course, act: Connect) -> Course:
    """The terminals of a cable are worked on dead."""
    if course.main_on:
        return _ended(course, act, MishapKey.LIVE_TERMINALS)
    if UNIT not in course.covers_off:
        return _with(course, Entry(act, shown=nothing("The unit's cover is on: take it off first.")))
    return _with(replace(course, connected=act.connected), Entry(act))


def _covered(course: Course, act: Cover) -> Course:
    """A cover may come off at any time; what stands open while the circuit is on is looked at with what comes next."""
    if act.place not in {one.key for one in covers(course.exercise)}:
        raise InputError("act.place", f"there is no cover “{act.place}”")
    off = course.covers_off | {act.place} if act.off else course.covers_off - {act.place}
    return replace(_with(course, Entry(act)), covers_off=off)


def _unlinked(course: Course, act: Unlink) -> Course:
    """A link is taken out by hand, from a dead terminal."""
    if act.subject not in course.exercise.sound.parts:
        raise InputError("act.subject", f"there is no cable “{act.subject}” in this house")
    if course.main_on:
        return _ended(course, act, MishapKey.LIVE_TERMINALS)
    return replace(_with(course, Entry(act)), links=tuple(one for one in course.links if one[0] != act.subject))


def _taken(course: Course, act: Take) -> Course:
    step = _step(course, act)
    setup = setup_of(act, step)
    key = danger_of(course.exercise, step, setup, main_on=course.main_on, connected=course.connected)
    if key is not None:
        return _ended(course, act, key)
    needed = under(course.exercise, step, setup)
    if course.main_on and course.covers_off - needed:
        return _ended(course, act, MishapKey.COVER_LEFT_OFF, _names(course, course.covers_off - needed))
    # A wrong dial at a dead test shows nothing; a live test wants the circuit on.
    if step.stage is Stage.LIVE and _needs_life(step, setup) and not course.energised:
        return _ended(course, act, MishapKey.LIVE_TOO_EARLY, course.dead_missing() or ("Fit to energise",))
    hindered = _hindered(course, step, setup)
    shown = nothing(hindered) if hindered else _shown(course, step, setup)
    rightly = not hindered and set_rightly(course.exercise.sound, step, setup)
    in_time = course.isolated or step.stage is Stage.LIVE
    # What is tested at a box has its cores out of the device again.
    made_up = course.made_up - {*step.cores_out, *step.cores_joined}
    links = course.links if hindered else _linked(course, step, setup)
    after = replace(_with(course, Entry(act, step, shown, rightly, in_time)), made_up=made_up, links=links)
    if not rightly or shown.outcome in LEFT_OUT:
        return after
    at = BEGUN + timedelta(minutes=len(course.entries))
    reading = set_for(course.exercise, step.step).kept(step, shown, setup, LEARNER, at)
    return replace(after, readings={**course.readings, (step.step.value, step.subject): reading})


def _linked(course: Course, step: Step, setup: Setup) -> tuple[tuple[str, Link], ...]:
    """The links that are in once a set stood so: at this cable the one that it has, elsewhere what was left."""
    subject = Placed(course.exercise.house, step, setup).subject
    if not step.leads or step.stage is not Stage.DEAD or step.circuit == ORIGIN:
        return course.links
    others = tuple(one for one in course.links if one[0] != subject)
    return others if setup.linked is Link.NONE else (*others, (subject, setup.linked))


def _step(course: Course, act: Take | Judge) -> Step:
    found = course.exercise.steps.get((act.step, act.subject))
    if found is None or found.kind == "hold":
        raise InputError("act.step", f"{act.step} of {act.subject} is no test of this house")
    return found


def setup_of(act: Take, step: Step) -> Setup:
    """How the set stands; its jacks in the order of the step's, whatever order they came in.

    Raises:
        InputError: there is no such setting.
    """
    if act.dial not in dials():
        raise InputError("act.dial", f"there is no setting “{act.dial}”")
    leads = {lead.jack: act.leads.get(lead.jack, ()) for lead in step.leads}
    return Setup(act.dial, leads, act.linked, act.adapter)


def _at_supply(setup: Setup) -> bool:
    return any(set(at) & SUPPLY_SIDE for at in setup.leads.values())


def _needs_life(step: Step, setup: Setup) -> bool:
    """Whether the circuit itself has to be on for what is done."""
    shows = dial(setup.dial).shows
    if not step.leads or shows is Shows.EYES:
        return step.stage is Stage.LIVE
    return shows in NEEDS_LIFE and not _at_supply(setup)


def _hindered(course: Course, step: Step, setup: Setup) -> str:
    """Why nothing can show as the house stands: the unit is off the cable, or the main switch is off."""
    closed = _names(course, under(course.exercise, step, setup) - course.covers_off)
    if closed:
        return f"{closed[0]} is on: take it off first."
    at_unit = any(point.value.startswith("plug") for at in setup.leads.values() for point in at) or bool(step.adapter)
    # The lead's own earth is read from the unit's bar: no cable is needed for it.
    if at_unit and not course.connected and step.step is not StepKey.CONNECTOR_EARTH:
        return "The unit is not connected to the cable yet."
    return "No volts: the main switch is off." if _needs_life(step, setup) and not course.main_on else ""


def _shown(course: Course, step: Step, setup: Setup) -> Shown:
    exercise = course.exercise
    if step.step is StepKey.LEADS_NULLED and _warmed_up(course):
        ohm = next(one.size for one in exercise.faults if one.built.leads)
        return Shown(Outcome.WRONG, words=f"Leads joined: the display reads {ohm:.2f}.")
    return set_for(exercise, step.step).show(step, setup)


def _warmed_up(course: Course) -> bool:
    """Leads that read nothing when they were nulled cold, and something since."""
    drifts = any(one.built.leads for one in course.exercise.faults)
    used = any(one.shown is not None and one.shown.value is not None for one in course.entries)
    return drifts and used


def _judged(course: Course, act: Judge) -> Course:
    """The learner's view of a step's newest display takes the place of an earlier one."""
    step = _step(course, act)
    for number in range(len(course.entries) - 1, -1, -1):
        entry = course.entries[number]
        if entry.step is step:
            entries = (*course.entries[:number], replace(entry, judged=act.right), *course.entries[number + 1 :])
            return _with(replace(course, entries=entries), Entry(act))
    raise InputError("act.step", f"{act.step} of {act.subject} was not taken yet")


def _clamp_tested(course: Course, act: TestClamp) -> Course:
    exercise = course.exercise
    if exercise.job.supply.load_limit_a is None:
        raise InputError("act.kind", "this house has no load limit, so no clamp")
    if not (course.energised and course.main_on and course.connected):
        return _with(course, Entry(act, shown=nothing("The unit has to be connected and on for this.")))
    proof = clamp_shown(exercise.house, exercise.seed, LEARNER, BEGUN + timedelta(minutes=len(course.entries)))
    entry = Entry(act, shown=Shown(Outcome.RIGHT, words=_clamp_words(proof)), rightly=True)
    return _with(replace(course, proof=proof), entry)


def _clamp_words(proof: ClampProof) -> str:
    """What the unit shows before and with the load, and what it offers the car."""
    seen = (proof.known_load_a, proof.shown_without_a, proof.shown_with_a, proof.shown_with_car_a)
    load, before, with_it, car = (f"{one:g}".replace("-", "−") for one in seen)
    fault = " It reports a fault of its clamp." if proof.reports_fault is Seen.YES else ""
    return (
        f"A 9 kW shower, {load} A: the unit shows {before} A before it and {with_it} A with it, {car} A with the car "
        f"alone. It offers the car {proof.offered_without_a:g} A before and {proof.offered_with_a:g} A with it, limit "
        f"turned down to {proof.test_limit_a:g} A for the test.{fault}"
    )


def _named(course: Course, act: Name) -> Course:
    if act.fault is not None and act.fault not in planted_kinds():
        raise InputError("act.fault", f"there is no fault “{act.fault}”")
    if act.fault is not None and act.place not in {one.key for one in course.exercise.places()}:
        raise InputError("act.place", "say where the fault sits")
    return replace(_with(course, Entry(act)), named=act)
