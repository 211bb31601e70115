"""Every figure of one run, computed once along its chain of circuits: loads, ratings, volt drop, loop, fault level.

The checks judge these figures and nothing else; the options search weighs ways by them too. Volts are line to neutral,
so that single-phase and three-phase circuits add up along one chain.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import accumulate

from fulmen.core.circuit.circuit_load import CircuitLoad, circuit_load
from fulmen.core.circuit.laid_cable import NO_FLEX, LaidCable, SectionFigures, laid_cable, laid_together
from fulmen.core.circuit.measured import Measured
from fulmen.core.circuit.origin import Origin, SourcedFigure, TailsFigures, origin_of, tails_figures
from fulmen.core.demand.demand import Demand
from fulmen.core.electrical.fault_loop import device_zs_limit_ohm, temperature_factor
from fulmen.core.errors import TableError
from fulmen.core.installation.guards import PlacedGuard
from fulmen.core.installation.installation import Installation
from fulmen.core.installation.legs import Leg
from fulmen.core.installation.run import Run
from fulmen.core.installation.tree import ChainCircuit
from fulmen.core.model.arrangement import Arrangement
from fulmen.core.model.boards import Board
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Device
from fulmen.core.model.job import Job
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.rule_set import RuleSet


@dataclass(frozen=True, slots=True)
class ChainPoint:
    """Where a circuit begins or ends: hot loop, volts lost, and the cold loops that set the highest fault current."""

    loop_ohm: float
    drop_v: float
    source_v: float
    origin_ka: float
    neutral_ohm: float = 0.0
    protective_ohm: float = 0.0
    hot_neutral_ohm: float = 0.0
    tt: bool = False

    def fault_ka(self, phases: int) -> float:
        """Highest prospective fault current here [kA]; three-phase faults go round half the loop."""
        if phases == 1 and not self.neutral_ohm:
            return self.origin_ka
        source_ohm = self.source_v / (self.origin_ka * 1000)
        loop_ohm = source_ohm + min(self.neutral_ohm, self.protective_ohm)
        if phases == 3:
            loop_ohm = min(loop_ohm, (source_ohm + self.neutral_ohm) / 2)
        return self.source_v / loop_ohm / 1000

    def after(self, laid: LaidCable) -> ChainPoint:
        """The point past some cable."""
        return ChainPoint(
            self.loop_ohm + laid.hot_ohm,
            self.drop_v + laid.drop_v,
            self.source_v,
            self.origin_ka,
            self.neutral_ohm + 2 * laid.r1_ohm,
            self.protective_ohm + laid.r1_ohm + laid.least_r2_ohm,
            self.hot_neutral_ohm + 2 * laid.hot_line_ohm,
            self.tt,
        )

    @property
    def widest_loop_ohm(self) -> float:
        """The larger hot loop, which sets the least fault that an overcurrent device must open [Ω].

        On a TT supply a fault to earth is the RCD's, so the loop to neutral alone counts.
        """
        return self.hot_neutral_ohm if self.tt else max(self.loop_ohm, self.hot_neutral_ohm)


@dataclass(frozen=True, slots=True)
class CircuitFigures:
    """One circuit of the chain: its load, its cable as laid, and the points where it begins and ends.

    `least_iz_a` is what its cable must carry: its device's rated current, of a ring what each way round must.
    `conditional_ka` is what its board is rated for with the cut-out fuse before it; 0 where that does not hold.
    """

    in_chain: ChainCircuit
    final: bool
    phases: int
    board_phases: int
    load: CircuitLoad
    laid: LaidCable
    start: ChainPoint
    end: ChainPoint
    zs_limit_ohm: float | None
    least_iz_a: float
    conditional_ka: float = 0.0

    @property
    def circuit(self) -> Circuit:
        """The circuit as the job has it."""
        return self.in_chain.circuit

    @property
    def board(self) -> Board:
        """The board it leaves."""
        return self.in_chain.board

    @property
    def device(self) -> Device:
        """Its own device at that board."""
        return self.in_chain.circuit.device

    @property
    def sections(self) -> tuple[SectionFigures, ...]:
        """The sections of its route."""
        return self.laid.sections

    @property
    def ib_a(self) -> float:
        """Design current [A]."""
        return self.load.ib_a

    @property
    def in_a(self) -> float:
        """Rated current of its device [A]."""
        return float(self.device.rating_a)

    @property
    def start_fault_ka(self) -> float:
        """Highest prospective fault current at its board [kA]."""
        return self.start.fault_ka(self.board_phases)

    @property
    def end_fault_ka(self) -> float:
        """Highest prospective fault current at its far end [kA]."""
        return self.end.fault_ka(self.phases)

    @property
    def hot_factor(self) -> float:
        """The largest ratio of hot to cold loop along it."""
        return max(one.hot_ohm / (one.r1_ohm + one.r2_ohm) for one in self.sections)

    def volts_lost_along(self) -> list[float]:
        """Volt drop at its board and at the end of each section [V]."""
        return list(accumulate(self.laid.along(one.drop_v for one in self.sections), initial=self.start.drop_v))

    def loop_along(self) -> list[float]:
        """Hot loop impedance at its board and at the end of each section [Ω]."""
        return list(accumulate(self.laid.along(one.hot_ohm for one in self.sections), initial=self.start.loop_ohm))


@dataclass(frozen=True, slots=True)
class RunFigures:
    """The figures of a run every circuit of which has a route; `length_m` is that from the origin's board."""

    run: Run
    ze: SourcedFigure
    fault: SourcedFigure
    tails: TailsFigures
    chain: tuple[CircuitFigures, ...]
    length_m: float

    @property
    def final(self) -> CircuitFigures:
        """The circuit that ends at the charge point."""
        return self.chain[-1]


@dataclass(frozen=True, slots=True)
class Case:
    """One run of an installation, judged by one edition. `figures` is None until every circuit has a route.

    `judged_before` are the circuits that a run before this one shares: what is theirs alone is judged there.
    `new_circuits` and `new_figures` are those that no run before it has. `subject` is what the findings of this run are
    about: its final circuit, or its charge point without one. `guards` is everything that can open, from the cut-out
    fuse to what is inside the unit. `to_loads` says that it ends at loads, not at a charge point.
    """

    installation: Installation
    job: Job
    subject: str
    to_loads: bool
    guards: tuple[PlacedGuard, ...]
    rules: RuleSet
    run: Run
    demand: Demand
    origin: Origin
    measured: Measured
    figures: RunFigures | None
    judged_before: frozenset[str]
    new_circuits: tuple[ChainCircuit, ...]
    new_figures: tuple[CircuitFigures, ...]

    @property
    def arrangement(self) -> Arrangement:
        """How people are protected at this charge point."""
        return self.run.charge_point.arrangement

    def figures_of(self, subject: str) -> CircuitFigures | None:
        """The figures of one circuit of the run, or of a part of its cable, if it is one and has any."""
        chain = self.figures.chain if self.figures is not None else ()
        whole = next((chained for chained in chain if chained.in_chain.circuit.id == subject), None)
        leg = self.installation.leg(subject) if whole is None else None
        of_leg = next((one for one in chain if leg is not None and one.circuit.id == leg.circuit), None)
        return whole if leg is None or of_leg is None else figures_of_leg(of_leg, leg)


def figures_of_leg(whole: CircuitFigures, leg: Leg) -> CircuitFigures:
    """A circuit's figures with a part of its cable alone: what begins and ends it stays the circuit's."""
    last = leg.until == len(whole.sections)
    sections, slack_m = whole.sections[leg.first : leg.until], whole.laid.slack_m if last else 0.0
    return replace(whole, laid=laid_together(sections, whole.load, whole.laid.flex if last else NO_FLEX, slack_m))


@dataclass(frozen=True, slots=True)
class Known:
    """What every run of an installation is worked out from."""

    installation: Installation
    rules: RuleSet
    demand: Demand
    origin: Origin
    measured: Measured


def known_of(installation: Installation, rules: RuleSet, demand: Demand, measured: Measured) -> Known:
    """What the runs of an installation are worked out from, with the origin's figures."""
    return Known(installation, rules, demand, origin_of(installation, rules, measured), measured)


def cases_of(known: Known) -> list[Case]:
    """Every run with its figures, where they can be computed: to the charge points, then to circuits' own loads.

    Circuits that runs share are worked out once.
    """
    worked_out: dict[str, CircuitFigures] = {}
    seen: frozenset[str] = frozenset()
    cases = []
    for run in (*known.installation.runs, *known.installation.load_runs):
        cases.append(case_of(known, run, _figures(known, run, worked_out), seen))
        seen |= {chained.circuit.id for chained in run.chain}
    return cases


def case_of(known: Known, run: Run, figures: RunFigures | None = None, before: frozenset[str] = frozenset()) -> Case:
    """One run to be judged, with its figures or without."""
    return Case(
        installation=known.installation,
        job=known.installation.job,
        subject=run.subject,
        to_loads=run.point is None,
        guards=run.guards,
        rules=known.rules,
        run=run,
        demand=known.demand,
        origin=known.origin,
        measured=known.measured,
        figures=figures,
        judged_before=before,
        new_circuits=tuple(one for one in run.chain if one.circuit.id not in before),
        new_figures=tuple(
            one for one in (figures.chain if figures is not None else ()) if one.circuit.id not in before
        ),
    )


def run_figures(known: Known, run: Run) -> RunFigures | None:
    """The figures of a run, or None where no circuit, no route or no such cable size stands there."""
    return _figures(known, run, {})


def _figures(known: Known, run: Run, worked_out: dict[str, CircuitFigures]) -> RunFigures | None:
    if not run.chain or any(not chained.circuit.route for chained in run.chain):
        return None
    job = known.installation.job
    most_a = max((point.design_current_a() for point in job.charge_points), default=0.0)
    tails = tails_figures(known.installation, known.demand, most_a, run.chain[0].board)
    point, chain = chain_start(known, tails), []
    try:
        for chained in run.chain:
            found = worked_out.get(chained.circuit.id)
            if found is None:
                found = _one_circuit(known, run, chained, point)
                worked_out[chained.circuit.id] = found
            chain.append(found)
            point = found.end
    except TableError:
        return None
    length_m = sum(chained.laid.length_m for chained in chain)
    return RunFigures(run, known.origin.ze, known.origin.fault, tails, tuple(chain), length_m)


def _one_circuit(known: Known, run: Run, chained: ChainCircuit, point: ChainPoint) -> CircuitFigures:
    final = chained is run.chain[-1]
    phases = run.charge_point.phase_count if final and run.point is not None else chained.circuit.phases
    load = circuit_load(known.installation, chained.circuit, known.rules)
    laid = laid_cable(known.installation, chained.circuit, phases, load)
    return circuit_figures(known.installation, known.rules, LaidCircuit(chained, final, phases, load, laid), point)


def chain_start(known: Known, tails: TailsFigures) -> ChainPoint:
    """The origin's board: past the tails. For the highest fault the tails are left out, which is the safe side."""
    hot, rules, origin = temperature_factor(70), known.rules, known.origin
    return ChainPoint(
        origin.ze.value + (tails.r1_ohm + tails.r2_ohm) * hot,
        tails.drop_v,
        rules.value("u0_v") * rules.value("voltage_factor_max"),
        origin.fault.value,
        hot_neutral_ohm=origin.neutral_loop_ohm + 2 * tails.r1_ohm * hot,
        tt=known.installation.job.supply.earthing is Earthing.TT,
    )


@dataclass(frozen=True, slots=True)
class LaidCircuit:
    """A circuit of a chain with what it must carry and its cable as laid, before it is known where the chain begins."""

    in_chain: ChainCircuit
    final: bool
    phases: int
    load: CircuitLoad
    laid: LaidCable


def circuit_figures(
    installation: Installation, rules: RuleSet, circuit: LaidCircuit, start: ChainPoint
) -> CircuitFigures:
    """One circuit's figures from where it begins."""
    u0_v, cmin = rules.value("u0_v"), rules.value("voltage_factor_min")
    within_s = disconnection_s(rules, tt=False, final=circuit.final)
    fuse_a = installation.job.supply.cut_out_fuse_a
    backed_up = fuse_a is not None and fuse_a <= rules.value("conditional_fuse_a")
    return CircuitFigures(
        in_chain=circuit.in_chain,
        final=circuit.final,
        phases=circuit.phases,
        board_phases=installation.phases_at[circuit.in_chain.board.id],
        load=circuit.load,
        laid=circuit.laid,
        start=start,
        end=start.after(circuit.laid),
        zs_limit_ohm=device_zs_limit_ohm(circuit.in_chain.circuit.device, within_s, u0_v=u0_v, cmin=cmin),
        least_iz_a=least_iz_a(circuit.in_chain.circuit, rules),
        conditional_ka=(circuit.in_chain.board.conditional_rating_ka or 0.0) if backed_up else 0.0,
    )


def least_iz_a(circuit: Circuit, rules: RuleSet) -> float:
    """What the cable of a circuit must carry [A]: In, or of a ring what each way round must behind up to 32 A."""
    rating_a = float(circuit.device.rating_a)
    shared = circuit.ring and rating_a <= rules.value("ring_device_a")
    return min(rating_a, rules.value("ring_leg_a")) if shared else rating_a


def disconnection_s(rules: RuleSet, *, tt: bool, final: bool) -> float:
    """The time within which a circuit must be disconnected [s]."""
    if tt:
        return rules.value("tt_disconnection_s" if final else "tt_distribution_s")
    return rules.value("tn_disconnection_s" if final else "tn_distribution_s")
