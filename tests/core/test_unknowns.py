"""Unknown facts by what they could upset: every answer tried, nothing assumed, most upsetting first."""

import unittest

from fulmen.core.alternatives.unknowns import UnknownFact, unknown_facts
from fulmen.core.editing.blank_job import blank_job
from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from tests.jobs import DEVICE_IN_UNIT, GARAGE, RULES, THREE_PHASE, TT, job

UNKNOWN: dict[str, object] = {
    "supply.earthing": "not_seen", "supply.looped": "not_seen", "supply.cut_out_fuse_a": None,
    "boards.0.make_up": "not_seen", "boards.0.spare_ways": None, "supply.main_bonding_csa_mm2": None,
    "charge_points.0.open_pen_inside": "not_seen", "charge_points.0.rdc_dd_inside": "not_seen",
    "circuits.0.route.0.grouped_circuits": None, "boards.0.front_rcd_seen": "not_seen", "boards.0.incomer": [],
    "charge_points.0.upstream_rcd_asked": "not_seen", "site.data_looked_for": "not_seen",
}  # fmt: skip


def facts(**more: object) -> dict[str, UnknownFact]:
    return {one.field: one for one in unknown_facts(job(DEVICE_IN_UNIT, {**UNKNOWN, **more}), RULES)}


class Unknowns(unittest.TestCase):
    def test_each_names_what_an_answer_brings_down(self) -> None:
        found = facts()
        for field, title in (
            ("supply.looped", "Service not looped to a neighbour"),
            ("supply.cut_out_fuse_a", "Demand within the cut-out fuse"),
            ("boards.0.make_up", "Board takes the new device"),
            ("boards.0.spare_ways", "A way for the circuit"),
            ("supply.main_bonding_csa_mm2", "Main bonding in place and big enough"),
            ("charge_points.0.open_pen_inside", "A broken PEN can't reach the car"),
            ("charge_points.0.rdc_dd_inside", "Smooth DC from the car can't blind the RCD"),
            ("boards.0.front_rcd_seen", "No RCD on the way that the car's DC blinds"),
            ("circuits.0.route.0.grouped_circuits", "Weakest section carries 40 A"),
        ):
            with self.subTest(field):
                self.assertIn(title, found[field].could_upset)
        self.assertEqual(found["site.data_looked_for"].could_upset, ())

    def test_what_could_upset_most_comes_first(self) -> None:
        counts = [(len(one.could_upset), len(one.could_ask)) for one in facts().values()]
        self.assertEqual(counts, sorted(counts, reverse=True))

    def test_what_is_told_happens_when_it_is_answered_so(self) -> None:
        """Not looped meets; looped falls short, as told. Nothing is told of a fact that is known."""
        whole = job(DEVICE_IN_UNIT, {"supply.looped": "not_seen", "letters": []})
        (told,) = (one for one in unknown_facts(whole, RULES) if one.field == "supply.looped")
        then = evaluate(apply_changes(whole, (Change(field="supply.looped", value="yes"),)), RULES)
        self.assertIn(told.could_upset[0], [one.title for one in then.findings if one.verdict is Verdict.FALLS_SHORT])
        self.assertNotIn("supply.looped", {one.field for one in unknown_facts(job(DEVICE_IN_UNIT), RULES)})

    def test_what_lies_past_the_walk_counts_too(self) -> None:
        whole = job(GARAGE, {"boards.1.fitted_with_this_job": False, "boards.1.spare_ways": None,
                             "charge_points.0.arrangement.metal_at_unit": "not_seen"})  # fmt: skip
        found = {one.field: one for one in unknown_facts(whole, RULES)}
        self.assertIn("A way for the circuit", found["boards.1.spare_ways"].could_upset)
        self.assertIn("charge_points.0.arrangement.metal_at_unit", found)

    def test_asking_changes_nothing_and_every_kind_of_job_is_answered(self) -> None:
        for name in (DEVICE_IN_UNIT, TT, GARAGE, THREE_PHASE):
            whole = job(name)
            with self.subTest(name):
                unknown_facts(whole, RULES)
                self.assertEqual(whole, job(name))
        unknown_facts(blank_job("Drive"), RULES)


if __name__ == "__main__":
    unittest.main()
