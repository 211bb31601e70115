"""What a certificate still needs: all of it, nothing else, in the order of the work, each where it is put right."""

import unittest

from fulmen.core.editing.blank_job import blank_job
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.rules import REGISTER
from fulmen.core.model.job import Job
from fulmen.core.next_things import SIGN, STAGES, NextThing, listed, next_things
from tests.jobs import EXAMPLES, RULES, job

NAMES = tuple(sorted(path.stem for path in EXAMPLES.glob("*.json")))


def every_job() -> dict[str, Job]:
    """Each example, and a blank sheet."""
    return {name: job(name) for name in NAMES} | {"blank": blank_job("Blank", "B-1")}


class List(unittest.TestCase):
    jobs: dict[str, tuple[Job, Evaluation, list[NextThing]]]

    @classmethod
    def setUpClass(cls) -> None:
        found = {name: (document, evaluate(document, RULES)) for name, document in every_job().items()}
        cls.jobs = {name: (document, whole, listed(document, whole)) for name, (document, whole) in found.items()}

    def test_it_is_empty_exactly_where_a_certificate_may_be_issued(self) -> None:
        for name, (_, whole, things) in self.jobs.items():
            self.assertEqual(bool(things), bool(whole.gaps), name)
        self.assertEqual(self.jobs["tn-c-s-device-in-unit"][2], [])

    def test_every_gap_is_in_it_or_asked_for_by_another_thing(self) -> None:
        for name, (_, whole, things) in self.jobs.items():
            told = {one.key for one in things}
            fields = {one.field for one in things} - {""}
            for gap in whole.gaps:
                with self.subTest(name, gap=gap.key):
                    self.assertTrue(gap.key in told or gap.key in fields or gap.kind in ("signature", "check"))
            self.assertLessEqual(told, {one.key for one in whole.gaps}, name)
            self.assertEqual(len(fields), sum(one.field != "" for one in things), "one fact is asked for once")

    def test_a_test_that_was_left_out_and_may_not_be_is_asked_for_once(self) -> None:
        left = {"step": "zs", "subject": "ev", "outcome": "could_not_test", "reason": "no access today",
                "taken_by": "R. Quillfeather", "taken_at": "2026-11-20T10:00:00+00:00"}  # fmt: skip
        read = [one.model_dump(mode="json") for one in job("tn-c-s-device-in-unit").readings if one.step != "zs"]
        document = job("tn-c-s-device-in-unit", {"readings": [*read, left]})
        things = listed(document, evaluate(document, RULES))
        self.assertEqual([one.kind for one in things if one.step == "zs/ev"], ["reading"])

    def test_a_finding_that_is_left_out_waits_for_a_fact_that_is_asked_for(self) -> None:
        for name, (_, whole, things) in self.jobs.items():
            told, fields = (
                {one.key for one in things if one.kind == "check"},
                {one.field.rsplit(".", 1)[-1] for one in things},
            )
            for one in whole.findings:
                if one.is_open and one.key not in told:
                    with self.subTest(name, left_out=one.key):
                        self.assertEqual(one.waits_for, "fact")
                        self.assertTrue(fields & set(REGISTER[one.rule].looks_at))

    def test_the_order_is_that_of_the_work(self) -> None:
        for name, (_, whole, things) in self.jobs.items():
            stages = [STAGES.index(one.stage) for one in things]
            self.assertEqual(stages, sorted(stages), name)
            taken = [one.step for one in things if one.kind == "reading"]
            steps = [f"{one.step.value}/{one.subject}" for one in whole.steps]
            self.assertEqual(taken, [one for one in steps if one in taken], name)
            if things:
                self.assertEqual([one.key for one in things if one.words == SIGN], [things[-1].key] if things[-1].words == SIGN else [])  # fmt: skip
            waiting = {one.key for one in whole.findings if one.waits_for == "reading"}
            for stage in ("dead", "live"):
                here = [one for one in things if one.stage == stage and one.kind in ("check", "reading")]
                after = [one.kind == "check" and one.key in waiting for one in here]
                self.assertEqual(after, sorted(after), "what waits for a reading comes after the readings")
        survey = [one.part for one in self.jobs["looped-terrace-at-survey"][2] if one.stage == "survey"]
        self.assertEqual(survey[0], "cut_out")
        self.assertEqual(survey[-2:], ["loads", "operator"])

    def test_each_has_a_place_that_is_there(self) -> None:
        for name, (document, whole, things) in self.jobs.items():
            own = {"", "cut_out", "meter"}
            own |= {one.id for part in (document.boards, document.circuits, document.charge_points) for one in part}
            stops = {one.stop.value for one in whole.stops} | {"operator"}
            asked = {one.field for one in whole.questions} | set(whole.unsaid)
            for one in things:
                with self.subTest(name, thing=one.key):
                    self.assertIn(one.node, own)
                    if one.stage == "survey":
                        self.assertIn(one.part, stops)
                    if one.kind == "check" and one.field:
                        self.assertIn(one.field, asked)
                    if one.kind == "reading" and whole.steps:
                        self.assertIn(one.step, {f"{step.step.value}/{step.subject}" for step in whole.steps})

    def test_a_fact_that_is_looked_for_on_the_walk_leads_to_its_field(self) -> None:
        """On a blank sheet: a rule that looks at named facts is asked for by one of them."""
        _, whole, things = self.jobs["blank"]
        led = {one.key: one.field for one in things if one.kind == "check"}
        for one in whole.findings:
            looks_at = REGISTER[one.rule].looks_at
            if one.key in led and one.waits_for == "fact" and looks_at:
                with self.subTest(one.key):
                    self.assertIn(led[one.key].rsplit(".", 1)[-1], looks_at)
        self.assertEqual(led["earthing_known/origin"], "supply.earthing")
        self.assertEqual(led["spare_way/board"], "boards.0.spare_ways")

    def test_two_boards_are_told_apart(self) -> None:
        _, _, things = self.jobs["garage-wired-anew"]
        nodes = {one.node for one in things if one.kind == "reading"}
        self.assertLessEqual({"cut_out", "board", "garage", "charge-point"}, nodes)

    def test_counts_are_those_of_the_list(self) -> None:
        for name, (document, whole, things) in self.jobs.items():
            found = next_things(document, whole)
            self.assertEqual(sum(one.count for one in found.left), len(things), name)
            self.assertEqual(found.things, tuple(things[: len(found.things)]), name)
            for one in found.left:
                same = [
                    each for each in things if (each.stage, each.part, each.node) == (one.stage, one.part, one.node)
                ]
                self.assertEqual(len(same), one.count, name)
