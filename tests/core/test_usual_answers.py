"""What a firm takes as usual: it answers only what nobody has said, and says that it did."""

import unittest
from typing import Any

from fulmen.core.editing.changes import apply_changes
from fulmen.core.editing.usual_answers import UsualAnswers, usual_changes
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.job import Job
from fulmen.core.model.known_how import KnownHow
from tests.jobs import DEVICE_IN_UNIT, RULES, job

ROUTE = "circuits.0.route"
USUAL = UsualAnswers(grouped_circuits=1, insulation_mm=0.0, under_drive=False, concealed_under_50_mm=False)


def unsaid(**more: Any) -> Job:
    names = {"grouped_circuits": range(5), "insulation_mm": (0, 1), "under_drive": (3,), "concealed_under_50_mm": (0,)}
    changes = {f"{ROUTE}.{place}.{name}": None for name, places in names.items() for place in places}
    return job(DEVICE_IN_UNIT, changes | {"decisions": [], **more})


class Usual(unittest.TestCase):
    def test_every_open_fact_waits_and_is_answered(self) -> None:
        made = unsaid()
        before = evaluate(made, RULES)
        self.assertEqual(len(before.unsaid), 9)
        self.assertIs(next(one for one in before.findings if one.rule == "weakest_section").verdict, Verdict.NEEDS)
        taken = apply_changes(made, usual_changes(made, USUAL))
        self.assertEqual(evaluate(taken, RULES).unsaid, ())
        self.assertEqual(taken.circuits, job(DEVICE_IN_UNIT).circuits)

    def test_it_says_that_it_was_taken_as_usual(self) -> None:
        made = unsaid()
        taken = apply_changes(made, usual_changes(made, USUAL))
        self.assertEqual(taken.known_how[f"{ROUTE}.insulation_mm"], KnownHow.TAKEN_AS_USUAL)
        self.assertEqual(len(taken.known_how), 4)

    def test_what_was_said_is_left_alone_and_what_has_no_usual_answer_stays_open(self) -> None:
        made = unsaid(**{f"{ROUTE}.2.grouped_circuits": 4})
        taken = apply_changes(made, usual_changes(made, UsualAnswers(grouped_circuits=2)))
        self.assertEqual([one.grouped_circuits for one in taken.circuits[0].route], [2, 2, 4, 2, 2])
        self.assertIn(f"{ROUTE}.0.insulation_mm", evaluate(taken, RULES).unsaid)
        self.assertEqual(usual_changes(made, UsualAnswers()), ())
        self.assertEqual(usual_changes(job(DEVICE_IN_UNIT), USUAL), ())
