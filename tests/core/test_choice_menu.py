"""Alternatives are whole evaluations: what each would do, and why not."""

import unittest

from fulmen.core.alternatives.choice_menu import CANDIDATES, Alternative, Change, alternatives, apply_changes
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.findings.finding import Verdict
from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, HALFWAY, RULES, TT, evaluation, job


def ways(choice: str, name: str = DEVICE_IN_UNIT) -> dict[str, Alternative]:
    found = alternatives(job(name), "ev", choice, RULES)  # type: ignore[arg-type]
    return {one.label: one for one in found}


class Alternatives(unittest.TestCase):
    def test_every_choice_marks_what_stands(self) -> None:
        for choice in CANDIDATES:
            for name in (DEVICE_IN_UNIT, TT, FALLS_SHORT):
                with self.subTest(choice=choice, name=name):
                    self.assertEqual(sum(one.chosen for one in ways(choice, name).values()), 1)

    def test_what_is_refused_says_why_and_stays_in_the_list(self) -> None:
        refused = ways("rcd")["a Type AC 30 mA RCBO at the board"]
        self.assertEqual(refused.verdict, Verdict.FALLS_SHORT)
        self.assertIn("Type AC", refused.why_not)
        self.assertEqual(ways("open_pen")["nothing"].verdict, Verdict.FALLS_SHORT)

    def test_why_not_a_smaller_cable_names_the_check_with_its_figure(self) -> None:
        self.assertIn("5.66 %, at most 5.00", ways("csa", FALLS_SHORT)["6 mm²"].why_not)
        self.assertEqual(ways("csa", FALLS_SHORT)["10 mm²"].verdict, Verdict.MEETS)

    def test_the_consequence_is_the_evaluation_of_the_changed_job(self) -> None:
        way = ways("csa", HALFWAY)["10 mm²"]
        changed = apply_changes(job(HALFWAY), way.changes)
        self.assertEqual(changed.circuits[0].cable.csa_mm2, 10)
        drop = next(
            one for one in evaluation(HALFWAY, {"circuits.0.cable.csa_mm2": 10.0}).findings if one.rule == "volt_drop"
        )
        self.assertIn(drop.figures(), way.consequence)

    def test_an_allowed_call_tells_its_question(self) -> None:
        way = ways("device", HALFWAY)["B 40 A"]
        self.assertEqual(way.verdict, Verdict.YOUR_CALL)
        self.assertIn("Say why", way.consequence)

    def test_no_such_circuit_or_field(self) -> None:
        with self.assertRaises(InputError):
            alternatives(job(), "shed", "csa", RULES)
        with self.assertRaises(JobFileError):
            apply_changes(job(), (Change(field="circuits.0.device.rating_a", value=33),))
