"""The test sequence of Part 6 for one job: its steps in order, what to expect, what limits them."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Stage, Verdict
from fulmen.core.model.circuits import StaysConnected
from fulmen.core.model.instruments import Function
from fulmen.core.model.readings import LEFT_OUT, ByStep, Reading, StepKey, by_step
from fulmen.core.plain import plain
from fulmen.core.verification.instruments.dials import Link
from fulmen.core.verification.steps.expected_readings import expected_band
from fulmen.core.verification.steps.planned import PlannedStep, plan
from fulmen.core.verification.steps.run_test import RunTest
from fulmen.core.verification.steps.step_limits import step_limit
from fulmen.core.verification.steps.steps import Kind, Lead


@plain
class Step:
    """One step of one job's sequence, with what is expected, what limits it, and the reading that counts.

    `met` says whether it was tested, or others that stand for it were (`stood_for`); `earlier` are those that were
    taken before.
    `reference` names what is told of every such step, see `step_texts`.
    `expected_parts` are what the band is the sum of.
    `place` is where the tester stands, by the name of a board, a box, a unit or the origin; `circuit` whose order it
    keeps; `guard` is the path of the RCD that it tests, `stands_at` the place of the device that it tests.
    `cores_out` are the boxes where the cable's cores are out of the device, `cores_joined` those where they are joined
    past it, `beforehand` both in words; `as_chosen` whether it is the way of testing past a box that was chosen.
    `stood_for_by` are the readings that stand for it; `taken_back` those taken back, each before its reason;
    `stays_connected` is what can't be taken off for it.
    """

    step: StepKey
    reference: str
    subject: str
    circuit: str
    guard: str
    stands_at: str
    stage: Stage
    rank: int
    title: str
    names_circuit: bool
    where: str
    place: str
    kind: Kind
    unit: str
    decimals: int
    function: Function
    dial: str
    range: str
    leads: tuple[Lead, ...]
    links: str
    linked: Link
    linked_at: str
    cores_out: tuple[str, ...]
    cores_joined: tuple[str, ...]
    beforehand: str
    as_chosen: bool
    adapter: str
    required: bool
    waivable: bool
    offered_with: StepKey | None = None
    expected_low: float | None = None
    expected_high: float | None = None
    expected_from: str = ""
    expected_parts: tuple[str, ...] = ()
    limit: float | None = None
    limit_low: float | None = None
    limit_from: str = ""
    past_limit: Verdict = Verdict.FALLS_SHORT
    plausible_from: float | None = None
    asks_from: float | None = None
    asks_why: str = ""
    met: bool = False
    stood_for: bool = False
    stood_for_by: tuple[tuple[StepKey, str], ...] = ()
    stays_connected: tuple[StaysConnected, ...] = ()
    earlier: tuple[Reading, ...] = ()
    taken_back: tuple[Reading, ...] = ()
    reading: Reading | None = None

    @property
    def is_whole(self) -> bool:
        """Whether it is of its circuit, not of a part of its cable, of a box or of a guard before it."""
        return self.subject == self.circuit


def sequence(cases: list[Case], readings: tuple[Reading, ...]) -> list[Step]:
    """Every step of the job with what was read of it."""
    taken = by_step(readings)
    return [worked_out(one, taken) for one in asked_for(plan(cases), taken)]


def asked_for(planned: tuple[PlannedStep, ...], readings: ByStep) -> list[PlannedStep]:
    """The steps that a design asks for, or that were read before; each once."""
    found: dict[tuple[StepKey, str], PlannedStep] = {}
    for one in planned:
        here = (one.key, one.subject)
        if here not in found and not (one.only_if_read and readings.latest(*here) is None):
            found[here] = one
    return list(found.values())


def stood_for_by(readings: ByStep, planned: PlannedStep) -> tuple[tuple[StepKey, str], ...]:
    """The readings of other steps that stand in the place of this one; none where nothing does."""
    sets = planned.stood_for_by
    return next((others for others in sets if all(_taken(readings, *one) for one in others)), ())


def _taken(readings: ByStep, key: StepKey, subject: str) -> bool:
    reading = readings.latest(key, subject)
    return reading is not None and reading.outcome not in LEFT_OUT


def worked_out(planned: PlannedStep, readings: ByStep) -> Step:
    """A step with what is expected, what limits it and what was read; it asks for readings by step and subject only."""
    key, subject, test = planned.key, planned.subject, RunTest(planned.case, readings)
    limit, band = step_limit(test, key, subject), expected_band(test, key, subject)
    taken = test.readings.every(key, subject)
    reading = taken[-1] if taken else None
    others = stood_for_by(test.readings, planned)
    shown = band.shown if band else (None, None)
    return Step(
        **planned.asks(),
        expected_low=shown[0],
        expected_high=shown[1],
        expected_from=band.source if band else "",
        expected_parts=tuple(f"{one.words}: {one.told}" for one in band.parts) if band else (),
        limit=limit.most,
        limit_low=limit.least,
        limit_from=limit.source,
        past_limit=limit.past,
        plausible_from=limit.plausible_from,
        asks_from=limit.asks_from,
        asks_why=limit.asks_why,
        met=bool(others) or (reading is not None and reading.outcome not in LEFT_OUT),
        stood_for=bool(others),
        stood_for_by=others,
        earlier=taken[:-1],
        taken_back=test.readings.back.get((key, subject), ()),
        reading=reading,
    )
