"""Looking for other ways step by step: the same end however often it was told on the way, nothing proposed unproven."""

import time
import tracemalloc
import unittest
from collections.abc import Callable, Iterator
from random import Random
from typing import Any

from fulmen.core.alternatives.choice_menu import choosing
from fulmen.core.alternatives.reach import reaching
from fulmen.core.alternatives.remedies import MOST_OFFERED, mending
from fulmen.core.alternatives.search.search import PROVEN_AT_A_TELLING, searching
from fulmen.core.alternatives.unknowns import weighing_unknowns
from fulmen.core.editing.changes import apply_changes
from fulmen.core.evaluate import evaluate
from fulmen.core.installation.installation import installation_of
from fulmen.core.materials.prices import invented_prices
from fulmen.core.model.job import Job
from fulmen.core.so_far import SoFar, finished
from fulmen.core.verification.steps.coach import coaching
from fulmen.core.verification.steps.site_map import site_map
from tests.jobs import AT_SURVEY, DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, RULES, job
from tests.sampling import SEED

PRICES = invented_prices()


def short_key() -> str:
    return evaluate(job(FALLS_SHORT), RULES).falls_short()[0].key


EACH: dict[str, Callable[[], Iterator[SoFar[Any]]]] = {
    "search": lambda: searching(job(), "charge-point", RULES, PRICES),
    "search where nothing holds": lambda: searching(job(AT_SURVEY), "charge-point", RULES, PRICES),
    "search of what falls short": lambda: searching(job(FALLS_SHORT), "charge-point", RULES, PRICES),
    "remedies": lambda: mending(job(FALLS_SHORT), short_key(), RULES),
    "choices": lambda: choosing(job(), "ev", "csa", RULES),
    "reach": lambda: reaching(job(), "charge-point", RULES),
    "unknown": lambda: weighing_unknowns(
        job(DEVICE_IN_UNIT, {"supply.looped": "not_seen", "supply.cut_out_fuse_a": None}), RULES
    ),
    "order": lambda: coaching(evaluate(job(), RULES).steps, site_map(installation_of(job()))),
}


def chain_of(sub_mains: int) -> Job:
    """A legal job whose car hangs behind several boards in a row."""
    document = job(GARAGE).model_dump(mode="json") | {"readings": [], "decisions": [], "letters": []}
    (main, final), (first, garage) = document["circuits"][:2], document["boards"][:2]
    boards, circuits, before = [first], [], first["id"]
    for number in range(sub_mains):
        here = f"board-{number}"
        boards.append({**garage, "id": here, "name": f"Board {number}", "incomer": [], "groups": []})
        circuits.append({**main, "id": f"sub-{number}", "name": f"Sub {number}", "from_board": before, "group": "",
                         "feeds": here, "boxes": []})  # fmt: skip
        before = here
    circuits.append({**final, "from_board": before, "group": "", "boxes": []})
    return Job.model_validate(document | {"boards": boards, "circuits": circuits})


class StepByStep(unittest.TestCase):
    def test_the_end_is_the_same_however_often_it_is_told_on_the_way(self) -> None:
        chance = Random(f"{SEED}/{self.id()}")
        for name, looking in EACH.items():
            with self.subTest(name):
                told = looking()
                for one in told:
                    if chance.random() < 0.05:
                        one.tell()
                self.assertEqual(one.tell(), finished(looking()))

    def test_the_count_grows_and_ends_with_all(self) -> None:
        for name, looking in EACH.items():
            with self.subTest(name):
                counts = [(one.tried, one.of) for one in looking()]
                self.assertEqual(counts, sorted(counts, key=lambda one: one[0]))
                self.assertTrue(all(tried <= of for tried, of in counts))
                self.assertEqual(counts[0][0], 0)
                self.assertEqual(*counts[-1])
                self.assertGreater(counts[-1][1], 0)

    def test_what_is_told_on_the_way_holds_like_what_is_told_in_the_end(self) -> None:
        """A way or a remedy told early is proven as a whole job: it falls short of nothing that did not before."""
        now = {
            name: {one.key for one in evaluate(job(name), RULES).falls_short()}
            for name in (DEVICE_IN_UNIT, FALLS_SHORT)
        }
        chance = Random(f"{SEED}/{self.id()}")
        for name, looking, share in (
            (DEVICE_IN_UNIT, EACH["search"], 0.05),
            (FALLS_SHORT, EACH["search of what falls short"], 0.2),
            (FALLS_SHORT, EACH["remedies"], 1.0),
        ):
            seen: set[str] = set()
            for one in looking():
                if chance.random() > share:
                    continue
                found = one.tell()
                for way in getattr(found, "few", found):
                    changes = tuple(way.changes)
                    if (key := repr(changes)) in seen:
                        continue
                    seen.add(key)
                    then = evaluate(apply_changes(job(name), changes), RULES).falls_short()
                    self.assertLessEqual({each.key for each in then}, now[name])
            self.assertTrue(seen, name)

    def test_a_telling_proves_no_more_than_a_few(self) -> None:
        """Early on nothing may be proven yet; each telling adds at most a few, and the last has them all."""
        looking = EACH["search"]()
        before: set[Any] = set()
        for number, one in enumerate(looking):
            if number % 50 == 0:
                few = {repr(way.changes) for way in one.tell().few}
                self.assertLessEqual(len(few - before), PROVEN_AT_A_TELLING)
                before |= few
        self.assertGreater(len(one.tell().few), PROVEN_AT_A_TELLING)

    def test_alternatives_are_told_together_or_not_at_all(self) -> None:
        """Each is told by what differs between them: one judged by itself would seem to meet what it falls short of."""
        told = [len(one.tell()) for one in EACH["choices"]()]
        self.assertEqual(set(told[:-1]), {0})
        self.assertGreater(told[-1], 1)

    def test_the_next_size_and_the_next_device_are_tried_before_what_disturbs_more(self) -> None:
        """Changes are tried by how little they disturb: what mends is told by half way."""
        told = list[str]()
        for one in EACH["remedies"]():
            if one.tried == one.of // 2:
                told = [remedy.words for remedy in one.tell()]
        self.assertTrue(told)
        self.assertLessEqual(len(told), MOST_OFFERED)

    def test_boards_in_a_row_multiply_neither_a_step_nor_memory(self) -> None:
        """Eleven sub-mains in a row: each could be laid in hundreds of ways. Steps stay small, so an end is heard."""
        tracemalloc.start()
        longest_s, tried, started = 0.0, 0, time.process_time()
        for one in searching(chain_of(11), "charge-point", RULES, PRICES):
            longest_s, tried = max(longest_s, time.process_time() - started), one.tried
            started = time.process_time()
        _, most_bytes = tracemalloc.get_traced_memory()
        tracemalloc.stop()
        self.assertGreater(tried, 0)
        # By the machine's own speed: a busy one is slow, not wrong. Memory is traced, which costs tenfold.
        self.assertLess(longest_s, 600 * evaluation_s())
        self.assertLess(most_bytes, 100e6)

    def test_not_all_ways_to_lay_sub_mains_in_a_row_are_gone_on_with_and_that_is_told(self) -> None:
        for one in searching(chain_of(3), "charge-point", RULES, PRICES):
            if one.tried:
                break
        self.assertGreater(one.tell().left_out, 0)


def evaluation_s() -> float:
    """What one evaluation takes on this machine as it is now."""
    whole = job(GARAGE)
    started = time.process_time()
    for _ in range(10):
        evaluate(whole, RULES)
    return (time.process_time() - started) / 10


if __name__ == "__main__":
    unittest.main()
