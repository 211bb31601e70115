"""Tails in stretches: what each carries, their length to every board, and a size that the operator took in writing."""

import unittest
from typing import Any, ClassVar

from fulmen.core.circuit.origin import tails_figures
from fulmen.core.demand.demand import demand_of
from fulmen.core.editing.layouts import layouts
from fulmen.core.errors import JobFileError
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.installation.installation import installation_of
from fulmen.core.materials.materials import materials
from tests.jobs import DEVICE_IN_UNIT, OWN_BOARD, RULES, evaluation, finding, job

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
SECOND = "supply.tails.4"


def verdicts(rule: str, changes: dict[str, Any]) -> dict[str, Verdict]:
    return {one.subject: one.verdict for one in evaluation(OWN_BOARD, changes).findings if one.rule == rule}


class Stretches(unittest.TestCase):
    def test_the_way_to_each_board(self) -> None:
        made = job(OWN_BOARD)
        house = ["tails", "to-isolator", "to-blocks", "to-board"]
        self.assertEqual([one.id for one in installation_of(made).tails_to["board"]], house)
        self.assertEqual([one.id for one in installation_of(made).tails_to["own-board"]], [*house[:3], "second-tails"])
        self.assertEqual(installation_of(made).main_tails, installation_of(made).tails_to["board"])

    def test_volts_and_loop_add_up_by_hand(self) -> None:
        """25 mm² 1.75 and 16 mm² 2.8 mV/A/m (Table 4D2B); 0.727 and 1.15 mΩ/m (BS EN 60228): common tables, from memory."""
        made = job(OWN_BOARD, {"supply.earthing_conductor_csa_mm2": 16.0})
        board = made.boards[1]
        found = tails_figures(installation_of(made), demand_of(installation_of(made), RULES), 32, board)
        # The stretches before the blocks carry the house's 74 A; the second tails the car's 32 A alone.
        self.assertAlmostEqual(found.drop_v, (1.75 * 74 * 1.1 + 2.8 * 32 * 0.8) / 1000, places=3)
        self.assertAlmostEqual(found.r1_ohm, (0.727 * 1.1 + 1.15 * 0.8) / 1000, places=5)
        self.assertAlmostEqual(found.r2_ohm, 1.15 * 1.9 / 1000, places=5)

    def test_where_others_hang_behind_them_second_tails_carry_the_house(self) -> None:
        made = job(OWN_BOARD, {"boards.1.feeds_others": "not_seen"})
        known = job(OWN_BOARD)
        more, less = (
            tails_figures(installation_of(one), demand_of(installation_of(one), RULES), 32, one.boards[1]).drop_v
            for one in (made, known)
        )
        self.assertGreater(more, less)

    def test_size_and_length_to_every_board(self) -> None:
        for changes, size, length in (
            ({}, MEETS, MEETS),
            ({f"{SECOND}.csa_mm2": 10.0}, SHORT, MEETS),
            ({f"{SECOND}.csa_mm2": 10.0, f"{SECOND}.accepted_in_writing": "yes"}, NEEDS, MEETS),
            ({f"{SECOND}.csa_mm2": 10.0, f"{SECOND}.accepted_in_writing": "no"}, SHORT, MEETS),
            ({f"{SECOND}.csa_mm2": None}, NEEDS, MEETS),
            ({f"{SECOND}.length_m": 1.9}, MEETS, MEETS),
            ({f"{SECOND}.length_m": 2.0}, MEETS, SHORT),
            ({f"{SECOND}.length_m": None}, MEETS, NEEDS),
        ):
            with self.subTest(changes):
                self.assertEqual(verdicts("tails_size", changes), {"origin": MEETS, "own-board": size})
                self.assertEqual(verdicts("tails_length", changes), {"origin": MEETS, "own-board": length})

    def test_a_board_that_no_tails_feed_asks_for_them(self) -> None:
        tails = [one.model_dump(mode="json") for one in job(OWN_BOARD).supply.tails[:4]]
        self.assertIs(verdicts("tails_size", {"supply.tails": tails})["own-board"], NEEDS)
        self.assertIs(finding("tails_size", DEVICE_IN_UNIT, {"supply.tails": []}).verdict, NEEDS)

    def test_wrong_ways_are_refused_by_field(self) -> None:
        for changes, field in (
            ({"supply.tails.0.after": "to-board"}, "supply.tails.0.after"),
            ({"supply.tails.2.after": "nowhere"}, "supply.tails.2.after"),
            ({f"{SECOND}.board": "board"}, f"{SECOND}.board"),
            ({f"{SECOND}.board": "garage"}, f"{SECOND}.board"),
            ({f"{SECOND}.id": "tails"}, f"{SECOND}.id"),
        ):
            with self.subTest(field), self.assertRaises(JobFileError) as caught:
                job(OWN_BOARD, changes)
            self.assertIn(field, [one.field for one in caught.exception.problems])

    def test_an_own_board_brings_its_tails(self) -> None:
        layout = next(one for one in layouts(installation_of(job()), "charge-point") if "split tails" in one.words)
        self.assertEqual([one.csa_mm2 for one in layout.installation.tails_to[layout.job.boards[1].id]], [25.0, 25.0])
        self.assertNotIn("tails_size", {one.rule for one in evaluate(layout.job, RULES).falls_short()})

    def test_new_stretches_are_bought_by_the_metre(self) -> None:
        need = {one.key: one for one in materials(job(OWN_BOARD))}
        # 0.4 m and 0.8 m, two conductors each, and half a metre for the ends of each conductor.
        self.assertEqual(need["tails"].quantity, 5.0)
        self.assertEqual(need["connector-block"].quantity, 3)


class Held(unittest.TestCase):
    """A load limit holds the tails' load where a clamp tells the unit; what no table has is said."""

    LIMITED: ClassVar[dict[str, Any]] = {
        "supply.tails.0.csa_mm2": 16.0, "supply.tails.0.runs": "enclosed", "supply.cut_out_fuse_a": 100,
        "supply.tails.0.accepted_in_writing": "yes", "supply.tails.0.accepted_to_a": 100.0,
        "supply.load_limit_a": 70.0, "supply.maximum_demand_a": 90.0, "load.appliances": [], "readings": [], "decisions": [],
    }  # fmt: skip

    def test_a_limit_without_a_clamp_holds_nothing(self) -> None:
        for clamp, expected in (("yes", MEETS), ("no", CALL), ("not_seen", CALL)):
            with self.subTest(clamp):
                found = finding(
                    "tails_capacity", DEVICE_IN_UNIT, self.LIMITED | {"charge_points.0.current_clamp": clamp}
                )
                self.assertEqual(found.verdict, expected, found.detail)

    def test_energy_that_no_table_has_is_said(self) -> None:
        for fuse_a, ze_ohm, said in ((100, 0.2, False), (100, 0.9, True), (160, 0.1, True)):
            with self.subTest(fuse_a=fuse_a, ze_ohm=ze_ohm):
                changes = {
                    "supply.tails.0.csa_mm2": 70.0, "supply.tails.0.runs": "clipped", "supply.cut_out_fuse_a": fuse_a,
                    "supply.ze_enquiry_ohm": ze_ohm, "readings": [],
                }  # fmt: skip
                found = finding("tails_capacity", DEVICE_IN_UNIT, changes)
                self.assertEqual("energy in them is not judged" in found.detail, said, found.detail)
