"""Readings from the second simulator: sound sets raise next to nothing, planted faults and slips are named.

A few of each kind with a seed that the run prints; `make soak` draws a thousand and more (`tests/independent/run.py`).
The bounds here are wide, so that chance alone fails them less than once in ten thousand runs.
"""

import ast
import unittest
from pathlib import Path

from fulmen.core.verification.faults.faults import fault_infos
from tests.independent.faults import KINDS
from tests.independent.instruments import ORDINARY, POOR
from tests.independent.named import CALLED, SAY_THEMSELVES
from tests.independent.run import Judged, named, planted, sound, told
from tests.sampling import SEED

SOUND, HERE = 60, Path(__file__).parent
NOT_THE_PRODUCTS = ("physics", "house", "instruments", "round", "faults")


class Sound(unittest.TestCase):
    def test_next_to_none_raises_an_alarm(self) -> None:
        for words, sheet, most in (("ordinary", ORDINARY, 5), ("poor", POOR, 8)):
            every = list(sound(SEED, SOUND, sheet))
            false = [one for one in every if one.alarms]
            with self.subTest(words):
                self.assertLessEqual(len(false), most, "; ".join(map(told, false)))
                self.assertLessEqual(sum(bool(one.looks_like) for one in every), len(false))


class Planted(unittest.TestCase):
    def test_each_kind_is_named(self) -> None:
        for words, sheet, least in (("ordinary", ORDINARY, 0.90), ("poor", POOR, 0.80)):
            shown: list[Judged] = [one for one in planted(SEED, len(KINDS), sheet) if one.seen]
            missed = [one.kind.name for one in shown if one.kind is not None and not one.named]
            with self.subTest(words):
                self.assertGreaterEqual(1 - len(missed) / len(shown), least, missed)
                self.assertGreaterEqual(len(shown), 65)
                said = named(shown)
                self.assertGreaterEqual(min(said["first"], said["cable"]), least - 0.12, said)
                self.assertGreaterEqual(said["after"], said["first"] - 0.03, said)

    def test_every_kind_has_a_name_in_the_register_or_says_itself(self) -> None:
        for kind in KINDS:
            with self.subTest(kind.name):
                self.assertEqual(CALLED.get(kind.name) in fault_infos(), kind.name not in SAY_THEMSELVES)

    def test_sixty_kinds_and_more(self) -> None:
        self.assertGreaterEqual(len({one.name for one in KINDS}), 60)
        self.assertEqual(len({one.name for one in KINDS}), len(KINDS))


class Independent(unittest.TestCase):
    def test_what_makes_the_readings_imports_nothing_of_the_product(self) -> None:
        for name in NOT_THE_PRODUCTS:
            tree = ast.parse((HERE / f"{name}.py").read_text(encoding="utf-8"))
            froms = [node.module or "" for node in ast.walk(tree) if isinstance(node, ast.ImportFrom)]
            imports = [one.name for node in ast.walk(tree) if isinstance(node, ast.Import) for one in node.names]
            with self.subTest(name):
                self.assertFalse([one for one in (*froms, *imports) if one.startswith("fulmen") or one == "tests.jobs"])


if __name__ == "__main__":
    unittest.main()
