"""Killed at any moment: a few of the kills that `make soak` does by hundreds."""

import random
import tempfile
import unittest
from pathlib import Path

from tests.soak.kills import Fate, kill_while_issuing, kill_while_migrating, kill_while_saving
from tests.soak.old_store import older_store


class Killed(unittest.TestCase):
    def faultless(self, fate: Fate) -> None:
        self.assertTrue(fate.faultless(), (fate.words(), fate.lost, fate.half, fate.unopened))
        self.assertGreater(fate.while_at_it, 0)

    def test_while_saving(self) -> None:
        fate = kill_while_saving(12, random.Random(1))
        self.faultless(fate)
        self.assertGreater(fate.acknowledged, 0)

    def test_while_issuing(self) -> None:
        fate = kill_while_issuing(12, random.Random(2))
        self.faultless(fate)
        self.assertGreater(fate.acknowledged, 0)

    def test_while_migrating(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            self.faultless(kill_while_migrating(6, random.Random(3), older_store(Path(folder), jobs=10)))


if __name__ == "__main__":
    unittest.main()
