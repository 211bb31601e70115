"""Faults in an installation as built are caught by what the simulated set reads, and named; sound ones raise nothing.

A few of each kind; `make bench` tries two thousand and a thousand.
"""

import unittest
from random import Random

from fulmen.core.verification.faults.faults import FaultPlace, fault_info, planted_kinds
from tests.trials.simulated import size_of, tested
from tests.trials.test_trials import told

EACH, SOUND = 2, 20


class Caught(unittest.TestCase):
    def test_each_kind_is_caught_and_named(self) -> None:
        chance, caught, named, count = Random(15), 0, 0, 0
        for place, kind in enumerate(planted_kinds()):
            right = 0
            for number in range(EACH):
                found, fault = tested(1000 * place + number, kind, size_of(kind, number, chance))
                assert fault is not None
                # A small joint reads like a smaller earth: both are told then.
                here = any(
                    one.fault == kind
                    and (fault_info(kind).where is not FaultPlace.CABLE or one.subject == fault.circuit)
                    for one in found.named
                )
                caught, named, right, count = caught + bool(found.alarms), named + here, right + here, count + 1
            with self.subTest(kind):
                self.assertGreaterEqual(right, EACH - 1)
        self.assertGreaterEqual(caught / count, 0.98)
        self.assertGreaterEqual(named / count, 0.90)

    def test_sound_ones_raise_nothing(self) -> None:
        for seed in range(SOUND):
            with self.subTest(seed):
                found, _ = tested(900_000 + seed)
                self.assertEqual((told(found.alarms), found.named), ("", ()))

    def test_the_same_seed_reads_the_same(self) -> None:
        once, again = (tested(7, "earth_joint", 0.3)[0].found.steps for _ in range(2))
        self.assertEqual([one.reading for one in once], [one.reading for one in again])

    def test_every_kind_says_from_when_it_matters_and_why(self) -> None:
        for kind in planted_kinds():
            info = fault_info(kind)
            with self.subTest(kind):
                self.assertTrue(info.words and info.why)


if __name__ == "__main__":
    unittest.main()
