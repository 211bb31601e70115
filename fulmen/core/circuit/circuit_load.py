"""What each circuit must carry: cars in full, the other loads of the boards it feeds with diversity, a clamp's limit.

At a three-phase circuit the figures are those of its most loaded line conductor; the other loads of a board are
counted on it whole, which is the safe side.
"""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.demand.demand import held_demand_a
from fulmen.core.demand.diversity import diversified_a
from fulmen.core.installation.installation import Installation
from fulmen.core.installation.tree import Tree
from fulmen.core.model.boards import Board
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit, Phase
from fulmen.core.reference.rule_set import RuleSet


@dataclass(frozen=True, slots=True)
class CircuitLoad:
    """The load of one circuit on its most loaded line conductor.

    `balanced_a` is the part drawn by three-phase charge points, `car_a` all charge points, `other_a` the rest;
    `ib_a` is their sum, or what a clamp holds it to. `ring_leg_a` is what flows at most in each way of a ring, None
    where it is none.
    """

    ib_a: float
    car_a: float
    balanced_a: float
    other_a: float
    ring_leg_a: float | None = None

    @property
    def single_a(self) -> float:
        """What flows in one line conductor and comes back in the neutral, as if all of it went to the end [A].

        On a ring one way's share goes to its middle; the rest, spread evenly round it, loses half as much (common
        practice, no source).
        """
        single_a, leg_a = max(0.0, self.ib_a - self.balanced_a), self.ring_leg_a
        return single_a if leg_a is None else leg_a + (single_a - leg_a) / 2

    @property
    def conductor_a(self) -> float:
        """What warms a conductor [A]."""
        return self.ib_a if self.ring_leg_a is None else self.ring_leg_a


def circuit_load(installation: Installation, circuit: Circuit, rules: RuleSet) -> CircuitLoad:
    """The load of one circuit.

    Ib = ΣI cars + I others, or min(that, max(limit, I others)) behind a clamp.

    Args:
        installation: what hangs behind the circuit.
        circuit: a circuit of the installation.
        rules: the edition's diversity.
    """
    tree = installation.tree
    boards, fed = _below(tree, circuit)
    cars = [(tree.points[feeder.feeds], feeder) for feeder in fed if feeder.feeds in tree.points]
    balanced_a = sum(point.design_current_a() for point, _ in cars if point.phase_count == 3)
    point = tree.points.get(circuit.feeds)
    single_a = _most_loaded_a(tree, cars, circuit.phases if point is None else point.phase_count)
    other_a = sum(diversified_a(board.other_loads, rules) for board in boards)
    other_a += sum(diversified_a(one.loads, rules) for one in fed)
    held_a = held_demand_a(other_a, balanced_a + single_a, circuit.load_limit_a)
    assert held_a is not None
    leg_a = min(held_a, rules.value("ring_leg_a")) if circuit.ring else None
    return CircuitLoad(held_a, balanced_a + single_a, min(balanced_a, held_a), other_a, leg_a)


def _most_loaded_a(tree: Tree, cars: list[tuple[ChargePoint, Circuit]], phases: int) -> float:
    """Single-phase cars: all in one conductor, or by the phase each is on."""
    single = [(tree.line_of(feeder), point.design_current_a()) for point, feeder in cars if point.phase_count == 1]
    if phases == 1:
        return sum(current_a for _, current_a in single)
    return max(sum(current_a for on, current_a in single if on is phase) for phase in Phase)


def _below(tree: Tree, circuit: Circuit) -> tuple[list[Board], list[Circuit]]:
    """The boards that a circuit feeds, at any depth, and itself with every circuit after it."""
    boards, fed, waiting = [], [circuit], [circuit.feeds]
    while waiting:
        board = tree.boards.get(waiting.pop())
        if board is not None:
            boards.append(board)
            fed.extend(tree.leaving[board.id])
            waiting.extend(one.feeds for one in tree.leaving[board.id])
    return boards, fed
