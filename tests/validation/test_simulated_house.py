"""The simulated house's loops and continuity against a general network library.

Source: networkx, `resistance_distance` (Kirchhoff index of a weighted graph; Klein and Randić, 1993), which knows nothing of
installations. Within 0.5 %; for the resistance of a network alone far closer.
"""

import unittest

import networkx
from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.circuit.run_figures import Case, cases_of
from fulmen.core.electrical.network import Edge, currents_between, resistance_between
from fulmen.core.judging.known import known_for
from fulmen.core.simulations.as_built.as_installed import as_installed
from fulmen.core.verification.faults.faults import Fault
from tests.figures import figures
from tests.jobs import DEVICE_IN_UNIT, GARAGE, HALFWAY, RULES, TREATED_AS_PME, TT, job
from tests.sampling import tries

NODES = ("a", "b", "c", "d", "e", "f")


def by_library(edges: list[Edge], a: str, b: str) -> float:
    graph = networkx.Graph()
    siemens: dict[tuple[str, str], float] = {}
    for one, other, ohm in edges:
        key = (min(one, other), max(one, other))
        siemens[key] = siemens.get(key, 0.0) + 1 / ohm
    for (one, other), value in siemens.items():
        graph.add_edge(one, other, weight=1 / value)
    reached = graph.subgraph(networkx.node_connected_component(graph, a))
    return float(networkx.resistance_distance(reached, a, b, weight="weight", invert_weight=True))


def case_of(name: str) -> Case:
    whole = job(name, {"readings": []})
    return cases_of(known_for(whole, RULES))[0]


class Network(unittest.TestCase):
    @tries(60)
    @given(
        st.lists(st.tuples(st.sampled_from(NODES), st.sampled_from(NODES), figures(0.01, 100)), min_size=1, max_size=14)
    )
    def test_any_network(self, edges: list[Edge]) -> None:
        edges = [one for one in edges if one[0] != one[1]] + [("a", "b", 5.0)]
        self.assertAlmostEqual(resistance_between(edges, "a", "b"), by_library(edges, "a", "b"), 6)

    @tries(60)
    @given(
        st.lists(st.tuples(st.sampled_from(NODES), st.sampled_from(NODES), figures(0.01, 100)), min_size=1, max_size=14)
    )
    def test_currents_add_up_at_every_point(self, edges: list[Edge]) -> None:
        """Kirchhoff: what flows into a point flows out of it, one ampere at the two ends."""
        edges = [one for one in edges if one[0] != one[1]] + [("a", "b", 5.0)]
        flows = currents_between(edges, "a", "b")
        for node in NODES:
            out = sum(
                flow if one == node else -flow
                for (one, other, _), flow in zip(edges, flows, strict=True)
                if node in (one, other)
            )
            self.assertAlmostEqual(out, {"a": 1.0, "b": -1.0}.get(node, 0.0), 6)

    def test_what_nothing_joins_is_open(self) -> None:
        self.assertEqual(resistance_between([("a", "b", 1.0), ("c", "d", 1.0)], "a", "d"), float("inf"))
        self.assertEqual(resistance_between([("a", "b", 1.0)], "a", "a"), 0.0)


class House(unittest.TestCase):
    FAULTS = ((), (Fault("parallel_earth", 0.1),), (Fault("earth_joint", 0.5),))

    def test_loops_at_the_far_end(self) -> None:
        for name in (DEVICE_IN_UNIT, TREATED_AS_PME, HALFWAY, TT, GARAGE):
            case = case_of(name)
            for faults in self.FAULTS:
                house = as_installed(case, faults)
                final = case.run.final().circuit.id
                edges = list(house.edges)
                for point in ("E1", "N1"):
                    ours = house.loop_ohm(f"{final}.L1", f"{final}.{point}")
                    theirs = by_library(edges, f"{final}.L1", f"{final}.{point}")
                    with self.subTest(name, point=point, faults=len(faults)):
                        self.assertAlmostEqual(ours, theirs, delta=0.005 * theirs)

    def test_a_sound_house_reads_what_the_design_expects(self) -> None:
        """Two ways to one figure: the network's loop, and Ze + tails + R1+R2 of the run's own figures at 20 °C, with a
        switch's milliohm and a pole that makes six tenths of what IEC 60898-1 allows (from memory: 7.5 W at 40 A)."""
        for name in (DEVICE_IN_UNIT, HALFWAY):
            case = case_of(name)
            whole, figures_ = as_installed(job_at_20(case)), case.figures
            assert figures_ is not None
            laid, final = figures_.final.laid, case.run.final().circuit.id
            expected = figures_.ze.value + figures_.tails.r1_ohm + laid.r1_ohm + laid.least_r2_ohm
            device_a = case.run.final().circuit.device.rating_a
            expected += 0.001 + 0.6 * {32: 6.0, 40: 7.5}[device_a] / device_a**2
            with self.subTest(name):
                self.assertAlmostEqual(whole.loop_ohm(f"{final}.L1", f"{final}.E1"), expected, delta=0.005 * expected)


def job_at_20(case: Case) -> Case:
    testing = case.job.testing.model_copy(update={"conductors_c": 20.0})
    whole = case.job.model_copy(update={"testing": testing})
    return cases_of(known_for(whole, RULES))[0]


if __name__ == "__main__":
    unittest.main()
