"""The run along its length: chain, sections and the three tracks, from the same figures as the checks."""

from __future__ import annotations

from fulmen.core.arrangement_words import short_protection
from fulmen.core.fault_loop import temperature_factor
from fulmen.core.figures import ORIGIN, Case, RunFigures, measured
from fulmen.core.findings import Verdict
from fulmen.core.model.base import Part
from fulmen.core.model.readings import StepKey
from fulmen.core.model.supply import Earthing
from fulmen.core.words import word


class ProfileNode(Part):
    """One thing on the chain: cut-out, board, charge point, with its figures in words."""

    kind: str
    name: str
    at_m: float
    notes: tuple[str, ...]


class ProfileSection(Part):
    """One section between two distances from the board."""

    index: int
    name: str
    method: str
    from_m: float
    to_m: float
    length_m: float
    iz_a: float | None
    volts_lost_v: float
    loop_ohm: float


class ProfileMark(Part):
    """A reading as a mark on the loop track; `expected` marks where one is still to be taken."""

    at: str
    value: float
    expected: bool


class RunProfile(Part):
    """What the run band draws. Distances are from the board; figures at a section's end include all before it."""

    charge_point: str
    circuit: str
    length_m: float
    tails_length_m: float | None
    nodes: tuple[ProfileNode, ...]
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
    protection_verdict: Verdict = Verdict.MEETS


def run_profile(case: Case) -> RunProfile | None:
    """The profile of one run, or None while it has no figures.

    `zs_limit_ohm` is None on a TT supply, where the RCD and not the loop opens the circuit.
    """
    figures = case.figures
    if figures is None:
        return None
    u0_v = case.rules.value("u0_v")
    tt = case.job.supply.earthing is Earthing.TT
    return RunProfile(
        charge_point=case.run.charge_point.id,
        circuit=case.subject,
        length_m=figures.length_m,
        tails_length_m=case.job.supply.tails_length_m,
        nodes=_nodes(case, figures),
        sections=_sections(case, figures),
        origin_loop_ohm=figures.ze.value,
        board_loop_ohm=figures.board_loop_ohm,
        board_volts_lost_v=figures.tails.drop_v,
        volts_lost_v=figures.volts_lost_v,
        volts_lost_percent=figures.volts_lost_v / u0_v * 100,
        volts_limit_v=u0_v * case.rules.value("volt_drop_percent") / 100,
        zs_ohm=figures.zs_hot_ohm,
        zs_limit_ohm=None if tt else figures.zs_limit_ohm,
        device_a=figures.in_a,
        load_a=figures.ib_a,
        marks=_marks(case, figures),
    )


def _nodes(case: Case, figures: RunFigures) -> tuple[ProfileNode, ...]:
    supply, final, point = case.job.supply, case.run.final(), case.run.charge_point
    fuse = f"{supply.cut_out_fuse_a} A" if supply.cut_out_fuse_a else "fuse not seen"
    tails = f"{supply.tails_csa_mm2:g} mm²" if supply.tails_csa_mm2 else "tails not seen"
    if supply.tails_csa_mm2 and supply.tails_length_m:
        tails += f", {supply.tails_length_m:g} m"
    device, rcd = final.circuit.device, final.circuit.device.rcd
    protection = f"{device.curve.value}{device.rating_a}" + (f" {rcd.type.value} {rcd.residual_ma} mA" if rcd else "")
    ze = f"Ze {figures.ze.value:.2f} Ω"
    return (
        ProfileNode(kind="cut_out", name="Cut-out", at_m=0, notes=(f"{fuse} {word(supply.earthing)}", ze)),
        ProfileNode(kind="board", name=final.board.name, at_m=0, notes=(protection, tails)),
        ProfileNode(
            kind="charge_point",
            name=point.name,
            at_m=figures.length_m,
            notes=(f"{point.design_current_a():g} A", short_protection(case.job)),
        ),
    )


def _sections(case: Case, figures: RunFigures) -> tuple[ProfileSection, ...]:
    volts, loop, at_m = figures.volts_lost_along(), figures.loop_along(), 0.0
    sections = []
    for index, section in enumerate(case.run.final().circuit.route):
        end_m = at_m + section.length_m
        sections.append(
            ProfileSection(
                index=index,
                name=word(section.surroundings),
                method=section.method.value,
                from_m=at_m,
                to_m=end_m,
                length_m=section.length_m,
                iz_a=figures.sections[index].rating.iz_a,
                volts_lost_v=volts[index + 1],
                loop_ohm=loop[index + 1],
            )
        )
        at_m = end_m
    return tuple(sections)


def _marks(case: Case, figures: RunFigures) -> tuple[ProfileMark, ...]:
    marks = []
    ze = measured(case.job, StepKey.ZE, ORIGIN)
    if ze is not None:
        marks.append(ProfileMark(at="cut_out", value=ze, expected=False))
    zs = measured(case.job, StepKey.ZS, case.subject)
    if zs is not None:
        marks.append(ProfileMark(at="charge_point", value=zs, expected=False))
    elif ze is not None:
        cold = figures.ze.value + figures.r1_ohm + figures.r2_ohm
        tails = (figures.tails.r1_ohm + figures.tails.r2_ohm) * temperature_factor(20)
        marks.append(ProfileMark(at="charge_point", value=cold + tails, expected=True))
    return tuple(marks)
