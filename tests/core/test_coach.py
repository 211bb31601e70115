"""The coach's order keeps every rank and hold, is true to the hand, is never longer than the book's, and is the best where
all can be tried."""

import unittest
from dataclasses import replace
from itertools import permutations, product

from fulmen.core.circuit.run_figures import cases_of
from fulmen.core.installation.installation import installation_of
from fulmen.core.judging.known import known_for
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.simulations.as_built.as_installed import as_installed
from fulmen.core.simulations.as_built.simulated_set import TestSet
from fulmen.core.so_far import finished
from fulmen.core.verification.steps.coach import CoachPlan, book_order, coach, coaching, effort, made_for, must_precede
from fulmen.core.verification.steps.moves import Act, MoveKind, Setup, acts, put_back, seconds, wants
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.site_map import SiteMap, site_map
from tests.core.test_earth_readings import ISLAND
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, GARAGE, RULES, THREE_PHASE, TWO_BEHIND_ONE, evaluation, job

# A handful of steps whose every order can be tried.
FEW = (StepKey.LEADS_NULLED, StepKey.EARTHING_CONDUCTOR, StepKey.R1_R2, StepKey.R1_RN, StepKey.IR_LINE_NEUTRAL,
       StepKey.POLARITY_DEAD, StepKey.CONNECTOR_EARTH)  # fmt: skip
FEW_LIVE = (StepKey.ZE, StepKey.ZS, StepKey.RCD_TRIP, StepKey.DC_DETECTION, StepKey.PILOT_A, StepKey.RCD_BUTTON)


def listed(name: str) -> list[Step]:
    return [one for one in evaluation(name).steps if one.offered_with is None or one.required or one.reading]


def site(name: str) -> SiteMap:
    return site_map(installation_of(job(name)))


def order_of(name: str, plan: CoachPlan) -> list[Step]:
    steps = {(one.step, one.subject): one for one in listed(name)}
    return [steps[one.step, one.subject] for one in plan.steps]


def kept(order: list[Step], where: SiteMap) -> bool:
    """Whether no step stands before one that must precede it."""
    return not any(must_precede(then, first, where) for at, first in enumerate(order) for then in order[at + 1 :])


PLANS = {path.stem: coach(listed(path.stem), site(path.stem)) for path in sorted(EXAMPLES.glob("*.json"))}


class Island(unittest.TestCase):
    def test_a_unit_is_opened_with_everything_off_and_switched_on_open_for_its_cables_loop(self) -> None:
        steps = [one for one in evaluation(DEVICE_IN_UNIT, ISLAND).steps if one.offered_with is None or one.required]
        where, setup = site(DEVICE_IN_UNIT), Setup()
        self.assertIn(StepKey.ZS_CABLE, [one.step for one in steps])
        by_key = {(one.step, one.subject): one for one in steps}
        for one in coach(steps, where).steps:
            setup, made = acts(setup, wants(by_key[one.step, one.subject], where), where)
            if one.step is StepKey.ZS_CABLE:
                self.assertTrue(setup.main_on and setup.opened)
                done = [(act.kind, act.what) for act in made]
                self.assertLess(done.index((MoveKind.UNIT, "open")), done.index((MoveKind.SWITCH, "on")))


class Order(unittest.TestCase):
    def test_every_rank_and_hold_is_kept_on_every_demo_job(self) -> None:
        for name, plan in PLANS.items():
            order, where = order_of(name, plan), site(name)
            with self.subTest(name):
                self.assertEqual(len(order), len(listed(name)))
                self.assertTrue(kept(order, where))
                self.assertTrue(kept(book_order(listed(name), where), where))
                self.assertLessEqual(plan.coached.duration_s, plan.book.duration_s)

    def test_isolation_is_signed_first_and_nothing_live_comes_before_the_second_hold(self) -> None:
        for name, plan in PLANS.items():
            order = order_of(name, plan)
            hold = [one.step for one in order].index(StepKey.SAFE_TO_ENERGISE)
            with self.subTest(name):
                self.assertEqual(order[0].step, StepKey.ISOLATED)
                self.assertEqual({one.stage for one in order[:hold]}, {"dead"})
                self.assertEqual({one.stage for one in order[hold + 1 :]}, {"live"})

    def test_a_sub_main_is_proven_before_what_it_feeds_is_switched_on(self) -> None:
        for name in (GARAGE, THREE_PHASE, TWO_BEHIND_ONE):
            live = [one for one in order_of(name, PLANS[name]) if one.stage == "live"]
            proven = next(at for at, one in enumerate(live) if one.step is StepKey.ZS and one.circuit == "sub-main")
            before = [one for one in live[:proven] if "sub-main" in site(name).before(one.circuit)]
            with self.subTest(name):
                self.assertEqual(before, [])

    def test_states_go_as_a_person_would_choose(self) -> None:
        """Nobody, a car, charging, then each fault, the fan last."""
        for name, plan in PLANS.items():
            for circuit in {one.circuit for one in order_of(name, plan)}:
                keys = [one.step for one in order_of(name, plan) if one.circuit == circuit]
                if StepKey.PILOT_A not in keys:
                    continue
                places = [keys.index(one) for one in (StepKey.PILOT_A, StepKey.PILOT_B, StepKey.PILOT_C, StepKey.DIODE, StepKey.PILOT_D)]  # fmt: skip
                with self.subTest(name, circuit=circuit):
                    self.assertEqual(places, sorted(places))


def states(name: str, order: list[Step]) -> list[tuple[Step, Setup, list[Act]]]:
    """How things stand at each step, and the moves before it."""
    where, setup, found = site(name), Setup(), []
    for step in order:
        setup, made = acts(setup, wants(step, where), where)
        found.append((step, setup, made))
    return found


class Hand(unittest.TestCase):
    """Whoever does the moves in their order never finds something as it can't be."""

    def every(self) -> list[tuple[str, list[tuple[Step, Setup, list[Act]]]]]:
        found = []
        for name, plan in PLANS.items():
            for order in (order_of(name, plan), book_order(listed(name), site(name))):
                found.append((name, states(name, order)))
        return found

    def test_nothing_is_on_with_the_earth_off_a_link_in_or_a_unit_open(self) -> None:
        for name, walked in self.every():
            for step, setup, _ in walked:
                with self.subTest(name, step=step.step):
                    if setup.main_on:
                        self.assertFalse(setup.earth_off or setup.link)
                        # But for the cable's own loop of an island, which is read at the unit's bare terminals.
                        self.assertEqual(bool(setup.opened), step.step is StepKey.ZS_CABLE)
                    if step.step is StepKey.SAFE_TO_ENERGISE:
                        self.assertEqual(
                            (setup.link, setup.opened, setup.earth_off, setup.main_on),
                            (None, frozenset(), False, False),
                        )

    def test_insulation_and_long_leads_meet_no_link(self) -> None:
        for name, walked in self.every():
            for step, setup, _ in walked:
                if step.step.startswith("ir_") and step.step is not StepKey.IR_EARTHS:
                    self.assertIsNone(setup.link, (name, step.step))
                if step.links:
                    self.assertEqual(setup.link, (step.links, step.linked_at))

    def test_links_in_come_out_and_what_tripped_is_set_again_where_it_stands(self) -> None:
        for name, walked in self.every():
            made = [one for _, _, some in walked for one in some] + put_back(walked[-1][1], site(name))[1]
            count = lambda kind, what, made=made: sum(one.kind is kind and one.what == what for one in made)  # noqa: E731
            trips = sum(bool(wants(step, site(name)).trips_at) for step, _, _ in walked)
            with self.subTest(name):
                self.assertEqual(count(MoveKind.LINK, "in"), count(MoveKind.LINK, "out"))
                self.assertEqual(count(MoveKind.EARTH, "off"), count(MoveKind.EARTH, "on"))
                self.assertEqual(count(MoveKind.UNIT, "open"), count(MoveKind.UNIT, "close"))
                self.assertGreaterEqual(count(MoveKind.RESET, "rcd"), min(1, trips))

    def test_each_fault_is_tried_from_state_c_after_a_reset(self) -> None:
        for name, walked in self.every():
            latched = False
            for step, _, made in walked:
                if latched and step.adapter:
                    self.assertIn("latch", [one.what for one in made], (name, step.step))
                    latched = False
                if step.step in (StepKey.DIODE, StepKey.EARTH_OPEN, StepKey.PILOT_SHORTED):
                    turned = [one.to for one in made if one.kind is MoveKind.ADAPTER]
                    self.assertEqual(turned[-1], step.adapter)
                latched = latched or step.step in (StepKey.DIODE, StepKey.EARTH_OPEN, StepKey.PILOT_SHORTED)

    def test_tails_are_no_walk_and_a_longer_way_takes_longer(self) -> None:
        where = site(DEVICE_IN_UNIT)
        metres = where.metres("origin", "board")
        self.assertLess(metres, seconds()["reach_m"])
        walks = [
            one
            for some in made_for(order_of(DEVICE_IN_UNIT, PLANS[DEVICE_IN_UNIT]), where)
            for one in some
            if one.kind is MoveKind.WALK
        ]
        self.assertTrue(all(one.duration_s > seconds()["walk_begins"] + 3 * seconds()["walk_a_metre"] for one in walks))

    def test_places_go_by_their_own_names(self) -> None:
        words = {move.words for one in PLANS[GARAGE].steps for move in one.moves}
        self.assertIn("Go to Garage board", words)
        self.assertIn("Open Charge point", words)


class Shortest(unittest.TestCase):
    def test_none_is_shorter_where_all_can_be_tried(self) -> None:
        where = site(DEVICE_IN_UNIT)
        for few in (FEW, FEW_LIVE):
            steps = [one for one in listed(DEVICE_IN_UNIT) if one.step in few]
            self.assertEqual(len(steps), len(few))
            best = min(effort(order, where).duration_s for order in permutations(steps) if kept(list(order), where))
            self.assertLessEqual(coach(steps, where).coached.duration_s, best * 1.01)

    def test_ten_times_as_wide_saves_under_one_per_cent(self) -> None:
        for name in (DEVICE_IN_UNIT, GARAGE):
            wide = finished(coaching(listed(name), site(name), 2000))
            self.assertLess(PLANS[name].coached.duration_s, wide.coached.duration_s * 1.01)

    def test_two_units_save_walks(self) -> None:
        for name in (THREE_PHASE, TWO_BEHIND_ONE, GARAGE):
            self.assertLess(PLANS[name].coached.walks, PLANS[name].book.walks)

    def test_the_moves_told_are_those_that_were_counted(self) -> None:
        for name, plan in PLANS.items():
            told = [move for one in plan.steps for move in one.moves] + list(plan.put_back)
            with self.subTest(name):
                self.assertEqual(len(told), plan.coached.moves)
                self.assertAlmostEqual(sum(one.duration_s for one in told), plan.coached.duration_s)
                self.assertTrue(all(one.words for one in told))


class Crossed(unittest.TestCase):
    """Joined pair by pair, each crossing of two conductors shows; all three joined at once would hide it."""

    def test_each_crossing_of_two_conductors(self) -> None:
        for name, pair in product((DEVICE_IN_UNIT, GARAGE), ("", "LN", "LE", "NE")):
            case = cases_of(known_for(job(name, {"readings": []}), RULES))[0]
            house = as_installed(case)
            ends = {one: one for one in "LNE"}
            if pair:
                ends[pair[0]], ends[pair[1]] = pair[1], pair[0]
            crossed = tuple((a, f"{house.final}.{ends[b[-2]]}1" if b.startswith(f"{house.final}.") else b, ohm) for a, b, ohm in house.conductors[house.final])  # fmt: skip
            built = replace(house, parts={**house.parts, house.final: crossed})
            step = next(one for one in listed(name) if one.step is StepKey.POLARITY_DEAD and one.circuit == house.final)
            with self.subTest(name, pair=pair):
                self.assertEqual(TestSet(built, 1).read(step).outcome, Outcome.WRONG if pair else Outcome.RIGHT)


if __name__ == "__main__":
    unittest.main()
