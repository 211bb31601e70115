"""What the simulated set shows when it stands otherwise than the step asks: a wrong lead gives what a wrong lead gives.

Each expectation is a fact of the trade or of the circuit (Kirchhoff); common practice, no other source.
"""

import unittest
from typing import Any

from fulmen.core.circuit.run_figures import Case, cases_of
from fulmen.core.judging.known import known_for
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.simulations.as_built.as_installed import AsInstalled, Potential, as_installed
from fulmen.core.simulations.as_built.set_up import Setup, Shown
from fulmen.core.simulations.as_built.simulated_set import TestSet
from fulmen.core.verification.faults.faults import Fault
from fulmen.core.verification.instruments.dials import Link, Point, dials
from fulmen.core.verification.steps.sequence import Step, sequence
from fulmen.core.verification.steps.steps import definitions
from tests.jobs import DEVICE_IN_UNIT, GARAGE, RULES, THREE_PHASE, TT, job

P = Point
NOTHING, OVER = Outcome.COULD_NOT_TEST, Outcome.OVER_RANGE


def house_of(name: str = DEVICE_IN_UNIT, *faults: Fault) -> tuple[AsInstalled, list[Step]]:
    whole = job(name, {"readings": []})
    cases = cases_of(known_for(whole, RULES))
    case: Case = cases[0]
    return as_installed(case, faults, ze_ohm=0.2), sequence(cases, whole.readings)


def shown(key: StepKey, name: str = DEVICE_IN_UNIT, *faults: Fault, subject: str = "", **changed: Any) -> Shown:
    """What a step shows with some of its set-up changed."""
    house, steps = house_of(name, *faults)
    step = next(one for one in steps if one.step is key and subject in ("", one.subject))
    asked = Setup.of(step)
    return TestSet(house, 3).show(step, Setup(**{**vars(asked), **changed}))


class WrongLeads(unittest.TestCase):
    def test_dead(self) -> None:
        right = shown(StepKey.R1_R2).value
        assert right is not None
        self.assertLess(right, 1.0)
        cases: tuple[tuple[StepKey, dict[str, Any], Outcome, float | None], ...] = (
            # Without the link nothing leads from line to earth.
            (StepKey.R1_R2, {"linked": Link.NONE}, OVER, 19.99),
            # Linked to the neutral, line to earth is open.
            (StepKey.R1_R2, {"linked": Link.LINE_NEUTRAL}, OVER, 19.99),
            # Both leads on one terminal, or the wrong range: nothing is read.
            (StepKey.R1_R2, {"leads": {"1": (P.FAR_E,), "2": (P.FAR_E,)}}, Outcome.MEASURED, 0.0),
            (StepKey.R1_R2, {"leads": {"1": (P.FAR_L,), "2": ()}}, NOTHING, None),
            (StepKey.R1_R2, {"dial": "insulation_500"}, Outcome.MEASURED, 0.0),
            # The link left in: an insulation test of nothing but the link.
            (StepKey.IR_LIVE_EARTH, {"linked": Link.LINE_EARTH}, Outcome.MEASURED, 0.0),
            # Insulation with the ohm range: far past its top.
            (StepKey.IR_LIVE_EARTH, {"dial": "low_ohms"}, OVER, 19.99),
        )
        for key, changed, outcome, value in cases:
            with self.subTest(key, **changed):
                found = shown(key, **changed)
                self.assertEqual((found.outcome, found.value), (outcome, value), found.words)

    def test_earthing_conductor_on_is_read_with_everything_in_parallel(self) -> None:
        off = shown(StepKey.ZE).value
        on = shown(StepKey.ZE, leads={"L": (P.SUPPLY_L,), "N": (P.SUPPLY_N,), "E": (P.MET,)}).value
        assert off is not None and on is not None
        self.assertAlmostEqual(on, off, delta=0.02)

    def test_live(self) -> None:
        on_plug = {"L": (P.PLUG_L,), "N": (P.PLUG_N,), "E": (P.PLUG_E,)}
        cases: tuple[tuple[StepKey, dict[str, Any], Outcome], ...] = (
            # The L lead on neutral: the tester sees no line.
            (StepKey.ZS, {"leads": {**on_plug, "L": (P.PLUG_N,), "N": (P.PLUG_L,)}}, NOTHING),
            # A range that loads the circuit opens the RCD before it.
            (StepKey.ZS, {"dial": "loop_high"}, NOTHING),
            # The E lead on neutral: nothing flows to earth, so nothing opens.
            (StepKey.RCD_TRIP, {"leads": {**on_plug, "E": (P.PLUG_N,)}}, OVER),
            # Before the RCD it does not see the fault.
            (StepKey.RCD_TRIP, {"leads": {"L": (P.SUPPLY_L,), "N": (P.SUPPLY_N,), "E": (P.MET,)}}, OVER),
            # Half its current does not open it.
            (StepKey.RCD_TRIP, {"dial": "rcd_half_ac_0"}, Outcome.RIGHT),
            (StepKey.PILOT_B, {"leads": {"1": (P.PLUG_PP,), "2": (P.PLUG_E,)}}, NOTHING),
            (StepKey.PILOT_DUTY, {"adapter": "A"}, NOTHING),
            (StepKey.DIODE, {"adapter": "C"}, NOTHING),
        )
        for key, changed, outcome in cases:
            with self.subTest(key, **changed):
                self.assertIs(shown(key, **changed).outcome, outcome)

    def test_a_figure_of_another_setting(self) -> None:
        fast, usual = (shown(StepKey.RCD_TRIP, dial=one).value or 0.0 for one in ("rcd_5", "rcd_1"))
        self.assertLess(fast, usual)
        self.assertAlmostEqual(shown(StepKey.PILOT_B, adapter="C").value or 0.0, 6.0, delta=0.3)
        # Between line and neutral a loop tester reads the other loop.
        to_neutral = shown(StepKey.ZS, leads={"L": (P.PLUG_L,), "N": (P.PLUG_N,), "E": (P.PLUG_N,)})
        self.assertIs(to_neutral.outcome, Outcome.MEASURED)

    def test_electrode(self) -> None:
        """At 62 % the potential spike may change places with the current one (its symmetry); the rod may not."""
        rod = {"E": (P.ROD,), "P": (P.SPIKE_P,), "C": (P.SPIKE_C,)}
        right = shown(StepKey.ELECTRODE, TT).value
        changed = shown(StepKey.ELECTRODE, TT, leads={**rod, "P": (P.SPIKE_C,), "C": (P.SPIKE_P,)}).value
        spike = shown(StepKey.ELECTRODE, TT, leads={**rod, "E": (P.SPIKE_C,), "C": (P.ROD,)}).value
        self.assertEqual(right, changed)
        self.assertNotAlmostEqual(right or 0.0, spike or 0.0, delta=5)

    def test_rotation(self) -> None:
        turned = {"1": (P.PLUG_L2,), "2": (P.PLUG_L,), "3": (P.PLUG_L3,)}
        round_again = {"1": (P.PLUG_L2,), "2": (P.PLUG_L3,), "3": (P.PLUG_L,)}
        swapped = Fault("lines_swapped", 1)
        for faults, changed, outcome in (
            ((), {}, Outcome.RIGHT),
            ((), {"leads": turned}, Outcome.WRONG),
            ((), {"leads": round_again}, Outcome.RIGHT),
            ((swapped,), {}, Outcome.WRONG),
            ((swapped,), {"leads": turned}, Outcome.RIGHT),
        ):
            with self.subTest(faults=len(faults), **changed):
                self.assertIs(shown(StepKey.PHASE_SEQUENCE, THREE_PHASE, *faults, **changed).outcome, outcome)


class Potentials(unittest.TestCase):
    def test_crossed_on_a_sub_main_crosses_everything_behind_it(self) -> None:
        house, _ = house_of(GARAGE, Fault("line_neutral_crossed", 1, "sub-main"))
        for node, at in (
            ("sub-main.L0", Potential.LINE), ("sub-main.N1", Potential.LINE), ("ev.N1", Potential.LINE),
            ("ev.L1", Potential.NEUTRAL), ("plug.N", Potential.LINE), ("plug.E", Potential.EARTH),
        ):  # fmt: skip
            with self.subTest(node):
                self.assertIs(house.potential(node), at)

    def test_no_earth_leaves_the_case_free(self) -> None:
        house, _ = house_of(DEVICE_IN_UNIT, Fault("no_earth", 1))
        self.assertIs(house.potential("plug.E"), Potential.FREE)

    def test_a_broken_pen_sags(self) -> None:
        volts = shown(StepKey.POLARITY_LIVE, DEVICE_IN_UNIT, Fault("broken_pen", 40))
        self.assertIs(volts.outcome, Outcome.WRONG)
        self.assertIs(shown(StepKey.POLARITY_LIVE).outcome, Outcome.RIGHT)


class Noise(unittest.TestCase):
    def test_within_the_operating_error_of_iec_61557(self) -> None:
        """IEC 61557-2, -3 and -4 allow 30 % of a reading (from memory); below a tenth of an ohm a digit is most of it."""
        house, steps = house_of()
        final = house.final
        linked = (f"{final}.L0", f"{final}.E0")
        truths = {
            StepKey.R1_R2: house.dead_ohm(final, f"{final}.L1", f"{final}.E1", (linked,)),
            StepKey.ZE: house.loop_ohm("supply.L", "supply.E", without_earths=True),
            StepKey.ZS: house.loop_ohm("plug.L", "plug.E"),
        }
        for step in (one for one in steps if one.step in truths):
            truth = truths[step.step]
            for seed in range(200):
                read = TestSet(house, seed).read(step).value
                assert read is not None
                with self.subTest(step.step, seed=seed):
                    self.assertLessEqual(abs(read - truth), 0.3 * truth)

    def test_seeded(self) -> None:
        house, steps = house_of()
        once, again, other = ([TestSet(house, seed).read(one) for one in steps if one.leads] for seed in (1, 1, 2))
        self.assertEqual(once, again)
        self.assertNotEqual(once, other)


class Data(unittest.TestCase):
    def test_every_setting_is_one_of_the_steps_or_a_wrong_one_on_purpose(self) -> None:
        asked = {one.dial.key for one in definitions()}
        self.assertEqual(set(dials()) - asked, {"insulation_250", "insulation_1000"})

    def test_every_step_reads_with_its_own_set_up(self) -> None:
        """As it is asked for, every step shows a figure or is right in a sound house."""
        for name in (DEVICE_IN_UNIT, TT, GARAGE, THREE_PHASE):
            house, steps = house_of(name)
            for step in steps:
                if step.kind == "hold" or step.circuit not in (*house.conductors, "origin"):
                    continue
                with self.subTest(name, step=step.step, subject=step.subject):
                    found = TestSet(house, 1).read(step)
                    self.assertNotIn(found.outcome, (NOTHING, Outcome.WRONG), found.words)


if __name__ == "__main__":
    unittest.main()
