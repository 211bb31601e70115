"""A simulated test set and vehicle adapter: what they show of an installation as built, however they are placed.

A figure follows from the network between the points that the leads are on, with the setting of the dial, so a wrong
lead gives what a wrong lead gives. Resolution is such an instrument's; scatter is two per cent and half a digit, well
within the operating error of IEC 61557 (30 % of a continuity, insulation or loop reading; from memory). Seeded: the
same seed reads the same.
"""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from math import inf
from random import Random

from fulmen.core.electrical.control_pilot import NOMINAL_V, PilotState, duty_of, least_code
from fulmen.core.model.readings import Outcome, Reading, StepKey
from fulmen.core.simulations.as_built.as_installed import EARTHS_APART_MOHM, AsInstalled, Potential, electrode_ohm
from fulmen.core.simulations.as_built.seen import Sight
from fulmen.core.simulations.as_built.set_up import LINKED, Placed, Setup, Shown, nothing, seen
from fulmen.core.verification.instruments.dials import Dial, Point, Shows, dial
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.step_applies import tested_rcds

INSTRUMENT = "Simulated test set"
SCATTER = 0.02
CONTINUITY_TOP_OHM, INSULATION_TOP_MOHM, LOOP_TOP_OHM, RCD_TOP_MS = 19.99, 999.0, 1999.0, 1999.0
# A spike that is pushed into a lawn; the house's own load while volts are read; how soon a sound unit notices that
# the lead's earth is off. Our own, no source.
SPIKE_OHM, RESTING_LOAD_OHM, EARTH_LOSS_MS = 180.0, 100.0, 40.0
# What a supply may stand at, of U0: BS EN 50160 as Great Britain has it, −6 to +10 % (from memory); and what a neutral
# may stand at above earth without anybody looking twice (our own, no source).
STATUTORY, NEXT_TO_NOTHING_V = (0.94, 1.1), 5.0


class TestSet:
    """The instruments at one house, with a scatter of their own."""

    __test__ = False

    def __init__(self, house: AsInstalled, seed: int = 0) -> None:
        self.house, self.chance = house, Random(seed)
        self.u0_v = house.case.rules.value("u0_v")
        # An RCD has its own speed: each of its tests scatters about that.
        self.rcd_ms, self.fast_ms = self.chance.uniform(16, 42), self.chance.uniform(7, 14)
        self.delayed_ms, self.delayed_fast_ms = self.chance.uniform(160, 380), self.chance.uniform(65, 135)

    def read(self, step: Step) -> Shown:
        """What a step shows with the set as the step asks for it."""
        return self.show(step, Setup.of(step))

    def show(self, step: Step, setup: Setup) -> Shown:
        """What a step shows with the set as somebody placed it."""
        asked = dial(setup.dial)
        if asked.shows is Shows.EYES or not step.leads:
            return self._by_eye(step, setup)
        placed = Placed(self.house, step, setup)
        if not placed.on_points:
            return nothing("Both leads must be on something.")
        return SHOWS[asked.shows](self, placed, asked)

    def reading(self, step: Step, taken_by: str, taken_at: datetime) -> Reading:
        """The same as a reading to keep."""
        return self.kept(step, self.read(step), Setup.of(step), taken_by, taken_at)

    def kept(self, step: Step, shown: Shown, setup: Setup, taken_by: str, taken_at: datetime) -> Reading:
        """A display as a reading of a step; what was not right says what was seen."""
        told = shown.outcome in (Outcome.WRONG, Outcome.COULD_NOT_TEST)
        return Reading(
            step=step.step,
            subject=step.subject,
            outcome=shown.outcome,
            value=shown.value,
            test_voltage_v=dial(setup.dial).test_voltage_v if shown.value is not None else None,
            instrument=INSTRUMENT,
            temperature_c=self.house.case.job.testing.conductors_c,
            reason=(shown.words or "as the simulated set showed it")[:200] if told else "",
            taken_by=taken_by,
            taken_at=taken_at,
        )

    def shown(self, value: float, resolution: float, top: float = inf) -> Shown:
        """A figure as a display has it: scattered, in steps of its resolution, over range past its top."""
        if value > top:
            return Shown(Outcome.OVER_RANGE, top)
        scattered = value * (1 + self.chance.uniform(-SCATTER, SCATTER)) + self.chance.uniform(-0.5, 0.5) * resolution
        steps = max(0.0, round(scattered / resolution))
        return Shown(Outcome.MEASURED, round(steps * resolution, 4))

    def _by_eye(self, step: Step, setup: Setup) -> Shown:
        """A step without a figure: what is seen, where the adapter stands as the step asks for it."""
        if setup.adapter != step.adapter:
            return nothing(f"With the adapter at {setup.adapter or 'nothing'} this does not show.")
        if step.step is StepKey.EARTH_OPEN:
            return self.shown(self.house.size(lambda built: built.figure_at == step.step, EARTH_LOSS_MS), 1.0)
        return seen(step.step, Sight.WRONG if self.house.wrong_at(step.step) else Sight.RIGHT)


def _resistance(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    """Continuity: leads that were not nulled are in it. A link that shows no loop is polarity, wrong."""
    if placed.first == (Point.OTHER_LEAD,) or placed.first == placed.last:
        ohm = 0.0
    else:
        ohm = placed.house.dead_ohm(placed.subject, *placed.pair, placed.links())
    if placed.step.step is StepKey.POLARITY_DEAD:
        return _polarity(placed, ohm)
    if placed.step.step is StepKey.LEADS_NULLED:
        return seen(StepKey.LEADS_NULLED, Sight.RIGHT)
    return tester.shown(ohm + tester.house.size(lambda built: built.leads), 0.01, CONTINUITY_TOP_OHM)


def _polarity(placed: Placed, ohm: float) -> Shown:
    """Line joined to earth, then line to neutral, at the board: each time the joined pair reads, and no other."""
    if ohm == inf and not placed.links():
        return nothing("No loop shows at any terminal.")
    house, of = placed.house, placed.subject
    for joined in ("LE", "LN"):
        links = (placed.joined(*joined),)
        reads = {
            pair
            for pair in ("LN", "LE", "NE")
            if house.dead_ohm(of, house.node(of, pair[0], far=True), house.node(of, pair[1], far=True), links)
            <= CONTINUITY_TOP_OHM
        }
        if not reads:
            return nothing("No loop shows at any terminal.")
        if reads != {joined}:
            return seen(StepKey.POLARITY_DEAD, Sight.WRONG)
    return seen(StepKey.POLARITY_DEAD, Sight.RIGHT)


def _insulation(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    """Insulation between two groups of conductors; nothing where copper joins them."""
    if Point.UNIT_E in (*placed.first, *placed.last):
        mohm = (
            0.0
            if tester.house.has(lambda built: built.joins_earths) or placed.first == placed.last
            else EARTHS_APART_MOHM
        )
        return tester.shown(mohm, 0.1, INSULATION_TOP_MOHM)
    one, other = placed.sides()
    joined = set(LINKED.get(placed.setup.linked, ()))
    same = bool(one & other) or (bool(joined & one) and bool(joined & other))
    mohm = 0.0 if same else placed.house.insulation_mohm(placed.subject, sorted(one), sorted(other))
    return tester.shown(mohm, 0.01, INSULATION_TOP_MOHM)


def _volts_between(tester: TestSet, placed: Placed, a: Point, b: Point) -> float:
    """The volts between two points with the supply on [V]; a PEN that is broken sags with the house's own load."""
    at = {placed.house.potential(placed.node(one)) for one in (a, b)}
    if at in ({Potential.LINE, Potential.NEUTRAL}, {Potential.LINE, Potential.EARTH}):
        lost = tester.house.size(lambda built: built.sags)
        return tester.u0_v * RESTING_LOAD_OHM / (RESTING_LOAD_OHM + lost)
    return 0.4 if at == {Potential.NEUTRAL, Potential.EARTH} else 0.0


def _voltage(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    """Volts between the first lead and each other one; a step that asks for them all is right where each is."""
    leads = placed.setup.leads
    first, others = next(iter(leads)), list(leads)[1:]
    pairs = [(first, one) for one in others] + ([(others[0], others[1])] if len(others) > 1 else [])
    read = {
        f"{a}–{b}": tester.shown(_volts_between(tester, placed, leads[a][0], leads[b][0]), 0.1).value or 0.0
        for a, b in pairs
    }
    told = ", ".join(f"{name} {volts:g} V" for name, volts in read.items())
    low, high = (share * tester.u0_v for share in STATUTORY)
    figures = list(read.values())
    to_neutral_and_earth, between = figures[: len(others)], figures[len(others) :]
    right = all(low <= one <= high for one in to_neutral_and_earth) and all(one < NEXT_TO_NOTHING_V for one in between)
    return Shown(Outcome.RIGHT if right else Outcome.WRONG, words=told)


def _live_pair(tester: TestSet, placed: Placed) -> Shown | None:
    """Why a tester that loads the supply shows nothing here, if it does not."""
    a, b = placed.pair
    if placed.house.potential(a) is not Potential.LINE:
        return nothing("No line at the L lead.")
    if placed.house.potential(b) is Potential.LINE:
        return nothing("No volts between L and E.")
    return None


def _behind_rcd(placed: Placed) -> bool:
    """Whether an RCD stands before the points."""
    before = placed.first[0] in (Point.SUPPLY_L, Point.MAIN_L)
    return not before and any(guard.rcd is not None for guard in placed.house.case.guards)


def _loop(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    refused = _live_pair(tester, placed)
    if refused is not None:
        return refused
    to_neutral = placed.house.potential(placed.pair[1]) is Potential.NEUTRAL
    if asked.trips and _behind_rcd(placed) and not to_neutral:
        return nothing("The RCD opened: no reading.")
    off = Point.SUPPLY_E in placed.last
    ohm = placed.house.loop_ohm(*placed.pair, without_earths=off)
    if asked.shows is Shows.FAULT_CURRENT:
        return tester.shown(tester.u0_v / ohm / 1000, 0.01)
    return tester.shown(ohm, 0.01, LOOP_TOP_OHM)


def _electrode(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    """Fall of potential: what hangs on E is read. Potential and current spike changed over read the same at 62 %."""
    leads = [set(at) for at in placed.setup.leads.values()]
    if leads[0] | leads[-1] <= {Point.ROD} or any(len(one) != 1 for one in leads):
        return nothing("No current: the spikes are not connected.")
    on_e = next(iter(leads[0]))
    ohm = electrode_ohm(tester.house) if on_e is Point.ROD else SPIKE_OHM
    return tester.shown(ohm, 0.1, LOOP_TOP_OHM)


def _rcd(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    """The time of an RCD. It sees a fault from line to earth behind it; a Type AC does not see pulses."""
    refused = _live_pair(tester, placed)
    if refused is not None:
        return refused
    step, house = placed.step, placed.house
    fault_flows = (
        house.potential(placed.pair[1]) is Potential.EARTH
        and house.loop_ohm(*placed.pair) < LOOP_TOP_OHM
        and Point.SUPPLY_L not in placed.first
    )
    guard = tested_rcds(house.case.run, step.step).get(step.subject)
    own = guard in house.case.run.own_rcds
    blind = own and asked.pulses and house.has(lambda built: built.rcd == "blind")
    if asked.multiple < 1:
        return seen(step.step, Sight.RIGHT)
    if not fault_flows or blind or (own and house.has(lambda built: built.rcd == "dead")):
        return Shown(Outcome.OVER_RANGE, RCD_TOP_MS)
    delayed = guard is not None and guard.rcd is not None and guard.rcd.time_delayed
    slowly, fast = (tester.delayed_ms, tester.delayed_fast_ms) if delayed else (tester.rcd_ms, tester.fast_ms)
    usual = slowly if asked.multiple < 5 else fast
    slow = house.size(lambda built: built.rcd == "slow") if own else 0.0
    return tester.shown(slow / (1 if asked.multiple < 5 else 5) or usual, 0.1, RCD_TOP_MS)


def _dc_rising(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    refused = _live_pair(tester, placed)
    return refused or seen(
        StepKey.DC_DETECTION, Sight.WRONG if tester.house.wrong_at(StepKey.DC_DETECTION) else Sight.RIGHT
    )


def _rotation(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    """Two leads changed over turn it round, as two lines do."""
    order = [at[0] for at in placed.setup.leads.values()]
    changed = sum(order.index(one) > order.index(other) for one, other in ROTATION_PAIRS if {one, other} <= set(order))
    turned = (changed % 2 == 1) != tester.house.has(lambda built: built.turned)
    return seen(StepKey.PHASE_SEQUENCE, Sight.WRONG if turned else Sight.RIGHT)


ROTATION_PAIRS = (
    (Point.PLUG_L, Point.PLUG_L2), (Point.PLUG_L, Point.PLUG_L3), (Point.PLUG_L2, Point.PLUG_L3),
)  # fmt: skip


def _pilot(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    """The pilot's volts in the state that the adapter stands for."""
    if {*placed.first, *placed.last} != {Point.PLUG_CP, Point.PLUG_E}:
        return nothing("No pilot between these.")
    if placed.setup.adapter not in tuple(PilotState):
        return nothing("No steady figure in this position.")
    state = PilotState(placed.setup.adapter)
    if state is PilotState.A and tester.house.wrong_at(StepKey.PILOT_A):
        return seen(StepKey.PILOT_A, Sight.WRONG)
    return tester.shown(NOMINAL_V[state], 0.1)


def _duty(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    """What the unit offers once a car is there."""
    if {*placed.first, *placed.last} != {Point.PLUG_CP, Point.PLUG_E}:
        return nothing("No pilot between these.")
    if placed.setup.adapter not in ("B", "C"):
        return nothing("No duty: without a car the pilot stands still.")
    current_a = tester.house.case.run.charge_point.design_current_a() * tester.house.size(
        lambda built: built.set_times, 1.0
    )
    return Shown(Outcome.MEASURED, round(duty_of(current_a) + tester.chance.uniform(-0.4, 0.4), 1))


def _proximity(tester: TestSet, placed: Placed, asked: Dial) -> Shown:
    if {*placed.first, *placed.last} != {Point.PLUG_PP, Point.PLUG_E}:
        return nothing("No code between these.")
    needed_a = (
        inf if tester.house.has(lambda built: built.coded) else placed.house.case.run.charge_point.design_current_a()
    )
    return tester.shown(least_code(needed_a)[1], 1.0)


SHOWS: dict[Shows, Callable[[TestSet, Placed, Dial], Shown]] = {
    Shows.RESISTANCE: _resistance,
    Shows.INSULATION: _insulation,
    Shows.VOLTAGE: _voltage,
    Shows.LOOP: _loop,
    Shows.FAULT_CURRENT: _loop,
    Shows.RCD: _rcd,
    Shows.DC_RISING: _dc_rising,
    Shows.ROTATION: _rotation,
    Shows.ELECTRODE: _electrode,
    Shows.PILOT: _pilot,
    Shows.DUTY: _duty,
    Shows.PROXIMITY: _proximity,
}
