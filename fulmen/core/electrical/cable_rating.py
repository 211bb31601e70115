"""Current-carrying capacity of each section of a route (BS 7671 Appendix 4).

Iz = It·Ca·Cg·Ci in air, It·Ca·Cg·Cs·Cd·Cc in the ground. Every factor is read from a published table, at
the next row on the safe side where the place lies between two rows.
"""

from __future__ import annotations

from dataclasses import replace
from math import prod
from typing import NamedTuple

from fulmen.core.errors import TableError
from fulmen.core.findings.finding import WorkingLine
from fulmen.core.model.reference_method import ReferenceMethod
from fulmen.core.model.route import IN_GROUND, Section
from fulmen.core.plain import plain
from fulmen.core.reference.cable_catalogue import OPERATING_C, CableRecord
from fulmen.core.reference.places import LaidMethod, methods_in
from fulmen.core.reference.tables import Table, table

AIR_REFERENCE_C = 30.0
GROUND_REFERENCE_C = 20.0
CC_BURIED = 0.90


class Factor(NamedTuple):
    """A figure that goes into Iz, with the cell of the table that it was read from; `note` says what else of it."""

    symbol: str
    value: float
    read_in: Table | None = None
    column: str = ""
    row: float = 0.0
    note: str = ""

    def line(self) -> WorkingLine:
        """The figure as a line of a working."""
        source = self.note if self.read_in is None else self.read_in.source(self.column, self.row) + self.note
        if self.symbol == IT:
            return WorkingLine(symbol=IT, value=self.value, decimals=1, unit="A", source=source)
        return WorkingLine(symbol=self.symbol, value=self.value, source=source)


# The tabulated capacity, which the factors correct; the one for cables that lie together.
IT, CG = "It", "Cg"


@plain
class SectionRating:
    """What one section carries.

    `iz_a` is None where no table rates this cable laid this way; `why_unrated` then says which.
    `factor` is the product of all correction factors, `figures` It and each of them. `rated_c` is the ambient
    temperature that Iz is for: the row of Ca that was read. `method` is the one it is rated by; `overruled` the one
    entered that the place does not allow. `cg` is the grouping factor within `factor`.
    """

    iz_a: float | None
    it_a: float | None
    factor: float
    ambient_c: float
    reference_c: float
    figures: tuple[Factor, ...]
    why_unrated: str = ""
    operating_c: float = 70.0
    rated_c: float = AIR_REFERENCE_C
    method: ReferenceMethod = ReferenceMethod.C
    overruled: ReferenceMethod | None = None
    cg: float = 1.0

    def working(self) -> tuple[WorkingLine, ...]:
        """How Iz follows, line by line."""
        if self.iz_a is None:
            return ()
        total = WorkingLine(
            symbol="Iz",
            formula="·".join(one.symbol for one in self.figures),
            figures="·".join(f"{one.value:g}" for one in self.figures),
            value=self.iz_a,
            decimals=1,
            unit="A",
        )
        return (*(one.line() for one in self.figures), total)

    def conductor_c(self, ib_a: float) -> float | None:
        """Conductor temperature at a current [°C]; None where nothing rates the section."""
        if self.iz_a is None:
            return None
        group = Group(self.cg, TERMINALS_C)
        return conductor_temperature_c(
            ib_a, self.iz_a, self.ambient_c, self.operating_c, rated_c=self.rated_c, group=group
        )


def section_rating(section: Section, record: CableRecord, csa_mm2: float, phases: int = 1) -> SectionRating:
    """Iz of one section, never more than its place allows.

    Args:
        section: the section, with its surroundings and the reference method chosen there, if any.
        record: the kind of cable.
        csa_mm2: line conductor size [mm²], one of the record's sizes.
        phases: 1 for two loaded conductors, 3 for three.

    Returns:
        The rating with its working. A method that the place does not allow counts only where it carries less.

    References:
        BS 7671:2018+A2:2022 Appendix 4, Tables 4A2, 4B1 to 4B4, 4C1 to 4C3, 52.2 and the record's own table.
    """
    allowed = methods_in(section, record)
    chosen = next((one for one in allowed if one.method is section.method), None)
    rating = _rated(section, record, csa_mm2, phases, chosen or allowed[0])
    if chosen is not None or section.method is None:
        return rating
    if section.method is ReferenceMethod.D:
        return replace(rating, overruled=section.method)
    entered = _rated(section, record, csa_mm2, phases, LaidMethod(section.method))
    less = entered.iz_a is not None and rating.iz_a is not None and entered.iz_a < rating.iz_a
    return entered if less else replace(rating, overruled=section.method)


def kinder_by_hand(section: Section, record: CableRecord, csa_mm2: float, phases: int = 1) -> ReferenceMethod | None:
    """The method that the place alone gives, where one chosen by hand carries more; None where none does.

    Args:
        section: the section with the method that was chosen there.
        record: the kind of cable.
        csa_mm2: line conductor size [mm²].
        phases: 1 for two loaded conductors, 3 for three.
    """
    if section.method is None:
        return None
    usual = methods_in(section, record)[0]
    if usual.method is section.method:
        return None
    by_hand, by_place = (
        section_rating(section, record, csa_mm2, phases).iz_a, _rated(section, record, csa_mm2, phases, usual).iz_a
    )  # fmt: skip
    kinder = by_hand is not None and by_place is not None and by_hand > by_place
    return usual.method if kinder else None


def _rated(section: Section, record: CableRecord, csa_mm2: float, phases: int, laid: LaidMethod) -> SectionRating:
    buried = laid.method is ReferenceMethod.D
    reference_c = GROUND_REFERENCE_C if buried else AIR_REFERENCE_C
    ambient_c = reference_c if section.temperature_c is None else section.temperature_c
    try:
        tabulated = _tabulated(section, record, csa_mm2, phases, laid.method)
        factors = (
            _ground_factors(section, record, ambient_c) if buried else _air_factors(section, record, ambient_c, laid)
        )
    except TableError as error:
        return SectionRating(None, None, 1.0, ambient_c, reference_c, (), f"No rating: {error}.", method=laid.method)
    factor, it_a = prod(one.value for one in factors), tabulated.value
    _, rated_c = table("ca_ground" if buried else "ca_air").at_or_above(record.insulation, ambient_c)
    return SectionRating(
        iz_a=it_a * factor,
        it_a=it_a,
        factor=factor,
        ambient_c=ambient_c,
        reference_c=reference_c,
        figures=(tabulated, *factors),
        operating_c=record.operating_c(),
        rated_c=rated_c,
        method=laid.method,
        cg=next((one.value for one in factors if one.symbol == CG), 1.0),
    )


# What every cable of a house ends at, whatever its insulation stands.
TERMINALS_C = OPERATING_C["pvc_70"]


class Group(NamedTuple):
    """What a cable lies together with: the grouping factor within Iz [1], 1 for a circuit alone, and θn [°C], what the
    conductors of the others reach; θp where not given. Cables of 90 °C insulation end at 70 °C terminals too (common
    practice, no source).
    """

    cg: float = 1.0
    neighbours_c: float | None = None


ALONE = Group()


def conductor_temperature_c(
    ib_a: float,
    iz_a: float,
    ambient_c: float,
    operating_c: float,
    *,
    rated_c: float | None = None,
    group: Group = ALONE,
) -> float:
    """Conductor temperature at the design current: θ = θamb + (θp − θr)·((Cg·Ib/Iz)² + q·(1 − Cg²)).

    At Iz the conductor stands θp − θr above the ambient temperature θr that Iz is for. Its own share of that rise goes
    with the square of its current; what circuits in its group add, 1 − Cg² of the rise, stays, since they are taken at
    their own rating: that at which their conductors reach θn, q = (θn − θamb)/(θp − θr) of the rise.
    Where Ca was read for just this place, θr = θamb.

    Args:
        ib_a: design current [A], ≥ 0.
        iz_a: capacity of the section where it lies [A], > 0.
        ambient_c: temperature around the cable [°C].
        operating_c: θp, highest continuous temperature of the insulation [°C].
        rated_c: θr, the ambient temperature that Iz is for [°C]; the place's own where not given.
        group: what it lies together with.

    References:
        BS 7671 Appendix 4 §6.1, whose t1 = tp − (Ca²·Cg² − Ib²/It²)(tp − 30) gives the same in a group.

    >>> round(conductor_temperature_c(32, 47, 30, 90), 1)
    57.8
    >>> round(conductor_temperature_c(32, 48, 30, 90, group=Group(0.6)))
    78
    >>> round(conductor_temperature_c(32, 48, 30, 90, group=Group(0.6, 70)))
    65
    """
    rise_at_iz = operating_c - (ambient_c if rated_c is None else rated_c)
    share = neighbours_share(ambient_c, rise_at_iz, group.neighbours_c)
    return ambient_c + rise_at_iz * ((group.cg * ib_a / iz_a) ** 2 + share * (1 - group.cg**2))


def neighbours_share(ambient_c: float, rise_at_iz: float, neighbours_c: float | None) -> float:
    """q: which share of the rise at Iz the others in a group reach [1], 0 to 1; all of it where nothing holds them."""
    if neighbours_c is None:
        return 1.0
    return min(1.0, max(0.0, (neighbours_c - ambient_c) / rise_at_iz))


# Whose D column rates a cable in a ground duct that has none of its own, by insulation.
LENT_IN_DUCT = {"pvc_70": "4d4a", "xlpe_90": "4e4a"}
# Whose B column rates an armoured or a flat cable in an enclosure: that of the unarmoured multicore, which runs hotter
# than an armoured one and fills the enclosure as a flat one does.
LENT_IN_ENCLOSURE = {"pvc_70": "4d2a", "xlpe_90": "4e2a"}
ASK_THE_MAKER = "taken, ask the maker"


def lends_duct_column(section: Section, record: CableRecord) -> bool:
    """Whether a cable lies in a ground duct that its own table has no column for; another of its insulation serves."""
    in_ground_duct = section.surroundings in IN_GROUND and section.ducted()
    return in_ground_duct and ReferenceMethod.D.value not in record.methods


def _tabulated(section: Section, record: CableRecord, csa_mm2: float, phases: int, method: ReferenceMethod) -> Factor:
    lent = lends_duct_column(section, record)
    ratings = table(LENT_IN_DUCT[record.insulation]) if lent else record.ratings()
    if method is ReferenceMethod.B and record.takes_b:
        ratings = table(LENT_IN_ENCLOSURE[record.insulation])
    column = f"{method.value}.{2 if phases == 1 else 3}"
    note = f"; {ASK_THE_MAKER}" if lent else ""
    return Factor(IT, ratings.at(column, csa_mm2), ratings, column, csa_mm2, note)


def _air_factors(section: Section, record: CableRecord, ambient_c: float, laid: LaidMethod) -> list[Factor]:
    arrangement = "single_layer" if section.single_layer else "bunched"
    lines = [_factor("Ca", "ca_air", record.insulation, ambient_c)]
    lines.append(_factor(CG, "cg", arrangement, section.company()))
    in_insulation_mm = 1000 * section.length_m if laid.surrounded else section.insulated_mm()
    if in_insulation_mm > 0 and not laid.holds_insulation:
        lines.append(_factor("Ci", "ci", "ci", min(in_insulation_mm, 500.0)))
    return lines


def _ground_factors(section: Section, record: CableRecord, ambient_c: float) -> list[Factor]:
    laid = "in_duct" if section.ducted() else "direct"
    group = "ducts_touching" if section.ducted() else "buried_touching"
    return [
        _factor("Ca", "ca_ground", record.insulation, ambient_c),
        _factor(CG, "cg", group, section.company()),
        _factor("Cs", "cs", laid, section.soil_km_per_w),
        _factor("Cd", "cd", laid, section.dug_m()),
        Factor("Cc", CC_BURIED, note="BS 7671 Appendix 4 §5.1.1, buried, BS EN 60898 device"),
    ]


def _factor(symbol: str, key: str, column: str, row: float) -> Factor:
    """One factor at the next row on the safe side, which the working states."""
    factors = table(key)
    value, used = factors.at_or_above(column, row)
    note = "" if used == row else f", for {row:g}"
    return Factor(symbol, value, factors, column, used, note)
