"""How a charge point is fed, changed at one press; every result is a job that can be worked on."""

import unittest

from fulmen.core.editing.chain_editing import layout_choices
from fulmen.core.editing.changes import apply_changes
from fulmen.core.electrical.joints import joints_of
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.evaluate import evaluate
from fulmen.core.installation.installation import installation_of
from fulmen.core.reference.cable_catalogue import cable_record, cables_for
from tests.jobs import DEVICE_IN_UNIT, GARAGE, RULES, evaluation, job


class Layouts(unittest.TestCase):
    def test_each_choice_is_a_job_that_evaluates(self) -> None:
        choices = layout_choices(job(), "charge-point")
        self.assertEqual([one.standing for one in choices], [True, False, False])
        for choice in choices:
            with self.subTest(choice.words):
                changed = apply_changes(job(), choice.changes)
                self.assertTrue(evaluate(changed, RULES).profiles)
                self.assertAlmostEqual(evaluate(changed, RULES).profiles[0].length_m, 16.9)

    def test_a_sub_main_can_be_taken_back(self) -> None:
        alone = job(GARAGE, {"boards.1.other_loads": []})
        direct = next(one for one in layout_choices(alone, "charge-point") if "direct" in one.words)
        changed = apply_changes(alone, direct.changes)
        self.assertEqual([len(run.chain) for run in installation_of(changed).runs], [1])
        self.assertEqual([board.id for board in changed.boards], ["board"])

    def test_nobody_feeds_it(self) -> None:
        with self.assertRaises(InputError):
            layout_choices(job(), "nowhere")


class Joints(unittest.TestCase):
    def test_a_box_wherever_the_cable_changes(self) -> None:
        circuit = job(GARAGE).circuits[1]
        (joint,) = joints_of(circuit, cables_for(job(GARAGE)))
        self.assertEqual((joint.kind, joint.section, joint.at_m), ("breakout_box", 1, 4.0))
        armoured = job(GARAGE, {"circuits.1.cable.record": "swa-3-core"})
        self.assertEqual(joints_of(armoured.circuits[1], cables_for(armoured))[0].kind, "gland_box")

    def test_a_joint_is_a_node_of_the_run_with_its_own_figures(self) -> None:
        profile = evaluation(GARAGE).profiles[0]
        node = next(one for one in profile.nodes if one.kind == "breakout_box")
        before = next(one for one in profile.sections if abs(one.to_m - node.at_m) < 1e-9)
        self.assertAlmostEqual(node.loop_ohm, before.loop_ohm)
        self.assertAlmostEqual(node.volts_lost_v, before.volts_lost_v)


class Structure(unittest.TestCase):
    def test_a_section_with_an_unknown_cable_is_named(self) -> None:
        with self.assertRaises(JobFileError) as caught:
            job(DEVICE_IN_UNIT, {"circuits.0.route.2.cable": {"record": "string"}})
        self.assertEqual(caught.exception.problems[0].field, "circuits.0.route.2.cable.record")

    def test_a_makers_record_serves_only_its_job(self) -> None:
        own = {
            "id": "own-ev",
            "name": "Own",
            "source": "maker",
            "ratings": [{"method": "C", "csa_mm2": 6.0, "rating_a": 50.0}],
        }
        whole = job(DEVICE_IN_UNIT, {"maker_cables": [own]})
        self.assertEqual(cable_record(cables_for(whole), "own-ev").ratings().at("C.2", 6.0), 50)
        with self.assertRaises(InputError):
            cable_record(cables_for(job()), "own-ev")
