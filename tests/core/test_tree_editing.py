"""Acts on the tree: every act on every part of every example gives a job that is evaluated, saved and read back."""

import json
import random
import unittest
from collections.abc import Iterator

from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.editing.job_file import parse_job, read_job, write_job
from fulmen.core.editing.tree_editing import TreeAct, TreeActKind, acts_on, after_act
from fulmen.core.editing.tree_nodes import NodeKind, behind, node_of, nodes
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.installation.installation import installation_of
from fulmen.core.installation.tree import stored_guards
from fulmen.core.model.job import Job
from fulmen.core.model.known_how import KnownHow
from fulmen.core.model.seen import Seen
from tests.jobs import BOX_AT_GARAGE, EXAMPLES, GARAGE, RULES, SHARED_FRONT, THREE_PHASE, example, job
from tests.sampling import SEED, some

DUPLICATE, TAKE_OUT, MOVE = TreeActKind.DUPLICATE, TreeActKind.TAKE_OUT, TreeActKind.MOVE
EVERY = sorted(path.stem for path in EXAMPLES.glob("*.json"))


def done(whole: Job, name: str, kind: TreeActKind, to: str = "") -> Job:
    return apply_changes(whole, after_act(whole, name, TreeAct(kind=kind, to=to)))


def beside(whole: Job, point: str) -> Job:
    """The job with a second charge point beside one."""
    return done(whole, point, DUPLICATE)


def every_act(whole: Job) -> Iterator[tuple[str, TreeAct]]:
    for node in nodes(whole):
        for act in acts_on(whole, node.name):
            yield node.name, act


class Everywhere(unittest.TestCase):
    def sound(self, whole: Job) -> None:
        """It can be saved and read again, word for word, and be judged."""
        text = write_job(whole)
        self.assertEqual(write_job(read_job(text)), text)
        self.assertTrue(evaluate(whole, RULES).rule_set)

    def test_every_act_on_every_part_of_every_example(self) -> None:
        acts = [(name, part, act) for name in EVERY for part, act in every_act(example(name))]
        self.assertGreater(len(acts), 200)
        # Duplicating is where names meet: all of those, and some of the others.
        doubled = [one for one in acts if one[2].kind is DUPLICATE]
        others = [one for one in acts if one[2].kind is not DUPLICATE]
        for name, part, act in [*some(doubled, 50, "doubled"), *some(others, 40, "others")]:
            with self.subTest(name, part=part, act=act.kind, to=act.to):
                self.sound(apply_changes(example(name), after_act(example(name), part, act)))

    def test_a_box_beside_its_circuit_which_three_examples_could_not_save(self) -> None:
        boxed = [name for name in EVERY if any(one.boxes for one in example(name).circuits)]
        self.assertGreaterEqual(len(boxed), 3)
        for name in boxed:
            for point in example(name).charge_points:
                with self.subTest(name, point=point.id):
                    self.sound(beside(example(name), point.id))

    def test_acts_one_after_the_other(self) -> None:
        """Ten acts in a row, drawn at random: what one act made, the next one can work on."""
        drawn = random.Random(f"{SEED}/acts")
        for name in some(EVERY, 5, "in a row"):
            whole = example(name)
            for _ in range(10):
                choices = list(every_act(whole))
                part, act = drawn.choice(choices)
                with self.subTest(name, part=part, act=act.kind, to=act.to):
                    whole = apply_changes(whole, after_act(whole, part, act))
                    self.sound(whole)

    def test_what_can_not_be_done_is_refused_with_its_reason(self) -> None:
        for name in some(EVERY, 6, "refused"):
            whole = example(name)
            for node in nodes(whole):
                can = {(one.kind, one.to) for one in acts_on(whole, node.name)}
                for act in [(kind, "") for kind in TreeActKind] + [(MOVE, "board"), (MOVE, "nowhere")]:
                    if act in can:
                        continue
                    with self.subTest(name, part=node.name, act=act), self.assertRaises(InputError) as caught:
                        after_act(whole, node.name, TreeAct(kind=act[0], to=act[1]))
                    self.assertGreater(len(caught.exception.message), 10)

    def test_taking_the_copy_out_gives_the_job_back(self) -> None:
        for name in some(EVERY, 6, "out again"):
            whole = example(name)
            before = {node.name for node in nodes(whole)}
            for node in nodes(whole):
                if not any(one.kind is DUPLICATE for one in acts_on(whole, node.name)):
                    continue
                doubled = done(whole, node.name, DUPLICATE)
                copy = next(one for one in nodes(doubled) if one.name not in before and one.kind is node.kind)
                if node.kind in (NodeKind.BOARD, NodeKind.CIRCUIT, NodeKind.CHARGE_POINT):
                    fresh = {one.name for one in nodes(doubled)} - before
                    copy = next(one for one in nodes(doubled) if one.name in fresh and behind(doubled, one) <= fresh)
                with self.subTest(name, part=node.name):
                    self.assertEqual(write_job(done(doubled, copy.name, TAKE_OUT)), write_job(whole))


class Copies(unittest.TestCase):
    def test_what_is_true_of_one_alone_starts_empty_in_the_other(self) -> None:
        whole = job("tn-s-treated-as-pme", {"charge_points.0.serial_number": "DEMO-9"})
        point = beside(whole, "charge-point").charge_points[1]
        self.assertEqual((point.serial_number, point.clamp_proof, point.seen_working.value), ("", None, "not_seen"))
        self.assertEqual(point.name, f"{whole.charge_points[0].name} 2")

    def test_boxes_and_their_guards_have_names_of_their_own(self) -> None:
        whole = example(BOX_AT_GARAGE)
        twin = beside(whole, "charge-point")
        self.assertEqual(len(stored_guards(twin)), len(stored_guards(whole)) + 1)
        self.assertEqual(len({one.id for one in stored_guards(twin)}), len(stored_guards(twin)))

    def test_a_board_with_all_that_hangs_behind_it(self) -> None:
        whole = example(GARAGE)
        board = next(one.feeds for one in whole.circuits if one.feeds in {board.id for board in whole.boards})
        twin = done(whole, board, DUPLICATE)
        self.assertEqual(
            (len(twin.boards), len(installation_of(twin).runs)),
            (len(whole.boards) + 1, 2 * len(installation_of(whole).runs)),
        )

    def test_both_cars_count_in_full(self) -> None:
        self.assertEqual(evaluate(beside(job(), "charge-point"), RULES).demand.car_a, 64)

    def test_on_three_phases_it_takes_the_next_line_conductor(self) -> None:
        three = beside(job(THREE_PHASE), "right")
        self.assertEqual([one.phase.value for one in three.circuits[2:]], ["L2", "L3"])
        # left 16 A on all three, right 32 A on L2, the new one 32 A on L3
        self.assertEqual(evaluate(three, RULES).demand.car_a, 48)

    def test_the_only_one_stays_and_ten_is_the_most(self) -> None:
        with self.assertRaises(InputError):
            done(job(), "charge-point", TAKE_OUT)
        whole = job()
        for _ in range(9):
            whole = beside(whole, "charge-point")
        self.assertEqual(len(whole.charge_points), 10)
        with self.assertRaises(InputError) as caught:
            beside(whole, "charge-point")
        self.assertIn("at most 10", caught.exception.message)

    def test_a_name_as_long_as_can_be(self) -> None:
        whole = example(GARAGE)
        text = write_job(whole).replace('"charge-point"', f'"{"c" * 40}"')
        twin = beside(read_job(text), "c" * 40)
        self.assertEqual(twin.charge_points[1].id, f"{'c' * 36}-2")


class KnownHowFollows(unittest.TestCase):
    """What was taken as usual is told as such of the part that it was taken for, wherever an act puts it."""

    FIELD = "circuits.1.route.0.depth_m"

    def whole(self) -> Job:
        known = {self.FIELD: KnownHow.TAKEN_AS_USUAL, "supply.ze_by_enquiry": KnownHow.EARLIER_VERSION}
        return beside(job(), "charge-point").model_copy(update={"known_how": known})

    def test_a_part_before_it_is_gone(self) -> None:
        whole = self.whole()
        left = done(whole, whole.charge_points[0].id, TAKE_OUT)
        self.assertEqual(set(left.known_how), {"circuits.0.route.0.depth_m", "supply.ze_by_enquiry"})

    def test_the_part_itself_is_gone(self) -> None:
        whole = self.whole()
        left = done(whole, whole.charge_points[1].id, TAKE_OUT)
        self.assertEqual(set(left.known_how), {"supply.ze_by_enquiry"})

    def test_a_copy_is_known_as_the_first_is(self) -> None:
        whole = self.whole()
        three = done(whole, whole.charge_points[1].id, DUPLICATE)
        wanted = {self.FIELD, "circuits.2.route.0.depth_m", "supply.ze_by_enquiry"}
        self.assertEqual(set(three.known_how), wanted)

    def test_a_guard_that_changes_places(self) -> None:
        whole = done(example(SHARED_FRONT), example(SHARED_FRONT).boards[0].incomer[0].id, DUPLICATE)
        first = whole.boards[0].incomer[0].id
        known = {"boards.0.incomer.0.rating_a": KnownHow.TAKEN_AS_USUAL}
        moved = done(whole.model_copy(update={"known_how": known}), first, TreeActKind.LATER)
        self.assertEqual(set(moved.known_how), {"boards.0.incomer.1.rating_a"})
        self.assertEqual(node_of(moved, first).place, 1)


class SaidFound(unittest.TestCase):
    """A circuit said to be there already: what was chosen for it is reckoned with and no more."""

    def test_each_fact_of_it_is_asked_and_nothing_of_it_meets(self) -> None:
        found = done(job(GARAGE, {"readings": []}), "sub-main", TreeActKind.FOUND)
        self.assertEqual(found.circuits[0].looked_at, Seen.NOT_SEEN)
        looked = apply_changes(found, (Change(field="circuits.0.looked_at", value="yes"),))
        judged = {one.key: one for one in evaluate(looked, RULES).findings}
        asked = judged["existing_circuit/sub-main"]
        self.assertIs(asked.verdict, Verdict.NEEDS)
        for words in ("its rated current", "its size", "its kind of cable", "where section 1 lies"):
            self.assertIn(words, asked.detail)
        resting = {"sub-main", "ev", *(f"sub-main-{number}" for number in range(1, 9))}
        self.assertFalse(
            [one.key for one in judged.values() if one.subject in resting and one.verdict is Verdict.MEETS]
        )

    def test_once_each_is_said_it_meets_again(self) -> None:
        found = done(job(GARAGE, {"readings": []}), "sub-main", TreeActKind.FOUND)
        said = (Change(field="known_how", value={}), Change(field="circuits.0.looked_at", value="yes"))
        judged = {one.key: one.verdict for one in evaluate(apply_changes(found, said), RULES).findings}
        self.assertIs(judged["existing_circuit/sub-main"], Verdict.MEETS)
        self.assertIs(judged["weakest_section/sub-main"], Verdict.MEETS)

    def test_its_rcd_is_read_anew(self) -> None:
        found = done(job(), "ev", TreeActKind.FOUND)
        mark = found.circuits[0].device.rcd
        self.assertTrue(mark is not None and mark.known() is None)

    def test_there_and_back(self) -> None:
        start = job(GARAGE)
        back = done(done(start, "sub-main", TreeActKind.FOUND), "sub-main", TreeActKind.FITTED)
        self.assertEqual((back.circuits[0].fitted_with_this_job, back.known_how), (True, {}))

    def test_a_found_circuit_that_leaves_a_fact_out_is_refused_by_name(self) -> None:
        data = job(GARAGE, {"circuits.0.fitted_with_this_job": False}).model_dump(mode="json")
        for part, name in (("device", "rating_a"), ("device", "curve"), ("cable", "csa_mm2"), ("cable", "record")):
            left = json.loads(json.dumps(data))
            del left["circuits"][0][part][name]
            if part == "device" and name == "curve":
                left["circuits"][0]["device"]["kind"] = "breaker"
            with self.subTest(part, name=name), self.assertRaises(JobFileError) as caught:
                parse_job(left)
            self.assertIn(f"{part}.{name}", caught.exception.problems[0].message)


if __name__ == "__main__":
    unittest.main()
