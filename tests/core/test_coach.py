"""The coach's order keeps every rank and hold, is never longer than the book's, and is the best where all can be tried."""

import unittest
from itertools import permutations

from fulmen.core.model.readings import StepKey
from fulmen.core.model.testing import MoveSeconds
from fulmen.core.verification.steps.coach import CoachPlan, MoveKind, book_order, coach, must_precede, told_moves
from fulmen.core.verification.steps.sequence import Step
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, GARAGE, THREE_PHASE, TWO_BEHIND_ONE, evaluation

USUAL = MoveSeconds()
# A handful of steps whose every order can be tried.
FEW = (StepKey.LEADS_NULLED, StepKey.EARTHING_CONDUCTOR, StepKey.R1_R2, StepKey.R1_RN, StepKey.IR_LINE_NEUTRAL,
       StepKey.IR_LIVE_EARTH, StepKey.POLARITY_DEAD)  # fmt: skip
FEW_LIVE = (StepKey.ZS, StepKey.RCD_TRIP, StepKey.DC_DETECTION, StepKey.PILOT_A, StepKey.PILOT_C, StepKey.RCD_BUTTON)


def listed(name: str) -> list[Step]:
    return [one for one in evaluation(name).steps if one.offered_with is None or one.required or one.reading]


def keys(plan: CoachPlan) -> list[tuple[str, str]]:
    return [(one.step, one.subject) for one in plan.steps]


def kept(order: list[Step]) -> bool:
    """Whether no step stands before one that must precede it."""
    return not any(must_precede(then, first) for at, first in enumerate(order) for then in order[at + 1 :])


class Order(unittest.TestCase):
    def test_every_rank_and_hold_is_kept_on_every_demo_job(self) -> None:
        for path in EXAMPLES.glob("*.json"):
            steps = {(one.step.value, one.subject): one for one in listed(path.stem)}
            plan = coach(list(steps.values()), USUAL)
            with self.subTest(path.stem):
                self.assertEqual(sorted(keys(plan)), sorted(steps))
                self.assertTrue(kept([steps[key] for key in keys(plan)]))
                self.assertTrue(kept(book_order(list(steps.values()))))
                self.assertLessEqual(plan.coached.duration_s, plan.book.duration_s)

    def test_isolation_is_signed_first_and_nothing_live_comes_before_the_second_hold(self) -> None:
        for name in (DEVICE_IN_UNIT, GARAGE, THREE_PHASE):
            plan = coach(listed(name), USUAL)
            order = [one.step for one in plan.steps]
            hold = order.index(StepKey.SAFE_TO_ENERGISE)
            self.assertEqual(order[0], StepKey.ISOLATED)
            stages = {(one.step, one.subject): one.stage for one in listed(name)}
            self.assertTrue(all(stages[one.step, one.subject] == "dead" for one in plan.steps[:hold]))
            self.assertTrue(all(stages[one.step, one.subject] == "live" for one in plan.steps[hold + 1 :]))

    def test_dead_tests_are_not_mixed_up_on_one_circuit(self) -> None:
        steps = {(one.step, one.subject): one for one in listed(GARAGE)}
        ranks = [
            steps[one.step, one.subject].rank for one in coach(list(steps.values()), USUAL).steps if one.subject == "ev"
        ]
        self.assertEqual(ranks, sorted(ranks))


class Shortest(unittest.TestCase):
    def best(self, steps: list[Step]) -> float:
        """By trying every order that is allowed."""
        found = []
        for order in permutations(steps):
            if kept(list(order)):
                found.append(sum(each.duration_s for one in told_moves(order, USUAL) for each in one.moves))
        return min(found)

    def test_none_is_shorter_where_all_can_be_tried(self) -> None:
        for few in (FEW, FEW_LIVE):
            steps = [one for one in listed(DEVICE_IN_UNIT) if one.step in few]
            self.assertEqual(len(steps), len(few))
            self.assertAlmostEqual(coach(steps, USUAL).coached.duration_s, self.best(steps))

    def test_two_units_save_walks(self) -> None:
        for name in (THREE_PHASE, TWO_BEHIND_ONE, GARAGE):
            plan = coach(listed(name), USUAL)
            self.assertLess(plan.coached.walks, plan.book.walks)

    def test_the_persons_own_seconds_count(self) -> None:
        free_walks = coach(listed(THREE_PHASE), USUAL.model_copy(update={"walk_s": 0.0}))
        self.assertLessEqual(free_walks.coached.duration_s, coach(listed(THREE_PHASE), USUAL).coached.duration_s)
        self.assertEqual(
            coach(listed(GARAGE), MoveSeconds(lead_s=0, dial_s=0, adapter_s=0, walk_s=0)).coached.duration_s, 0
        )


class Told(unittest.TestCase):
    def test_the_moves_told_are_those_that_were_counted(self) -> None:
        for name in (DEVICE_IN_UNIT, GARAGE, TWO_BEHIND_ONE):
            plan = coach(listed(name), USUAL)
            told = [move for one in plan.steps for move in one.moves]
            counted = (plan.coached.leads, plan.coached.dials, plan.coached.adapters, plan.coached.walks)
            kinds = ((MoveKind.LEAD, MoveKind.LINK), (MoveKind.DIAL,), (MoveKind.ADAPTER,), (MoveKind.WALK,))
            with self.subTest(name):
                self.assertEqual(tuple(sum(one.kind in kind for one in told) for kind in kinds), counted)
                self.assertAlmostEqual(sum(one.duration_s for one in told), plan.coached.duration_s)

    def test_a_lead_that_stays_is_not_told(self) -> None:
        """R1+R2 and then R1+Rn: the link and one lead move, the other stays on the line."""
        steps = [one for one in listed(DEVICE_IN_UNIT) if one.step in (StepKey.R1_R2, StepKey.R1_RN)]
        moves = [
            move.words for move in coach(steps, USUAL).steps[1].moves if move.kind in (MoveKind.LEAD, MoveKind.LINK)
        ]
        self.assertEqual(len(moves), 2)
        self.assertNotIn("Lead 1 to line", moves)


if __name__ == "__main__":
    unittest.main()
