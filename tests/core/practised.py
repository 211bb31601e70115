"""A learner who does everything as the steps ask, for the tests of practice."""

from __future__ import annotations

from typing import Any

from fulmen.core.findings.finding import Stage
from fulmen.core.model.readings import StepKey
from fulmen.core.practice.acts import Act, Connect, Cover, Judge, Name, Sign, Switch, Take, TestClamp
from fulmen.core.practice.course import played
from fulmen.core.practice.covers import UNIT, under
from fulmen.core.practice.exercise import Exercise
from fulmen.core.practice.sets import hidden, practice_set
from fulmen.core.practice.shown_by import doubts
from fulmen.core.simulations.as_built.set_up import Setup
from fulmen.core.verification.instruments.dials import Point
from fulmen.core.verification.steps.sequence import Step
from tests.jobs import job

BESIDES = (StepKey.R1_RN, StepKey.R2, StepKey.IR_LINE_EARTH, StepKey.IR_NEUTRAL_EARTH)


def exercise(set_key: str = "plain", what: str = "sound", seed: int = 7) -> Exercise:
    """An exercise of a set."""
    its = practice_set(set_key)
    whole = its.job(job(its.house))
    return hidden(whole, whole.charge_points[0].id, what, its.size, seed)


def taking(step: Step, **changed: Any) -> Take:
    """A step taken as it asks, or with something changed."""
    leads = {lead.jack: lead.at for lead in step.leads}
    asked = {"dial": step.dial, "leads": leads, "linked": step.linked, "adapter": step.adapter}
    return Take(step=step.step, subject=step.subject, **{**asked, **changed})


def step_of(whole: Exercise, key: str, subject: str = "") -> Step:
    """A step of an exercise."""
    return next(one for (name, its), one in whole.steps.items() if name == key and subject in ("", its))


def opening(whole: Exercise, step: Step, off: set[str]) -> list[Act]:
    """The covers that a step needs off, taken off."""
    needed = under(whole, step, Setup.of(step)) - off
    off |= needed
    return [Cover(place=one, off=True) for one in sorted(needed)]


def closing(off: set[str]) -> list[Act]:
    """Every cover put back."""
    acts: list[Act] = [Cover(place=one, off=False) for one in sorted(off)]
    off.clear()
    return acts


def well_done(whole: Exercise) -> list[Act]:
    """Every step in order until the dead ones do not hold, each judged rightly, the fault named."""
    acts: list[Act] = [Sign(step=StepKey.ISOLATED)]
    off: set[str] = set()
    for step in whole.steps.values():
        if step.step is StepKey.SAFE_TO_ENERGISE:
            so_far = played(whole, acts)
            if so_far.dead_missing() or so_far.dead_failed():
                break
            acts += [] if UNIT in off else [Cover(place=UNIT, off=True)]
            off.add(UNIT)
            acts += [Connect(connected=True), *closing(off), Sign(step=StepKey.SAFE_TO_ENERGISE)]
        if step.step is StepKey.BOX_MADE_UP:
            acts.append(Sign(step=StepKey.BOX_MADE_UP, subject=step.subject))
        if step.kind == "hold" or not (step.required or step.step in BESIDES):
            continue
        live = step.stage is Stage.LIVE
        earth_off = live and any(Point.SUPPLY_E in lead.at for lead in step.leads)
        acts += [Switch(on=False)] if earth_off else []
        acts += [*opening(whole, step, off), taking(step), *(closing(off) if live else [])]
        acts += [Switch(on=True)] if earth_off else []
    if whole.job.supply.load_limit_a is not None and played(whole, acts).energised:
        acts.append(TestClamp())
    open_steps = {(one.step, one.subject) for one in doubts(played(whole, acts).judged())}
    taken = [(one.step, one.subject) for one in acts if isinstance(one, Take)]
    acts += [Judge(step=step, subject=subject, right=(step, subject) not in open_steps) for step, subject in taken]
    fault = whole.faults[0] if whole.faults else None
    return [*acts, Name(fault=fault and fault.kind, place=whole.place_of(fault) if fault else "")]
