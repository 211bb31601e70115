"""Looking for other ways is bounded: it stops when asked, says what was left out, and never multiplies without end."""

import itertools
import time
import tracemalloc
import unittest
from collections.abc import Callable
from typing import Any

from fulmen.core.alternatives.budget import Budget
from fulmen.core.alternatives.choice_menu import alternatives
from fulmen.core.alternatives.reach import how_far
from fulmen.core.alternatives.remedies import remedies
from fulmen.core.alternatives.search.search import search
from fulmen.core.alternatives.unknowns import unknown_facts
from fulmen.core.evaluate import evaluate
from fulmen.core.materials.prices import invented_prices
from fulmen.core.model.job import Job
from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, RULES, job


def steps(most: int) -> Budget:
    """A budget of some steps."""
    counted = itertools.count()
    return Budget(lambda: next(counted) < most)


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


def evaluation_s() -> float:
    """What one evaluation takes on this machine as it is now."""
    whole = job(GARAGE)
    started = time.monotonic()
    for _ in range(10):
        evaluate(whole, RULES)
    return (time.monotonic() - started) / 10


class Bounded(unittest.TestCase):
    def test_nothing_goes_on_once_it_is_spent(self) -> None:
        asked = []
        budget = Budget(lambda: asked.append(1) or False)  # type: ignore[func-returns-value]
        self.assertEqual([budget.allows() for _ in range(3)], [False] * 3)
        self.assertEqual(len(asked), 1)

    def test_each_gives_what_it_has_by_then(self) -> None:
        short = evaluate(job(FALLS_SHORT), RULES).falls_short()[0].key
        unknown = job(DEVICE_IN_UNIT, {"supply.looped": "not_seen", "supply.cut_out_fuse_a": None})
        each: dict[str, Callable[[Budget], Any]] = {
            "remedies": lambda budget: remedies(job(FALLS_SHORT), short, RULES, budget),
            "choices": lambda budget: alternatives(job(), "ev", "csa", RULES, budget),
            "reach": lambda budget: how_far(job(), "charge-point", RULES, budget),
            "unknown": lambda budget: unknown_facts(unknown, RULES, budget),
        }
        for name, act in each.items():
            with self.subTest(name):
                self.assertLess(len(act(steps(1))), len(act(Budget())))

    def test_a_search_that_is_stopped_says_so_and_proposes_only_what_it_proved(self) -> None:
        whole = search(job(), "charge-point", RULES, invented_prices())
        self.assertEqual(whole.left_out, "")
        for most in (0, 1, 50, 150):
            found = search(job(), "charge-point", RULES, invented_prices(), steps(most))
            with self.subTest(most):
                self.assertIn("the time for it ran out", found.left_out)
                self.assertLess(found.tried, whole.tried)
                self.assertLessEqual(len(found.few), len(whole.few))

    def test_boards_in_a_row_multiply_neither_time_nor_memory(self) -> None:
        """Eleven sub-mains in a row: each could be laid in hundreds of ways."""
        whole = chain_of(11)
        until = time.monotonic() + 1.2
        tracemalloc.start()
        started = time.monotonic()
        found = search(whole, "charge-point", RULES, invented_prices(), Budget(lambda: time.monotonic() < until))
        took_s, (_, most_bytes) = time.monotonic() - started, tracemalloc.get_traced_memory()
        tracemalloc.stop()
        self.assertIn("Not all was tried", found.left_out)
        # By the machine's own speed: a busy one is slow, not wrong. Memory is traced, which costs tenfold.
        self.assertLess(took_s, 1.2 + 600 * evaluation_s())
        self.assertLess(most_bytes, 100e6)


if __name__ == "__main__":
    unittest.main()
