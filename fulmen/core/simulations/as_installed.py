"""A job as it was built, which may not be as it was designed: its conductors as a network of resistances.

Computed from the job's own figures (conductors at the day's temperature, armour beside the core, tails, the supply's
loop), then altered by faults. What an instrument shows follows from this network, between the terminals of its leads.
Points are named by conductor and place: `ev.L1` is the line at the far end of circuit `ev`, `ev.E0` its earth at the
board; `supply.L` and `supply.E` are the cut-out's; `met` the main earthing terminal.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from itertools import pairwise
from math import inf

from fulmen.core.circuit.origin import declared_ze_ohm, external_loop, supply_electrode
from fulmen.core.circuit.run_figures import Case, CircuitFigures
from fulmen.core.electrical.fault_loop import temperature_factor
from fulmen.core.electrical.network import JOINED_OHM, Edge, resistance_between
from fulmen.core.model.supply import Earthing
from fulmen.core.simulations.faults import Fault, FaultKind
from fulmen.core.verification.step_applies import has_car_electrode

# How a supply's loop is shared out where nobody knows: half in the line, the rest in what leads back. A separate
# neutral is a little thicker than a sheath; on TT it is the declared TN-C-S loop's. Our own, no source.
LINE_SHARE, TN_S_NEUTRAL_SHARE = 0.5, 0.4
OPERATORS_ELECTRODE_OHM = 5.0
BOND_OHM = 0.02
# New cable, and what the ground leads between an island's two earths.
SOUND_MOHM = 5000.0


@dataclass(frozen=True)
class AsInstalled:
    """The network of one run: conductors by circuit, the supply's, and insulation between conductors [MΩ]."""

    case: Case
    faults: tuple[Fault, ...]
    supply: tuple[Edge, ...]
    conductors: dict[str, tuple[Edge, ...]]
    beside: tuple[Edge, ...] = ()
    insulation: dict[frozenset[str], float] = field(default_factory=dict)

    def fault(self, kind: FaultKind) -> Fault | None:
        """The fault of a kind, if it is there."""
        return next((one for one in self.faults if one.kind is kind), None)

    def dead_ohm(self, circuit: str, a: str, b: str, links: tuple[tuple[str, str], ...] = ()) -> float:
        """What an ohmmeter reads between two points of a circuit that is off, with some points linked [Ω].

        Its line and neutral are off at the board; its earth is not, so what lies in parallel shows.
        """
        joined = [(one, other, JOINED_OHM) for one, other in links]
        earths = [
            edge for name, edges in self.conductors.items() if name != circuit for edge in edges if ".E" in edge[0]
        ]
        return resistance_between([*self.conductors[circuit], *joined, *earths, *self.joints(), *self.beside], a, b)

    def loop_ohm(self, a: str, b: str, *, without_earths: bool = False) -> float:
        """The loop that a tester finds between two live points: the source shorted, everything switched on [Ω].

        Args:
            without_earths: the earthing conductor is off the terminal, so the supply's earth is read alone.
        """
        edges = list(self.supply)
        if without_earths:
            return resistance_between(edges, a, b)
        edges += [edge for own in self.conductors.values() for edge in own]
        return resistance_between([*edges, *self.joints(), *self.beside, ("supply.E", "met", JOINED_OHM)], a, b)

    def insulation_mohm(self, circuit: str, one: str, other: str) -> float:
        """What lies between two conductors, or groups of them, of a circuit [MΩ]: every way from one to the other."""
        siemens = sum(
            1 / max(self.insulation.get(frozenset((a, b)), SOUND_MOHM), 1e-4) for a in one for b in other if a != b
        )
        return 1 / siemens if siemens else inf

    def joints(self) -> list[Edge]:
        """Where the circuits of the run are joined at their boards."""
        chain = [chained.circuit.id for chained in self.case.run.chain]
        joints: list[Edge] = [("met", f"{chain[0]}.E0", JOINED_OHM)]
        joints += [("main.L", f"{chain[0]}.L0", JOINED_OHM), ("main.N", f"{chain[0]}.N0", JOINED_OHM)]
        for before, after in pairwise(chain):
            joints += [(f"{before}.{one}1", f"{after}.{one}0", JOINED_OHM) for one in "LNE"]
        return joints


def as_installed(case: Case, faults: tuple[Fault, ...] = (), *, ze_ohm: float | None = None) -> AsInstalled:
    """A run as it was built.

    Args:
        case: the run with its figures; every circuit has a route.
        faults: what differs from the design.
        ze_ohm: what the supply's loop really is [Ω]; as enquired or declared where not given.
    """
    assert case.figures is not None
    by_kind = {one.kind: one for one in faults}
    factor = temperature_factor(case.job.testing.conductors_c if case.job.testing.conductors_c is not None else 20.0)
    final = case.run.final().circuit.id
    conductors = {
        chained.circuit.id: _circuit(chained, factor, by_kind if chained.circuit.id == final else {})
        for chained in case.figures.chain
    }
    island = has_car_electrode(case)
    return AsInstalled(
        case,
        faults,
        _supply(case, by_kind, ze_ohm),
        conductors,
        _beside(case, by_kind, final, island=island),
        _insulation(by_kind),
    )


def _circuit(chained: CircuitFigures, factor: float, faults: dict[FaultKind, Fault]) -> tuple[Edge, ...]:
    """The three conductors of a circuit, with what is wrong with them."""
    name, laid = chained.circuit.id, chained.laid
    longer = faults[FaultKind.LONGER_CABLE].size if FaultKind.LONGER_CABLE in faults else 1.0
    line, earth = laid.r1_ohm * factor * longer, laid.least_r2_ohm * factor * longer
    joint = {kind: faults[kind].size if kind in faults else 0.0 for kind in JOINTS}
    crossed = FaultKind.LINE_NEUTRAL_CROSSED in faults
    line_end, neutral_end = ("N1", "L1") if crossed else ("L1", "N1")
    edges = [
        (f"{name}.L0", f"{name}.{line_end}", line + joint[FaultKind.LINE_JOINT]),
        (f"{name}.N0", f"{name}.{neutral_end}", line + joint[FaultKind.NEUTRAL_JOINT]),
    ]
    if FaultKind.NO_EARTH not in faults:
        edges.append((f"{name}.E0", f"{name}.E1", earth + joint[FaultKind.EARTH_JOINT]))
    return tuple(edges)


JOINTS = (FaultKind.LINE_JOINT, FaultKind.NEUTRAL_JOINT, FaultKind.EARTH_JOINT)


def _supply(case: Case, faults: dict[FaultKind, Fault], ze_ohm: float | None) -> tuple[Edge, ...]:
    """The supply from its star point to the cut-out and the main switch, tails between them."""
    assert case.figures is not None
    earthing, tails = case.job.supply.earthing, case.figures.tails
    ze = ze_ohm if ze_ohm is not None else external_loop(case.job, case.rules).value
    if FaultKind.HIGH_ZE in faults:
        ze = faults[FaultKind.HIGH_ZE].size * declared_ze_ohm(case.job, case.rules)
    tn_ohm = case.rules.value("declared_ze_tn_c_s_ohm") if earthing is Earthing.TT else ze
    line = LINE_SHARE * min(tn_ohm, case.rules.value("declared_ze_tn_c_s_ohm"))
    neutral_share = TN_S_NEUTRAL_SHARE if earthing is Earthing.TN_S else 1 - LINE_SHARE
    neutral = neutral_share * min(tn_ohm, case.rules.value("declared_ze_tn_c_s_ohm"))
    if FaultKind.POOR_SUPPLY_NEUTRAL in faults:
        neutral += faults[FaultKind.POOR_SUPPLY_NEUTRAL].size
    edges: list[Edge] = [("star", "supply.L", line), ("star", "supply.N", neutral)]
    if earthing is Earthing.TN_C_S:
        # One conductor for both: the rest of the loop lies in it.
        edges[1] = ("star", "supply.N", max(ze - line, 0.001) + neutral - neutral_share * min(tn_ohm, 0.35))
        edges.append(("supply.N", "supply.E", JOINED_OHM))
    else:
        edges.append(("star", "supply.E", max(ze - line, 0.001)))
    edges += [("supply.L", "main.L", tails.r1_ohm or JOINED_OHM), ("supply.N", "main.N", tails.r1_ohm or JOINED_OHM)]
    return tuple(edges)


def _beside(case: Case, faults: dict[FaultKind, Fault], final: str, *, island: bool) -> tuple[Edge, ...]:
    """What lies beside the conductors: another earth at the unit, the car's own electrode, what joins the two."""
    assert case.figures is not None
    edges: list[Edge] = []
    if FaultKind.PARALLEL_EARTH in faults:
        share = faults[FaultKind.PARALLEL_EARTH].size
        edges.append((f"{final}.E1", "met", max(0.01, share * case.figures.final.laid.least_r2_ohm)))
    if island:
        electrode = case.arrangement.electrode_design_ohm or 30.0
        edges.append(("car.E", "star", electrode + 1.0))
        if FaultKind.EARTHS_JOINED in faults:
            edges.append(("car.E", f"{final}.E1", faults[FaultKind.EARTHS_JOINED].size))
    return tuple(edges)


def _insulation(faults: dict[FaultKind, Fault]) -> dict[frozenset[str], float]:
    """What is poor between conductors [MΩ]."""
    found: dict[frozenset[str], float] = {}
    if FaultKind.WET_INSULATION in faults:
        # The same everywhere: each pair a little better than what live conductors together read.
        found = {frozenset(pair): 2 * faults[FaultKind.WET_INSULATION].size for pair in ("LN", "LE", "NE")}
    if FaultKind.DAMAGED_CABLE in faults:
        found[frozenset("LE")] = faults[FaultKind.DAMAGED_CABLE].size
    if FaultKind.NEUTRAL_TO_EARTH in faults:
        found[frozenset("NE")] = faults[FaultKind.NEUTRAL_TO_EARTH].size
    return found


def electrode_ohm(house: AsInstalled) -> float:
    """The installation's own electrode alone [Ω]; on an island the car's."""
    if has_car_electrode(house.case):
        return house.case.arrangement.electrode_design_ohm or 30.0
    return supply_electrode(house.case.job, house.case.rules).value
