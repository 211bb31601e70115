"""Every electrical way to wire one layout: each circuit of its chain in every cable, size and device, judged."""

from __future__ import annotations

import heapq
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass
from itertools import count

from fulmen.core.alternatives.search.candidates import CableBench, Kinds, devices_to_try, kinds_to_try, laid_circuit
from fulmen.core.alternatives.search.judging import AT_THE_BOARD, Short, judge_circuit, judge_end, short_of
from fulmen.core.circuit.circuit_load import CircuitLoad, circuit_load
from fulmen.core.circuit.laid_cable import LaidCable, laid_cable
from fulmen.core.circuit.margins import lighting_margin, rcd_in_time, volt_drop_margin
from fulmen.core.circuit.origin import tails_figures
from fulmen.core.circuit.run_figures import (
    ChainPoint,
    CircuitFigures,
    Known,
    LaidCircuit,
    chain_start,
    circuit_figures,
    disconnection_s,
)
from fulmen.core.editing.layouts import Layout
from fulmen.core.errors import TableError
from fulmen.core.installation.installation import Installation
from fulmen.core.installation.tree import ChainCircuit
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.job import Job
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.cable_catalogue import cable_of

# A final circuit is judged as if a 30 mA RCD stood at its board; `wants_rcd` tells where one must.


@dataclass(frozen=True)
class Wired:
    """One electrical way: a layout with cable and device on every circuit, judged.

    Behind a sub-main that falls short the final circuit is not worked out: `chain` then ends with the sub-main.
    """

    layout: Layout
    chain: tuple[CircuitFigures, ...]
    kinds: tuple[Kinds, ...]
    csa_mm2: float
    short: Short | None
    wants_rcd: bool
    least_share: float

    def family(self) -> tuple[str, tuple[Kinds, ...], tuple[float, ...]]:
        """What ways that differ only by their devices have in common."""
        return (
            self.layout.words,
            self.kinds,
            tuple(one.cable.csa_mm2 for chained in self.chain for one in chained.sections),
        )

    def circuits(self) -> tuple[Circuit, ...]:
        """Its circuits, from the origin to the charge point."""
        return tuple(laid_circuit(chained.circuit, chained.laid) for chained in self.chain)


@dataclass(frozen=True)
class _Before:
    """The sub-mains of a way, with what falls short on them."""

    chain: tuple[CircuitFigures, ...] = ()
    kinds: tuple[Kinds, ...] = ()
    short: Short | None = None
    least_share: float = 1.0


# Of the ways to lay the sub-mains of a chain the best are gone on with: with each sub-main more they multiply.
MOST_BEFORE_ONE, MOST_BEFORE_MORE = 5000, 12


class Wiring:
    """Every electrical way of one layout; its cables are laid once."""

    def __init__(self, layout: Layout, known: Known) -> None:
        self.layout = layout
        design_a = layout.run.charge_point.design_current_a()
        tails = tails_figures(known.installation, known.demand, design_a, layout.run.chain[0].board)
        self._start = chain_start(known, tails)
        self._sub_mains = [_SubMain(layout, chained, known) for chained in layout.run.chain[:-1]]
        self._final = _Final(layout, known)
        self._most_before = MOST_BEFORE_ONE if len(self._sub_mains) == 1 else MOST_BEFORE_MORE
        self.left_out = 0

    def count(self) -> int:
        """How many ways there are; about as many, where not all ways to lay the sub-mains are gone on with."""
        before, pairs = 1.0, len(self._final.circuits)
        for sub_main in self._sub_mains:
            before = min(self._most_before, before * len(sub_main.cables) * len(sub_main.circuits))
        if self._sub_mains:
            last = self._sub_mains[-1].circuits
            before /= len(last)
            pairs = sum(fits_behind(one, chained.circuit) for one in self._final.circuits for chained in last)
        return round(before * len(self._final.cables) * pairs)

    def ways(self) -> Iterator[Wired | None]:
        """Every way, those that fall short included; None after a step that laid a sub-main only."""
        ways = [_Before()]
        for sub_main in self._sub_mains:
            best = _Best(self._most_before)
            for before in ways:
                for after in sub_main.ways(before, self._start):
                    best.seen(after)
                    yield None
            ways = best.kept()
            self.left_out += best.left_out
        for before in ways:
            yield from self._final.ways(before, self._start)


def wired_ways(layout: Layout, known: Known) -> Iterator[Wired]:
    """Every electrical way of one layout, those that fall short included."""
    return (one for one in Wiring(layout, known).ways() if one is not None)


def fits_behind(circuit: Circuit, before: Circuit) -> bool:
    """Nobody puts a bigger device behind a smaller one."""
    return circuit.device.rating_a <= before.device.rating_a


class _Best:
    """The ways gone on with: those that hold, the widest margin first, and no more than are worked through."""

    def __init__(self, most: int) -> None:
        self.most, self.left_out = most, 0
        self._heap: list[tuple[bool, float, int, _Before]] = []
        self._order = count()

    def seen(self, one: _Before) -> None:
        """One more."""
        entry = (one.short is None, one.least_share, -next(self._order), one)
        if len(self._heap) < self.most:
            heapq.heappush(self._heap, entry)
        else:
            heapq.heappushpop(self._heap, entry)
            self.left_out += 1

    def kept(self) -> list[_Before]:
        """Those that are gone on with, in the order seen."""
        return [one for *_, one in sorted(self._heap, key=lambda entry: -entry[2])]


class _SubMain:
    """One sub-main of a layout in every cable, size and device; its cables are laid once for all that is before it."""

    def __init__(self, layout: Layout, chained: ChainCircuit, known: Known) -> None:
        circuit, rules, self.known = chained.circuit, known.rules, known
        self.tt = _tt(layout.job)
        self.phases, self.load = circuit.phases, circuit_load(known.installation, circuit, rules)
        before_it = layout.run.rcds_before[circuit.id]
        opening = rcd_in_time(before_it, disconnection_s(rules, tt=self.tt, final=False), rules)
        self.rcd = opening.rcd if opening is not None else None
        self.cables = list(_laid(known.installation, circuit, circuit.phases, self.load, sub_main=True))
        devices = devices_to_try(circuit, self.load.ib_a, sub_main=True)
        self.circuits = [ChainCircuit(chained.board, circuit.model_copy(update={"device": one})) for one in devices]

    def ways(self, before: _Before, start: ChainPoint) -> Iterator[_Before]:
        """Every way of it after some way of those before."""
        point = before.chain[-1].end if before.chain else start
        installation, rules, measured = self.known.installation, self.known.rules, self.known.origin.fault.measured
        for kinds, _, laid in self.cables:
            for here in self.circuits:
                circuit = LaidCircuit(here, final=False, phases=self.phases, load=self.load, laid=laid)
                figures = circuit_figures(installation, rules, circuit, point)
                verdict = judge_circuit(figures, rules, tt=self.tt, rcd=self.rcd, measured=measured)
                lights = lighting_margin(installation.tree, figures, rules)
                dim = short_of(lights) if lights is not None and not lights.holds() else None
                yield _Before(
                    (*before.chain, figures),
                    (*before.kinds, kinds),
                    before.short or verdict.short or dim,
                    min(before.least_share, verdict.least_share, lights.share() if lights is not None else 1.0),
                )


class _Final:
    """The final circuit of a layout in every cable, size and device; its cables are laid once for all sub-mains."""

    def __init__(self, layout: Layout, known: Known) -> None:
        run, self.known = layout.run, known
        self.layout, self.chained, self.phases = layout, run.final(), run.charge_point.phase_count
        self.load = circuit_load(known.installation, self.chained.circuit, known.rules)
        self.tt = _tt(layout.job)
        self.devices = devices_to_try(self.chained.circuit, self.load.ib_a, sub_main=False)
        self.cables = list((self._to_box if layout.boxed else self._everywhere)())
        self.circuits = [self.chained.circuit.model_copy(update={"device": device}) for device in self.devices]

    def _everywhere(self) -> Iterator[tuple[Kinds, float, LaidCable]]:
        return _laid(self.known.installation, self.chained.circuit, self.phases, self.load, sub_main=False)

    def _to_box(self) -> Iterator[tuple[Kinds, float, LaidCable]]:
        """In one kind of cable with the box as its only joint."""
        installation, circuit = self.known.installation, self.chained.circuit
        bench = CableBench(installation, circuit, self.phases, self.load)
        most_mm2 = self.layout.run.charge_point.terminal_max_mm2 or 0.0
        in_a = min(float(device.rating_a) for device in self.devices)
        for kinds in kinds_to_try(installation.cables, circuit, self.phases, sub_main=False, most_joints=0):
            for csa_mm2, laid in bench.to_box(kinds, in_a, most_mm2):
                yield kinds, csa_mm2, laid

    def ways(self, before: _Before, start: ChainPoint) -> Iterator[Wired]:
        """Every final circuit after some sub-mains; after one that falls short they are counted, not worked out."""
        point = before.chain[-1].end if before.chain else start
        for kinds, csa_mm2, laid in self.cables:
            for circuit in self.circuits:
                if before.chain and not fits_behind(circuit, before.chain[-1].circuit):
                    continue
                if before.short is not None:
                    every = (*before.kinds, kinds)
                    yield Wired(
                        self.layout, before.chain, every, csa_mm2, before.short,
                        wants_rcd=False, least_share=before.least_share,
                    )  # fmt: skip
                else:
                    yield self._way(before, ChainCircuit(self.chained.board, circuit), kinds, csa_mm2, laid, point)

    def _way(
        self, before: _Before, chained: ChainCircuit, kinds: Kinds, csa_mm2: float, laid: LaidCable, point: ChainPoint
    ) -> Wired:
        circuit = LaidCircuit(chained, final=True, phases=self.phases, load=self.load, laid=laid)
        rules, measured = self.known.rules, self.known.origin.fault.measured
        figures = circuit_figures(self.known.installation, rules, circuit, point)
        verdict = judge_circuit(figures, rules, tt=self.tt, rcd=AT_THE_BOARD, measured=measured)
        drop = volt_drop_margin(figures, rules)
        short = verdict.short or judge_end(figures, self.layout.run.charge_point)
        short = short or (None if drop.holds() else short_of(drop))
        return Wired(
            self.layout,
            (*before.chain, figures),
            (*before.kinds, kinds),
            csa_mm2,
            short,
            wants_rcd=verdict.wants_rcd,
            least_share=min(before.least_share, verdict.least_share, drop.share()),
        )


def _laid(
    installation: Installation, circuit: Circuit, phases: int, load: CircuitLoad, *, sub_main: bool
) -> Iterator[tuple[Kinds, float, LaidCable]]:
    """A circuit as it stands, then in every other kind and size that is made, unless it is there already."""
    standing = tuple(cable_of(circuit, section) for section in circuit.route)
    with suppress(TableError):
        yield (
            Kinds(tuple(one.record for one in standing)),
            circuit.cable.csa_mm2,
            laid_cable(installation, circuit, phases, load),
        )
    if not circuit.fitted_with_this_job:
        return
    bench = CableBench(installation, circuit, phases, load)
    in_a = min(float(device.rating_a) for device in devices_to_try(circuit, load.ib_a, sub_main=sub_main))
    for kinds in kinds_to_try(installation.cables, circuit, phases, sub_main=sub_main):
        for csa_mm2, laid in bench.every_laid(kinds, in_a):
            if tuple(one.cable for one in laid.sections) != standing:
                yield kinds, csa_mm2, laid


def _tt(job: Job) -> bool:
    return job.supply.earthing is Earthing.TT
