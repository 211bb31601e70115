"""A circuit's cable as laid: what it costs per metre, what each section carries and loses, and the whole together."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import pairwise
from math import sqrt

from fulmen.core.circuit.circuit_load import CircuitLoad
from fulmen.core.electrical.cable_rating import SectionRating, section_rating
from fulmen.core.electrical.fault_loop import conductor_ohm, temperature_factor
from fulmen.core.electrical.volt_drop import millivolts_per_a_m, temperature_correction
from fulmen.core.errors import TableError
from fulmen.core.model.cables import Cable, Protective
from fulmen.core.model.circuits import Circuit, TerminalSchool
from fulmen.core.model.job import Job
from fulmen.core.model.route import Section
from fulmen.core.reference.cable_catalogue import (
    K_COPPER,
    CableRecord,
    armour_alone,
    cable_of,
    cable_record,
    protective_k,
    protective_metal,
)

FLEX_C = 70.0
# How near a terminal a hot stretch still warms it.
NEAR_TERMINAL_M = 1.0
ARMOUR_C = {"pvc_70": 60.0, "xlpe_90": 80.0}
STEEL_PER_C = 0.0045


@dataclass(frozen=True)
class CablePerMetre:
    """What a cable costs in loop and volts, per metre. Resistances are at 20 °C unless named hot.

    `least_r2` takes armour beside the core into account, for the highest fault current.
    """

    record: CableRecord
    cpc_mm2: float
    r1_ohm: float
    r2_ohm: float
    hot_ohm: float
    least_r2_ohm: float
    single_mv: float
    balanced_mv: float


@dataclass(frozen=True)
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


@dataclass(frozen=True)
class Flex:
    """The flexible tail of a pre-wired unit past its joint: it counts in volts and in the loop, not in R1+R2."""

    r1_ohm: float = 0.0
    drop_v: float = 0.0


NO_FLEX = Flex()


@dataclass(frozen=True)
class LaidCable:
    """The cable of one circuit as laid, section by section, and what its sections come to together.

    The loop of slack at its end is cable like the last section's: it counts in volts and in the loop.
    """

    sections: tuple[SectionFigures, ...]
    ib_a: float
    flex: Flex = NO_FLEX
    slack_m: float = 0.0

    def along(self, figure: Callable[[SectionFigures], float]) -> list[float]:
        """A figure of each section, the slack's share in the last one."""
        found = [figure(one) for one in self.sections]
        if found and self.slack_m:
            found[-1] *= 1 + self.slack_m / self.sections[-1].section.length_m
        return found

    @cached_property
    def length_m(self) -> float:
        """Length of the route [m]."""
        return sum(one.section.length_m for one in self.sections)

    @cached_property
    def cable_m(self) -> float:
        """Length of the cable, slack included [m]."""
        return self.length_m + self.slack_m

    @cached_property
    def r1_ohm(self) -> float:
        """Line conductor at 20 °C [Ω]."""
        return sum(self.along(lambda one: one.r1_ohm))

    @cached_property
    def r2_ohm(self) -> float:
        """Protective conductor at 20 °C [Ω]."""
        return sum(self.along(lambda one: one.r2_ohm))

    @cached_property
    def least_r2_ohm(self) -> float:
        """Protective conductor at 20 °C with armour beside the core counted [Ω]."""
        return sum(self.along(lambda one: one.metre.least_r2_ohm * one.section.length_m))

    @cached_property
    def hot_ohm(self) -> float:
        """R1+R2 at operating temperature [Ω]."""
        return sum(self.along(lambda one: one.hot_ohm)) + 2 * self.flex.r1_ohm * temperature_factor(FLEX_C)

    @cached_property
    def hot_line_ohm(self) -> float:
        """Line conductor at operating temperature [Ω]."""
        cable_ohm = self.along(lambda one: one.r1_ohm * temperature_factor(one.metre.record.operating_c()))
        return sum(cable_ohm) + self.flex.r1_ohm * temperature_factor(FLEX_C)

    @cached_property
    def drop_v(self) -> float:
        """Volt drop [V]."""
        return sum(self.along(lambda one: one.drop_v)) + self.flex.drop_v

    @cached_property
    def weakest(self) -> int | None:
        """Index of the section with the least Iz; None where a section has no rating."""
        ratings = [one.rating.iz_a for one in self.sections]
        known = [rating for rating in ratings if rating is not None]
        return ratings.index(min(known)) if len(known) == len(ratings) and known else None

    @cached_property
    def hottest_end(self) -> tuple[float, SectionFigures] | None:
        """Highest conductor temperature at a terminal at Ib [°C], and the section; None without a rating.

        A terminal is as hot as the section that ends at it and what lies within a metre of it; in the middle of the
        route the insulation's own limit counts.
        """
        found = [(one.rating.conductor_c(self.ib_a), one) for one in self._at_terminals()]
        known = [(temperature, one) for temperature, one in found if temperature is not None]
        return max(known, key=lambda entry: entry[0]) if known else None

    def _at_terminals(self) -> list[SectionFigures]:
        """The sections within a metre of a terminal: at both ends, and where the cable changes."""
        ends, at_m = [0.0, self.length_m], 0.0
        for one, after in pairwise(self.sections):
            at_m += one.section.length_m
            if one.cable != after.cable:
                ends.append(at_m)
        found, at_m = [], 0.0
        for one in self.sections:
            to_m = at_m + one.section.length_m
            if any(at_m - NEAR_TERMINAL_M < end <= to_m + NEAR_TERMINAL_M for end in ends):
                found.append(one)
            at_m = to_m
        return found

    @cached_property
    def thinnest_line(self) -> tuple[SectionFigures, float]:
        """The line conductor that survives least energy: its section and size [mm²]."""
        weakest = min(self.sections, key=lambda one: K_COPPER[one.metre.record.insulation] * one.cable.csa_mm2)
        return weakest, weakest.cable.csa_mm2

    @cached_property
    def limiting_conductor(self) -> tuple[SectionFigures, str, float, float]:
        """The conductor that survives least energy: its section, name, size [mm²] and k."""
        found = [(one, *conductor) for one in self.sections for conductor in conductors_of(one)]
        return min(found, key=lambda entry: entry[2] * entry[3])


def conductors_of(one: SectionFigures) -> tuple[tuple[str, float, float], tuple[str, float, float]]:
    """Line and protective conductor of a section: name, size [mm²], k."""
    insulation, csa_mm2 = one.metre.record.insulation, one.cable.csa_mm2
    protective = "armour" if armour_alone(one.metre.record, one.cable) else "protective conductor"
    k = protective_k(one.metre.record, one.cable)
    return ("line conductor", csa_mm2, K_COPPER[insulation]), (protective, one.metre.cpc_mm2, k)


def laid_cable(job: Job, circuit: Circuit, phases: int, load: CircuitLoad) -> LaidCable:
    """A circuit's cable along its route; raises as `section_figures`."""
    rate_at_70 = circuit.terminals is TerminalSchool.RATE_AT_70
    sections = (
        section_figures(job, section, cable_of(circuit, section), phases, load, rate_at_70=rate_at_70)
        for section in circuit.route
    )
    return LaidCable(tuple(sections), load.ib_a, flex_of(job, circuit, load), circuit.slack_m)


def flex_of(job: Job, circuit: Circuit, load: CircuitLoad) -> Flex:
    """The flexible tail of the unit that a circuit feeds; nothing where it has none or nobody has measured it."""
    point = next((one for one in job.charge_points if one.id == circuit.feeds), None)
    if point is None or not point.flex_tail or point.flex_csa_mm2 is None or point.flex_length_m is None:
        return NO_FLEX
    single_mv, three_mv = (millivolts_per_a_m("pvc_70", point.flex_csa_mm2, phases) for phases in (1, 3))
    drop_mv = single_mv * load.single_a + three_mv / sqrt(3) * load.balanced_a
    return Flex(conductor_ohm(point.flex_length_m, point.flex_csa_mm2), drop_mv * point.flex_length_m / 1000)


def section_figures(
    job: Job, section: Section, cable: Cable, phases: int, load: CircuitLoad, *, rate_at_70: bool
) -> SectionFigures:
    """Rating, volt drop and resistances of one section.

    ΔU = (mV single·I single + mV balanced·I balanced)·L·Ct/1000; Ct is 1 where the 70 °C table rates 90 °C cable.

    Raises:
        TableError: the cable is not made in this size, or its armour has no figure.
    """
    record = cable_record(cable.record, job)
    metre = cable_per_metre(record, cable)
    rated = record.at_70() if rate_at_70 else record
    rating = section_rating(section, rated, cable.csa_mm2, phases)
    ct = 1.0
    if rating.it_a is not None and rated is record:
        ct = temperature_correction(record.operating_c(), rating.reference_c, rating.factor, load.ib_a, rating.it_a)
    millivolts = metre.single_mv * load.single_a + metre.balanced_mv * load.balanced_a
    return SectionFigures(section, cable, metre, rating, millivolts * section.length_m * ct / 1000, ct)


@lru_cache(maxsize=1024)
def cable_per_metre(record: CableRecord, cable: Cable) -> CablePerMetre:
    """Resistances and volts of a cable, per metre; raises as `section_figures`."""
    csa_mm2 = cable.csa_mm2
    single_mv, three_mv = (millivolts_per_a_m(record.insulation, csa_mm2, phases) for phases in (1, 3))
    hot, armour_hot = (
        temperature_factor(record.operating_c()),
        1 + STEEL_PER_C * (ARMOUR_C[record.insulation] - 20),
    )
    r1 = conductor_ohm(1, csa_mm2)
    beside = cable.protective is Protective.SEPARATE
    copper = beside or record.cpc != "armour"
    core = conductor_ohm(1, protective_metal(record, cable) if beside else record.cpc_mm2(csa_mm2)) if copper else None
    armour = record.armour_mohm_per_m(csa_mm2) / 1000 if record.armour else None
    if cable.protective in (Protective.CORE, Protective.SEPARATE) and core is not None:
        r2, hot_r2 = core, core * hot
    elif cable.protective is Protective.CORE_AND_ARMOUR and core is not None:
        r2, hot_r2 = _beside(core, armour, record), _beside(core * hot, armour and armour * armour_hot, record)
    else:
        r2 = record.armour_mohm_per_m(csa_mm2) / 1000
        hot_r2 = r2 * armour_hot
    least = r2 if armour is None or core is None else _beside(core, armour, record)
    protective = cable if core is not None else cable.model_copy(update={"protective": Protective.ARMOUR})
    return CablePerMetre(
        record, protective_metal(record, protective), r1, r2, r1 * hot + hot_r2, least, single_mv, three_mv / sqrt(3)
    )


def _beside(core_ohm: float, armour_ohm: float | None, record: CableRecord) -> float:
    if armour_ohm is None:
        raise TableError(f"{record.name} has no armour that could serve")
    return core_ohm * armour_ohm / (core_ohm + armour_ohm)
