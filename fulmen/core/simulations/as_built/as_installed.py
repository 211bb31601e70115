"""A job as it was built, which may not be as it was designed: its conductors as a network of resistances.

Computed from the job's own figures (conductors at the day's temperature, armour beside the core, tails, the supply's
loop), then altered by faults. What an instrument shows follows from this network, between the terminals of its leads.
Nodes are named by conductor and place: `ev.L1` is the line at the far end of circuit `ev`, `ev.E0` its earth at the
board, `rcd-box:before.L1` and `rcd-box:behind.L0` its line on either side of a box that parts it; `supply.L` and
`supply.E` are the cut-out's; `met` the main earthing terminal, `unit.E` the unit's earth bar, `plug.L` a contact of the
connector. Of three lines one stands for all, as their highest reading is what counts.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise
from math import inf, prod

from fulmen.core.circuit.origin import declared_ze_ohm
from fulmen.core.circuit.people import has_car_electrode
from fulmen.core.circuit.run_figures import Case, CircuitFigures, figures_of_leg
from fulmen.core.electrical.fault_loop import conductor_ohm, temperature_factor
from fulmen.core.electrical.network import JOINED_OHM, Edge, reached_from, resistance_between
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.faults.faults import Built, Fault
from fulmen.core.verification.steps.contents import pole_ohm

# How a supply's loop is shared out where nobody knows: half in the line, the rest in what leads back. A separate
# neutral is a little thicker than a sheath; on TT it is the declared TN-C-S loop's. Our own, no source.
LINE_SHARE, TN_S_NEUTRAL_SHARE = 0.5, 0.4
BOND_OHM, EARTHING_CONDUCTOR_OHM = 0.02, 0.005
# A contact of a switch, a contactor or a connector; a breaker has this part of the most that its standard allows. The
# lead of a unit that nobody has told of, and one for a socket. Our own, no source.
CONTACT_OHM, OF_THE_MOST, USUAL_LEAD = 0.001, 0.6, (5.0, 6.0)
# New cable, and what lies between an island's two earths.
SOUND_MOHM, EARTHS_APART_MOHM = 5000.0, 200.0


Joined = tuple[tuple[str, str], ...]


class Potential(StrEnum):
    """What a point stands at while the supply is on."""

    LINE = "line"
    NEUTRAL = "neutral"
    EARTH = "earth"
    FREE = "free"


@dataclass(frozen=True)
class AsInstalled:
    """The network of one run: the supply, conductors by circuit, what lies beside; poor insulation by subject [MΩ].

    `parts` are the conductors that a dead test of a subject meets: a circuit's with the boxes on its way joined past
    their devices, or those of a part of its cable alone; `ends` the names of each subject's nodes near and far.

    `joints` are where the circuits are joined at their boards, and the car to the unit; `edges` everything that leads
    while everything is on and a car is charging; `potentials` the points behind the supply's line, behind its neutral,
    and on its earth or, on an island, the car's own.
    """

    case: Case
    faults: tuple[Fault, ...]
    supply: tuple[Edge, ...]
    conductors: dict[str, tuple[Edge, ...]]
    beside: tuple[Edge, ...]
    parts: dict[str, tuple[Edge, ...]]
    ends: dict[str, tuple[str, str]]
    insulation: dict[str, dict[frozenset[str], float]]
    joints: tuple[Edge, ...]
    edges: tuple[Edge, ...]
    potentials: dict[Potential, set[str]]

    @property
    def final(self) -> str:
        """The circuit that ends at the charge point."""
        return self.case.run.final().circuit.id

    def wrong_at(self, step: str) -> bool:
        """Whether something is found wrong at a step."""
        return any(step in one.built.wrong_at for one in self.faults)

    def size(self, wanted: Callable[[Built], object], otherwise: float = 0.0) -> float:
        """The size of the fault that is built so, or what stands there without one."""
        return next((one.size for one in self.faults if wanted(one.built)), otherwise)

    def has(self, wanted: Callable[[Built], object]) -> bool:
        """Whether a fault is built so."""
        return any(wanted(one.built) for one in self.faults)

    def node(self, subject: str, conductor: str, *, far: bool) -> str:
        """The end of a conductor of a circuit, or of a part of its cable."""
        return f"{self.ends[subject][far]}.{conductor}{int(far)}"

    def dead_ohm(self, subject: str, a: str, b: str, links: Joined = ()) -> float:
        """What an ohmmeter reads between two points of a cable that is off, with some points linked [Ω]."""
        return resistance_between(self.dead_edges(subject, links), a, b)

    def dead_edges(self, subject: str, links: Joined = ()) -> tuple[Edge, ...]:
        """What leads of a cable that is off: its line and neutral are open at the board, all of it at a box.

        Its earth is not at the board, so what lies in parallel shows.
        """
        linked = [(one, other, JOINED_OHM) for one, other in links]
        leg = self.case.installation.leg(subject)
        own = leg.circuit if leg is not None else subject
        others = [edge for name, edges in self.conductors.items() if name != own for edge in edges]
        earths = [edge for edge in (*others, *self.joints) if _earth(edge)]
        return (*self.parts[subject], *linked, *earths, *self.supply, *self.beside)

    def loop_ohm(self, a: str, b: str, *, without_earths: bool = False) -> float:
        """The loop that a tester finds between two live points: the source shorted, everything switched on [Ω].

        Args:
            without_earths: the earthing conductor is off the terminal, so the supply's earth is read alone.
        """
        return resistance_between(self.supply if without_earths else self.edges, a, b)

    def insulation_mohm(self, subject: str, one: Iterable[str], other: Iterable[str]) -> float:
        """What lies between two groups of conductors of a cable [MΩ]: every way from one to the other."""
        poor = self.insulation.get(subject, {})
        siemens = sum(1 / max(poor.get(frozenset((a, b)), SOUND_MOHM), 1e-4) for a in one for b in other if a != b)
        return 1 / siemens if siemens else inf

    def potential(self, node: str) -> Potential:
        """What a point stands at with the supply on, whatever colour its conductor has."""
        return next((at for at, nodes in self.potentials.items() if node in nodes), Potential.FREE)


def _earth(edge: Edge) -> bool:
    """Whether a piece of conductor is a protective one."""
    return any(".E" in node or node == "met" for node in edge[:2])


def as_installed(case: Case, faults: tuple[Fault, ...] = (), *, ze_ohm: float | None = None) -> AsInstalled:
    """A run as it was built.

    Args:
        case: the run with its figures; every circuit has a route.
        faults: what differs from the design.
        ze_ohm: what the supply's loop really is [Ω]; as enquired or declared where not given.
    """
    assert case.figures is not None
    factor = temperature_factor(case.job.testing.conductors_c if case.job.testing.conductors_c is not None else 20.0)
    final = case.run.final().circuit.id
    own = {
        chained.circuit.id: tuple(one for one in faults if (one.circuit or final) == chained.circuit.id)
        for chained in case.figures.chain
    }
    supply, beside = _supply(case, faults, ze_ohm), _beside(case, faults, final)
    parts: dict[str, tuple[Edge, ...]] = {}
    ends: dict[str, tuple[str, str]] = {}
    for chained in case.figures.chain:
        _lay(chained, case, (factor, own[chained.circuit.id]), parts, ends)
    conductors = {chained.circuit.id: parts[chained.circuit.id] for chained in case.figures.chain}
    joints = _joints(case, list(conductors), final)
    edges = (*supply, *(edge for edges in conductors.values() for edge in edges), *joints, *beside)
    # What is hurt is hurt in the last part of a cable.
    insulation = {circuit: _insulation(its) for circuit, its in own.items()}
    insulation |= {case.installation.legs[circuit][-1].subject: poor for circuit, poor in insulation.items()}
    return AsInstalled(
        case, faults, supply, conductors, beside, parts, ends, insulation, joints, edges, _potentials(case, edges)
    )  # fmt: skip


def _joints(case: Case, chain: list[str], final: str) -> tuple[Edge, ...]:
    """Where the circuits of the run are joined at their boards, and the car to the unit."""
    joints: list[Edge] = [("met", "supply.E", JOINED_OHM), ("met", f"{chain[0]}.E0", JOINED_OHM)]
    poles = {one.circuit.id: OF_THE_MOST * pole_ohm(one.circuit.device.rating_a) for one in case.run.chain}
    before_it = ("main.L", "main.N")
    for circuit in chain:
        # The device's pole in the line, a switch's contact in either.
        joints.append((before_it[0], f"{circuit}.L0", poles[circuit] + CONTACT_OHM))
        joints.append((before_it[1], f"{circuit}.N0", CONTACT_OHM))
        before_it = (f"{circuit}.L1", f"{circuit}.N1")
    joints += [(f"{before}.E1", f"{after}.E0", JOINED_OHM) for before, after in pairwise(chain)]
    lead_ohm = _lead_ohm(case)
    if not has_car_electrode(case):
        joints.append((f"{final}.E1", "unit.E", JOINED_OHM))
    return (
        *joints,
        ("unit.E", "plug.E", lead_ohm + CONTACT_OHM),
        (f"{final}.L1", "plug.L", lead_ohm + 2 * CONTACT_OHM),
        (f"{final}.N1", "plug.N", lead_ohm + 2 * CONTACT_OHM),
    )


def _lead_ohm(case: Case) -> float:
    """One conductor between the unit and the adapter: the lead of a tethered unit, or the tester's own [Ω]."""
    point = case.run.charge_point
    if point.tethered is False:
        return (case.job.testing.test_lead_ohm or 0.0) / 2
    length_m, size_mm2 = point.lead_length_m or USUAL_LEAD[0], point.lead_csa_mm2 or USUAL_LEAD[1]
    return conductor_ohm(length_m, size_mm2, fine_strands=True)


def _potentials(case: Case, edges: tuple[Edge, ...]) -> dict[Potential, set[str]]:
    """The points behind the supply's line, behind its neutral, and on its earth or, on an island, the car's own."""
    apart = [edge for edge in edges if "star" not in edge and edge[:2] != ("supply.N", "supply.E")]
    earths = ("met", "unit.E") if has_car_electrode(case) else ("met",)
    return {
        Potential.LINE: reached_from(apart, "supply.L"),
        Potential.NEUTRAL: reached_from(apart, "supply.N"),
        Potential.EARTH: {node for earth in earths for node in reached_from(apart, earth)},
    }


def _lay(
    chained: CircuitFigures,
    case: Case,
    how: tuple[float, tuple[Fault, ...]],
    parts: dict[str, tuple[Edge, ...]],
    ends: dict[str, tuple[str, str]],
) -> None:
    """The conductors of a circuit, part by part; what is wrong with them is wrong in the last one."""
    circuit, legs, factor, faults = chained.circuit.id, case.installation.legs[chained.circuit.id], *how
    everywhere = tuple(one for one in faults if one.built.longer)
    whole: list[Edge] = []
    for leg in legs:
        first, last = leg is legs[0], leg is legs[-1]
        ends[leg.subject] = (circuit if first else leg.subject, circuit if last else leg.subject)
        figures = chained if len(legs) == 1 else figures_of_leg(chained, leg)
        parts[leg.subject] = _part(figures, ends[leg.subject], factor, faults if last else everywhere)
        whole += parts[leg.subject]
    for before, after in pairwise(legs):
        whole += [
            (f"{ends[before.subject][1]}.{one}1", f"{ends[after.subject][0]}.{one}0", CONTACT_OHM) for one in "LNE"
        ]
    parts[circuit], ends[circuit] = tuple(whole), (circuit, circuit)


def _part(figures: CircuitFigures, ends: tuple[str, str], factor: float, faults: tuple[Fault, ...]) -> tuple[Edge, ...]:
    """The three conductors of a part of a cable, with what is wrong with them."""
    (near, far), laid = ends, figures.laid
    factor *= prod(one.size for one in faults if one.built.longer)
    off, to = {one.built.off for one in faults}, {conductor: conductor for conductor in "LNE"}
    for pair in (tuple(one.built.crossed) for one in faults if one.built.crossed):
        to |= dict(zip(pair, (to[one] for one in reversed(pair)), strict=True))
    ohm = {"L": laid.r1_ohm * factor, "N": laid.r1_ohm * factor, "E": laid.least_r2_ohm * factor}
    return tuple(
        (
            f"{near}.{conductor}0",
            f"{far}.{to[conductor]}1",
            ohm[conductor] + sum(one.size for one in faults if one.built.joint == conductor),
        )
        for conductor in "LNE"
        if conductor not in off
    )


def _supply(case: Case, faults: tuple[Fault, ...], ze_ohm: float | None) -> tuple[Edge, ...]:
    """The supply from its star point to the cut-out and the main switch, tails between them."""
    assert case.figures is not None
    earthing, tails = case.job.supply.earthing, case.figures.tails
    declared_pen_ohm = case.rules.value("declared_ze_tn_c_s_ohm")
    ze = ze_ohm if ze_ohm is not None else case.origin.ze.value
    for fault in (one for one in faults if one.built.supply == "ze"):
        ze = fault.size * declared_ze_ohm(case.job.supply, case.rules)
    tn_ohm = min(declared_pen_ohm if earthing is Earthing.TT else ze, declared_pen_ohm)
    line = LINE_SHARE * tn_ohm
    lost = sum(one.size for one in faults if one.built.supply == "neutral")
    edges: list[Edge] = [("star", "supply.L", line)]
    if earthing is Earthing.TN_C_S:
        # One conductor for both: the rest of the loop lies in it.
        edges += [("star", "supply.N", max(ze - line, 0.001) + lost), ("supply.N", "supply.E", JOINED_OHM)]
    else:
        share = TN_S_NEUTRAL_SHARE if earthing is Earthing.TN_S else 1 - LINE_SHARE
        edges += [("star", "supply.N", share * tn_ohm + lost), ("star", "supply.E", max(ze - line, 0.001))]
    return (*edges, *((f"supply.{one}", f"main.{one}", tails.r1_ohm or JOINED_OHM) for one in "LN"))


def _beside(case: Case, faults: tuple[Fault, ...], final: str) -> tuple[Edge, ...]:
    """What lies beside the conductors: bonding, another earth at the unit, the car's electrode, what joins the two."""
    assert case.figures is not None
    loose = sum(one.size for one in faults if one.built.bond)
    edges: list[Edge] = [("met", "service", BOND_OHM + loose)]
    for fault in (one for one in faults if one.built.beside):
        edges.append((f"{final}.E1", "met", max(0.01, fault.size * case.figures.final.laid.least_r2_ohm)))
    if has_car_electrode(case):
        electrode = case.arrangement.electrode_design_ohm or 30.0
        edges.append(("unit.E", "star", electrode + 1.0))
        edges += [("unit.E", f"{final}.E1", one.size) for one in faults if one.built.joins_earths]
    return tuple(edges)


def _insulation(faults: tuple[Fault, ...]) -> dict[frozenset[str], float]:
    """What is poor between the conductors of a circuit [MΩ]."""
    return {frozenset(pair): one.built.times * one.size for one in faults for pair in one.built.poor}


def electrode_ohm(house: AsInstalled) -> float:
    """The installation's own electrode alone [Ω]; on an island the car's."""
    if has_car_electrode(house.case):
        return house.case.arrangement.electrode_design_ohm or 30.0
    return house.case.origin.electrode.value
