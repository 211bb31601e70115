"""A circuit's cable as laid: what it costs per metre, what each section carries and loses, and the whole together."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise
from math import sqrt

from fulmen.core.circuit.circuit_load import CircuitLoad
from fulmen.core.electrical.cable_rating import SectionRating, section_rating
from fulmen.core.electrical.fault_loop import conductor_ohm, temperature_factor
from fulmen.core.electrical.volt_drop import millivolts_per_a_m, temperature_correction
from fulmen.core.errors import TableError
from fulmen.core.installation.installation import Installation
from fulmen.core.model.cables import Cable, Protective
from fulmen.core.model.circuits import Circuit, TerminalSchool
from fulmen.core.model.route import Section
from fulmen.core.reference.cable_catalogue import (
    K_COPPER,
    CableRecord,
    armour_alone,
    cable_of,
    protective_k,
    protective_metal,
)
from fulmen.core.reference.tables import (
    table,
)

FLEX_C = 70.0
# How near a terminal a hot stretch still warms it.
NEAR_TERMINAL_M = 1.0
ARMOUR_C = {"pvc_70": 60.0, "xlpe_90": 80.0}
STEEL_PER_C = 0.0045
# Two halves of a ring in parallel against all of it.
RING_SHARE = 0.25


@dataclass(frozen=True, slots=True)
class CablePerMetre:
    """What a cable costs in loop and volts, per metre. Resistances are at 20 °C unless named hot.

    `hot_factor` is the line conductor's, hot to cold; `least_r2` takes armour beside the core into account, for the
    highest fault current.
    """

    record: CableRecord
    cpc_mm2: float
    r1_ohm: float
    r2_ohm: float
    hot_ohm: float
    hot_factor: float
    least_r2_ohm: float
    single_mv: float
    balanced_mv: float


@dataclass(frozen=True, slots=True)
class SectionFigures:
    """One section's own share of the run."""

    section: Section
    cable: Cable
    metre: CablePerMetre
    rating: SectionRating
    drop_v: float
    ct: float

    @property
    def r1_ohm(self) -> float:
        """Line conductor at 20 °C [Ω]."""
        return self.metre.r1_ohm * self.section.length_m

    @property
    def r2_ohm(self) -> float:
        """Protective conductor at 20 °C [Ω]."""
        return self.metre.r2_ohm * self.section.length_m

    @property
    def hot_ohm(self) -> float:
        """R1+R2 at operating temperature [Ω]."""
        return self.metre.hot_ohm * self.section.length_m


@dataclass(frozen=True, slots=True)
class Flex:
    """The flexible tail of a pre-wired unit past its joint: it counts in volts and in the loop, not in R1+R2."""

    r1_ohm: float = 0.0
    drop_v: float = 0.0


NO_FLEX = Flex()


@dataclass(frozen=True, slots=True)
class Conductor:
    """One conductor of a section: its name, size and k."""

    section: SectionFigures
    name: str
    csa_mm2: float
    k: float


@dataclass(frozen=True, slots=True)
class LaidCable:
    """The cable of one circuit as laid, section by section, and what its sections come to together.

    The loop of slack at its end is cable like the last section's: it counts in volts and in the loop, not in
    `length_m`, but in `cable_m`. R1 and R2 are at 20 °C, `least_r2_ohm` with armour beside the core counted; `hot_ohm`
    is R1+R2 and `hot_line_ohm` R1 at operating temperature. `weakest` is the place of the section with the least Iz,
    None where one has no rating. `hottest_end` is the highest conductor temperature at a terminal at Ib [°C], and its
    section. A ring goes out and back: its figures are those of its middle, the farthest point, where both ways meet;
    only `length_m` and `cable_m` are all of it. `thinnest_line` is the line conductor that survives least energy,
    `limiting` the conductor that does; both are None while nothing is laid.
    """

    sections: tuple[SectionFigures, ...]
    ib_a: float
    flex: Flex
    slack_m: float
    length_m: float
    cable_m: float
    r1_ohm: float
    r2_ohm: float
    least_r2_ohm: float
    hot_ohm: float
    hot_line_ohm: float
    drop_v: float
    weakest: int | None
    hottest_end: tuple[float, SectionFigures] | None
    thinnest_line: Conductor | None
    limiting: Conductor | None
    ring: bool = False

    def along(self, figures: Iterable[float]) -> list[float]:
        """A figure of each section, the slack's share in the last one; of a ring what each gives to its middle."""
        share = RING_SHARE if self.ring else 1.0
        return [share * one for one in _with_slack(list(figures), self.sections, self.slack_m)]


def laid_together(
    sections: tuple[SectionFigures, ...],
    load: CircuitLoad,
    flex: Flex = NO_FLEX,
    slack_m: float = 0.0,
) -> LaidCable:
    """What some sections come to together as the cable of one circuit.

    Of a ring the farthest point is its middle: two halves in parallel are a quarter of the whole. Any other point is
    nearer on one side, x·(1 − x) of the whole, which is less.
    """
    ring = load.ring_leg_a is not None
    share = RING_SHARE if ring else 1.0

    def total(figures: Iterable[float]) -> float:
        return sum(_with_slack(list(figures), sections, slack_m)) * share

    length_m = sum(one.section.length_m for one in sections)
    flex_hot_ohm = flex.r1_ohm * temperature_factor(FLEX_C)
    conductors = [one for section in sections for one in conductors_of(section)]
    return LaidCable(
        sections=sections,
        ib_a=load.ib_a,
        flex=flex,
        slack_m=slack_m,
        length_m=length_m,
        cable_m=length_m + slack_m,
        r1_ohm=total(one.r1_ohm for one in sections),
        r2_ohm=total(one.r2_ohm for one in sections),
        least_r2_ohm=total(one.metre.least_r2_ohm * one.section.length_m for one in sections),
        hot_ohm=total(one.hot_ohm for one in sections) + 2 * flex_hot_ohm,
        hot_line_ohm=total(one.r1_ohm * one.metre.hot_factor for one in sections) + flex_hot_ohm,
        drop_v=total(one.drop_v for one in sections) + flex.drop_v,
        weakest=_weakest(sections),
        hottest_end=_hottest_end(sections, length_m, load.conductor_a),
        thinnest_line=min(conductors[::2], key=lambda one: one.k * one.csa_mm2, default=None),
        limiting=min(conductors, key=lambda one: one.csa_mm2 * one.k, default=None),
        ring=ring,
    )


def _with_slack(figures: list[float], sections: tuple[SectionFigures, ...], slack_m: float) -> list[float]:
    if figures and slack_m:
        figures[-1] *= 1 + slack_m / sections[-1].section.length_m
    return figures


def _weakest(sections: tuple[SectionFigures, ...]) -> int | None:
    ratings = [one.rating.iz_a for one in sections]
    known = [rating for rating in ratings if rating is not None]
    return ratings.index(min(known)) if len(known) == len(ratings) and known else None


def _hottest_end(
    sections: tuple[SectionFigures, ...], length_m: float, ib_a: float
) -> tuple[float, SectionFigures] | None:
    """Highest conductor temperature at a terminal at Ib [°C], and the section; None without a rating.

    A terminal is as hot as the section that ends at it and what lies within a metre of it; in the middle of the
    route the insulation's own limit counts.
    """
    found = [(one.rating.conductor_c(ib_a), one) for one in _at_terminals(sections, length_m)]
    known = [(temperature, one) for temperature, one in found if temperature is not None]
    return max(known, key=lambda entry: entry[0]) if known else None


def _at_terminals(sections: tuple[SectionFigures, ...], length_m: float) -> list[SectionFigures]:
    """The sections within a metre of a terminal: at both ends, and where the cable changes."""
    ends, at_m = [0.0, length_m], 0.0
    for one, after in pairwise(sections):
        at_m += one.section.length_m
        if one.cable != after.cable:
            ends.append(at_m)
    found, at_m = [], 0.0
    for one in sections:
        to_m = at_m + one.section.length_m
        if any(at_m - NEAR_TERMINAL_M < end <= to_m + NEAR_TERMINAL_M for end in ends):
            found.append(one)
        at_m = to_m
    return found


def conductors_of(one: SectionFigures) -> tuple[Conductor, Conductor]:
    """Line and protective conductor of a section."""
    record, cable = one.metre.record, one.cable
    protective = "armour" if armour_alone(record, cable) else "protective conductor"
    return (
        Conductor(one, "line conductor", cable.csa_mm2, K_COPPER[record.insulation]),
        Conductor(one, protective, one.metre.cpc_mm2, protective_k(record, cable)),
    )


def laid_cable(installation: Installation, circuit: Circuit, phases: int, load: CircuitLoad) -> LaidCable:
    """A circuit's cable along its route; raises as `section_figures`."""
    rate_at_70 = circuit.terminals is TerminalSchool.RATE_AT_70
    metres: dict[Cable, CablePerMetre] = {}
    sections = []
    for section in circuit.route:
        cable = cable_of(circuit, section)
        if cable not in metres:
            metres[cable] = cable_per_metre(installation.record(cable), cable)
        sections.append(section_figures(section, cable, metres[cable], phases, load, rate_at_70=rate_at_70))
    return laid_together(tuple(sections), load, flex_of(installation, circuit, load), circuit.slack_m)


def flex_of(installation: Installation, circuit: Circuit, load: CircuitLoad) -> Flex:
    """The flexible tail of the unit that a circuit feeds; nothing where it has none or nobody has measured it."""
    point = installation.tree.points.get(circuit.feeds)
    if point is None or not point.flex_tail or point.flex_csa_mm2 is None or point.flex_length_m is None:
        return NO_FLEX
    single_mv, three_mv = (
        millivolts_per_a_m("pvc_70", point.flex_csa_mm2, phases, fine_strands=True) for phases in (1, 3)
    )
    drop_mv = single_mv * load.single_a + three_mv / sqrt(3) * load.balanced_a
    r1_ohm = conductor_ohm(point.flex_length_m, point.flex_csa_mm2, fine_strands=True)
    return Flex(r1_ohm, drop_mv * point.flex_length_m / 1000)


def section_figures(
    section: Section, cable: Cable, metre: CablePerMetre, phases: int, load: CircuitLoad, *, rate_at_70: bool
) -> SectionFigures:
    """Rating, volt drop and resistances of one section.

    ΔU = (mV single·I single + mV balanced·I balanced)·L·Ct/1000; Ct is 1 where the 70 °C table rates 90 °C cable.

    Raises:
        TableError: the cable is not made in this size.
    """
    record = metre.record
    rated = record.at_70() if rate_at_70 else record
    rating = section_rating(section, rated, cable.csa_mm2, phases)
    ct = 1.0
    if rating.it_a is not None and rated is record:
        warms_a = load.conductor_a
        ct = temperature_correction(record.operating_c(), rating.reference_c, rating.factor, warms_a, rating.it_a)
    millivolts = metre.single_mv * load.single_a + metre.balanced_mv * load.balanced_a
    return SectionFigures(section, cable, metre, rating, millivolts * section.length_m * ct / 1000, ct)


def cable_per_metre(record: CableRecord, cable: Cable) -> CablePerMetre:
    """Resistances and volts of a cable, per metre.

    Raises:
        TableError: the cable is not made in this size, or its armour has no figure.
    """
    csa_mm2, fine = cable.csa_mm2, record.fine_strands
    single_mv, three_mv = (
        millivolts_per_a_m(
            record.insulation, csa_mm2, phases, fine_strands=fine, maker_mv=record.own_drop_mv.get((csa_mm2, loaded))
        )
        for phases, loaded in ((1, 2), (3, 3))
    )
    hot, armour_hot = (
        temperature_factor(record.operating_c()),
        1 + STEEL_PER_C * (ARMOUR_C[record.insulation] - 20),
    )
    r1 = conductor_ohm(1, csa_mm2, fine_strands=fine)
    core = _core_ohm(record, cable)
    armour = _armour_ohm(record, csa_mm2)
    if cable.protective in (Protective.CORE, Protective.SEPARATE) and core is not None:
        r2, hot_r2 = core, core * hot
    elif cable.protective is Protective.CORE_AND_ARMOUR and core is not None:
        r2, hot_r2 = _beside(core, armour, record), _beside(core * hot, armour and armour * armour_hot, record)
    else:
        r2 = record.armour_mohm_per_m(csa_mm2) / 1000
        hot_r2 = r2 * armour_hot
    # Armour of a size that no table has may carry anything: the highest fault is reckoned as if it lost nothing.
    untold = bool(record.armour) and armour is None
    least = 0.0 if untold else r2 if armour is None or core is None else _beside(core, armour, record)
    protective = cable if core is not None else cable.model_copy(update={"protective": Protective.ARMOUR})
    return CablePerMetre(
        record=record,
        cpc_mm2=protective_metal(record, protective),
        r1_ohm=r1,
        r2_ohm=r2,
        hot_ohm=r1 * hot + hot_r2,
        hot_factor=hot,
        least_r2_ohm=least,
        single_mv=single_mv,
        balanced_mv=three_mv / sqrt(3),
    )


def _armour_ohm(record: CableRecord, csa_mm2: float) -> float | None:
    """The armour per metre [Ω]; None without one, or where no table has this size."""
    tabled = record.armour and csa_mm2 in table("armour").rows
    return record.armour_mohm_per_m(csa_mm2) / 1000 if tabled else None


def _core_ohm(record: CableRecord, cable: Cable) -> float | None:
    """The copper protective conductor per metre [Ω]: the cable's own core, or the one beside it; None without one."""
    if cable.protective is Protective.SEPARATE:
        return conductor_ohm(1, protective_metal(record, cable))
    if record.cpc == "armour":
        return None
    return conductor_ohm(1, record.cpc_mm2(cable.csa_mm2), fine_strands=record.fine_strands)


def _beside(core_ohm: float, armour_ohm: float | None, record: CableRecord) -> float:
    if armour_ohm is None:
        raise TableError(f"{record.name} has no armour that could serve")
    return core_ohm * armour_ohm / (core_ohm + armour_ohm)
