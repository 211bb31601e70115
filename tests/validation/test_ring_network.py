"""A ring as a network of resistances, solved by numpy: nothing electrical of the product makes the second side.

Sockets stand at random along the ring. Loops and volts at every one are held against the figures of its middle, and what
an instrument reads between cross-connected ends against a quarter of both round (rules of the trade: common practice).
Resistances are BS EN 60228's, from memory: 7.41 mΩ/m of 2.5 mm², 12.10 of 1.5.
"""

import unittest
from itertools import pairwise
from random import Random
from typing import Any

import numpy as np

from fulmen.core.findings.finding import Verdict
from tests.jobs import WIRED_ANEW, WITH_TESTER, evaluation, job
from tests.sampling import SEED

R_2_5, R_1_5 = 7.41e-3, 12.10e-3
LENGTH_M = 54.0
RING = "garage-sockets"
AS_RING: dict[str, Any] = {
    "circuits.2.ring": True,
    "circuits.2.device.rating_a": 32,
    "circuits.2.cable.csa_mm2": 2.5,
    "circuits.2.route.0.length_m": LENGTH_M,
    "circuits.2.loads.0.rating_a": 32.0,
    "readings": [],
}


def read(step: str, value: float, minute: int) -> dict[str, Any]:
    at = f"2026-11-18T10:{minute:02d}:00Z"
    return {
        "step": step,
        "subject": RING,
        "outcome": "measured",
        "value": value,
        "taken_by": "A. Tester",
        "taken_at": at,
    }


def between(edges: list[tuple[str, str, float]], a: str, b: str) -> float:
    """The resistance between two nodes, by the node equations."""
    names = sorted({node for edge in edges for node in edge[:2]})
    at = {name: place for place, name in enumerate(names)}
    y = np.zeros((len(names), len(names)))
    for one, other, ohm in edges:
        i, j = at[one], at[other]
        y[i, i] += 1 / ohm
        y[j, j] += 1 / ohm
        y[i, j] -= 1 / ohm
        y[j, i] -= 1 / ohm
    z = np.linalg.pinv(y)
    return float(z[at[a], at[a]] + z[at[b], at[b]] - 2 * z[at[a], at[b]])


def wire(name: str, places_m: list[float], ohm_per_m: float) -> list[tuple[str, str, float]]:
    """One conductor all round: its ends, and a node at each socket."""
    along = [0.0, *places_m, LENGTH_M]
    nodes = [f"{name}-a", *(f"{name}{at}" for at in range(len(places_m))), f"{name}-b"]
    return [(one, other, (to - frm) * ohm_per_m) for (one, other), (frm, to) in zip(pairwise(nodes), pairwise(along), strict=True)]  # fmt: skip


def nodes(edges: list[tuple[str, str, float]], points: int) -> Any:
    """The node matrix of a conductor both ends of which are at the board."""
    y = np.zeros((points, points))
    for place, (_, _, ohm) in enumerate(edges):
        for i in (place - 1, place):
            for j in (place - 1, place):
                if 0 <= i < points and 0 <= j < points:
                    y[i, j] += (1 if i == j else -1) / ohm
    return y


class Ring(unittest.TestCase):
    def setUp(self) -> None:
        chance = Random(f"{SEED}/{self.id()}")
        drawn = [round(chance.uniform(1, LENGTH_M - 1), 2) for _ in range(8)]
        self.places_m = sorted([*drawn, LENGTH_M / 2])
        self.sockets = range(len(self.places_m))
        self.line = wire("L", self.places_m, R_2_5)
        self.neutral = wire("N", self.places_m, R_2_5)
        self.earth = wire("E", self.places_m, R_1_5)

    def test_the_middle_is_the_farthest_point(self) -> None:
        made = evaluation(WIRED_ANEW, AS_RING)
        at_board = [("L-a", "L-b", 1e-7), ("E-a", "E-b", 1e-7), ("N-a", "N-b", 1e-7)]
        loops = [
            between([*self.line, *at_board], "L-a", f"L{one}") + between([*self.earth, *at_board], "E-a", f"E{one}")
            for one in self.sockets
        ]
        expected = next(one for one in made.steps if one.subject == RING and one.step == "r1_r2")
        self.assertAlmostEqual(max(loops), (R_2_5 + R_1_5) * LENGTH_M / 4, places=6)
        self.assertLessEqual(expected.expected_low or 0, max(loops))
        self.assertGreaterEqual(expected.expected_high or 0, max(loops))

    def test_volts_lost_at_every_socket(self) -> None:
        """20 A at any one point, 12 A spread evenly round, conductors as warm as 20 of their 27 A make them."""
        points = 59
        every_m = [LENGTH_M * (at + 1) / (points + 1) for at in range(points)]
        warm = 1 + 0.004 * (30 + 40 * (20 / 27) ** 2 - 20)
        lost = np.linalg.inv(nodes(wire("L", every_m, R_2_5 * warm), points))
        worst_v = max(
            2 * float((lost @ np.array([12 / points + 20 * (at == far) for at in range(points)])).max())
            for far in range(points)
        )
        found = next(one for one in evaluation(WIRED_ANEW, AS_RING).findings if one.key == f"volt_drop/{RING}")
        own_v = found.working[-2].value or 0.0
        self.assertAlmostEqual(own_v / worst_v, 1, delta=0.03)

    def test_the_longest_ring_of_the_handbook(self) -> None:
        """IET On-Site Guide, longest circuits, from memory: 106 m of 2.5/1.5 behind B32 loses 5 % of 230 V."""
        found = evaluation(WIRED_ANEW, AS_RING | {"circuits.2.route.0.length_m": 106.0}).findings
        own_v = next(one for one in found if one.key == f"volt_drop/{RING}").working[-2].value or 0.0
        self.assertAlmostEqual(own_v, 11.5, delta=0.3)

    def test_cross_connected_each_point_reads_a_quarter(self) -> None:
        across = [("L-a", "N-b", 1e-7), ("L-b", "N-a", 1e-7)]
        alike = [between([*self.line, *self.neutral, *across], f"L{one}", f"N{one}") for one in self.sockets]
        quarter = (2 * R_2_5 * LENGTH_M) / 4
        self.assertLess(max(alike) - min(alike), 1e-6)
        self.assertAlmostEqual(max(alike), quarter, places=6)
        crossed = [("L-a", "E-b", 1e-7), ("L-b", "E-a", 1e-7)]
        to_earth = [between([*self.line, *self.earth, *crossed], f"L{one}", f"E{one}") for one in self.sockets]
        self.assertAlmostEqual(max(to_earth), (R_2_5 + R_1_5) * LENGTH_M / 4, places=6)
        self.assertGreater(max(to_earth) - min(to_earth), 0.001, "a smaller earth varies round the ring")

    def test_what_the_network_reads_agrees_and_a_fault_does_not(self) -> None:
        r1, r2 = R_2_5 * LENGTH_M, R_1_5 * LENGTH_M
        quarter_n, quarter_e = r1 / 2, (r1 + r2) / 4
        sound = {"ring_r1": r1, "ring_rn": r1, "ring_r2": r2, "r1_rn": quarter_n, "r1_r2": quarter_e}
        rules = ("agree_ring_r1", "agree_ring_rn", "agree_ring_r2", "agree_ring_across_n", "agree_ring_across_e")
        self.assertEqual(self.judged(sound, rules), dict.fromkeys(rules, Verdict.MEETS))
        for reading, value, rule in (
            ("ring_rn", r1 + 0.08, "agree_ring_rn"),  # a loose neutral
            ("ring_r2", r2 + 0.09, "agree_ring_r2"),  # a loose earth
            ("ring_r1", r1 * 0.6, "agree_ring_r1"),  # bridged: a ring inside the ring
            ("r1_rn", quarter_n + 0.09, "agree_ring_across_n"),  # a long spur
            ("r1_r2", quarter_e - 0.08, "agree_ring_across_e"),
        ):
            with self.subTest(reading, value=round(value, 2)):
                self.assertIs(self.judged({**sound, reading: value}, (rule,))[rule], Verdict.YOUR_CALL)

    def judged(self, figures: dict[str, float], rules: tuple[str, ...]) -> dict[str, Verdict]:
        readings = [read(step, round(value, 2), place + 1) for place, (step, value) in enumerate(figures.items())]
        found = evaluation(WIRED_ANEW, {**AS_RING, **WITH_TESTER, "readings": readings}).findings
        return {one.rule: one.verdict for one in found if one.subject == RING and one.rule in rules}

    def test_an_open_ring_falls_short(self) -> None:
        open_one = read("ring_rn", 999.0, 1) | {"outcome": "over_range"}
        found = evaluation(WIRED_ANEW, {**AS_RING, "readings": [open_one]}).findings
        self.assertIn(f"reading_ring_rn/{RING}", {one.key for one in found if one.verdict is Verdict.FALLS_SHORT})

    def test_its_steps_and_no_long_lead(self) -> None:
        steps = [one.step.value for one in evaluation(WIRED_ANEW, AS_RING).steps if one.subject == RING]
        self.assertEqual(steps[:6], ["ring_r1", "ring_rn", "ring_r2", "r1_r2", "r1_rn", "ring_alike"])
        self.assertNotIn("r2", steps)
        self.assertEqual(job(WIRED_ANEW, AS_RING).circuits[2].ring, True)
