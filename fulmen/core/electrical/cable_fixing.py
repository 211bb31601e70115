"""How a stretch of cable is usually fixed: spacing of clips, bending radius, by the cable's diameter."""

from __future__ import annotations

from fulmen.core.errors import TableError
from fulmen.core.reference.cable_catalogue import CableRecord
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.reference.tables import table


def clip_spacing_mm(record: CableRecord, csa_mm2: float, *, vertical: bool = False) -> float:
    """The widest usual spacing of clips [mm], at the next diameter down that the table prints a figure for.

    Raises:
        TableError: the table holds no diameter of this cable.
    """
    spacings = table("clip_spacing")
    column = f"{'armoured' if record.armour else 'unarmoured'}_{'vertical' if vertical else 'horizontal'}_mm"
    diameter = record.overall_diameter_mm(csa_mm2)
    rows = [row for row in spacings.rows if row <= max(diameter, spacings.rows[0]) and spacings.has(column, row)]
    row = rows[-1] if rows else next(row for row in spacings.rows if spacings.has(column, row))
    return spacings.at(column, row)


def least_bend_mm(record: CableRecord, csa_mm2: float, rules: RuleSet) -> float:
    """The least inside radius of a bend [mm]: 8 diameters of armoured cable, 6 of other cable.

    Raises:
        TableError: the table holds no diameter of this cable.
    """
    times = rules.value("bend_armoured_diameters" if record.armour else "bend_unarmoured_diameters")
    return times * record.overall_diameter_mm(csa_mm2)


def known_or_none(record: CableRecord, csa_mm2: float) -> float | None:
    """The cable's overall diameter [mm], or None where the table holds none."""
    try:
        return record.overall_diameter_mm(csa_mm2)
    except TableError:
        return None
