"""An answer holds what its asker shows, and says the same as the whole of what it holds."""

import json
import unittest

from fulmen.core.answer import Answer, Asker, answer_for, told_to
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Stage, Topic
from fulmen.core.findings.rules.readings import READINGS
from fulmen.core.judging.kept_designs import KeptDesigns
from fulmen.core.verification.steps.steps import step_texts
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, RULES, job
from tests.trials.test_planted import planted

NAMES = tuple(sorted(path.stem for path in EXAMPLES.glob("*.json")))
MOST_BYTES = 45_000


def plain(answer: Answer) -> dict[str, object]:
    found: dict[str, object] = json.loads(answer.model_dump_json())
    return found


class Holds(unittest.TestCase):
    def test_a_part_says_what_the_whole_says(self) -> None:
        for name in NAMES:
            whole, kept = evaluate(job(name), RULES), KeptDesigns()
            for asker in Asker:
                with self.subTest(name, asker=asker):
                    self.assertEqual(plain(answer_for(asker, job(name), RULES, kept)), plain(told_to(asker, whole)))

    def test_each_asker_has_its_own_and_no_more(self) -> None:
        for name in NAMES:
            whole = evaluate(job(name), RULES)
            told = {asker: told_to(asker, whole) for asker in Asker}
            with self.subTest(name):
                self.assertEqual((told[Asker.ALL].findings, told[Asker.ALL].steps), (whole.findings, whole.steps))
                self.assertEqual((told[Asker.DESIGN].steps, told[Asker.DESIGN].gaps), (None, None))
                self.assertEqual((told[Asker.TESTS].steps, told[Asker.TESTS].gaps), (whole.steps, None))
                self.assertEqual((told[Asker.PAPERS].steps, told[Asker.PAPERS].gaps), (None, whole.gaps))
                design = told[Asker.DESIGN]
                self.assertTrue(all(one.is_open for one in design.findings))
                shown = {one.key for one in (*design.findings, *design.settled, *told[Asker.TESTS].findings)}
                self.assertEqual(shown, {one.key for one in whole.findings}, "each finding is shown somewhere")
                tested = {one.stage for one in told[Asker.TESTS].findings if Topic.CLAMP not in one.topics}
                self.assertLessEqual(tested, {Stage.DEAD, Stage.LIVE})

    def test_earths_that_are_joined_reach_the_run_on_a_design_page(self) -> None:
        """What protects people follows from readings too: a page that shows no step is told of it all the same."""
        joined = planted({"on": DEVICE_IN_UNIT, "island": True, "read": {"zs/ev": 0.4, "electrode/ev": 60.0}})
        whole = evaluate(joined, RULES)
        found = answer_for(Asker.DESIGN, joined, RULES, KeptDesigns())
        self.assertEqual(
            [one.protection_verdict for one in found.profiles], [one.protection_verdict for one in whole.profiles]
        )

    def test_no_single_reading_protects_people(self) -> None:
        """Were one to, a page that shows no step would have to work the steps out."""
        self.assertFalse([rule.key for rule in READINGS.values() if rule.protects_people])

    def test_a_design_page_is_told_in_forty_five_kilobytes(self) -> None:
        sizes = {
            name: len(told_to(Asker.DESIGN, evaluate(job(name), RULES)).model_dump_json().encode()) for name in NAMES
        }
        self.assertEqual({name: size for name, size in sizes.items() if size > MOST_BYTES}, {})

    def test_what_is_told_of_every_such_step_stands_once(self) -> None:
        texts = step_texts()
        for name in NAMES:
            for step in evaluate(job(name), RULES).steps:
                self.assertIn(step.reference, texts)
        self.assertTrue(all(one.how and one.why for one in texts.values()))


if __name__ == "__main__":
    unittest.main()
