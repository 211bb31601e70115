"""The run along its length: chain, sections and the three tracks, from the same figures as the checks."""

from __future__ import annotations

from typing import Literal

from fulmen.core.circuit.arrangement_schedule import short_protection
from fulmen.core.circuit.run_figures import Case, CircuitFigures, RunFigures
from fulmen.core.circuit.run_tracks import AmpsTrack, RunTrack, amps_track, loop_track, volts_track
from fulmen.core.electrical.joints import joints_of
from fulmen.core.electrical.selectivity import device_words
from fulmen.core.findings.finding import Verdict
from fulmen.core.findings.words import word
from fulmen.core.model.supply import Earthing
from fulmen.core.plain import plain
from fulmen.core.reference.places import methods_in


@plain
class ProfileNode:
    """One thing on the chain: cut-out, board, joint, charge point, with its figures and its notes in words.

    `id` is the board's or the unit's own, `cut_out` for that, empty for a joint.
    """

    kind: Literal["cut_out", "board", "gland_box", "breakout_box", "charge_point"]
    id: str
    name: str
    at_m: float
    notes: tuple[str, ...]
    loop_ohm: float
    volts_lost_v: float
    fault_ka: float | None = None
    load_a: float | None = None


@plain
class ProfileCircuit:
    """One circuit of the chain between two distances: its device, its load, and the largest loop for it."""

    circuit: str
    name: str
    from_m: float
    to_m: float
    device: str
    device_a: float
    load_a: float
    zs_limit_ohm: float | None


@plain
class ProfileSection:
    """One section between two distances from the board; `place` is its index in its own circuit's route.

    `method` rates it; `methods` are those that its place allows, the one that follows from the place first.
    """

    index: int
    circuit: str
    place: int
    name: str
    method: str
    methods: tuple[str, ...]
    cable: str
    from_m: float
    to_m: float
    length_m: float
    iz_a: float | None
    device_a: float
    load_a: float
    conductor_c: float | None
    volts_lost_v: float
    loop_ohm: float


@plain
class ProfileMark:
    """A reading as a mark on the loop track; `expected` marks where one is still to be taken."""

    at: str
    at_m: float
    value: float
    expected: bool


@plain
class RunProfile:
    """What the run band draws. Distances are from the origin's board; figures at a section's end include all before."""

    charge_point: str
    circuit: str
    length_m: float
    tails_length_m: float | None
    nodes: tuple[ProfileNode, ...]
    chain: tuple[ProfileCircuit, ...]
    sections: tuple[ProfileSection, ...]
    origin_loop_ohm: float
    board_loop_ohm: float
    board_volts_lost_v: float
    volts_lost_v: float
    volts_lost_percent: float
    volts_limit_v: float
    zs_ohm: float
    zs_limit_ohm: float | None
    device_a: float
    load_a: float
    marks: tuple[ProfileMark, ...]
    tracks: tuple[RunTrack, ...]
    amps: AmpsTrack
    protection_verdict: Verdict = Verdict.MEETS


def run_profile(case: Case) -> RunProfile | None:
    """The profile of one run before anything is read of it, or None while it has no figures.

    A `zs_limit_ohm` is None on a TT supply, where the RCD and not the loop opens the circuit.
    """
    figures = case.figures
    if figures is None:
        return None
    u0_v, final = case.rules.value("u0_v"), figures.final
    chain = _chain(case, figures)
    limit_v = u0_v * case.rules.value("volt_drop_percent") / 100
    return RunProfile(
        charge_point=case.run.charge_point.id,
        circuit=case.subject,
        length_m=figures.length_m,
        tails_length_m=_tails_length_m(case),
        nodes=_nodes(case, figures),
        chain=chain,
        sections=_sections(figures),
        origin_loop_ohm=figures.ze.value,
        board_loop_ohm=figures.chain[0].start.loop_ohm,
        board_volts_lost_v=figures.chain[0].start.drop_v,
        volts_lost_v=final.end.drop_v,
        volts_lost_percent=final.end.drop_v / u0_v * 100,
        volts_limit_v=limit_v,
        zs_ohm=final.end.loop_ohm,
        zs_limit_ohm=chain[-1].zs_limit_ohm,
        device_a=final.in_a,
        load_a=final.ib_a,
        marks=(),
        tracks=(
            volts_track(figures, limit_v, u0_v),
            loop_track(figures, tuple(one.zs_limit_ohm for one in chain)),
        ),
        amps=amps_track(figures),
    )


def _chain(case: Case, figures: RunFigures) -> tuple[ProfileCircuit, ...]:
    tt, at_m, chain = case.job.supply.earthing is Earthing.TT, 0.0, []
    for chained in figures.chain:
        circuit = chained.circuit
        chain.append(
            ProfileCircuit(
                circuit=circuit.id,
                name=circuit.name,
                from_m=at_m,
                to_m=at_m + chained.laid.length_m,
                device=device_words(circuit.device),
                device_a=chained.in_a,
                load_a=chained.ib_a,
                zs_limit_ohm=None if tt else chained.zs_limit_ohm,
            )
        )
        at_m += chained.laid.length_m
    return tuple(chain)


def _nodes(case: Case, figures: RunFigures) -> tuple[ProfileNode, ...]:
    nodes, at_m = [_cut_out(case, figures)], 0.0
    for chained in figures.chain:
        nodes.append(_board(case, chained, at_m))
        nodes.extend(_joints(case, chained, at_m))
        at_m += chained.laid.length_m
    point, final = case.run.charge_point, figures.final
    amps = f"{point.design_current_a():g} A" + (" × 3" if point.phase_count == 3 else "")
    end = ProfileNode(
        kind="charge_point",
        id=point.id,
        name=point.name,
        at_m=at_m,
        notes=(amps, short_protection(case.job, case.run.charge_point)),
        loop_ohm=final.end.loop_ohm,
        volts_lost_v=final.end.drop_v,
        fault_ka=final.end_fault_ka,
        load_a=final.ib_a,
    )
    return (*nodes, end)


def _cut_out(case: Case, figures: RunFigures) -> ProfileNode:
    supply = case.job.supply
    notes = (word(supply.earthing), f"Ze {figures.ze.value:.2f} Ω")
    return ProfileNode(
        kind="cut_out", id="cut_out", name="Cut-out", at_m=0.0, notes=notes, loop_ohm=figures.ze.value,
        volts_lost_v=0.0, fault_ka=figures.fault.value, load_a=case.demand.held_a,
    )  # fmt: skip


def _board(case: Case, chained: CircuitFigures, at_m: float) -> ProfileNode:
    device = chained.device
    protection = device_words(device)
    rcd = device.rcd.known() if device.rcd is not None else None
    protection += f" {rcd.type.value} {rcd.residual_ma} mA" if rcd is not None else ""
    protection += f", {chained.circuit.phase.value}" if chained.board_phases == 3 and chained.phases == 1 else ""
    notes = [protection]
    if chained.circuit.id == case.run.chain[0].circuit.id:
        notes.append(_tails(case))
    elif chained.board.other_loads:
        notes.append("with other loads")
    return ProfileNode(
        kind="board", id=chained.board.id, name=chained.board.name, at_m=at_m, notes=tuple(notes),
        loop_ohm=chained.start.loop_ohm, volts_lost_v=chained.start.drop_v, fault_ka=chained.start_fault_ka,
        load_a=chained.ib_a,
    )  # fmt: skip


def _tails(case: Case) -> str:
    tails = case.installation.tails_to[case.run.chain[0].board.id]
    sizes = list(dict.fromkeys(f"{one.csa_mm2:g}" for one in tails if one.csa_mm2))
    if not sizes or any(one.csa_mm2 is None for one in tails):
        return "tails not seen"
    length_m = _tails_length_m(case)
    words = f"{'/'.join(sizes)} mm²"
    return f"{words}, {length_m:g} m" if length_m is not None else words


def _tails_length_m(case: Case) -> float | None:
    """Length of the tails to the run's first board [m]; None where a stretch was not measured."""
    lengths_m = [one.length_m for one in case.installation.tails_to[case.run.chain[0].board.id]]
    known_m = [one for one in lengths_m if one is not None]
    return sum(known_m) if known_m and len(known_m) == len(lengths_m) else None


def _joints(case: Case, chained: CircuitFigures, at_m: float) -> list[ProfileNode]:
    volts, loop = chained.volts_lost_along(), chained.loop_along()
    return [
        ProfileNode(
            kind=joint.kind, id="", name=joint.name, at_m=at_m + joint.at_m, notes=(joint.words,),
            loop_ohm=loop[joint.section], volts_lost_v=volts[joint.section], load_a=chained.ib_a,
        )
        for joint in joints_of(chained.circuit, case.installation.cables)
    ]  # fmt: skip


def _sections(figures: RunFigures) -> tuple[ProfileSection, ...]:
    sections: list[ProfileSection] = []
    at_m = 0.0
    for chained in figures.chain:
        volts, loop = chained.volts_lost_along(), chained.loop_along()
        for place, one in enumerate(chained.sections):
            end_m = at_m + one.section.length_m
            sections.append(
                ProfileSection(
                    index=len(sections),
                    circuit=chained.circuit.id,
                    place=place,
                    name=word(one.section.surroundings),
                    method=one.rating.method.value,
                    methods=tuple(each.method.value for each in methods_in(one.section, one.metre.record)),
                    cable=f"{one.cable.csa_mm2:g} mm² {one.metre.record.name}",
                    from_m=at_m,
                    to_m=end_m,
                    length_m=one.section.length_m,
                    iz_a=one.rating.iz_a,
                    device_a=chained.in_a,
                    load_a=chained.ib_a,
                    conductor_c=one.rating.conductor_c(chained.ib_a),
                    volts_lost_v=volts[place + 1],
                    loop_ohm=loop[place + 1],
                )
            )
            at_m = end_m
    return tuple(sections)
