"""What a page needs to know beside the verdicts: what can be done about a finding, what is asked, whether a way is wanted.

A browser chooses by these and never by a rule's name or a verdict; a static test holds it to that.
"""

import unittest

from fulmen.core.alternatives.arrangements import Allowance, arrangement_options
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Stage, Verdict
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.run import VOLT_DROP
from tests.jobs import (
    ALL_ELECTRIC,
    AT_SURVEY,
    DEVICE_IN_UNIT,
    EXAMPLES,
    FALLS_SHORT,
    HALFWAY,
    RULES,
    TREATED_AS_PME,
    TT,
    evaluation,
    job,
)

TOLD = "supply.operator_told_of_ze"


class Offered(unittest.TestCase):
    def test_every_verdict_offers_what_can_be_done_about_it(self) -> None:
        asked = ask(VOLT_DROP, RULES, "ev")
        for found, offers, waits_for in (
            (asked.meets("so"), None, None),
            (asked.falls_short("so"), "remedies", None),
            (asked.your_call("so", basis={}), "reason", None),
            (asked.needs_fact("so"), None, "fact"),
            (asked.needs_reading("so"), None, "reading"),
            # A dead test is put right by hand: no change of the design mends a reading.
            (asked.shown_at(Stage.DEAD, named=False).falls_short("so"), None, None),
        ):
            with self.subTest(found.verdict):
                self.assertEqual((found.offers, found.waits_for), (offers, waits_for))

    def test_over_every_example(self) -> None:
        for path in sorted(EXAMPLES.glob("*.json")):
            for one in evaluation(path.stem).findings:
                with self.subTest(path.stem, finding=one.key):
                    self.assertEqual(one.waits_for is not None, one.verdict is Verdict.NEEDS)
                    self.assertEqual(one.offers == "reason", one.verdict is Verdict.YOUR_CALL)
                    self.assertEqual(
                        one.offers == "remedies", one.verdict is Verdict.FALLS_SHORT and one.stage is not Stage.DEAD
                    )


class Asked(unittest.TestCase):
    def test_whether_the_operator_was_told_is_asked_above_what_is_declared(self) -> None:
        """Common practice, no source: 0.35 Ω on TN-C-S, 0.80 Ω on TN-S; none on TT."""
        for name, declared_ohm in ((DEVICE_IN_UNIT, 0.35), (TREATED_AS_PME, 0.80)):
            for ohm, asked in ((declared_ohm - 0.01, False), (declared_ohm, False), (declared_ohm + 0.01, True)):
                changed = job(name, {"supply.ze_enquiry_ohm": ohm, "readings": []})
                with self.subTest(name, ohm=ohm):
                    self.assertEqual(TOLD in evaluate(changed, RULES).asked, asked)

    def test_a_reading_asks_it_as_well_and_an_answer_does_not_hide_it(self) -> None:
        read = next(
            place for place, one in enumerate(job(HALFWAY).readings) if one.step == "ze" and one.value is not None
        )
        for told in ("not_seen", "no", "yes"):
            for ohm, asked in ((0.35, False), (0.36, True)):
                changed = job(HALFWAY, {f"readings.{read}.value": ohm, "supply.operator_told_of_ze": told})
                with self.subTest(told, ohm=ohm):
                    self.assertEqual(TOLD in evaluate(changed, RULES).asked, asked)

    def test_not_on_tt_nor_where_nobody_knows(self) -> None:
        self.assertEqual(evaluation(TT).asked, ())
        unknown = job(DEVICE_IN_UNIT, {"supply.ze_enquiry_ohm": None, "readings": []})
        self.assertEqual(evaluate(unknown, RULES).asked, ())


class WaysWanted(unittest.TestCase):
    def test_they_are_wanted_where_the_demand_does_not_fit_and_each_that_is_taken_makes_it_fit(self) -> None:
        self.assertFalse(evaluation(DEVICE_IN_UNIT).ways_wanted)
        much = evaluate(job(DEVICE_IN_UNIT, {"supply.maximum_demand_a": 140.0, "load.method": "entered"}), RULES)
        self.assertTrue(much.ways_wanted)
        for name in (ALL_ELECTRIC, AT_SURVEY, DEVICE_IN_UNIT, FALLS_SHORT):
            for way in evaluation(name).ways_out:
                with self.subTest(name, way=way.key):
                    self.assertTrue(way.verdict is Verdict.MEETS or not way.changes)


class Arrangements(unittest.TestCase):
    def test_what_stands_or_is_refused_is_not_offered(self) -> None:
        options = arrangement_options(job(), RULES).options
        self.assertTrue({one.offered for one in options} == {True, False})
        for one in options:
            self.assertEqual(one.offered, not one.chosen and one.allowance is not Allowance.REFUSED)
            self.assertEqual(one.verdict is Verdict.FALLS_SHORT, one.allowance is Allowance.REFUSED)


if __name__ == "__main__":
    unittest.main()
